// What was once found stuck, lost or out of order, each in its own words.
#include <stdexcept>

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

void touch(Stage& stage, double at_ms, Phase phase, Point at, int contact = 1) {
  stage.touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = at});
}

}  // namespace

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

TEST_CASE("reset, remove and back take a row from a finger; another row waits for the lift") {
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

TEST_CASE("a toast under a finger goes in the end, whatever happens to it meanwhile") {
  for (const WhenBusy another : {WhenBusy::queue, WhenBusy::replace, WhenBusy::restart})
    for (const char* what : {"show", "dismiss", "keyboard", "settings"}) {
      CAPTURE(static_cast<int>(another), what);
      Stage stage({.journal = 500});
      std::vector<std::string> ended;
      auto& tray = stage.add<ToastTray>(
          "t", {20, 620, 320, 60},
          {.time = ms(1000), .when_busy = another, .on_end = [&](const std::string& said, ToastEnd) {
             ended.push_back(said);
           }});
      stage.advance(ms(0));
      stage.at(ms(0), [&] { tray.show("one"); });
      stage.advance(ms(800));
      touch(stage, 900, Phase::down, {100, 650});
      if (what == std::string_view("show")) stage.at(ms(1000), [&] { tray.show("two"); });
      if (what == std::string_view("dismiss")) stage.at(ms(1000), [&] { tray.dismiss(); });
      if (what == std::string_view("keyboard")) stage.set_safe_area({.bottom = 200}, ms(1000));
      if (what == std::string_view("settings"))
        stage.change(tray, [](ToastTraySettings& s) { s.button = "Undo"; });
      stage.advance(ms(4000));
      touch(stage, 4000, Phase::up, {100, 650});
      settle(stage);
      CHECK(tray.absent());
      CHECK(ended.size() == (what == std::string_view("show") ? 2U : 1U));
      CHECK(ended.front() == "one");
      CHECK(stage.settled());
    }
}

TEST_CASE("an empty list that asks for parts is never due, and freezes nobody") {
  Stage stage;
  stage.add<List>("rows", {0, 0, 360, 400},
                  {.count = 0, .on_near = [&](std::size_t, Part*) -> Part& { return *stage.find("rows"); }});
  Cell<bool> open{false};
  auto& window = stage.add<Panel>("w", {0, 500, 360, 200}, {.open = open});
  stage.advance(ms(0));
  CHECK(stage.due() == never);
  open.set(true);
  stage.advance(ms(10));
  stage.advance(ms(2000));
  CHECK(window.state() == EnterExit::State::present);
  CHECK(stage.settled());
}

TEST_CASE("a list goes to the item that was asked for, whatever items measure and whatever the frames are") {
  for (const double fps : {0.0, 24.0, 60.0, 240.0, 999.0}) {
    Stage stage;
    int made = 0;
    auto& list = stage.add<List>(
        "rows", {0, 0, 360, 400},
        {.count = 400, .item_size = 40, .ahead = 60, .on_near = [&](std::size_t item, Part* spare) -> Part& {
           const Placement size = Placement::of({0, 0, 360, 30.0 + static_cast<double>(item % 7) * 9});
           if (spare == nullptr)
             return stage.add<Pad>("row" + std::to_string(made++), size, {}, {.inside = "rows"});
           stage.place(*spare, size);
           return *spare;
         }});
    stage.advance(ms(0));
    stage.at(ms(10), [&] { list.scroll_to(200); });
    for (double frame = 1; fps > 0 && frame * 1000 / fps < 3000; ++frame)
      stage.advance(ms(frame * 1000 / fps));
    stage.advance(ms(3000));
    CAPTURE(fps);
    CHECK(list.first() == 200);
    CHECK(list.box_of(200).y == Approx(0).margin(1e-6));
  }
}

TEST_CASE(
    "what follows a place that moves is where that is, at any frame rate; and cells keep the last of it") {
  std::vector<std::string> outcomes;
  for (const double fps : {0.0, 24.0, 240.0}) {
    Stage stage({.journal = 1000});
    Cell<double> position{0}, fraction{0}, x{0}, y{0};
    Cell<int> index{0};
    Cell<bool> open{true};
    stage.add<Carousel>("photos", {0, 0, 360, 200}, {.selected = index, .position = position, .count = 9});
    stage.add<Slider>("follows", {40, 220, 280, 40}, {.value = position, .to = 8});
    auto& window = stage.add<Panel>("w", {0, 300, 360, 300}, {.open = open});
    stage.add<Draggable>("marker", {40, 100, 44, 44}, {.offset_x = x, .offset_y = y}, {.inside = "w"});
    stage.add<Slider>("across", {40, 640, 280, 40}, {.value = x, .to = 200});
    stage.advance(ms(0));
    const auto frames_to = [&](double until) {
      for (double t = to_ms(stage.now()) + 1000 / fps; fps > 0 && t < until; t += 1000 / fps)
        stage.advance(ms(t));
    };
    stage.at(ms(0), [&] { index.set(6); });
    frames_to(100);
    stage.at(ms(100), [&] {
      x.set(150);
      y.set(120);
    });
    frames_to(160);
    stage.at(ms(160), [&] { x.set(150); });  // again, while it moves there
    frames_to(170);
    stage.press(Key::tab, ms(170));
    stage.remove(window);
    frames_to(2000);
    stage.advance(ms(2000));
    std::string outcome;
    for (const Cell<double>* cell : {&position, &x, &y}) outcome += std::to_string(cell->get()) + " ";
    for (const Decision& decision : stage.journal().decisions()) {
      outcome +=
          std::string(decision.part.view()) + decision.answer->name + std::to_string(decision.time.count());
      for (const Fact& fact : decision.all_facts()) outcome += " " + std::to_string(fact.value);
    }
    outcomes.push_back(outcome);
  }
  CHECK(outcomes[1] == outcomes[0]);
  CHECK(outcomes[2] == outcomes[0]);
}

TEST_CASE("a callback that throws keeps nobody from being told, and passes out of the call in the end") {
  Stage stage;
  Cell<double> value{0};
  int rests = 0, shown = 0;
  auto& tray =
      stage.add<ToastTray>("t", {20, 620, 320, 60}, {.time = ms(500), .on_show = [&](const std::string&) {
                                                       ++shown;
                                                       throw std::runtime_error("shown");
                                                     }});
  stage.add<Slider>("s", {40, 100, 280, 40}, {.value = value, .on_rest = [&](double) { ++rests; }});
  stage.advance(ms(0));
  CHECK_THROWS_WITH(tray.show("one"), "shown");
  for (const char* words : {"two", "three"}) CHECK_NOTHROW(tray.show(words));
  stage.at(ms(100), [&] { value.set(1); });
  for (int i = 0; i < 8; ++i) {
    try {
      stage.advance(ms(20'000));
    } catch (const std::runtime_error&) {
    }
  }
  CHECK(shown == 3);
  CHECK(rests == 1);
  CHECK(tray.absent());
  CHECK(stage.settled());
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

TEST_CASE("pieces come as they are drawn: faded, scaled and clipped with what they lie in") {
  Stage stage;
  Cell<bool> open{false};
  auto& list = stage.add<List>("rows", {20, 100, 300, 200}, {});
  for (int i = 0; i < 8; ++i)
    stage.add<Button>("row" + std::to_string(i), {0, 0, 300, 60}, {.label = "row"}, {.inside = "rows"});
  stage.add<Dialog>(
      "dialog", {30, 300, 300, 300},
      {.open = open, .travel = {.from_scale = 0.5, .from_opacity = 0.0}, .enter = Timed{Curve{}, ms(100)}});
  stage.add<Button>("yes", {10, 10, 100, 48}, {.label = "yes"}, {.inside = "dialog"});
  stage.at(ms(0), [&] { open.set(true); });
  stage.advance(ms(20));
  const auto seen = [&](std::string_view id, Role role) {
    std::optional<Piece> found;
    stage.draw([&](const Part& part, const Piece& piece) {
      if (part.id() == id && piece.role == role && !found) found = piece;
    });
    return found;
  };
  // A fifth of its way it has a fifth of its opacity and six tenths of its size, with all that lies in it.
  for (const char* id : {"dialog", "yes"})
    CHECK(seen(id, id == std::string_view("yes") ? Role::button : Role::surface)->opacity == Approx(0.2));
  CHECK(seen("dialog", Role::surface)->box.w == Approx(180));
  CHECK(seen("yes", Role::button)->box.w == Approx(60));
  CHECK(seen("yes", Role::button)->box.x == Approx(180 + (40 - 180) * 0.6));
  // A row that reaches beyond its list is seen as far as that goes.
  const Piece row = *seen("row3", Role::button);
  CHECK(row.box.bottom() == Approx(340));
  REQUIRE(row.clip);
  CHECK(row.clip->bottom() == Approx(list.box().bottom()));
  // Where nothing fades, moves or clips, they are what the part says.
  stage.advance(ms(1000));
  const Piece there = *seen("dialog", Role::surface);
  CHECK((there.box == Box{30, 300, 300, 300} && there.opacity == 1 && !there.clip));
}

TEST_CASE(
    "a back gesture is followed by the topmost that wants it, given up or finished; a plain back stays") {
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
    finishes ? static_cast<void>(stage.back_finished(ms(now += 16))) : stage.back_cancelled(ms(now += 16));
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

TEST_CASE("an app's timers and movers run on the stage's clock, whatever the frames are") {
  for (const double fps : {0.0, 60.0}) {
    Stage stage;
    int woken = 0;
    stage.on_wake([&] { ++woken; });
    stage.advance(ms(0));
    std::vector<double> rang;
    stage.call_at(ms(300), [&] { rang.push_back(to_ms(stage.now())); });
    const TimerId never_rings = stage.call_after(ms(200), [&] { rang.push_back(-1); });
    stage.call_after(ms(100), [&] {
      rang.push_back(to_ms(stage.now()));
      stage.call_after(ms(50), [&] { rang.push_back(to_ms(stage.now())); });
    });
    CHECK(woken > 0);
    CHECK(stage.due() == ms(100));
    CHECK(stage.cancel(never_rings));
    CHECK_FALSE(stage.cancel(never_rings));
    {
      Clocked<Mover> lift(stage.own(), 0.0);
      stage.at(ms(10), [&] { lift.send(100, Timed{Curve{}, ms(1000)}, ms(10)); });
      CHECK_FALSE(stage.settled());
      for (double t = 10; fps > 0 && t < 900; t += 1000 / fps) stage.advance(ms(t));
      stage.advance(ms(900));
      CHECK(rang == std::vector<double>{100, 150, 300});
      CHECK_FALSE(stage.settled());
      stage.advance(ms(1010));
      CHECK(lift.value() == 100);
      CHECK(stage.settled());
    }
  }
}

TEST_CASE("a choice of none: no underline, and none to travel from; a page host always shows one") {
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

TEST_CASE("moments that a hand should feel are told once each, at their own time") {
  Stage stage;
  std::vector<std::pair<std::string, double>> felt;
  stage.on_moment([&](const Moment& moment) { felt.emplace_back(name_of(moment.kind), to_ms(moment.time)); });
  Cell<double> frames{4};
  stage.add<Slider>("s", {40, 200, 280, 48}, {.value = frames, .to = 10, .step = 1});
  stage.advance(ms(0));
  drag(stage, 0, {154, 224}, {154 + 8 + 2 * HoneySlider::dp_per_frame, 224}, 100);
  settle(stage);
  std::string names;
  for (const auto& [name, time] : felt) names += name + ", ";
  CHECK(names == "threshold crossed, step passed, step passed, snapped, ");
  felt.clear();
  drag(stage, 30'000, {204, 224}, {600, 224}, 100);
  settle(stage);
  CHECK(std::count_if(felt.begin(), felt.end(), [](const auto& one) { return one.first == "end reached"; }) ==
        1);
  // What is sent elsewhere on its way has not been let go there.
  Part& slider = *stage.find("s");
  const std::function<void(Micros)> ways[]{
      [&](Micros at) { stage.focus("s"), stage.press(Key::left, at); },
      [&](Micros at) { CHECK(stage.act(slider, "decrease", at)); },
      [&](Micros at) { stage.at(at, [&] { frames.set(2); }); },
      [&](Micros at) { stage.at(at, [&] { stage.immediately([&] { frames.set(3); }); }); }, [&](Micros) {}};
  for (double t = 60'000; const auto& way : ways) {
    stage.at(ms(t - 20'000), [&] { stage.immediately([&] { frames.set(8); }); });
    drag(stage, t, {204, 224}, {150, 224}, 100);
    felt.clear();
    REQUIRE_FALSE(stage.settled());
    way(ms(t + 220));
    settle(stage);
    stage.focus("s");
    stage.press(Key::right, ms(t + 10'000));
    settle(stage);
    CHECK(felt.size() == (&way == std::end(ways) - 1 ? 1 : 0));
    t += 60'000;
  }
}

TEST_CASE("a distance to commit in dp is the same for a low sheet and a high one") {
  for (const double height : {240.0, 560.0}) {
    Stage stage;
    auto& sheet = stage.add<Sheet>(
        "s", {0, 120, 360, 600}, {.snap_points = {height}, .commit_distance = 100, .projection_time = ms(0)});
    stage.at(ms(0), [&] { sheet.open(); });
    stage.advance(ms(2000));
    const double top = 720 - height + 20;
    drag(stage, 2000, {180, top}, {180, top + 8 + 99}, 100);
    settle(stage);
    CHECK(sheet.is_open());
    drag(stage, 60'000, {180, top}, {180, top + 8 + 101}, 100);
    settle(stage);
    CHECK_FALSE(sheet.is_open());
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
  stage.at(stage.now(), [&] { stage.remove(*rows[1]); });
  CHECK(rows[2]->box().y == Approx(60).margin(0.1));
  CHECK(stage.settled());
}

TEST_CASE("a layer that a tap closes while a call to close waits for the lift tells its cell") {
  Cell<bool> open{false};
  Stage stage;
  auto& sheet = stage.add<Sheet>("sheet", {0, 100, 360, 600}, {.open = open, .snap_points = {300}});
  stage.at(ms(0), [&] { open.set(true); });
  stage.advance(ms(2000));
  touch(stage, 2000, Phase::down, {180, 60});
  stage.at(ms(2050), [&] { sheet.close(); });
  touch(stage, 2100, Phase::up, {180, 60});
  stage.advance(ms(5000));
  CHECK_FALSE(sheet.is_open());
  CHECK_FALSE(open.get());
}

TEST_CASE("a swap beside a carousel that wraps goes the short way round") {
  for (const bool wrap : {false, true}) {
    Cell<Choice> shows{Choice({"Brood", "Stores", "Pests", "Notes"})};
    Stage stage({.journal = 100});
    stage.add<Swap>("tool bar", {0, 0, 360, 48}, {.selected = shows, .wrap = wrap});
    for (const char* name : {"Brood", "Stores", "Pests", "Notes"})
      stage.add<Button>(name, {0, 0, 360, 48}, {.label = name}, {.inside = "tool bar"});
    stage.advance(ms(0));
    shows.set(shows.get().with(3));
    stage.advance(ms(2000));
    const auto said = [&](const Answer& answer) {
      return std::any_of(stage.journal().decisions().begin(), stage.journal().decisions().end(),
                         [&](const Decision& one) { return one.says(answer); });
    };
    CHECK(said(answers::swap_forward) != wrap);
    CHECK(said(answers::swap_back) == wrap);
  }
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

namespace {

// A part that is due at once, for ever.
struct RestlessSettings {};

class Restless final : public Part {
 public:
  using Settings = RestlessSettings;
  Restless(std::string id, const Box& box, RestlessSettings, Context& context)
      : Part(std::move(id), box, context) {}
  [[nodiscard]] const PartKind& kind() const override {
    static const PartKind kind{.name = "restless"};
    return kind;
  }
  bool touch(const Contact&, const Sample&) override { return true; }

 private:
  struct Always final : TimedMember {
    using TimedMember::TimedMember;
    void add_timing(Timing& timing) const override { timing.add({.due = ms(100)}); }
  } always_{*this};
};

}  // namespace

TEST_CASE("a part that is due again and again is named, and takes nobody else's time") {
  Stage stage({.journal = 100});
  Cell<double> value{0};
  stage.add<Restless>("restless", {0, 0, 100, 100}, {});
  auto& slider = stage.add<Slider>("s", {40, 200, 280, 48}, {.value = value});
  stage.advance(ms(0));
  value.set(1);
  stage.advance(ms(10));
  stage.advance(ms(5000));
  CHECK(slider.position() == 1);
  CHECK(stage.due() == never);
  std::size_t named = 0;
  for (const Decision& decision : stage.journal().decisions()) {
    named += decision.says(answers::due_again) && decision.part.view() == "restless" ? 1U : 0U;
    CHECK_FALSE(decision.says(answers::callbacks_endless));
  }
  CHECK(named == 1);
}
