// Two thumbs on one track.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a range's thumbs stop at each other, or push, and what was pushed comes back on a cancel") {
  for (const Meet meet : {Meet::stops, Meet::pushes}) {
    Stage stage;
    Cell<double> low{2}, high{5};
    const RangeSlider& brood =
        stage.add<RangeSlider>("brood", {40, 100, 280, 48},
                               {.low = low, .high = high, .to = 10, .step = 1, .min_gap = 1, .meet = meet});
    const auto x = [&](double value) { return brood.place_of(value).x; };
    CHECK(x(0) == 54);
    CHECK(x(10) == 306);
    swipe(stage, {x(2), 124}, {x(8) + 8, 124}, 120, Phase::cancel);
    settle(stage);
    CHECK(low.get() == 2);
    CHECK(high.get() == 5);
    swipe(stage, {x(2), 124}, {x(8) + 8, 124});
    settle(stage);
    CHECK(low.get() == (meet == Meet::stops ? 4 : 8));
    CHECK(high.get() == (meet == Meet::stops ? 5 : 9));
    CHECK(brood.fill().w == Approx(25.2));
    stage.at(stage.now(), [&] {
      low.set(7);
      high.set(3);
    });
    settle(stage);
    CHECK(brood.high() == 3);
    CHECK(brood.low() == 2);
    tap_on(stage, {x(9), 124});  // the nearer goes there
    settle(stage);
    CHECK(high.get() == 9);
    CHECK_THROWS_WITH(stage.add<RangeSlider>("bad", {0, 300, 280, 48},
                                             {.low = low, .high = high, .to = 10, .step = 2, .min_gap = 3}),
                      Catch::Contains("min_gap = 3 is not taken"));
  }
}

TEST_CASE("just between its thumbs a finger takes the upper one, a little beside that the nearer one") {
  Cell<double> low{2}, high{6};
  Stage stage;
  auto& range = stage.add<RangeSlider>("r", {40, 200, 280, 48}, {.low = low, .high = high, .to = 10});
  stage.advance(ms(0));
  const double middle = (range.thumb(0).x + range.thumb(1).x) / 2;
  for (const double beside : {-1.0, 0.0, 1.0}) {
    stage.touch(
        {.time = stage.now() + ms(10), .contact = 1, .phase = Phase::down, .at = {middle + beside, 224}});
    CHECK(range.pressed(beside < 0 ? 0 : 1));
    CHECK_FALSE(range.pressed(beside < 0 ? 1 : 0));
    stage.touch(
        {.time = stage.now() + ms(10), .contact = 1, .phase = Phase::cancel, .at = {middle + beside, 224}});
  }
}

TEST_CASE("where its thumbs lie together a press that came to nothing leaves both to the next finger") {
  for (const bool cancels : {true, false}) {
    Cell<double> low{4}, high{4};
    Stage stage;
    auto& range = stage.add<RangeSlider>("r", {40, 200, 280, 48}, {.low = low, .high = high, .to = 10});
    stage.advance(ms(0));
    const double x = range.thumb(0).x;
    const auto touch = [&](double at_ms, Phase phase, double by) {
      stage.touch({.time = ms(at_ms), .contact = 1, .phase = phase, .at = {x + by, 224}});
    };
    touch(10, Phase::down, 0);
    cancels ? stage.cancel_contacts() : stage.show(range, false);
    if (!cancels) stage.show(range, true);
    touch(500, Phase::up, 0);
    touch(600, Phase::down, 0);
    touch(610, Phase::move, -30);
    CHECK(range.pressed(0));
    CHECK(range.thumb(0).x < x);
  }
}

TEST_CASE("a range's gap is a whole number of steps, whatever the step") {
  Cell<double> low{0}, high{10};
  const auto fault = [&](double step, double gap) {
    return RangeSlider::fault("brood", {0, 0, 300, 48},
                              {.low = low, .high = high, .to = 10, .step = step, .min_gap = gap});
  };
  for (const double step : {0.25, 0.5, 1.0, 2.5}) {
    CAPTURE(step);
    CHECK(fault(step, 2 * step) == "");
    CHECK_THAT(fault(step, 1.5 * step),
               Catch::Contains("min_gap") && Catch::Contains("whole number of steps"));
  }
}
