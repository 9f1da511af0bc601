#pragma once

#include <array>
#include <cmath>
#include <cstddef>
#include <vector>

#include "ubbo/base/answer.hpp"
#include "ubbo/base/length.hpp"
#include "ubbo/landing/snap_points.hpp"

namespace ubbo {

/// What a part was doing when it was let go. All places are in the part's own unit, velocities in that per
/// second.
struct Release {
  double place = 0.0;
  double velocity = 0.0;
  double projection_time =
      0.0;             ///< s; how much of the velocity is added before the nearest snap point is taken
  bool flick = false;  ///< fast enough to go on to the next snap point that way at least
  double min = 0.0;    ///< its bounds
  double max = 0.0;
  double origin = 0.0;         ///< where it stood, or went, when the finger took it
  double max_per_flick = 0.0;  ///< no more snap points than that from there; 0: as many as it is aimed at
  /// How far it must be taken from the snap point it came from to go on to the next: a distance in the part's
  /// own unit (in place of dp), or a share of the way there. 0: half-way.
  Length commit_distance{};
};

/// The choice of where a released part comes to rest, with the numbers it was made from.
struct Landing {
  double place = 0.0;           ///< where it comes to rest
  double aimed = 0.0;           ///< where it was let go, plus what its speed added, within the bounds
  std::size_t index = 0;        ///< which snap point; 0 when there are none
  double distance = 0.0;        ///< from `aimed` to `place`
  double other = 0.0;           ///< the runner-up; where a flick decided, the one that would have won without
  double other_distance = 0.0;  ///< from `aimed` to `other`
  bool contested = false;       ///< there was a runner-up
  bool flicked = false;         ///< the flick alone made the difference
  bool limited = false;         ///< it may not go further at a time, which made the difference
  double moved = 0.0;           ///< from the snap point it came from to `aimed`, where a commit decided
  double commit = 0.0;          ///< what that was held against; 0: no commit decided
};

/// A value past which a drag that is let go at rest comes to rest elsewhere than where it began.
struct Threshold {
  double value = 0.0;
  int way = 0;  ///< it counts as the value grows: 1, as it shrinks: -1, either way: 0

  friend bool operator==(const Threshold&, const Threshold&) = default;
};

/// Adds the thresholds between neighbouring snap points, for drags that begin on one of the two: half-way, or
/// where the commit distance says. As `choose_landing` decides. Nothing where there are more than 60 snap
/// points: they are too near to one another to be worth a line.
void add_thresholds(const SnapPoints& snaps, Length commit_distance, std::vector<Threshold>& out);

/// Chooses where a part comes to rest: on the snap point nearest to where it is aimed, the later one of two
/// as near; after a flick on the next one in its direction at least, if there is one; without snap points
/// where it is aimed.
[[nodiscard]] Landing choose_landing(const SnapPoints& snaps, const Release& release);

namespace questions {
inline constexpr Question landing{"landing.landing"};
}
namespace answers {
using LandHeld = AnswerWith<OwnNumber<"from">, OwnNumber<"place">, OwnNumber<"aimed">, OwnAtLeast<"moved">,
                            OwnNumber<"other">, Number<"speed", "dp/s">>;
using Land = AnswerWith<OwnNumber<"from">, OwnNumber<"place">, OwnNumber<"aimed">, OwnAtMost<"distance">,
                        OwnNumber<"other">, Number<"speed", "dp/s">>;
using LandAlone = AnswerWith<OwnNumber<"from">, OwnNumber<"place">, OwnNumber<"aimed">, OwnNumber<"distance">,
                             Number<"speed", "dp/s">>;
using LandTapped = AnswerWith<OwnNumber<"from">, OwnNumber<"place">, OwnNumber<"distance">>;
inline constexpr Land land_nearest{"landing.nearest", &questions::landing, true};
inline constexpr Land land_nearest_aimed{"landing.nearest-aimed", &questions::landing, true};
inline constexpr Land land_tie{"landing.tie", &questions::landing, true};
inline constexpr Land land_flicked{"landing.flicked", &questions::landing, true};
inline constexpr LandHeld land_committed{"landing.committed", &questions::landing, true};
inline constexpr LandHeld land_returns{"landing.returns", &questions::landing, true};
inline constexpr AnswerWith<OwnNumber<"from">, OwnNumber<"place">, OwnNumber<"aimed">, Number<"most", "">,
                            OwnNumber<"other">, Number<"speed", "dp/s">>
    land_limited{"landing.limited", &questions::landing, true};
inline constexpr LandAlone land_only{"landing.only", &questions::landing, true};
inline constexpr LandAlone land_free{"landing.free", &questions::landing, true};
inline constexpr LandAlone land_thrown{"landing.thrown", &questions::landing, true};
inline constexpr LandAlone land_bound{"landing.bound", &questions::landing, true};
inline constexpr AnswerWith<OwnNumber<"from">, Number<"speed", "dp/s">, OwnNumber<"place">> land_coasts{
    "landing.coasts", &questions::landing, true};
inline constexpr AnswerWith<OwnNumber<"from">, Number<"speed", "dp/s">, OwnNumber<"place">,
                            OwnNumber<"aimed">, Number<"after", "ms">>
    land_coasts_past{"landing.coasts-past", &questions::landing, true};
inline constexpr LandTapped land_tapped{"landing.tapped", &questions::landing, true};
inline constexpr LandTapped land_tapped_free{"landing.tapped-free", &questions::landing, true};
}  // namespace answers

}  // namespace ubbo
