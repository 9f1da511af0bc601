#include "ubbo/stage/event_queue.hpp"

namespace ubbo {

void EventQueue::add(Event event) {
  auto place = events_.end();
  while (place != events_.begin() + static_cast<std::ptrdiff_t>(begin_) && place[-1].time > event.time)
    --place;
  events_.insert(place, std::move(event));
  look();
}

EventQueue::Event EventQueue::take() {
  Event taken = std::move(events_[begin_++]);
  if (begin_ == events_.size()) {
    events_.clear();
    begin_ = 0;
  }
  look();
  return taken;
}

bool EventQueue::cancel(TimerId timer) {
  const auto found = std::find_if(
      events_.begin() + static_cast<std::ptrdiff_t>(begin_), events_.end(), [&](const Event& event) {
        const auto* action = std::get_if<Action>(&event.what);
        return action != nullptr && timer != TimerId::none && action->timer == timer;
      });
  if (found == events_.end()) return false;
  events_.erase(found);
  look();
  return true;
}

}  // namespace ubbo
