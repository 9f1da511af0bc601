#pragma once

#include <algorithm>
#include <functional>
#include <utility>

#include "ubbo/base/time.hpp"

namespace ubbo {

class Part;

/// What a member does by itself, or a part by all of its members.
struct Timing {
  Micros due = never;            ///< when something next happens to it by itself; `never`: nothing does
  bool settled = true;           ///< nothing of it moves, waits or is held
  bool catches = false;          ///< it is under way, and a contact that goes down on its part should stop it
  bool tells = false;            ///< while its part moves it tells a place, by `tell_place`
  const void* shares = nullptr;  ///< a cell that it moves and that others watch: they must know at each event

  /// The part does this too.
  void add(const Timing& other) {
    due = std::min(due, other.due);
    settled &= other.settled;
    catches |= other.catches;
    tells |= other.tells;
    if (other.shares != nullptr) shares = other.shares;
  }
};

/// Something of a part that time changes: a mover, a rail, an alarm. It registers with its part when it is
/// made, so that the part is due when one of these is, is at rest when all are, and nobody has to say so.
class TimedMember {
 public:
  /// `owner` must outlive it.
  explicit TimedMember(Part& owner);
  TimedMember(const TimedMember&) = delete;
  TimedMember& operator=(const TimedMember&) = delete;
  virtual ~TimedMember();

  /// Adds what it does by itself, as it is now, to what its part does. Asked after each event of its part.
  virtual void add_timing(Timing& /*timing*/) const {}
  /// Lets time pass to `now`.
  virtual void advance(Micros /*now*/) {}
  /// Says its place to a cell that follows it while it moves.
  virtual void tell_place() {}
  /// It shares this cell with another part that leads: what it hears next carries it along.
  virtual void carry(const void* /*cell*/) {}

 private:
  friend class Part;

  Part* owner_;
  TimedMember* next_ = nullptr;
};

/// A `T` that the clock of its part drives: `T` has `due()`, `moving()` and `advance(now)`, as `Mover` and
/// `EnterExit` do. `Catches`: while it moves a contact stops it.
template <class T, bool Catches = false>
class Clocked final : public T, public TimedMember {
 public:
  template <class... Args>
  explicit Clocked(Part& owner, Args&&... args) : T(std::forward<Args>(args)...), TimedMember(owner) {}

  void add_timing(Timing& timing) const override {
    if (T::moving()) timing.add({.due = T::due(), .settled = false, .catches = Catches});
  }
  void advance(Micros now) override { T::advance(now); }
};

/// Tells where its part is, at each frame while that moves, and at each event: to a cell that follows it, or
/// to the app.
class PlaceTeller final : public TimedMember {
 public:
  PlaceTeller(Part& owner, std::function<void()> tells) : TimedMember(owner), tells_(std::move(tells)) {}

  void add_timing(Timing& timing) const override { timing.tells = true; }
  void tell_place() override { tells_(); }

 private:
  std::function<void()> tells_;
};

/// Rings once when a state of its part has lasted for a time. The part says in `update` whether the state
/// holds; nothing else starts or stops it, so it can neither be forgotten nor ring too late.
class Alarm final : public TimedMember {
 public:
  Alarm(Part& owner, std::function<void()> rings) : TimedMember(owner), rings_(std::move(rings)) {}

  /// The state holds, or not, at `now`. It rings when the state has held for `after`; 0: never. While `held`
  /// the time stands. It rings once each time the state begins.
  void run(bool holds, Micros after, Micros now, bool held = false);
  /// The time begins again.
  void restart() { state_ = State::off; }
  [[nodiscard]] bool running() const { return state_ == State::running; }
  /// What is left of its time; 0 when there is none.
  [[nodiscard]] Micros left(Micros now) const {
    return running() ? rings_at_ - now : state_ == State::stands ? left_ : Micros{0};
  }

  void add_timing(Timing& timing) const override {
    if (running()) timing.add({.due = rings_at_, .settled = false});
  }
  void advance(Micros now) override;

 private:
  enum class State : unsigned char { off, running, stands, rung };

  std::function<void()> rings_;
  State state_ = State::off;
  Micros after_{0};
  Micros rings_at_ = never;
  Micros left_{0};
};

}  // namespace ubbo
