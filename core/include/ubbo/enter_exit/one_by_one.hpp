#pragma once

#include <vector>

#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// Things that enter one after another: each has come a share of its way, from 0 to 1. They leave together
/// with what holds them, so this is about entering only.
class OneByOne {
 public:
  /// One more, that is here (or not).
  void add(const void* thing, bool here) { coming_.push_back({thing, Mover(here ? 1.0 : 0.0, share_floor)}); }
  void remove(const void* thing);
  /// They start by `transition` from where they are: the first at once, each further one `gap` after the one
  /// before.
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
