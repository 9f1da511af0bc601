#pragma once

#include <array>

#include "ubbo/parts/kind.hpp"
#include "ubbo/parts/pad.hpp"
#include "ubbo/parts/pane.hpp"
#include "ubbo/parts/slider.hpp"

namespace ubbo {

/// The kinds of part that Ubbo ships: the one place that lists them. An app hands its own list to the scene
/// reader and the tool.
[[nodiscard]] inline Kinds shipped_kinds() {
  static const std::array kinds{&Slider::described(), &Pane::described(), &Pad::described()};
  return kinds;
}

}  // namespace ubbo
