// Which part has the keyboard: by Tab, under layers, when parts go, hide and are disabled.
#include <algorithm>
#include <array>
#include <vector>

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("Tab goes to each part that answers keys, in their order, and leaves, back-tab the other way") {
  PROPERTY("any of six hidden or disabled", [] {
    Stage stage;
    std::vector<std::string> usable;
    for (int i = 0; i < 6; ++i) {
      const std::string id = "b" + std::to_string(i);
      Button& button = stage.add<Button>(id, {0, 50.0 * i, 100, 44}, {.label = id});
      const int state = *rc::gen::inRange(0, 4);
      if (state == 1) stage.hide(button);
      if (state == 2) stage.disable(button);
      if (state == 0 || state == 3) usable.push_back(id);
    }
    stage.advance(ms(0));
    Micros now = ms(10);
    for (const Key key : {Key::tab, Key::back_tab}) {
      std::vector<std::string> visited;
      while (stage.press(key, now += ms(1)) && visited.size() < 10) visited.push_back(stage.focused()->id());
      RC_ASSERT(visited == usable);
      RC_ASSERT(stage.focused() == nullptr);
      std::reverse(usable.begin(), usable.end());
    }
  });
}

TEST_CASE("focus goes into a layer, is kept in it, and returns") {
  std::array<Cell<bool>, 2> open{};
  Stage stage;
  stage.add<Button>("menu", {300, 20, 48, 48}, {.label = "menu"});
  std::array<Dialog*, 2> dialogs{};
  for (std::size_t i = 0; i < 2; ++i) {
    const std::string id = "dialog" + std::to_string(i);
    dialogs[i] = &stage.add<Dialog>(id, {30, 220, 300, 240}, {.label = id, .open = open[i]});
    stage.add<Button>(id + "-ok", {20, 180, 120, 44}, {.label = "ok"}, {.inside = id});
  }
  REQUIRE(stage.focus("menu"));
  open[0].set(true);
  stage.advance(ms(10));
  REQUIRE(stage.focused() != nullptr);
  CHECK(stage.focused()->id() == "dialog0-ok");
  CHECK_FALSE(stage.focus("menu"));
  for (int i = 0; i < 4; ++i) {
    stage.press(i < 2 ? Key::tab : Key::back_tab, ms(400 + i));
    REQUIRE(stage.focused() != nullptr);
    CHECK(lies_in(*stage.focused(), *dialogs[0]));
  }
  open[1].set(true);
  stage.advance(ms(900));
  stage.press(Key::tab, ms(901));
  CHECK(lies_in(*stage.focused(), *dialogs[1]));
  open[0].set(false);  // the lower one goes first
  stage.advance(ms(2000));
  CHECK(lies_in(*stage.focused(), *dialogs[1]));
  stage.back(ms(2100));
  REQUIRE(stage.focused() != nullptr);
  CHECK(stage.focused()->id() == "menu");
}

TEST_CASE("a part on its way out has no focus, and no key of it reaches the app") {
  Cell<double> value{4};
  Cell<bool> open{true};
  Stage stage;
  auto& window = stage.add<Panel>("w", {0, 300, 360, 300}, {.open = open});
  stage.add<Slider>("s", {40, 60, 280, 48}, {.value = value, .to = 10, .step = 1}, {.inside = "w"});
  stage.advance(ms(0));
  REQUIRE(stage.focus("s"));
  stage.at(ms(100), [&] { stage.remove(window); });
  CHECK(stage.focused() == nullptr);
  CHECK_FALSE(stage.press(Key::right, ms(120)));
  CHECK(value.get() == 4);
  stage.advance(ms(2000));
  CHECK(stage.parts().empty());
}

TEST_CASE("a part that is hidden or disabled loses the focus for good, one behind another page for a while") {
  Cell<double> value{4};
  Cell<Choice> page{Choice({"ridge", "hive"})};
  Stage stage;
  stage.add<PageHost>("pages", {0, 0, 360, 720}, {.selected = page});
  stage.add<Pane>("ridge", {0, 0, 360, 720}, {}, {.inside = "pages"});
  stage.add<Pane>("hive", {0, 0, 360, 720}, {}, {.inside = "pages"});
  auto& slider = stage.add<Slider>("s", {40, 60, 280, 48}, {.value = value, .to = 10}, {.inside = "ridge"});
  stage.advance(ms(0));
  struct Way {
    std::function<void(bool)> go;
    bool returns;
  };
  const Way ways[]{{[&](bool gone) { stage.show(slider, !gone); }, false},
                   {[&](bool gone) { gone ? stage.disable(slider) : stage.enable(slider, true); }, false},
                   {[&](bool gone) { page.set(page.get().with(gone ? 1 : 0)); }, true}};
  for (const Way& way : ways) {
    REQUIRE(stage.focus("s"));
    for (const bool gone : {true, false}) {
      stage.at(stage.now() + ms(10), [&] { way.go(gone); });
      stage.advance(stage.now() + ms(2000));
      CHECK((stage.focused() == &slider) == (!gone && way.returns));
    }
  }
}

TEST_CASE(
    "a back gesture is followed by the topmost that wants it, given up or finished, a plain back stays") {
  Stage stage({.journal = 200});
  Cell<Choice> shows{Choice({"Notes", "Treatment"}, 1)};
  Cell<bool> open{true};
  auto& host = stage.add<PageHost>("host", {0, 0, 360, 720}, {.selected = shows});
  for (const char* id : {"a", "b"}) stage.add<Pad>(id, {0, 0, 360, 720}, {}, {.inside = "host"});
  auto& sheet = stage.add<Sheet>("sheet", {0, 120, 360, 600}, {.open = open, .snap_points = {400}});
  auto& dialog = stage.add<Dialog>("dialog", {30, 200, 300, 300}, {});
  stage.advance(ms(0));
  stage.at(ms(0), [&] { dialog.open(); });
  double now = 1000;
  const auto gesture = [&](bool finishes) {
    CHECK(stage.back_begins(ms(now)));
    for (const double progress : {0.2, 0.5, 0.8}) stage.back_moves(progress, ms(now += 16));
    const auto places = std::tuple{dialog.visual_state().offset.y, sheet.out(), host.way_left()};
    now += 16;
    if (finishes)
      CHECK(stage.back_finished(ms(now)));
    else
      stage.back_cancelled(ms(now));
    CHECK_FALSE(stage.back_finished(ms(now)));  // nobody follows it any more
    stage.advance(ms(now += 3000));
    return places;
  };
  CHECK(std::get<0>(gesture(false)) == Approx(0.8 * 24));  // as far as it goes out
  CHECK(dialog.state() == EnterExit::State::present);
  CHECK(dialog.visual_state().offset.y == 0);
  gesture(true);
  CHECK(dialog.absent());
  CHECK(std::get<1>(gesture(false)) == Approx(80));
  CHECK((sheet.out() == 400 && open.get()));
  gesture(true);
  CHECK((sheet.absent() && !open.get()));
  CHECK(std::get<2>(gesture(false)) == Approx(-0.8));
  CHECK(shows.get().name() == "Treatment");
  gesture(true);
  CHECK(shows.get().name() == "Notes");
  CHECK_FALSE(stage.back_begins(ms(now)));
  CHECK_FALSE(stage.back(ms(now)));
}
