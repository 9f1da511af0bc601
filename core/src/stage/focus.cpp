// Which part has the keyboard.
#include "ubbo/stage/stage.hpp"

namespace ubbo {

bool Stage::can_focus(const Part& part) {
  return part.visible() && part.enabled() && !part.accessible().keys.empty();
}

bool Stage::focus(std::string_view id) {
  Part* part = find(id);
  if (part != nullptr && !can_focus(*part)) part = nullptr;
  focus_ = part;
  return id.empty() || part != nullptr;
}

void Stage::move_focus(bool on) {
  const auto count = order_.size();
  // From just before the first part, or just behind the last; past the other end the focus leaves the stage,
  // so that the app's own order goes on.
  std::size_t at = on ? static_cast<std::size_t>(-1) : count;
  for (std::size_t i = 0; focus_ != nullptr && i < count; ++i)
    if (order_[i] == focus_) at = i;
  focus_ = nullptr;
  for (at += on ? 1U : static_cast<std::size_t>(-1); at < count; at += on ? 1U : static_cast<std::size_t>(-1))
    if (can_focus(*order_[at])) {
      focus_ = order_[at];
      return;
    }
}

}  // namespace ubbo
