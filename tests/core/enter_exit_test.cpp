// Coming and going: continuous, to the same end however often it is asked, and gone when it is gone.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

VisualState any_guise() {
  return {.offset = {*rc::gen::element(0.0, -300.0, 40.0), *rc::gen::element(0.0, 720.0, -8.5)},
          .scale = *rc::gen::element(1.0, 0.8, 0.0),
          .turn = *rc::gen::element(0.0, 0.3),
          .opacity = *rc::gen::element(1.0, 0.0, 0.4),
          .covered = {.right = *rc::gen::element(0.0, 1.0)}};
}

Transition any_transition() {
  const Micros delay = ms(*rc::gen::element(0, 0, 70));
  switch (*rc::gen::inRange(0, 3)) {
    case 0:
      return {Spring::settling(ms(*rc::gen::element(120, 400)), *rc::gen::element(0.0, 0.2)), delay};
    case 1:
      return {Timed{Curve::ease_out(), ms(*rc::gen::element(0, 150, 300))}, delay};
    default:
      return {Timed{Curve::ease_in_out(), ms(250)}, delay};
  }
}

EnterExitPlan any_plan() {
  EnterExitPlan plan{
      .from = any_guise(), .enter = any_transition(), .to = any_guise(), .exit = any_transition()};
  plan.enter.own.push_back({Property::opacity, any_transition()});
  plan.exit.own.push_back({Property::y, any_transition()});
  return plan;
}

}  // namespace

TEST_CASE("a visit goes on from where it is, with its velocity, and ends as it was last asked") {
  PROPERTY("any calls at any times", [] {
    const EnterExitPlan plan = any_plan();
    EnterExit visit(plan), twice(plan);
    bool wanted = false;
    Micros now{0};
    const int calls = *rc::gen::inRange(1, 9);
    const auto pass = [&](EnterExit& one, Micros until) {
      while (one.due() <= until) one.advance(one.due());
    };
    for (int call = 0; call < calls; ++call) {
      now += ms(*rc::gen::element(0, 1, 33, 140, 900));
      pass(visit, now);
      pass(twice, now);
      const EnterExit::State state = visit.state();
      const VisualState before = visit.visual_state(now);
      std::array<double, property_count> speed{};
      for (std::size_t i = 0; i < property_count; ++i)
        speed[i] = visit.velocity(static_cast<Property>(i), now);
      const bool opens = *rc::gen::arbitrary<bool>();
      RC_ASSERT((opens ? visit.open(now) : visit.close(now)) == (opens != wanted));
      opens ? twice.open(now) : twice.close(now);
      RC_ASSERT((opens ? twice.open(now) : twice.close(now)) == false);
      const bool set_out = opens != wanted;
      wanted = opens;
      const VisualState after = visit.visual_state(now);
      RC_ASSERT(visit.visual_state(now) == twice.visual_state(now));
      const Transitions& by = opens ? plan.enter : plan.exit;
      for (std::size_t i = 0; i < property_count; ++i) {
        const auto which = static_cast<Property>(i);
        const Transition& transition = by.of(which);
        // Where it begins anew it begins from its own start; a transition of no time is over at once.
        if (set_out && state == EnterExit::State::absent) {
          if (transition.delay > Micros{0} || !std::holds_alternative<Timed>(transition.way))
            RC_ASSERT(std::fabs(property(after, which) - property(plan.from, which)) < 1e-9);
          continue;
        }
        const auto* timed = std::get_if<Timed>(&transition.way);
        const bool at_once =
            timed != nullptr && timed->duration == Micros{0} && transition.delay == Micros{0};
        if (set_out && at_once) continue;
        RC_ASSERT(std::fabs(property(after, which) - property(before, which)) < 1e-9);
        if (set_out && timed == nullptr && transition.delay == Micros{0} && visit.velocity(which, now) != 0.0)
          RC_ASSERT(std::fabs(visit.velocity(which, now) - speed[i]) < 1e-9);
      }
    }
    pass(visit, now + ms(10'000));
    pass(twice, now + ms(10'000));
    RC_ASSERT(visit.state() == (wanted ? EnterExit::State::present : EnterExit::State::absent));
    RC_ASSERT(twice.state() == visit.state());
    RC_ASSERT(visit.due() == never);
    if (wanted) RC_ASSERT(visit.visual_state(now) == VisualState{});
  });
}

TEST_CASE("a visit has come at the microsecond at which its last property has") {
  EnterExit visit({.from = {.offset = {0, 300}, .opacity = 0},
                   .enter = Transitions(Timed{Curve{}, ms(200)}),
                   .to = {.scale = 0.5},
                   .exit = Transitions(Transition(Timed{Curve{}, ms(100)}, ms(50)))});
  CHECK(visit.absent());
  visit.open(ms(1000));
  CHECK(visit.visual_state(ms(1050)).offset.y == Approx(225));
  CHECK(visit.visual_state(ms(1050)).opacity == Approx(0.25));
  CHECK_FALSE(visit.advance(ms(1199)));
  CHECK(visit.due() == ms(1200));
  CHECK(visit.advance(ms(1200)));
  CHECK(visit.state() == EnterExit::State::present);
  visit.toggle(ms(2000));
  CHECK(visit.due() == ms(2050));
  visit.advance(ms(2050));
  CHECK(visit.visual_state(ms(2100)).scale == Approx(0.75));
  CHECK(visit.advance(ms(2150)));
  CHECK(visit.absent());
  visit.set_reduced(Reduced::still);
  visit.open(ms(3000));
  CHECK(visit.state() == EnterExit::State::present);
}

TEST_CASE("just off an edge is off it, from wherever a box lies") {
  PROPERTY("any box", [] {
    const Box screen{0, 0, 360, 720};
    const Box box{*number(-400, 700), *number(-800, 1400), *number(1, 500), *number(1, 900)};
    for (const Side side : {Side::left, Side::up, Side::right, Side::down}) {
      const double way = way_off(box, screen, side);
      const Box there = box + towards(side, way);
      const double gap = side == Side::left    ? screen.x - there.right()
                         : side == Side::up    ? screen.y - there.bottom()
                         : side == Side::right ? there.x - screen.right()
                                               : there.y - screen.bottom();
      RC_ASSERT(gap > -1e-9);
      if (way > 0) RC_ASSERT(gap < 1e-9);
    }
  });
}
