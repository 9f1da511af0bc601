#pragma once

#include "ubbo/io/scene/scene.hpp"

namespace ubbo::test {

/// A part as a scene would describe it.
template <class P>
io::PartPlan plan(std::string id, const Box& box, typename P::Settings settings,
                  std::map<std::string, std::string> cells = {}, ContactRules contact_rules = {}) {
  return {.id = std::move(id),
          .kind = &P::described(),
          .settings = AnySettings(std::move(settings)),
          .cells = std::move(cells),
          .placement = Placement::of(box),
          .contact_rules = std::move(contact_rules)};
}

}  // namespace ubbo::test
