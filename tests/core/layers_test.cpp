// Sheets, drawers, dialogs, windows and toasts on one stage.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct LayersApp {
  explicit LayersApp(StageSettings on = {})
      : stage([&] {
          on.journal = 20'000;
          return on;
        }()) {
    auto note = [this](const char* who) {
      return [this, who](EnterExit::State state) {
        log += std::to_string(stage.now().count()) + " " + who + " " + name_of(state) + "\n";
      };
    };
    stage.add<Pad>("page", {0, 0, 360, 720}, {.on_gesture = [this](const Gesture& gesture) {
                     if (gesture.kind == GestureKind::press && gesture.step == GesturePhase::began)
                       log += stage.modal() ? "page under " : "page ";
                   }});
    stage.add<Button>("menu", {300, 20, 48, 48}, {.label = "menu"});
    sheet = &stage.add<Sheet>("sheet", {0, 120, 360, 600},
                              {.snap_point = rest, .snap_points = {200, 500}, .on_state = note("sheet")});
    stage.add<Pane>("notes", {0, 60, 360, 400}, {.min = -300},
                    {.inside = "sheet", .yields_to = "sheet", .yield_direction = YieldDirection::up});
    drawer = &stage.add<Drawer>("drawer", {0, 0, 260, 720}, {.open = drawn, .on_state = note("drawer")});
    for (int i = 0; i < 3; ++i) {
      const std::string id = "dialog" + std::to_string(i);
      dialogs[i] = &stage.add<Dialog>(
          id, {30, 220, 300, 240},
          {.label = id, .open = open[i], .button_closes = true, .on_state = note("dialog")});
      stage.add<Button>(id + "-ok", {20, 180, 120, 44}, {.label = "ok"}, {.inside = id});
    }
    window = &stage.add<Panel>("window", {100, 500, 160, 100}, {.on_state = note("window")});
  }
  [[nodiscard]] std::vector<std::pair<const Part*, bool>> layers() const {
    std::vector<std::pair<const Part*, bool>> all{
        {sheet, sheet->is_open()}, {drawer, drawer->is_open()}, {window, window->is_open()}};
    for (const Dialog* dialog : dialogs) all.emplace_back(dialog, dialog->is_open());
    return all;
  }
  void touch(double at_ms, Phase phase, Point at) {
    stage.touch({.time = ms(at_ms), .contact = 1, .phase = phase, .at = at});
  }
  void swipe(double at_ms, Point from, Point to, double rest_ms = 100) {
    for (int i = 0; i <= 10; ++i)
      touch(at_ms + 8 * i, i == 0 ? Phase::down : Phase::move, from + (to - from) * (i / 10.0));
    touch(at_ms + 80 + rest_ms, Phase::up, to);
  }
  void tap(double at_ms, Point at) {
    touch(at_ms, Phase::down, at);
    touch(at_ms + 40, Phase::up, at);
  }
  void settle() { ubbo::test::settle(stage); }

  Cell<int> rest{0};
  Cell<bool> drawn{false};
  Cell<bool> open[3]{Cell<bool>{false}, Cell<bool>{false}, Cell<bool>{false}};
  std::string log;
  Stage stage;
  Sheet* sheet = nullptr;
  Drawer* drawer = nullptr;
  Dialog* dialogs[3]{};
  Panel* window = nullptr;
};

struct Action {
  double at;
  std::function<void(LayersApp&)> what;
};

std::vector<Action> any_actions() {
  std::vector<Action> actions;
  double now = 10;
  const int rounds = *rc::gen::inRange(1, 14);
  for (int round = 0; round < rounds; ++round) {
    now += *rc::gen::element(0.0, 3.0, 60.0, 150.0, 700.0);
    const int which = *rc::gen::inRange(0, 3);
    switch (*rc::gen::inRange(0, 7)) {
      case 0: {
        const bool on = *rc::gen::arbitrary<bool>();
        actions.push_back(
            {now, [=](LayersApp& app) { app.stage.at(ms(now), [&] { app.open[which].set(on); }); }});
        break;
      }
      case 1: {
        const int to = *rc::gen::inRange(-1, 4);
        actions.push_back({now, [=](LayersApp& app) { app.stage.at(ms(now), [&] { app.rest.set(to); }); }});
        break;
      }
      case 2: {
        const char* call = *rc::gen::element("open", "close", "toggle");
        const char* part = *rc::gen::element("sheet", "drawer", "window", "dialog0", "dialog1");
        actions.push_back(
            {now, [=](LayersApp& app) { app.stage.act(*app.stage.find(part), call, ms(now)); }});
        break;
      }
      case 3: {
        const Key key = *rc::gen::element(Key::back, Key::back, Key::escape, Key::tab, Key::back_tab,
                                          Key::enter, Key::down, Key::up);
        actions.push_back({now, [=](LayersApp& app) { app.stage.press(key, ms(now)); }});
        break;
      }
      default: {
        Point at{*number(0, 360), *number(0, 720)};
        if (*rc::gen::inRange(0, 3) == 0) at.x = 4;  // from the edge
        const Point step{*rc::gen::element(0.0, 0.0, -20.0, 20.0), *rc::gen::element(0.0, 0.0, -20.0, 20.0)};
        const int moves = *rc::gen::inRange(0, 10);
        const auto touch = [&](Phase phase) {
          const Sample sample{.time = ms(now), .contact = 1, .phase = phase, .at = at};
          actions.push_back({now, [=](LayersApp& app) { app.stage.touch(sample); }});
        };
        touch(Phase::down);
        for (int i = 0; i < moves; ++i) {
          now += 8;
          at = at + step;
          touch(Phase::move);
        }
        now += *rc::gen::element(4.0, 30.0, 200.0);
        touch(*rc::gen::weightedElement<Phase>({{8, Phase::up}, {1, Phase::cancel}}));
      }
    }
  }
  return actions;
}

std::string live(LayersApp& app, const std::vector<Action>& actions, double fps) {
  double frame = 0;
  app.stage.advance(ms(0));
  for (const Action& action : actions) {
    for (; fps > 0 && frame < action.at; frame += 1000 / fps) app.stage.advance(ms(frame));
    action.what(app);
    // Whatever has just happened: focus and back belong to what nothing modal covers.
    if (const Part* focus = app.stage.focused()) {
      RC_ASSERT(focus->visible());
      const auto& order = app.stage.parts();
      if (const Part* modal = app.stage.modal())
        RC_ASSERT(std::find(order.begin(), order.end(), focus) >=
                  std::find(order.begin(), order.end(), modal));
    }
  }
  const double end = actions.back().at + 6000;
  for (; fps > 0 && frame < end; frame += 1000 / fps) app.stage.advance(ms(frame));
  app.stage.advance(ms(end));
  std::string outcome = app.log;
  for (const Part* part : app.stage.parts())
    for (const ReadingInfo& reading : part->kind().readings)
      if (const ReadingValue value = reading.now(*part); std::holds_alternative<double>(value))
        outcome += std::to_string(std::get<double>(value)) + " ";
  return outcome;
}

}  // namespace

TEST_CASE(
    "whatever is called, pressed and touched, layers end here or away as last asked, at any frame rate") {
  PROPERTY("any stack of layers", [] {
    const auto actions = any_actions();
    LayersApp app;
    const std::string without = live(app, actions, 0);
    RC_ASSERT(app.stage.settled());
    RC_ASSERT(app.log.find("page under") == std::string::npos);
    for (const auto& [part, open] : app.layers()) {
      RC_ASSERT(part->visible() == open);
      if (!open) RC_ASSERT(part->due() == never);
    }
    RC_ASSERT(app.sheet->snap_point() == app.rest.get());
    RC_ASSERT(app.sheet->state() ==
              (app.rest.get() > 0 ? EnterExit::State::present : EnterExit::State::absent));
    RC_ASSERT(app.drawer->is_open() == app.drawn.get());
    for (int i = 0; i < 3; ++i) {
      RC_ASSERT(app.dialogs[i]->is_open() == app.open[i].get());
      RC_ASSERT(app.dialogs[i]->state() ==
                (app.open[i].get() ? EnterExit::State::present : EnterExit::State::absent));
    }
    for (const double fps : {24.0, 240.0}) {
      LayersApp again;
      RC_ASSERT(live(again, actions, fps) == without);
    }
    // Back closes what is open, topmost first, and never two at once.
    const auto open_count = [&] {
      int count = 0;
      for (const auto& [part, open] : app.layers()) count += static_cast<int>(open && part != app.window);
      return count;
    };
    Micros now = app.stage.now();
    while (const int count = open_count()) {
      const Part* top = app.stage.modal();
      RC_ASSERT(top != nullptr);
      RC_ASSERT(app.stage.back(now += ms(5)));
      RC_ASSERT(open_count() == count - 1);
      RC_ASSERT(!top->modal());
    }
    RC_ASSERT(!app.stage.back(now + ms(5)));
  });
}

TEST_CASE("the same call twice equals one call") {
  PROPERTY("any calls", [] {
    LayersApp once, twice;
    double now = 10;
    const int calls = *rc::gen::inRange(1, 10);
    for (int call = 0; call < calls; ++call) {
      now += *rc::gen::element(0.0, 40.0, 170.0, 900.0);
      const char* what = *rc::gen::element("open", "close");
      const char* part = *rc::gen::element("sheet", "drawer", "window", "dialog0", "dialog1");
      once.stage.act(*once.stage.find(part), what, ms(now));
      twice.stage.act(*twice.stage.find(part), what, ms(now));
      twice.stage.act(*twice.stage.find(part), what, ms(now));
    }
    once.settle();
    twice.settle();
    RC_ASSERT(once.log == twice.log);
  });
}

TEST_CASE("a second finger that comes to nothing takes nothing from the first one on the backdrop") {
  LayersApp app;
  app.open[0].set(true);
  app.settle();
  const double now = to_ms(app.stage.now());
  const auto touches = [&](double after, Phase phase, int contact) {
    touch(app.stage, now + after, phase, {180, 40}, contact);
  };
  touches(10, Phase::down, 1);
  touches(20, Phase::down, 2);
  touches(30, Phase::cancel, 2);
  touches(40, Phase::up, 1);
  CHECK_FALSE(app.open[0].get());
  app.open[0].set(true);
  app.settle();
  CHECK(app.open[0].get());
}

TEST_CASE("ways out: each closes it, and says so, those that are off do not") {
  LayersApp app;
  const auto last = [&](const Question& question) {
    const char* words = "";
    for (const Decision& one : app.stage.journal().decisions())
      if (one.asks(question)) words = one.answer->name;
    return std::string(words);
  };
  app.open[0].set(true);
  app.settle();
  double now = to_ms(app.stage.now());
  app.tap(now += 10, {180, 40});
  CHECK(last(questions::way_out) == "outside.closed-by-backdrop");
  CHECK_FALSE(app.open[0].get());
  app.open[0].set(true);
  app.settle();
  now = to_ms(app.stage.now());
  app.swipe(now += 10, {180, 40}, {180, 140});  // no tap
  CHECK(app.open[0].get());
  app.tap(now += 500, app.dialogs[0]->button()->centre());
  CHECK(last(questions::way_out) == "outside.closed-by-button");
  app.stage.change(*app.dialogs[0], [](DialogSettings& s) { s.backdrop_closes = s.back_closes = false; });
  app.open[0].set(true);
  app.settle();
  now = to_ms(app.stage.now());
  app.tap(now += 10, {180, 40});
  CHECK(last(questions::way_out) == "outside.backdrop-stays");
  app.stage.back(ms(now += 100));
  CHECK(last(questions::way_out) == "outside.back-stays");
  CHECK(app.open[0].get());
  CHECK_THROWS_WITH(app.stage.change(*app.dialogs[0], [](DialogSettings& s) { s.button_closes = false; }),
                    Catch::Contains("no way out"));
  CHECK_THROWS_WITH(app.stage.add<ToastTray>("t", {0, 0, 9, 9}, {.time = ms(0), .swipes = false}),
                    Catch::Contains("never go"));
}

TEST_CASE("a sheet follows the finger from rest to rest, and shares it with the list in it") {
  LayersApp app;
  app.rest.set(1);
  app.settle();
  double now = to_ms(app.stage.now());
  CHECK(app.sheet->box().y == 520);
  CHECK(app.sheet->dim() == Approx(0.4));
  app.swipe(now += 100, {180, 540}, {180, 300});
  app.settle();
  CHECK(app.rest.get() == 2);
  CHECK(app.sheet->out() == 500);
  // Dragged down from its list, which is at its start: the sheet comes down within the same touch.
  now = to_ms(app.stage.now());
  app.swipe(now += 100, {180, 400}, {180, 660});
  app.settle();
  CHECK(app.rest.get() == 1);
  // A flick closes it; a grab on the way stops that where it is caught.
  now = to_ms(app.stage.now());
  app.swipe(now += 100, {180, 530}, {180, 600}, 0);
  app.stage.advance(ms(now + 130));
  CHECK(app.sheet->state() == EnterExit::State::leaving);
  const double caught = app.sheet->out();
  REQUIRE(caught > 0);
  app.touch(now + 130, Phase::down, {180, 715});
  CHECK(app.sheet->out() == Approx(caught));
  CHECK(app.sheet->pressed());
  app.swipe(now + 140, {180, 715}, {180, 500});
  app.settle();
  CHECK(app.rest.get() >= 1);
  // Where a drag does not close it, it yields.
  app.stage.change(*app.sheet, [](SheetSettings& s) { s.drag_closes = false; });
  app.rest.set(1);
  app.settle();
  now = to_ms(app.stage.now());
  app.touch(now, Phase::down, {180, 540});
  for (int i = 1; i <= 10; ++i) app.touch(now + 8 * i, Phase::move, {180, 540.0 + 15 * i});
  CHECK(app.sheet->out() < 200);
  CHECK(app.sheet->out() > 152);
  app.touch(now + 200, Phase::up, {180, 690});
  app.settle();
  CHECK(app.sheet->out() == 200);
  // By its grip alone.
  app.stage.change(*app.sheet, [](SheetSettings& s) { s.grip_only = true; });
  now = to_ms(app.stage.now());
  app.swipe(now += 10, {180, 640}, {180, 400});
  app.settle();
  CHECK(app.rest.get() == 1);
  now = to_ms(app.stage.now());
  app.swipe(now += 10, {180, 530}, {180, 300});
  app.settle();
  CHECK(app.rest.get() == 2);
  // A turn keeps the rest; so does a rest that is measured anew.
  app.stage.set_screen({640, 360}, {}, app.stage.now());
  app.settle();
  CHECK(app.rest.get() == 2);
  app.stage.change(*app.sheet, [](SheetSettings& s) { s.snap_points = {150, 450}; });
  app.settle();
  CHECK(app.sheet->out() == 450);
}

TEST_CASE("an edge swipe draws a drawer in, from the leading side of either reading direction") {
  for (const bool right_to_left : {false, true}) {
    LayersApp app({.right_to_left = right_to_left});
    const auto x = [&](double at) { return right_to_left ? 360 - at : at; };
    if (right_to_left) app.stage.place(*app.drawer, {.y = 0, .w = 260, .h = 720, .right = 0});
    app.stage.advance(ms(0));
    app.swipe(10, {x(100), 300}, {x(300), 300});  // not from the edge
    app.settle();
    CHECK_FALSE(app.drawn.get());
    double now = to_ms(app.stage.now());
    app.swipe(now + 10, {x(4), 300}, {x(220), 300});
    app.settle();
    CHECK(app.drawn.get());
    CHECK(app.drawer->box().x == (right_to_left ? 100 : 0));
    now = to_ms(app.stage.now());
    app.tap(now + 10, {x(4), 300});  // on it, not at the edge
    app.settle();
    CHECK(app.drawn.get());
    now = to_ms(app.stage.now());
    app.swipe(now + 10, {x(200), 300}, {x(40), 300});
    app.settle();
    CHECK_FALSE(app.drawn.get());
  }
}

TEST_CASE("dialogs step back for one another, out of sight behind two, and come forward again") {
  Stage stage;
  std::vector<Dialog*> dialogs;
  for (int i = 0; i < 6; ++i)
    dialogs.push_back(&stage.add<Dialog>("d" + std::to_string(i), {30, 200, 300, 200}, {}));
  auto& in_first = stage.add<Button>("ok", {40, 300, 90, 44}, {}, {.inside = "d0"});
  auto& full = stage.add<Dialog>("full", {0, 0, 360, 720}, {.steps_back_by = 0, .steps_back_to = 1});
  full.open();
  settle(stage);
  for (Dialog* dialog : dialogs) {
    dialog->open();
    double light = 1;  // what all backdrops let through, at any moment of the way
    for (int frame = 0; frame < 60; ++frame) {
      stage.advance(stage.now() + ms(8));
      light = 1;
      for (const Dialog* each : dialogs)
        if (each->in_sight()) light *= 1 - each->dim();
      CHECK(light > (1 - 0.35) * (1 - 0.35) - 1e-9);
    }
  }
  settle(stage);
  CHECK(full.in_sight());
  CHECK(full.opacity() == 1);
  CHECK_FALSE(in_first.in_sight());
  CHECK(in_first.visible());
  for (std::size_t i = 0; i < 6; ++i) {
    const double depth = std::min<double>(2, static_cast<double>(5 - i));
    CHECK(dialogs[i]->in_sight() == (depth < 2));
    CHECK(dialogs[i]->opacity() == (depth < 2 ? 1 : 0));
    CHECK(dialogs[i]->dim() == (depth < 2 ? 0.35 : 0));
    CHECK(dialogs[i]->stepped_back() == depth);
    CHECK(dialogs[i]->visual_state().scale == Approx(1 - 0.06 * depth));
    CHECK(dialogs[i]->box().y == Approx(200 - 14 * depth));
  }
  dialogs[4]->close();
  double seen = 0;
  for (int frame = 0; frame < 40; ++frame) {
    stage.advance(stage.now() + ms(8));
    CHECK(dialogs[3]->in_sight() == (dialogs[3]->opacity() > 0));
    CHECK(dialogs[3]->opacity() >= seen);
    CHECK(dialogs[3]->opacity() - seen < 0.35);  // it comes into sight, and is not just there
    seen = dialogs[3]->opacity();
  }
  settle(stage);
  CHECK(dialogs[5]->stepped_back() == 0);
  CHECK(dialogs[3]->stepped_back() == 1);
  for (std::size_t i = 6; i-- > 1;) dialogs[i]->close();
  settle(stage);
  CHECK(in_first.in_sight());
}

TEST_CASE("what is removed leaves first, and what holds it waits for that") {
  Stage stage;
  auto& page = stage.add<Pane>("page", {0, 0, 360, 720}, {});
  Cell<bool> open{true}, other{true};
  auto& note = stage.add<Panel>("note", {40, 100, 200, 100}, {.open = open, .exit = Timed{Curve{}, ms(300)}},
                                {.inside = "page"});
  stage.add<Button>("ok", {0, 0, 90, 44}, {}, {.inside = "note"});
  stage.add<Panel>("beside", {40, 300, 200, 100}, {.open = other});
  stage.advance(ms(0));
  CHECK(note.state() == EnterExit::State::present);
  stage.remove(page);
  CHECK(stage.parts().size() == 4);
  CHECK_FALSE(open.get());
  open.set(true);  // too late
  stage.advance(ms(299));
  CHECK(stage.parts().size() == 4);
  CHECK(note.state() == EnterExit::State::leaving);
  stage.advance(ms(300));
  CHECK(stage.parts().size() == 1);
  CHECK(other.get());  // what lies elsewhere stays
  CHECK(stage.settled());
}

TEST_CASE("a safe area moves what keeps clear of it, not what lies behind") {
  Stage stage;
  auto& sheet = stage.add<Sheet>("sheet", Placement{.x = 0, .w = Length::of(1), .h = 400, .bottom = 0}, {});
  auto& send =
      stage.add<Button>("send", Placement{.x = 0, .w = 90, .h = 44, .bottom = 0, .in_safe_area = true}, {},
                        {.inside = "sheet"});
  sheet.open();
  settle(stage);
  CHECK(send.box().bottom() == 720);
  stage.set_safe_area({.bottom = 260}, stage.now());
  CHECK(send.box().bottom() == 460);
  CHECK(sheet.box() == Box{0, 320, 360, 400});
}

TEST_CASE("a layer over a dimmed page is refused unless something closes it, whatever its kind") {
  int looked = 0;
  for (const PartKind* kind : shipped_kinds()) {
    std::vector<std::size_t> ways;
    for (std::size_t i = 0; i < kind->settings(); ++i)
      if (std::string_view(kind->setting(i).name).ends_with("_closes")) ways.push_back(i);
    if (find_setting(*kind, "dim") == kind->settings()) continue;
    ++looked;
    INFO(kind->name);
    AnySettings closed = kind->fresh();
    for (const std::size_t way : ways) (void)kind->put(closed, way, SettingValue{0.0});
    CHECK_THAT(kind->fault("it", {0, 0, 90, 90}, closed), Catch::Contains("no way out"));
    for (const std::size_t way : ways) {
      AnySettings one = closed;
      (void)kind->put(one, way, SettingValue{1.0});
      if (kind->setting(way).name != std::string_view("action_closes"))
        CHECK(kind->fault("it", {0, 0, 90, 90}, one).empty());
    }
    AnySettings clear = closed;
    (void)kind->put(clear, find_setting(*kind, "dim"), SettingValue{0.0});
    CHECK(kind->fault("it", {0, 0, 90, 90}, clear).empty() == (kind->name != std::string_view("dialog")));
  }
  CHECK(looked == 3);
}

TEST_CASE("a layer that is open from the first is there, and nothing is said or told of it") {
  for (int which = 0; which < 6; ++which) {
    CAPTURE(which);
    Cell<bool> open{true};
    Cell<int> rest{1};
    int told = 0;
    const auto visit = [&](EnterExit::State) { ++told; };
    Stage stage({.journal = 100});
    if (which >= 3) stage.add<Button>("below", {0, 0, 100, 40}, {.label = "below"});
    if (which % 3 == 0)
      CHECK(stage
                .add<Sheet>("s", {0, 120, 360, 600},
                            {.snap_point = rest, .snap_points = {200}, .on_state = visit})
                .state() == EnterExit::State::present);
    if (which % 3 == 1) stage.add<Drawer>("s", {0, 0, 280, 720}, {.open = open, .on_state = visit});
    if (which % 3 == 2) stage.add<Dialog>("s", {30, 200, 300, 300}, {.open = open, .on_state = visit});
    CHECK(told == 0);
    CHECK(stage.journal().size() == 0);
    CHECK(stage.modal() == stage.find("s"));
    CHECK(stage.parts().back() == stage.find("s"));
    stage.advance(ms(0));
    stage.advance(ms(1000));
    CHECK(told == 0);
    CHECK(stage.back(ms(1000)));
    stage.advance(ms(3000));
    CHECK(stage.find("s")->absent());
    CHECK(told == 2);
    for (const Decision& decision : stage.journal().decisions()) CHECK(decision.time >= ms(0));
  }
}

TEST_CASE("what is added below an open layer lies below it, and takes nothing while that is open") {
  Cell<bool> open{true};
  Stage stage;
  stage.add<Pane>("page", {0, 0, 360, 720}, {.min = -300, .max = 0});
  stage.add<Dialog>("dialog", {30, 200, 300, 300}, {.open = open});
  stage.advance(ms(0));
  int pressed = 0;
  auto& inner =
      stage.add<Button>("inner", {60, 240, 200, 60}, {.on_press = [&] { ++pressed; }}, {.inside = "page"});
  auto& beside = stage.add<Button>("beside", {60, 340, 200, 60}, {.on_press = [&] { ++pressed; }});
  CHECK(stage.parts().back() == stage.find("dialog"));
  for (const Part* part : {static_cast<const Part*>(&inner), static_cast<const Part*>(&beside)}) {
    CHECK_FALSE(stage.focus(part->id()));
    touch(stage, 100, Phase::down, part->box().centre());
    touch(stage, 150, Phase::up, part->box().centre());
  }
  CHECK(pressed == 0);
  // What lies in it lies above it.
  stage.add<Button>("yes", {10, 10, 100, 48}, {.on_press = [&] { ++pressed; }}, {.inside = "dialog"});
  touch(stage, 300, Phase::down, {60, 230});
  touch(stage, 350, Phase::up, {60, 230});
  CHECK(pressed == 1);
}

TEST_CASE("a layer that a tap closes while a call to close waits for the lift tells its cell") {
  Cell<bool> open{false}, asks{false};
  Stage stage;
  auto& sheet = stage.add<Sheet>("sheet", {0, 100, 360, 600}, {.open = open, .snap_points = {300}});
  auto& dialog = stage.add<Dialog>("dialog", {30, 300, 300, 200}, {.open = asks});
  const auto check = [&](auto& layer, Cell<bool>& cell) {
    const double from = to_ms(stage.now()) + 2000;
    stage.at(ms(from), [&] { cell.set(true); });
    touch(stage, from + 2000, Phase::down, {180, 60});
    stage.at(ms(from + 2050), [&] { layer.close(); });
    touch(stage, from + 2100, Phase::up, {180, 60});
    settle(stage);
    CHECK_FALSE(layer.is_open());
    CHECK_FALSE(cell.get());
  };
  check(sheet, open);
  check(dialog, asks);
}

TEST_CASE("what is removed takes nothing on its way out: what lies below it does") {
  Stage stage;
  int pressed = 0;
  stage.add<Button>("below", {40, 100, 200, 100}, {.on_press = [&] { ++pressed; }});
  auto& note = stage.add<Panel>("note", {40, 100, 200, 100}, {.exit = Timed{Curve{}, ms(300)}});
  stage.add<Button>("ok", {20, 20, 90, 44}, {}, {.inside = "note"});
  note.open();
  settle(stage);
  const double from = to_ms(stage.now());
  stage.remove(note);
  touch(stage, from + 100, Phase::down, {80, 140});
  touch(stage, from + 140, Phase::up, {80, 140});
  CHECK(pressed == 1);
  CHECK(stage.parts().size() == 3);
}

TEST_CASE("a dialog that opens again is in front at once, with less motion it steps back at once") {
  Stage stage;
  auto& first = stage.add<Dialog>("first", {30, 200, 300, 200}, {});
  auto& second = stage.add<Dialog>("second", {30, 200, 300, 200}, {});
  const auto after = [&](Dialog& dialog, bool opens) {
    stage.at(stage.now() + ms(10), [&] { opens ? dialog.open() : dialog.close(); });
    stage.advance(stage.now() + ms(10));
  };
  for (Dialog* dialog : {&first, &second}) {
    after(*dialog, true);
    settle(stage);
  }
  CHECK(first.stepped_back() == 1);
  for (Dialog* dialog : {&first, &second}) {
    after(*dialog, false);
    settle(stage);
  }
  after(first, true);
  CHECK(first.stepped_back() == 0);
  settle(stage);
  stage.set_reduced_motion(Reduced::still);
  after(second, true);
  CHECK(first.stepped_back() == 1);
}
