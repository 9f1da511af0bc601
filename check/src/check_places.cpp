#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "look.hpp"

namespace ubbo::check {

namespace {

// What fingers hit: docs/formats/scene.md.
constexpr double min_target = 44.0;  // dp
constexpr double min_gap = 8.0;      // dp

// What it lies in carries it to a place of its own, or shows it at its own time.
bool carried(const Looked& one) {
  return one.part->outer() != nullptr && one.part->outer()->places_children();
}

void place(Look& look, const Looked& one) {
  const Box screen{0.0, 0.0, look.run.stage().width(), look.run.stage().height()};
  const Part* outer = one.part->outer();
  const Box whole = outer == nullptr ? screen : outer->layout_box();
  const Box& box = one.part->layout_box();
  // What scrolls holds more than is seen.
  const bool scrolls =
      outer != nullptr && !outer->kind().readings.empty() && outer->drag_interest({}).follows(Axis::vertical);
  const double out = std::max({whole.x - box.x, whole.y - box.y, box.right() - whole.right(),
                               scrolls ? -1.0 : box.bottom() - whole.bottom()});
  if (out > 0.5 && !(scrolls && outer->drag_interest({}).follows(Axis::horizontal)))
    look.say(off_screen, one, "x",
             fmt::format("{} leaves {} by {}", one.plan->id, outer == nullptr ? "the screen" : outer->id(),
                         dp(out)),
             "move it in, make it smaller, or place it by its distances from the edges");
  if (outer == nullptr && one.target) {
    const Box safe = inner(screen, look.scene->stage.safe);
    const double under =
        std::max({safe.x - box.x, safe.y - box.y, box.right() - safe.right(), box.bottom() - safe.bottom()});
    if (under > 0.5 && out <= 0.5 && !one.part->drag_interest({}).follows(Axis::vertical))
      look.say(under_cutout, one, "y",
               fmt::format("{} lies {} under what notch or system bars take", one.plan->id, dp(under)),
               "in_safe_area = true places it by the safe area");
  }
  if (!one.target) return;
  const double min = std::min(box.w, box.h);
  if (min < min_target)
    look.say(small_target, one, box.w < box.h ? "w" : "h",
             fmt::format("{} is {} by {}", one.plan->id, dp(box.w), dp(box.h)),
             "make it 44 dp at least, each way");
}

void pairs(Look& look) {
  for (std::size_t a = 0; a < look.parts.size(); ++a)
    for (std::size_t b = a + 1; b < look.parts.size(); ++b) {
      const Looked& low = look.parts[a];
      const Looked& high = look.parts[b];
      if (low.part->outer() != high.part->outer() || low.layer || high.layer || low.plan->hidden ||
          high.plan->hidden)
        continue;
      if (carried(low) || carried(high)) continue;  // what holds them places them
      if (!low.target || high.part->contact_rules().observes) continue;
      if (high.box.contains(low.box.centre()))
        look.say(covered, high, "x", fmt::format("{} covers the middle of {}", high.plan->id, low.plan->id),
                 fmt::format("move one of them, or let {} lie in {}", high.plan->id, low.plan->id));
      const auto small = [](const Box& box) { return box.w < 160.0 && box.h < 160.0; };
      if (!high.target || !small(low.box) || !small(high.box)) continue;
      const double across = std::max(low.box.x - high.box.right(), high.box.x - low.box.right());
      const double down = std::max(low.box.y - high.box.bottom(), high.box.y - low.box.bottom());
      const double gap = std::max(across, down);
      if (gap >= 0.0 && gap < min_gap)
        look.say(close_targets, high, "x",
                 fmt::format("{} and {} are {} apart", low.plan->id, high.plan->id, dp(gap)),
                 "leave 8 dp between them at least");
    }
}

}  // namespace

void check_places(Look& look) {
  for (const Looked& one : look.parts) place(look, one);
  pairs(look);
}

}  // namespace ubbo::check
