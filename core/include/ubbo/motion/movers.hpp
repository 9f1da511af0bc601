#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "ubbo/base/colour.hpp"
#include "ubbo/base/geometry.hpp"
#include "ubbo/motion/mover.hpp"

namespace ubbo {

/// How a value of type `T` is told by numbers that can be in motion. Specialise it for a type of one's own:
/// `count`, `parts`, `whole`, and `towards` (the numbers of a target, seen from where the motion is now).
template <class T>
struct Coordinates;

template <>
struct Coordinates<Point> {
  static constexpr std::size_t count = 2;
  static std::array<double, 2> parts(Point p) { return {p.x, p.y}; }
  static Point whole(const std::array<double, 2>& c) { return {c[0], c[1]}; }
  static std::array<double, 2> towards(Point p, const std::array<double, 2>&) { return parts(p); }
};

template <>
struct Coordinates<Size> {
  static constexpr std::size_t count = 2;
  static std::array<double, 2> parts(Size s) { return {s.w, s.h}; }
  /// Never below nothing, also where a spring swings past.
  static Size whole(const std::array<double, 2>& c) { return {std::max(0.0, c[0]), std::max(0.0, c[1])}; }
  static std::array<double, 2> towards(Size s, const std::array<double, 2>&) { return parts(s); }
};

/// The shortest way round: never more than half a turn. In motion the angle is not wrapped.
template <>
struct Coordinates<Angle> {
  static constexpr std::size_t count = 1;
  static std::array<double, 1> parts(Angle a) { return {a.radians}; }
  static Angle whole(const std::array<double, 1>& c) { return {c[0]}; }
  static std::array<double, 1> towards(Angle a, const std::array<double, 1>& now) {
    return {now[0] + std::remainder(a.radians - now[0], 2.0 * std::numbers::pi)};
  }
};

/// Mixed in OKLab with alpha multiplied in, as `mix` does.
template <>
struct Coordinates<Colour> {
  static constexpr std::size_t count = 4;
  static std::array<double, 4> parts(const Colour& colour) {
    const Oklab lab = to_oklab(colour);
    return {lab.lightness * lab.alpha, lab.a * lab.alpha, lab.b * lab.alpha, lab.alpha};
  }
  static Colour whole(const std::array<double, 4>& c) {
    const double cover = c[3] > 1e-9 ? c[3] : 1.0;
    return from_oklab({c[0] / cover, c[1] / cover, c[2] / cover, c[3]});
  }
  static std::array<double, 4> towards(const Colour& colour, const std::array<double, 4>&) {
    return parts(colour);
  }
};

/// A value of several numbers in motion: a mover for each, sent together. Everything said of `Mover` holds;
/// at rest the value is the one given, to the bit.
template <class T>
class MoverOf {
 public:
  using Numbers = std::array<double, Coordinates<T>::count>;

  explicit MoverOf(const T& value = {}, double rest_floor = 0.0) : given_(value) {
    const Numbers start = Coordinates<T>::parts(value);
    for (std::size_t i = 0; i < start.size(); ++i) movers_[i] = Mover(start[i], rest_floor);
  }

  [[nodiscard]] T value() const { return moving() ? Coordinates<T>::whole(numbers()) : given_; }
  /// Where it goes; the value itself when it rests.
  [[nodiscard]] const T& target() const { return given_; }
  /// The numbers' velocities, per second: dp/s, radians/s, OKLab units/s.
  [[nodiscard]] Numbers velocity() const {
    return each([](const Mover& mover) { return mover.velocity(); });
  }
  [[nodiscard]] bool moving() const {
    return std::any_of(movers_.begin(), movers_.end(), [](const Mover& m) { return m.moving(); });
  }
  /// When the next thing happens by itself; `never` when nothing does.
  [[nodiscard]] Micros due() const {
    Micros first = never;
    for (const Mover& mover : movers_) first = std::min(first, mover.due());
    return first;
  }
  [[nodiscard]] double opacity() const {
    double min = 1.0;
    for (const Mover& mover : movers_) min = std::min(min, mover.opacity());
    return min;
  }

  void set_usual(const Transition& transition) {
    for (Mover& mover : movers_) mover.set_usual(transition);
  }
  void set_reduced(Reduced reduced) {
    for (Mover& mover : movers_) mover.set_reduced(reduced);
  }
  void put(const T& value) {
    given_ = value;
    const Numbers numbers = Coordinates<T>::parts(value);
    for (std::size_t i = 0; i < numbers.size(); ++i) movers_[i].put(numbers[i]);
  }
  void send(const T& target, Micros now) { send(target, movers_[0].usual(), now); }
  void send(const T& target, const Transition& transition, Micros now) {
    send(target, transition, now, velocity());
  }
  /// A spring starts with `velocities`, as from a finger that let go.
  void send(const T& target, const Transition& transition, Micros now, const Numbers& velocities) {
    given_ = target;
    const Numbers goal = Coordinates<T>::towards(target, numbers());
    for (std::size_t i = 0; i < goal.size(); ++i) movers_[i].send(goal[i], transition, now, velocities[i]);
  }
  void stop() {
    given_ = value();
    for (Mover& mover : movers_) mover.stop();
  }
  void finish() { put(given_); }
  /// Lets time pass to `now`. Returns true when this brought it to rest.
  bool advance(Micros now) {
    if (!moving()) return false;
    for (Mover& mover : movers_) mover.advance(now);
    if (moving()) return false;
    if (movers_[0].motion().goal() != movers_[0].motion().to()) given_ = Coordinates<T>::whole(numbers());
    return true;
  }

 private:
  template <class Read>
  [[nodiscard]] Numbers each(Read read) const {
    Numbers numbers{};
    for (std::size_t i = 0; i < numbers.size(); ++i) numbers[i] = read(movers_[i]);
    return numbers;
  }
  [[nodiscard]] Numbers numbers() const {
    return each([](const Mover& mover) { return mover.value(); });
  }

  T given_;
  std::array<Mover, Coordinates<T>::count> movers_;
};

using PointMover = MoverOf<Point>;
using SizeMover = MoverOf<Size>;
using AngleMover = MoverOf<Angle>;
using ColourMover = MoverOf<Colour>;

}  // namespace ubbo
