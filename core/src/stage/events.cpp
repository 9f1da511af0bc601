// What happens in which order.
#include <algorithm>

#include "call.hpp"

namespace ubbo {

void Stage::do_or_wait(std::function<void()> action, bool by_app) {
  if (busy_) {
    events_.add({context_.now, EventQueue::Action{std::move(action), by_app}});
    return;
  }
  Call call(*this);
  tell_time(std::max(frame_, happened_));
  error_.keep(action);
  call.finish();
}

// The parts an event reached are complete: their cells are told.
void Stage::tell_cells() {
  if (std::exchange(working_, false)) error_.keep([] { detail::Batch::end(); });
}

void Stage::after(Part& part) {
  if (part.post_.gone) return;
  part.update();
  Part::Post& post = part.post_;
  const Timing timing = part.timing();
  due_list_.set(part, timing.due);
  if (timing.settled != post.settled) {
    post.settled = timing.settled;
    timing.settled ? --unsettled_ : ++unsettled_;
  }
  layers_.look(part);
  if (!timing.settled && timing.tells) {
    if (!std::exchange(post.active, true)) active_.push_back(&part);
    if (timing.shares != nullptr) news_.sharing(part);
  }
  if (part.held() || !part.asked()) return;
  news_.lifted(part);
  if (post.waits_for_lift) call(part, WhileHeld::immediate, std::exchange(post.waits_for_lift, nullptr));
}

void Stage::heard(Part& part) {
  if (part.post_.gone || part.removing()) return;
  const bool slept = !busy_ && settled();
  if (part.held() && detail::Writing::now() != Write::carried) part.post_.waits_for_lift = nullptr;
  if (news_.heard(part, busy_) && slept) wake();
}

void Stage::wake() {
  if (std::exchange(woken_, true)) return;
  if (on_wake_) on_wake_();
}

void Stage::call(Part& part, WhileHeld how, std::function<void()> action) {
  if (detail::Writing::now() == Write::immediate)
    action = [this, action = std::move(action)] {
      context_.write = Write::immediate;
      action();
    };
  do_or_wait([this, handle = handle(part), how, action = std::move(action)] {
    Part* found = get(handle);
    if (found == nullptr || found->removing()) return;
    if (found->held() && how == WhileHeld::waits) {
      found->decide(answers::asked_waits);
      found->post_.waits_for_lift = action;
      return;
    }
    if (how == WhileHeld::cancels) routing_.cancel(*found, context_.now);
    before(*found);
    context_.cause = Cause::call;
    error_.keep(action);
    context_.cause = Cause::time;
    after(*found);
    context_.write = Write::travels;
  });
}

// What an event led to happens at its own time, before the next event.
void Stage::settle_all() {
  for (;;) {
    if (layers_.any_changed()) {
      begin_work();
      layers_.settle(context_.now);
      continue;
    }
    if (working_) {
      tell_cells();
      continue;
    }
    if (budget_ <= 0) break;
    if (news_.any_soon()) {
      --budget_;
      Part& part = news_.take();
      const Write how = part.post_.write;
      // Who is carried along does not come to rest by itself at the same moment.
      begin_work();
      if (how != Write::carried) before(part);
      context_.write = how;
      context_.cause = Cause::write;
      part.cell_changed();
      context_.cause = Cause::time;
      after(part);
      context_.write = Write::travels;
    } else if (!outbox_.empty()) {
      --budget_;
      error_.keep([this] { outbox_.call_next(); });
    } else if (layout_.waits()) {
      --budget_;
      lay_out();
    } else {
      break;
    }
  }
  if (!doomed_.empty()) bury_doomed();
  if (working_) tell_cells();
  bury();
}

void Stage::lay_out() {
  const bool settles = layout_.run([this](const std::vector<Part*>& changed) {
    tell_cells();
    for (Part* part : changed)
      if (!part->post_.gone && part->on_laid_) error_.keep([&] { part->on_laid_(part->layout_box_); });
    // What the callbacks placed counts for the next round.
    while (events_.due() <= context_.now && std::holds_alternative<EventQueue::Action>(events_.first().what))
      perform(events_.take());
  });
  if (!settles) context_.journal.record(context_.now, {}, answers::layout_restless, Layout::max_rounds);
}

void Stage::run_due(Micros until) {
  while (budget_ > 0) {
    const Micros time = next_due();
    if (time > until || time == never) return;
    if (news_.any_sharing()) {
      context_.now = std::max(happened_, time);
      share_places();
      // Who goes along with another is no longer due by itself.
      if (next_due() != time) {
        --budget_;
        continue;
      }
    }
    set_time(time);
    const Micros others = std::min(events_.due(), due_list_.due());
    const Micros hover = pointed_ ? std::min(hover_due_, hover_look_) : never;
    if (pointed_ && wheeling_.due() < std::min(others, hover)) {
      --budget_;
      turn_on();
      settle_event();
      look_at_hover();
      continue;
    }
    if (hover < others) {
      hover_due_ = hover_look_ =
          never;  // it lies ahead of the last look, so that this comes to an end by itself
      look_at_hover();
      continue;
    }
    if (events_.due() <= due_list_.due()) {
      --budget_;
      perform(events_.take());
    } else {
      run_part(due_list_.first());
    }
    settle_event();
    look_at_hover();
  }
  context_.journal.record(context_.now, {}, answers::callbacks_endless, max_events_per_call);
}

// Each that is due brings the time of what is due on, or it is not asked again.
void Stage::run_part(Part& part) {
  begin_work();
  part.advance(context_.now);
  after(part);
  Part::Post& post = part.post_;
  if (post.due > context_.now) {
    post.idle = 0;
  } else if (++post.idle == max_idle) {
    part.decide(answers::due_again, max_idle);
    due_list_.set(part, never);
  }
}

// Whoever looks at the place of what moves knows of it before anything happens, and goes along.
void Stage::share_all_places() {
  news_.share_places([this](auto&& tell) {
    begin_work();
    tell();
    settle_event();
  });
}

// The time has come to `time`: what was due happens, and then what was written while nothing did.
void Stage::tell_time(Micros time) {
  eventful_ = true;
  run_until(time);
  set_time(time);
  share_places();
  woken_ = false;
  if (!news_.any_later()) return;
  news_.begin_event();
  settle_event();
}

void Stage::perform(EventQueue::Event event) {
  if (const auto* sample = std::get_if<Sample>(&event.what)) take_sample(*sample);
  if (const auto* key = std::get_if<EventQueue::KeyPress>(&event.what)) take_key(key->key);
  if (const auto* action = std::get_if<EventQueue::Action>(&event.what)) {
    if (action->by_app) tell_places();
    error_.keep(action->what);
    if (action->by_app) look_at_own();
  }
}

void Stage::frame(Micros now) {
  frame_ = std::max(frame_, now);
  const Micros until = std::max(frame_, happened_);
  run_until(until);
  if (news_.any_later()) tell_time(until);
  context_.now = until;
  woken_ = false;
  // Cells that follow what moves; whoever looks at them goes along.
  for (std::size_t i = 0; i < active_.size(); ++i)
    if (Part& part = *active_[i];
        !part.post_.settled && !part.post_.shares && part.timing().shares != nullptr)
      news_.sharing(part);
  share_places();
  tell_places();
}

// All cells say where their parts are now: at a frame, and before the app does something, since what it
// writes is held against that.
void Stage::tell_places() {
  for (std::size_t i = 0; i < active_.size(); ++i) {
    Part& part = *active_[i];
    if (part.post_.settled) {
      part.post_.active = false;
      active_[i--] = active_.back();
      active_.pop_back();
      continue;
    }
    begin_work();
    part.tell_places();
    settle_event();
  }
  settle_event();
}

}  // namespace ubbo
