#pragma once

#include <array>
#include <vector>

#include "ubbo/motion/mover.hpp"
#include "ubbo/visit/guise.hpp"

namespace ubbo {

/// How a thing goes from one guise to another: by one passage, or by one of its own for some properties, each
/// with its own delay.
struct Passages {
  struct Own {
    Trait trait;
    Passage passage;
  };

  Passages(Passage all = Spring::settling(Micros{300'000}, 0.0)) : usual(std::move(all)) {}

  Passage usual;
  std::vector<Own> own{};

  [[nodiscard]] const Passage& of(Trait trait) const {
    for (const Own& one : own)
      if (one.trait == trait) return one.passage;
    return usual;
  }
};

/// How a visit goes: the guise it comes from, and by what passages; the guise it goes to, and by what.
struct VisitPlan {
  Guise from{};
  Passages enter{};
  Guise to{};
  Passages exit{};
};

/// A thing's time on screen: away → arriving → here → leaving → away.
///
/// `open` and `close` may be called at any time and in any order: the same call twice equals one call, and
/// each begins from where the thing is at that moment, at the velocity it has where the passage is a spring.
/// It arrives, and is gone, at the very microsecond at which its last property comes to rest. While it is
/// away nothing of it moves. Costs one mover for each property that ever differs from how it lies.
class Visit {
 public:
  enum class State : std::uint8_t { away, arriving, here, leaving };

  explicit Visit(VisitPlan plan = {}, bool here = false);

  [[nodiscard]] State state() const { return state_; }
  [[nodiscard]] bool away() const { return state_ == State::away; }
  /// It is here, or on its way.
  [[nodiscard]] bool open() const { return state_ == State::here || state_ == State::arriving; }
  [[nodiscard]] bool moving() const { return state_ == State::arriving || state_ == State::leaving; }
  [[nodiscard]] const VisitPlan& plan() const { return plan_; }

  // These let time pass to `now` first.

  /// Sets out for here. False, and nothing changes, when it is here or on its way already.
  bool open(Micros now);
  /// Sets out to be gone; likewise.
  bool close(Micros now);
  bool toggle(Micros now) { return open() ? close(now) : open(now); }
  /// Is here, or away, at once.
  void put(bool here);
  /// While it is here: shows itself as far on its way out as `share`, 0 to 1, as a gesture has come that may
  /// yet be given up.
  void show_leaving(double share);
  /// Sets out for here from there.
  void come_back(Micros now);
  /// Other guises and passages, from the next call on. What moves goes on as it was sent.
  void set_plan(VisitPlan plan);
  void set_reduced(Reduced reduced) { reduced_ = reduced; }

  /// How it shows, at a time no earlier than it was last told and no later than what is due next.
  [[nodiscard]] Guise guise(Micros now) const;
  /// How fast a property changes then, per second.
  [[nodiscard]] double velocity(Trait trait, Micros now) const;
  /// When it arrives or is gone, or something of it begins or ends on the way; `never` where it does neither.
  [[nodiscard]] Micros due() const;
  /// Lets time pass. True when it has just arrived, or is just gone.
  bool advance(Micros now);

 private:
  struct Moving {
    Trait trait;
    Mover mover;
  };
  void send(const Guise& goal, const Passages& by, Micros now);
  Mover& mover_of(Trait trait);
  bool settle();

  VisitPlan plan_;
  State state_;
  Reduced reduced_ = Reduced::full;
  std::vector<Moving> movers_;
};

/// "away", "arriving", "here", "leaving".
[[nodiscard]] const char* name_of(Visit::State state);

}  // namespace ubbo
