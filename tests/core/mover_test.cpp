#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

rc::Gen<Transition> transition() {
  return rc::gen::exec([]() -> Transition {
    const Micros time{*rc::gen::inRange(1'000, 2'000'000)};
    const Micros wait{*rc::gen::element(0, 0, 0, 70'000)};
    switch (*rc::gen::inRange(0, 4)) {
      case 0:
        return {Timed{*rc::gen::element(Curve{}, Curve::ease(), Curve::cubic_bezier(.3, -1, .6, 2),
                                        Curve::family(Family::back, Ease::out)),
                      time},
                wait};
      case 1:
        return {Coast::half_life(Micros{*rc::gen::inRange(10'000, 400'000)}), wait};
      default:
        return {*rc::gen::element(Spring::settling(time, *number(0, 0.9)),
                                  Spring::natural(*number(1, 50), *number(0.05, 5))),
                wait};
    }
  });
}

}  // namespace

TEST_CASE("sent elsewhere at any time: value without a jump, velocity kept by springs, last frame exact") {
  PROPERTY("chains of sends", [] {
    Mover mover(*number(-100, 100));
    Micros now{*rc::gen::inRange(0, 1000)};
    for (int i = 0; i < 6; ++i) {
      const double value = mover.value(), velocity = mover.velocity(), target = *number(-100, 100);
      const Transition way = *transition();
      mover.send(target, way, now);
      mover.advance(now);
      RC_ASSERT(std::fabs(mover.value() - value) < 1e-9 * 200);
      if ((std::holds_alternative<Spring>(way.way) || way.delay > Micros{0}) && mover.moving())
        RC_ASSERT(std::fabs(mover.velocity() - velocity) < 1e-9 * (1 + std::fabs(velocity)));
      RC_ASSERT(mover.target() == target || !mover.moving());
      now += Micros{*rc::gen::inRange(0, 900'000)};
      mover.advance(now);
    }
    const double target = mover.target();
    const Micros ends = mover.ends();
    if (mover.moving()) {
      Mover late = mover;
      mover.advance(ends - Micros{1});
      RC_ASSERT(mover.moving());
      RC_ASSERT(mover.advance(ends));
      RC_ASSERT(late.advance(ends + std::chrono::hours(1)));
      RC_ASSERT(late.value() == target);
    }
    RC_ASSERT(mover.value() == target);
    RC_ASSERT(mover.velocity() == 0.0);
    RC_ASSERT_FALSE(mover.moving());
  });
}

TEST_CASE("a spring interrupted at any moment goes on as the one spring it is") {
  PROPERTY("sent to the same target again", [] {
    const Spring spring = Spring::natural(*number(2, 40), *number(0.05, 3));
    const double velocity = *number(-3000, 3000);
    Mover whole(300), cut(300);
    whole.send(0, spring, ms(0), velocity);
    cut.send(0, spring, ms(0), velocity);
    Micros now{0};
    for (int i = 0; i < 10; ++i) {
      now += Micros{*rc::gen::inRange(0, 20'000)};
      cut.advance(now);
      cut.send(0, spring, now);
    }
    cut.advance(now += Micros{1000});
    whole.advance(now);
    RC_PRE(whole.moving() && cut.moving());
    RC_ASSERT(std::fabs(cut.value() - whole.value()) < 1e-9 * (300 + std::fabs(velocity)));
    RC_ASSERT(std::fabs(cut.velocity() - whole.velocity()) < 1e-9 * (300 + std::fabs(velocity)) * 40);
  });
}

TEST_CASE("looking often or seldom gives the same values") {
  PROPERTY("two watchers", [] {
    Transition way = *transition();
    way.runs = *rc::gen::element(1, 3, static_cast<int>(Transition::endless));
    way.alternate = *rc::gen::arbitrary<bool>();
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

TEST_CASE("delay, repeats, there and back, stop, finish and the usual way") {
  Mover mover(0);
  const Transition line = Timed{Curve{}, ms(100)};
  mover.send(10, line.after(ms(50)), ms(0));
  CHECK(mover.moving());
  CHECK(mover.due() == ms(50));
  CHECK(mover.ends() == ms(150));
  mover.advance(ms(49));
  CHECK(mover.value() == 0);
  mover.advance(ms(100));
  CHECK(mover.value() == Approx(5));
  mover.stop();
  CHECK(mover.value() == Approx(5));
  CHECK_FALSE(mover.moving());
  mover.put(0);
  mover.send(10, line, ms(0));
  mover.finish();
  CHECK(mover.value() == 10);

  struct Case {
    int runs;
    bool alternate;
    double at_ms, value;
  };
  for (const Case& c : {Case{3, false, 130, 3},
                        {3, false, 299, 9.9},
                        {3, false, 300, 10},
                        {3, true, 130, 7},
                        {3, true, 230, 3},
                        {2, true, 150, 5},
                        {2, true, 200, 0},
                        {0, true, 100'130, 7},
                        {0, false, 100'130, 3}}) {
    Mover run(0);
    run.send(10, line.repeated(c.runs, c.alternate), ms(0));
    run.advance(ms(c.at_ms));
    CAPTURE(c.runs, c.alternate, c.at_ms);
    CHECK(run.value() == Approx(c.value).margin(1e-9));
    CHECK(run.moving() == (c.runs == 0 || c.at_ms < 100 * c.runs));
  }
  Mover usual(0);
  usual.set_usual(Timed{Curve{}, ms(200)});
  usual.send(1, ms(0));
  CHECK(usual.ends() == ms(200));
  usual.send(2, Timed{Curve{}, ms(40)}, ms(0));
  CHECK(usual.ends() == ms(40));
  usual.send(3, ms(0));
  CHECK(usual.ends() == ms(200));
}

TEST_CASE("points, sizes, angles and colours") {
  PROPERTY("angles take the shorter way round, and rest on the very angle given", [] {
    const double from = *number(-20, 20), to = *number(-20, 20);
    AngleMover mover(Angle{from});
    mover.send(Angle{to}, Timed{Curve{}, ms(100)}, ms(0));
    mover.advance(ms(50));
    RC_ASSERT(std::fabs(mover.value().radians - from) <= std::numbers::pi / 2 + 1e-9);
    mover.advance(ms(100));
    RC_ASSERT(mover.value().radians == to);
  });
  PROPERTY("a point on a spring is two numbers on it", [] {
    const Spring spring = Spring::settling(ms(400), *number(0, 0.5));
    const Point to{*number(-200, 200), *number(-200, 200)};
    PointMover point(Point{10, 20});
    point.send(to, spring, ms(0), {300, -500});
    Mover x(10), y(20);
    x.send(to.x, spring, ms(0), 300);
    y.send(to.y, spring, ms(0), -500);
    point.advance(ms(90));
    x.advance(ms(90));
    y.advance(ms(90));
    RC_ASSERT((point.value() == Point{x.value(), y.value()}));
    RC_ASSERT(point.advance(ms(2000)));
    RC_ASSERT(point.value() == to);
  });
  SizeMover size(Size{100, 40});
  size.send({0, 10}, Spring::natural(20, 0.2), ms(0));
  size.advance(ms(170));
  CHECK(size.value().w == 0);  // swings past, but nothing is narrower than nothing

  // OKLab of the primaries as the paper and CSS Color Level 4 give them.
  const Oklab red = to_oklab(Colour::hex(0xFF0000)), white = to_oklab(Colour::hex(0xFFFFFF));
  CHECK(red.lightness == Approx(0.62796).margin(1e-4));
  CHECK(red.a == Approx(0.22486).margin(1e-4));
  CHECK(red.b == Approx(0.12585).margin(1e-4));
  CHECK(white.lightness == Approx(1.0).margin(1e-5));
  PROPERTY("colours come back, and halfway is half as light", [] {
    const Colour a{*number(0, 1), *number(0, 1), *number(0, 1), 1},
        b{*number(0, 1), *number(0, 1), *number(0, 1), 1};
    const Colour back = from_oklab(to_oklab(a));
    RC_ASSERT(std::fabs(back.red - a.red) + std::fabs(back.green - a.green) + std::fabs(back.blue - a.blue) <
              1e-4);
    ColourMover mover(a);
    mover.send(b, Timed{Curve{}, ms(100)}, ms(0));
    mover.advance(ms(50));
    const Colour half = mix(a, b, 0.5);
    RC_ASSERT(std::fabs(mover.value().red - half.red) + std::fabs(mover.value().blue - half.blue) < 1e-9);
    mover.advance(ms(100));
    RC_ASSERT(mover.value() == b);
  });
  PROPERTY("of two greys the more solid one counts for more", [] {
    const double light = *number(0, 1), dark = *number(0, 1), fraction = *number(0, 1);
    const Colour a{light, light, light, *number(0.05, 1)}, b{dark, dark, dark, *number(0.05, 1)};
    const double of_a = a.alpha * (1 - fraction), of_b = b.alpha * fraction;
    const double meant = (to_oklab(a).lightness * of_a + to_oklab(b).lightness * of_b) / (of_a + of_b);
    const Colour made = mix(a, b, fraction);
    RC_ASSERT(std::fabs(to_oklab(made).lightness - meant) < 1e-4);
    RC_ASSERT(std::fabs(made.alpha - of_a - of_b) < 1e-9);
  });
  // Fading out keeps the colour, as alpha is multiplied in.
  CHECK(mix(Colour::hex(0xDE9F1F), Colour::hex(0x000000, 0), 0.5).red == Approx(0xDE / 255.0).margin(1e-3));
}

TEST_CASE("a follower is where its leader was a lag ago, whatever the leader did") {
  PROPERTY("any life of a leader", [] {
    const Micros lag{*rc::gen::inRange(0, 200'000)};
    Mover leader(0);
    Follower follower(leader, lag);
    std::vector<std::pair<Micros, Mover>> past{{Micros{0}, leader}};
    Micros now{0};
    for (int i = 0; i < 40; ++i) {
      now += Micros{*rc::gen::inRange(1, 30'000)};
      leader.advance(now);
      switch (*rc::gen::inRange(0, 4)) {
        case 0:
          leader.put(*number(-50, 50));
          break;
        case 1: {
          Transition way = *transition();
          way.delay = Micros{0};
          leader.send(*number(-50, 50), way, now);
          break;
        }
        default:
          break;
      }
      follower.follow(leader, now);
      past.emplace_back(now, leader);
      // The leader as it was at the last change before that moment, brought to it.
      std::size_t k = past.size() - 1;
      while (k > 0 && past[k].first > now - lag) --k;
      Mover then = past[k].second;
      then.advance(now - lag);
      RC_ASSERT(std::fabs(follower.value() - then.value()) < 1e-9);
    }
    follower.follow(leader, now + lag + std::chrono::hours(2));
    RC_ASSERT(follower.value() == leader.target());
    RC_ASSERT_FALSE(follower.moving());
  });
  Mover leader(0);
  leader.send(10, Timed{Curve{}, ms(100)}, ms(0));
  Follower late(leader, ms(50));
  for (const auto& [at_ms, value, moving] :
       {std::tuple{100.0, 5.0, true}, {149.999, 9.9999, true}, {150.0, 10.0, false}}) {
    late.follow(leader, ms(at_ms));
    CHECK(late.value() == Approx(value));
    CHECK(late.moving() == moving);
  }
  const Layer far{.rate = 0.4, .from = 0, .at = 20, .max = 60};
  CHECK(far.value(50) == 40);
  CHECK(far.value(500) == 60);
}

TEST_CASE("less motion: travel becomes a fade, or nothing") {
  Mover fading(0);
  fading.set_reduced(Reduced::fade);
  fading.send(100, Spring::settling(ms(900), 0.5), ms(0), 4000);
  const Micros half = Motion::fade_time / 2;
  fading.advance(half - Micros{1});
  CHECK(fading.value() == 0);
  CHECK(fading.opacity() < 1e-4);
  fading.advance(half + half / 2);
  CHECK(fading.value() == 100);
  CHECK(fading.opacity() == Approx(0.5));
  // Sent elsewhere while it comes up again: it fades out from where it is, and nothing flashes.
  fading.send(50, Spring::settling(ms(900), 0.5), half + half / 2);
  CHECK(fading.opacity() == Approx(0.5));
  CHECK(fading.value() == 100);
  CHECK(fading.advance(ms(1000)));
  CHECK(fading.value() == 50);
  CHECK(fading.opacity() == 1.0);
  Mover still(0);
  still.set_reduced(Reduced::still);
  still.send(100, Timed{Curve{}, ms(500)}, ms(0));
  CHECK(still.value() == 100);
  CHECK_FALSE(still.moving());
}

TEST_CASE("movers, followers, timelines and banks allocate nothing once they are there") {
  Mover mover(0);
  ColourMover colour(Colour::hex(0xDE9F1F));
  Follower follower(mover, ms(30));
  SpringBank bank(Spring::natural(12, 0.6), 1000);
  Timeline timeline;
  const auto track = timeline.add_track("x", 0);
  const Transition ways[] = {Spring::settling(ms(300), 0.1),
                             Timed{Curve::stops({{0}, {0.7, 0.2}, {1}}), ms(200)}, Coast::half_life(ms(60)),
                             Transition(Timed{Curve::ease(), ms(90)}).after(ms(20)).repeated(2)};
  timeline.cue(track, 100, ways[0]);
  timeline.play(ms(0));
  double sum = 0;
  const std::size_t before = allocations();
  for (int i = 0; i < 400; ++i) {
    const Micros now = ms(8.0 * i);
    if (i % 7 == 0) mover.send(i, ways[i % 4], now);
    if (i % 31 == 0) colour.send(Colour::hex(0x76558F), ways[i % 3], now);
    if (i % 13 == 0) bank.send(static_cast<std::size_t>(i), 40);
    mover.advance(now);
    colour.advance(now);
    follower.follow(mover, now);
    bank.step(0.008);
    sum += timeline.value(track, now);
  }
  CHECK(allocations() == before);
  CHECK(sum > 0);
}

TEST_CASE("a bank does what single springs do, and comes to rest exactly on its targets") {
  PROPERTY("any spring, any frames", [] {
    const Spring spring = Spring::natural(*number(2, 30), *number(0.1, 3));
    SpringBank bank(spring, 9);
    for (std::size_t i = 0; i < bank.size(); ++i)
      bank.send(i, 100.0 * static_cast<double>(i + 1), *number(-900, 900));
    const std::vector<double> velocity(bank.velocities().begin(), bank.velocities().end());
    double seconds = 0;
    for (int i = 0; i < 12; ++i) {
      const double step = *rc::gen::element(1 / 30.0, 1 / 60.0, 1 / 120.0);
      bank.step(step);
      seconds += step;
      for (std::size_t k = 0; k < bank.size(); ++k) {
        const double target = 100.0 * static_cast<double>(k + 1);
        const SpringState exact = spring.at({-target, velocity[k]}, seconds);
        RC_ASSERT(std::fabs(bank.values()[k] - target - exact.distance) < 2e-3);
      }
    }
    for (int i = 0; i < 4000 && !bank.settled(); ++i) bank.step(0.05);
    RC_ASSERT(bank.settled());
    for (std::size_t k = 0; k < bank.size(); ++k) RC_ASSERT(bank.values()[k] == bank.targets()[k]);
  });
  CHECK_THROWS_WITH(SpringBank(Spring::natural(1, 1), 3, 0, 0), Catch::Contains("rest_distance = 0"));
}

TEST_CASE("what is put stays put: no wait and no speed is left of what went before") {
  Mover mover(0);
  Transition late(Spring::settling(ms(300), 0));
  late.delay = ms(100);
  mover.send(50, late, ms(0));
  mover.put(7);
  mover.advance(ms(5000));
  CHECK(mover.value() == 7);
  CHECK_FALSE(mover.moving());

  SpringBank bank(Spring::settling(ms(300), 0), 2);
  bank.send(0, 100);
  bank.step(0.06);
  REQUIRE(bank.values()[0] > 1);
  bank.put(0, 3);
  bank.send(1, 5);  // so that the bank goes on
  bank.step(0.06);
  CHECK(bank.values()[0] == 3);
}
