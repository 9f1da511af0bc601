#include "ubbo/fit/bezier_fit.hpp"

#include <cmath>
#include <nlopt.hpp>
#include <variant>
#include <vector>

namespace ubbo::fit {

namespace {

using io::BezierFit;

struct Target {
  std::vector<double> values;
};

double largest_error(const CubicBezier& bezier, const Target& target) {
  double worst = 0.0;
  const auto last = static_cast<double>(target.values.size() - 1);
  for (std::size_t i = 0; i < target.values.size(); ++i)
    worst = std::max(worst, std::fabs(bezier.value(static_cast<double>(i) / last) - target.values[i]));
  return worst;
}

double worst_off(const std::vector<double>& x, std::vector<double>&, void* data) {
  return largest_error({x[0], x[1], x[2], x[3]}, *static_cast<const Target*>(data));
}

double squares_off(const std::vector<double>& x, std::vector<double>&, void* data) {
  const auto& target = *static_cast<const Target*>(data);
  const CubicBezier bezier(x[0], x[1], x[2], x[3]);
  const auto last = static_cast<double>(target.values.size() - 1);
  double sum = 0.0;
  for (std::size_t i = 0; i < target.values.size(); ++i) {
    const double off = bezier.value(static_cast<double>(i) / last) - target.values[i];
    sum += off * off;
  }
  return sum;
}

using Start = std::vector<double>;

Start searched(nlopt::vfunc of, Target& target, Start x, double first_step) {
  nlopt::opt search(nlopt::LN_SBPLX, 4);
  search.set_lower_bounds({0.0, -20.0, 0.0, -20.0});
  search.set_upper_bounds({1.0, 20.0, 1.0, 20.0});
  search.set_min_objective(of, &target);
  search.set_xtol_abs(1e-6);
  search.set_maxeval(2000);
  search.set_initial_step(Start(4, first_step));
  double reached = 0.0;
  try {
    search.optimize(x, reached);
  } catch (const nlopt::roundoff_limited&) {  // as near as rounding lets it come
  }
  return x;
}

Target looked_at(const Curve& curve, int looks) {
  Target target;
  for (int i = 0; i <= looks; ++i) target.values.push_back(curve.value(static_cast<double>(i) / looks));
  return target;
}

}  // namespace

BezierFit fit_bezier(const Curve& curve) {
  if (const auto* bezier = std::get_if<CubicBezier>(&curve.kind())) return {*bezier, 0.0};
  if (std::holds_alternative<Curve::Linear>(curve.kind())) return {};
  Target coarse = looked_at(curve, 100);
  const Target fine = looked_at(curve, 2000);
  BezierFit best{CubicBezier(0, 0, 1, 1), largest_error({0, 0, 1, 1}, fine)};
  std::vector<Start> starts{{0.25, 0.25, 0.75, 0.75}, {0.2, 0.8, 0.2, 1.0}, {0.8, 0.0, 0.8, 0.2},
                            {0.7, 0.0, 0.3, 1.0},     {0.2, 1.2, 0.4, 1.0}, {0.6, 0.0, 0.8, -0.3}};
  // The cubic with the same ends and end slopes, which is the curve itself if that is a cubic.
  const double first = curve.slope(0.0) / 3.0;
  const double last = 1.0 - curve.slope(1.0) / 3.0;
  if (std::fabs(first) < 20.0 && std::fabs(last) < 20.0) starts.push_back({1.0 / 3, first, 2.0 / 3, last});
  const auto better = [&](const Start& x) {
    // Rounded as it is written, so that the error told is that of the text.
    const auto rounded = [](double number) { return std::round(number * 1e5) / 1e5; };
    const CubicBezier bezier{rounded(x[0]), rounded(x[1]), rounded(x[2]), rounded(x[3])};
    const double error = largest_error(bezier, fine);
    if (error < best.error) best = {bezier, error};
  };
  // Squares first, since they are smooth; from there the largest difference.
  for (const Start& start : starts) {
    better(start);
    better(searched(worst_off, coarse, searched(squares_off, coarse, start, 0.1), 0.02));
  }
  return best;
}

}  // namespace ubbo::fit
