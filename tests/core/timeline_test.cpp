#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

const Transition line = Timed{Curve{}, ms(100)};

rc::Gen<Transition> way() {
  return rc::gen::exec([]() -> Transition {
    const Micros time{*rc::gen::inRange(10'000, 600'000)};
    return *rc::gen::element<Transition>(
        Spring::settling(time, 0.2), Timed{Curve::ease_out(), time}, Coast::half_life(time / 4),
        Transition(Timed{Curve::ease(), time}, ms(40)), Transition(Timed{Curve{}, time}).repeated(3, true));
  });
}

}  // namespace

TEST_CASE("seeking anywhere, forwards and back, gives what playing gives, to the bit") {
  PROPERTY("any timeline", [] {
    Timeline timeline;
    for (const char* name : {"x", "y", "opacity"}) timeline.add_track(name, *number(-50, 50));
    const int cues = *rc::gen::inRange(1, 10);
    for (int i = 0; i < cues; ++i) {
      const auto track = static_cast<Timeline::Track>(*rc::gen::inRange(0, 3));
      const Place place = *rc::gen::element(Place::after(), Place::with(), Place::with(ms(30)),
                                            Place::after(ms(20)), Place::at(ms(70)));
      timeline.cue(track, *number(-100, 100), *way(), place);
    }
    const double speed = *rc::gen::element(1.0, 0.1, 3.0);
    Timeline played = timeline;
    played.set_speed(speed, ms(0));
    played.play(ms(0));
    std::vector<std::pair<Micros, std::array<double, 3>>> seen;
    Micros now{0};
    for (int i = 0; i < 60; ++i) {
      now += Micros{*rc::gen::inRange(0, 40'000)};
      if (i == 20) played.pause(now);
      if (i == 25) played.play(now);
      seen.push_back({played.head(now), {played.value(0, now), played.value(1, now), played.value(2, now)}});
    }
    for (std::size_t i = seen.size(); i-- > 0;) {
      timeline.seek(seen[i].first, ms(5));
      for (Timeline::Track track = 0; track < 3; ++track)
        RC_ASSERT(timeline.value(track, ms(5)) == seen[i].second[track]);
    }
    // A cue takes over where the one before has come to: nothing jumps.
    for (Timeline::Track track = 0; track < 3; ++track)
      for (Micros t{0}; t < timeline.length(); t += Micros{10'000})
        RC_ASSERT(std::fabs(timeline.at(track, t).value - timeline.at(track, t + Micros{1}).value) < 0.2);
  });
}

TEST_CASE("in order, together, labelled, staggered") {
  Timeline timeline;
  const auto x = timeline.add_track("x", 0);
  const auto y = timeline.add_track("y", 0);
  timeline.cue(x, 10, line);
  timeline.cue(y, 10, line, Place::with(ms(20)));
  timeline.label("there");
  timeline.cue(x, 0, line, Place::after(ms(30)));
  timeline.cue(y, 0, line, Place::at("there", ms(50)));
  CHECK(timeline.time_of("there") == ms(120));
  CHECK(timeline.at(x, ms(50)).value == Approx(5));
  CHECK(timeline.at(y, ms(50)).value == Approx(3));
  CHECK(timeline.at(x, ms(200)).value == Approx(5));
  CHECK(timeline.at(y, ms(200)).value == Approx(7));
  CHECK(timeline.length() == ms(270));
  CHECK(timeline.find("y") == y);
  CHECK_THROWS_WITH(timeline.cue(x, 1, line, Place::at("nowhere")), Catch::Contains("no label 'nowhere'"));
  CHECK_THROWS_WITH(timeline.add_track("x", 0), Catch::Contains("'x' is there already"));
  CHECK_THROWS_WITH(timeline.cue(7, 1, line), Catch::Contains("no such track"));
  CHECK_THROWS_WITH(timeline.cue(x, 1, line, Place::at(ms(-5))), Catch::Contains("before the beginning"));

  struct Case {
    Stagger::From from;
    std::vector<double> delays_ms;
  };
  for (const Case& c : {Case{Stagger::From::first, {0, 10, 20, 30}},
                        {Stagger::From::last, {30, 20, 10, 0}},
                        {Stagger::From::centre, {10, 0, 0, 10}}}) {
    const auto delays = Stagger::by_order(4, ms(10), c.from);
    for (std::size_t i = 0; i < 4; ++i) CHECK(delays.at(i) == ms(c.delays_ms[i]));
  }
  const Point places[] = {{0, 0}, {30, 40}, {0, -100}};
  CHECK(Stagger::by_distance(places, {0, 0}, 1000) == std::vector{ms(0), ms(50), ms(100)});
  CHECK_THROWS(Stagger::by_distance(places, {0, 0}, 0));

  Timeline rows;
  const Timeline::Track tracks[] = {rows.add_track("a", 0), rows.add_track("b", 0), rows.add_track("c", 0)};
  rows.cue(tracks, 10, line, Stagger::by_order(3, ms(40)));
  rows.cue(tracks[0], 0, line);  // after the last of them
  CHECK(rows.at(tracks[1], ms(90)).value == Approx(5));
  CHECK(rows.at(tracks[0], ms(230)).value == Approx(5));
  CHECK(rows.length() == ms(280));
}

TEST_CASE("the head runs, waits, goes back, and stops at either end") {
  Timeline timeline;
  const auto x = timeline.add_track("x", 0);
  timeline.cue(x, 10, line);
  timeline.play(ms(1000));
  CHECK(timeline.value(x, ms(1030)) == Approx(3));
  timeline.set_speed(-1, ms(1050));
  CHECK(timeline.value(x, ms(1070)) == Approx(3));
  CHECK(timeline.finished(ms(1100)));
  timeline.set_speed(0.5, ms(1100));
  CHECK(timeline.head(ms(1200)) == ms(50));
  timeline.pause(ms(1200));
  CHECK(timeline.head(ms(9000)) == ms(50));
  timeline.seek(ms(80), ms(9000));
  CHECK(timeline.value(x, ms(9999)) == Approx(8));
  timeline.play(ms(10'000));
  CHECK(timeline.value(x, ms(20'000)) == 10);
  CHECK(timeline.finished(ms(20'000)));
  CHECK_THROWS(timeline.set_speed(std::nan(""), ms(0)));
  timeline.set_reduced(Reduced::still);
  CHECK(timeline.at(x, ms(0)).value == 10);
  timeline.set_reduced(Reduced::fade);
  CHECK(timeline.opacity(x, Motion::fade_time / 2) == 0.0);
  Timeline endless;
  const auto turn = endless.add_track("turn", 0);
  endless.cue(turn, 1, line.repeated(Transition::endless));
  CHECK(endless.length() == never);
  CHECK(endless.at(turn, ms(1'000'050)).value == Approx(0.5));
  CHECK_THROWS_WITH(endless.cue(turn, 0, line), Catch::Contains("for ever"));
}

TEST_CASE("the figures of a motion are those of its formula") {
  PROPERTY("springs", [] {
    const double ratio = *number(0.1, 0.95), frequency = *number(4, 40);
    const Spring spring = Spring::natural(frequency, ratio);
    const MotionFigures figures = figures_of(Motion({.from = 40, .to = 240, .rest_floor = 1e-9}, spring));
    RC_ASSERT(std::fabs(figures.overshoot - spring.overshoot()) < 1e-4);
    // From rest the speed peaks at t = acos(ζ)/ω_d.
    const double swing = frequency * std::sqrt(1 - ratio * ratio);
    const double peak_at = std::acos(ratio) / swing;
    RC_ASSERT(std::fabs(to_seconds(figures.peak_at) - peak_at) < 2e-3 * to_seconds(figures.duration));
    RC_ASSERT(std::fabs(figures.peak_speed + spring.at({-200, 0}, peak_at).velocity * -1) <
              1e-2 * 200 * frequency);
    RC_ASSERT(std::fabs(200 + spring.at({-200, 0}, to_seconds(figures.half)).distance - 100) < 0.1);
    RC_ASSERT(figures.half < figures.nine_tenths);
    RC_ASSERT(figures.settled <= figures.duration);
  });
  const MotionFigures even = figures_of(Motion({.from = 0, .to = 2}, Timed{Curve{}, ms(1000)}));
  CHECK(to_ms(even.half) == Approx(500).margin(0.01));
  CHECK(to_ms(even.nine_tenths) == Approx(900).margin(0.01));
  CHECK(to_ms(even.settled) == Approx(980).margin(0.01));
  CHECK(even.peak_speed == Approx(2));
  CHECK(figures_of(Motion({.from = 1, .to = 1}, Timed{Curve{}, ms(1000)})).duration == Micros{0});
}

TEST_CASE("half way and nine tenths are when it is first that far, also where it gets there by a jump") {
  struct Case {
    Transition transition;
    double half, nine_tenths;
  };
  for (const Case& c : {Case{Timed{Curve{}, ms(400)}, 200, 360},
                        {Timed{Steps(10), ms(1000)}, 500, 900},
                        {Timed{Steps(2), ms(400)}, 200, 400},
                        {Timed{CubicBezier(0, 0, 1, 1), ms(100)}, 50, 90}}) {
    const Motion motion({.from = 3, .to = 13}, c.transition);
    const MotionFigures figures = figures_of(motion);
    CHECK(to_ms(figures.half) == Approx(c.half).margin(0.002));
    CHECK(to_ms(figures.nine_tenths) == Approx(c.nine_tenths).margin(0.002));
  }
}
