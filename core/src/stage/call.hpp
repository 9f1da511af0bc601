#pragma once

#include <algorithm>

#include "ubbo/stage/stage.hpp"

namespace ubbo {

// A call from outside, with all that it leads to. Whatever throws on the way, the stage is no longer busy
// after.
class Stage::Call {
 public:
  explicit Call(Stage& stage) : stage_(&stage) {
    stage.busy_ = true;
    stage.budget_ = max_events_per_call;
  }
  Call(const Call&) = delete;
  Call& operator=(const Call&) = delete;
  ~Call() { close(); }
  /// Lets everything happen that the call led to; then passes on what a callback threw.
  void finish() {
    stage_->settle_event();
    if (std::exchange(stage_->eventful_, false)) stage_->look_at_hover();
    stage_->run_until(stage_->context_.now);
    if (stage_->asked_frame_ > stage_->frame_) stage_->frame(stage_->asked_frame_);
    close();
    stage_->error_.pass_on();
  }

 private:
  void close() {
    if (!std::exchange(open_, false)) return;
    if (stage_->working_) stage_->tell_cells();
    stage_->busy_ = false;
    stage_->context_.write = Write::travels;
    stage_->context_.now = std::max(stage_->frame_, stage_->happened_);
  }

  Stage* stage_;
  bool open_ = true;
};

}  // namespace ubbo
