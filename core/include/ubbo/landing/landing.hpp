#pragma once

#include <array>
#include <cmath>
#include <cstddef>

#include "ubbo/base/answer.hpp"
#include "ubbo/landing/snap_points.hpp"

namespace ubbo {

/// How far a part must be taken from the snap point it came from before it goes on to the next; whichever is
/// reached first. Where neither is given, half-way.
struct Commit {
  double share = 0.0;     ///< of the way to the next snap point, above 0 to 1; 0: not used
  double distance = 0.0;  ///< in the part's own unit; 0: not used

  /// The distance that counts on a way of this length; 0 where none is given.
  [[nodiscard]] double on(double way) const {
    const double by_share = share * way;
    if (share <= 0.0) return distance;
    return distance > 0.0 ? std::fmin(by_share, distance) : by_share;
  }
};

/// What a part was doing when it was let go. All places are in the part's own unit, velocities in that per
/// second.
struct Release {
  double place = 0.0;
  double velocity = 0.0;
  double carry = 0.0;  ///< s; how much of the velocity is added before the nearest snap point is taken
  bool flick = false;  ///< fast enough to go on to the next snap point that way at least
  double least = 0.0;  ///< its bounds
  double most = 0.0;
  double origin = 0.0;   ///< where it stood, or went, when the finger took it
  double at_most = 0.0;  ///< no more snap points than that from there; 0: as many as it is aimed at
  Commit commit{};       ///< when it leaves the snap point it came from
};

/// The choice of where a released part comes to rest, with the numbers it was made from.
struct Landing {
  double place = 0.0;           ///< where it comes to rest
  double aimed = 0.0;           ///< where it was let go; thrown, with what that added, within the bounds
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

/// Chooses where a part comes to rest: on the snap point nearest to where it is aimed, the later one of two
/// as near; after a flick on the next one in its direction at least, if there is one; without snap points
/// where it is aimed.
[[nodiscard]] Landing choose_landing(const SnapPoints& snaps, const Release& release);

namespace questions {
inline constexpr Question landing{"where does it come to rest?"};
}
namespace answers {
inline constexpr Answer land_nearest{
    &questions::landing, "on the nearest snap point", true,
    "let go at {from}; nearest snap point {place}, {distance} away; next {other}, "
    "{distance.limit}",
    "lands on {place}"};
inline constexpr Answer land_nearest_aimed{&questions::landing,
                                           "on the snap point nearest to where it is aimed", true,
                                           "let go at {from} with {speed}, which counts as aimed at {aimed}; "
                                           "nearest snap point to that {place}, {distance} "
                                           "away; next {other}, {distance.limit}",
                                           "lands on {place}"};
inline constexpr Answer land_tie{
    &questions::landing, "on the later of two as near", true,
    "let go at {from}; {aimed} lies half-way between the snap points {place} and {other}, "
    "{distance} from each, and the later one wins a tie",
    "lands on {place}"};
inline constexpr Answer land_flicked{
    &questions::landing, "on the next snap point, since it was flicked", true,
    "let go at {from} with {speed}, a flick: it goes on to the next snap point that "
    "way, {place}; without the flick {other} had been nearest",
    "flicked on to {place}"};
inline constexpr Answer land_committed{
    &questions::landing, "on the next snap point, far enough towards it", true,
    "let go at {from}, aimed {moved} from where it came from: {moved.limit} are enough to go on to {place}",
    "goes on to {place}"};
inline constexpr Answer land_returns{
    &questions::landing, "where it came from, not far enough away", true,
    "let go at {from}, aimed {moved} from {place}, where it came from: to go on it takes {moved.limit}",
    "back to {place}"};
inline constexpr Answer land_limited{
    &questions::landing, "as many snap points on as it may at a time", true,
    "let go at {from} with {speed}: it goes on to {place}, since it may go no further than {most} at a time; "
    "else {other} had been it",
    "goes to {place}, no further at a time"};
inline constexpr Answer land_only{
    &questions::landing, "on the only snap point", true,
    "let go at {from}; the only snap point is {place}, {distance} from where it is aimed",
    "lands on {place}"};
inline constexpr Answer land_free{&questions::landing, "where it was let go", true,
                                  "let go at {from}, and stays there: there are no snap points",
                                  "stays at {place}"};
inline constexpr Answer land_thrown{
    &questions::landing, "where its speed carries it", true,
    "let go at {from} with {speed}, which carries it to {place}: there are no snap "
    "points",
    "goes to {place}"};
inline constexpr Answer land_bound{
    &questions::landing, "at its bound", true,
    "let go at {from}, and comes to rest at its bound, {place}: there are no snap points", "goes to {place}"};
inline constexpr Answer land_glides{&questions::landing, "where friction lets it come", true,
                                    "let go at {from} with {speed}; friction lets it come to {place}",
                                    "glides to {place}"};
inline constexpr Answer land_glides_past{
    &questions::landing, "past its bound", true,
    "let go at {from} with {speed}; friction would let it come to {aimed}, past "
    "its bound at {place}, which it meets {after} later",
    "glides to its bound"};
inline constexpr Answer land_tapped{&questions::landing, "on the snap point nearest to the tap", true,
                                    "the tap meant {from}; nearest snap point {place}, {distance} away",
                                    "goes to {place}"};
inline constexpr Answer land_tapped_free{&questions::landing, "where the tap was", true,
                                         "the tap meant {place}, and it goes there: there are no snap points",
                                         "goes to {place}"};
inline constexpr std::array landing_answers{
    &land_tapped,  &land_tapped_free, &land_nearest, &land_nearest_aimed, &land_tie,
    &land_flicked, &land_committed,   &land_returns, &land_limited,       &land_only,
    &land_free,    &land_thrown,      &land_bound,   &land_glides,        &land_glides_past};
}  // namespace answers

}  // namespace ubbo
