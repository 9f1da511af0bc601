#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("constant motion gives its velocity, at any even or uneven rate of samples") {
  PROPERTY("straight lines", [] {
    const Point velocity{*number(-4000, 4000), *number(-4000, 4000)};
    RC_PRE(length(velocity) > 100);
    VelocityTracker tracker;
    Micros now{0};
    for (int i = 0; i < 200; ++i) {
      tracker.add(now, Point{50, 80} + velocity * to_seconds(now));
      now += Micros{*rc::gen::inRange(1'000, 16'000)};
    }
    const VelocityEstimate found = tracker.estimate(now, {});
    RC_ASSERT(length(found.velocity - velocity) < 1e-6 * length(velocity));
    RC_ASSERT_FALSE(found.stale);
  });
}

TEST_CASE("the velocity turns with the way, also where the finger slows down, stops or turns back") {
  PROPERTY("any run-up or brake, turned by any angle", [] {
    const double speed = *number(200, 3000), per_second = *number(-40, 40), angle = *number(0, 6.28);
    VelocityTracker level, turned;
    for (int i = 0; i < 20; ++i) {
      const double t = i / 120.0;
      const Point at{speed * t + per_second * speed * t * t / 2, 3 * std::sin(i * 1.7)};
      level.add(from_seconds(t), at);
      turned.add(from_seconds(t), {at.x * std::cos(angle) - at.y * std::sin(angle),
                                   at.x * std::sin(angle) + at.y * std::cos(angle)});
    }
    const Point a = level.estimate(from_seconds(19 / 120.0), {}).velocity;
    const Point b = turned.estimate(from_seconds(19 / 120.0), {}).velocity;
    RC_ASSERT(length(b - Point{a.x * std::cos(angle) - a.y * std::sin(angle),
                               a.x * std::sin(angle) + a.y * std::cos(angle)}) < 1e-6 * (1 + length(a)));
  });
}

TEST_CASE(
    "with half a dp of noise at 120 Hz it is within 3 % on even and 5 % on accelerated motion, as root mean "
    "square") {
  for (const double speed : {500.0, 1000.0, 3000.0})
    for (const double per_second : {0.0, 1.0, -1.0, 5.0}) {  // the acceleration in speeds a second
      if (speed < 1000.0 && per_second > 1.0)
        continue;  // at 500 dp/s noise hides so short a run-up; docs/velocity.md
      rc::Random random(2026);
      const auto unit = [&] { return (static_cast<double>(random.next() >> 11U) + 0.5) * 0x1p-53; };
      const auto noise = [&] {
        return 0.5 * std::sqrt(-2 * std::log(unit())) * std::cos(6.283185307 * unit());
      };
      double square = 0;
      constexpr int runs = 2000;
      for (int run = 0; run < runs; ++run) {
        VelocityTracker tracker;
        for (int k = 24; k >= 0; --k) {
          const double before = k / 120.0;
          tracker.add(from_seconds(1 - before),
                      {-speed * before + per_second * speed * before * before / 2 + noise(), noise()});
        }
        const double error = tracker.estimate(from_seconds(1), {}).velocity.x / speed - 1;
        square += error * error / runs;
      }
      CAPTURE(speed, per_second);
      CHECK(std::sqrt(square) < (per_second == 0.0 ? 0.03 : 0.05));
    }
}

TEST_CASE("a finger that rested before it lifted has no velocity") {
  for (const bool reports_while_resting : {false, true}) {
    VelocityTracker tracker;
    double at = 0;
    for (int i = 0; i <= 10; ++i) tracker.add(ms(8.0 * i), {at = 5.0 * i, 0});
    for (int i = 1; reports_while_resting && i <= 7; ++i)
      tracker.add(ms(80 + 8.0 * i), {at + (i % 2 ? 0.5 : 0), 0});
    const VelocityEstimate early =
        tracker.estimate(ms(reports_while_resting ? 136 : 100), {.staleness = ms(200)});
    CHECK(early.velocity.x >= 0);  // not turned back by the stop
    const VelocityEstimate late = tracker.estimate(ms(140), {.staleness = ms(60)});
    CHECK(late.stale);
    CHECK(late.rested == ms(60));
    CHECK(late.velocity == Point{});
  }
  CHECK(VelocityTracker{}.estimate(ms(5), {}).velocity == Point{});
  VelocityTracker one;
  one.add(ms(0), {1, 1});
  one.add(ms(0), {9, 9});  // two places at one time have no slope
  CHECK(one.estimate(ms(1), {}).velocity == Point{});
}
