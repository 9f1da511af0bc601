// Every threshold at its very number, and a hair to either side of it.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

constexpr double hair = 1.0 / 1024;  // dp or ms; whole microseconds where it counts

// A stage on which a finger does things; times in ms.
struct Hand {
  explicit Hand(Feel feel = {}) : stage({.feel = feel, .journal = 1000}) {}
  bool touch(double at, Phase phase, Point where, int contact = 1, double size = 0) {
    return stage.touch({.time = ms(at), .contact = contact, .phase = phase, .at = where, .size = size});
  }
  void press(Point from, Point to, double lifts) {
    touch(0, Phase::down, from);
    touch(20, Phase::move, to);
    touch(lifts, Phase::up, to);
    settle(stage);
  }
  bool said(const Answer& answer) const {
    for (const Decision& one : stage.journal().decisions())
      if (one.answer == &answer) return true;
    return false;
  }
  Stage stage;
};

struct EdgeCase {
  const char* name;
  double at;
  bool at_it;   // what happens at the number itself
  bool beyond;  // and above it
  std::function<bool(double)> happens;
};

}  // namespace

TEST_CASE("each threshold decides at its very number as it says") {
  const Box box{100, 100, 200, 48};
  const Point middle{200, 124};
  const auto pad = [&](Hand& hand, PadSettings settings) -> Pad& {
    return hand.stage.add<Pad>("pad", box, std::move(settings));
  };
  const auto track = [&](Point to, double lifts) {  // the value a press of a slider's track comes to
    Cell<double> value{0};
    Hand hand({.drag_threshold = 100});
    hand.stage.add<Slider>("slider", box, {.value = value, .to = 10, .step = 1});
    hand.press({290, 124}, Point{290, 124} + to, lifts);
    return value.get() > 5;
  };
  const auto slid = [&](double by,
                        SwipeRowSettings settings) {  // a drag of 8 dp and more, at rest at its end
    Hand hand;
    auto& row = hand.stage.add<SwipeRow>("row", {0, 100, 256, 48}, settings);
    hand.touch(0, Phase::down, {20, 124});
    hand.touch(20, Phase::move, {20 + 8 + by, 124});
    hand.touch(220, Phase::up, {20 + 8 + by, 124});
    return row.state();
  };
  const auto rows = [&](double gap, double apart) {  // taps in the row, the second so late and so far
    Cell<int> taps{0};
    Hand hand;
    hand.stage.add<Pad>("pad", {0, 0, 360, 720}, {.taps = taps});
    hand.touch(0, Phase::down, middle);
    hand.touch(50, Phase::up, middle);
    hand.touch(50 + gap, Phase::down, middle + Point{apart, 0});
    hand.touch(90 + gap, Phase::up, middle + Point{apart, 0});
    settle(hand.stage);
    return taps.get() == 2;
  };
  const EdgeCase thresholds[] = {
      {"a drag", 8, true, true,
       [&](double by) {
         Cell<double> value{5};
         Hand hand;
         const auto& slider = hand.stage.add<Slider>("slider", box, {.value = value, .to = 10});
         hand.touch(0, Phase::down, middle);
         hand.touch(20, Phase::move, middle + Point{by, 0});
         return slider.dragging();
       }},
      {"a tap on a track, held", 400, true, false, [&](double held) { return track({}, held); }},
      {"a tap on a track, strayed", 12, true, false,
       [&](double by) {
         return track({0, by}, 100);
       }},
      {"a tap on a pad, held", 400, true, false,
       [&](double held) {
         Cell<int> taps{0};
         Hand hand;
         pad(hand, {.gestures = {.long_press = false}, .taps = taps});
         hand.press(middle, middle, held);
         return taps.get() == 1;
       }},
      {"a tap on a pad, strayed", 12, true, false,
       [&](double by) {
         Cell<int> taps{0};
         Hand hand({.drag_threshold = 100});
         pad(hand, {.gestures = {.drags = Drags::none}, .taps = taps});
         hand.press(middle, middle + Point{by, 0}, 100);
         return taps.get() == 1;
       }},
      {"a long press", 450, true, true,
       [&](double held) {
         Hand hand;
         bool told = false;
         pad(hand,
             {.on_gesture = [&](const Gesture& one) { told = told || one.kind == GestureKind::long_press; }});
         hand.press(middle, middle, held);
         return told;
       }},
      {"a further tap, so late", 300, false, false, [&](double gap) { return rows(gap, 0); }},
      {"a further tap, so far", 36, true, false, [&](double apart) { return rows(100, apart); }},
      {"a button, so far beside it", 12, true, false,
       [&](double by) {
         Hand hand;
         Cell<int> presses{0};
         hand.stage.add<Button>("button", box, {.presses = presses});
         hand.press(middle, {middle.x, box.bottom() + by}, 100);
         return presses.get() == 1;
       }},
      {"a switch, strayed", 12, true, false,
       [&](double by) {
         Hand hand;
         Cell<bool> on{false};
         hand.stage.add<Switch>("switch", {100, 100, 100, 48}, {.on = on});
         hand.press({150, 124}, {150, 124 + by}, 100);
         return on.get();
       }},
      {"a palm", 40, true, true,
       [&](double size) {
         Hand hand({.palm_size = 40});
         pad(hand, {});
         return !hand.touch(0, Phase::down, middle, 1, size);
       }},
      {"the bezel", 4, true, false,
       [&](double from_edge) {
         Hand hand({.bezel = 4});
         hand.stage.add<Pad>("pad", {0, 0, 360, 720}, {});
         return !hand.touch(0, Phase::down, {from_edge, 300});
       }},
      {"an edge a drawer is pulled from", 18, true, false,
       [&](double from_edge) {
         Hand hand;
         hand.stage.add<Drawer>("drawer", {0, 0, 200, 720}, {});
         return hand.touch(0, Phase::down, {from_edge, 300});
       }},
      {"an edge a page is drawn back from", 18, true, false,
       [&](double from_edge) {
         Hand hand;
         Cell<Choice> page{Choice({"Hives", "Ridge"}, 1)};
         auto& host = hand.stage.add<PageHost>("rounds", {0, 0, 360, 720}, {.selected = page});
         for (const char* name : {"a", "b"})
           hand.stage.add<Pad>(name, {0, 0, 360, 720}, {.gestures = {.drags = Drags::none}},
                               {.inside = "rounds"});
         hand.touch(0, Phase::down, {from_edge, 300});
         hand.touch(20, Phase::move, {from_edge + 60, 300});
         return host.dragging();
       }},
      {"an edge swipe", 18, true, false,
       [&](double from_edge) {
         Hand hand;
         bool told = false;
         hand.stage.add<Pad>("pad", {0, 0, 360, 720},
                             {.gestures = {.edges = true}, .on_gesture = [&](const Gesture& one) {
                                told = told || one.kind == GestureKind::edge_swipe;
                              }});
         hand.touch(0, Phase::down, {from_edge, 300});
         hand.touch(20, Phase::move, {from_edge + 60, 300});
         return told;
       }},
      {"a pinch", 10, true, true,
       [&](double by) {
         Hand hand;
         bool told = false;
         pad(hand,
             {.on_gesture = [&](const Gesture& one) { told = told || one.kind == GestureKind::pinch; }});
         hand.touch(0, Phase::down, {150, 124}, 1);
         hand.touch(0, Phase::down, {250, 124}, 2);
         hand.touch(20, Phase::move, {150 - by / 2, 124}, 1);
         hand.touch(20, Phase::move, {250 + by / 2, 124}, 2);
         return told;
       }},
      {"a rest before the lift", 50, true, true,
       [&](double rest) {
         Hand hand;
         hand.stage.add<Pane>("pane", {0, 0, 360, 720}, {.min = -500, .max = 500});
         hand.touch(0, Phase::down, {180, 300});
         for (int i = 1; i <= 10; ++i) hand.touch(8 * i, Phase::move, {180, 300.0 + 8 * i});
         hand.touch(80 + rest, Phase::up, {180, 380});
         return hand.said(answers::lifted_resting);
       }},
      {"what still counts as rest", 1.5, true, false,
       [&](double by) {
         Hand hand;
         hand.stage.add<Pane>("pane", {0, 0, 360, 720}, {.min = -500, .max = 500});
         hand.touch(0, Phase::down, {180, 300});
         for (int i = 1; i <= 10; ++i) hand.touch(8 * i, Phase::move, {180, 300.0 + 8 * i});
         hand.touch(140, Phase::move, {180, 380 + by});
         hand.touch(140, Phase::up, {180, 380 + by});
         return hand.said(answers::lifted_resting);
       }},
      {"a row that opens", 32, true, true,
       [&](double by) { return slid(by, {.leading = 64}) == SwipeRow::State::open; }},
      {"a row that commits", 128, true, true,
       [&](double by) {
         return slid(by, {.leading = 64, .commit_distance = Length::of(0.5)}) == SwipeRow::State::committed;
       }},
      {"a carousel that goes on", 50, true, true,
       [&](double by) {
         Hand hand;
         Cell<int> photo{2};
         hand.stage.add<Carousel>("photos", {0, 0, 200, 300},
                                  {.selected = photo, .count = 9, .commit_distance = Length::of(0.25)});
         hand.press({150, 100}, {150 - 8 - by, 100}, 250);
         return photo.get() == 3;
       }},
      {"a card that is thrown", 64, true, true,
       [&](double by) {
         Hand hand;
         Cell<int> top{0};
         hand.stage.add<CardDeck>("hives", {40, 100, 256, 300},
                                  {.selected = top, .count = 3, .commit_distance = Length::of(0.25)});
         hand.press({100, 200}, {100 + 8 + by, 200}, 250);
         return top.get() == 1;
       }},
      {"a part's last column", 300, false, false, [&](double x) {
         Hand hand;
         pad(hand, {});
         return hand.touch(0, Phase::down, {x, 124});
       }}};
  for (const EdgeCase& edge : thresholds) {
    CAPTURE(edge.name);
    CHECK(edge.happens(edge.at - hair) != edge.beyond);
    CHECK(edge.happens(edge.at) == edge.at_it);
    CHECK(edge.happens(edge.at + hair) == edge.beyond);
  }
}
