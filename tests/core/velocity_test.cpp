#include "check.hpp"

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

TEST_CASE("a finger that rested before it lifted has no velocity") {
  for (const bool reports_while_resting : {false, true}) {
    VelocityTracker tracker;
    double at = 0;
    for (int i = 0; i <= 10; ++i) tracker.add(ms(8.0 * i), {at = 5.0 * i, 0});
    for (int i = 1; reports_while_resting && i <= 7; ++i)
      tracker.add(ms(80 + 8.0 * i), {at + (i % 2 ? 0.5 : 0), 0});
    const VelocityEstimate early =
        tracker.estimate(ms(reports_while_resting ? 136 : 100), {.staleness = ms(200)});
    CHECK(early.velocity.x > 0);
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
