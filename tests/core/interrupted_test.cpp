// Calls, writes, other settings and other measures while something moves or is dragged.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a call or write to what moves by a spring goes on from its place with its velocity") {
  const auto held = [](Stage& stage, const auto& value, const std::function<void()>& ask) {
    stage.advance(ms(80));
    const auto [place, speed] = value();
    REQUIRE(std::fabs(speed) > 1);
    ask();
    const auto [after, speed_after] = value();
    CHECK(after == Approx(place).margin(1e-9));
    CHECK(speed_after == Approx(speed).margin(1e-9));
    settle(stage);
  };
  const auto of = [](const auto& part) {
    return [&part] { return std::pair{part.offset(), part.velocity()}; };
  };
  {
    Stage stage;
    auto& sheet = stage.add<Sheet>("s", {0, 120, 360, 600}, {.snap_points = {200, 400}});
    stage.at(ms(0), [&] { sheet.go_to(2); });
    held(stage, of(sheet), [&] { sheet.close(); });
    CHECK(sheet.absent());
  }
  {
    Stage stage;
    Cell<bool> open{false};
    auto& drawer = stage.add<Drawer>("d", {0, 0, 280, 720}, {.open = open});
    stage.at(ms(0), [&] { drawer.open(); });
    held(stage, of(drawer), [&] { stage.at(stage.now(), [&] { open.set(false); }); });
  }
  {
    Stage stage;
    auto& list = stage.add<List>("l", {0, 0, 360, 400}, {.count = 100});
    stage.at(ms(0), [&] { list.scroll_to(40); });
    held(stage, of(list), [&] { list.scroll_to(3); });
    CHECK(list.first() == 3);
  }
  {
    Stage stage;
    auto& row = stage.add<SwipeRow>("r", {0, 0, 360, 60}, {.leading = 100});
    stage.at(ms(0), [&] { row.open(0); });
    const auto value = [&] {
      // By the formula of its own motion, a microsecond on.
      return std::pair{row.offset().x, (row.offset().x > 0 ? 1 : 0) * 2.0};
    };
    held(stage, value, [&] { row.reset(); });
  }
  {
    Stage stage;
    Cell<Choice> shows{Choice({"Notes", "Treatment", "Harvest"})};
    auto& host = stage.add<PageHost>("h", {0, 0, 360, 720}, {.selected = shows});
    for (const char* id : {"a", "b", "c"}) stage.add<Pad>(id, {0, 0, 360, 720}, {}, {.inside = "h"});
    stage.at(ms(0), [&] { host.go_to(2); });
    held(stage, of(host), [&] { host.go_back(); });
    CHECK(host.selected() == 0);
  }
}

TEST_CASE(
    "other settings leave the finger what it has: a slider with its value in its label can be dragged") {
  HoneySlider app({.step = 1});
  const Watch says = app.frames.watch([&](double value) {
    app.stage.change(*app.slider, [&](SliderSettings& s) { s.label = "frames: " + std::to_string(value); });
  });
  app.swipe(0, {154, 224}, {154 + 8 + 3 * HoneySlider::dp_per_frame, 224});
  app.settle();
  CHECK(app.frames.get() == 7);
  CHECK(app.slider->settings().label.starts_with("frames: 7"));
}

TEST_CASE("tabs whose titles are measured anew, and a sheet whose content is, go there by motion") {
  Stage stage;
  Cell<Choice> chosen{Choice({"Brood", "Stores", "Pests"})};
  auto& tabs = stage.add<Tabs>("t", {0, 0, 360, 48}, {.selected = chosen, .widths = {80, 80, 80}});
  auto& sheet = stage.add<Sheet>("s", {0, 120, 360, 600}, {.content = 168});
  stage.at(ms(0), [&] {
    sheet.open();
    chosen.set(chosen.get().with(2));
  });
  stage.advance(ms(50));
  const double begins = tabs.underline().x;
  stage.change(tabs, [](TabsSettings& s) { s.widths = {90, 120, 100}; });
  CHECK(tabs.underline().x == Approx(begins));
  stage.advance(ms(3000));
  CHECK(tabs.underline().x == Approx(210).margin(20));
  CHECK(sheet.out() == 168);
  stage.change(sheet, [](SheetSettings& s) { s.content = 488; });
  stage.advance(ms(3016));
  CHECK((sheet.out() > 168 && sheet.out() < 300));
  stage.advance(ms(6000));
  CHECK(sheet.out() == 488);
}

TEST_CASE("while a finger drags, the velocity that is read is the finger's, in the part's own direction") {
  Stage stage({.journal = 100});
  auto& sheet = stage.add<Sheet>("s", {0, 120, 360, 600}, {.snap_points = {200, 560}});
  stage.at(ms(0), [&] { sheet.open(); });
  stage.advance(ms(2000));
  touch(stage, 2000, Phase::down, {180, 540});
  for (int i = 1; i <= 10; ++i) touch(stage, 2000 + 10 * i, Phase::move, {180, 540.0 - 5 * i});
  CHECK(sheet.velocity() == Approx(500).epsilon(0.01));  // upwards it is drawn out
  stage.advance(ms(2400));
  CHECK(sheet.velocity() == 0);  // the finger rests
  touch(stage, 2410, Phase::up, {180, 490});
}
