#pragma once

#include <array>
#include <concepts>
#include <type_traits>
#include <utility>
#include <vector>

#include "ubbo/enter_exit/visual_state.hpp"
#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// How something goes from one visual state to another: by one transition for all, or some properties by one
/// of their own, with its own delay: `Transitions(Spring::settling(320ms, 0.0)).with(PropertyGroup::opacity,
/// Timed{Curve::ease_out(), 160ms})`. It has arrived when the slowest has.
class Transitions {
 public:
  template <class Way>
  requires(!std::same_as<std::remove_cvref_t<Way>, Transitions> && std::convertible_to<Way, Transition>)
      Transitions(
          Way&& all)  // NOLINT(bugprone-forwarding-reference-overload): the concept leaves copies alone
      : all_(std::forward<Way>(all)) {}
  Transitions() : Transitions(Spring::settling(Micros{300'000}, 0.0)) {}

  /// The same, but `group` goes by a transition of its own.
  [[nodiscard]] Transitions with(PropertyGroup group, Transition own) const {
    Transitions made = *this;
    made.own(group) = std::move(own);
    return made;
  }

  /// That of all properties that have none of their own.
  [[nodiscard]] const Transition& all() const { return all_; }
  [[nodiscard]] Transition& all() { return all_; }
  /// That by which a property goes.
  [[nodiscard]] const Transition& of(PropertyGroup group) const {
    for (const Own& one : own_)
      if (one.group == group) return one.transition;
    return all_;
  }
  [[nodiscard]] const Transition& of(Property property) const { return of(group_of(property)); }
  /// The transition of its own that a group has; made as that of all, where it had none.
  [[nodiscard]] Transition& own(PropertyGroup group) {
    for (Own& one : own_)
      if (one.group == group) return one.transition;
    return own_.emplace_back(Own{group, all_}).transition;
  }

 private:
  struct Own {
    PropertyGroup group;
    Transition transition;
  };
  Transition all_;
  std::vector<Own> own_{};
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
