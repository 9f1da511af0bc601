// What happens in which order.
#include <algorithm>

#include "call.hpp"

namespace ubbo {

void Stage::do_or_wait(std::function<void()> deed) {
  if (busy_) {
    wait({around_.now, Deed{std::move(deed)}});
    return;
  }
  Call call(*this);
  tell_time(std::max(frame_, happened_));
  deed();
  call.finish();
}

void Stage::wait(Waiting what) {
  auto place = waiting_.end();
  while (place != waiting_.begin() + static_cast<std::ptrdiff_t>(waiting_at_) && place[-1].time > what.time)
    --place;
  waiting_.insert(place, std::move(what));
}

Stage::Waiting Stage::take_waiting() {
  Waiting taken = std::move(waiting_[waiting_at_++]);
  if (waiting_at_ == waiting_.size()) {
    waiting_.clear();
    waiting_at_ = 0;
  }
  return taken;
}

void Stage::after(Part& part) {
  if (part.post_.gone) return;
  Part::Post& post = part.post_;
  due_list_.set(part, part.due());
  const bool settled = part.settled();
  if (settled != post.settled) {
    post.settled = settled;
    settled ? --unsettled_ : ++unsettled_;
  }
  if (!settled && !std::exchange(post.active, true)) active_.push_back(&part);
  if (!settled && part.shared_place() != nullptr) sharing(part);
}

void Stage::heard(Part& part) {
  Part::Post& post = part.post_;
  if (post.gone || part.doomed()) return;
  if (busy_) {
    post.write = around_.write;
    if (post.heard == Part::Post::Heard::soon) return;
    if (post.heard == Part::Post::Heard::later) std::erase(later_, &part);
    post.heard = Part::Post::Heard::soon;
    soon_.push_back(&part);
    return;
  }
  post.write = Write::travels;
  if (post.heard != Part::Post::Heard::no) return;
  const bool slept = settled();
  post.heard = Part::Post::Heard::later;
  later_.push_back(&part);
  if (slept) wake();
}

void Stage::wake() {
  if (std::exchange(woken_, true)) return;
  if (on_wake_) on_wake_();
}

void Stage::call(Part& part, std::function<void()> deed) {
  do_or_wait([this, handle = handle(part), deed = std::move(deed)] {
    Part* found = get(handle);
    if (found == nullptr || found->doomed()) return;
    before(*found);
    deed();
    after(*found);
  });
}

// What an event led to happens at its own time, before the next event.
void Stage::settle_all() {
  while ((soon_at_ < soon_.size() || (to_lay_ && !laying_)) && budget_ > 0) {
    --budget_;
    if (soon_at_ == soon_.size()) {
      lay_out();
      continue;
    }
    Part& part = *soon_[soon_at_++];
    if (soon_at_ == soon_.size()) {
      soon_.clear();
      soon_at_ = 0;
    }
    part.post_.heard = Part::Post::Heard::no;
    // Who is carried along does not come to rest by itself at the same moment.
    if (part.post_.write != Write::carried) before(part);
    around_.write = part.post_.write;
    part.heard();
    around_.write = Write::travels;
    after(part);
  }
  if (!doomed_.empty()) bury_doomed();
  bury();
}

void Stage::run_due(Micros until) {
  while (budget_ > 0) {
    const Micros due = due_list_.due();
    const Micros waits = something_waits() ? waiting_[waiting_at_].time : never;
    const Micros time = std::min(waits, due);
    if (time > until || time == never) return;
    --budget_;
    if (!sharing_.empty()) {
      around_.now = std::max(happened_, time);
      share_places();
      // Who goes along with another is no longer due by itself.
      if (next_due() != time) continue;
    }
    set_time(time);
    if (waits <= due) {
      perform(take_waiting());
    } else {
      Part& part = due_list_.first();
      part.advance(around_.now);
      after(part);
    }
    settle_event();
  }
  around_.journal.record(around_.now, {}, answers::callbacks_endless,
                         {Fact::plain("events", most_events_per_call, "")});
}

// Whoever looks at the place of what moves knows of it before anything happens, and goes along.
void Stage::share_all_places() {
  const bool newcomers = std::exchange(newcomers_, false);
  for (std::size_t i = 0; i < sharing_.size(); ++i) {
    Part& part = *sharing_[i];
    const void* cell = part.post_.settled ? nullptr : part.shared_place();
    if (cell == nullptr) {
      part.post_.shares = false;
      sharing_.erase(sharing_.begin() + static_cast<std::ptrdiff_t>(i--));
      continue;
    }
    part.tell_place();
    // Of two that move by themselves and share a cell the one added first leads, also where both stand alike
    // at this moment, so that the cell had nothing to say.
    for (std::size_t later = i + 1; newcomers && later < sharing_.size(); ++later)
      if (sharing_[later]->shared_place() == cell) carry(*sharing_[later]);
    settle_event();
  }
}

void Stage::carry(Part& part) {
  heard(part);
  part.post_.write = Write::carried;
}

void Stage::sharing(Part& part) {
  newcomers_ = true;
  if (std::exchange(part.post_.shares, true)) return;
  const auto place = std::find_if(sharing_.begin(), sharing_.end(),
                                  [&](const Part* other) { return other->post_.age > part.post_.age; });
  sharing_.insert(place, &part);
}

// The time has come to `time`: what was due happens, and then what was written while nothing did.
void Stage::tell_time(Micros time) {
  run_until(time);
  set_time(time);
  share_places();
  for (Part* part : later_) {
    part->post_.heard = Part::Post::Heard::soon;
    soon_.push_back(part);
  }
  later_.clear();
  woken_ = false;
  settle_event();
}

void Stage::perform(const Waiting& waiting) {
  if (const auto* sample = std::get_if<Sample>(&waiting.what)) take_sample(*sample);
  if (const auto* key = std::get_if<KeyPress>(&waiting.what)) take_key(key->key);
  if (const auto* deed = std::get_if<Deed>(&waiting.what)) {
    tell_places();
    deed->what();
  }
}

void Stage::frame(Micros now) {
  frame_ = std::max(frame_, now);
  const Micros until = std::max(frame_, happened_);
  run_until(until);
  if (!later_.empty()) tell_time(until);
  around_.now = until;
  woken_ = false;
  // Cells that follow what moves; whoever looks at them goes along.
  for (std::size_t i = 0; i < active_.size(); ++i)
    if (Part& part = *active_[i]; !part.post_.settled && !part.post_.shares && part.shared_place() != nullptr)
      sharing(part);
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
    part.tell_place();
    settle_event();
  }
  settle_event();
}

}  // namespace ubbo
