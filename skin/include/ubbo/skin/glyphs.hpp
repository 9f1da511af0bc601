#pragma once

#include <span>
#include <string_view>

#include "ubbo/skin/picture.hpp"

namespace ubbo::skin {

/// The signs of the comb skin, all built from hexagons and straight lines: "hive", "water", "move", …
[[nodiscard]] std::span<const std::string_view> glyph_names();

/// The sign of that name in a square of `size` about `middle`; a plain hexagon for a name that is none.
[[nodiscard]] Picture glyph(std::string_view name, Point middle, double size, const Colour& colour);

}  // namespace ubbo::skin
