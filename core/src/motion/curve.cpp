#include "ubbo/motion/curve.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/settings.hpp"

namespace ubbo {

namespace {

template <class Shape>
struct Plain final : Curve::Form {
  explicit Plain(Shape what) : shape(std::move(what)) {}
  [[nodiscard]] double value(double p, bool before) const override {
    if constexpr (std::is_same_v<Shape, Stops>) return shape.value(p, before);
    return shape.value(p);
  }
  [[nodiscard]] double slope(double p) const override { return shape.slope(p); }
  [[nodiscard]] const Stops* stops() const override {
    if constexpr (std::is_same_v<Shape, Stops>) return &shape;
    return nullptr;
  }
  Shape shape;
};

struct Own {
  std::function<double(double)> of;
  std::function<double(double)> rate;
  [[nodiscard]] double value(double p) const { return of(p); }
  [[nodiscard]] double slope(double p) const {
    if (rate) return rate(p);
    constexpr double h =
        1e-6;  // about the cube root of a double's rounding, where a central difference errs least
    // On the inner side at the ends, since nothing is known of the curve outside.
    const double from = p - h < 0.0 && p >= 0.0 ? p : p - h;
    const double to = p + h > 1.0 && p <= 1.0 ? p : p + h;
    return (of(to) - of(from)) / (to - from);
  }
};

struct Reversed final : Curve::Form {
  explicit Reversed(Curve what) : curve(std::move(what)) {}
  [[nodiscard]] double value(double p, bool) const override { return 1.0 - curve.value(1.0 - p); }
  [[nodiscard]] double slope(double p) const override { return curve.slope(1.0 - p); }
  Curve curve;
};

struct Mirrored final : Curve::Form {
  explicit Mirrored(Curve what) : curve(std::move(what)) {}
  [[nodiscard]] double value(double p, bool before) const override {
    return p < 0.5 ? 0.5 * curve.value(2.0 * p, before) : 1.0 - 0.5 * curve.value(2.0 - 2.0 * p);
  }
  [[nodiscard]] double slope(double p) const override {
    return curve.slope(p < 0.5 ? 2.0 * p : 2.0 - 2.0 * p);
  }
  Curve curve;
};

struct Limited final : Curve::Form {
  Limited(Curve what, double low, double high) : curve(std::move(what)), min(low), max(high) {}
  [[nodiscard]] double value(double p, bool before) const override {
    return std::clamp(curve.value(p, before), min, max);
  }
  [[nodiscard]] double slope(double p) const override {
    const double free = curve.value(p);
    return free < min || free > max ? 0.0 : curve.slope(p);
  }
  Curve curve;
  double min;
  double max;
};

struct Joined final : Curve::Form {
  explicit Joined(std::vector<CurvePiece> what) : pieces(std::move(what)) {}
  struct Place {
    const CurvePiece& piece;
    double from;
    double begins;
  };
  [[nodiscard]] Place at(double p) const {
    std::size_t i = 0;
    while (i + 1 < pieces.size() && p >= pieces[i].until) ++i;
    return {pieces[i], i == 0 ? 0.0 : pieces[i - 1].to, i == 0 ? 0.0 : pieces[i - 1].until};
  }
  [[nodiscard]] double value(double p, bool before) const override {
    const auto [piece, from, begins] = at(p);
    if (p == piece.until) return piece.to;
    return from + (piece.to - from) * piece.curve.value((p - begins) / (piece.until - begins), before);
  }
  [[nodiscard]] double slope(double p) const override {
    const auto [piece, from, begins] = at(p);
    const double time = piece.until - begins;
    const double slope = piece.curve.slope((p - begins) / time);
    return piece.to == from ? 0.0 : (piece.to - from) / time * slope;
  }
  std::vector<CurvePiece> pieces;
};

}  // namespace

Curve::Curve(Stops stops) : kind_(std::make_shared<const Plain<Stops>>(std::move(stops))) {}
Curve::Curve(Through through) : kind_(std::make_shared<const Plain<Through>>(std::move(through))) {}

Curve Curve::own(std::function<double(double)> value, std::function<double(double)> slope) {
  if (!value) refuse("own: no function is given; a curve of one's own takes one");
  return Curve(std::make_shared<const Plain<Own>>(Own{std::move(value), std::move(slope)}));
}

Curve Curve::joined(std::vector<CurvePiece> pieces) {
  if (pieces.empty()) refuse("joined: no curves; it takes one or more");
  double reached = 0.0;
  for (const CurvePiece& piece : pieces) {
    if (!(piece.until > reached))
      refuse("joined: a curve until " + plain_number(piece.until) + " after " + plain_number(reached) +
             "; the shares of time must grow");
    if (!std::isfinite(piece.to)) refuse("joined: `to` takes finite numbers");
    reached = piece.until;
  }
  if (reached != 1.0)
    refuse("joined: the last curve runs until " + plain_number(reached) + "; it must run until 1");
  return Curve(std::make_shared<const Joined>(std::move(pieces)));
}

Curve Curve::reversed() const { return Curve(std::make_shared<const Reversed>(*this)); }

Curve Curve::mirrored() const { return Curve(std::make_shared<const Mirrored>(*this)); }

Curve Curve::limited(double min, double max) const {
  if (!(min < max))
    refuse("limited: least = " + plain_number(min) + " and most = " + plain_number(max) +
           " are not taken; least must be below most");
  return Curve(std::make_shared<const Limited>(*this, min, max));
}

double Curve::value(double p, bool before) const {
  if (const auto* bezier = std::get_if<CubicBezier>(&kind_)) return bezier->value(p);
  if (const auto* family = std::get_if<FamilyCurve>(&kind_)) return family->value(p);
  if (const auto* steps = std::get_if<Steps>(&kind_)) return steps->value(p, before);
  if (const auto* form = std::get_if<std::shared_ptr<const Form>>(&kind_)) return (*form)->value(p, before);
  return p;
}

double Curve::slope(double p) const {
  const double slope = exact_slope(p);
  return std::isnan(slope) ? 0.0 : std::clamp(slope, -upright_slope, upright_slope);
}

double Curve::exact_slope(double p) const {
  if (const auto* bezier = std::get_if<CubicBezier>(&kind_)) return bezier->slope(p);
  if (const auto* family = std::get_if<FamilyCurve>(&kind_)) return family->slope(p);
  if (std::holds_alternative<Steps>(kind_)) return 0.0;
  if (const auto* form = std::get_if<std::shared_ptr<const Form>>(&kind_)) return (*form)->slope(p);
  return 1.0;
}

const Stops* Curve::as_stops() const {
  const auto* form = std::get_if<std::shared_ptr<const Form>>(&kind_);
  return form == nullptr ? nullptr : (*form)->stops();
}

}  // namespace ubbo
