// Where parts stand.
#include "ubbo/stage/stage.hpp"

namespace ubbo {

namespace {

// A size that is measured after a layout may change it so often.
constexpr int layout_rounds = 2;

}  // namespace

bool Stage::lay_once(std::vector<Part*>& changed) {
  changed.clear();
  for (std::size_t i = 0; i < order_.size(); ++i) {  // containers stand below what lies in them
    Part& part = order_[i];
    const Box box = laid_out(part.placement_, container(part.outer_, part.placement_));
    if (box == part.layout_box_) continue;
    before(part);
    part.layout_box_ = box;
    part.resized();
    after(part);
    if (part.outer_ != nullptr && part.outer_->container_ != nullptr) {
      before(*part.outer_);
      part.outer_->container_->child_laid_out(part);
      after(*part.outer_);
    }
    changed.push_back(&part);
  }
  return !changed.empty();
}

void Stage::lay_out() {
  // What waits is done in its order, so nothing below lays out by itself.
  struct Laying {
    bool* laying;
    ~Laying() { *laying = false; }
  } laying{&laying_};
  laying_ = true;
  std::vector<Part*> changed;
  for (int round = 0; to_lay_; ++round) {
    to_lay_ = false;
    const bool last = round > layout_rounds;
    if (!lay_once(changed)) return;
    if (last) return context_.journal.record(context_.now, {}, answers::layout_restless, layout_rounds);
    tell_cells();
    for (Part* part : changed)
      if (!part->post_.gone && part->on_laid_) error_.keep([&] { part->on_laid_(part->layout_box_); });
    // What the callbacks placed counts for the next round.
    while (events_.due() <= context_.now && std::holds_alternative<EventQueue::Action>(events_.first().what))
      perform(events_.take());
  }
}

}  // namespace ubbo
