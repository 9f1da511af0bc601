#pragma once

#include <functional>
#include <memory>
#include <variant>
#include <vector>

#include "ubbo/motion/bezier.hpp"
#include "ubbo/motion/family.hpp"
#include "ubbo/motion/steps.hpp"
#include "ubbo/motion/stops.hpp"
#include "ubbo/motion/through.hpp"

namespace ubbo {

struct CurvePiece;

/// The steepest a curve says it is, in progress per share of time: where it stands upright, and in no other
/// place.
inline constexpr double upright_slope = 1e9;

/// An easing curve: how far a motion has come (0 to 1, or beyond where the curve overshoots) at each share of
/// its time (0 to 1). A small value to be copied at will; only making `stops`, `through`, `joined`, `own`,
/// `reversed`, `mirrored` and `limited` allocates.
class Curve {
 public:
  /// What a curve of many numbers is made of; shared by its copies.
  struct Form {
    Form() = default;
    Form(const Form&) = delete;
    Form& operator=(const Form&) = delete;
    virtual ~Form() = default;
    [[nodiscard]] virtual double value(double p, bool before) const = 0;
    [[nodiscard]] virtual double slope(double p) const = 0;
    /// The stops, if that is what it is.
    [[nodiscard]] virtual const Stops* stops() const { return nullptr; }
  };
  struct Linear {};
  using Kind = std::variant<Linear, CubicBezier, Steps, FamilyCurve, std::shared_ptr<const Form>>;

  /// `linear`.
  Curve() = default;
  // One kind stands for the curve it is.
  Curve(CubicBezier bezier) : kind_(bezier) {}
  Curve(Steps steps) : kind_(steps) {}
  Curve(FamilyCurve family) : kind_(family) {}
  Curve(Stops stops);
  Curve(Through through);

  // CSS Easing Functions Level 2. They throw as the kinds do.
  static Curve cubic_bezier(double x1, double y1, double x2, double y2) {
    return CubicBezier(x1, y1, x2, y2);
  }
  static Curve ease() { return cubic_bezier(0.25, 0.1, 0.25, 1.0); }
  static Curve ease_in() { return cubic_bezier(0.42, 0.0, 1.0, 1.0); }
  static Curve ease_out() { return cubic_bezier(0.0, 0.0, 0.58, 1.0); }
  static Curve ease_in_out() { return cubic_bezier(0.42, 0.0, 0.58, 1.0); }
  static Curve steps(int count, Jump jump = Jump::end) { return Steps(count, jump); }
  static Curve stops(const std::vector<CurveStop>& stops) { return Stops(stops); }

  static Curve family(Family family, Ease ease, const FamilyShape& shape = {}) {
    return FamilyCurve(family, ease, shape);
  }
  static Curve through(std::vector<Stops::Point> points, Between between = Between::monotone) {
    return Through(std::move(points), between);
  }
  /// One of the app's own. `slope` is told by the difference of two values near by if it is not given.
  static Curve own(std::function<double(double)> value, std::function<double(double)> slope = {});
  /// Curves one after another. Throws `std::invalid_argument` when there are none, when `until` does not grow
  /// from above 0 to 1, or when a `to` is not finite.
  static Curve joined(std::vector<CurvePiece> pieces);

  /// The same way run backwards: 1 - c(1-p). What eased in eases out.
  [[nodiscard]] Curve reversed() const;
  /// At half size, then reversed: what eased in eases in and out.
  [[nodiscard]] Curve mirrored() const;
  /// Kept within `least` and `most`. Throws `std::invalid_argument` unless `least` is below `most`.
  [[nodiscard]] Curve limited(double min = 0.0, double max = 1.0) const;

  /// How far at the share `p` of the time; also outside 0..1. `before` is the standard's before flag: the
  /// motion waits for its delay; it counts for jumps at exactly `p`.
  [[nodiscard]] double value(double p, bool before = false) const;
  /// The slope of `value` at `p`: progress per share of time. 0 on steps; at most `upright_slope`, where a
  /// curve stands upright; to the right where the slope changes at once.
  [[nodiscard]] double slope(double p) const;

  [[nodiscard]] const Kind& kind() const { return kind_; }
  /// The stops of a `linear(…)`, else null.
  [[nodiscard]] const Stops* as_stops() const;

 private:
  [[nodiscard]] double exact_slope(double p) const;
  explicit Curve(std::shared_ptr<const Form> form) : kind_(std::move(form)) {}

  Kind kind_;
};

/// One curve of several joined: it runs until the share `until` of the whole time, and comes to `to`.
struct CurvePiece {
  Curve curve{};
  double until = 1.0;
  double to = 1.0;
};

}  // namespace ubbo
