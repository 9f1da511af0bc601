// Carousels: places and looks of their items, the way round, both ends.
#include "ubbo/testing/check.hpp"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE(
    "a carousel: its items' places, looks by distance, the short way round, one at a time, by a tap on a "
    "neighbour") {
  for (const bool right_to_left : {false, true}) {
    Stage stage({.right_to_left = right_to_left, .journal = 100});
    Cell<int> index{0};
    Cell<double> place{0};
    Carousel& photos = stage.add<Carousel>("photos", {0, 0, 360, 300},
                                           {.selected = index,
                                            .position = place,
                                            .count = 6,
                                            .spacing = 20,
                                            .peek = 40,
                                            .wrap = true,
                                            .shrink = 0.2,
                                            .fade = 0.5});
    CHECK(photos.item_length() == 280);
    CHECK(photos.item(0).x == 40);
    CHECK(photos.item(1).x == (right_to_left ? -260 : 340));
    CHECK(photos.look(0).scale == 1);
    CHECK(photos.look(-0.5).scale == Approx(0.9));
    CHECK(photos.look(7).opacity == 0.5);
    stage.at(ms(0), [&] { photos.go_to(5); });
    stage.advance(ms(100));
    CHECK(photos.position() < 0);  // the short way
    settle(stage);
    CHECK(index.get() == 5);
    CHECK(photos.position() == -1);
    CHECK(place.get() == 5);
    CHECK(words::sentence(stage.journal().decisions().back()) == "at rest at item 6 of 6");
    CHECK(photos.layer_offset(0.5) == (right_to_left ? -150 : 150));
    tap_on(stage, {right_to_left ? 20.0 : 340.0, 100});  // the one that peeks in next
    settle(stage);
    CHECK(index.get() == 0);
    swipe(stage, {right_to_left ? 30.0 : 330.0, 100}, {right_to_left ? 340.0 : 20.0, 100},
          4);  // a flick over more than one
    settle(stage);
    CHECK(index.get() == 1);
    stage.act(photos, "previous", stage.now());
    settle(stage);
    CHECK(index.get() == 0);
  }
  Stage wide({.width = 800});
  const Carousel& three = wide.add<Carousel>(
      "photos", {0, 0, 660, 100}, {.count = 9, .visible_items = 1, .visible_items_wide = 3, .spacing = 30});
  CHECK(three.item_length() == 200);
  CHECK(three.item(2).right() == 660);
}

TEST_CASE("what a finger goes on past the end of a carousel moves what lies around it, to the dp") {
  for (const double peek : {0.0, 40.0}) {
    Stage stage;
    const Pane& plan =
        stage.add<Pane>("plan", {0, 0, 360, 720}, {.min = -400, .max = 400, .axis = Axis::horizontal});
    Carousel& photos = stage.add<Carousel>("photos", {0, 0, 360, 300},
                                           {.count = 2,
                                            .peek = peek,
                                            .overscroll_start = Overscroll::How::none,
                                            .overscroll_end = Overscroll::How::none},
                                           {.inside = "plan"});
    stage.at(ms(0), [&] { photos.go_to(1); });
    settle(stage);
    const double begins = to_ms(stage.now());
    const double far = photos.item_length() + 60;
    touch(stage, begins, Phase::down, {5, 100});
    for (int i = 1; i <= 20; ++i) touch(stage, begins + 20 * i, Phase::move, {5 + far * i / 20, 100});
    CHECK(photos.position() == 0);
    CHECK(plan.offset() == Approx(60 - stage.feel().drag_threshold));
  }
}

TEST_CASE("each end of a carousel yields in its own way") {
  for (const Overscroll::How start :
       {Overscroll::How::none, Overscroll::How::linear, Overscroll::How::damped})
    for (const Overscroll::How end :
         {Overscroll::How::none, Overscroll::How::linear, Overscroll::How::damped})
      for (const bool right_to_left : {false, true})
        for (const bool vertical : {false, true}) {
          Stage stage({.right_to_left = right_to_left});
          auto& photos = stage.add<Carousel>("photos", {0, 0, 300, 300},
                                             {.count = 2,
                                              .axis = vertical ? Axis::vertical : Axis::horizontal,
                                              .overscroll_start = start,
                                              .overscroll_end = end,
                                              .overscroll_fraction = 0.25});
          Micros now = ms(0);
          for (const bool at_end : {false, true}) {
            if (at_end) stage.act(photos, "next", now);
            stage.advance(now += ms(3000));
            // Away from what there is, 90 dp further than the threshold.
            const double sign = (at_end ? -1 : 1) * (right_to_left && !vertical ? -1 : 1);
            const double way = 90 + photos.feel_for(Tool::finger).threshold(photos.settings().axis);
            const auto at = [&](double by) {
              return vertical ? Point{150, 150 + sign * by} : Point{150 + sign * by, 150};
            };
            stage.touch({.time = now, .contact = 1, .phase = Phase::down, .at = at(0)});
            for (int i = 1; i <= 20; ++i)
              stage.touch(
                  {.time = now += ms(10), .contact = 1, .phase = Phase::move, .at = at(way * i / 20)});
            const double beyond = 300 * (at_end ? photos.position() - 1 : -photos.position());
            const Overscroll::How how = at_end ? end : start;
            INFO(at_end << " " << static_cast<int>(how) << " " << beyond);
            if (how == Overscroll::How::none) CHECK(beyond == 0);
            if (how == Overscroll::How::linear) CHECK(beyond == Approx(0.25 * 90).margin(3));
            if (how == Overscroll::How::damped) CHECK((beyond > 0.25 * 90 && beyond < 90));
            stage.touch({.time = now += ms(200), .contact = 1, .phase = Phase::up, .at = at(way)});
          }
          settle(stage);
          CHECK(photos.position() == 1);
        }
}
