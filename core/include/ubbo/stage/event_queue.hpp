#pragma once

#include <algorithm>
#include <cstdint>
#include <functional>
#include <utility>
#include <variant>
#include <vector>

#include "ubbo/base/time.hpp"
#include "ubbo/parts/accessible.hpp"
#include "ubbo/touch/sample.hpp"

namespace ubbo {

/// A call that waits for its time.
enum class TimerId : std::uint64_t { none };

/// What waits for its time, or for the end of the present event: in order of time, and of those at the same
/// time in the order in which they came.
class EventQueue {
 public:
  struct KeyPress {
    Key key;
  };
  struct Action {
    std::function<void()> what;
    bool by_app = false;  ///< it runs the app's own code
    TimerId timer = TimerId::none;
  };
  struct Event {
    Micros time;
    std::variant<Sample, KeyPress, Action> what;
  };

  /// Reserves room for that many waiting events, so that adding them allocates nothing.
  void reserve(std::size_t events) { events_.reserve(events); }
  void add(Event event);
  [[nodiscard]] bool empty() const { return due_ == never; }
  /// When the first is to happen; `never` when none waits.
  [[nodiscard]] Micros due() const { return due_; }
  /// The first. Needs one.
  [[nodiscard]] const Event& first() const { return events_[begin_]; }
  /// Takes the first out. Needs one.
  Event take();
  /// Takes the call of this timer out; false when it does not wait.
  bool cancel(TimerId timer);

 private:
  void look() { due_ = begin_ == events_.size() ? never : events_[begin_].time; }

  std::vector<Event> events_;
  Micros due_ = never;     // of the first
  std::size_t begin_ = 0;  // those before it have been taken
};

}  // namespace ubbo
