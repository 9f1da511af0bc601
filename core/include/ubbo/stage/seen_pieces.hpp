#pragma once

#include <array>
#include <optional>

#include "ubbo/parts/kind.hpp"

namespace ubbo {

/// How a part is seen through all that it lies in: moved, scaled, turned, faded and clipped by each of these
/// in turn. Made once for a part at a time; costs O(depth), and no memory.
class SeenThrough {
 public:
  explicit SeenThrough(const Part& part);

  /// The piece as it is drawn: box, turn and opacity as they are on the screen, and the box outside of which
  /// nothing of it is seen. What is turned is clipped by the box around its turned clip.
  [[nodiscard]] Piece operator()(Piece piece) const;

 private:
  struct Step {
    Point centre{};
    double scale = 1.0;
    double turn = 0.0;  // radians, clockwise
    double opacity = 1.0;
    std::optional<Box> clip{};  // before it is scaled and turned
  };
  static constexpr std::size_t deepest = 32;

  void add(Point centre, const VisualState& visual_state, std::optional<Box> clip);

  std::array<Step, deepest> steps_{};
  std::size_t count_ = 0;
};

/// Hands out the pieces of a part as they are drawn; nothing where it is not in sight.
template <class F>
void seen_pieces(const Part& part, F&& out) {
  if (!part.in_sight()) return;
  const SeenThrough seen(part);
  pieces_of(part, [&](const Piece& piece) { out(seen(piece)); });
}

}  // namespace ubbo
