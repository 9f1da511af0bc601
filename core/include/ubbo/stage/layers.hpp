#pragma once

#include <vector>

#include "ubbo/parts/part.hpp"
#include "ubbo/stage/focus.hpp"
#include "ubbo/stage/routing.hpp"
#include "ubbo/stage/stack_order.hpp"

namespace ubbo {

/// The layers that are open, and what follows from that: which lies on which, what they keep from contacts
/// and the focus, where the focus goes when they close.
class Layers {
 public:
  Layers(StackOrder& order, Focus& focus, Routing& routing, Routing::Timekeeper& timekeeper)
      : order_(&order), focus_(&focus), routing_(&routing), timekeeper_(&timekeeper) {}

  /// Reserves room for `parts` parts, so that nothing below allocates.
  void reserve(std::size_t parts);
  /// Looks whether `part` has opened or closed.
  void look(Part& part) {
    if (part.layer_ != nullptr) look_at(part);
  }
  [[nodiscard]] bool any_changed() const { return !changed_.empty(); }
  /// What has opened or closed takes its place, at the time `now`.
  void settle(Micros now);
  /// The topmost part that keeps all below it from contacts, the focus and back; or null.
  [[nodiscard]] const Part* modal() const;
  /// The first part that no modal layer covers: the topmost such layer itself, with what lies in it and
  /// above.
  [[nodiscard]] std::size_t lowest_in_use() const;
  /// `part` is gone.
  void forget(const Part& part);

 private:
  struct Layer {
    Part* part;
    Part* focus_before;
    int above = -1;  // how many it was told lie on it
  };
  void look_at(Part& part);
  void opened(Part& part, Micros now);
  void closed(const Part& part);
  void tell_covered();

  StackOrder* order_;
  Focus* focus_;
  Routing* routing_;
  Routing::Timekeeper* timekeeper_;
  std::vector<Layer> open_;     // from the one that opened first
  std::vector<Part*> changed_;  // have opened or closed in this event
};

}  // namespace ubbo
