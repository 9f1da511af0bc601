// Wheels and trackpads: what follows them, how far, and when it lands.
#include <algorithm>
#include <cmath>
#include <string>

#include "ubbo/stage/stage.hpp"
#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/alone.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

WheelTurn notch(double time, Point at, Point by) {
  return {.time = ms(time), .at = at, .by = by, .unit = WheelUnit::notch};
}
WheelTurn pad(double time, Point at, Point by, WheelPhase phase = WheelPhase::change) {
  return {.time = ms(time), .at = at, .by = by, .phase = phase};
}

bool says(const Stage& stage, std::string_view answer) {
  for (const Decision& one : stage.journal().decisions())
    if (one.answer->name == answer) return true;
  return false;
}

ListSettings rows(double count) { return {.label = "Rows", .count = count, .item_size = 50}; }

}  // namespace

TEST_CASE("a notch scrolls what is under the pointer, in its own time and by exactly its way") {
  Stage stage({.journal = 64});
  auto& list = stage.add<List>("list", {0, 0, 300, 400}, rows(100));
  CHECK_FALSE(stage.wheel(notch(0, {320, 100}, {0, 1})));  // beside it
  CHECK(says(stage, "wheel.nobody"));
  CHECK(stage.wheel(notch(10, {100, 100}, {0, 1})));
  CHECK(list.offset() == 0.0);
  stage.advance(ms(60));
  CHECK(list.offset() < 0.0);
  CHECK(list.offset() > -66.0);
  CHECK_FALSE(stage.settled());
  CHECK(stage.wheel(notch(70, {100, 100}, {0, 1})));  // before the first has come to its end
  stage.advance(ms(700));
  CHECK(list.offset() == Approx(-132.0).margin(1e-9));
  CHECK(stage.settled());
  CHECK(stage.open_contacts() == 0);
  CHECK_FALSE(stage.wheel(notch(800, {100, 100}, {1, 0})));  // it does not go sideways
  // At its end it stays, and comes back at the first notch the other way.
  for (int i = 0; i < 5; ++i) stage.wheel(notch(900 + 10 * i, {100, 100}, {0, -2}));
  stage.advance(ms(1100));
  CHECK(list.offset() == Approx(0.0).margin(1e-9));
  CHECK(says(stage, "wheel.stops"));
  stage.wheel(notch(1101, {100, 100}, {0, 1}));
  stage.advance(ms(1600));
  CHECK(list.offset() == Approx(-66.0).margin(1e-9));
  stage.wheel({.time = ms(2000), .at = {100, 100}, .by = {0, 1}, .unit = WheelUnit::page});
  stage.advance(ms(2600));
  CHECK(list.offset() == Approx(-66.0 - 0.85 * 400));
  stage.wheel({.time = ms(3000), .at = {100, 100}, .by = {0, -3}, .unit = WheelUnit::line});
  stage.advance(ms(3600));
  CHECK(list.offset() == Approx(-0.85 * 400));
}

TEST_CASE(
    "a trackpad's way is followed at once, and lifting is a flick, the platform's own momentum is passed "
    "over") {
  Stage stage({.journal = 64});
  auto& list = stage.add<List>("list", {0, 0, 300, 400}, rows(100));
  for (int i = 0; i < 10; ++i) {
    stage.wheel(pad(10 * i, {100, 100}, {0, 8}, i == 0 ? WheelPhase::begin : WheelPhase::change));
    CHECK(list.offset() == Approx(-8.0 * (i + 1)));
  }
  CHECK(stage.wheel(pad(95, {100, 100}, {}, WheelPhase::end)));
  const double lifted = list.offset();
  CHECK_FALSE(stage.wheel(pad(105, {100, 100}, {0, 30}, WheelPhase::momentum)));
  CHECK(says(stage, "wheel.momentum"));
  stage.advance(ms(400));
  CHECK(list.offset() < lifted - 30);                            // it coasts by its own friction
  stage.wheel(pad(410, {100, 100}, {0, 1}, WheelPhase::begin));  // and is caught by the next touch
  const double caught = list.offset();
  stage.advance(ms(1500));
  CHECK(list.offset() == Approx(caught));
}

TEST_CASE(
    "what snaps lands when the wheel has rested, and at its end the wheel goes on to what lies around") {
  Stage stage({.journal = 256});
  Cell<bool> shown(true);
  auto& sheet = stage.add<Sheet>("sheet", {0, 120, 360, 600},
                                 {.label = "Sheet", .open = shown, .snap_points = {200, 500}});
  stage.add<List>("list", Box{0, 60, 360, 500}, rows(40), {.inside = "sheet"});
  stage.advance(ms(10));
  REQUIRE(sheet.out() == 200.0);
  // On the sheet itself, beside its list.
  for (int i = 0; i < 20; ++i) CHECK(stage.wheel(pad(100 + 8 * i, {100, 540}, {0, 9}, WheelPhase::none)));
  stage.advance(ms(900));
  CHECK(sheet.out() == 500.0);
  CHECK(says(stage, "wheel.rests"));
  for (int i = 0; i < 20; ++i) stage.wheel(pad(900 + 4 * i, {100, 300}, {0, -15}, WheelPhase::none));
  const Point at{100, 650};
  for (int i = 0; i < 20; ++i) stage.wheel(pad(1000 + 8 * i, at, {0, -10}, WheelPhase::none));
  CHECK(sheet.out() == Approx(0.0).margin(1.0));
  stage.advance(ms(3000));
  CHECK_FALSE(shown.get());
}

TEST_CASE("a notch is a step for what steps, in something that scrolls only with the focus") {
  Stage stage({.journal = 256});
  Cell<double> alone(4), inside(4);
  stage.add<Slider>("alone", {20, 20, 300, 48}, {.value = alone, .from = 0, .to = 10, .step = 1});
  stage.add<List>("list", {0, 200, 360, 200}, {.label = "List"});
  stage.add<Slider>("slider", Box{20, 10, 300, 48}, {.value = inside, .from = 0, .to = 10, .step = 1},
                    {.inside = "list"});
  for (int i = 0; i < 12; ++i)
    stage.add<Button>("b" + std::to_string(i), Box{0, 0, 300, 48}, {}, {.inside = "list"});
  CHECK(stage.wheel(notch(10, {100, 40}, {0, -1})));
  stage.advance(ms(500));
  CHECK(alone.get() == 5.0);
  CHECK(says(stage, "part.wheel-moves"));
  stage.wheel(pad(600, {100, 40}, {0, 20}));
  stage.advance(ms(700));
  CHECK(alone.get() == 5.0);  // 20 of the 32 dp of a step
  CHECK(says(stage, "wheel.too-little"));
  stage.wheel(pad(701, {100, 40}, {0, 20}));
  stage.advance(ms(1200));
  CHECK(alone.get() == 4.0);
  const auto& list = static_cast<const List&>(*stage.find("list"));
  CHECK(stage.wheel(notch(2000, {100, 230}, {0, 1})));
  stage.advance(ms(2500));
  CHECK(inside.get() == 4.0);
  CHECK(says(stage, "wheel.scrolls-around"));
  CHECK(list.offset() == Approx(-66.0));
  stage.wheel(notch(2600, {100, 300}, {0, -2}));
  stage.advance(ms(3200));
  stage.focus("slider");
  stage.wheel(notch(3300, {100, 230}, {0, -1}));
  stage.advance(ms(4000));
  CHECK(inside.get() == 5.0);
  CHECK(list.offset() == Approx(0.0).margin(1e-9));
}

TEST_CASE("a list scrolled by a wheel and one dragged by a finger as far stand alike") {
  PROPERTY("any way", [] {
    std::vector<double> ways;
    for (int i = 0, count = *rc::gen::inRange(1, 12); i < count; ++i) ways.push_back(*number(-90, 120));
    const double drag_threshold = Feel{}.drag_threshold;
    Stage wheeled, dragged;
    auto& by_wheel = wheeled.add<List>("list", {0, 0, 300, 400}, rows(30));
    auto& by_finger = dragged.add<List>("list", {0, 0, 300, 400}, rows(30));
    Micros now = ms(10);
    for (const double way : ways) {
      wheeled.wheel({.time = now, .at = {100, 200}, .by = {0, way}, .phase = WheelPhase::change});
      wheeled.wheel({.time = now + ms(300), .at = {100, 200}, .phase = WheelPhase::end});
      // A drag begins past its threshold, and has followed from there; it rests before the lift. Where the
      // list would yield at its end to a finger, the finger stops.
      const double to =
          std::clamp(by_finger.offset() - way, 400.0 - by_finger.length(), 0.0) - by_finger.offset();
      Point at{100, 200};
      const double on = std::copysign(drag_threshold, to);
      dragged.touch({.time = now, .contact = 1, .phase = Phase::down, .at = at});
      if (to != 0.0)
        for (const double further : {on, to}) {
          at.y += further;
          dragged.touch({.time = now += ms(20), .contact = 1, .phase = Phase::move, .at = at});
        }
      dragged.touch({.time = now + ms(300), .contact = 1, .phase = Phase::up, .at = at});
      now += ms(2000);
      wheeled.advance(now);
      dragged.advance(now);
      RC_ASSERT(std::fabs(by_wheel.offset() - by_finger.offset()) < 1e-9);
    }
  });
}

TEST_CASE("after a trackpad's momentum whatever snaps stands on a snap point") {
  PROPERTY("any way", [] {
    Cell<double> place(0);
    Stage stage;
    auto& carousel = stage.add<Carousel>("photos", {0, 0, 300, 200}, {.count = 7});
    auto& pane =
        stage.add<Pane>("pane", {0, 220, 300, 200}, {.min = -400, .max = 0, .snap_points = {-400, -170, 0}});
    Micros now = ms(10);
    for (int round = 0, rounds = *rc::gen::inRange(1, 4); round < rounds; ++round) {
      for (const Point at : {Point{100, 100}, Point{100, 300}}) {
        double speed = *number(-40, 40);
        const bool level = at.y < 200;
        const auto turn = [&](double by, WheelPhase phase) {
          stage.wheel({.time = now, .at = at, .by = level ? Point{by, 0} : Point{0, by}, .phase = phase});
          now += ms(*rc::gen::element(4, 8, 16));
        };
        for (int i = 0, count = *rc::gen::inRange(1, 15); i < count; ++i) turn(speed, WheelPhase::change);
        if (*rc::gen::arbitrary<bool>()) turn(0, WheelPhase::end);
        for (; std::fabs(speed) > 0.5; speed *= 0.8) turn(speed, WheelPhase::momentum);
      }
      now += ms(3000);
      stage.advance(now);
      RC_ASSERT(stage.settled());
      RC_ASSERT(carousel.position() == std::round(carousel.position()));
      RC_ASSERT(pane.offset() == 0.0 || pane.offset() == -170.0 || pane.offset() == -400.0);
    }
  });
}

TEST_CASE("a pinch, or the wheel with the control key, zooms about the pointer") {
  Stage stage({.journal = 64});
  auto& plane = stage.add<ZoomPlane>("plane", {0, 0, 300, 300}, {.label = "Frame", .min = 0.5, .max = 8});
  const Point at{100, 120};
  const auto under = [&] { return (at - plane.box().centre() - plane.pan()) * (1.0 / plane.zoom()); };
  const Point before = under();
  for (int i = 0; i < 8; ++i) {
    WheelTurn turn = pad(10 * i, at, {});
    turn.scale = std::exp2(0.125);
    stage.wheel(turn);
  }
  CHECK(plane.zoom() == Approx(2.0).epsilon(1e-6));
  CHECK(length(under() - before) < 1e-6);
  stage.advance(ms(1000));
  CHECK(plane.zoom() == Approx(2.0).epsilon(1e-6));
  WheelTurn out = notch(2000, at, {0, 1});
  out.zooms = true;
  stage.wheel(out);
  stage.advance(ms(3000));
  CHECK(plane.zoom() == Approx(2.0 / 1.2).epsilon(1e-4));
  CHECK(stage.settled());
  // And without it the wheel moves what is larger than the plane.
  stage.wheel(pad(4000, at, {0, 12}));
  const double pan = plane.pan().y;
  stage.wheel(pad(4010, at, {0, 12}));
  CHECK(plane.pan().y == Approx(pan - 12));
}

TEST_CASE("a part may have numbers of its own for wheels") {
  Stage stage({.wheel = {.notch = 50, .rest = ms(90)}, .journal = 64});
  auto& list = stage.add<List>("list", {0, 0, 300, 300}, rows(100));
  auto& other = stage.add<List>("other", {0, 300, 300, 300}, rows(100));
  other.set_feels({.wheel = {.notch = 20}});
  stage.wheel(notch(0, {100, 100}, {0, 1}));
  stage.advance(ms(1000));
  CHECK(list.offset() == Approx(-50.0));
  stage.wheel(notch(1000, {100, 400}, {0, 2}));
  stage.advance(ms(2000));
  CHECK(other.offset() == Approx(-40.0));
  CHECK_THROWS_AS(other.set_feels({.wheel = {.notch = -1}}), std::invalid_argument);
}

TEST_CASE("a finger takes what a wheel scrolled, and while one is down the wheel does nothing") {
  Stage stage({.journal = 64});
  auto& list = stage.add<List>("list", {0, 0, 300, 400}, rows(100));
  stage.wheel(notch(0, {100, 100}, {0, 3}));
  CHECK(stage.touch({.time = ms(20), .contact = 5, .phase = Phase::down, .at = {100, 200}}));
  CHECK(stage.open_contacts() == 1);
  const double here = list.offset();
  CHECK_FALSE(stage.wheel(notch(30, {100, 100}, {0, 3})));
  CHECK(says(stage, "wheel.contact-down"));
  stage.touch({.time = ms(40), .contact = 5, .phase = Phase::move, .at = {100, 170}});
  CHECK(list.offset() == Approx(here - 22.0));  // 8 dp are the threshold
  stage.touch({.time = ms(400), .contact = 5, .phase = Phase::up, .at = {100, 170}});
  stage.advance(ms(2000));
  // What is removed, and a screen that turns, under a wheel.
  stage.wheel(notch(2100, {100, 100}, {0, 3}));
  stage.advance(ms(2120));
  stage.set_screen({720, 360}, {}, ms(2130));
  CHECK(stage.wheel(notch(2140, {100, 100}, {0, 1})));
  stage.advance(ms(2150));
  stage.remove(list);
  stage.add<List>("next", {0, 0, 300, 400}, rows(100));
  CHECK(stage.wheel(notch(2160, {100, 100}, {0, 1})));
  stage.advance(ms(4000));
  CHECK(stage.settled());
  CHECK(static_cast<const List&>(*stage.find("next")).offset() == Approx(-66.0));
  for (const double bad : {std::nan(""), 1e9, HUGE_VAL})
    CHECK_FALSE(stage.wheel(pad(5000, {100, 100}, {0, bad})));
  CHECK(says(stage, "wheel.unusable"));
}

TEST_CASE("a wheel comes to one outcome at any frame rate, for each kind, and allocates nothing") {
  PROPERTY("turns of all kinds over parts of all kinds", [] {
    std::vector<WheelTurn> turns;
    double time = 100;
    for (int i = 0, n = *rc::gen::inRange(1, 30); i < n; ++i) {
      time += *number(0.1, 250);
      WheelTurn turn{
          .time = ms(time),
          .at = {*number(0, 360), *number(0, 720)},
          .by = {*number(-60, 60), *number(-90, 90)},
          .unit = *rc::gen::element(WheelUnit::dp, WheelUnit::line, WheelUnit::page, WheelUnit::notch),
          .phase = *rc::gen::element(WheelPhase::none, WheelPhase::begin, WheelPhase::change, WheelPhase::end,
                                     WheelPhase::momentum),
          .zooms = *rc::gen::inRange(0, 5) == 0};
      if (turn.unit != WheelUnit::dp) turn.by = turn.by * (1.0 / 30);
      if (*rc::gen::inRange(0, 5) == 0) turn.scale = *number(0.7, 1.4);
      turns.push_back(turn);
    }
    std::string first;
    for (const int frame : {0, 24, 60, 240}) {
      Stage stage({.journal = 4000});
      Cell<double> value(3), stars(2);
      Cell<bool> shown(true);
      stage.add<Slider>("slider", {20, 20, 300, 48}, {.value = value, .to = 10, .step = 1});
      stage.add<List>("list", {0, 80, 180, 300}, rows(40));
      stage.add<Carousel>("frames", {180, 80, 180, 300}, {.label = "Frames", .count = 9});
      stage.add<ZoomPlane>("plane", {0, 380, 180, 180}, {.label = "Plane"});
      stage.add<Pane>("pane", {180, 380, 180, 180}, {.label = "Pane", .min = -300, .max = 0});
      stage.add<Rating>("stars", {0, 560, 300, 48}, {.value = stars});
      stage.add<Sheet>("sheet", {0, 100, 360, 600},
                       {.label = "Sheet", .open = shown, .snap_points = {80, 500}, .dim = 0});
      double next = 0;
      const auto frames_to = [&](double until) {
        for (; frame > 0 && next < until; next += 1000.0 / frame) stage.advance(ms(next));
      };
      stage.advance(ms(1));
      for (const WheelTurn& turn : turns) {
        frames_to(to_ms(turn.time));
        const std::size_t before = allocations();
        stage.wheel(turn);
        const std::size_t asked = allocations() - before;
        RC_ASSERT(asked == 0U);
      }
      frames_to(time + 3000);
      stage.advance(ms(time + 3000));
      std::string all;
      for (const Decision& decision : stage.journal().decisions()) {
        all += std::to_string(decision.time.count()) + " " + std::string(decision.part.view()) + " " +
               decision.answer->name;
        for (const Fact& fact : decision.all_facts()) all += " " + std::to_string(fact.value);
        all += "\n";
      }
      RC_ASSERT(stage.settled());
      RC_ASSERT(stage.open_contacts() == 0U);
      if (frame == 0) first = all;
      RC_ASSERT(all == first);
    }
  });
}
