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
          for (const int device : {0, 1})
            alone.stage.touch(
                {.time = ms(60'000), .phase = Phase::leave, .at = {1, 1}, .tool = tool, .device = device});
        alone.stage.advance(ms(61'000));
        const bool hovers = stage.hovered() != nullptr;
        RC_ASSERT_FALSE(hovers);
        RC_ASSERT(alone.part->hover() == 0.0);
      }
    });
  });
}

TEST_CASE(
    "never two are hovered, and none whose pointer has gone, that was removed, covered or scrolled away") {
  PROPERTY("a list of buttons, a button over it, and a dialog", [] {
    Stage stage;
    auto& list = stage.add<List>("list", {20, 100, 320, 300}, {.label = "Rows"});
    std::vector<Handle> some;
    for (int i = 0; i < 12; ++i)
      some.push_back(stage.handle(stage.add<Button>("row" + std::to_string(i), Box{0, 0, 320, 60},
                                                    {.label = "Row"}, {.inside = "list"})));
    some.push_back(stage.handle(stage.add<Button>("cover", {60, 180, 200, 120}, {.label = "Cover"})));
    auto& dialog = stage.add<Dialog>("ask", {60, 250, 240, 200}, {.label = "Close?"});
    const auto any = [&] { return stage.get(some[*rc::gen::inRange<std::size_t>(0, some.size())]); };
    Micros now{0};
    Point pointer{};
    bool there = false;
    bool down = false;
    std::pair<int, Tool> whose{};  // of several pointers the one that moved last counts
    const int count = *rc::gen::inRange(3, 40);
    for (int i = 0; i < count; ++i) {
      now += ms(*rc::gen::element(3, 40, 400));
      const Point at{*number(0, 360), *number(60, 460)};
      const std::pair device{*rc::gen::inRange(0, 2), *rc::gen::element(Tool::mouse, Tool::stylus)};
      const auto say = [&](Phase phase, int contact, Tool tool, int from) {
        stage.touch(
            {.time = now, .contact = contact, .phase = phase, .at = at, .tool = tool, .device = from});
      };
      Part* one = any();
      switch (*rc::gen::inRange(0, 13)) {
        case 0:
          say(Phase::leave, 0, device.second, device.first);
          if (device == whose) there = false;
          break;
        case 1:
          stage.at(now, [&] { list.scroll_to(*rc::gen::inRange<std::size_t>(0, 12)); });
          break;
        case 2:
          stage.wheel(
              {.time = now, .at = at, .by = {0, *rc::gen::element(-2.0, 2.0)}, .unit = WheelUnit::notch});
          break;
        case 3:
          if (one != nullptr) stage.at(now, [&] { stage.show(*one, one->hidden()); });
          break;
        case 4:
          if (one != nullptr) stage.at(now, [&] { stage.enable(*one, !one->enabled()); });
          break;
        case 5:
          if (one != nullptr) stage.at(now, [&] { stage.remove(*one); });
          break;
        case 6:
          stage.at(now, [&] { dialog.open_layer() ? dialog.close() : dialog.open(); });
          break;
        case 7:
          say(down ? Phase::up : Phase::down, 9, Tool::finger, 7);
          down = !down;
          break;
        default:
          say(Phase::hover, 0, device.second, device.first);
          pointer = at;
          whose = device;
          there = true;
      }
      RC_ASSERT(!(down && stage.hovered() != nullptr));
    }
    if (down) stage.touch({.time = now, .contact = 9, .phase = Phase::up, .at = {1, 1}, .device = 7});
    stage.advance(now + ms(6000));
    // Looked for by hand: from the topmost on, what is seen there.
    const Part* under = nullptr;
    for (auto at = stage.parts().rbegin(); there && under == nullptr && at != stage.parts().rend(); ++at)
      if ((*at)->visible() && (*at)->takes(pointer)) under = *at;
    if (under != nullptr && under->box().depth(pointer) < 0.0)
      under = nullptr;  // beside it, as on a backdrop
    if (stage.modal() != nullptr && under != stage.modal()) under = nullptr;
    while (under != nullptr && !under->enabled()) under = under->outer();  // what it lies in still scrolls
    RC_ASSERT(stage.hovered() == under);
    for (const Part* part : stage.parts()) RC_ASSERT(part->hover() == (part == under ? 1.0 : 0.0));
  });
}

TEST_CASE("one piece is hovered at a time, and hints at the cursor") {
  Stage stage({.width = 360});
  Cell<double> stars(2);
  Cell<Choice> box{Choice({"Brood", "Super"})};
  auto& rating = stage.add<Rating>("stars", {0, 0, 300, 60}, {.label = "Temper", .value = stars});
  stage.add<Tabs>("boxes", {0, 100, 200, 44}, {.label = "Boxes", .selected = box});
  stage.add<Draggable>("smoker", {0, 200, 80, 80}, {.label = "Smoker"});
  auto& off = stage.add<Button>("off", {0, 300, 100, 50}, {.label = "Off"});
  stage.add<Sheet>("sheet", {0, 400, 360, 320}, {.label = "Ridge", .dim = 0});
  stage.disable(off);
  const auto shares = [&](const Part& part) {
    std::string all;
    pieces_of(part, [&](const Piece& piece) {
      if (piece.cursor != Cursor::automatic) all += piece.hover > 0.5 ? "x" : "-";
    });
    return all;
  };
  CHECK(stage.cursor() == Cursor::automatic);
  stage.touch(mouse(ms(0), rating.mark(1).centre()));
  stage.advance(ms(500));
  CHECK(shares(rating) == "-x---");
  CHECK(stage.cursor() == Cursor::pointer);
  stage.touch(mouse(ms(510), rating.mark(3).centre()));
  stage.advance(ms(1000));
  CHECK(shares(rating) == "---x-");
  CHECK(rating.hover() == 1.0);
  stage.touch(mouse(ms(1010), {150, 140}));  // touched there, though its words are not so high
  stage.advance(ms(1500));
  CHECK(shares(*stage.find("boxes")) == "-x");
  stage.touch(mouse(ms(1600), {40, 240}));
  CHECK(stage.cursor() == Cursor::grab);
  stage.touch(mouse(ms(1610), {40, 240}, Phase::down));
  stage.touch(mouse(ms(1620), {70, 240}, Phase::move));
  CHECK(stage.cursor() == Cursor::grabbing);
  stage.touch(mouse(ms(1630), {70, 240}, Phase::up));
  stage.touch(mouse(ms(1700), {50, 320}));
  CHECK(stage.cursor() == Cursor::not_allowed);
  stage.touch(mouse(ms(1710), {340, 390}));
  CHECK(stage.cursor() == Cursor::automatic);
}

TEST_CASE("what comes over a hovered part comes from the pointer's side, each property in its own time") {
  for (const auto& [from, way] :
       {std::pair{Point{10, 250}, Point{-1, 0}}, std::pair{Point{200, 10}, Point{0, -1}},
        std::pair{Point{390, 250}, Point{1, 0}}, std::pair{Point{200, 490}, Point{0, 1}}}) {
    Stage stage;
    auto& photo = stage.add<Button>("photo", {100, 100, 200, 300}, {.label = "Frame 3"});
    photo.set_content({.image = "frame-3",
                       .hover = HoverContent{.words = "Frame 3",
                                             .overlay = 0.8,
                                             .scale = 1.5,
                                             .distance = 0.5,
                                             .opacity_transition = Timed{Curve{}, ms(100)},
                                             .offset_transition = Timed{Curve{}, ms(400)},
                                             .scale_transition = Timed{Curve{}, ms(200)}}});
    stage.touch(mouse(ms(0), from));
    stage.touch(mouse(ms(1000), {200, 250}));
    stage.advance(ms(1050));
    const auto look = [&](const char* name) {
      Piece found;
      pieces_of(photo, [&](const Piece& piece) {
        if (piece.name == std::string_view(name) || (*name == '\0' && piece.role == Role::button))
          found = piece;
      });
      return found;
    };
    const Piece shade = look("overlay");
    CHECK(shade.opacity == Approx(0.4));
    const double left = 0.5 * (1.0 - 50.0 / 400.0);
    CHECK(length(shade.box.centre() - Point{200, 250} - Point{way.x * 200 * left, way.y * 300 * left}) <
          1e-9);
    REQUIRE(look("").image_box);
    CHECK(look("").image_box->w == Approx(200 * 1.125));
    CHECK(*look("").image_clip == Box{100, 100, 200, 300});
    CHECK(*shade.clip == Box{100, 100, 200, 300});
    stage.advance(ms(1100));
    CHECK(look("caption").opacity == Approx(1.0));
    CHECK_FALSE(stage.settled());
    stage.advance(ms(1400));
    CHECK(look("overlay").box == Box{100, 100, 200, 300});
    CHECK(stage.settled());
    // And goes where the pointer goes.
    stage.touch(mouse(ms(2000), {350, 250}));
    stage.advance(ms(2050));
    CHECK(look("overlay").box.centre().x > 200);
    stage.advance(ms(2500));
    CHECK(look("overlay").name != std::string_view("overlay"));
  }
}

TEST_CASE("a part that goes takes nothing of how others show a pointer") {
  Stage stage;
  auto& left = stage.add<Button>("left", {0, 0, 100, 100}, {.label = "Left"});
  auto& right = stage.add<Button>("right", {100, 0, 100, 100}, {.label = "Right"});
  stage.advance(ms(0));
  stage.touch(mouse(ms(1), {50, 50}));
  stage.touch(mouse(ms(500), {150, 50}));
  stage.advance(ms(540));
  const double shown = right.hover();
  CHECK((shown > 0 && shown < 1 && left.hover() > 0));
  stage.remove(left);
  CHECK(right.hover() == shown);
  const Button& next = stage.add<Button>("next", {0, 0, 100, 100}, {.label = "Next"});
  CHECK(next.hover() == 0);
  stage.advance(ms(1000));
  CHECK(right.hover() == 1);
}
