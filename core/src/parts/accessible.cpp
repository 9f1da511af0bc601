#include "ubbo/parts/accessible.hpp"

#include <array>

namespace ubbo {

const char* name_of(Key key) {
  static constexpr std::array names{"left", "right", "up",       "down",  "page-up", "page-down", "home",
                                    "end",  "tab",   "back-tab", "space", "enter",   "escape",    "back"};
  return names[static_cast<std::size_t>(key)];
}

std::span<const Key> all_keys() {
  static constexpr std::array keys{Key::left,      Key::right, Key::up,     Key::down, Key::page_up,
                                   Key::page_down, Key::home,  Key::end,    Key::tab,  Key::back_tab,
                                   Key::space,     Key::enter, Key::escape, Key::back};
  return keys;
}

}  // namespace ubbo
