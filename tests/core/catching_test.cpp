// Who gets the finger, and what becomes of surfaces under way: the findings on hand-over, flicks and bounds.
#include "crowd.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// A list in a sheet, as apps have them.
struct Board {
  explicit Board(StageSettings on = {}, PaneSettings list_settings = {.min = -1000, .max = 0},
                 ContactRules list_stands = {.inside = "sheet"})
      : stage([&] {
          on.journal = 2000;
          return on;
        }()) {
    sheet = &stage.add<Pane>(
        "sheet", {0, 0, 360, 720},
        {.offset = height, .min = 0, .max = 500, .moves = Moves::itself, .snap_points = {0, 250, 500}});
    list_settings.offset = scrolled;
    list = &stage.add<Pane>("list", {0, 0, 360, 720}, list_settings, list_stands);
  }
  void touch(double at_ms, Phase phase, double y, double x = 180) {
    stage.touch({.time = ms(at_ms), .contact = 1, .phase = phase, .at = {x, y}});
  }
  void put(double at_height, double at_scrolled) {
    stage.at(stage.now(), [&] {
      stage.immediately([&] {
        height.set(at_height);
        scrolled.set(at_scrolled);
      });
    });
  }
  [[nodiscard]] bool said(const Answer& answer) const {
    for (const Decision& d : stage.journal().decisions())
      if (d.says(answer)) return true;
    return false;
  }

  Cell<double> height{0}, scrolled{-300};
  Stage stage;
  Pane *sheet = nullptr, *list = nullptr;
};

// A flick by `by` dp in 80 ms, at an even speed.
double flick(Board& app, double at_ms, double from, double by) {
  app.touch(at_ms, Phase::down, from);
  for (int i = 1; i <= 10; ++i) app.touch(at_ms + 8 * i, Phase::move, from + by * i / 10);
  app.touch(at_ms + 80, Phase::up, from + by);
  return at_ms + 80;
}

}  // namespace

TEST_CASE("a surface that is caught stays where it is caught, whatever lies on it") {
  for (const bool with_rows : {false, true}) {
    Board app;
    Cell<int> taps{0};
    if (with_rows)
      app.stage.add<Pad>("row", {0, 0, 360, 2000}, {.gestures = {.drags = Drags::none}, .taps = taps},
                         {.inside = "list"});
    double t = flick(app, 0, 500, -100);
    app.stage.advance(ms(t += 60));
    REQUIRE(app.list->velocity() < -100);
    app.touch(t, Phase::down, 400);
    const double caught = app.list->offset();
    app.touch(t + 60, Phase::up, 400);
    settle(app.stage);
    CHECK(app.list->offset() == caught);
    CHECK(app.scrolled.get() == caught);
    CHECK(taps.get() == 0);  // what stops the list is no tap on a row
    CHECK(app.said(answers::caught_stays));
  }
}

TEST_CASE("a flick never speeds up, and has no jump of speed at the lift or at a bound") {
  PROPERTY("panes with and without snap points", [] {
    Board app(
        {},
        {.min = -1000,
         .max = 0,
         .snap_points = *rc::gen::element(std::vector<double>{}, std::vector<double>{-1000, -600, -300, 0}),
         .transition = *rc::gen::element<Transition>(
             Spring::settling(ms(300), 0), Spring::settling(ms(500), 0.1), Coast::half_life(ms(80))),
         .overscroll_min = *rc::gen::element(Overscroll::How::none, Overscroll::How::damped)});
    const double by = *number(-200, -40);
    const double t = flick(app, 0, 600, by);
    const double let_go = std::fabs(by) / 0.08;
    RC_PRE(app.list->catches());
    double before = std::fabs(app.list->velocity());
    RC_ASSERT(std::fabs(before - let_go) < 0.05 * let_go);
    for (int i = 1; i < 3000 && !app.list->settled(); ++i) {
      app.stage.advance(ms(t + i));
      const double speed = std::fabs(app.list->velocity());
      RC_ASSERT(speed <= let_go * 1.05);
      if (app.list->offset() > -999 && app.list->offset() < -1) before = speed;
    }
  });
}

TEST_CASE("a flick from a hair further than where a spring would not speed up keeps the finger's speed") {
  for (int i = 0; i < 1200; ++i) {
    Board app({}, {.min = -1000,
                   .max = 0,
                   .snap_points = {-1000, -600, -300, 0},
                   .transition = Spring::settling(ms(500), 0.1)});
    const double by = -190.7 - i * 0.00025;  // crosses that distance, 1 µs at a time and less
    flick(app, 0, 600, by);
    CAPTURE(by);
    REQUIRE(app.list->velocity() == Approx(by / 0.08).epsilon(0.001));
  }
}

TEST_CASE("a bound that yields lets a flick past and brings it back, any other stops it there") {
  for (const double by : {150.0, -150.0})
    for (const Overscroll::How how : {Overscroll::How::none, Overscroll::How::damped}) {
      Cell<double> scrolled{by > 0 ? -40.0 : -960.0};
      Stage stage{{.journal = 100}};
      auto& list = stage.add<Pane>(
          "list", {0, 0, 360, 720},
          {.offset = scrolled, .min = -1000, .max = 0, .overscroll_min = how, .overscroll_max = how});
      for (int i = 0; i <= 4; ++i)
        stage.touch({.time = ms(8 * i),
                     .contact = 1,
                     .phase = i == 0 ? Phase::down : Phase::move,
                     .at = {180, 360 + by * i / 20}});
      stage.touch({.time = ms(32), .contact = 1, .phase = Phase::up, .at = {180, 360 + by / 5}});
      double farthest = 0;
      for (int t = 33; t < 3000; ++t) {
        stage.advance(ms(t));
        farthest = std::max(farthest, by > 0 ? list.offset() : -1000 - list.offset());
      }
      CHECK(list.offset() == (by > 0 ? 0 : -1000));
      CHECK((farthest > 1) == (how == Overscroll::How::damped));
      const auto decisions = stage.journal().decisions();
      const auto said = [&](const Answer& answer) {
        return std::find_if(decisions.begin(), decisions.end(),
                            [&](const Decision& d) { return d.says(answer); });
      };
      CHECK((said(answers::bound_yields) != decisions.end()) == (how == Overscroll::How::damped));
      REQUIRE((said(answers::bound_stops) != decisions.end()) == (how == Overscroll::How::none));
      if (how == Overscroll::How::none)
        CHECK(said(answers::bound_stops)->time == said(answers::at_rest)->time);
    }
}

TEST_CASE("a surface that is caught past a bound goes on from where it is, wherever its bounds lie") {
  for (const double middle : {-60.0, 0.0, 60.0})
    for (const Overscroll::How how : {Overscroll::How::linear, Overscroll::How::damped})
      for (const double way : {-1.0, 1.0}) {
        CAPTURE(middle, way);
        Cell<double> offset{middle};
        Stage stage;
        auto& pane = stage.add<Pane>("pane", {0, 0, 360, 720},
                                     {.offset = offset,
                                      .min = middle - 30,
                                      .max = middle + 30,
                                      .overscroll_min = how,
                                      .overscroll_max = how});
        stage.advance(ms(0));
        const auto touch = [&](double at_ms, Phase phase, double by) {
          stage.touch({.time = ms(at_ms), .contact = 1, .phase = phase, .at = {180, 360 + way * by}});
        };
        touch(0, Phase::down, 0);
        for (int i = 1; i <= 10; ++i) touch(8 * i, Phase::move, 15 * i);
        touch(300, Phase::up, 150);
        stage.advance(ms(330));
        const double caught = pane.offset();
        REQUIRE(way * (caught - middle) > 31);
        touch(330, Phase::down, 0);
        touch(340, Phase::move, feels::bare_finger.threshold(Axis::vertical) + 1);
        REQUIRE(pane.dragging());
        CHECK(way * (pane.offset() - caught) == Approx(0.5).margin(0.51));
      }
}

TEST_CASE("a part that is left between its snap points while another has the finger lands when that lifts") {
  for (const double frame : {0.0, 16.0}) {
    Board app({}, {.min = -1000, .max = 0},
              {.inside = "sheet", .yields_to = "sheet", .yield_direction = YieldDirection::up});
    app.put(250, -300);
    const auto go = [&](double at, Phase phase, double y) {
      if (frame > 0) app.stage.advance(ms(at - 1));
      app.touch(at, phase, y);
    };
    go(0, Phase::down, 400);
    for (int i = 1; i <= 6; ++i) go(20 * i, Phase::move, 400 - 10.0 * i);
    for (int i = 1; i <= 4; ++i) go(120 + 20 * i, Phase::move, 340 + 10.0 * i);
    const double between = app.sheet->offset();
    CHECK((between > 150 && between < 249));
    CHECK(app.list->offset() > -300);
    go(900, Phase::up, 380);
    settle(app.stage);
    CHECK(app.sheet->offset() == 250);
    CHECK(app.sheet->settled());
    CHECK(app.height.get() == 250);
  }
}

TEST_CASE("a flick's rest passes on as the finger does") {
  Board app;
  app.put(0, -60);
  const double t = flick(app, 0, 300, 150);  // reaches the list's start at once, and goes on with the sheet
  settle(app.stage);
  CHECK(app.list->offset() == 0);
  CHECK(app.sheet->offset() >= 250);
  Board free;
  free.put(0, -120);
  flick(free, 0, 300, 100);  // the finger leaves before the list is at its start
  REQUIRE(free.list->offset() < -20);
  settle(free.stage);
  CHECK(free.list->offset() == 0);
  CHECK(free.said(answers::bound_passes_on));
  CHECK(free.said(answers::goes_on_with_flick));
  CHECK(free.sheet->offset() == 250);
  (void)t;
}

TEST_CASE("where nobody goes on with the finger the bound yields, by less than the finger went") {
  Cell<double> height{250}, scrolled{0};
  Stage stage;
  stage.add<Pane>("sheet", {0, 0, 360, 720}, {.offset = height, .min = 0, .max = 250});
  auto& list =
      stage.add<Pane>("list", {0, 0, 360, 720},
                      {.offset = scrolled, .min = -900, .max = 0, .overscroll_max = Overscroll::How::damped},
                      {.inside = "sheet"});
  for (int i = 0; i <= 10; ++i) {
    const double before = list.offset();
    stage.touch({.time = ms(16 * i),
                 .contact = 1,
                 .phase = i == 0 ? Phase::down : Phase::move,
                 .at = {180, 300 + 10.0 * i}});
    CHECK((list.offset() > before) == (i > 0));
    CHECK(scrolled.get() == list.offset());
  }
  CHECK(list.offset() < 100 - stage.feel().drag_threshold);
  stage.touch({.time = ms(400), .contact = 1, .phase = Phase::up, .at = {180, 400}});
  settle(stage);
  CHECK(list.offset() == 0);
  CHECK(height.get() == 250);
}

TEST_CASE("standing knows its direction sideways: a drawer first to the left, the row in it to the right") {
  Cell<double> open{100}, slid{-100};
  Stage stage;
  auto& drawer = stage.add<Pane>("drawer", {0, 0, 360, 720},
                                 {.offset = open, .min = 0, .max = 200, .axis = Axis::horizontal});
  auto& row = stage.add<Pane>(
      "row", {0, 0, 360, 100}, {.offset = slid, .min = -200, .max = 0, .axis = Axis::horizontal},
      {.inside = "drawer", .yields_to = "drawer", .yield_direction = YieldDirection::left});
  double x = 180;
  const auto go = [&](double at, double by) {
    for (int i = 1; i <= 10; ++i)
      stage.touch({.time = ms(at + 8 * i), .contact = 1, .phase = Phase::move, .at = {x += by / 10, 50}});
  };
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {x, 50}});
  go(0, -58);
  CHECK(drawer.offset() == Approx(50));
  CHECK(row.offset() == -100);
  go(100, 40);
  CHECK(drawer.offset() == Approx(50));
  CHECK(row.offset() == Approx(-60));
}

TEST_CASE("standing knows its direction: the sheet first upwards, the list first downwards") {
  Board app({}, {.min = -1000, .max = 0},
            {.inside = "sheet", .yields_to = "sheet", .yield_direction = YieldDirection::up});
  app.put(250, -300);
  double y = 600, t = 0;
  app.touch(t, Phase::down, y);
  const auto go = [&](double by) {
    for (int i = 0; i < 20; ++i) app.touch(t += 8, Phase::move, y += by / 20);
  };
  go(-108);  // 8 of threshold: the sheet rises, the list stays
  CHECK(app.sheet->offset() == Approx(150));
  CHECK(app.list->offset() == -300);
  go(-200);  // 150 to the sheet's top, then the list
  CHECK(app.sheet->offset() == 0);
  CHECK(app.list->offset() == Approx(-350));
  go(100);  // back down: the list first
  CHECK(app.sheet->offset() == 0);
  CHECK(app.list->offset() == Approx(-250));
  go(300);
  CHECK(app.list->offset() == Approx(0));
  CHECK(app.sheet->offset() == Approx(50));
  go(-30);
  CHECK(app.sheet->offset() == Approx(20));
  CHECK(app.list->offset() == Approx(0));
}

TEST_CASE("a handle holds its own axis only, and leaves the other to the list around it") {
  Cell<double> value{0.5}, scrolled{0};
  Stage stage;
  auto& list = stage.add<Pane>("list", {0, 0, 360, 720}, {.offset = scrolled, .min = -500, .max = 0});
  auto& slider = stage.add<Slider>("s", {20, 300, 320, 40}, {.value = value}, {.inside = "list"});
  const Point thumb = slider.thumb();
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = thumb});
  CHECK(slider.pressed());
  stage.touch({.time = ms(20), .contact = 1, .phase = Phase::move, .at = thumb - Point{2, 40}});
  CHECK_FALSE(slider.pressed());
  CHECK(list.offset() == Approx(-32));
  CHECK(value.get() == 0.5);
}

TEST_CASE("while it is open who gets the finger, nobody drags, the threshold is that of axis and tool") {
  Cell<double> value{0.5}, scrolled{0};
  Stage stage{{.feel = {.drag_threshold_vertical = 20}, .journal = 100}};
  stage.add<Pane>("list", {0, 0, 360, 720}, {.offset = scrolled, .min = -500, .max = 0});
  auto& slider = stage.add<Slider>("s", {20, 300, 320, 40}, {.value = value}, {.inside = "list"});
  const auto at = [&](double t, Phase phase, Point place) {
    stage.touch({.time = ms(t), .contact = 1, .phase = phase, .at = place});
  };
  at(0, Phase::down, {100, 320});
  at(10, Phase::move, {107, 335});  // 7 of 8 aside, 15 of 20 down: neither
  CHECK_FALSE(slider.dragging());
  CHECK(value.get() == 0.5);
  at(20, Phase::move, {109, 336});  // aside it is
  CHECK(slider.dragging());
  CHECK(stage.journal().decisions().back().facts[0].limit == 8);
}

TEST_CASE("smoothed and predicted places go through a hand-over without a jump") {
  for (const bool predicted : {false, true}) {
    Feel feel;
    (predicted ? feel.prediction : feel.smoothing) = ms(16);
    Board app({.feel = feel});
    app.put(0, -40);
    double y = 300;
    app.touch(0, Phase::down, y);
    double before = app.list->shown() + app.sheet->shown();
    for (int i = 1; i <= 40; ++i) {
      app.touch(8 * i, Phase::move, y += 5);
      const double now = app.list->shown() + app.sheet->shown();
      CAPTURE(predicted, i);
      if (i > 4) CHECK(std::fabs(now - before) < 5.5);  // the finger goes 5
      before = now;
    }
    CHECK(app.sheet->offset() > 50);
    app.touch(330, Phase::up, y);
    CHECK(app.list->shown() == app.list->offset());
    CHECK(app.sheet->shown() == app.sheet->offset());
  }
}

TEST_CASE("two devices with the same contact number are two contacts") {
  std::vector<Gesture> news;
  Stage stage;
  stage.add<Pad>("plan", {0, 0, 360, 720}, {.on_gesture = [&](const Gesture& g) { news.push_back(g); }});
  for (int i = 0; i <= 10; ++i)
    for (const int device : {0, 1})
      stage.touch({.time = ms(8 * i),
                   .contact = 1,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = {device == 0 ? 150.0 - 5 * i : 210.0 + 5 * i, 300.0},
                   .device = device});
  CHECK(news.back().kind == GestureKind::pinch);
  CHECK(news.back().scale > 1.5);
}

TEST_CASE("nesting has no depth at which rivals vanish, and a part at its bound comes to rest where it may") {
  Stage stage{{.journal = 1000}};
  Cell<double> outermost{0};
  stage.add<Pane>("p0", {0, 0, 360, 720},
                  {.offset = outermost, .min = 0, .max = 300, .snap_points = {0, 200}});
  for (int i = 1; i < 40; ++i)
    stage.add<Pane>("p" + std::to_string(i), {0, 0, 360, 720}, {.axis = Axis::horizontal},
                    {.inside = "p" + std::to_string(i - 1)});
  auto& top = stage.add<Pane>("top", {0, 0, 360, 720}, {.min = -50, .max = 0}, {.inside = "p39"});
  for (int i = 0; i <= 50; ++i)
    stage.touch({.time = ms(8 * i),
                 .contact = 1,
                 .phase = i == 0 ? Phase::down : Phase::move,
                 .at = {100, 100.0 + 8 * i}});
  CHECK(outermost.get() ==
        300);  // at its bound, which is no snap point; the finger goes back with what lies in it
  for (int i = 0; i < 3; ++i)
    stage.touch({.time = ms(500 + 8 * i), .contact = 1, .phase = Phase::move, .at = {100, 500.0 - 5 * i}});
  stage.touch({.time = ms(900), .contact = 1, .phase = Phase::up, .at = {100, 490}});
  settle(stage);
  CHECK((outermost.get() == 0 || outermost.get() == 200));
  CHECK(top.offset() <= 0);
}
