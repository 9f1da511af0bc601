#pragma once

#include <vector>

#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// Things that come one after another: each has a share of its way behind it, 0 before it has come to 1 when
/// it is here. They go together with what holds them, so only coming is told here.
class OneByOne {
 public:
  /// One more, that is here (or not).
  void add(const void* thing, bool here) { coming_.push_back({thing, Mover(here ? 1.0 : 0.0, share_floor)}); }
  void remove(const void* thing);
  /// They set out by `transition`, the first at once and each next one `gap` after that; from where they are.
  void set_out(const Transition& transition, Micros gap, Reduced reduced, Micros now);
  /// All are here, or not.
  void put(bool here);

  /// How much of its way a thing has come, more than 1 where its transition overshoots; 1 for one it does not
  /// know. O(n).
  [[nodiscard]] double fraction(const void* thing, Micros now) const;
  /// How visible it is while a fade stands for its way, 0 to 1.
  [[nodiscard]] double seen(const void* thing, Micros now) const;
  [[nodiscard]] bool moving() const;
  /// When one of them next begins or arrives; `never` where none does.
  [[nodiscard]] Micros due() const;
  void advance(Micros now);

 private:
  static constexpr double share_floor = 1e-3;
  struct Coming {
    const void* thing;
    Mover mover;
  };
  [[nodiscard]] const Coming* find(const void* thing) const;

  std::vector<Coming> coming_;
};

}  // namespace ubbo
