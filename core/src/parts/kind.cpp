#include "ubbo/parts/kind.hpp"

#include <array>

namespace ubbo {

const char* name_of(Role role) {
  static constexpr std::array names{"veil", "backdrop", "surface", "track", "fill",
                                    "mark", "handle",   "label",   "value"};
  return names[static_cast<std::size_t>(role)];
}

const PartKind* find_kind(Kinds kinds, std::string_view name) {
  for (const PartKind* kind : kinds)
    if (kind->name == name) return kind;
  return nullptr;
}

std::size_t find_setting(const PartKind& kind, std::string_view name) {
  std::size_t i = 0;
  while (i < kind.settings() && kind.setting(i).name != name) ++i;
  return i;
}

}  // namespace ubbo
