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
  plan.enter.own(PropertyGroup::opacity) = any_transition();
  plan.exit.own(PropertyGroup::scale) = any_transition();
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

namespace {

// One number by closed formulas of its own, in the order of the calls: what a property must be.
struct Reference {
  enum class By { critical, weak, straight, square };
  By by{};
  double frequency = 0.0;  // rad/s, of a spring; a weak one has half the critical damping
  double lasts = 0.0;      // s, of a curve
  double delay = 0.0;      // s
  double start = 0.0, target = 0.0, speed = 0.0, began = -1e9, next_target = 0.0, next_begins = 1e9;

  [[nodiscard]] std::pair<double, double> at(double time) const {  // value and speed
    const double t = time - began;
    const double x = start - target;
    if (by == By::critical) {
      const double push = speed + frequency * x;
      const double fade = std::exp(-frequency * t);
      return {target + (x + push * t) * fade, (push - frequency * (x + push * t)) * fade};
    }
    if (by == By::weak) {
      const double a = frequency / 2;
      const double w = frequency * std::sqrt(0.75);
      const double b = (speed + a * x) / w;
      const double fade = std::exp(-a * t);
      return {target + fade * (x * std::cos(w * t) + b * std::sin(w * t)),
              fade * ((b * w - a * x) * std::cos(w * t) - (x * w + a * b) * std::sin(w * t))};
    }
    const double p = std::min(t / lasts, 1.0);
    return {start + (target - start) * (by == By::straight ? p : p * p), 0.0};
  }
  void pass(double time) {
    if (time < next_begins) return;
    const auto [value, velocity] = at(next_begins);
    start = value;
    speed = velocity;
    target = next_target;
    began = std::exchange(next_begins, 1e9);
  }
  void send(double to, double time) {
    pass(time);
    next_target = to;
    next_begins = time + delay;
    pass(time);
  }
};

}  // namespace

TEST_CASE(
    "five properties on five transitions are where their own formulas say, after ten interruptions too") {
  using By = Reference::By;
  const auto square = Curve::own([](double p) { return p * p; }, [](double p) { return 2 * p; });
  const Transitions ways =
      Transitions(Spring::natural(4.0, 1.0))
          .with(PropertyGroup::scale, Spring::natural(7.0, 0.5))
          .with(PropertyGroup::turn, Timed{Curve{}, ms(400)})
          .with(PropertyGroup::opacity, Transition(Timed{square, ms(300)}).after(ms(80)))
          .with(PropertyGroup::uncovering, Transition(Spring::natural(5.0, 1.0)).after(ms(40)));
  EnterExit visit(
      {.from = {.offset = {0, 300}, .scale = 0.5, .turn = 1, .opacity = 0, .covered = {.left = 1}},
       .enter = ways,
       .to = {.offset = {0, -200}, .scale = 2, .turn = -1, .opacity = 0.5, .covered = {.left = 0.5}},
       .exit = ways});
  std::array references{
      std::pair{Property::y, Reference{.by = By::critical, .frequency = 4, .start = 300, .target = 300}},
      std::pair{Property::scale, Reference{.by = By::weak, .frequency = 7, .start = 0.5, .target = 0.5}},
      std::pair{Property::turn, Reference{.by = By::straight, .lasts = 0.4, .start = 1, .target = 1}},
      std::pair{Property::opacity, Reference{.by = By::square, .lasts = 0.3, .delay = 0.08}},
      std::pair{Property::left,
                Reference{.by = By::critical, .frequency = 5, .delay = 0.04, .start = 1, .target = 1}}};
  Micros now = ms(1000);
  for (int call = 0; call < 11; ++call) {
    while (visit.due() <= now) visit.advance(visit.due());
    visit.toggle(now);
    const VisualState goal = visit.open() ? VisualState{} : visit.plan().to;
    for (auto& [which, reference] : references) reference.send(property(goal, which), to_seconds(now));
    for (const Micros until = now + ms(60 + 37 * call); now < until; now += ms(13)) {
      while (visit.due() <= now) visit.advance(visit.due());
      for (auto& [which, reference] : references) {
        reference.pass(to_seconds(now));
        CAPTURE(call, static_cast<int>(which), now.count());
        CHECK(std::fabs(property(visit.visual_state(now), which) - reference.at(to_seconds(now)).first) <
              1e-9);
      }
    }
  }
  // The slowest ends the way; quick ones wait for nobody.
  CHECK(visit.moving());
}

TEST_CASE("a sheet and a drawer dim the page as far as they are out, or by a transition of its own") {
  for (const bool slow : {false, true}) {
    Stage stage;
    Cell<bool> open(false);
    auto& sheet = stage.add<Sheet>("sheet", {0, 320, 360, 400},
                                   {.open = open,
                                    .dim = 0.5,
                                    .dim_follows = false,
                                    .dim_transition = Timed{Curve{}, ms(slow ? 800 : 200)},
                                    .transition = Timed{Curve{}, ms(400)}});
    stage.at(ms(0), [&] { open.set(true); });
    stage.advance(ms(100));
    CHECK(sheet.out() == Approx(100));
    CHECK(sheet.dim() == Approx(slow ? 0.0625 : 0.25));
    stage.change(sheet, [](SheetSettings& s) { s.label = "Ridge"; });  // which leaves both on their way
    CHECK(sheet.dim() == Approx(slow ? 0.0625 : 0.25));
    stage.advance(ms(500));
    CHECK((sheet.state() == EnterExit::State::present) == !slow);  // the slower one ends the way
    stage.advance(ms(900));
    CHECK(sheet.state() == EnterExit::State::present);
    CHECK(sheet.dim() == 0.5);
    // On its way out another tap brings it back, from where both are.
    stage.at(ms(1000), [&] { open.set(false); });
    stage.at(ms(1100), [&] { open.set(true); });
    CHECK(sheet.dim() == Approx(slow ? 0.4375 : 0.25));
    stage.advance(ms(3000));
    CHECK(sheet.dim() == 0.5);
    stage.at(ms(3000), [&] { open.set(false); });
    stage.advance(ms(3500));
    CHECK(sheet.out() == 0.0);
    CHECK(sheet.is_absent() == !slow);
    stage.advance(ms(4000));
    CHECK(sheet.is_absent());
    CHECK(sheet.dim() == 0.0);
    CHECK(stage.settled());
  }
  Stage stage;
  Cell<bool> open(true);
  auto& drawer =
      stage.add<Drawer>("drawer", {0, 0, 264, 720}, {.open = open, .dim = 0.5, .dim_follows = false});
  stage.advance(ms(1));
  CHECK(drawer.dim() == 0.5);  // open from the first
  for (const bool follows : {true, false}) {
    stage.change(drawer, [=](DrawerSettings& s) { s.dim_follows = follows; });
    CHECK(drawer.dim() == 0.5);
  }
  stage.immediately([&] { open.set(false); });
  CHECK(drawer.dim() == 0.0);
  CHECK(drawer.is_absent());
}
