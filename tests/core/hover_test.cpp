// A mouse or pen over the screen that touches nothing: which part is hovered, when, and how much it shows.
#include <algorithm>
#include <cmath>
#include <string>

#include "ubbo/stage/stage.hpp"
#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/alone.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

Sample mouse(Micros time, Point at, Phase phase = Phase::hover) {
  return {.time = time, .phase = phase, .at = at, .tool = Tool::mouse};
}

// When what was hovered, in order.
std::string hovers_of(const Stage& stage) {
  std::string all;
  for (const Decision& decision : stage.journal().decisions())
    if (decision.asks(questions::hover))
      all += std::to_string(decision.time.count()) + " " + std::string(decision.part.view()) + " " +
             decision.answer->name + "\n";
  return all;
}

}  // namespace

TEST_CASE("one part is hovered: the topmost that would take a press, by no finger, while nothing touches") {
  Stage stage({.journal = 256});
  auto& low = stage.add<Button>("low", {0, 0, 200, 100}, {.label = "Low"});
  auto& high = stage.add<Button>("high", {100, 0, 200, 100}, {.label = "High"});
  Cell<double> done(0.5);
  stage.add<ProgressBar>("bar", {0, 0, 300, 100},
                         {.label = "Bar", .fraction = done});  // takes no touch, and so no hover
  stage.touch({.time = ms(1), .phase = Phase::hover, .at = {50, 50}});
  CHECK(stage.hovered() == nullptr);
  stage.touch(mouse(ms(2), {50, 50}));
  CHECK(stage.hovered() == &low);
  stage.touch(mouse(ms(500), {150, 50}));
  CHECK(stage.hovered() == &high);
  CHECK(low.hover() == 1.0);
  CHECK_FALSE(stage.settled());
  stage.advance(ms(570));
  CHECK(low.hover() + high.hover() == Approx(1.0));
  CHECK(high.hover() > 0.5);
  stage.advance(ms(640));
  CHECK(low.hover() == 0.0);
  CHECK(high.hover() == 1.0);
  CHECK(stage.settled());
  // A contact down hovers nothing; the pointer is where it was lifted.
  stage.touch(mouse(ms(700), {150, 50}, Phase::down));
  CHECK(stage.hovered() == nullptr);
  stage.touch(mouse(ms(710), {60, 50}, Phase::move));
  stage.touch(mouse(ms(720), {60, 50}, Phase::up));
  CHECK(stage.hovered() == &low);
  stage.disable(low);
  CHECK(stage.hovered() == nullptr);  // it hides what lies below, and answers nothing
  stage.enable(low);
  CHECK(stage.hovered() == &low);
  stage.hide(low);
  CHECK(stage.hovered() == nullptr);
  stage.touch(mouse(ms(730), {150, 50}));
  CHECK(stage.hovered() == &high);
  stage.remove(high);
  CHECK(stage.hovered() == nullptr);
  stage.touch(mouse(ms(790), {50, 500}));
  auto& late = stage.add<Button>("late", {0, 450, 100, 100}, {.label = "Late"});
  stage.advance(ms(795));
  stage.touch(mouse(ms(796), {std::nan(""), 500}));  // is dropped, and the pointer stays where it was
  CHECK(stage.hovered() == &late);
  stage.touch(mouse(ms(800), {0, 0}, Phase::leave));
  CHECK(stage.hovered() == nullptr);
}

TEST_CASE("of several pointers the one that moved last hovers, and only it can leave") {
  Stage stage;
  auto& a = stage.add<Button>("a", {0, 0, 100, 100}, {});
  auto& b = stage.add<Button>("b", {100, 0, 100, 100}, {});
  stage.touch(mouse(ms(1), {50, 50}));
  Sample pen = mouse(ms(2), {150, 50});
  pen.tool = Tool::stylus;
  stage.touch(pen);
  CHECK(stage.hovered() == &b);
  stage.touch(mouse(ms(3), {50, 50}, Phase::leave));
  CHECK(stage.hovered() == &b);
  stage.touch(mouse(ms(4), {50, 50}));
  CHECK(stage.hovered() == &a);
}

TEST_CASE("nothing behind a modal layer is hovered, and nothing by its backdrop") {
  Stage stage;
  auto& below = stage.add<Button>("below", {0, 0, 100, 100}, {});
  auto& dialog = stage.add<Dialog>("ask", {60, 200, 240, 200}, {.label = "Close?"});
  stage.touch(mouse(ms(1), {50, 50}));
  CHECK(stage.hovered() == &below);
  stage.at(ms(10), [&] { dialog.open(); });
  CHECK(stage.hovered() == nullptr);
  stage.advance(ms(2000));
  stage.touch(mouse(ms(2001), {100, 300}));
  CHECK(stage.hovered() == &dialog);
  stage.at(ms(2010), [&] { dialog.close(); });
  stage.advance(ms(4000));
  CHECK(stage.hovered() == nullptr);
}

TEST_CASE("what moves in under a pointer that rests is hovered at that very microsecond, at any frame rate") {
  for (const int frame : {0, 7, 16, 100}) {
    Stage stage({.journal = 64});
    const Transition straight = Timed{Curve{}, ms(300)};
    auto& panel = stage.add<Panel>("panel", {0, 100, 200, 100},
                                   {.travel = {.from_edge = Edge::top, .to_edge = Edge::top},
                                    .enter = straight,
                                    .exit = straight,
                                    .touch_while_entering = true});
    stage.touch(mouse(ms(1), {50, 150.01}));
    stage.at(ms(1000), [&] { panel.open(); });
    const auto run = [&](Micros until) {
      for (Micros now = stage.now(); frame > 0 && now < until; now += ms(frame)) stage.advance(now);
      stage.advance(until);
    };
    run(ms(2000));
    CHECK(stage.hovered() == &panel);
    stage.at(ms(3000), [&] { panel.close(); });
    run(ms(4000));
    CHECK(stage.hovered() == nullptr);
    // Its lower edge is at 200 - 200 (1 - t / 300 ms): it passes 150.01 after 225.015 ms; it takes nothing
    // once it leaves.
    CHECK(hovers_of(stage) == "1225016 panel hover.enters\n3000000 panel hover.leaves\n");
  }
}

TEST_CASE("a pointer that rests while something moves for ever uses up nothing") {
  Stage stage({.journal = 64});
  auto& button = stage.add<Button>("a", {0, 0, 100, 100}, {});
  stage.add<ProgressBar>("bar", {0, 200, 300, 20}, {.label = "Bar", .unknown = true});
  stage.touch(mouse(ms(1), {50, 50}));
  stage.advance(ms(3'600'000));
  CHECK(stage.hovered() == &button);
  for (const Decision& decision : stage.journal().decisions())
    CHECK_FALSE(decision.says(answers::callbacks_endless));
}

TEST_CASE("hovering asks for no memory once a pointer has come") {
  Stage stage;
  stage.add<Button>("a", {0, 0, 100, 100}, {});
  stage.add<Button>("b", {100, 0, 100, 100}, {});
  stage.touch(mouse(ms(1), {50, 50}));
  const std::size_t before = allocations();
  for (int i = 0; i < 100; ++i) {
    stage.touch(mouse(ms(10 + 20 * i), {i % 2 == 0 ? 150.0 : 50.0, 50}));
    stage.advance(ms(20 + 20 * i));
  }
  stage.touch(mouse(ms(3000), {50, 50}, Phase::leave));
  stage.advance(ms(4000));
  CHECK(allocations() == before);
}

TEST_CASE("hovering has one outcome at every frame rate, changes nothing else, and ends with its pointer") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&kind] {
      std::vector<Event> touches = any_events();
      std::vector<Event> events = touches;
      const int count = *rc::gen::inRange(1, 12);
      for (int i = 0; i < count; ++i) {
        const Micros time = ms(*rc::gen::inRange(0, 4000));
        const Point at{*number(0, 360), *number(180, 300)};
        const Phase phase = *rc::gen::weightedElement<Phase>({{6, Phase::hover}, {1, Phase::leave}});
        const Tool tool = *rc::gen::element(Tool::mouse, Tool::stylus);
        events.push_back({time, [=](Alone& alone, Seen) {
                            alone.stage.touch({.time = time, .phase = phase, .at = at, .tool = tool});
                          }});
      }
      std::stable_sort(events.begin(), events.end(),
                       [](const Event& a, const Event& b) { return a.time < b.time; });
      Alone plain(kind, false);
      live_through(plain, touches, 60);
      std::string first;
      for (const double fps : {0.0, 24.0, 60.0, 240.0}) {
        Alone alone(kind, false);
        live_through(alone, events, fps);
        const Stage& stage = alone.stage;
        RC_ASSERT(alone.outcome(true) == plain.outcome(true));
        std::string all = hovers_of(stage);
        if (fps == 0.0) first = all;
        RC_ASSERT(all == first);
        for (const Tool tool : {Tool::mouse, Tool::stylus})
          alone.stage.touch({.time = ms(60'000), .phase = Phase::leave, .at = {1, 1}, .tool = tool});
        alone.stage.advance(ms(61'000));
        RC_ASSERT(stage.hovered() == nullptr);
        RC_ASSERT(alone.part->hover() == 0.0);
      }
    });
  });
}
