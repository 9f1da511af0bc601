#include "ubbo/parts/pane.hpp"

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// A sheet that rests at 0, 200 and 500 dp.
struct Board {
  explicit Board(PaneSettings settings = {.min = 0, .max = 500, .snap_points = {0, 200, 500}},
                 StageSettings on = {})
      : stage(on) {
    settings.offset = height;
    pane = &stage.add<Pane>("sheet", {0, 0, 360, 720}, settings);
  }
  // Down, a straight way at even speed, and up at once.
  void throw_it(double by, double speed) {
    const double t = to_ms(stage.now());
    const int steps = std::max(2, static_cast<int>(std::fabs(by) / speed * 1e3 / 8));
    stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = {180, 300}});
    for (int i = 1; i <= steps; ++i)
      stage.touch(
          {.time = ms(t + 8.0 * i), .contact = 1, .phase = Phase::move, .at = {180, 300 + by * i / steps}});
    stage.touch({.time = ms(t + 8.0 * steps), .contact = 1, .phase = Phase::up, .at = {180, 300 + by}});
  }
  void settle() { ubbo::test::settle(stage); }

  Cell<double> height{0};
  Stage stage;
  Pane* pane = nullptr;
};

}  // namespace

TEST_CASE("a pane lands where its way and its speed point") {
  struct Case {
    double by, speed, lands;
  };
  // The threshold takes 8 dp; 120 ms of the speed are added.
  for (const Case c : {Case{80, 60, 0},
                       {120, 100, 200},
                       {80, 400, 200},
                       {80, 900, 200},
                       {80, 2500, 500},
                       {340, 300, 500},
                       {-90, 400, 0}}) {
    Board app;
    app.throw_it(c.by, c.speed);
    app.settle();
    CAPTURE(c.by, c.speed);
    CHECK(app.pane->offset() == c.lands);
    CHECK(app.height.get() == c.lands);
  }
  Board unhurried({.min = 0, .max = 500, .snap_points = {0, 200, 500}, .projection_time = ms(0)});
  unhurried.throw_it(80, 2500);
  unhurried.settle();
  CHECK(unhurried.height.get() == 0);
}

TEST_CASE("a pane never leaves its bounds and follows the finger dp for dp") {
  PROPERTY("any throws", [] {
    Board app({.min = *number(-300, 0),
               .max = *number(1, 400),
               .transition = Spring::settling(ms(300), *number(0, 0.6))});
    double finger = 300;
    for (int i = *rc::gen::inRange(1, 4); i > 0; --i) {
      double before = app.pane->offset();
      const double t = to_ms(app.stage.now());
      app.stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = {180, finger}});
      for (int k = 1; k <= 20; ++k) {
        const double step = *number(-40, 40);
        finger += step;
        app.stage.touch({.time = ms(t + 8 * k), .contact = 1, .phase = Phase::move, .at = {180, finger}});
        RC_ASSERT(std::fabs(app.pane->offset() - before) <= std::fabs(step) + 1e-9);
        before = app.pane->offset();
      }
      app.stage.touch({.time = ms(t + 170), .contact = 1, .phase = Phase::up, .at = {180, finger}});
      for (int k = 0; k < 20; ++k) {
        app.stage.advance(ms(t + 170 + 16 * k));
        RC_ASSERT(app.pane->offset() >= app.pane->settings().min &&
                  app.pane->offset() <= app.pane->settings().max);
      }
    }
  });
}

TEST_CASE("the app moves a pane by its cell, and a drag or a cancel respects what it wrote") {
  Board app;
  app.stage.at(ms(0), [&] { app.height.set(500); });
  app.stage.advance(ms(50));
  CHECK(app.pane->offset() > 0);
  CHECK(app.pane->offset() < 500);
  app.settle();
  CHECK(app.pane->offset() == 500);
  const double t = to_ms(app.stage.now());
  app.stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = {180, 600}});
  app.stage.touch({.time = ms(t + 9), .contact = 1, .phase = Phase::move, .at = {180, 400}});
  CHECK(app.pane->offset() == Approx(308));
  app.height.set(200);
  app.stage.advance(ms(t + 10));
  CHECK(app.pane->offset() == Approx(308));  // the finger has it
  app.stage.cancel_contacts();
  app.settle();
  CHECK(app.pane->offset() == 200);
  CHECK(app.height.get() == 200);
}

TEST_CASE("what the app wrote under a mere press counts when the finger is gone, also where it is now") {
  for (const double written : {200.0, 0.0}) {
    Board app;
    app.stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {180, 600}});
    app.stage.at(ms(10), [&] { app.height.set(300); });
    app.stage.at(ms(20), [&] { app.height.set(written); });
    app.stage.advance(ms(900));
    CHECK(app.pane->offset() == 0);
    app.stage.touch({.time = ms(900), .contact = 1, .phase = Phase::up, .at = {180, 600}});
    CHECK(app.pane->settled() == (written == 0));
    app.settle();
    CHECK(app.pane->offset() == written);
    CHECK(app.height.get() == written);
  }
}

TEST_CASE("what lies in a pane moves with it, and takes touches only where it is seen") {
  Cell<double> scrolled{0};
  Cell<int> taps{0};
  Stage stage;
  stage.add<Pane>("list", {0, 100, 360, 300},
                  {.offset = scrolled, .min = -500, .max = 0, .transition = Timed{}});
  auto& hive = stage.add<Pad>("hive", {0, 320, 360, 80}, {.gestures = {.drags = Drags::none}, .taps = taps},
                              {.inside = "list"});
  const auto tap = [&](Point at) {
    const double t = to_ms(stage.now()) + 1000;
    stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = at});
    stage.touch({.time = ms(t + 50), .contact = 1, .phase = Phase::up, .at = at});
    return taps.get();
  };
  CHECK(tap({100, 450}) == 0);  // below the list's window
  scrolled.set(-200);
  stage.advance(stage.now());
  CHECK(hive.box() == Box{0, 220, 360, 80});
  CHECK(tap({100, 450}) == 0);
  CHECK(tap({100, 250}) == 1);
}

TEST_CASE("prediction shows a dragged pane ahead, smoothing late, and neither decides where it lands") {
  double lands[3];
  const StageSettings plain, ahead{.feel = {.prediction = ms(20)}}, smooth{.feel = {.smoothing = ms(16)}};
  int which = 0;
  for (const StageSettings* on : {&plain, &ahead, &smooth}) {
    Board app({.min = 0, .max = 500, .snap_points = {0, 200, 500}}, *on);
    for (int i = 0; i <= 20; ++i)
      app.stage.touch({.time = ms(8 * i),
                       .contact = 1,
                       .phase = i == 0 ? Phase::down : Phase::move,
                       .at = {180, 100.0 + 8 * i}});
    if (on == &plain) CHECK(app.pane->shown() == app.pane->offset());
    if (on == &ahead) CHECK(app.pane->shown() - app.pane->offset() == Approx(20));  // 1000 dp/s for 20 ms
    // Late by dt / (e^(dt/tau) - 1) = 8 / (e^0.5 - 1) = 12.3 ms.
    if (on == &smooth) CHECK(app.pane->offset() == Approx(152 - 12.33).margin(0.1));
    app.stage.touch({.time = ms(168), .contact = 1, .phase = Phase::up, .at = {180, 260}});
    app.settle();
    lands[which++] = app.pane->offset();
  }
  CHECK(lands[0] == lands[1]);
  CHECK(lands[0] == lands[2]);
}

TEST_CASE("bad panes are refused with what they take") {
  Stage stage;
  CHECK_THROWS_WITH(stage.add<Pane>("p", {0, 0, 9, 9}, {.min = 5, .max = 4}),
                    Catch::Contains("max = 4") && Catch::Contains("5 or more"));
  CHECK_THROWS_WITH(stage.add<Pane>("p", {0, 0, 9, 9}, {.max = 4, .snap_points = {0, 9}}),
                    Catch::Contains("snap_points holds 9") && Catch::Contains("0 to 4"));
  CHECK_THROWS_WITH(stage.add<Pad>("p", {0, 0, 9, 9}, {.gestures = {.taps = 0}}),
                    Catch::Contains("taps = 0"));
}

TEST_CASE("what a pane uncovers is named by the side it lies on, in either reading direction") {
  struct Case {
    double offset;
    bool right_to_left;
    const char* name;
  };
  for (const Case& c : {Case{40, false, "leading"},
                        {-40, false, "trailing"},
                        {40, true, "trailing"},
                        {-40, true, "leading"},
                        {0, false, ""}}) {
    Stage stage({.right_to_left = c.right_to_left});
    Cell<double> slid{c.offset};
    const Pane& row = stage.add<Pane>(
        "row", {20, 100, 300, 60},
        {.offset = slid, .min = -90, .max = 90, .axis = Axis::horizontal, .moves = Moves::itself});
    std::string name;
    pieces_of(row, [&](const Piece& piece) {
      if (piece.role != Role::behind) return;
      name = piece.name;
      CHECK(piece.box == (c.offset > 0 ? Box{20, 100, 40, 60} : Box{280, 100, 40, 60}));
      CHECK(piece.on == (name == "leading"));
    });
    CHECK(name == c.name);
  }
}

TEST_CASE("a pad wants the drags it was set to, and no others") {
  Stage stage;
  const auto drag_interest = [&](Drags drags) {
    const Pad& pad = stage.add<Pad>("pad" + std::to_string(static_cast<int>(drags)), {0, 0, 90, 90},
                                    {.gestures = {.drags = drags}});
    const DragInterest found = pad.drag_interest({});
    return std::pair(found.horizontal, found.vertical);
  };
  CHECK(drag_interest(Drags::none) == std::pair(false, false));
  CHECK(drag_interest(Drags::horizontal) == std::pair(true, false));
  CHECK(drag_interest(Drags::vertical) == std::pair(false, true));
  CHECK(drag_interest(Drags::both) == std::pair(true, true));
}

TEST_CASE("what is set at once in the middle of a throw is where it stays") {
  Stage stage;
  Cell<double> offset{0};
  Pane& pane = stage.add<Pane>("pane", {0, 0, 360, 720},
                               {.offset = offset, .min = 0, .max = 600, .snap_points = {0, 600}});
  const auto touch = [&](double t, Phase phase, double y) {
    stage.touch({.time = ms(t), .contact = 1, .phase = phase, .at = {100, y}});
  };
  touch(0, Phase::down, 100);
  for (int i = 1; i <= 20; ++i) touch(8 * i, Phase::move, 100 + 3.0 * i);
  touch(161, Phase::up, 160);
  stage.advance(ms(400));
  REQUIRE(pane.offset() > 60);
  REQUIRE(pane.offset() < 400);
  stage.at(ms(410), [&] { stage.immediately([&] { offset.set(0); }); });
  stage.advance(ms(420));
  CHECK(pane.offset() == 0);
  settle(stage);
  CHECK(pane.offset() == 0);
}

TEST_CASE("a pane has a speed for flicks where one may decide between two places") {
  for (const auto& [places, projects] : {std::pair{0, true}, {1, true}, {2, true}, {2, false}}) {
    Stage stage;
    PaneSettings settings{.min = -300, .snap_points = std::vector<double>{-300, 0}};
    settings.snap_points.resize(static_cast<std::size_t>(places));
    if (!projects) settings.projection_time = Micros{0};
    const Pane& plan = stage.add<Pane>("plan", {0, 0, 360, 720}, settings);
    std::vector<Threshold> found;
    for (const ReadingInfo& reading : plan.kind().readings)
      if (reading.thresholds != nullptr) reading.thresholds(plan, found);
    const auto flicks = std::count_if(found.begin(), found.end(), [&](const Threshold& one) {
      return std::fabs(one.value) == stage.feel().flick_speed;
    });
    CHECK(flicks == (places == 2 && projects ? 2 : 0));
  }
}

TEST_CASE("a rest has a name, and a pane stays with it when it is measured anew") {
  Cell<double> height{0};
  Cell<Choice> stands{Choice({"full", "half", "low"}, 1)};
  Stage stage;
  PaneSettings settings{.snap_point = stands,
                        .min = -400,
                        .moves = Moves::itself,
                        .snap_points = {0, -180, -400},
                        .transition = Timed{Curve{}, ms(100)}};
  auto& pane = stage.add<Pane>("page", {0, 500, 360, 600}, settings);
  stage.advance(ms(0));
  CHECK(pane.offset() == -180);  // there from the first
  stage.at(ms(100), [&] { stands.set(stands.get().with("low")); });
  stage.advance(ms(1000));
  CHECK(pane.offset() == 0);
  for (int i = 0; i <= 10; ++i)
    stage.touch({.time = ms(2000 + 20 * i),
                 .contact = 1,
                 .phase = i == 0 ? Phase::down : Phase::move,
                 .at = {180, 600.0 - 42 * i}});
  CHECK(stands.get().name() == "low");  // a finger has it
  stage.touch({.time = ms(2500), .contact = 1, .phase = Phase::up, .at = {180, 180}});
  CHECK(stands.get().name() == "full");  // told at the lift
  settle(stage);
  CHECK(pane.offset() == -400);
  settings.min = -300;
  settings.snap_points = {-300, -150, 0};
  stage.change_to(pane, AnySettings(settings));
  CHECK(pane.offset() == -300);
  CHECK(stands.get().name() == "full");
  stage.press(Key::tab, ms(4000));
  stage.press(Key::down, ms(4000));
  CHECK(stands.get().name() == "half");
  // On its way too.
  settings.snap_points = {-300, -120, 0};
  stage.change_to(pane, AnySettings(settings));
  settle(stage);
  CHECK(pane.offset() == -120);
  settings.snap_points = {-300, -100, 0};
  stage.change_to(pane, AnySettings(settings));
  CHECK((pane.offset() == -100 && pane.settled()));  // it stood there
  stage.at(ms(90'000), [&] { stands.set(stands.get().with("low")); });
  stage.advance(ms(90'050));
  settings.snap_points = {-300, -100, -20};
  stage.change_to(pane, AnySettings(settings));
  CHECK((pane.offset() < -20 && !pane.settled()));  // it goes there instead
  settle(stage);
  CHECK(pane.offset() == -20);
  settings.snap_points = {-300, 0};
  CHECK_THROWS_WITH(stage.change_to(pane, AnySettings(settings)),
                    Catch::Contains("names 3 places, and snap_points holds 2"));
}
