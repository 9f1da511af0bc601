// Every answer that core can give is given here, and what it claims is held against its numbers and against
// what became of the parts, without the code that makes sentences.
#include <set>

#include "claims.hpp"
#include "crowd.hpp"
#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// Which answers have been given so far, their claims held.
class Visits {
 public:
  void look(const Stage& stage) {
    for (const Decision& decision : stage.journal().decisions()) {
      seen_.insert(decision.answer);
      CAPTURE(decision.answer->name, decision.part.view());
      std::string facts;
      for (const Fact& one : decision.all_facts())
        facts += std::string(one.name) + " " + std::to_string(one.value) + " (margin " +
                 std::to_string(one.margin) + ") ";
      CAPTURE(facts);
      CHECK(true_to_its_numbers(decision));
    }
  }
  [[nodiscard]] std::vector<std::string> missing() const {
    std::vector<std::string> names;
    for (const Answer* answer : words::Catalogue::english().answers())
      if (!seen_.contains(answer))
        names.emplace_back(answer->name);
      else if (tells_a_number(*answer) && !claims().contains(answer))
        names.push_back(std::string("no claim for: ") + answer->name);
    return names;
  }

 private:
  std::set<const Answer*> seen_;
};

}  // namespace

TEST_CASE("each answer is given, and what it claims is so") {
  Visits visits;
  PROPERTY("crowds", [&] {
    StageSettings on;
    on.feel.palm_size = *rc::gen::element(0.0, 90.0);
    on.feel.bezel = *rc::gen::element(0.0, 12.0);
    on.feel.tap_reach = *rc::gen::element(12.0, 3.0);
    Crowd crowd(on);
    live_through(crowd, happenings(true), 30);
    visits.look(crowd.stage);
  });

  {  // Sliders: where they land, keys, writes, and why a press was no drag.
    HoneySlider stepped({.step = 1, .projection_time = ms(120)}), smooth,
        thrown({.projection_time = ms(200)}), on_thumb({.grab = Grab::thumb}), two({.step = 10});
    for (HoneySlider* app : {&stepped, &smooth, &thrown, &on_thumb, &two}) {
      Stage& stage = app->stage;
      drag(stage, 0, {154, 224}, {230, 224}, 100);
      drag(stage, 1000, {230, 224}, {150, 224});
      drag(stage, 2000, {154, 224}, {154 + 8 + 0.5 * 25.2, 224}, 200);
      drag(stage, 3000, {280, 224}, {282, 240}, 100);  // across
      drag(stage, 4000, {280, 224}, {284, 224}, 100);  // too short
      drag(stage, 5000, {280, 224}, {250, 224}, 100);
      app->tap(6000, {300, 224});
      app->tap(6500, {120, 224});
      stage.touch({.time = ms(7000), .contact = 1, .phase = Phase::down, .at = {100, 224}});
      stage.touch(
          {.time = ms(7900), .contact = 1, .phase = Phase::up, .at = {100, 224}});  // too long for a tap
      stage.focus("frames");
      for (const Key key : {Key::end, Key::end, Key::home, Key::right}) stage.press(key, ms(9000));
      app->frames.set(std::nan(""));
      stage.advance(ms(9100));
      app->frames.set(99);
      stage.advance(ms(9200));
      app->touch(9210, Phase::down, app->slider->thumb());
      stage.press(Key::left, ms(9211));
      app->frames.set(3);
      stage.advance(ms(9212));
      app->touch(9230, Phase::cancel, app->slider->thumb());
      app->touch(9240, Phase::down, app->slider->thumb());
      app->touch(9250, Phase::up, app->slider->thumb());
      stage.press(Key::back, ms(9400));
      app->touch(9500, Phase::up, {0, 0}, 7);
      for (const Point at : {Point{100, 224}, Point{5, 700}})
        stage.touch({.time = ms(9600), .phase = Phase::hover, .at = at, .tool = Tool::mouse});
      app->touch(20'000, Phase::down, {5, 700});
      stage.cancel_contacts();
      app->settle();
      visits.look(stage);
    }
    two.frames.set(5);
    two.settle();
    drag(two.stage, 100'000, two.slider->thumb(), two.slider->thumb() + Point{0, 1}, 10);
    drag(thrown.stage, 100'000, {280, 224}, {280, 224}, 900);
    thrown.frames.set(8);
    thrown.settle();
    drag(thrown.stage, 200'000, thrown.slider->thumb(), thrown.slider->thumb() - Point{30, 0});
    drag(on_thumb.stage, 100'000, {54, 224}, {110, 224});
    thrown.touch(300'000, Phase::down, {280, 224});
    thrown.touch(299'000, Phase::up, {280, 224});
    visits.look(thrown.stage);
    visits.look(on_thumb.stage);
    HoneySlider palm({}, {.feel = {.palm_size = 80}});
    palm.stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}, .size = 90});
    visits.look(palm.stage);
    HoneySlider edge({}, {.feel = {.bezel = 12}});
    edge.touch(0, Phase::down, {5, 224});
    edge.touch(10, Phase::down, edge.slider->thumb(), 2);
    edge.touch(20, Phase::down, edge.slider->thumb(), 3);  // another contact holds it
    for (int i = 1; i <= 10; ++i)
      edge.touch(30 + 8 * i, Phase::move, edge.slider->thumb() + Point{20.0, 3.0 * i}, 2);
    edge.touch(120, Phase::up, edge.slider->thumb() + Point{20, 33}, 2);  // moving, but across
    visits.look(edge.stage);
    HoneySlider tie({.step = 2});
    drag(tie.stage, 0, {150, 224}, {150 + 8 + 25.2, 224}, 100);
    visits.look(tie.stage);
  }
  {  // Gestures of one and two fingers.
    Stage stage{{.feel = {.axis_lock_angle = 10}, .journal = 5000}};
    stage.add<Pad>("pad", {0, 0, 360, 720}, {.gestures = {.taps = 3}});
    auto& held_back = stage.add<Pad>("row", {0, 0, 360, 100},
                                     {.gestures = {.taps = 3, .report_tap = ReportTap::after_wait}});
    double t = 0;
    const auto tap = [&](Point at, double lasts = 60) {
      stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = at});
      stage.touch({.time = ms(t + lasts), .contact = 1, .phase = Phase::up, .at = at});
      t += lasts + 100;
    };
    for (const double y : {50.0, 300.0}) {
      tap({100, y}), tap({100, y}), t += 1000;
      tap({100, y}), tap({200, y}), t += 400;
      tap({100, y}), t += 900;
      tap({100, y}), tap({100, y}), tap({100, y}), t += 3000;
    }
    tap({100, 300}, 700);
    const auto swipe = [&](Point from, Point to, double rest = 0) {
      drag(stage, t, from, to, rest), t += 2000;
    };
    swipe({100, 300}, {200, 301}), swipe({100, 300}, {101, 400}), swipe({100, 300}, {160, 360});
    swipe({2, 300}, {100, 300}), swipe({100, 300}, {112, 300}), swipe({100, 300}, {200, 300}, 100);
    const auto pair = [&](Point move_first, Point move_second, Phase end = Phase::up) {
      const Point first{120, 400}, second{240, 400};
      for (int i = 0; i <= 10; ++i)
        for (const int contact : {1, 2})
          stage.touch(
              {.time = ms(t + 8 * i),
               .contact = contact,
               .phase = i == 0 ? Phase::down : Phase::move,
               .at = contact == 1 ? first + move_first * (i / 10.0) : second + move_second * (i / 10.0)});
      for (const int contact : {1, 2})
        stage.touch({.time = ms(t + 90),
                     .contact = contact,
                     .phase = end,
                     .at = contact == 1 ? first + move_first : second + move_second});
      t += 1000;
    };
    pair({-30, 0}, {30, 0}), pair({0, -30}, {0, 30}), pair({0, 40}, {0, 40}), pair({1, 0}, {1, 0});
    pair({-30, 0}, {30, 0}, Phase::cancel);
    Feel unlocked = stage.feel();
    unlocked.axis_lock_angle = 0;
    stage.set_feel(unlocked);
    swipe({100, 300}, {200, 301});
    stage.focus("row");
    stage.press(Key::space, ms(t));
    stage.touch({.time = ms(t), .contact = 1, .phase = Phase::down, .at = {100, 50}});
    stage.press(Key::enter, ms(t + 1));
    stage.disable(held_back);
    stage.touch({.time = ms(t + 30), .contact = 2, .phase = Phase::down, .at = {100, 50}});
    for (int contact = 3; contact < 30; ++contact)
      stage.touch({.time = ms(t + 40), .contact = contact, .phase = Phase::down, .at = {300, 700}});
    visits.look(stage);
  }
  {  // Nested parts: who wins, goes on, is caught, and what a bound does with a flick.
    Cell<double> height{0}, scrolled{-300};
    Stage stage{{.journal = 5000}};
    auto& sheet = stage.add<Pane>("sheet", {0, 0, 360, 720},
                                  {.offset = height, .min = 0, .max = 500, .snap_points = {0, 500}});
    stage.add<Pane>("list", {0, 0, 360, 720},
                    {.offset = scrolled, .min = -1000, .max = 0, .overscroll_min = Overscroll::How::damped},
                    {.inside = "sheet"});
    stage.add<Pad>("zoom", {0, 0, 360, 720}, {.gestures = {.drags = Drags::none}},
                   {.inside = "list", .observes = true});
    Cell<double> value{0.5};
    stage.add<Slider>("level", {20, 20, 320, 40}, {.value = value}, {.inside = "list"});
    drag(stage, 0, {180, 300}, {180, 560});  // to the list's start and on with the sheet
    settle(stage);
    scrolled.set(-500);
    height.set(0);
    settle(stage);
    double t = to_ms(stage.now());
    drag(stage, t, {180, 100}, {180, 300});  // a flick that the list cannot hold
    stage.advance(ms(t + 5000));
    scrolled.set(-800);
    height.set(0);
    settle(stage);
    t = to_ms(stage.now());
    drag(stage, t, {180, 600}, {180, 540});  // a flick against the far end, which yields
    stage.advance(ms(t + 8000));
    scrolled.set(-10);
    settle(stage);
    t = to_ms(stage.now());
    drag(stage, t, {180, 300}, {180, 360}, 200);  // caught on its way, and let go again
    drag(stage, t + 400, {180, 300}, {180, 300}, 20);
    drag(stage, t + 3000, {180, 300}, {280, 300});  // sideways: nobody
    Cell<double> depth{0.5};
    auto& deep = stage.add<Slider>("depth", {10, 300, 40, 300}, {.value = depth, .axis = Axis::vertical},
                                   {.inside = "list"});
    drag(stage, t + 3500, deep.thumb(), deep.thumb() - Point{0, 50}, 100);
    const Point thumb = static_cast<Slider*>(stage.find("level"))->thumb();
    drag(stage, t + 4000, thumb, thumb + Point{60, 0}, 100);
    stage.touch({.time = ms(t + 6000), .contact = 1, .phase = Phase::down, .at = {180, 600}});
    stage.touch({.time = ms(t + 6010), .contact = 1, .phase = Phase::move, .at = {180, 560}});
    stage.touch({.time = ms(t + 6020), .contact = 2, .phase = Phase::down, .at = {200, 600}});
    stage.touch({.time = ms(t + 6030), .contact = 2, .phase = Phase::move, .at = {200, 560}});
    stage.cancel_contacts();
    stage.change(sheet, [](PaneSettings& s) { s.snap_points = {0}; });
    settle(stage);
    t = to_ms(stage.now());
    scrolled.set(0);
    settle(stage);
    drag(stage, t + 60'000, {180, 300}, {180, 500}, 200);
    settle(stage);
    visits.look(stage);

    Stage alone{{.journal = 500}};
    auto& list = alone.add<Pane>("list", {0, 0, 360, 720}, {.min = -100, .max = 0});
    drag(alone, 0, {180, 300}, {180, 280}, 200);
    drag(alone, 1000, {180, 300}, {180, 250});  // a flick that its bound stops
    settle(alone);
    drag(alone, 50'000, {180, 300}, {182, 318}, 0);
    drag(alone, 50'200, {180, 300}, {240, 322}, 0);
    alone.change(list, [](PaneSettings& s) {
      s.half_life = ms(0);
      s.overscroll_max = Overscroll::How::linear;
    });
    drag(alone, 60'000, {180, 300}, {180, 700}, 100);
    settle(alone);
    visits.look(alone);
  }
  {  // What the stage says of itself.
    Cell<double> a{0}, b{0};
    Stage stage{{.journal = 50'000, .keep = Keep::latest}};
    auto& first = stage.add<Slider>("a", {0, 0, 300, 40}, {.value = a, .to = 1e6, .transition = Timed{}});
    stage.add<Slider>("b", {0, 100, 300, 40}, {.value = b, .to = 1e6, .transition = Timed{}});
    stage.advance(ms(0));
    a.set(1);
    stage.advance(ms(1));
    stage.touch({.time = ms(2), .contact = 1, .phase = Phase::down, .at = {100, 20}});
    stage.touch({.time = ms(1e9), .contact = 1, .phase = Phase::up, .at = {100, 20}});  // far ahead
    stage.touch(
        {.time = ms(1e8), .contact = 1, .phase = Phase::down, .at = {100, 20}});  // believed: nothing moves
    stage.advance(ms(100));                                                       // but it was wrong
    stage.cancel_contacts();
    stage.change(first, [&](SliderSettings& s) { s.on_rest = [&](double v) { a.set(v == 1 ? 2 : 1); }; });
    a.set(5);
    stage.advance(ms(200));
    stage.change(first, [&](SliderSettings& s) { s.on_rest = {}; });
    first.on_layout([&](const Box& box) { stage.place(first, {0, 0, box.w + 1, 40}); });
    stage.place(first, {0, 0, 200, 40});
    visits.look(stage);

    Stage with_back{{.journal = 100}};
    with_back.add<Lamp>("lamp", {0, 0, 40, 40}, {.wants_back = true});
    with_back.back(ms(5));
    visits.look(with_back);
  }
  {  // Layers: how they come and go, what closes them, and who gets what goes down beside them.
    Cell<bool> open{false};
    Stage stage{{.journal = 2000}};
    auto& drawer = stage.add<Drawer>("drawer", {0, 0, 200, 720}, {.open = open});
    auto& dialog = stage.add<Dialog>("dialog", {30, 200, 300, 200}, {.button_closes = true});
    auto& toasts = stage.add<ToastTray>("toasts", {20, 640, 320, 48}, {.time = ms(400), .button = "Undo"});
    double now = 10;
    const auto at = [&](double later) { return ms(now += later); };
    const auto deal = [&](const std::function<void()>& action) { stage.at(at(2000), action); };
    drag(stage, now, {4, 300}, {180, 300});
    deal([&] { open.set(true); });
    stage.act(drawer, "open", at(10));
    stage.act(drawer, "close", at(10));
    stage.act(drawer, "close", at(10));
    stage.back(at(900));
    deal([&] { dialog.open(); });
    deal([&] { dialog.open(); });
    drag(stage, now += 900, {10, 10}, {10, 10});
    deal([&] { dialog.close(); });
    deal([&] { dialog.open(); });
    drag(stage, now += 900, {304, 226}, {304, 226});
    deal([&] { dialog.open(); });
    stage.back(at(900));
    stage.change(dialog, [](DialogSettings& s) { s.backdrop_closes = s.back_closes = false; });
    deal([&] { dialog.open(); });
    drag(stage, now += 900, {10, 10}, {10, 10});
    stage.back(at(100));
    stage.add<Lamp>("lamp", {0, 0, 40, 40}, {.modal = true});
    stage.back(at(10));
    stage.remove(*stage.find("lamp"));
    ToastTray::Token first = 0;
    deal([&] { first = toasts.show("a"); });
    deal([&] {
      toasts.show("b");
      toasts.show("c");
    });
    drag(stage, now += 500, {100, 660}, {100, 660}, 900);
    deal([&] { toasts.dismiss(first); });
    deal([&] { toasts.show("d"); });
    drag(stage, now += 500, {100, 660}, {330, 660});
    deal([&] { toasts.show("e"); });
    drag(stage, now += 500, {300, 664}, {300, 664});
    stage.change(toasts, [](ToastTraySettings& s) { s.when_busy = WhenBusy::replace; });
    deal([&] { toasts.show("f"); });
    stage.at(at(500), [&] { toasts.show("g"); });
    deal([&] { toasts.show("h"); });
    stage.act(toasts, "dismiss", at(500));
    stage.change(toasts, [](ToastTraySettings& s) { s.when_busy = WhenBusy::restart; });
    deal([&] { toasts.show("i"); });
    stage.at(at(500), [&] { toasts.show("j"); });
    Cell<Choice> page{Choice({"Notes", "Harvest"})};
    auto& pages = stage.add<Swap>("pages", {0, 400, 360, 100}, {.selected = page});
    for (const char* id : {"notes", "harvest"}) stage.add<Pad>(id, {0, 0, 360, 100}, {}, {.inside = "pages"});
    deal([&] { page.set(page.get().with(1)); });
    deal([&] { page.set(page.get().with(0)); });
    settle(stage);
    CHECK(pages.content() == 0);
    visits.look(stage);
  }
  {  // Wheels: what follows them, and what does not.
    Stage stage{{.journal = 500}};
    Cell<double> honey(3);
    stage.add<Slider>("honey", {0, 0, 360, 48}, {.label = "Honey", .value = honey, .to = 4, .step = 1});
    stage.add<List>("list", {0, 60, 360, 200}, {.label = "Hives", .count = 30});
    stage.add<Slider>("inner", Box{0, 0, 300, 60}, {.label = "Inner", .value = honey, .to = 4, .step = 1},
                      {.inside = "list"});
    Cell<Choice> box{Choice({"Brood", "Super", "Lid"})};
    stage.add<Tabs>("boxes", {0, 270, 360, 44}, {.label = "Boxes", .selected = box});
    Cell<int> frame(1);
    stage.add<PageDots>("dots", {0, 330, 360, 44}, {.label = "Frame", .selected = frame, .count = 5});
    stage.add<ZoomPlane>("plan", {0, 400, 360, 200}, {.label = "Yard"});
    double time = 0;
    const auto turn = [&](Point at, Point by, WheelUnit unit, WheelPhase phase = WheelPhase::none,
                          bool zooms = false) {
      time += 300;
      stage.wheel({.time = ms(time), .at = at, .by = by, .unit = unit, .phase = phase, .zooms = zooms});
    };
    for (const double by : {-1.0, -1.0, 0.2}) turn({100, 20}, {0, by}, WheelUnit::notch);
    turn({100, 80}, {0, 1}, WheelUnit::notch);
    turn({100, 200}, {0, -9}, WheelUnit::notch);
    turn({100, 200}, {0, 20}, WheelUnit::dp, WheelPhase::begin);
    time -= 290;
    turn({100, 200}, {0, 0}, WheelUnit::dp, WheelPhase::end);
    turn({100, 200}, {0, 9}, WheelUnit::dp, WheelPhase::momentum);
    turn({100, 290}, {0, 1}, WheelUnit::notch);
    turn({100, 350}, {0, 1}, WheelUnit::notch);
    turn({100, 500}, {0, -1}, WheelUnit::notch, WheelPhase::none, true);
    turn({100, 700}, {0, std::nan("")}, WheelUnit::notch);
    turn({100, 700}, {0, 1}, WheelUnit::notch);
    stage.touch({.time = ms(time + 400), .contact = 1, .phase = Phase::down, .at = {100, 200}});
    turn({100, 200}, {0, 1}, WheelUnit::notch);
    settle(stage);
    visits.look(stage);
  }
  {  // A row of taps that a drag has closed: the press after it comes soon, and is not called late.
    Stage alone{{.journal = 100}};
    alone.add<ZoomPlane>("plan", {0, 0, 300, 300}, {});
    drag(alone, 0, {100, 100}, {100, 100});
    drag(alone, 100, {100, 100}, {190, 100});
    drag(alone, 200, {100, 100}, {100, 100});
    visits.look(alone);
  }
  for (const PartKind* kind : shipped_kinds())
    PROPERTY(kind->name, [&] {
      Alone alone(*kind, *rc::gen::arbitrary<bool>());
      live_through(alone, any_events(), 30);
      visits.look(alone.stage);
    });
  {  // What parts do that are linked to less.
    Cell<Choice> page{Choice({"Notes", "Harvest"})};
    Cell<int> at{0};
    Stage stage{{.journal = 1000}};
    stage.add<Button>("smoker lit", {0, 0, 90, 40}, {});
    stage.add<Tabs>("pages", {0, 100, 300, 40}, {.selected = page});
    auto& photos = stage.add<Carousel>("photos", {0, 200, 300, 200}, {.selected = at, .count = 4});
    drag(stage, 0, {20, 20}, {21, 20});
    stage.at(ms(500), [&] { page.set(page.get().with(1)); });
    stage.at(ms(600), [&] { photos.go_to(2); });
    settle(stage);
    CHECK(at.get() == 2);
    visits.look(stage);
  }
  {  // A double tap on a plane.
    Stage stage{{.journal = 1000}};
    stage.add<ZoomPlane>("frame", {0, 0, 300, 300}, {});
    drag(stage, 0, {100, 100}, {101, 100});
    drag(stage, 200, {100, 100}, {101, 100});
    visits.look(stage);
  }
  {  // Two thumbs under one finger.
    Stage stage{{.journal = 1000}};
    Cell<double> low{5}, high{5};
    stage.add<RangeSlider>("brood frames", {0, 500, 300, 40},
                           {.low = low, .high = high, .to = 10, .step = 1});
    double when = 10'000;
    for (const double to : {220.0, 60.0}) {
      drag(stage, when += 10'000, {150, 520}, {to, 520}, 100);
      CHECK((to > 150 ? high.get() > 5 && low.get() == 5 : low.get() < 5 && high.get() == 5));
      stage.advance(ms(when + 1000));
      low.set(5);
      high.set(5);
      stage.advance(ms(when + 2000));
      stage.advance(ms(when + 4000));
    }
    visits.look(stage);
  }
  {  // Rows that commit, wait, fail, go away; and one that goes back by itself.
    Cell<std::string> open;
    Stage stage{{.journal = 1000}};
    std::vector<std::string> told;
    const auto row = [&](const char* id, double y, SwipeRowSettings settings) -> SwipeRow& {
      settings.open = open;
      settings.on_commit = [&told, id](const char* side) {
        told.push_back(std::string(id) + " commits " + side);
      };
      settings.on_open = [&told, id](const char* side) {
        told.push_back(std::string(id) + " opens " + side);
      };
      settings.on_removed = [&told, id] { told.push_back(std::string(id) + " removed"); };
      return stage.add<SwipeRow>(id, {0, y, 360, 60}, settings);
    };
    auto& quarry = row(
        "quarry", 0, {.leading = 90, .trailing = 90, .commit_distance = Length::of(0.6), .timeout = ms(500)});
    auto& mill = row("mill", 60, {.leading = 90, .closes_after = ms(300)});
    drag(stage, 0, {40, 30}, {130, 30}, 100);
    CHECK(quarry.state() == SwipeRow::State::open);
    CHECK(open.get() == "quarry");
    stage.advance(ms(900));
    CHECK(quarry.fraction() == 1);
    drag(stage, 1000, {40, 90}, {130, 90}, 100);  // one at a time
    CHECK(open.get() == "mill");
    CHECK(quarry.state() == SwipeRow::State::closed);
    stage.advance(ms(1500));
    CHECK(mill.fraction() == 1);
    stage.advance(ms(2500));  // and back by itself
    CHECK(mill.fraction() == 0);
    CHECK(open.get().empty());
    drag(stage, 3000, {330, 30}, {60, 30}, 100);
    CHECK(quarry.state() == SwipeRow::State::committed);
    stage.advance(ms(4500));
    CHECK(quarry.state() == SwipeRow::State::failed);
    CHECK(quarry.offset().x == -360);
    stage.at(ms(4600), [&] { quarry.reset(); });
    stage.advance(ms(5500));
    CHECK(quarry.offset().x == 0);
    drag(stage, 6000, {330, 30}, {60, 30}, 100);
    stage.at(ms(6300), [&] { quarry.fail(); });
    CHECK(quarry.state() == SwipeRow::State::failed);
    stage.at(ms(6400), [&] { quarry.remove(); });
    stage.advance(ms(7500));
    CHECK(quarry.room() == 0);
    CHECK(told == std::vector<std::string>{"quarry opens leading", "mill opens leading",
                                           "quarry commits trailing", "quarry commits trailing",
                                           "quarry removed"});
    CHECK(stage.settled());
    visits.look(stage);
  }
  {  // what is asked under a finger; and a part that does nothing when it is due
    struct Idle final : TimedMember {
      using TimedMember::TimedMember;
      void add_timing(Timing& timing) const override { timing.add({.due = ms(50)}); }
    };
    Stage stage({.journal = 100});
    auto& list = stage.add<List>("rows", {0, 0, 360, 400}, {.count = 50});
    const Idle idle(list);
    stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {100, 100}});
    list.scroll_to(7);
    stage.advance(ms(100));
    auto& sheet = stage.add<Sheet>("sheet", {0, 100, 360, 600}, {.snap_points = {300}});
    stage.at(ms(200), [&] { sheet.open(); });
    stage.advance(ms(2000));
    CHECK(stage.back_begins(ms(2000)));
    stage.back_moves(0.4, ms(2050));
    stage.back_cancelled(ms(2100));
    visits.look(stage);
  }
  {  // a row that is not carried far enough to open
    Stage stage({.journal = 100});
    auto& row = stage.add<SwipeRow>("mill", {0, 0, 360, 60}, {.leading = 100});
    drag(stage, 0, {40, 30}, {75, 30}, 200);
    stage.advance(ms(3000));
    CHECK(row.offset().x == 0);
    visits.look(stage);
  }
  {  // a card carried far and let go at rest
    Stage stage({.journal = 100});
    Cell<int> top{0};
    stage.add<CardDeck>("hives", {30, 100, 300, 400}, {.selected = top, .count = 3});
    drag(stage, 0, {60, 300}, {320, 300}, 200);
    stage.advance(ms(3000));
    CHECK(top.get() == 1);
    // Another one far out, and flicked back.
    for (int i = 0; i <= 20; ++i)
      stage.touch({.time = ms(4000 + 8 * i),
                   .contact = 1,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = {60.0 + 24 * std::min(i, 12) - 10 * std::max(i - 12, 0), 300}});
    stage.touch({.time = ms(4164), .contact = 1, .phase = Phase::up, .at = {268, 300}});
    stage.advance(ms(6000));
    CHECK(top.get() == 1);
    visits.look(stage);
  }
  {  // a rating wiped off
    Cell<double> temper{3};
    Stage stage({.journal = 100});
    stage.add<Rating>("temper", {100, 500, 200, 40}, {.value = temper});
    drag(stage, 0, {200, 520}, {90, 520}, 100);
    CHECK(temper.get() == 0);
    visits.look(stage);
  }
  for (const std::string& missing : visits.missing()) UNSCOPED_INFO(missing);
  CHECK(visits.missing().empty());
}

TEST_CASE("each decision has a name that stays, is said in words, and may be said otherwise") {
  const auto& english = words::Catalogue::english();
  std::set<std::string> names;
  const auto is_name = [](std::string_view name) {
    const auto dot = name.find('.');
    return dot != std::string_view::npos && dot > 0 && dot + 1 < name.size() &&
           name.find_first_not_of("abcdefghijklmnopqrstuvwxyz-", 0) == dot &&
           name.find_first_not_of("abcdefghijklmnopqrstuvwxyz-", dot + 1) == std::string_view::npos;
  };
  for (const Answer* answer : english.answers()) {
    CAPTURE(answer->name);
    CHECK(names.insert(answer->name).second);
    CHECK(is_name(answer->name));
    CHECK(is_name(answer->question->name));
    CHECK(english.of(*answer->question).ends_with("?"));
    CHECK_FALSE(english.of(*answer).in_short.empty());
    CHECK_FALSE(english.of(*answer).sentence.empty());
  }
  for (const PartKind* kind : shipped_kinds())
    for (const Answer* own : kind->answers) CHECK(names.contains(own->name));
  Decision rest;
  rest.answer = &answers::at_rest;
  rest.facts[rest.fact_count++] = {"value", 7};
  CHECK(words::sentence(rest) == "at rest at 7");
  auto other = english;
  CHECK(other.say("rail.at-rest", {"ja", "steht auf {value}", "steht"}));
  CHECK_FALSE(other.say("rail.no-such", {}));
  CHECK_THROWS_WITH(other.say("rail.at-rest", {"ja", "steht auf {velocity}", ""}),
                    "wording of rail.at-rest: {velocity} is none of its facts; it takes part, value");
  CHECK(words::sentence(rest, other) == "steht auf 7");
  CHECK(words::caption(rest, other) == "steht");
  CHECK(words::sentence(rest) == "at rest at 7");
  rest.fact_count = 0;  // what lacks a fact is told by what there is
  CHECK(words::sentence(rest) == "is it at rest? yes");
}
