// What each part promises beyond what holds for all: its regions, its geometry, its own ways.
#include "ubbo/testing/alone.hpp"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

void touch(Stage& stage, double at, Phase phase, Point where, int contact = 1) {
  stage.touch({.time = ms(at), .contact = contact, .phase = phase, .at = where});
}
// Down, ten moves of 8 ms, a rest, up; from 16 ms after now.
void swipe(Stage& stage, Point from, Point to, double rest = 120, Phase end = Phase::up) {
  const double t = to_ms(stage.now()) + 16;
  touch(stage, t, Phase::down, from);
  for (int i = 1; i <= 10; ++i) touch(stage, t + 8 * i, Phase::move, from + (to - from) * (i / 10.0));
  touch(stage, t + 80 + rest, end, to);
}
void tap(Stage& stage, Point at) { swipe(stage, at, at, 0); }

}  // namespace

TEST_CASE("what a part of any kind is made of is sound, wherever it is") {
  for (const PartKind* kind : shipped_kinds())
    PROPERTY(kind->name, [&] {
      Alone alone(*kind, *rc::gen::arbitrary<bool>());
      const auto events = any_events();
      const auto look = [&] {
        std::size_t labels = 0;
        kind->pieces(*alone.part, [&](const Piece& piece) {
          const Box& b = piece.box;
          RC_ASSERT(std::isfinite(b.x + b.y + b.w + b.h + piece.turn));
          RC_ASSERT(b.w >= 0 && b.h >= 0);
          RC_ASSERT(piece.opacity >= 0 && piece.opacity <= 1 && piece.fraction >= 0 && piece.fraction <= 1);
          labels += static_cast<std::size_t>(piece.role == Role::label);
          // Handles and what is filled lie within the part, give or take a fingertip.
          const Box& whole = alone.part->box();
          if (piece.role == Role::handle || piece.role == Role::fill)
            RC_ASSERT(b.x >= whole.x - 12 && b.right() <= whole.right() + 12 && b.y >= whole.y - 12 &&
                      b.bottom() <= whole.bottom() + 12);
        });
        RC_ASSERT(labels <= 1);
      };
      alone.stage.advance(ms(0));
      look();
      for (const Event& event : events) {
        event.action(alone, Seen::plain);
        look();
      }
    });
}

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
      tap(stage, {right_to_left ? 180.0 : 150.0, 120});
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
  tap(stage, {150, 120});
  CHECK_FALSE(lit.get());
  stage.at(stage.now(), [&] { lit.set(true); });
  settle(stage);
  CHECK(smoker.sunk() == 1);
  tap(stage, {150, 320});
  swipe(stage, {150, 320}, {150, 320}, 50, Phase::cancel);
  tap(stage, {150, 320});
  CHECK(saved.get() == 2);
}

TEST_CASE("a switch: a tap anywhere, a drag across, a flick; a drag that comes back changes nothing") {
  for (const bool right_to_left : {false, true}) {
    Stage stage({.right_to_left = right_to_left});
    Cell<bool> seen{false};
    int rests = 0;
    Switch& queen =
        stage.add<Switch>("queen", {100, 100, 90, 40}, {.on = seen, .on_rest = [&](bool) { ++rests; }});
    const auto x = [&](double fraction) { return queen.place_of(fraction).x; };
    CHECK(queen.thumb().x == (right_to_left ? 170 : 120));
    CHECK(x(1) == (right_to_left ? 120 : 170));
    tap(stage, {x(1), 120});
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

TEST_CASE("tabs: their places, the underline's two ends, none without a title, along with the pages") {
  for (const bool right_to_left : {false, true}) {
    Stage stage({.right_to_left = right_to_left});
    Cell<Choice> box{Choice({"Brood box", "Super", "Lid"})}, none;
    Cell<double> page{0};
    int chosen = -1;
    Tabs& tabs = stage.add<Tabs>(
        "boxes", {10, 100, 300, 40},
        {.selected = box, .widths = {120, 100, 80}, .inset = 10, .on_choose = [&](std::size_t i) {
           chosen = static_cast<int>(i);
         }});
    const Tabs& empty = stage.add<Tabs>("empty", {10, 200, 300, 40}, {.selected = none});
    const Tabs& along =
        stage.add<Tabs>("along", {10, 300, 300, 40}, {.selected = box, .position = page, .inset = 0});
    CHECK(empty.underline().w == 0);
    CHECK(empty.count() == 0);
    pieces_of(empty, [](const Piece&) { FAIL("nothing is chosen, and something is drawn"); });
    CHECK(tabs.tab(0).x == (right_to_left ? 190 : 10));
    CHECK(tabs.tab(2).w == 80);
    CHECK(tabs.underline().x == (right_to_left ? 200 : 20));
    CHECK(tabs.underline().w == 100);
    CHECK(stage.settled());  // nothing travels at first
    tap(stage, {tabs.tab(1).x + 1, 120});
    CHECK(box.get().name() == "Super");
    CHECK(chosen == 1);
    stage.advance(stage.now() + ms(60));
    const Box under = tabs.underline();
    CHECK(under.w > 80);
    CHECK(under.w < 100);
    settle(stage);
    CHECK(tabs.underline().w == 80);
    CHECK(tabs.underline().x == tabs.tab(1).x + 10);
    stage.at(stage.now(), [&] { page.set(1.5); });
    CHECK(along.underline().w == 100);
    CHECK(along.underline().x == (right_to_left ? 60 : 160));
    tap(stage, {tabs.tab(1).right() - 0.001, 120});
    CHECK(box.get().index() == 1);
    stage.focus("boxes");
    for (const auto& [key, index] :
         {std::pair{Key::home, 0U}, {Key::end, 2U}, {right_to_left ? Key::right : Key::left, 1U}}) {
      stage.press(key, stage.now() + ms(5));
      CHECK(box.get().index() == index);
    }
    CHECK_THROWS_WITH(stage.change(tabs,
                                   [](TabsSettings& s) {
                                     s.widths = {1, 2};
                                   }),
                      Catch::Contains("one for each of 3 titles"));
  }
}

TEST_CASE(
    "page dots: evenly about their middle, a window that slides no more than it must, taps on and beside "
    "them") {
  Stage stage;
  Cell<int> page{0};
  const PageDots& dots = stage.add<PageDots>("dots", {0, 0, 300, 40},
                                             {.selected = page, .count = 20, .visible_dots = 5, .gap = 20});
  CHECK(dots.place_of(2).x == 150);
  CHECK(dots.place_of(3).x == 170);
  CHECK(dots.first() == 0);
  const auto go = [&](int to) {
    stage.at(stage.now(), [&] { page.set(to); });
    settle(stage);
    return dots.first();
  };
  CHECK(go(3) == 0);
  CHECK(go(4) == 1);  // the dot after it is seen
  CHECK(go(3) == 1);
  CHECK(go(1) == 0);
  CHECK(go(99) == 15);
  CHECK(dots.position() == 19);
  CHECK(go(10) == 9);
  tap(stage, {dots.place_of(12).x + 9, 20});
  CHECK(page.get() == 12);
  settle(stage);
  tap(stage, {290, 20});
  CHECK(page.get() == 13);
  settle(stage);
  tap(stage, {10, 20});
  CHECK(page.get() == 12);
}

TEST_CASE(
    "a carousel: its items' places, looks by distance, the short way round, one at a time, by a tap on a "
    "neighbour") {
  for (const bool right_to_left : {false, true}) {
    Stage stage({.right_to_left = right_to_left, .journal = 100});
    Cell<int> index{0};
    Cell<double> place{0};
    Carousel& photos = stage.add<Carousel>("photos", {0, 0, 360, 300},
                                           {.selected = index,
                                            .position = place,
                                            .count = 6,
                                            .spacing = 20,
                                            .peek = 40,
                                            .wrap = true,
                                            .shrink = 0.2,
                                            .fade = 0.5});
    CHECK(photos.item_length() == 280);
    CHECK(photos.item(0).x == 40);
    CHECK(photos.item(1).x == (right_to_left ? -260 : 340));
    CHECK(photos.look(0).scale == 1);
    CHECK(photos.look(-0.5).scale == Approx(0.9));
    CHECK(photos.look(7).opacity == 0.5);
    stage.at(ms(0), [&] { photos.go_to(5); });
    stage.advance(ms(100));
    CHECK(photos.position() < 0);  // the short way
    settle(stage);
    CHECK(index.get() == 5);
    CHECK(photos.position() == -1);
    CHECK(place.get() == 5);
    CHECK(words::sentence(stage.journal().decisions().back()) == "at rest at item 6 of 6");
    CHECK(photos.layer_offset(0.5) == (right_to_left ? -150 : 150));
    tap(stage, {right_to_left ? 20.0 : 340.0, 100});  // the one that peeks in next
    settle(stage);
    CHECK(index.get() == 0);
    swipe(stage, {right_to_left ? 30.0 : 330.0, 100}, {right_to_left ? 340.0 : 20.0, 100},
          4);  // a flick over more than one
    settle(stage);
    CHECK(index.get() == 1);
    stage.act(photos, "previous", stage.now());
    settle(stage);
    CHECK(index.get() == 0);
  }
  Stage wide({.width = 800});
  const Carousel& three = wide.add<Carousel>(
      "photos", {0, 0, 660, 100}, {.count = 9, .visible_items = 1, .visible_items_wide = 3, .spacing = 30});
  CHECK(three.item_length() == 200);
  CHECK(three.item(2).right() == 660);
}

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
    tap(stage, {x(9), 124});  // the nearer goes there
    settle(stage);
    CHECK(high.get() == 9);
    CHECK_THROWS_WITH(stage.add<RangeSlider>("bad", {0, 300, 280, 48},
                                             {.low = low, .high = high, .to = 10, .step = 2, .min_gap = 3}),
                      Catch::Contains("min_gap = 3 is not taken"));
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

TEST_CASE("a swipe row's share counts from the first of its way") {
  Stage stage;
  auto& row = stage.add<SwipeRow>("row", {0, 100, 360, 80}, {.leading = 60, .trailing = 40});
  for (const auto& [way, fraction] : {std::pair{0.6, 0.01}, {-0.4, -0.01}, {30.0, 0.5}, {-20.0, -0.5}}) {
    const double past = stage.feel().drag_threshold;
    touch(stage, to_ms(stage.now()) + 10, Phase::down, {180, 140});
    touch(stage, to_ms(stage.now()) + 10, Phase::move, {180 + way + std::copysign(past, way), 140});
    CHECK(row.fraction() == Approx(fraction));
    touch(stage, to_ms(stage.now()) + 10, Phase::cancel, {180, 140});
    settle(stage);
  }
}

TEST_CASE("keys open and close a swipe row, along the axes on which it opens") {
  for (const bool right_to_left : {false, true}) {
    Stage stage{{.right_to_left = right_to_left}};
    auto& row = stage.add<SwipeRow>("row", {0, 100, 360, 80}, {.leading = 60});
    auto& tall = stage.add<SwipeRow>("tall", {0, 300, 360, 80}, {.above = 20, .below = 30});
    const Key on = right_to_left ? Key::left : Key::right;
    const Key back = right_to_left ? Key::right : Key::left;
    const auto press = [&](Key key) {
      const bool used = stage.press(key, std::max(stage.now(), ms(0)) + ms(1));
      settle(stage);
      return used;
    };
    REQUIRE(stage.focus("row"));
    CHECK_FALSE(press(Key::up));
    CHECK_FALSE(press(Key::escape));
    CHECK(press(on));
    CHECK(row.fraction() == 1);
    CHECK(row.side() == std::string("leading"));
    CHECK(press(back));
    CHECK(row.fraction() == 0);
    press(back);
    CHECK(row.state() == SwipeRow::State::closed);
    press(on);
    CHECK(press(Key::escape));
    CHECK(row.fraction() == 0);
    REQUIRE(stage.focus("tall"));
    CHECK_FALSE(press(on));
    CHECK(press(Key::down));
    CHECK(tall.side() == std::string("above"));
    CHECK(tall.offset().y == 20);
    press(Key::up);
    press(Key::up);
    CHECK(tall.offset().y == -30);
  }
}

TEST_CASE(
    "what lies behind a swipe row is said and shown where it is open, and only what it can do is offered") {
  const auto actions = [](const Part& part) {
    std::string all;
    const OfferedActions offered(part);
    for (std::size_t i = 0; i < offered.size(); ++i) all += std::string(offered[i].name) + ", ";
    return all;
  };
  Stage stage;
  auto& row = stage.add<SwipeRow>("row", {0, 100, 360, 80},
                                  {.leading = 60,
                                   .trailing = 80,
                                   .above = 20,
                                   .below = 20,
                                   .leading_label = "Visited",
                                   .trailing_label = "Remove",
                                   .above_label = "Note",
                                   .below_label = "Move"});
  CHECK(actions(row) == "open leading, open trailing, open above, open below, reset, ");
  CHECK(actions(stage.add<SwipeRow>("a", {0, 200, 360, 80}, {.leading = 60})) == "open leading, reset, ");
  CHECK(actions(stage.add<SwipeRow>("b", {0, 300, 360, 80}, {.trailing = 60})) == "open trailing, reset, ");
  CHECK(actions(stage.add<SwipeRow>("c", {0, 400, 360, 80}, {.above = 30})) == "open above, reset, ");
  CHECK(row.side_label().empty());
  for (const auto& [way, label] : {std::pair{Point{70, 0}, "Visited"},
                                   {Point{-90, 0}, "Remove"},
                                   {Point{0, 40}, "Note"},
                                   {Point{0, -40}, "Move"}}) {
    swipe(stage, {180, 140}, Point{180, 140} + way);
    settle(stage);
    CHECK(row.side_label() == label);
    CHECK(row.accessible().value_text == std::string("open: ") + label);
    std::string shown;
    pieces_of(row, [&](const Piece& piece) {
      if (piece.role == Role::behind) shown += piece.words;
    });
    CHECK(shown == label);
    stage.act(row, "reset", stage.now());
    settle(stage);
  }
  CHECK(row.accessible().value_text == "closed");
}

TEST_CASE("each end of a carousel yields in its own way") {
  for (const Overscroll::How start :
       {Overscroll::How::none, Overscroll::How::linear, Overscroll::How::damped})
    for (const Overscroll::How end :
         {Overscroll::How::none, Overscroll::How::linear, Overscroll::How::damped})
      for (const bool right_to_left : {false, true})
        for (const bool upright : {false, true}) {
          Stage stage({.right_to_left = right_to_left});
          auto& photos = stage.add<Carousel>("photos", {0, 0, 300, 300},
                                             {.count = 2,
                                              .axis = upright ? Axis::vertical : Axis::horizontal,
                                              .overscroll_start = start,
                                              .overscroll_end = end,
                                              .overscroll_fraction = 0.25});
          Micros now = ms(0);
          for (const bool at_end : {false, true}) {
            if (at_end) stage.act(photos, "next", now);
            stage.advance(now += ms(3000));
            // Away from what there is, 90 dp further than the threshold.
            const double sign = (at_end ? -1 : 1) * (right_to_left && !upright ? -1 : 1);
            const double way = 90 + photos.feel_for(Tool::finger).threshold(photos.settings().axis);
            const auto at = [&](double by) {
              return upright ? Point{150, 150 + sign * by} : Point{150 + sign * by, 150};
            };
            stage.touch({.time = now, .contact = 1, .phase = Phase::down, .at = at(0)});
            for (int i = 1; i <= 20; ++i)
              stage.touch(
                  {.time = now += ms(10), .contact = 1, .phase = Phase::move, .at = at(way * i / 20)});
            const double beyond = 300 * (at_end ? photos.position() - 1 : -photos.position());
            const Overscroll::How how = at_end ? end : start;
            INFO(at_end << " " << static_cast<int>(how) << " " << beyond);
            if (how == Overscroll::How::none) CHECK(beyond == 0);
            if (how == Overscroll::How::linear) CHECK(beyond == Approx(0.25 * 90).margin(3));
            if (how == Overscroll::How::damped) CHECK((beyond > 0.25 * 90 && beyond < 90));
            stage.touch({.time = now += ms(200), .contact = 1, .phase = Phase::up, .at = at(way)});
          }
          settle(stage);
          CHECK(photos.position() == 1);
        }
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

TEST_CASE("a sheet takes snap points up to its own length along its way, from whichever edge it comes") {
  for (const auto& [edge, most] : {std::pair{Edge::bottom, 300.0},
                                   {Edge::top, 300.0},
                                   {Edge::left, 200.0},
                                   {Edge::right, 200.0},
                                   {Edge::leading, 200.0},
                                   {Edge::trailing, 200.0}}) {
    CHECK(Sheet::fault("s", {0, 0, 200, 300}, {.edge = edge, .snap_points = {most}}).empty());
    CHECK_THAT(Sheet::fault("s", {0, 0, 200, 300}, {.edge = edge, .snap_points = {most + 1}}),
               Catch::Contains("takes 1 to the sheet's own " + plain_number(most)));
  }
}

TEST_CASE("a part that is removed is gone with all that its settings hold, in the same event") {
  Stage stage;
  auto held = std::make_shared<int>(3);
  const std::weak_ptr<int> still = held;
  Part& pad = stage.add<Pad>("row", {0, 0, 100, 100}, {});
  stage.add<Button>("b", {0, 0, 100, 50}, {.on_press = [held = std::move(held)] {}}, {.inside = "row"});
  stage.advance(ms(0));
  CHECK_FALSE(still.expired());
  stage.at(ms(10), [&] {
    stage.remove(pad);
    CHECK_FALSE(still.expired());
  });
  CHECK(still.expired());
}
