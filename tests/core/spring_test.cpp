#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// The equation itself, integrated by the classic fourth-order Runge-Kutta method.
SpringState integrate(double frequency, double ratio, SpringState state, double seconds) {
  const double fastest = frequency * (ratio + std::sqrt(std::fmax(ratio * ratio - 1, 0)) + 1);
  const int steps = 200 + static_cast<int>(seconds * fastest * 60);
  const double h = seconds / steps;
  const auto rate = [&](SpringState s) {
    return SpringState{s.velocity, -2 * ratio * frequency * s.velocity - frequency * frequency * s.distance};
  };
  const auto ahead = [](SpringState s, SpringState k, double t) {
    return SpringState{s.distance + k.distance * t, s.velocity + k.velocity * t};
  };
  for (int i = 0; i < steps; ++i) {
    const SpringState a = rate(state), b = rate(ahead(state, a, h / 2)), c = rate(ahead(state, b, h / 2)),
                      d = rate(ahead(state, c, h));
    state.distance += h / 6 * (a.distance + 2 * b.distance + 2 * c.distance + d.distance);
    state.velocity += h / 6 * (a.velocity + 2 * b.velocity + 2 * c.velocity + d.velocity);
  }
  return state;
}

// Weak, critical, strong damping, and both sides of the border between them.
rc::Gen<double> ratios() {
  return rc::gen::oneOf(number(0.02, 0.99), number(1.01, 6),
                        rc::gen::element(1.0, 1 - 1e-9, 1 + 1e-9, 0.9999, 1.0001));
}

}  // namespace

TEST_CASE("springs agree with a fine Runge-Kutta integration in all damping cases") {
  PROPERTY("any spring, start and time", [] {
    const double frequency = *number(1, 40), ratio = *ratios();
    const SpringState start{*number(-100, 100), *number(-3000, 3000)};
    const double seconds = *number(0, 2);
    const SpringState exact = Spring::natural(frequency, ratio).at(start, seconds);
    const SpringState reference = integrate(frequency, ratio, start, seconds);
    const double range = std::fabs(start.distance) + std::fabs(start.velocity) / frequency + 1;
    RC_ASSERT(std::fabs(exact.distance - reference.distance) < 1e-6 * range);
    RC_ASSERT(std::fabs(exact.velocity - reference.velocity) < 1e-6 * range * frequency * (1 + ratio));
  });
}

TEST_CASE(
    "after its rest time a spring stays within the tolerance, and it is not called at rest far too late") {
  PROPERTY("any spring and start", [] {
    const double frequency = *number(1, 40), ratio = *ratios();
    const Spring spring = Spring::natural(frequency, ratio);
    const SpringState start{*number(-100, 100), *number(-3000, 3000)};
    const double tolerance = *rc::gen::element(0.001, 0.1, 5.0);
    const double rest = spring.rest_time(start, tolerance);
    for (int i = 0; i <= 200; ++i)
      RC_ASSERT(std::fabs(spring.at(start, rest * (1 + i / 50.0) + i * 1e-4).distance) <=
                tolerance * (1 + 1e-9));
    if (ratio > 0.9 || rest == 0) return;
    // For weak damping the bound touches the motion once a swing: half a swing earlier something still shows.
    const double swing = 3.15 / (frequency * std::sqrt(1 - ratio * ratio));
    double largest = 0;
    for (int i = 0; i <= 100; ++i)
      largest = std::fmax(largest,
                          std::fabs(spring.at(start, std::fmax(0.0, rest - 2 * swing * i / 100.0)).distance));
    RC_ASSERT(largest > tolerance * 0.98);
  });
}

TEST_CASE("a spring is called at rest where the closer of its two bounds falls to the tolerance") {
  PROPERTY("any spring and start", [] {
    const double frequency = *number(1, 40), ratio = *rc::gen::oneOf(number(0.02, 0.99), number(1.01, 6));
    const SpringState start{*number(-100, 100), *number(-3000, 3000)};
    const double tolerance = *rc::gen::element(0.001, 0.1, 5.0);
    const double rest = Spring::natural(frequency, ratio).rest_time(start, tolerance);
    RC_PRE(rest > 0.0);
    const double spread = frequency * std::sqrt(std::fabs(ratio * ratio - 1));
    const double decay = ratio * frequency - (ratio > 1 ? spread : 0.0);
    const double x = std::fabs(start.distance), push = std::fabs(start.velocity + decay * start.distance);
    const double amplitude = ratio < 1 ? std::hypot(x, push / spread) : x + push / (2 * spread);
    const auto bound = [&](double t) { return std::exp(-decay * t) * std::fmin(amplitude, x + push * t); };
    RC_ASSERT(bound(rest * (1 - 1e-6)) > tolerance * (1 - 1e-9));
    RC_ASSERT(bound(rest * (1 + 1e-6)) < tolerance * (1 + 1e-9));
  });
}

TEST_CASE("settling time and overshoot are what is seen") {
  PROPERTY("measured on the motion", [] {
    const double overshoot = *number(0.001, 0.9);
    const Micros time{*rc::gen::inRange(20'000, 2'000'000)};
    const Spring spring = Spring::settling(time, overshoot);
    double lowest = 0;
    for (int i = 0; i <= 4000; ++i)
      lowest = std::fmin(lowest, spring.at({1, 0}, to_seconds(time) * i / 4000).distance);
    RC_ASSERT(std::fabs(-lowest - overshoot) < 0.002);
    Mover mover(0);
    mover.send(300, spring, Micros{0});
    RC_ASSERT(std::chrono::abs(mover.ends() - time) <= Micros{1});
  });
  const Spring calm = Spring::settling(ms(250), 0);
  CHECK(calm.ratio() == 1.0);
  const Spring same = Spring::physical(2, 2 * 144, 2 * 0.5 * 12 * 2);
  CHECK(same.frequency() == Approx(12));
  CHECK(same.ratio() == Approx(0.5));
  CHECK_THROWS_WITH(Spring::settling(ms(0), 0), Catch::Contains("settling time"));
  CHECK_THROWS_WITH(Spring::settling(ms(9), 1.5), Catch::Contains("overshoot = 1.5"));
  CHECK_THROWS_WITH(Spring::physical(-1, 1, 1), Catch::Contains("mass = -1"));
  CHECK_THROWS(Spring::natural(std::nan(""), 1));
}
