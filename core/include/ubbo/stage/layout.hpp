#pragma once

#include <functional>
#include <vector>

#include "ubbo/parts/part.hpp"
#include "ubbo/stage/routing.hpp"
#include "ubbo/stage/stack_order.hpp"

namespace ubbo {

/// Gives parts their boxes by their placements, anew where a container, the screen or a placement has
/// changed.
class Layout {
 public:
  /// A size that is measured after a layout may change it so often.
  static constexpr int max_rounds = 2;

  Layout(StackOrder& order, const Context& context, Routing::Timekeeper& timekeeper)
      : order_(&order), context_(&context), timekeeper_(&timekeeper) {}

  /// The box that `placement` counts from, in `outer` or on the screen.
  [[nodiscard]] Box container(const Part* outer, const Placement& placement) const;
  /// Something has changed: parts are to be laid out.
  void ask() { asked_ = true; }
  [[nodiscard]] bool asked() const { return asked_; }
  /// It is asked for, and not under way.
  [[nodiscard]] bool waits() const { return asked_ && !running_; }
  /// Lays out until nothing asks for it any more. `told` hears after each round of the parts with another
  /// box, and what it leads to counts for the next. False: it did not settle, and was left as it is.
  bool run(const std::function<void(const std::vector<Part*>& changed)>& told);

 private:
  bool lay_once(std::vector<Part*>& changed);

  StackOrder* order_;
  const Context* context_;
  Routing::Timekeeper* timekeeper_;
  bool asked_ = false;
  bool running_ = false;
};

}  // namespace ubbo
