#pragma once

#include <string>
#include <vector>

#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/measure.hpp"
#include "ubbo/touch/sample.hpp"

namespace ubbo::show {

/// A gesture to be marked on a touch map.
struct TouchMark {
  Micros time{};
  Micros began{};
  Point at{};
  std::string words;
};

/// A tap that did not belong to the one before: when it went down, and why not.
struct TouchMiss {
  Micros time{};
  std::string words;
};

/// A sentence of what was decided.
struct TouchNote {
  Micros time{};
  std::string words;
};

/// What a touch map shows.
struct TouchMap {
  std::string title;
  Box screen;
  std::vector<Sample> samples;
  std::vector<TouchMark> marks;
  std::vector<TouchMiss> misses{};
  std::vector<TouchNote> notes{};
};

/// The paths of all contacts over the screen: width by speed, a tick each 50 ms, taps and holds marked where
/// they were, and beside them the contacts as bars over time with what they were taken for. A gap that was
/// missed is bridged, with its number and the reason; below stand the notes, as many as have room.
[[nodiscard]] skin::Picture touch_map(const TouchMap& map, double width, double height,
                                      const skin::Measure& measure,
                                      const skin::CombColours& colours = skin::day);

}  // namespace ubbo::show
