// A stage that changes while it runs, in callbacks and under a finger.
#include "crowd.hpp"
#include "ubbo/testing/allocations.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

void down(Stage& stage, double at_ms, Point at, int contact = 1) {
  stage.touch({.time = ms(at_ms), .contact = contact, .phase = Phase::down, .at = at});
}

}  // namespace

TEST_CASE("each change under a finger ends with a cancel, and nothing is left behind") {
  struct Case {
    const char* name;
    void (*change)(Stage&, Slider&);
    bool stays;
  };
  for (const Case& c : {Case{"remove", [](Stage&s, Slider&p) { s.remove(p); }, false},
                        {"hide", [](Stage&s, Slider&p) { s.hide(p); }, true},
                        {"disable", [](Stage&s, Slider&p) { s.disable(p); }, true},
                        {"place",
                         [](Stage&s, Slider&p) {
                           s.place(p, {0, 0, 200, 40});
                         },
                         true},
                        {"turn",
                         [](Stage&s, Slider&) {
                           s.set_screen({720, 360}, {}, ms(20));
                         },
                         true},
                        {"mirror", [](Stage&s, Slider&) { s.set_right_to_left(true, ms(20)); }, true}}) {
    HoneySlider app;
    CAPTURE(c.name);
    const Handle handle = app.stage.handle(*app.slider);
    app.touch(0, Phase::down, {154.8, 224});
    app.touch(10, Phase::move, {220, 224});
    REQUIRE(app.slider->dragging());
    c.change(app.stage, *app.slider);
    CHECK(app.says(answers::goes_back));
    CHECK((app.stage.get(handle) != nullptr) == c.stays);
    CHECK((app.stage.find("frames") != nullptr) == c.stays);
    if (c.stays) CHECK_FALSE(app.slider->pressed());
    app.touch(30, Phase::move, {250, 224});
    app.touch(40, Phase::up, {250, 224});
    app.settle();
    CHECK(app.stage.settled());
    CHECK(app.frames.get() == 4);
  }
}

TEST_CASE("what is hidden or disabled, or lies in what is, takes nothing and has no focus") {
  Cell<double> a{0}, b{0};
  Stage stage{{.journal = 100}};
  auto& list = stage.add<Pane>("list", {0, 0, 360, 720}, {.min = -500, .max = 0});
  auto& inner = stage.add<Slider>("inner", {0, 0, 360, 40}, {.value = a}, {.inside = "list"});
  auto& behind = stage.add<Slider>("behind", {0, 100, 360, 40}, {.value = b});
  CHECK(stage.focus("inner"));
  stage.disable(inner);
  CHECK(stage.focused() == nullptr);
  CHECK_FALSE(stage.focus("inner"));
  CHECK(inner.accessible().disabled);
  down(stage, 0, {100, 20});
  CHECK_FALSE(inner.pressed());
  CHECK(list.pressed());  // the list around it still scrolls from there
  stage.cancel_contacts();
  stage.hide(list);
  down(stage, 10, {100, 20});
  CHECK_FALSE(list.pressed());
  CHECK_FALSE(inner.visible());
  CHECK(stage.press(Key::tab, ms(20)));
  CHECK(stage.focused() == &behind);
  stage.show(list);
  stage.enable(inner);
  down(stage, 30, {100, 20}, 2);
  CHECK(inner.pressed());
}

TEST_CASE("boxes in dp, as shares and by edges are laid out again when the screen turns") {
  Stage stage{{.safe = {.top = 30}}};
  Cell<double> value{0};
  auto& sheet = stage.add<Pane>("sheet", {.x = 0, .y = Length::of(0.5), .right = 0, .bottom = 0}, {});
  auto& close = stage.add<Pad>("close", {.y = 8, .w = 40, .h = 40, .right = 12}, {}, {.inside = "sheet"});
  auto& bar = stage.add<Pad>("bar", {.x = 0, .y = 0, .w = Length::of(1), .h = 44, .in_safe_area = true}, {});
  auto& slider =
      stage.add<Slider>("s", {.x = 20, .y = 100, .h = 40, .right = Length{20, 0.25}}, {.value = value});
  CHECK(sheet.box() == Box{0, 360, 360, 360});
  CHECK(close.box() == Box{308, 368, 40, 40});
  CHECK(bar.box() == Box{0, 30, 360, 44});
  CHECK(slider.box() == Box{20, 100, 230, 40});
  std::vector<Box> told;
  sheet.on_layout([&](const Box& box) { told.push_back(box); });
  stage.set_screen({720, 360}, {.left = 30}, ms(10));
  CHECK(sheet.box() == Box{0, 180, 720, 180});
  CHECK(close.box() == Box{668, 188, 40, 40});
  CHECK(bar.box() == Box{30, 0, 690, 44});
  CHECK(slider.place_of(1).x == Approx(20 + 500 - 14));
  CHECK(told == std::vector<Box>{{0, 180, 720, 180}});
  stage.place(sheet, {0, 0, 360, 100});
  CHECK(close.box().y == 8);
}

TEST_CASE("settings change with the checks of adding, and the part goes where it now may be") {
  HoneySlider app({.step = 1});
  CHECK_THROWS_WITH(app.stage.change(*app.slider, [](auto& s) { s.to = -1; }),
                    Catch::Contains("more than from"));
  CHECK(app.slider->settings().to == 10);
  app.stage.change(*app.slider, [](auto& s) { s.to = 3; });
  app.settle();
  CHECK(app.slider->position() == 3);
  CHECK(app.frames.get() == 3);
  Cell<double> other{1};
  app.stage.change(*app.slider, [&](auto& s) { s.value = other; });
  app.settle();
  CHECK(app.slider->position() == 1);
  app.frames.set(2);
  app.settle();
  CHECK(app.slider->position() == 1);  // it no longer listens to that one
}

TEST_CASE("order, handles and back") {
  Stage stage{{.journal = 100}};
  auto& low = stage.add<Lamp>("low", {0, 0, 100, 100}, {.wants_back = true});
  auto& high = stage.add<Lamp>("high", {0, 0, 100, 100}, {.wants_back = true});
  stage.add<Pad>("on-low", {0, 0, 10, 10}, {}, {.inside = "low"});
  const auto order = [&] {
    std::string ids;
    for (const Part* part : stage.parts()) ids += part->id() + " ";
    return ids;
  };
  const auto who = [&] {
    CHECK(stage.back(ms(1)));
    return std::string(stage.journal().decisions().back().part);
  };
  CHECK(who() == "high");
  stage.raise(low);
  CHECK(order() == "high low on-low ");
  CHECK(who() == "low");
  stage.lower(low);
  CHECK(order() == "low on-low high ");
  const Handle handle = stage.handle(high);
  stage.remove(high);
  CHECK(stage.get(handle) == nullptr);
  auto& next = stage.add<Lamp>("high", {0, 0, 100, 100}, {});
  CHECK(stage.get(handle) == nullptr);  // the newcomer in its place is another
  CHECK(stage.get(stage.handle(next)) == &next);
  stage.remove(low);
  CHECK(stage.find("on-low") == nullptr);
  CHECK(stage.parts().size() == 1);
}

TEST_CASE("a part that changes its place in the order under a finger is let go") {
  for (const bool up : {true, false}) {
    Cell<double> frames{4};
    Stage stage;
    auto& slider = stage.add<Slider>("frames", {40, 200, 280, 48}, {.value = frames, .to = 10, .step = 1});
    stage.touch({.time = ms(10), .contact = 1, .phase = Phase::down, .at = slider.thumb()});
    stage.touch({.time = ms(30), .contact = 1, .phase = Phase::move, .at = slider.thumb() + Point{60, 0}});
    CHECK(frames.get() > 4);
    up ? stage.raise(slider) : stage.lower(slider);
    CHECK_FALSE(slider.pressed());
    settle(stage);
    CHECK(frames.get() == 4);
  }
}

TEST_CASE("a handle that was never given, or is of no part any more, leads to none") {
  Stage stage;
  CHECK(stage.get({}) == nullptr);
  for (std::size_t slot = 0; slot < 4; ++slot) CHECK(stage.get({slot, 0}) == nullptr);
  stage.add<Pad>("pad", {0, 0, 90, 90}, {});
  for (std::size_t slot = 1; slot < 4; ++slot) CHECK(stage.get({slot, 0}) == nullptr);
}

TEST_CASE("numbers at the very end of their range are taken, those just past it are not") {
  Timeline timeline;
  Stage stage;
  auto& pad = stage.add<Pad>("pad", {0, 0, 90, 90}, {});
  for (const double sign : {1.0, -1.0}) {
    CHECK_NOTHROW(timeline.set_speed(sign * 1000, ms(0)));
    CHECK_THROWS_WITH(timeline.set_speed(sign * 1000.001, ms(0)), Catch::Contains("-1000 to 1000"));
    CHECK_NOTHROW(stage.place(pad, {.x = Length::of(sign * 10), .y = 0, .w = 5, .h = 5}));
    CHECK_THROWS(stage.place(pad, {.x = Length::of(sign * 10.001), .y = 0, .w = 5, .h = 5}));
  }
}

TEST_CASE("the cell of a pane or a slider is told what its setting says, and nothing else") {
  const auto told = [](Stage& stage, Cell<double>& cell, Point from, Point by) {
    std::vector<double> values;
    const Watch watch = cell.watch([&](double value) { values.push_back(value); });
    for (int i = 0; i <= 5; ++i)
      stage.touch({.time = ms(16 * i),
                   .contact = 1,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = from + by * (i / 5.0)});
    const std::size_t dragged = values.size();
    stage.touch({.time = ms(400), .contact = 1, .phase = Phase::up, .at = from + by});
    const std::size_t lifted = values.size();
    for (int t = 401; t < 1500; t += 8) stage.advance(ms(t));
    CHECK(cell.get() == 100);
    return std::array{dragged, lifted - dragged, values.size() - lifted};
  };
  for (const Says says : {Says::place, Says::rest}) {
    Cell<double> offset{0};
    Stage stage;
    stage.add<Pane>("pane", {0, 0, 360, 360},
                    {.offset = offset, .says = says, .min = 0, .max = 200, .snap_points = {0, 100, 200}});
    const auto [dragged, lifted, later] = told(stage, offset, {180, 100}, {0, 80});
    CHECK((dragged > 0) == (says == Says::place));
    CHECK((lifted == 1) == (says == Says::rest));
    CHECK((later > 0) == (says == Says::place));
  }
  for (const UpdateWhen update_when : {UpdateWhen::dragging, UpdateWhen::at_rest}) {
    Cell<double> value{0};
    Stage stage;
    stage.add<Slider>("slider", {0, 0, 228, 40},
                      {.value = value, .to = 200, .step = 100, .update_when = update_when, .thumb = 28});
    const auto [dragged, lifted, later] = told(stage, value, {14, 20}, {80, 0});
    CHECK(dragged == (update_when == UpdateWhen::dragging ? 1 : 0));
    CHECK(lifted == 0);
    CHECK(later == (update_when == UpdateWhen::dragging ? 0 : 1));
  }
}

TEST_CASE("a pinch alone moves what a pad shows, about the pad's middle") {
  Stage stage;
  auto& pad = stage.add<Pad>("plan", {0, 0, 360, 360}, {});
  CHECK(pad.place_of({50, 0}) == Point{230, 180});
  for (int i = 0; i <= 20; ++i)
    for (const int contact : {1, 2})
      stage.touch({.time = ms(16 * i),
                   .contact = contact,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = {180 + (contact == 1 ? -1 : 1) * (40.0 + 3 * i), 180}});
  CHECK(length(pad.place_of({0, 0}) - Point{180, 180}) < 4);
  CHECK(pad.place_of({50, 0}).x > 260);
  CHECK(pad.place_of({50, 0}).y == Approx(180));
}

TEST_CASE(
    "arrow keys scroll along a pane's axis, content against the key, a pane that moves itself with it") {
  for (const Axis axis : {Axis::horizontal, Axis::vertical})
    for (const Moves moves : {Moves::content, Moves::itself}) {
      Cell<double> offset{-300};
      Stage stage;
      auto& pane = stage.add<Pane>("pane", {0, 0, 300, 300},
                                   {.offset = offset, .min = -900, .max = 900, .axis = axis, .moves = moves});
      stage.focus("pane");
      const bool upright = axis == Axis::vertical;
      for (const auto& [key, sign] :
           {std::pair{Key::up, -1}, {Key::down, 1}, {Key::left, -1}, {Key::right, 1}}) {
        const bool along_it = upright == (key == Key::up || key == Key::down);
        const double before = pane.target();
        CHECK(stage.press(key, stage.now()) == along_it);
        const double way = moves == Moves::content ? -sign : sign;
        CHECK((pane.target() - before) * way == Approx(along_it ? 48 : 0));
      }
      stage.change(pane, [](PaneSettings& settings) { settings.snap_points = {-900, -300, 0, 900}; });
      const Key on = upright ? Key::down : Key::right;
      for (const Key key : {on, on, upright ? Key::up : Key::left}) {
        const double before = pane.target();
        stage.press(key, stage.now());
        const double target = pane.target();
        CHECK((target > before) == ((key == on) == (moves == Moves::itself)));
        CHECK((target == -900 || target == -300 || target == 0 || target == 900));
      }
    }
}

TEST_CASE("assistive technology: actions, and keys that activate") {
  HoneySlider app({.step = 1});
  CHECK(OfferedActions(*app.slider).size() == 2);
  CHECK(app.stage.act(*app.slider, "increase", ms(0)));
  app.settle();
  CHECK(app.frames.get() == 5);
  CHECK_FALSE(app.stage.act(*app.slider, "explode", ms(0)));
  Cell<int> taps{0};
  Stage stage;
  stage.add<Pad>("name", {0, 0, 99, 99}, {.taps = taps});
  stage.focus("name");
  CHECK(stage.press(Key::space, ms(0)));
  CHECK(taps.get() == 1);
}

TEST_CASE("10,000 parts: found at once, no allocation in a frame or a touch") {
  Stage stage;
  std::vector<std::unique_ptr<Cell<double>>> cells;
  for (int i = 0; i < 1000; ++i) {
    cells.push_back(std::make_unique<Cell<double>>(0));
    stage.add<Slider>("s" + std::to_string(i), {0, 0.5 * i, 300, 40}, {.value = *cells.back()});
  }
  CHECK(stage.find("s777")->id() == "s777");
  stage.advance(ms(0));
  const std::size_t before = allocations();
  for (auto& cell : cells) cell->set(0.7);
  for (int i = 0; i < 40; ++i) stage.advance(ms(16 * i));
  for (int i = 0; i < 40; ++i)
    stage.touch({.time = ms(700 + 8 * i),
                 .contact = 1,
                 .phase = i == 0 ? Phase::down : Phase::move,
                 .at = {100.0 + i, 300}});
  CHECK(allocations() == before);
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
