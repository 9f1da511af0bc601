// One content gives way to another: quick changes, mirror, size, and that nothing is left over.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct Pages {
  explicit Pages(SwapSettings settings = {}, StageSettings on = {}) : stage(on) {
    settings.selected = page;
    settings.on_swap = [this](std::size_t content) { done.push_back(content); };
    swap = &stage.add<Swap>("pages", {20, 100, 320, 400}, settings);
    for (int i = 0; i < 4; ++i)
      pages.push_back(&stage.add<Pad>("page" + std::to_string(i), {0, 0, 320.0 - 20 * i, 100.0 + 60 * i},
                                      {.on_gesture =
                                           [this, i](const Gesture& gesture) {
                                             if (gesture.kind == GestureKind::press &&
                                                 gesture.step == GesturePhase::began)
                                               pressed.push_back(i);
                                           }},
                                      {.inside = "pages"}));
    stage.advance(ms(0));
  }
  void go(double at_ms, std::size_t to) {
    stage.at(ms(at_ms), [&] { page.set(page.get().with(to)); });
  }
  Cell<Choice> page{Choice({"Notes", "Treatment", "Harvest", "Weather"})};
  std::vector<std::size_t> done;
  std::vector<int> pressed;
  Stage stage;
  Swap* swap = nullptr;
  std::vector<Pad*> pages;
};

SwapSettings any_settings() {
  SwapSettings any;
  any.way = *rc::gen::element(SwapMotion::fade, SwapMotion::slide, SwapMotion::both, SwapMotion::uncover,
                              SwapMotion::none);
  any.order = *rc::gen::element(SwapOrder::old_first, SwapOrder::new_first, SwapOrder::together);
  any.overlap = *rc::gen::element(0.0, 0.3, 1.0);
  any.axis = *rc::gen::element(Axis::horizontal, Axis::vertical);
  return any;
}

}  // namespace

TEST_CASE("of quick changes of content the last one counts, and nothing of the others is left over") {
  PROPERTY("any changes at any times", [] {
    const SwapSettings settings = any_settings();
    std::vector<std::pair<double, std::size_t>> changes;
    double now = 10;
    const int count = *rc::gen::inRange(1, 10);
    for (int i = 0; i < count; ++i) {
      now += *rc::gen::element(0.0, 4.0, 60.0, 200.0, 900.0);
      changes.emplace_back(now, static_cast<std::size_t>(*rc::gen::inRange(0, 4)));
    }
    const auto run = [&](double fps) {
      Pages app(settings);
      double frame = 0;
      for (const auto& [at, to] : changes) {
        for (; fps > 0 && frame < at; frame += 1000 / fps) app.stage.advance(ms(frame));
        if (fps > 0) app.stage.advance(ms(at));
        std::vector<Box> before;
        for (const Pad* page : app.pages) before.push_back(page->box());
        app.go(at, to);
        // Nothing that is seen jumps.
        for (std::size_t i = 0; fps > 0 && i < 4; ++i)
          if (settings.way != SwapMotion::none && app.pages[i]->visible() &&
              app.swap->state_of(*app.pages[i]) == EnterExit::State::leaving)
            RC_ASSERT(length(Point{app.pages[i]->box().x - before[i].x,
                                   app.pages[i]->box().y - before[i].y}) < 1e-6);
      }
      for (; fps > 0 && frame < now + 3000; frame += 1000 / fps) app.stage.advance(ms(frame));
      app.stage.advance(ms(now + 3000));
      RC_ASSERT(app.stage.settled());
      const std::size_t last = changes.back().second;
      RC_ASSERT(app.swap->content() == last);
      const double at = static_cast<double>(last);
      for (std::size_t i = 0; i < 4; ++i) {
        const bool shown = i == last;
        const bool leaves_traces = settings.way == SwapMotion::none || settings.way == SwapMotion::slide;
        const bool plain = app.swap->visual_state_of(*app.pages[i]) == VisualState{};
        RC_ASSERT(app.pages[i]->visible() == shown);
        RC_ASSERT(app.swap->state_of(*app.pages[i]) ==
                  (shown ? EnterExit::State::present : EnterExit::State::absent));
        if (shown || leaves_traces) RC_ASSERT(plain);
      }
      const Box box{20, 100, 320.0 - 20 * at, 100.0 + 60 * at};
      RC_ASSERT(app.pages[last]->box() == box);
      RC_ASSERT(app.swap->size().w == box.w);
      RC_ASSERT(app.swap->size().h == box.h);
      if (!app.done.empty()) RC_ASSERT(app.done.back() == last);
      app.stage.touch({.time = ms(now + 4000), .contact = 1, .phase = Phase::down, .at = {100, 150}});
      RC_ASSERT(app.pressed.size() == 1U);
      RC_ASSERT(app.pressed[0] == static_cast<int>(last));
      return app.done;
    };
    const auto without = run(0);
    RC_ASSERT(run(24) == without);
    RC_ASSERT(run(240) == without);
  });
}

TEST_CASE("forward and back mirror each other, contents keep their size while the container glides") {
  for (const bool right_to_left : {false, true})
    for (const SwapMotion way : {SwapMotion::slide, SwapMotion::both}) {
      Pages app({.way = way,
                 .order = SwapOrder::together,
                 .enter = Timed{Curve{}, ms(200)},
                 .exit = Timed{Curve{}, ms(200)}},
                {.right_to_left = right_to_left});
      const double sign = right_to_left ? -1 : 1;
      app.go(1000, 1);
      app.stage.advance(ms(1050));
      const double left_by = app.pages[0]->box().x - 20;
      const double comes_by = app.pages[1]->box().x - 20;
      CHECK(left_by == Approx(sign * -12));
      CHECK(comes_by == Approx(sign * 36));
      const Size size = app.swap->size();
      CHECK(size.h > 100);
      CHECK(size.h < 160);
      CHECK(app.pages[0]->box().h == 100);
      CHECK(app.pages[1]->box().h == 160);
      CHECK(app.swap->visual_state_of(*app.pages[1]).scale == 1);
      std::vector<Box> surfaces;
      pieces_of(*app.swap, [&](const Piece& piece) { surfaces.push_back(piece.box); });
      REQUIRE(surfaces.size() == 1);
      CHECK(surfaces[0].h == size.h);
      app.go(3000, 0);
      app.stage.advance(ms(3050));
      CHECK(app.pages[1]->box().x - 20 == Approx(-left_by));
      CHECK(app.pages[0]->box().x - 20 == Approx(-comes_by));
    }
}

TEST_CASE("the newcomer begins as the old one is nearly gone, and nothing plays at first") {
  Pages app({.way = SwapMotion::fade,
             .overlap = 0.25,
             .enter = Timed{Curve{}, ms(200)},
             .exit = Timed{Curve{}, ms(200)}});
  CHECK(app.stage.settled());
  CHECK(app.pages[0]->visible());
  CHECK(app.done.empty());
  auto& later = app.stage.add<Swap>("later", {0, 520, 360, 100}, {});
  app.stage.add<Pad>("first", {0, 0, 200, 80}, {}, {.inside = "later"});
  CHECK(later.size() == Size{200, 80});  // as large as its first content at once
  CHECK(app.stage.settled());
  app.go(1000, 2);
  app.stage.advance(ms(1149));
  CHECK_FALSE(app.pages[2]->visible());
  CHECK(app.swap->visual_state_of(*app.pages[0]).opacity == Approx(1 - 0.745));
  app.stage.advance(ms(1151));
  CHECK(app.pages[2]->visible());
  app.stage.advance(ms(1200));
  CHECK_FALSE(app.pages[0]->visible());
  app.stage.advance(ms(2000));
  CHECK(app.done == std::vector<std::size_t>{2});
  // The same as a time.
  Pages timed({.way = SwapMotion::fade,
               .overlap_time = ms(30),
               .enter = Timed{Curve{}, ms(200)},
               .exit = Timed{Curve{}, ms(200)}});
  timed.go(1000, 1);
  timed.stage.advance(ms(1169));
  CHECK_FALSE(timed.pages[1]->visible());
  timed.stage.advance(ms(1171));
  CHECK(timed.pages[1]->visible());
  // At once, as the app may ask.
  app.stage.immediately([&] { app.page.set(app.page.get().with(1)); });
  CHECK(app.pages[1]->visible());
  CHECK(app.swap->size().h == 160);
  CHECK_FALSE(app.pages[2]->visible());
  CHECK(app.stage.act(*app.swap, "previous", ms(1)));
  settle(app.stage);
  CHECK(app.page.get().name() == "Notes");
}

TEST_CASE("how far a content would slide says nothing of when another one comes where none slides") {
  for (const SwapMotion way : {SwapMotion::fade, SwapMotion::uncover}) {
    std::vector<double> comes;
    for (const double distance : {0.0, 48.0}) {
      Pages app({.way = way,
                 .overlap = 0.25,
                 .distance = distance,
                 .enter = Timed{Curve{}, ms(200)},
                 .exit = Timed{Curve{}, ms(200)}});
      app.go(1000, 1);
      double at = 1000;
      while (!app.pages[1]->visible() && at < 3000) app.stage.advance(ms(++at));
      comes.push_back(at);
    }
    CHECK(comes == std::vector{1150.0, 1150.0});
  }
}

TEST_CASE("what belongs to a carousel's item comes as that of the item before has gone") {
  Cell<int> photo{0};
  Stage stage;
  stage.add<Carousel>("photos", {0, 60, 360, 300}, {.selected = photo, .count = 3});
  auto& about = stage.add<Swap>("about", {0, 400, 360, 120},
                                {.selected_index = photo,
                                 .overlap = 0,
                                 .enter = Timed{Curve{}, ms(200)},
                                 .exit = Timed{Curve{}, ms(100)}});
  std::vector<Pad*> texts;
  for (int i = 0; i < 3; ++i)
    texts.push_back(&stage.add<Pad>("text" + std::to_string(i), {0, 0, 360, 100}, {}, {.inside = "about"}));
  stage.advance(ms(0));
  CHECK(texts[0]->visible());
  for (int i = 0; i <= 6; ++i)
    stage.touch({.time = ms(1000 + 8 * i),
                 .contact = 1,
                 .phase = i == 0   ? Phase::down
                          : i == 6 ? Phase::up
                                   : Phase::move,
                 .at = {300.0 - 25 * i, 200}});
  CHECK(photo.get() == 1);
  stage.advance(ms(1048 + 99));
  CHECK(about.state_of(*texts[0]) == EnterExit::State::leaving);
  CHECK_FALSE(texts[1]->visible());
  stage.advance(ms(1048 + 100));
  CHECK_FALSE(texts[0]->visible());
  CHECK(about.state_of(*texts[1]) == EnterExit::State::entering);
  settle(stage);
  CHECK(stage.act(about, "next", stage.now()));
  CHECK(photo.get() == 2);
}

TEST_CASE("a swap beside a carousel that wraps goes the short way round, of two as short onwards") {
  for (const bool wrap : {false, true})
    for (std::size_t from = 0; from < 4; ++from)
      for (std::size_t to = 0; to < 4; ++to) {
        if (from == to) continue;
        CAPTURE(wrap, from, to);
        Cell<Choice> shows{Choice({"Brood", "Stores", "Pests", "Notes"}, from)};
        Stage stage({.journal = 100});
        stage.add<Swap>("tool bar", {0, 0, 360, 48}, {.selected = shows, .wrap = wrap});
        for (const char* name : {"Brood", "Stores", "Pests", "Notes"})
          stage.add<Button>(name, {0, 0, 360, 48}, {.label = name}, {.inside = "tool bar"});
        stage.advance(ms(0));
        shows.set(shows.get().with(to));
        stage.advance(ms(2000));
        const auto said = [&](const Answer& answer) {
          return std::any_of(stage.journal().decisions().begin(), stage.journal().decisions().end(),
                             [&](const Decision& one) { return one.says(answer); });
        };
        const std::size_t onwards = (to + 4 - from) % 4;
        const bool forward = wrap ? onwards <= 2 : to > from;
        CHECK(said(answers::swap_forward) == forward);
        CHECK(said(answers::swap_back) != forward);
      }
}
