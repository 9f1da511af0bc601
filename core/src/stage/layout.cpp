#include "ubbo/stage/layout.hpp"

namespace ubbo {

Box Layout::container(const Part* outer, const Placement& placement) const {
  const Box whole = outer != nullptr ? outer->layout_box_ : context_->screen;
  return placement.in_safe_area ? common(whole, inner(context_->screen, context_->safe)) : whole;
}

bool Layout::lay_once(std::vector<Part*>& changed) {
  changed.clear();
  for (std::size_t i = 0; i < order_->size(); ++i) {  // containers stand below what lies in them
    Part& part = (*order_)[i];
    const Box box = laid_out(part.placement_, container(part.outer_, part.placement_));
    if (box == part.layout_box_) continue;
    timekeeper_->before(part);
    part.layout_box_ = box;
    part.resized();
    timekeeper_->after(part);
    if (part.outer_ != nullptr && part.outer_->container_ != nullptr) {
      timekeeper_->before(*part.outer_);
      part.outer_->container_->child_laid_out(part);
      timekeeper_->after(*part.outer_);
    }
    changed.push_back(&part);
  }
  return !changed.empty();
}

bool Layout::run(const std::function<void(const std::vector<Part*>& changed)>& told) {
  // What waits is done in its order, so nothing below lays out by itself.
  struct Running {
    bool* running;
    ~Running() { *running = false; }
  } running{&running_};
  running_ = true;
  std::vector<Part*> changed;
  for (int round = 0; asked_; ++round) {
    asked_ = false;
    if (!lay_once(changed)) return true;
    if (round > max_rounds) return false;
    told(changed);
  }
  return true;
}

}  // namespace ubbo
