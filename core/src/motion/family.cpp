#include "ubbo/motion/family.hpp"

#include <cmath>
#include <numbers>
#include <string>

#include "ubbo/base/maths.hpp"
#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

constexpr double pi = std::numbers::pi;

// p²((s+1)p - s) is lowest at p = 2s/(3(s+1)), where it is -4s³/(27(s+1)²). Newton from the right: the
// function is convex and grows for s > 0.
double back_pull(double overshoot) {
  if (overshoot == 0.0) return 0.0;
  double s = 3.0 + 27.0 / 4.0 * overshoot;
  for (int i = 0; i < 60; ++i) {
    const double depth = 4.0 * s * s * s / (27.0 * (s + 1) * (s + 1));
    const double rate = 4.0 * s * s * (s + 3) / (27.0 * (s + 1) * (s + 1) * (s + 1));
    const double step = (depth - overshoot) / rate;
    s -= step;
    if (std::fabs(step) < 1e-15 * s) break;
  }
  return s;
}

struct Height {
  double value;
  double slope;
};

// A ball falls from 1 to 0 in the time T, and bounces: each bounce is `keeps` times as high as the last and
// so takes √keeps times as long. All of it takes T(1 + 2(r + r² + …)) = 1 with r = √keeps.
Height fallen(double p, double bounces, double keeps) {
  const double r = std::sqrt(keeps);
  double whole = 1.0;
  double part = 1.0;
  for (int i = 0; i < static_cast<int>(bounces); ++i) whole += 2.0 * (part *= r);
  const double fall = 1.0 / whole;
  if (p < fall) return {p * p / (fall * fall), 2.0 * p / (fall * fall)};
  double begins = fall;
  double half = fall;
  double height = 1.0;
  for (int i = 0; i < static_cast<int>(bounces); ++i) {
    half *= r;
    height *= keeps;
    if (p <= begins + 2.0 * half || i + 1 == static_cast<int>(bounces)) {
      const double off = (p - begins - half) / half;
      return {1.0 - height * (1.0 - off * off), 2.0 * height * off / half};
    }
    begins += 2.0 * half;
  }
  return {1.0, 2.0 / fall};
}

}  // namespace

FamilyCurve::FamilyCurve(Family family, Ease ease, const FamilyShape& shape) : family_(family), ease_(ease) {
  if (family == Family::back) {
    demand("back: overshoot", shape.overshoot, 0.0, 10.0);
    first_ = back_pull(shape.overshoot);
  } else if (family == Family::elastic) {
    demand("elastic: swings", shape.swings, 0.25, 50.0);
    first_ = shape.swings;
  } else if (family == Family::bounce) {
    demand("bounce: bounces", shape.bounces, 0.0, 12.0);
    demand("bounce: keeps", shape.keeps, 0.01, 0.9);
    if (shape.bounces != std::floor(shape.bounces))
      refuse("bounce: bounces = " + plain_number(shape.bounces) +
             " is not taken; it takes a whole number, 0 to 12");
    first_ = shape.bounces;
    second_ = shape.keeps;
  }
}

FamilyShape FamilyCurve::shape() const {
  FamilyShape shape;
  if (family_ == Family::back)
    shape.overshoot = 4.0 * first_ * first_ * first_ / (27.0 * (first_ + 1.0) * (first_ + 1.0));
  if (family_ == Family::elastic) shape.swings = first_;
  if (family_ == Family::bounce) {
    shape.bounces = first_;
    shape.keeps = second_;
  }
  return shape;
}

double FamilyCurve::in(double p) const {
  switch (family_) {
    case Family::sine:
      return 1.0 - maths::cos(pi / 2 * p);
    case Family::quad:
      return p * p;
    case Family::cubic:
      return p * p * p;
    case Family::quart:
      return p * p * p * p;
    case Family::quint:
      return p * p * p * p * p;
    case Family::expo:
      return (maths::exp2(10.0 * p) - 1.0) / 1023.0;
    case Family::circ:
      return 1.0 - std::sqrt((1.0 - p) * (1.0 + p));
    case Family::back:
      return p * p * ((first_ + 1.0) * p - first_);
    case Family::elastic: {
      const double q = 1.0 - p;
      return (maths::exp2(10.0 * p) - 1.0) / 1023.0 * maths::cos(2.0 * pi * first_ * q);
    }
    case Family::bounce:
      return 1.0 - fallen(1.0 - p, first_, second_).value;
  }
  return p;
}

double FamilyCurve::in_slope(double p) const {
  constexpr double ten_ln2 = 10.0 * std::numbers::ln2;
  switch (family_) {
    case Family::sine:
      return pi / 2 * maths::sin(pi / 2 * p);
    case Family::quad:
      return 2.0 * p;
    case Family::cubic:
      return 3.0 * p * p;
    case Family::quart:
      return 4.0 * p * p * p;
    case Family::quint:
      return 5.0 * p * p * p * p;
    case Family::expo:
      return ten_ln2 * maths::exp2(10.0 * p) / 1023.0;
    case Family::circ:
      return p / std::sqrt((1.0 - p) * (1.0 + p));
    case Family::back:
      return p * (3.0 * (first_ + 1.0) * p - 2.0 * first_);
    case Family::elastic: {
      const double turn = 2.0 * pi * first_;
      const double grown = maths::exp2(10.0 * p);
      const auto [sin, cos] = maths::sin_cos(turn * (1.0 - p));
      return (ten_ln2 * grown * cos + (grown - 1.0) * turn * sin) / 1023.0;
    }
    case Family::bounce:
      return fallen(1.0 - p, first_, second_).slope;
  }
  return 1.0;
}

double FamilyCurve::value(double p) const {
  if (p <= 0.0 || p >= 1.0) {
    const double end = p <= 0.0 ? 0.0 : 1.0;
    if (p == end) return end;
    const double along = slope(end);
    return std::isfinite(along) ? end + (p - end) * along : end;
  }
  if (ease_ == Ease::in) return in(p);
  if (ease_ == Ease::out) return 1.0 - in(1.0 - p);
  return p < 0.5 ? 0.5 * in(2.0 * p) : 1.0 - 0.5 * in(2.0 - 2.0 * p);
}

double FamilyCurve::slope(double p) const {
  if (p < 0.0 || p > 1.0) {
    const double along = slope(p < 0.0 ? 0.0 : 1.0);
    return std::isfinite(along) ? along : 0.0;
  }
  if (ease_ == Ease::in) return in_slope(p);
  if (ease_ == Ease::out) return in_slope(1.0 - p);
  return p < 0.5 ? in_slope(2.0 * p) : in_slope(2.0 - 2.0 * p);
}

}  // namespace ubbo
