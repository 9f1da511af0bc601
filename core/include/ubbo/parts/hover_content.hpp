#pragma once

#include <array>
#include <cstdint>
#include <span>
#include <string>

#include "ubbo/base/settings.hpp"
#include "ubbo/motion/transition.hpp"

namespace ubbo {

/// The side from which something comes over a part that is hovered.
enum class HoverFrom : std::uint8_t {
  pointer,  ///< the one over which the pointer came; and it goes where the pointer goes
  left,
  top,
  right,
  bottom
};

inline constexpr std::array hover_from_names{"pointer", "left", "top", "right", "bottom"};

/// What comes over a part, or over the one of its pieces that is hovered, while a mouse or pen is over it.
/// People without one never see it: say nothing here that stands nowhere else.
struct HoverContent {
  std::string words{};   ///< a caption; "{item}": the number of its item, from 1
  double overlay = 0.0;  ///< how much a shade under the caption hides, 0 to 1
  double scale = 1.0;    ///< how large its picture becomes
  HoverFrom from = HoverFrom::pointer;
  double distance = 0.0;  ///< how far shade and caption come, as a share of its size
  Transition opacity_transition = Timed{Curve::ease_out(), Micros{180'000}};
  Transition offset_transition = Spring::settling(Micros{320'000}, 0.0);
  Transition scale_transition = Timed{Curve::ease_out(), Micros{260'000}};
};

template <>
std::span<const Setting<HoverContent>> settings_of<HoverContent>();

/// What of a hovered part or piece eases by itself.
enum class HoverShare : std::uint8_t { shown, opacity, offset, scale };

}  // namespace ubbo
