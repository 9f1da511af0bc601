// Where swipe rows rest, when they go back by themselves, and what takes them from a finger.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE(
    "a row that was let go on its open place, caught there, or held beyond its time goes back after it") {
  for (const Reduced reduced : {Reduced::full, Reduced::still}) {
    Stage stage({.reduced_motion = reduced, .journal = 500});
    auto& row = stage.add<SwipeRow>("r", {0, 100, 360, 60}, {.leading = 100, .closes_after = ms(1000)});
    stage.advance(ms(0));
    drag(stage, 0, {100, 130}, {208, 130}, 100);  // 8 dp of threshold, then exactly 100
    CHECK(row.state() == SwipeRow::State::open);
    CHECK(row.offset().x == 100);
    stage.advance(ms(1100));
    CHECK(row.state() == SwipeRow::State::open);
    stage.advance(ms(5000));
    CHECK(row.state() == SwipeRow::State::closed);
    // Asked twice, and held: its time stands while a finger is on it.
    stage.act(row, "open leading", ms(5000));
    stage.act(row, "open leading", ms(5700));
    touch(stage, 5900, Phase::down, {200, 130});
    for (double t = 5900; t < 9000; t += 16) stage.advance(ms(t));
    CHECK(row.state() == SwipeRow::State::open);
    touch(stage, 9000, Phase::up, {200, 130});
    stage.advance(ms(9001));
    CHECK(row.state() == SwipeRow::State::open);
    stage.advance(ms(12'000));
    CHECK(row.state() == SwipeRow::State::closed);
    CHECK(row.offset().x == 0);
    CHECK(stage.settled());
    // A time that is set while it is open counts from when it opened.
    stage.change(row, [](SwipeRowSettings& s) { s.closes_after = ms(0); });
    stage.act(row, "open leading", ms(12'000));
    stage.advance(ms(14'000));
    stage.change(row, [](SwipeRowSettings& s) { s.closes_after = ms(800); });
    stage.advance(ms(20'000));
    CHECK(row.state() == SwipeRow::State::closed);
  }
}

TEST_CASE("reset, remove and back take a row from a finger, another row waits for the lift") {
  Cell<std::string> open{"a"};
  Stage stage({.journal = 500});
  auto& a = stage.add<SwipeRow>("a", {0, 100, 360, 60},
                                {.leading = 80, .commit_distance = Length::of(0.6), .open = open});
  auto& b = stage.add<SwipeRow>("b", {0, 200, 360, 60}, {.leading = 80, .open = open});
  stage.advance(ms(0));
  CHECK(a.state() == SwipeRow::State::open);  // the cell named it from the first
  CHECK(a.offset().x == 80);
  touch(stage, 100, Phase::down, {200, 130});
  stage.act(b, "open leading", ms(200));
  CHECK(open.get() == "b");
  stage.advance(ms(900));
  CHECK(a.state() == SwipeRow::State::open);
  touch(stage, 1000, Phase::up, {200, 130});
  stage.advance(ms(2000));
  CHECK(a.state() == SwipeRow::State::closed);
  CHECK(a.offset().x == 0);
  for (const char* urgent : {"reset", "back"}) {
    stage.act(a, "open leading", ms(3000));
    stage.advance(ms(4000));
    touch(stage, 4000, Phase::down, {200, 130});
    if (urgent == std::string_view("back"))
      CHECK(stage.back(ms(4100)));
    else
      CHECK(stage.act(a, urgent, ms(4100)));
    CHECK_FALSE(a.pressed());
    touch(stage, 4200, Phase::up, {200, 130});
    settle(stage);
    CHECK(a.state() == SwipeRow::State::closed);
    CHECK(a.offset().x == 0);
  }
  touch(stage, 60'000, Phase::down, {200, 130});
  CHECK(stage.act(a, "remove", ms(60'100)));
  settle(stage);
  CHECK(a.room() == 0);
}

TEST_CASE("a committed row stays away when its label changes, and its patience begins also past its end") {
  Stage stage({.journal = 500});
  auto& row = stage.add<SwipeRow>(
      "r", {0, 100, 360, 60},
      {.leading = 80, .commit_distance = Length::of(0.5), .timeout = ms(500), .projection_time = ms(0)});
  stage.advance(ms(0));
  drag(stage, 0, {5, 130}, {900, 130}, 100);
  CHECK(row.state() == SwipeRow::State::committed);
  stage.change(row, [](SwipeRowSettings& s) { s.label = "Ridge"; });
  stage.advance(ms(600));
  CHECK(row.offset().x == 360);
  stage.advance(ms(3000));
  CHECK(row.state() == SwipeRow::State::failed);
  CHECK(row.offset().x == 360);
}

TEST_CASE("past its end a row yields less and less, and hands the finger to what lies around it") {
  for (const bool inside : {false, true}) {
    Stage stage;
    stage.add<Pane>("page", {0, 0, 360, 720}, {.min = -300, .max = 300, .axis = Axis::horizontal});
    auto& row = stage.add<SwipeRow>("r", {0, 100, 360, 60}, {.leading = 100, .trailing = 100},
                                    {.inside = inside ? "page" : ""});
    stage.advance(ms(0));
    touch(stage, 0, Phase::down, {50, 130});
    for (int i = 1; i <= 30; ++i) touch(stage, 10 * i, Phase::move, {50.0 + 10 * i, 130});
    CHECK(row.offset().x >= 100);
    CHECK(row.offset().x < 140);
    const double passed = static_cast<const Pane*>(stage.find("page"))->offset();
    if (inside)
      CHECK(passed == Approx(300 - 8 - 100));
    else
      CHECK((passed == 0 && row.offset().x > 110));
    touch(stage, 500, Phase::up, {350, 130});
    settle(stage);
    CHECK(row.offset().x == 100);
  }
}

TEST_CASE("a row that is removed closes its gap in one motion with its list") {
  Stage stage;
  stage.add<List>("rows", {0, 0, 360, 400}, {});
  std::vector<SwipeRow*> rows;
  for (int i = 0; i < 4; ++i)
    rows.push_back(&stage.add<SwipeRow>("row" + std::to_string(i), {0, 0, 360, 60}, {.leading = 80},
                                        {.inside = "rows"}));
  stage.advance(ms(0));
  stage.at(ms(0), [&] { rows[1]->remove(); });
  double before = 120;
  for (double t = 10; t < 260; t += 10) {
    stage.advance(ms(t));
    // The next one is just behind what is left of it, all the way.
    CHECK(rows[2]->box().y == Approx(60 + 60 * rows[1]->room()).margin(0.1));
    CHECK(rows[2]->box().y <= before);
    before = rows[2]->box().y;
  }
  settle(stage);
  stage.at(stage.now(), [&] { rows[1]->reset(); });
  settle(stage);
  CHECK(rows[2]->box().y == Approx(120).margin(0.1));
  stage.at(stage.now(), [&] { rows[1]->remove(); });
  settle(stage);
  stage.at(stage.now(), [&] { stage.remove(*rows[1]); });
  CHECK(rows[2]->box().y == Approx(60).margin(0.1));
  CHECK(stage.settled());
}

TEST_CASE("a row that slides up and down in a list that does follows a finger that held still first") {
  for (const bool holds : {false, true}) {
    Stage stage;
    auto& list = stage.add<List>("rows", {0, 0, 360, 400}, {});
    std::vector<SwipeRow*> rows;
    for (int i = 0; i < 12; ++i)
      rows.push_back(&stage.add<SwipeRow>("row" + std::to_string(i), {0, 0, 360, 60},
                                          {.above = 40, .below = 40}, {.inside = "rows"}));
    stage.advance(ms(0));
    const double held = to_ms(Feel{}.hold_delay) + 1;
    double t = 10;
    stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = {180, 210}});
    t += holds ? held : 10;
    for (double y = 210; y >= 180; y -= 6)
      stage.touch({.time = ms(t += 8), .contact = 1, .phase = Phase::move, .at = {180, y}});
    CHECK((rows[3]->offset().y < -10) == holds);
    CHECK((list.offset() < -10) != holds);
  }
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
