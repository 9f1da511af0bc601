// Windows: from where they come, and what lies in them after them.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what lies in a window comes one after another, each from the side the window comes from") {
  Stage stage;
  auto& window = stage.add<Panel>("menu", {60, 200, 240, 300},
                                  {.travel = {.from_edge = Edge::left, .from_turn = 90, .to_turn = -45},
                                   .enter = Timed{Curve{}, ms(100)},
                                   .exit = Timed{Curve{}, ms(100)},
                                   .children = {.stagger = ms(40), .stagger_distance = 30}});
  std::vector<Button*> buttons;
  for (int i = 0; i < 4; ++i)
    buttons.push_back(&stage.add<Button>("button" + std::to_string(i), {20, 20.0 + 60 * i, 200, 48}, {},
                                         {.inside = "menu"}));
  stage.act(window, "open", ms(1000));
  for (int t = 0; t <= 300; t += 10) {
    stage.advance(ms(1000 + t));
    CHECK(window.visual_state().turn ==
          Approx(std::numbers::pi / 2 * std::max(0.0, 1 - t / 100.0)).margin(1e-9));
    for (int i = 0; i < 4; ++i) {
      const double fraction = std::clamp((t - 40.0 * i) / 100, 0.0, 1.0);
      const Button& button = *buttons[static_cast<std::size_t>(i)];
      CHECK(button.box().x == Approx(window.box().x + 20 - 30 * (1 - fraction)));
      CHECK(window.visual_state_of(button).opacity == Approx(fraction));
      CHECK(button.takes(button.box().centre()) == (t >= 100 && fraction > 0));
    }
    CHECK(stage.settled() == (t >= 220));
  }
  // One that only fades has its own from below.
  auto& fades = stage.add<Panel>("fades", {60, 520, 240, 100},
                                 {.travel = {.from_edge = Edge::none},
                                  .enter = Timed{Curve{}, ms(100)},
                                  .children = {.stagger = ms(40), .stagger_distance = 30}});
  const auto& inner = stage.add<Button>("inner", {20, 20, 200, 48}, {}, {.inside = "fades"});
  stage.act(fades, "open", ms(1500));
  for (int t = 0; t <= 100; t += 20) {
    stage.advance(ms(1500 + t));
    CHECK(inner.box().x == 80);
    CHECK(inner.box().y == Approx(fades.box().y + 20 + 30 * (1 - t / 100.0)));
  }
  // Interrupted they go on from where they are, and away nothing of them moves.
  stage.act(window, "close", ms(2000));
  settle(stage);
  const Micros now = stage.now();
  stage.act(window, "open", now);
  stage.act(window, "close", now + ms(50));
  const double before = buttons[1]->box().x - window.box().x;
  stage.act(window, "open", now + ms(50));
  CHECK(buttons[1]->box().x - window.box().x == before);
  stage.act(window, "close", now + ms(60));
  stage.advance(now + ms(160));
  CHECK(window.absent());
  CHECK(stage.settled());
  stage.act(window, "open", now + ms(1000));
  CHECK(window.visual_state_of(*buttons[3]).opacity == 0);
  // One that is taken away on the way leaves the others as they are.
  stage.advance(now + ms(1090));
  const double third = window.visual_state_of(*buttons[2]).opacity;
  CHECK(third > 0);
  CHECK(third < 1);
  stage.remove(*buttons[1]);
  CHECK(window.visual_state_of(*buttons[2]).opacity == third);
}

TEST_CASE("just off its edge is that of the screen, or of what the window lies in, wherever that is laid") {
  for (const Off off : {Off::screen, Off::container}) {
    Stage stage;
    auto& page = stage.add<Pane>("page", {40, 100, 200, 300}, {});
    auto& window =
        stage.add<Panel>("note", {30, 50, 100, 60},
                         {.travel = {.from_edge = Edge::right, .to_edge = Edge::top, .just_off = off},
                          .enter = Timed{Curve{}, ms(100)},
                          .exit = Timed{Curve{}, ms(100)}},
                         {.inside = "page"});
    for (const Box& layout_box : {Box{40, 100, 200, 300}, Box{20, 200, 260, 300}}) {
      stage.place(page, Placement::of(layout_box));
      const Micros now = stage.now();
      stage.act(window, "open", now);
      const double right = off == Off::screen ? 360 : layout_box.right();
      CHECK(window.box().x == Approx(right));
      CHECK(window.ways().from.offset.x == Approx(right - layout_box.x - 30));
      stage.advance(now + ms(150));
      CHECK(window.box().x == Approx(layout_box.x + 30));
      stage.act(window, "close", now + ms(200));
      stage.advance(now + ms(299));
      CHECK(window.box().bottom() ==
            Approx((off == Off::screen ? 0 : layout_box.y) + 0.01 * (layout_box.y + 110)).margin(2));
      stage.advance(now + ms(400));
      CHECK(window.absent());
    }
  }
}
