#pragma once

#include "ubbo/parts/part.hpp"
#include "ubbo/stage/stack_order.hpp"

namespace ubbo {

/// Which part has the keyboard.
class Focus {
 public:
  explicit Focus(const StackOrder& order) : order_(&order) {}

  /// A part that is used now and answers keys.
  [[nodiscard]] static bool can_have(const Part& part);
  /// The part that has it, or null. One that is not in use for a while, such as on a page that another
  /// covers, has it again when it is.
  [[nodiscard]] Part* part() const;
  /// The part that was given it, whether it is in use or not.
  [[nodiscard]] Part* given() const { return part_; }
  void give(Part* part) { part_ = part; }
  /// Takes it from a part that cannot have it any more.
  void check() {
    if (part_ != nullptr && !can_have(*part_)) part_ = nullptr;
  }
  /// To the next part that can have it, or the one before, of those from `lowest` on. Past the other end it
  /// leaves the stage, so that the app's own order goes on; `stays`: it comes in at the other end.
  void move(bool on, std::size_t lowest, bool stays);

 private:
  const StackOrder* order_;
  Part* part_ = nullptr;
};

}  // namespace ubbo
