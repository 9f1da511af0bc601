#pragma once

#include <optional>
#include <string>

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::io {

/// How a part, or the screen, lays out what lies in it.
struct Arrangement {
  bool row = false;  ///< side by side, from the leading side; else one below the other
  double gap = 0.0;  ///< dp
  Insets padding{};  ///< dp
};

/// What cannot be laid out: the index of the part to blame, what was found, what it takes.
struct ArrangeFault {
  std::size_t part = 0;
  std::string found{};
  std::string takes{};
};
/// Gives the parts of a scene that lie in `outer` ("": on the screen) the places nobody says, in their order;
/// a part that says where it stands along the way of the others stands there, and takes no room. Nothing, or
/// what is wrong.
[[nodiscard]] std::optional<ArrangeFault> arrange(Scene& scene, const std::string& outer, const Insets& frame,
                                                  const Arrangement& how, const TextWidth& measure);

/// Gives a part the lengths that its kind, or the part it lies in, has for it, where nobody says them.
void give_usual_place(PartPlan& plan, const PartPlan* outer);

}  // namespace ubbo::io
