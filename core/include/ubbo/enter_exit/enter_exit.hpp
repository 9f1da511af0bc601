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

/// How something enters and leaves: the visual state it comes from, the one it goes to, and the transitions.
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
  /// It is present, or entering.
  [[nodiscard]] bool open() const { return state_ == State::present || state_ == State::entering; }
  [[nodiscard]] bool moving() const { return state_ == State::entering || state_ == State::leaving; }
  [[nodiscard]] const EnterExitPlan& plan() const { return plan_; }

  // These let time pass to `now` first.

  /// Starts to enter. Returns false and changes nothing when it is present or entering already.
  bool open(Micros now);
  /// Starts to leave. Returns false and changes nothing when it is absent or leaving already.
  bool close(Micros now);
  bool toggle(Micros now) { return open() ? close(now) : open(now); }
  /// Is present, or absent, at once.
  void put(bool here);
  /// While it is present: shows how it would look `share` of its way out, 0 to 1, for a gesture that may
  /// still be cancelled.
  void show_leaving(double fraction);
  /// Goes back to being present, from there.
  void come_back(Micros now);
  /// Sets other visual states and transitions, which count from the next call on. A motion under way goes on
  /// as it is.
  void set_plan(EnterExitPlan plan);
  void set_reduced(Reduced reduced) { reduced_ = reduced; }

  /// How it looks at `time`, which is no earlier than the last `advance` and no later than `due()`.
  [[nodiscard]] VisualState visual_state(Micros now) const;
  /// How fast a property changes then, per second.
  [[nodiscard]] double velocity(Property property, Micros now) const;
  /// When it next arrives, is gone, or one of its properties begins or ends to move; `never` when nothing
  /// does.
  [[nodiscard]] Micros due() const;
  /// Lets time pass. Returns true when it has just become present or absent.
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
