// Each layer is of use without those above it.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a slider without a stage") {
  Cell<double> frames{4};
  Context context{.journal = Journal(100)};
  Slider slider("frames", HoneySlider::box, {.value = frames, .to = 10, .step = 1}, context);
  Contacts contacts;
  const auto contact = [&](double at_ms, Phase phase, double x) -> const Contact& {
    const auto admitted = contacts.admit({.time = ms(at_ms), .contact = 1, .phase = phase, .at = {x, 224}});
    REQUIRE(admitted.contact != nullptr);
    context.now = admitted.contact->seen.time;
    return *admitted.contact;
  };
  const Contact& finger = contact(0, Phase::down, 150);
  CHECK(slider.capture(finger, finger.seen));
  contact(50, Phase::move, 150 + 8 + 2.6 * 25.2);
  slider.move(finger, finger.seen);
  contact(300, Phase::up, 150 + 8 + 2.6 * 25.2);
  slider.lift(finger, finger.seen);
  CHECK(frames.get() == 7);
  REQUIRE(slider.due() != never);
  slider.advance(slider.due());
  CHECK(slider.position() == 7);
  CHECK(slider.settled());
  CHECK(context.journal.decisions().back().says(answers::at_rest));
  CHECK(slider.press(Key::home));
  CHECK(frames.get() == 0);
}

TEST_CASE("a pair without gestures: each threshold begins its own kind") {
  struct Case {
    Point first, second;
    PairKind kind;
  };
  // From 100 dp apart, level.
  for (const Case& c : {Case{{100, 112}, {200, 112}, PairKind::pan},
                        {{92, 100}, {208, 100}, PairKind::pinch},
                        {{101, 88}, {199, 112}, PairKind::rotate},
                        {{99, 100}, {202, 101}, PairKind::none}}) {
    Pair pair;
    pair.press({100, 100}, {200, 100});
    CHECK(pair.move(c.first, c.second, Feel{}) == (c.kind != PairKind::none));
    CHECK(pair.kind() == c.kind);
  }
  // Turns are followed past half a circle, and two contacts in one place do no harm.
  Pair round;
  round.press({100, 100}, {200, 100});
  for (int i = 0; i <= 90; ++i) {
    const double angle = i * 0.1;
    const Point out{50 * std::cos(angle), 50 * std::sin(angle)};
    round.move(Point{150, 100} - out, Point{150, 100} + out, Feel{});
  }
  CHECK(round.angle() == Approx(9.0));
  round.move({150, 100}, {150, 100}, Feel{});
  CHECK(std::isfinite(round.scale()));
}

TEST_CASE("smoothing lags by its formula and halves noise, prediction is the fitted line") {
  PROPERTY("even motion", [] {
    const double speed = *number(-3000, 3000), step = *number(2, 16), lag = *number(1, 40),
                 ahead = *number(0, 30);
    Smoother smoother;
    VelocityTracker tracker;
    Point seen{};
    double t = 0;
    smoother.start(ms(0), {});
    tracker.add(ms(0), {});
    for (int i = 1; i <= 200; ++i) {
      t = step * i;
      const Point at{speed * to_seconds(ms(t)), 0};
      seen = smoother.next(ms(t), at, ms(lag));
      tracker.add(ms(t), at);
    }
    const double lag_ms = step / std::expm1(step / lag);
    RC_ASSERT(std::fabs(speed * t / 1e3 - seen.x - speed * lag_ms / 1e3) < 1e-3 * (1 + std::fabs(speed)));
    const Point now{speed * to_seconds(ms(t)), 0};
    RC_PRE(std::fabs(speed) > 200);  // slower than that it may count as resting
    const Point there = predict(tracker, now, ms(t), ms(ahead), {});
    RC_ASSERT(std::fabs(there.x - now.x - speed * to_seconds(ms(ahead))) < 1e-6 * (1 + std::fabs(speed)));
  });
  Smoother off;
  off.start(ms(0), {1, 1});
  CHECK(off.next(ms(8), {5, 7}, ms(0)) == Point{5, 7});
}

TEST_CASE("times and lengths") {
  PROPERTY("conversions", [] {
    const int us = *rc::gen::inRange(-2'000'000'000, 2'000'000'000);
    RC_ASSERT(from_ms(to_ms(Micros{us})) == Micros{us});
    if (us > 0) RC_ASSERT(from_seconds(to_seconds(Micros{us})) == Micros{us});
    const double dpi = *number(60, 640), px = *number(-4000, 4000);
    RC_ASSERT(std::fabs(px_from_dp(dp_from_px(px, dpi), dpi) - px) < 1e-9);
    const Box a{*number(0, 9), *number(0, 9), *number(1, 9), *number(1, 9)},
        b{*number(0, 9), *number(0, 9), *number(1, 9), *number(1, 9)};
    const Point p{*number(0, 18), *number(0, 18)};
    RC_ASSERT(common(a, b).contains(p) == (a.contains(p) && b.contains(p)));
    RC_ASSERT((a + p).contains(p + a.centre()));
  });
  CHECK(from_seconds(-1) == Micros{0});
  CHECK(from_seconds(std::nan("")) == Micros{0});
  CHECK(from_seconds(1e300) == std::chrono::hours(1));
  CHECK(from_seconds(1e-7) == Micros{1});
}
