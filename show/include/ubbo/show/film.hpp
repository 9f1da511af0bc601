#pragma once

#include <string>
#include <vector>

#include "ubbo/base/time.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/measure.hpp"

namespace ubbo::show {

/// A place the finger was at.
struct TrailPoint {
  Micros time{};
  Point at{};
  bool down = true;  ///< false at the end of a contact
};

/// How far the lines of a threshold reach to each side of the place where a contact went down, dp.
inline constexpr double threshold_reach = 24.0;

/// The limits drawn around the place where a contact went down, dp along each axis; 0: none along it. Along
/// one axis only: two lines across it; the same along both: a circle.
struct FilmThreshold {
  double x = 0.0;
  double y = 0.0;
  double up = threshold_reach;  ///< how far its upright lines reach upwards: less below a label
};

/// Where a contact went down, and what it had to pass to become a drag.
struct FilmPress {
  Point at{};
  FilmThreshold threshold{};
};

/// Where something that comes or goes was on its way: from one to the next the same time passes.
struct FilmGhost {
  Box box{};             ///< dp, as large as it was shown
  double opacity = 1.0;  ///< of the thing then
};

/// A turn of a wheel, or what fingers do on a trackpad.
struct FilmTurn {
  Micros time{};
  Point at;
  Point by;            ///< towards where it scrolls; of any length
  bool zooms = false;  ///< then `by` is up for closer, down for further away
};

/// One frame of a film.
struct FilmFrame {
  Micros time{};
  skin::Picture scene;                 ///< the stage at that time, in dp
  std::vector<std::string> captions;   ///< the decisions that fell since the frame before
  std::vector<std::string> reasons{};  ///< the decisions in whole sentences
  std::vector<FilmPress> presses;      ///< of the contacts that are down
  std::vector<FilmGhost> ghosts;       ///< of what has been on its way since the frame before, oldest first
};

/// All that a film shows.
struct FilmReel {
  std::string title;
  std::string subtitle;
  std::vector<FilmFrame> frames;
  std::vector<std::vector<TrailPoint>> trails;  ///< one a contact, sorted by time
  std::vector<TrailPoint> hovers;               ///< of mouse and pen without a contact; not `down`: they left
  std::vector<FilmTurn> turns{};                ///< of wheels
  std::vector<Micros> decided;                  ///< when decisions fell
  std::vector<Point> snap_places;               ///< dp
  Box region;                                   ///< the part of the screen that is shown, dp
  Micros begins{};
  Micros ends{};
};

/// One picture of `width` x `height` with the frames in order, their times, the finger and its trail, the
/// drag threshold around the point of touch, the snap points, the decisions, and a line of time below. Throws
/// `std::invalid_argument` when that many frames are too small to read at that size.
[[nodiscard]] skin::Picture film(const FilmReel& reel, double width, double height,
                                 const skin::Measure& measure, const skin::CombColours& colours = skin::day);

}  // namespace ubbo::show
