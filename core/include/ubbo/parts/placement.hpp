#pragma once

#include <optional>
#include <string>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/length.hpp"

namespace ubbo {

/// Where a part stands in its container: the part it lies in, or the screen. Of each direction two lengths
/// are given: a start and a size, a size and the distance from the far edge, or the distances from both
/// edges; `x` or `y` left out with a size alone is 0. `{40, 200, 280, 48}` is `x, y, w, h` in dp.
struct Placement {
  std::optional<Length> x{};       ///< from the container's left edge
  std::optional<Length> y{};       ///< from its top edge
  std::optional<Length> w{};       ///< width
  std::optional<Length> h{};       ///< height
  std::optional<Length> right{};   ///< from its right edge, inwards
  std::optional<Length> bottom{};  ///< from its bottom edge, inwards
  bool in_safe_area = false;       ///< of the screen: counts from within notch and system bars

  static Placement of(const Box& box) { return {box.x, box.y, box.w, box.h}; }
  friend bool operator==(const Placement&, const Placement&) = default;
};

/// What is wrong with a placement: "" or a sentence that says which length, and what is taken.
[[nodiscard]] std::string fault_of(const Placement& placement);
/// The box it comes to in `container`; sizes below zero come to none. Needs a placement without fault.
[[nodiscard]] Box laid_out(const Placement& placement, const Box& container);

}  // namespace ubbo
