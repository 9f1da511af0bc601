#pragma once

#include <functional>
#include <utility>

#include "ubbo/base/time.hpp"

namespace ubbo {

class Part;

/// Something of a part that time changes: a mover, a rail, an alarm. It registers with its part when it is
/// made, so that the part is due when one of these is, is at rest when all are, and nobody has to say so.
class TimedMember {
 public:
  /// `owner` must outlive it.
  explicit TimedMember(Part& owner);
  TimedMember(const TimedMember&) = delete;
  TimedMember& operator=(const TimedMember&) = delete;
  virtual ~TimedMember();

  /// When something next happens to it by itself; `never` when nothing does.
  [[nodiscard]] virtual Micros due() const = 0;
  /// True when nothing of it moves, waits or is held.
  [[nodiscard]] virtual bool settled() const = 0;
  /// Lets time pass to `now`.
  virtual void advance(Micros now) = 0;
  /// True while it is under way by itself and a contact that goes down on its part should stop it.
  [[nodiscard]] virtual bool catches() const { return false; }
  /// Says its place to a cell that follows it while it moves.
  virtual void tell_place() {}
  /// That cell, while it moves and others watch the cell: they must know before anything happens. Else null.
  [[nodiscard]] virtual const void* shared_cell() const { return nullptr; }
  /// It shares this cell with another part that leads: what it hears next carries it along.
  virtual void carry(const void* /*cell*/) {}

 private:
  friend class Part;

  Part* owner_;
  TimedMember* next_ = nullptr;
};

/// A `T` that the clock of its part drives: `T` has `due()`, `moving()` and `advance(now)`, as `Mover` and
/// `Visit` do. `Catches`: while it moves a contact stops it.
template <class T, bool Catches = false>
class Clocked final : public T, public TimedMember {
 public:
  template <class... Args>
  explicit Clocked(Part& owner, Args&&... args) : T(std::forward<Args>(args)...), TimedMember(owner) {}

  [[nodiscard]] Micros due() const override { return T::due(); }
  [[nodiscard]] bool settled() const override { return !T::moving(); }
  void advance(Micros now) override { T::advance(now); }
  [[nodiscard]] bool catches() const override { return Catches && T::moving(); }
};

/// Tells where its part is, at each frame while that moves, and at each event: to a cell that follows it, or
/// to the app.
class PlaceTeller final : public TimedMember {
 public:
  PlaceTeller(Part& owner, std::function<void()> tells) : TimedMember(owner), tells_(std::move(tells)) {}

  [[nodiscard]] Micros due() const override { return never; }
  [[nodiscard]] bool settled() const override { return true; }
  void advance(Micros) override {}
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

  [[nodiscard]] Micros due() const override { return running() ? rings_at_ : never; }
  [[nodiscard]] bool settled() const override { return !running(); }
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
