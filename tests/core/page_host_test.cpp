// Pages that lie one on another: quick changes, back, a finger from the edge, and that nothing seen jumps.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct Rounds {
  explicit Rounds(PageHostSettings settings = {}, StageSettings on = {}) : stage(on) {
    settings.selected = page;
    settings.on_page = [this](std::size_t shown) { done.emplace_back(stage.now(), shown); };
    host = &stage.add<PageHost>("rounds", {0, 40, 360, 600}, settings);
    for (int i = 0; i < 4; ++i)
      pages.push_back(&stage.add<Pad>("page" + std::to_string(i), {0, 0, 360, 600},
                                      {.on_gesture =
                                           [this, i](const Gesture& gesture) {
                                             if (gesture.kind == GestureKind::press &&
                                                 gesture.step == GesturePhase::began)
                                               pressed.push_back(i);
                                           }},
                                      {.inside = "rounds"}));
    stage.advance(ms(0));
  }
  void go(double at_ms, std::size_t to) {
    stage.at(ms(at_ms), [&] { page.set(page.get().with(to)); });
  }
  void touch(double at_ms, Phase phase, double x) {
    stage.touch({.time = ms(at_ms), .contact = 1, .phase = phase, .at = {x, 300}});
  }
  // From the leading edge, over 160 ms.
  void draw(double at_ms, double by, double rest_ms) {
    const bool mirrored = stage.find("rounds")->context().right_to_left;
    const auto x = [&](double way) { return mirrored ? 356 - way : 4 + way; };
    for (int i = 0; i <= 20; ++i) touch(at_ms + 8 * i, i == 0 ? Phase::down : Phase::move, x(by * i / 20));
    touch(at_ms + 160 + rest_ms, Phase::up, x(by));
  }
  [[nodiscard]] std::vector<std::size_t> seen() const {
    std::vector<std::size_t> all;
    for (std::size_t i = 0; i < pages.size(); ++i)
      if (pages[i]->visible()) all.push_back(i);
    return all;
  }
  Cell<Choice> page{Choice({"Hives", "Ridge", "Frame", "Photo"})};
  std::vector<std::pair<Micros, std::size_t>> done;
  std::vector<int> pressed;
  Stage stage;
  PageHost* host = nullptr;
  std::vector<Pad*> pages;
};

PageHostSettings linear() { return {.transition = Timed{Curve{}, ms(200)}}; }

struct Step {
  double at;
  bool moves;  // a finger moves what is seen
  std::function<void(Rounds&)> what;
};

std::vector<Step> any_steps() {
  std::vector<Step> steps;
  double now = 10;
  const int rounds = *rc::gen::inRange(1, 10);
  for (int round = 0; round < rounds; ++round) {
    now += *rc::gen::element(0.0, 4.0, 60.0, 150.0, 900.0);
    const auto page = static_cast<std::size_t>(*rc::gen::inRange(0, 4));
    switch (*rc::gen::inRange(0, 5)) {
      case 0:
      case 1:
        steps.push_back({now, false, [=](Rounds& app) { app.go(now, page); }});
        break;
      case 2:
        steps.push_back({now, false, [=](Rounds& app) { app.stage.press(Key::back, ms(now)); }});
        break;
      case 3: {
        const char* call = *rc::gen::element("next", "previous", "back");
        steps.push_back({now, false, [=](Rounds& app) { app.stage.act(*app.host, call, ms(now)); }});
        break;
      }
      default: {
        double x = *rc::gen::element(4.0, 4.0, 200.0);
        const double step = *rc::gen::element(-20.0, 0.0, 9.0, 20.0);
        const int moves = *rc::gen::inRange(0, 16);
        const auto touch = [&](Phase phase) {
          steps.push_back({now, phase == Phase::move, [=](Rounds& app) { app.touch(now, phase, x); }});
        };
        touch(Phase::down);
        for (int i = 0; i < moves; ++i) {
          now += 8;
          x += step;
          touch(Phase::move);
        }
        now += *rc::gen::element(8.0, 200.0);
        steps.push_back({now, true, [=](Rounds& app) { app.touch(now, Phase::up, x); }});
      }
    }
  }
  return steps;
}

}  // namespace

TEST_CASE(
    "how far a spring went past a page, where nothing of it is seen, is not seen when the way goes on") {
  for (double t = 1030; t < 1130; t += 4) {
    Rounds again;
    again.stage.act(*again.host, "next", ms(10));
    again.go(910, 1);
    again.stage.act(*again.host, "back", ms(914));
    again.go(918, 2);
    again.go(922, 1);  // so fast that it goes past the first page of its way
    again.stage.advance(ms(t));
    const double before = again.pages[1]->box().x;
    again.go(t, 2);
    REQUIRE(again.pages[1]->box().x == before);
  }
}

TEST_CASE("of quick changes of page the last one counts, and nothing that is seen jumps") {
  PROPERTY("any changes, backs and fingers at any times", [] {
    const auto steps = any_steps();
    const bool right_to_left = *rc::gen::arbitrary<bool>();
    const auto run = [&](double fps) {
      Rounds app({}, {.right_to_left = right_to_left, .journal = 1000});
      double frame = 0;
      for (const Step& action : steps) {
        for (; fps > 0 && frame < action.at; frame += 1000 / fps) app.stage.advance(ms(frame));
        std::vector<Box> before;
        std::vector<std::size_t> seen;
        if (fps > 0) {
          app.stage.advance(ms(action.at));
          for (const Pad* page : app.pages) before.push_back(page->box());
          seen = app.seen();
        }
        action.what(app);
        if (fps > 0 && !action.moves)
          for (const std::size_t i : seen) {
            RC_ASSERT(app.pages[i]->visible());
            RC_ASSERT(std::fabs(app.pages[i]->box().x - before[i].x) < 1e-6);
          }
        RC_ASSERT(app.seen().size() <= 2U);
        if (!app.host->pressed()) RC_ASSERT(app.page.get().index() == app.host->selected());
      }
      const double last = steps.back().at;
      double said = 0.0;
      for (; fps > 0 && frame < last + 3000; frame += 1000 / fps) app.stage.advance(ms(frame));
      app.stage.advance(ms(last + 3000));
      RC_ASSERT(app.stage.settled());
      const std::size_t page = app.host->selected();
      const std::vector<std::size_t> only{page};
      RC_ASSERT(app.seen() == only);
      RC_ASSERT(app.page.get().index() == page);
      RC_ASSERT(app.pages[page]->box().x == 0);
      const bool plain = app.host->visual_state_of(*app.pages[page]) == VisualState{};
      RC_ASSERT(plain);
      RC_ASSERT(app.host->way_left() == 0);
      if (!app.done.empty()) RC_ASSERT(app.done.back().second == page);
      // Where it is said to rest is the page that is shown, by its number.
      for (const Decision& decision : app.stage.journal().decisions())
        if (decision.says(answers::at_rest))
          said = decision.all_facts()[0].value;
        else if (decision.says(answers::page_here))
          RC_ASSERT(decision.all_facts()[0].value == said + 1.0);
      app.pressed.clear();
      app.touch(last + 4000, Phase::down, 200);
      RC_ASSERT(app.pressed.size() == 1U);
      RC_ASSERT(app.pressed[0] == static_cast<int>(page));
      return app.done;
    };
    const auto without = run(0);
    const bool slow = run(24) == without;
    const bool fast = run(240) == without;
    RC_ASSERT(slow);
    RC_ASSERT(fast);
  });
}

TEST_CASE("going back is the mirror of going forward, in either reading direction") {
  for (const bool right_to_left : {false, true}) {
    Rounds app(linear(), {.right_to_left = right_to_left});
    const double sign = right_to_left ? -1 : 1;
    app.go(1000, 1);
    std::vector<std::pair<double, double>> forward;
    for (int t = 10; t < 200; t += 10) {
      app.stage.advance(ms(1000 + t));
      forward.emplace_back(app.pages[0]->box().x, app.pages[1]->box().x);
      CHECK(app.pages[1]->box().x == Approx(sign * 360 * (1 - t / 200.0)));
      CHECK(app.pages[0]->box().x == Approx(-sign * 360 * 0.3 * t / 200.0));
      CHECK(app.host->visual_state_of(*app.pages[0]).opacity == Approx(1 - 0.25 * t / 200.0));
      CHECK(app.host->visual_state_of(*app.pages[1]).opacity == 1);
      CHECK(app.host->way_left() == Approx(t / 200.0 - 1));
    }
    app.stage.press(Key::back, ms(2000));
    CHECK(app.page.get().name() == "Hives");
    for (int t = 10; t < 200; t += 10) {
      app.stage.advance(ms(2000 + t));
      const auto& [below, above] = forward[static_cast<std::size_t>(19 - t / 10)];
      CHECK(app.pages[0]->box().x == Approx(below).margin(1e-9));
      CHECK(app.pages[1]->box().x == Approx(above).margin(1e-9));
    }
  }
}

TEST_CASE("a page is drawn back from the leading edge, given up, finished or flicked") {
  for (const bool right_to_left : {false, true}) {
    Rounds app({}, {.right_to_left = right_to_left});
    const double sign = right_to_left ? -1 : 1;
    CHECK_FALSE(app.host->page_below());
    app.draw(500, 200, 100);  // nothing to go back to: the page has it
    CHECK(app.pressed == std::vector<int>{0});
    app.go(1000, 2);
    settle(app.stage);
    const double now = to_ms(app.stage.now());
    const double threshold = app.stage.find("rounds")->feel_for(Tool::finger).threshold(Axis::horizontal);
    app.draw(now + 10, 120, 100);  // given up
    CHECK(app.host->selected() == 2);
    settle(app.stage);
    CHECK(app.page.get().name() == "Frame");
    app.touch(now + 2000, Phase::down, right_to_left ? 356 : 4);
    for (int i = 1; i <= 20; ++i)
      app.touch(now + 2000 + 8 * i, Phase::move, right_to_left ? 356 - 12 * i : 4 + 12 * i);
    CHECK(app.pages[2]->box().x == Approx(sign * (240 - threshold)).margin(12));
    CHECK(app.seen() == std::vector<std::size_t>{0, 2});
    CHECK(app.page.get().name() == "Frame");
    app.touch(now + 2400, Phase::up, right_to_left ? 356 - 240 : 4 + 240);
    CHECK(app.page.get().name() == "Hives");  // told at the lift
    settle(app.stage);
    CHECK(app.done.back().second == 0);
    app.go(now + 9000, 1);
    settle(app.stage);
    app.draw(to_ms(app.stage.now()) + 10, 90, 0);  // flicked
    CHECK(app.page.get().name() == "Hives");
    settle(app.stage);
  }
}

TEST_CASE("back leads to the pages one came from, and from the first nowhere") {
  Rounds app;
  app.go(1000, 1);
  app.go(1040, 3);  // before the first had come
  app.stage.advance(ms(1100));
  CHECK(app.host->page_below() == 1U);
  CHECK(app.stage.press(Key::back, ms(1150)));
  CHECK(app.page.get().index() == 1);
  settle(app.stage);
  app.go(4000, 3);
  settle(app.stage);
  CHECK(app.stage.press(Key::back, ms(8000)));
  CHECK(app.stage.press(Key::back, ms(8040)));
  CHECK_FALSE(app.stage.press(Key::back, ms(8080)));
  settle(app.stage);
  CHECK(app.page.get().index() == 0);
  // Where one came from none, to the first.
  app.stage.immediately([&] { app.page.set(app.page.get().with(2)); });
  CHECK(app.seen() == std::vector<std::size_t>{2});
  app.stage.remove(*app.pages[1]);
  CHECK(app.page.get().index() == 1);
  CHECK(app.pages[2]->visible());
  app.stage.remove(*app.pages[2]);
  CHECK(app.page.get().index() == 0);
  CHECK(app.pages[0]->visible());
}

TEST_CASE("keys go to no page that another covers, and to it again when one comes back") {
  Cell<Choice> page{Choice({"Ridge", "Frame"})};
  Cell<double> frames{4};
  Stage stage;
  stage.add<PageHost>("rounds", {0, 40, 360, 600}, {.selected = page});
  stage.add<Pad>("ridge", {0, 0, 360, 600}, {}, {.inside = "rounds"});
  stage.add<Slider>("frames", {40, 200, 280, 48}, {.value = frames, .to = 10, .step = 1},
                    {.inside = "ridge"});
  stage.add<Pad>("frame", {0, 0, 360, 600}, {}, {.inside = "rounds"});
  stage.advance(ms(0));
  REQUIRE(stage.focus("frames"));
  CHECK(stage.press(Key::right, ms(10)));
  CHECK(frames.get() == 5);
  stage.at(ms(20), [&] { page.set(page.get().with("Frame")); });
  for (const double at : {60.0, 3000.0}) {
    stage.advance(ms(at));
    CHECK(stage.focused() == nullptr);
    CHECK_FALSE(stage.press(Key::right, ms(at)));
  }
  CHECK(frames.get() == 5);
  CHECK(stage.press(Key::back, ms(4000)));
  settle(stage);
  REQUIRE(stage.focused() != nullptr);
  CHECK(stage.press(Key::right, stage.now()));
  CHECK(frames.get() == 6);
}

TEST_CASE("a focus that was on a page is there again when the page is") {
  Cell<Choice> page{Choice({"Ridge", "Frame"})};
  Stage stage;
  stage.add<Swap>("content", {0, 40, 360, 600}, {.selected = page});
  stage.add<Pad>("ridge", {0, 0, 360, 600}, {}, {.inside = "content"});
  stage.add<Pad>("frame", {0, 0, 360, 600}, {}, {.inside = "content"});
  stage.advance(ms(0));
  REQUIRE(stage.focus("ridge"));
  stage.at(ms(20), [&] { page.set(page.get().with("Frame")); });
  CHECK(stage.focused() == nullptr);
  settle(stage);
  CHECK(stage.focused() == nullptr);
  stage.at(stage.now(), [&] { page.set(page.get().with("Ridge")); });
  settle(stage);
  REQUIRE(stage.focused() != nullptr);
  CHECK(stage.focused()->id() == "ridge");
}

TEST_CASE("a host that is laid anew under a finger comes to rest on the page that it tells") {
  for (const double by : {80.0, 260.0}) {
    Cell<Choice> page{Choice({"Ridge", "Frame"}, 1)};
    Stage stage;
    auto& ground = stage.add<Pane>("ground", {0, 0, 360, 700}, {});
    auto& host = stage.add<PageHost>("rounds", {.x = 0, .y = 0, .right = 0, .bottom = 0}, {.selected = page},
                                     {.inside = "ground"});
    std::vector<Pad*> pages;
    for (const char* id : {"ridge", "frame"})
      pages.push_back(&stage.add<Pad>(id, {0, 0, 300, 600}, {}, {.inside = "rounds"}));
    stage.advance(ms(0));
    for (int i = 0; i <= 10; ++i)
      stage.touch({.time = ms(100 + 16 * i),
                   .contact = 1,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = {4 + by * i / 10, 300}});
    stage.place(ground, Placement::of({0, 0, 300, 600}));
    stage.touch({.time = ms(600), .contact = 1, .phase = Phase::up, .at = {4 + by, 300}});
    settle(stage);
    CHECK(host.layout_box().w == 300);
    CHECK(page.get().index() == host.selected());
    CHECK(host.way_left() == 0);
    CHECK(pages[host.selected()]->visible());
    CHECK(pages[host.selected()]->box().x == 0);
    CHECK_FALSE(pages[1 - host.selected()]->visible());
  }
}

TEST_CASE("the page below fades as far as it is covered, or by a transition of its own") {
  for (const double takes : {100.0, 500.0}) {
    PageHostSettings settings = linear();
    settings.below_opacity = 0.5;
    settings.opacity_follows = false;
    settings.opacity_transition = Timed{Curve{}, ms(takes)};
    Rounds app(settings);
    const auto opacity = [&](std::size_t page) { return app.host->shows(*app.pages[page]).opacity; };
    app.go(0, 1);
    app.stage.advance(ms(50));
    CHECK(opacity(0) == Approx(1.0 - 0.5 * 50 / takes));
    CHECK(opacity(1) == 1.0);
    app.go(100, 0);  // and back, from where it is
    app.stage.advance(ms(120));
    CHECK(opacity(0) == Approx(1.0 - 0.5 * (100 / takes) * (1.0 - 20 / takes)));
    app.stage.advance(ms(2000));
    app.go(2000, 1);
    app.go(2100, 2);  // page 1 is half-way in: it stays as it is seen
    app.stage.advance(ms(2100) + Micros{1});
    CHECK(opacity(1) > 0.99);
    app.stage.advance(ms(2310));
    CHECK((app.done.back() == std::pair{ms(2300), std::size_t{2}}) == (takes < 200));
    app.stage.advance(ms(4000));
    CHECK(app.done.back().second == 2U);
    CHECK(app.stage.settled());
    // A finger draws it back: the page below keeps its opacity until the lift.
    app.draw(5000, 240, 0);
    app.stage.advance(ms(5200));
    CHECK(app.host->selected() == 1U);
    app.stage.advance(ms(7000));
    CHECK(opacity(1) == 1.0);
  }
}

TEST_CASE("a page host tells half-way back as what decides, where there is a page to go back to") {
  Stage stage;
  Cell<Choice> shows{Choice({"Notes", "Treatment"})};
  auto& host = stage.add<PageHost>("host", {0, 0, 360, 720}, {.selected = shows});
  for (const char* id : {"a", "b"}) stage.add<Pad>(id, {0, 0, 360, 720}, {}, {.inside = "host"});
  stage.advance(ms(0));
  const auto decides_at = [&] {
    std::vector<Threshold> all;
    for (const ReadingInfo& reading : host.kind().readings)
      if (std::string_view(reading.name) == "way left") reading.thresholds(host, all);
    return all;
  };
  CHECK(decides_at().empty());
  shows.set(shows.get().with(1));
  settle(stage);
  REQUIRE(decides_at().size() == 1);
  CHECK(decides_at().front().value == -0.5);
}

TEST_CASE("a page that is drawn back half-way lies between the numbers of the two that are seen") {
  Rounds app({}, {.journal = 1000});
  double now = 0;
  for (const std::size_t page : {1U, 3U}) {
    app.go(now += 2000, page);
    settle(app.stage);
  }
  now += 4000;
  for (int i = 0; i <= 20; ++i) app.touch(now + 30 * i, i == 0 ? Phase::down : Phase::move, 4 + 9.0 * i);
  app.touch(now + 700, Phase::cancel, 184);
  bool said = false;
  for (const Decision& one : app.stage.journal().decisions())
    if (one.says(answers::goes_back)) {
      said = true;
      CHECK(one.facts[0].value > 1.1);
      CHECK(one.facts[0].value < 2.9);
    }
  CHECK(said);
}
