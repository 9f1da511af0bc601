// Tabs and page dots.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("tabs that go while a finger is on the last of them leave it the one that is the last now") {
  Stage stage({.journal = 100});
  Cell<Choice> box{Choice({"Brood box", "Super", "Lid"})};
  const Tabs& tabs = stage.add<Tabs>("boxes", {0, 100, 300, 40}, {.selected = box});
  touch(stage, 10, Phase::down, {250, 120});
  stage.at(ms(20), [&] { box.set(Choice({"Brood box", "Super"})); });
  touch(stage, 30, Phase::move, {251, 120});
  touch(stage, 40, Phase::up, {251, 120});
  CHECK(tabs.count() == 2);
  CHECK(box.get().index() == 0);  // as the app has written
  const auto& all = stage.journal().decisions();
  const auto said =
      std::find_if(all.begin(), all.end(), [](const Decision& d) { return d.says(answers::tab_chosen); });
  REQUIRE(said != all.end());
  CHECK(said->facts[0].value == 2);
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
    tap_on(stage, {tabs.tab(1).x + 1, 120});
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
    tap_on(stage, {tabs.tab(1).right() - 0.001, 120});
    CHECK(box.get().index() == 1);
    tap_on(stage, {tabs.tab(1).right(), 120});
    CHECK(box.get().index() == (right_to_left ? 0 : 2));
    tap_on(stage, {tabs.tab(1).x, 120});
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
  tap_on(stage, {dots.place_of(12).x + 9, 20});
  CHECK(page.get() == 12);
  settle(stage);
  tap_on(stage, {290, 20});
  CHECK(page.get() == 13);
  settle(stage);
  tap_on(stage, {10, 20});
  CHECK(page.get() == 12);
}

TEST_CASE("a choice of none: no underline, and none to travel from, a page host always shows one") {
  Stage stage;
  Cell<Choice> chosen{Choice({"Brood", "Stores", "Pests"}).with_none()};
  CHECK((!chosen.get().any() && chosen.get().index() == 3 && chosen.get().name().empty()));
  auto& tabs = stage.add<Tabs>("t", {0, 0, 360, 48}, {.selected = chosen});
  stage.advance(ms(0));
  CHECK(tabs.underline().w == 0);
  CHECK(tabs.accessible().value_text.empty());
  stage.at(ms(100), [&] { chosen.set(chosen.get().with(1)); });
  CHECK((tabs.underline().w > 60 && tabs.underline().x > 120 && stage.settled()));
  stage.at(ms(200), [&] { chosen.set(chosen.get().with_none()); });
  CHECK(tabs.underline().w == 0);
  stage.focus("t");
  stage.press(Key::right, ms(300));
  CHECK(chosen.get().name() == "Brood");
  stage.at(ms(400), [&] { chosen.set(chosen.get().with_none()); });
  auto& host = stage.add<PageHost>("h", {0, 100, 360, 300}, {.selected = chosen});
  for (const char* id : {"a", "b", "c"}) stage.add<Pad>(id, {0, 0, 360, 300}, {}, {.inside = "h"});
  stage.at(ms(500), [&] { chosen.set(chosen.get().with(2)); });
  stage.advance(ms(2000));
  stage.at(ms(2000), [&] { chosen.set(chosen.get().with_none()); });
  stage.advance(ms(3000));
  CHECK((host.selected() == 2 && chosen.get().index() == 2));
}
