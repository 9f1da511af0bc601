#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

const std::vector families{Family::sine, Family::quad, Family::cubic, Family::quart,   Family::quint,
                           Family::expo, Family::circ, Family::back,  Family::elastic, Family::bounce};

rc::Gen<Curve> any_curve() {
  return rc::gen::exec([]() -> Curve {
    const auto simple = []() -> Curve {
      switch (*rc::gen::inRange(0, 4)) {
        case 0:
          return Curve::cubic_bezier(*number(0, 1), *number(-2, 3), *number(0, 1), *number(-2, 3));
        case 1:
          return Curve::family(*rc::gen::elementOf(families),
                               *rc::gen::element(Ease::in, Ease::out, Ease::in_out));
        case 2:
          return Curve::through({{0, 0}, {*number(0.1, 0.5), *number(-1, 2)}, {0.7, *number(-1, 2)}, {1, 1}},
                                *rc::gen::element(Between::monotone, Between::free));
        default:
          return Curve::stops({{0}, {*number(-1, 2), *number(0.1, 0.9)}, {1}});
      }
    };
    const Curve curve = simple();
    switch (*rc::gen::inRange(0, 5)) {
      case 0:
        return curve.reversed();
      case 1:
        return curve.mirrored();
      case 2:
        return Curve::joined({{curve, *number(0.1, 0.9), *number(-1, 2)}, {simple(), 1, 1}});
      case 3:
        return Curve::own([curve](double p) { return curve.value(p); });
      default:
        return curve;
    }
  });
}

}  // namespace

TEST_CASE("cubic-bezier agrees with the curve's own definition") {
  PROPERTY("walking the parameter", [] {
    const double x1 = *number(0, 1), y1 = *number(-3, 3), x2 = *number(0, 1), y2 = *number(-3, 3);
    const Curve curve = Curve::cubic_bezier(x1, y1, x2, y2);
    // The definition in Bernstein form, apart from the solver's own arithmetic.
    const double s = *number(0, 1), r = 1 - s;
    const double x = 3 * r * r * s * x1 + 3 * r * s * s * x2 + s * s * s;
    const double y = 3 * r * r * s * y1 + 3 * r * s * s * y2 + s * s * s;
    const double x_rate = 3 * r * r * x1 + 6 * r * s * (x2 - x1) + 3 * s * s * (1 - x2);
    // Where the curve stands upright, y is not a function of x to within rounding.
    RC_PRE(x_rate > 1e-6);
    RC_ASSERT(std::fabs(curve.value(x) - y) < 1e-6);
    if (x_rate < 1e-4) return;
    const double y_rate = 3 * r * r * y1 + 6 * r * s * (y2 - y1) + 3 * s * s * (1 - y2);
    RC_ASSERT(std::fabs(curve.slope(x) - y_rate / x_rate) < 1e-4 * (1 + std::fabs(y_rate / x_rate)));
  });
}

TEST_CASE("ends are exact, and beyond them a cubic-bezier goes on along its tangents") {
  for (const Curve& curve :
       {Curve{}, Curve::ease(), Curve::ease_in(), Curve::ease_out(), Curve::ease_in_out()}) {
    CHECK(curve.value(0) == 0.0);
    CHECK(curve.value(1) == 1.0);
    CHECK(curve.value(-0.5) == Approx(-0.5 * curve.slope(0)));
    CHECK(curve.value(1.5) == Approx(1 + 0.5 * curve.slope(1)));
  }
  // CSS Easing Functions Level 2: a control point above or below the end passes the tangent on to the other.
  CHECK(Curve::cubic_bezier(0, 0, 0.5, 1).value(-1) == Approx(-2));
  CHECK(Curve::cubic_bezier(0, 0.5, 1, 1).value(-1) == Approx(-1));
  CHECK(Curve::cubic_bezier(0, 0.5, 0, 1).value(-1) == 0.0);
  CHECK(Curve::cubic_bezier(1, 2, 1, 0).value(2) == 1.0);
  CHECK_THROWS_WITH(Curve::cubic_bezier(1.2, 0, 1, 1),
                    Catch::Contains("x1 = 1.2") && Catch::Contains("0 to 1"));
  CHECK_THROWS(Curve::cubic_bezier(0, std::nan(""), 1, 1));
}

TEST_CASE("steps: each jump where the standard has it") {
  struct Case {
    int count;
    Jump jump;
    double p;
    double value, before;  // without and with the before flag
  };
  for (const Case& c : {Case{4, Jump::end, 0, 0, 0},  // the standard's figures for four steps and three
                        {4, Jump::end, 0.25, 0.25, 0},
                        {4, Jump::end, 0.2499, 0, 0},
                        {4, Jump::end, 1, 1, 0.75},
                        {4, Jump::start, 0, 0.25, 0},
                        {4, Jump::start, 0.999, 1, 1},
                        {4, Jump::start, 1, 1, 1},
                        {3, Jump::none, 0, 0, 0},
                        {3, Jump::none, 0.34, 0.5, 0.5},
                        {3, Jump::none, 0.67, 1, 1},
                        {3, Jump::both, 0, 0.25, 0},
                        {3, Jump::both, 0.5, 0.5, 0.5},
                        {3, Jump::both, 1, 1, 0.75},
                        {2, Jump::end, -0.25, -0.5, -0.5},
                        {2, Jump::end, 1.5, 1.5, 1},
                        {2, Jump::start, -0.25, 0, 0},
                        {2, Jump::both, 1.75, 4.0 / 3, 4.0 / 3}}) {
    CAPTURE(c.count, static_cast<int>(c.jump), c.p);
    const Curve steps = Curve::steps(c.count, c.jump);
    CHECK(steps.value(c.p) == Approx(c.value).margin(1e-12));
    CHECK(steps.value(c.p, true) == Approx(c.before).margin(1e-12));
    CHECK(steps.slope(c.p) == 0.0);
  }
  CHECK_THROWS_WITH(Curve::steps(1, Jump::none), Catch::Contains("count = 1") && Catch::Contains("2 to"));
  CHECK_THROWS(Curve::steps(0));
  CHECK(Curve::steps(1'000'000).value(0.5) == 0.5);
  CHECK_THROWS(Curve::steps(1'000'001));
}

TEST_CASE("linear(): stops are placed and read as the standard says") {
  struct Case {
    std::vector<CurveStop> stops;
    std::vector<double> placed;
    std::vector<std::pair<double, double>> reads;
  };
  const Case cases[] = {
      {{{0}, {1}}, {0, 1}, {{-1, -1}, {0.3, 0.3}, {2, 2}}},
      {{{0}, {0.5}, {0.9}, {1}}, {0, 1.0 / 3, 2.0 / 3, 1}, {{0.5, 0.7}}},
      {{{0}, {0.5, 0.8}, {0.6, 0.2}, {1}}, {0, 0.8, 0.8, 1}, {{0.8, 0.6}, {0.4, 0.25}, {0.9, 0.8}}},
      {{{1, 0.2}, {2}}, {0.2, 1}, {{0, 0.75}, {0.6, 1.5}}},
      {{{0}, {1, 1.5}, {3}}, {0, 1.5, 1.5}, {{0.75, 0.5}, {1.5, 3}, {2, 3}}},
      {{{5, 0.5}, {7, 0.5}, {9}}, {0.5, 0.5, 1}, {{0.2, 5}, {0.5, 7}, {0.75, 8}}},
      {{{0.4}}, {0}, {{-3, 0.4}, {0.9, 0.4}}},
  };
  for (const Case& c : cases) {
    const Stops stops(c.stops);
    for (std::size_t i = 0; i < c.placed.size(); ++i) CHECK(stops.points().at(i).at == Approx(c.placed[i]));
    for (const auto& [p, value] : c.reads) CHECK(stops.value(p) == Approx(value));
  }
  CHECK(Stops({{5, 0.5}, {7, 0.5}, {9}}).value(0.5, true) == 5);
  CHECK_THROWS_WITH(Stops({}), Catch::Contains("no stops"));
}

TEST_CASE("families: ends exact, out is in turned round, and the shapes one knows by name") {
  PROPERTY("symmetry", [] {
    const Family family = *rc::gen::elementOf(families);
    const double p = *number(0, 1);
    const Curve in = Curve::family(family, Ease::in), out = Curve::family(family, Ease::out),
                both = Curve::family(family, Ease::in_out);
    RC_ASSERT(std::fabs(out.value(p) - (1 - in.value(1 - p))) < 1e-12);
    RC_ASSERT(std::fabs(both.value(p) - (1 - both.value(1 - p))) < 1e-12);
    RC_ASSERT(std::fabs(in.reversed().value(p) - out.value(p)) < 1e-12);
    RC_ASSERT(std::fabs(in.mirrored().value(p) - both.value(p)) < 1e-12);
    for (const Curve& curve : {in, out, both}) {
      RC_ASSERT(curve.value(0) == 0.0);
      RC_ASSERT(curve.value(1) == 1.0);
      RC_ASSERT(std::fabs(curve.value(p * 1e-7)) < 1e-3);  // and nothing jumps there
      RC_ASSERT(std::fabs(1 - curve.value(1 - p * 1e-7)) < 1e-3);
    }
  });
  CHECK(Curve::family(Family::quint, Ease::in).value(0.5) == Approx(1.0 / 32));
  CHECK(Curve::family(Family::circ, Ease::out).value(0.5) == Approx(std::sqrt(3) / 2));
  PROPERTY("back overshoots by what is asked", [] {
    const double overshoot = *number(0.01, 3);
    const Curve back = Curve::family(Family::back, Ease::out, {.overshoot = overshoot});
    double max = 0;
    for (int i = 0; i <= 4000; ++i) max = std::fmax(max, back.value(i / 4000.0));
    RC_ASSERT(std::fabs(max - 1 - overshoot) < 1e-3);
  });
  PROPERTY("bounce touches the target and keeps its share of height", [] {
    const int bounces = *rc::gen::inRange(1, 6);
    const double keeps = *number(0.05, 0.8);
    const Curve bounce =
        Curve::family(Family::bounce, Ease::out, {.bounces = static_cast<double>(bounces), .keeps = keeps});
    // The ground is where the value is 1; between two touches it is lowest once.
    double lowest = 1, expected = keeps;
    int seen = 0;
    bool fallen = false;
    for (int i = 1; i <= 40000; ++i) {
      const double here = bounce.value(i / 40000.0), before = bounce.value((i - 1) / 40000.0);
      RC_ASSERT(here <= 1 + 1e-12);
      if (fallen) lowest = std::fmin(lowest, here);
      const bool touches = here > 1 - 2e-3 * std::pow(keeps, bounces) - 3e-4 && here < before;
      if ((touches && before >= here && bounce.value((i - 2) / 40000.0) < before) || i == 40000) {
        if (fallen) {
          RC_ASSERT(std::fabs(1 - lowest - expected) < 2e-3);
          expected *= keeps;
          ++seen;
        }
        fallen = true;
        lowest = 1;
      }
    }
    RC_ASSERT(seen == bounces);
  });
  CHECK_THROWS_WITH(Curve::family(Family::bounce, Ease::in, {.bounces = 1.5}),
                    Catch::Contains("whole number"));
}

TEST_CASE("each family's slope is its value's rate of change, at every share") {
  for (const Family family : families)
    for (const Ease ease : {Ease::in, Ease::out, Ease::in_out}) {
      const Curve curve = Curve::family(family, ease);
      int held = 0;
      for (double p = 0.0137; p < 1.0; p += 0.0411) {
        const double h = 1e-6;
        const double measured = (curve.value(p + h) - curve.value(p - h)) / (2 * h);
        const double before = curve.slope(p - 2 * h), after = curve.slope(p + 2 * h);
        if (std::fabs(after - before) > 1e-3 * (1 + std::fabs(before))) continue;  // a corner of a bounce
        CHECK(curve.slope(p) == Approx(measured).epsilon(1e-4).margin(1e-5));
        ++held;
      }
      CHECK(held > 20);
    }
}

TEST_CASE("a family's shape is what it was made with, and outside its slope is that of its end") {
  const FamilyCurve back(Family::back, Ease::out,
                         {.overshoot = 0.2, .swings = 7, .bounces = 2, .keeps = 0.3});
  CHECK(back.shape().overshoot == Approx(0.2));
  CHECK(back.shape().swings == FamilyShape{}.swings);
  const FamilyCurve swinging(Family::elastic, Ease::out, {.overshoot = 0.2, .swings = 7});
  CHECK(swinging.shape().swings == 7);
  CHECK(swinging.shape().overshoot == FamilyShape{}.overshoot);
  const FamilyCurve cubic(Family::cubic, Ease::in);
  for (const double p : {1.0, 1.2, 1.9, 2.5}) CHECK(cubic.slope(p) == Approx(3));
  for (const double p : {0.0, -0.2, -1.5}) CHECK(cubic.slope(p) == 0);
}

TEST_CASE("every curve's slope is its value's rate of change, and it goes on evenly outside") {
  PROPERTY("central differences", [] {
    const Curve curve = *any_curve();
    const double p = *number(0.001, 0.999), h = 1e-6;
    const double context[] = {curve.slope(p - 2 * h), curve.slope(p), curve.slope(p + 2 * h)};
    // At corners and upright places there is no one slope.
    RC_PRE(std::isfinite(context[0] + context[1] + context[2]));
    RC_PRE(std::fabs(context[2] - context[0]) < 1e-2 * (1 + std::fabs(context[1])));
    RC_PRE(std::fabs(context[1]) < 1e3);
    const double measured = (curve.value(p + h) - curve.value(p - h)) / (2 * h);
    RC_ASSERT(std::fabs(measured - context[1]) < 2e-2 * (1 + std::fabs(context[1])));
  });
  for (const Family family : families) {
    const Curve curve = Curve::family(family, Ease::in);
    const double slope = curve.slope(1) < upright_slope ? curve.slope(1) : 0;
    CHECK(curve.value(1.5) == Approx(1 + 0.5 * slope));
  }
}

TEST_CASE("a curve through points meets them, and unless asked never leaves the two it runs between") {
  PROPERTY("any points", [] {
    std::vector<Stops::Point> points;
    double at = 0;
    const int count = *rc::gen::inRange(2, 8);
    for (int i = 0; i < count; ++i) points.push_back({at += *number(0.01, 1), *number(-2, 2)});
    const Through curve(points), free(points, Between::free);
    for (const auto& point : points) {
      RC_ASSERT(std::fabs(curve.value(point.at) - point.value) < 1e-9);
      RC_ASSERT(std::fabs(free.value(point.at) - point.value) < 1e-9);
    }
    for (std::size_t i = 1; i < points.size(); ++i)
      for (int k = 0; k <= 20; ++k) {
        const double value = curve.value(points[i - 1].at + (points[i].at - points[i - 1].at) * k / 20);
        RC_ASSERT(value >= std::fmin(points[i - 1].value, points[i].value) - 1e-9);
        RC_ASSERT(value <= std::fmax(points[i - 1].value, points[i].value) + 1e-9);
      }
  });
  // A parabola is met by the free one everywhere.
  const Through parabola({{0, 0}, {0.3, 0.09}, {0.6, 0.36}, {1, 1}}, Between::free);
  CHECK(parabola.value(0.45) == Approx(0.2025));
  // Points in a line give that line, however flat or steep.
  for (const double slope : {0.3, 1.0, 7.0, -0.3}) {
    const Through line({{0, 0}, {0.2, 0.2 * slope}, {0.7, 0.7 * slope}, {1, slope}});
    for (const double at : {0.1, 0.25, 0.45, 0.8}) CHECK(line.value(at) == Approx(at * slope));
  }
  CHECK_THROWS_WITH(Through({{0, 0}, {0, 1}}), Catch::Contains("places must grow"));
}

TEST_CASE("joined and limited") {
  const Curve there = Curve::joined({{Curve::ease_in(), 0.4, 0.7}, {Curve{}, 1, 1}});
  CHECK(there.value(0.2) == Approx(0.7 * Curve::ease_in().value(0.5)));
  CHECK(there.value(0.4) == 0.7);
  CHECK(there.value(0.7) == Approx(0.85));
  CHECK(there.value(1) == 1.0);
  CHECK_THROWS_WITH(Curve::joined({{Curve{}, 0.5, 1}}), Catch::Contains("must run until 1"));
  CHECK_THROWS(Curve::joined({{Curve{}, 0.5, 1}, {Curve{}, 0.4, 1}, {}}));
  const Curve back = Curve::family(Family::back, Ease::out);
  CHECK(back.limited().value(0.5) == 1.0);
  CHECK(back.limited().slope(0.5) == 0.0);
  CHECK(back.limited(0, 1.05).value(0.1) == back.value(0.1));
  CHECK_THROWS(back.limited(1, 1));
}

TEST_CASE("the fewest lines within an error: within it, exact at the ends, and few") {
  PROPERTY("any curve", [] {
    const Curve curve = *any_curve();
    const double max = *rc::gen::element(0.0005, 0.002, 0.02);
    const FittedStops fitted = fewest_stops(curve, max);
    // Straight up and down needs a stop at its very place, to five decimals.
    double steepest = 0;
    for (int i = 0; i < 5000; ++i)
      steepest =
          std::fmax(steepest, std::fabs(curve.value((i + 1) / 5000.0) - curve.value(i / 5000.0)) * 5000);
    RC_PRE(steepest < 50);
    std::vector<CurveStop> stops;
    for (const auto& point : fitted.points) stops.push_back({point.value, point.at});
    const Stops lines(stops);
    for (int i = 0; i <= 3001; ++i)
      RC_ASSERT(std::fabs(lines.value(i / 3001.0) - curve.value(i / 3001.0)) <= max);
    RC_ASSERT(fitted.error <= max);
    RC_ASSERT(fitted.points.front().at == 0.0);
    RC_ASSERT(fitted.points.back().at == 1.0);
    RC_ASSERT(fewest_stops(curve, max * 2).points.size() <= fitted.points.size());
  });
  PROPERTY("springs of ratio 0.7 and more need at most 40 stops for 0.002", [] {
    const Spring spring = Spring::natural(*number(1, 100), *number(0.7, 8));
    const FittedStops fitted = fewest_stops(progress_of(spring), 0.002);
    RC_ASSERT(fitted.error <= 0.002);
    RC_ASSERT(fitted.points.size() <= 40u);
  });
  // The line nearest to p² over a length h is off by h²/8, so each needs h ≤ √(8e); both exact ends may cost
  // one.
  CHECK(fewest_stops(Curve::stops({{0}, {0.8, 0.2}, {0.6, 0.7}, {1}}), 1e-3).points.size() == 4);
  const double e = 0.002, links = std::ceil(1 / std::sqrt(8 * e));
  const std::size_t quad = fewest_stops(Curve::family(Family::quad, Ease::in), e).points.size();
  CHECK(quad >= static_cast<std::size_t>(links) + 1);
  CHECK(quad <= static_cast<std::size_t>(links) + 2);
  CHECK(fewest_stops(Curve{}, 1).points.size() == 2);
  CHECK_THROWS_WITH(fewest_stops(Curve{}, 0), Catch::Contains("0.0001 to 1"));
}

TEST_CASE("an app's own curve is asked only where it is known, and its slope is what a fine look gives") {
  const Curve root = Curve::own([](double p) { return p < 0 || p > 1 ? std::nan("") : p * p * (3 - 2 * p); });
  for (const double p : {0.0, 1e-9, 0.25, 0.5, 1 - 1e-9, 1.0})
    CHECK(root.slope(p) == Approx(6 * p * (1 - p)).margin(1e-5));
  const Curve beyond = Curve::own([](double p) { return p * p; });
  for (const double p : {-0.5, 0.0, 0.3, 1.0, 1.5}) CHECK(beyond.slope(p) == Approx(2 * p).margin(2e-5));
}

TEST_CASE("the fewest lines: no look finds them further off than they say, and one line less would not do") {
  PROPERTY("any spring and bounce, any error", [] {
    const double error = *number(0.0005, 0.05);
    const Curve curve = *rc::gen::element(progress_of(Spring::settling(ms(400), 0.2)),
                                          progress_of(Spring::settling(ms(300), 0)),
                                          Curve::through({{0, 0}, {0.3, 0.8}, {0.5, 0.2}, {1, 1}}));
    const FittedStops fitted = fewest_stops(curve, error);
    std::vector<CurveStop> stops;
    for (const Stops::Point& point : fitted.points) stops.push_back({point.value, point.at});
    const Stops lines(stops);
    double worst = 0;
    for (int i = 0; i <= 30'011; ++i)
      worst = std::max(worst, std::fabs(lines.value(i / 30'011.0) - curve.value(i / 30'011.0)));
    RC_ASSERT(worst <= fitted.error * (1 + 1e-9) + 1e-12);
    RC_ASSERT(fitted.error <= error);
    RC_ASSERT(fitted.points.front().at == 0 && fitted.points.back().at == 1);
    // An upper bound of its own: greedy straight lines from stop to stop, each as far as it may go.
    std::size_t greedy = 1;
    for (double from = 0; from < 1; ++greedy) {
      double to = from;
      for (double next = from + 0.002; next <= 1.0001; next += 0.002) {
        const double end = std::min(next, 1.0), a = curve.value(from), b = curve.value(end);
        double off = 0;
        for (int i = 1; i < 20; ++i)
          off = std::max(off, std::fabs(curve.value(from + (end - from) * i / 20) - (a + (b - a) * i / 20)));
        if (off > error * 0.9) break;
        to = end;
      }
      if (to == from) break;
      from = to;
    }
    RC_ASSERT(fitted.points.size() <= greedy + 1);
  });
}
