// Ratings, buttons, switches, cards, draggables and bars: their regions, their geometry, their own ways.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE(
    "a rating's regions: the first edge its own, the last the next one's, both ends clamp, off the low end "
    "is none") {
  for (const bool right_to_left : {false, true})
    for (const bool halves : {false, true}) {
      Stage stage({.right_to_left = right_to_left});
      Cell<double> value{3};
      const Rating& rating =
          stage.add<Rating>("temper", {40, 100, 250, 40}, {.value = value, .halves = halves});
      const auto meant = [&](double from_start) {
        return rating.meant_at({right_to_left ? 290 - from_start : 40 + from_start, 120});
      };
      const double unit = halves ? 0.5 : 1, region = halves ? 25 : 50;
      for (int i = 0; i < 250 / region; ++i) {
        CHECK(meant(region * i) == unit * (i + 1));
        CHECK(meant(region * (i + 1) - 0.001) == unit * (i + 1));
      }
      CHECK(meant(250) == 5);
      CHECK(meant(900) == 5);
      CHECK(meant(-0.001) == 0);
      CHECK(rating.mark(1).x == (right_to_left ? 190 : 90));
      tap_on(stage, {right_to_left ? 180.0 : 150.0, 120});
      CHECK(value.get() == (halves ? 2.5 : 3));
      swipe(stage, {right_to_left ? 230.0 : 100.0, 120}, {right_to_left ? 320.0 : 10.0, 120});
      CHECK(value.get() == 0);
      swipe(stage, {right_to_left ? 230.0 : 100.0, 120}, {right_to_left ? 100.0 : 230.0, 120}, 100,
            Phase::cancel);
      CHECK(value.get() == 0);
    }
  Stage stage;
  Cell<double> value{2};
  stage.add<Rating>("temper", {40, 100, 250, 40}, {.value = value, .clears = false});
  swipe(stage, {100, 120}, {5, 120});
  CHECK(value.get() == 1);
}

TEST_CASE("a button counts a press that is lifted over it, however it strayed between, and none beside it") {
  Stage stage;
  Cell<bool> lit{false};
  Cell<int> saved{0};
  Button& smoker = stage.add<Button>("smoker", {100, 100, 100, 40}, {.down = lit});
  stage.add<Button>("save", {100, 300, 100, 40}, {.presses = saved});
  touch(stage, 10, Phase::down, {150, 120});
  CHECK(smoker.pressed());
  touch(stage, 30, Phase::move, {150, 200});
  CHECK_FALSE(smoker.pressed());
  touch(stage, 50, Phase::move, {150, 150});  // within reach again
  CHECK(smoker.pressed());
  touch(stage, 70, Phase::up, {150, 150});
  CHECK(lit.get());
  settle(stage);
  CHECK(smoker.sunk() == 1);
  swipe(stage, {150, 120}, {150, 160});
  CHECK(lit.get());  // beside it
  tap_on(stage, {150, 120});
  CHECK_FALSE(lit.get());
  stage.at(stage.now(), [&] { lit.set(true); });
  settle(stage);
  CHECK(smoker.sunk() == 1);
  tap_on(stage, {150, 320});
  swipe(stage, {150, 320}, {150, 320}, 50, Phase::cancel);
  tap_on(stage, {150, 320});
  CHECK(saved.get() == 2);
}

TEST_CASE("a switch: a tap anywhere, a drag across, a flick, a drag that comes back changes nothing") {
  for (const bool right_to_left : {false, true}) {
    Stage stage({.right_to_left = right_to_left});
    Cell<bool> seen{false};
    int rests = 0;
    Switch& queen =
        stage.add<Switch>("queen", {100, 100, 90, 40}, {.on = seen, .on_rest = [&](bool) { ++rests; }});
    const auto x = [&](double fraction) { return queen.place_of(fraction).x; };
    CHECK(queen.thumb().x == (right_to_left ? 170 : 120));
    CHECK(x(1) == (right_to_left ? 120 : 170));
    tap_on(stage, {x(1), 120});
    CHECK(seen.get());
    settle(stage);
    CHECK(queen.fraction() == 1);
    CHECK(rests == 1);
    swipe(stage, {x(1), 120}, {x(0), 120});
    CHECK_FALSE(seen.get());
    settle(stage);
    const double t = to_ms(stage.now()) + 10;  // there and back
    touch(stage, t, Phase::down, {x(0), 120});
    for (int i = 1; i <= 10; ++i) touch(stage, t + 8 * i, Phase::move, {x(0) + (x(1) - x(0)) * i / 10, 120});
    for (int i = 10; i >= 0; --i)
      touch(stage, t + 180 - 8 * i, Phase::move, {x(0) + (x(1) - x(0)) * i / 10, 120});
    touch(stage, t + 400, Phase::up, {x(0), 120});
    CHECK_FALSE(seen.get());
    swipe(stage, {x(0), 120}, {x(0) + (x(1) - x(0)) * 0.45, 120}, 4);  // a flick
    CHECK(seen.get());
  }
}

TEST_CASE("a card of which nobody knows where it went comes back from the first open side, as one reads") {
  for (int open = 1; open < 16; ++open)
    for (const bool right_to_left : {false, true}) {
      Stage stage({.right_to_left = right_to_left});
      Cell<int> top{2};
      CardDeck& deck = stage.add<CardDeck>("hives", {40, 160, 280, 380},
                                           {.selected = top,
                                            .count = 3,
                                            .to_left = (open & 1) != 0,
                                            .to_right = (open & 2) != 0,
                                            .upwards = (open & 4) != 0,
                                            .downwards = (open & 8) != 0});
      stage.at(ms(0), [&] { deck.undo(); });
      const Side side = (open & 3) == 3   ? (right_to_left ? Side::right : Side::left)
                        : (open & 1) != 0 ? Side::left
                        : (open & 2) != 0 ? Side::right
                        : (open & 4) != 0 ? Side::up
                                          : Side::down;
      INFO(open << " " << right_to_left);
      const Point from = deck.offset();
      CHECK((side == Side::left    ? -from.x
             : side == Side::right ? from.x
             : side == Side::up    ? -from.y
                                   : from.y) > 200);
      settle(stage);
      CHECK(top.get() == 1);
    }
}

TEST_CASE("a card goes where it was thrown, turns by where it was held, and comes back in mid-air") {
  Stage stage;
  Cell<int> top{0};
  std::vector<std::pair<int, Side>> thrown;
  CardDeck& deck = stage.add<CardDeck>(
      "hives", {40, 160, 280, 380},
      {.selected = top, .count = 3, .upwards = true, .on_throw = [&](int card, Side side) {
         thrown.emplace_back(card, side);
       }});
  const auto turn_when_held_at = [&](double y) {
    touch(stage, to_ms(stage.now()) + 20, Phase::down, {180, y});
    for (int i = 1; i <= 10; ++i) touch(stage, to_ms(stage.now()) + 8, Phase::move, {180 + 8.0 * i, y});
    const double turn = deck.turn();
    touch(stage, to_ms(stage.now()) + 300, Phase::up, {260, y});
    settle(stage);
    CHECK(deck.offset() == Point{});
    return turn;
  };
  CHECK(turn_when_held_at(200) > 0.03);
  CHECK(turn_when_held_at(500) < -0.03);
  CHECK(turn_when_held_at(350) == 0);
  CHECK(thrown.empty());
  swipe(stage, {100, 300}, {300, 300});
  CHECK(deck.flying() == 1);
  CHECK(deck.risen() == 1);  // the next one had come up with it
  stage.advance(stage.now() + ms(60));
  CHECK(deck.flying(0).x.at(stage.now()).value > 200);
  stage.at(stage.now(), [&] { deck.undo(); });
  CHECK(top.get() == 0);
  CHECK(deck.flying() == 0);
  CHECK(deck.offset().x > 100);
  settle(stage);
  CHECK(deck.offset() == Point{});
  swipe(stage, {180, 420}, {180, 340}, 4);  // flicked up
  settle(stage);
  swipe(stage, {180, 300}, {60, 300});
  settle(stage);
  CHECK(thrown == std::vector<std::pair<int, Side>>{{0, Side::right}, {0, Side::up}, {1, Side::left}});
  swipe(stage, {180, 300}, {180, 480});  // not that way
  settle(stage);
  CHECK(top.get() == 2);
  CHECK(stage.act(deck, "throw left", stage.now()));
  settle(stage);
  CHECK(top.get() == 3);
  CHECK_FALSE(stage.act(deck, "throw left", stage.now()));
  CHECK_FALSE(
      stage.touch({.time = stage.now() + ms(5), .contact = 1, .phase = Phase::down, .at = {180, 300}}));
}

TEST_CASE(
    "a draggable goes both ways at once, along its axis only, to the grid, and no further than it may") {
  Stage stage;
  Cell<double> x{0}, y{0}, level{0};
  Draggable& hive =
      stage.add<Draggable>("hive", {100, 100, 40, 40}, {.offset_x = x, .offset_y = y, .grid = 20});
  stage.add<Draggable>("box", {100, 400, 40, 40},
                       {.offset_x = level, .along = Freedom::horizontal, .farthest = 50});
  swipe(stage, {120, 120}, {120 + 66, 120 + 88});  // 110 dp, 8 of them the threshold
  CHECK(hive.offset().x == Approx(66 * 102 / 110.0));
  CHECK(hive.offset().y == Approx(88 * 102 / 110.0));
  settle(stage);
  CHECK(hive.offset() == Point{60, 80});
  CHECK(x.get() == 60);
  CHECK(hive.box() == Box{160, 180, 40, 40});
  swipe(stage, {180, 200}, {-900, 200});
  settle(stage);
  CHECK(x.get() == -100);
  stage.at(stage.now(), [&] { y.set(9999); });
  settle(stage);
  CHECK(hive.box().bottom() <= 720);
  swipe(stage, {120, 420}, {320, 520});
  settle(stage);
  CHECK(level.get() == 50);
  // One that was put partly off the screen may be there, and no further off.
  const Draggable& off = stage.add<Draggable>("off", {-20, 500, 40, 40}, {});
  swipe(stage, {10, 520}, {-200, 520});
  CHECK(off.offset().x == 0);
  swipe(stage, {10, 520}, {110, 520});
  CHECK(off.offset().x > 50);
  swipe(stage, {off.box().x + 10, 520}, {-400, 520});
  CHECK(off.offset().x == 0);
}

TEST_CASE("a bar eases to its share, by another way for once, and passes where it is unknown") {
  Stage stage;
  Cell<double> fraction{0.25};
  ProgressBar& bar = stage.add<ProgressBar>("boxes", {0, 0, 200, 10},
                                            {.fraction = fraction, .transition = Timed{Curve{}, ms(100)}});
  const ProgressBar& busy =
      stage.add<ProgressBar>("busy", {0, 50, 200, 10}, {.unknown = true, .round = ms(1000)});
  CHECK(bar.fill().w == 50);
  stage.at(ms(1000), [&] { fraction.set(0.75); });
  stage.advance(ms(1050));
  CHECK(bar.fraction() == 0.5);
  stage.advance(ms(1100));
  CHECK(bar.fill().w == 150);
  stage.at(ms(2000), [&] { bar.show(0.25, Timed{Curve{}, ms(1000)}); });
  stage.advance(ms(2500));
  CHECK(bar.fraction() == 0.5);
  CHECK(fraction.get() == 0.25);
  stage.advance(ms(3000));
  stage.at(ms(4000), [&] { fraction.set(2); });
  stage.advance(ms(5000));
  CHECK(bar.fraction() == 1);
  CHECK_FALSE(busy.settled());
  stage.advance(ms(5500));
  CHECK(busy.fill().x == Approx(200 * (1.3 * 0.5 - 0.3)));
  CHECK(busy.fill().w == Approx(60));
  CHECK_FALSE(stage.touch({.time = ms(5600), .contact = 1, .phase = Phase::down, .at = {50, 5}}));
}

TEST_CASE("what goes past full or empty on a spring is shown within the bar") {
  Cell<double> share{0.5};
  Stage stage;
  auto& bar = stage.add<ProgressBar>("p", {40, 200, 280, 12},
                                     {.fraction = share, .transition = Spring::settling(ms(400), 0.4)});
  for (double to : {1.0, 0.0}) {
    stage.at(stage.now() + ms(16), [&] { share.set(to); });
    double farthest = 0.0;
    while (!stage.settled()) {
      stage.advance(stage.now() + ms(4));
      farthest = std::fmax(farthest, std::fabs(bar.fraction() - 0.5));
      CHECK((bar.fill().w >= 0.0 && bar.fill().right() <= 320.0));
    }
    CHECK(farthest > 0.6);
    CHECK(bar.fill().w == 280 * to);
  }
}
