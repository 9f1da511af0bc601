#include "check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

rc::Gen<Passage> passage() {
  return rc::gen::exec([]() -> Passage {
    const Micros time{*rc::gen::inRange(1'000, 2'000'000)};
    if (*rc::gen::arbitrary<bool>())
      return Timed{*rc::gen::element(Curve{}, Curve::ease(), Curve::cubic_bezier(.3, -1, .6, 2)), time};
    return *rc::gen::element(Spring::settling(time, *number(0, 0.9)),
                             Spring::natural(*number(1, 50), *number(0.05, 5)));
  });
}

}  // namespace

TEST_CASE("sent elsewhere at any time: value without a jump, velocity kept by springs, last frame exact") {
  PROPERTY("chains of sends", [] {
    Mover mover(*number(-100, 100));
    Micros now{*rc::gen::inRange(0, 1000)};
    for (int i = 0; i < 6; ++i) {
      const double value = mover.value(), velocity = mover.velocity(), target = *number(-100, 100);
      const Passage way = *passage();
      mover.send(target, way, now);
      mover.advance(now);
      RC_ASSERT(std::fabs(mover.value() - value) < 1e-9 * 200);
      if (std::holds_alternative<Spring>(way.way) && mover.moving())
        RC_ASSERT(std::fabs(mover.velocity() - velocity) < 1e-9 * (1 + std::fabs(velocity)));
      now += Micros{*rc::gen::inRange(0, 900'000)};
      mover.advance(now);
    }
    const double target = mover.target();
    const Micros ends = mover.ends();
    if (mover.moving()) {
      Mover late = mover;
      RC_ASSERT_FALSE(mover.advance(ends - Micros{1}));
      RC_ASSERT(mover.advance(ends));
      RC_ASSERT(late.advance(ends + std::chrono::hours(1)));
      RC_ASSERT(late.value() == target);
    }
    RC_ASSERT(mover.value() == target);
    RC_ASSERT(mover.velocity() == 0.0);
    RC_ASSERT_FALSE(mover.moving());
  });
}

TEST_CASE("looking often or seldom gives the same values") {
  PROPERTY("two watchers", [] {
    const Passage way = *passage();
    Mover often(3), seldom(3);
    often.send(20, way, Micros{0}, 40);
    seldom.send(20, way, Micros{0}, 40);
    Micros now{0};
    for (int i = 0; i < 40; ++i) often.advance(now += Micros{*rc::gen::inRange(0, 20'000)});
    seldom.advance(now);
    RC_ASSERT(often.value() == seldom.value());
    RC_ASSERT(often.velocity() == seldom.velocity());
  });
}
