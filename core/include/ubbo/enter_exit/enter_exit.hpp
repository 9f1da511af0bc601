#pragma once

#include <array>
#include <vector>

#include "ubbo/enter_exit/visual_state.hpp"
#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// How a thing goes from one visual state to another: by one transition, or by one of its own for some
/// properties, each with its own delay.
struct Transitions {
  struct Own {
    Property property;
    Transition transition;
  };

  Transitions(Transition all = Spring::settling(Micros{300'000}, 0.0)) : usual(std::move(all)) {}

  Transition usual;
  std::vector<Own> own{};

  [[nodiscard]] const Transition& of(Property property) const {
    for (const Own& one : own)
      if (one.property == property) return one.transition;
    return usual;
  }
};

/// How a visit goes: the visual state it comes from, and by what transitions; the visual state it goes to,
/// and by what.
struct EnterExitPlan {
  VisualState from{};
  Transitions enter{};
  VisualState to{};
  Transitions exit{};
};

/// A thing's time on screen: absent → entering → present → leaving → absent.
///
/// `open` and `close` may be called at any time and in any order: the same call twice equals one call, and
/// each begins from where the thing is at that moment, at the velocity it has where the transition is a
/// spring. It arrives, and is gone, at the very microsecond at which its last property comes to rest. While
/// it is absent nothing of it moves. Costs one mover for each property that ever differs from how it lies.
class EnterExit {
 public:
  enum class State : std::uint8_t { absent, entering, present, leaving };

  explicit EnterExit(EnterExitPlan plan = {}, bool here = false);

  [[nodiscard]] State state() const { return state_; }
  [[nodiscard]] bool absent() const { return state_ == State::absent; }
  /// It is here, or on its way.
  [[nodiscard]] bool open() const { return state_ == State::present || state_ == State::entering; }
  [[nodiscard]] bool moving() const { return state_ == State::entering || state_ == State::leaving; }
  [[nodiscard]] const EnterExitPlan& plan() const { return plan_; }

  // These let time pass to `now` first.

  /// Sets out for here. False, and nothing changes, when it is here or on its way already.
  bool open(Micros now);
  /// Sets out to be gone; likewise.
  bool close(Micros now);
  bool toggle(Micros now) { return open() ? close(now) : open(now); }
  /// Is present, or absent, at once.
  void put(bool here);
  /// While it is here: shows itself as far on its way out as `share`, 0 to 1, as a gesture has come that may
  /// yet be given up.
  void show_leaving(double fraction);
  /// Sets out for here from there.
  void come_back(Micros now);
  /// Other visual states and transitions, from the next call on. What moves goes on as it was sent.
  void set_plan(EnterExitPlan plan);
  void set_reduced(Reduced reduced) { reduced_ = reduced; }

  /// How it shows, at a time no earlier than it was last told and no later than what is due next.
  [[nodiscard]] VisualState visual_state(Micros now) const;
  /// How fast a property changes then, per second.
  [[nodiscard]] double velocity(Property property, Micros now) const;
  /// When it arrives or is gone, or something of it begins or ends on the way; `never` where it does neither.
  [[nodiscard]] Micros due() const;
  /// Lets time pass. True when it has just arrived, or is just gone.
  bool advance(Micros now);

 private:
  struct Moving {
    Property property;
    Mover mover;
  };
  void send(const VisualState& goal, const Transitions& by, Micros now);
  Mover& mover_of(Property property);
  bool settle();

  EnterExitPlan plan_;
  State state_;
  Reduced reduced_ = Reduced::full;
  std::vector<Moving> movers_;
};

/// "absent", "entering", "present", "leaving".
[[nodiscard]] const char* name_of(EnterExit::State state);

}  // namespace ubbo
