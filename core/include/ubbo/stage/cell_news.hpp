#pragma once

#include <vector>

#include "ubbo/parts/part.hpp"

namespace ubbo {

/// Which parts have yet to deal with a change of a cell they show, and which tell their places by cells that
/// others watch while they move.
///
/// Within an event parts hear when those it reached are complete; outside of any when the stage is next told
/// the time; one that a finger holds after the lift, unless another part carries it along.
class CellNews {
 public:
  /// Reserves room for `parts` parts, so that nothing below allocates.
  void reserve(std::size_t parts);
  /// A cell of `part` has changed. `within`: as part of an event. True when it is the first that waits for
  /// the next event.
  bool heard(Part& part, bool within);
  /// The finger that held it has gone: what it has not dealt with comes now.
  void lifted(Part& part);
  /// What waited for the next event comes now.
  void begin_event();
  [[nodiscard]] bool any_soon() const { return soon_at_ < soon_.size(); }
  [[nodiscard]] bool any_later() const { return !later_.empty(); }
  /// The next part to deal with it. Needs one.
  Part& take();

  /// `part` moves, and tells its place by a cell that others watch.
  void sharing(Part& part);
  [[nodiscard]] bool any_sharing() const { return !sharing_.empty() || newcomers_; }
  /// Each part that shares its place says where it is, and the parts that follow it go along. `context` gets
  /// what one of them does, as a function.
  template <class F>
  void share_places(F&& context);

  /// Parts that are gone have no more to do with it.
  void forget_gone();

 private:
  using Heard = Part::Post::Heard;

  void carry_along(std::size_t leader);

  std::vector<Part*> soon_;
  std::size_t soon_at_ = 0;  // those before it have been taken
  std::vector<Part*> later_;
  std::vector<Part*> sharing_;  // the one added first leads
  bool newcomers_ = false;      // parts began to share, and who leads is to be settled
};

template <class F>
void CellNews::share_places(F&& context) {
  const bool newcomers = std::exchange(newcomers_, false);
  for (std::size_t i = 0; i < sharing_.size(); ++i) {
    Part& part = *sharing_[i];
    if (part.timing().shares == nullptr) {
      part.post_.shares = false;
      sharing_.erase(sharing_.begin() + static_cast<std::ptrdiff_t>(i--));
      continue;
    }
    context([&] {
      part.tell_places();
      // Of two that move by themselves and share a cell the one added first leads, also where both stand
      // alike at this moment, so that the cell had nothing to say.
      if (newcomers) carry_along(i);
    });
  }
}

}  // namespace ubbo
