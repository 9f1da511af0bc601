#pragma once

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::test {

/// A part as a scene would describe it.
template <class P>
io::PartPlan plan(std::string id, const Box& box, typename P::Settings settings,
                  std::map<std::string, std::string> cells = {}, Standing standing = {}) {
  return {.id = std::move(id),
          .kind = &P::described(),
          .settings = AnySettings(std::move(settings)),
          .cells = std::move(cells),
          .placement = Placement::of(box),
          .standing = std::move(standing)};
}

}  // namespace ubbo::test
