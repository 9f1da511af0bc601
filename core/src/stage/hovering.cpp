// Which part is under a pointer that touches nothing, and when another one will be.
#include <algorithm>

#include "ubbo/stage/stage.hpp"

namespace ubbo {

namespace {

// What moves is looked at this often, at times that do not depend on frames or on when it began; between two
// of them the change is closed in on.
constexpr Micros apart{4'000};
// No further ahead than this at a time.
constexpr Micros ahead{64'000};

}  // namespace

bool Stage::take_hover(const Sample& sample) {
  if (sample.tool == Tool::finger) return false;  // none is over a screen that it does not touch
  if (sample.phase == Phase::hover)
    hover_.point(sample);
  else
    hover_.leave(sample);
  return false;
}

Part* Stage::under_pointer() const {
  if (!hover_.pointing() || contacts_.open_count() > 0) return nullptr;
  return routing_.under(order_.parts(), hover_.at());
}

void Stage::look_at_hover() {
  if (hover_.clock() == nullptr) return;
  Part* found = under_pointer();
  if (Part* before = hover_.part(); found != before) {
    if (before != nullptr) before->decide(answers::hover_leaves, hover_.at().x, hover_.at().y);
    if (found != nullptr) found->decide(answers::hover_enters, hover_.at().x, hover_.at().y);
    hover_.move_to(found, context_.now);
    after(*hover_.clock());
  }
  look_ahead_of_hover();
}

// Motions are known beforehand up to what is due next.
void Stage::look_ahead_of_hover() {
  hover_due_ = never;
  if (!hover_.pointing() || contacts_.open_count() > 0 || unsettled_ == 0) return;
  const Micros now = context_.now;
  const Part* present = hover_.part();
  const auto differs_at = [&](Micros time) {
    context_.now = time;
    const bool differs = under_pointer() != present;
    context_.now = now;
    return differs;
  };
  const Micros until = std::min(now + ahead, next_due());
  Micros same = now;
  for (Micros next = (now / apart + 1) * apart; same < until; next += apart) {
    Micros other = std::min(next, until);
    if (!differs_at(other)) {
      same = other;
      continue;
    }
    while (other - same > Micros{1}) {
      const Micros middle = same + (other - same) / 2;
      (differs_at(middle) ? other : same) = middle;
    }
    hover_due_ = other;
    return;
  }
  if (until == now + ahead) hover_due_ = until;
}

}  // namespace ubbo
