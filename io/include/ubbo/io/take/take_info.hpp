#pragma once

#include <string>
#include <vector>

#include "ubbo/base/journal.hpp"
#include "ubbo/io/take/take.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/gesture.hpp"
#include "ubbo/touch/wheel.hpp"

namespace ubbo::io {

/// One contact of a take.
struct ContactInfo {
  int id = 0;
  Micros start{};
  Micros duration{};
  std::size_t samples = 0;
  double path = 0.0;  ///< dp, the way it went
  Point net{};        ///< dp, from its first to its last place
  std::string ended;  ///< "up", "cancel" or "open"
};

/// One stay of a mouse or pen over the screen without touching it.
struct HoverInfo {
  Tool tool = Tool::mouse;
  int device = 0;
  Micros start{};
  Micros duration{};
  std::size_t samples = 0;
  double path = 0.0;  ///< dp, the way it went
  std::string ended;  ///< "leave", "down" where it touched, or "open"
};

/// Turns of a wheel or trackpad one after another: in one unit, with less than 300 ms between two.
struct WheelInfo {
  Micros start{};
  Micros duration{};
  std::size_t turns = 0;
  Point at{};     ///< dp, where the pointer was at the first
  Point total{};  ///< in `unit`, to the right and down
  WheelUnit unit = WheelUnit::dp;
  double scale = 1.0;  ///< by which a pinch on a trackpad scaled
  bool zooms = false;
};

/// What a take holds, and what its touches are taken for.
struct TakeInfo {
  std::string feel{};                 ///< what the feel is called they are taken by; "": not told
  std::vector<ContactInfo> contacts;  ///< in the order in which they went down
  std::vector<HoverInfo> hovers;      ///< in the order in which they began
  std::vector<WheelInfo> wheels;      ///< likewise
  std::vector<Gesture> gestures;      ///< each at its end
  std::vector<Decision> decisions;    ///< why they were taken for that
};

/// Inspects a take with the gestures of an area as large as `screen`; without a size it has no edges to swipe
/// from.
[[nodiscard]] TakeInfo inspect(const Take& take, const Feel& feel, Box screen);

/// As a table for people, and as JSON (docs/formats/take.md). `unit` names lengths: "dp", or "units" of a
/// panel.
[[nodiscard]] std::string info_text(const TakeInfo& info, const char* unit = "dp");
[[nodiscard]] std::string info_json(const TakeInfo& info);

/// What a gesture is called for people: "double tap", "flick left", "pinch out".
[[nodiscard]] std::string title(const Gesture& gesture);

/// The screen in a take's notes; a box without size when they do not tell.
[[nodiscard]] Box screen_of(const Take& take);

}  // namespace ubbo::io
