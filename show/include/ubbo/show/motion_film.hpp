#pragma once

#include <string>
#include <vector>

#include "ubbo/motion/timeline.hpp"
#include "ubbo/motion/transition.hpp"
#include "ubbo/skin/comb.hpp"

/// Pictures of motions without a scene: what the demo shows of them.
namespace ubbo::show {

/// A way of moving and what it is called.
struct NamedTransition {
  std::string name;
  Transition transition;
};

/// The same card, let go at `velocity` (dp/s, to the right, away from its place), sent home by each
/// transition: one lane each, the card drawn every `every`, faint at first and solid at last, with the way it
/// took above.
struct Throw {
  std::string title{};
  std::string card{};     ///< what stands on the card
  double from = 0.0;      ///< where it is let go, dp right of its place
  double velocity = 0.0;  ///< dp/s
  Micros every{32'000};
  std::vector<NamedTransition> ways{};
};
[[nodiscard]] skin::Picture thrown_cards(const Throw& thrown, double width, double height,
                                         const skin::CombColours& colours = skin::day);

/// A list whose rows come in by a timeline: each row has the tracks `NAME.x` (dp from its place) and
/// `NAME.opacity`. Frames side by side, close in time at first, the last at the end.
struct RowsIn {
  std::string title{};
  std::string subtitle{};
  std::vector<std::string> rows{};
  int frames = 6;
};
[[nodiscard]] skin::Picture rows_coming_in(const RowsIn& list, const Timeline& timeline, double width,
                                           double height, const skin::CombColours& colours = skin::day);

}  // namespace ubbo::show
