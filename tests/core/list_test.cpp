// Lists: where items are, which of them are parts, and that nothing in view jumps.
#include <map>
#include <numeric>

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// A list of boxes 48 dp high with 4 dp between them, of which only those near its 200 dp are pads.
struct Rows {
  explicit Rows(double count, ListSettings settings = {}) : stage({.journal = 1000}) {
    settings.offset = offset;
    settings.count = count;
    settings.item_size = 48;
    settings.gap = 4;
    settings.ahead = 100;
    settings.on_near = [this](std::size_t item, Part* spare) -> Part& {
      Part* part = spare;
      if (part == nullptr)
        part = &stage.add<Pad>("row" + std::to_string(made++), {0, 0, 300, size_of(item)}, {},
                               {.inside = "rows"});
      else
        stage.place(*part, Placement::of({0, 0, 300, size_of(item)}));
      shows[part] = item;
      return *part;
    };
    list = &stage.add<List>("rows", {20, 100, 300, 200}, settings);
    stage.advance(ms(0));
  }
  [[nodiscard]] double size_of(std::size_t item) const {
    return uneven ? 48.0 + static_cast<double>(item % 5) * 10.0 : 48.0;
  }
  void fling(double at_ms, double by, double rest_ms = 0) {
    for (int i = 0; i <= 10; ++i)
      stage.touch({.time = ms(at_ms + 8 * i),
                   .contact = 1,
                   .phase = i == 0 ? Phase::down : Phase::move,
                   .at = {100, 200 + by * i / 10.0}});
    stage.touch({.time = ms(at_ms + 80 + rest_ms), .contact = 1, .phase = Phase::up, .at = {100, 200 + by}});
  }
  // Every item in view is a part that stands where the item is, and no part shows two.
  void look() {
    if (list->items() == 0) return;
    std::size_t found = 0;
    for (const auto& [part, item] : shows) {
      if (list->item_of(*part) == list->items()) {
        RC_ASSERT(!part->visible());
        continue;
      }
      RC_ASSERT(part->visible());
      const Box box = list->box_of(list->item_of(*part));
      RC_ASSERT(std::fabs(part->box().y - box.y) < 1e-6);
      RC_ASSERT(std::fabs(part->box().h - box.h) < 1e-6);
      if (list->item_of(*part) >= list->first() && list->item_of(*part) <= list->last()) ++found;
    }
    RC_ASSERT(found == list->last() - list->first() + 1);
  }

  Cell<double> offset{0};
  Stage stage;
  List* list = nullptr;
  int made = 0;
  bool uneven = false;
  std::map<Part*, std::size_t> shows;
};

}  // namespace

TEST_CASE("lengths side by side are found as a plain sum finds them") {
  PROPERTY("any changes", [] {
    const double gap = *rc::gen::element(0.0, 4.0, 12.5);
    std::vector<double> plain(static_cast<std::size_t>(*rc::gen::inRange(0, 40)), 48.0);
    Spans spans(plain.size(), 48.0, gap);
    const int changes = *rc::gen::inRange(0, 30);
    for (int change = 0; change < changes; ++change) {
      const auto at = static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(plain.size()) + 1));
      const auto place = plain.begin() + static_cast<std::ptrdiff_t>(at);
      const int what = *rc::gen::inRange(0, 4);
      if (what == 0) {
        plain.insert(place, 48.0);
        spans.insert(at);
      } else if (at < plain.size() && what == 1) {
        plain.erase(place);
        spans.remove(at);
      } else if (at < plain.size()) {
        const double size = *rc::gen::element(0.0, 20.0, 100.0, 333.3);
        RC_ASSERT(std::fabs(spans.measure(at, size) - (size - plain[at])) < 1e-9);
        plain[at] = size;
      }
    }
    RC_ASSERT(spans.count() == plain.size());
    double start = 0.0;
    for (std::size_t i = 0; i < plain.size(); ++i) {
      RC_ASSERT(std::fabs(spans.start(i) - start) < 1e-9);
      RC_ASSERT(std::fabs(spans.size(i) - plain[i]) < 1e-9);
      if (plain[i] > 1.0) RC_ASSERT(spans.at(start + plain[i] / 2) == i);
      start += plain[i] + gap;
    }
    RC_ASSERT(std::fabs(spans.total() - std::max(0.0, start - gap)) < 1e-9);
    if (!plain.empty()) {
      RC_ASSERT(spans.at(-10.0) == 0U);
      RC_ASSERT(spans.at(1e9) == plain.size() - 1);
    }
  });
}

TEST_CASE("of any number of items only those near the box are parts, and parts are used again") {
  for (const double count : {0.0, 1.0, 5.0, 100'000.0, 10'000'000.0}) {
    CAPTURE(count);
    Rows rows(count);
    for (int i = 0; i < 6; ++i) {
      rows.fling(1000.0 * i, -150);
      for (double t = 0; t < 900; t += 16) {
        rows.stage.advance(ms(1000.0 * i + 90 + t));
        rows.look();
      }
    }
    // 400 dp of items 52 dp apart, and those that are just coming and going.
    CHECK(rows.made <= 12);
    CHECK(rows.list->made() == std::min<std::size_t>(static_cast<std::size_t>(count), rows.list->made()));
    rows.stage.act(*rows.list, "to-end", ms(20'000));
    settle(rows.stage);
    rows.look();
    if (count >= 5) CHECK(rows.list->box_of(rows.list->items() - 1).bottom() == Approx(300));
    CHECK(rows.made <= 12);
  }
}

TEST_CASE("items that come and go move nothing at once, and end side by side") {
  PROPERTY("any removals, insertions and measures, also amid a fling", [] {
    Rows rows(30);
    rows.uneven = *rc::gen::arbitrary<bool>();
    double now = 0;
    rows.fling(now, *rc::gen::element(-150.0, -60.0));
    std::vector<int> names(rows.list->items());
    std::iota(names.begin(), names.end(), 0);
    int next = 1000;
    const int changes = *rc::gen::inRange(1, 12);
    now = 100;
    for (int change = 0; change < changes; ++change) {
      now += *rc::gen::element(0.0, 7.0, 90.0, 2000.0);
      rows.stage.advance(ms(now));
      const List& list = *rows.list;
      std::map<int, Box> before;
      for (std::size_t i = 0; i < list.items(); ++i) before[names[i]] = list.box_of(i);
      const auto at = static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(list.items()) + 1));
      const auto place = names.begin() + static_cast<std::ptrdiff_t>(at);
      const int what = *rc::gen::inRange(0, 3);
      const bool measures = what == 2 && at < list.items() && list.box_of(at).bottom() <= 100;
      if (what == 0 && at < list.items()) {
        rows.list->remove(at);
        names.erase(place);
      } else if (what == 1) {
        rows.list->insert(at);
        names.insert(place, next++);
      } else if (measures) {
        rows.list->measure(at, 70);
      }
      for (std::size_t i = 0; i < list.items(); ++i)
        if (before.contains(names[i]) && before[names[i]].bottom() > 100 && before[names[i]].y < 300)
          RC_ASSERT(std::fabs(list.box_of(i).y - before[names[i]].y) < 1e-6);
    }
    settle(rows.stage);
    rows.look();
    RC_ASSERT(rows.offset.get() == rows.list->offset());
    for (std::size_t i = 1; i < rows.list->items(); ++i)
      RC_ASSERT(std::fabs(rows.list->box_of(i).y - rows.list->box_of(i - 1).bottom() - 4) < 1e-6);
    RC_ASSERT(rows.list->offset() <= 0 &&
              rows.list->offset() >= std::min(0.0, 200 - rows.list->length()) - 1e-9);
  });
}

TEST_CASE("what is measured above the box leaves the view, and the cell says where that is at once") {
  Rows rows(30);
  rows.stage.immediately([&] { rows.offset.set(-300); });
  rows.list->measure(1, 70);
  CHECK(rows.list->offset() == -322);
  CHECK(rows.offset.get() == -322);
}

TEST_CASE("an app is told once of each change of the items in view, and of nothing else") {
  std::vector<std::pair<std::size_t, std::size_t>> told;
  Rows rows(40, {.on_view = [&](std::size_t first, std::size_t last) { told.emplace_back(first, last); }});
  for (int i = 1; i <= 300; ++i) {
    rows.stage.immediately([&] { rows.offset.set(-i); });
    REQUIRE(told.back() == std::pair{rows.list->first(), rows.list->last()});
  }
  CHECK(told.front().first == 0);
  CHECK(told.back().first > 4);
  CHECK(std::adjacent_find(told.begin(), told.end()) == told.end());
  // A move on which the list yields past its end reaches it in two steps; what lies between is not told.
  rows.stage.immediately([&] { rows.offset.set(0); });
  for (int i = 0; i <= 60; ++i) {
    const std::size_t before = told.size();
    rows.stage.touch({.time = ms(1000 + 8 * i),
                      .contact = 1,
                      .phase = i == 0 ? Phase::down : Phase::move,
                      .at = {100, 150.0 + 8 * i}});
    CHECK(told.size() <= before + 1);
    CHECK(told.back() == std::pair{rows.list->first(), rows.list->last()});
  }
}

TEST_CASE("with less motion what comes and goes among items is there at once") {
  for (const Reduced reduced : {Reduced::fade, Reduced::still}) {
    Rows rows(30);
    rows.stage.set_reduced_motion(reduced);
    const double third = rows.list->box_of(2).y;
    rows.list->insert(2);
    CHECK(rows.list->box_of(3).y == third + 52);
    rows.list->remove(1);
    CHECK(rows.list->box_of(2).y == third);
    CHECK(rows.stage.settled());
  }
}

TEST_CASE("an item that comes where a gap opens moves nothing that is in view") {
  Rows rows(30);
  const auto scroll = [&](double to) { rows.stage.immediately([&] { rows.offset.set(to); }); };
  scroll(-202);
  for (int i = 0; i < 3; ++i) rows.list->insert(4);
  scroll(-222);
  const Box in_view = rows.list->box_of(4);
  REQUIRE(in_view.y < 100);
  REQUIRE(in_view.bottom() > 100);
  rows.list->insert(5);  // what stands there now lies where the gap opens: above the box
  CHECK(rows.list->box_of(4) == in_view);
}

TEST_CASE("parts that lie in a list are its items, one that is hidden or removed leaves a gap that closes") {
  for (const bool right_to_left : {false, true}) {
    Stage stage{{.right_to_left = right_to_left}};
    auto& list = stage.add<List>("list", {20, 100, 300, 200}, {.gap = 10, .axis = Axis::horizontal});
    std::vector<Pad*> pads;
    for (int i = 0; i < 8; ++i)
      pads.push_back(
          &stage.add<Pad>("pad" + std::to_string(i), {0, 0, 60.0 + i, 200}, {}, {.inside = "list"}));
    const auto start = [&](int i) {
      const Box box = pads[static_cast<std::size_t>(i)]->box();
      return right_to_left ? 320 - box.right() : box.x - 20;
    };
    settle(stage);
    CHECK(list.items() == 8);
    CHECK(start(0) == 0);
    CHECK(start(3) == 3 * 70 + 3);
    stage.hide(*pads[1]);
    CHECK(start(2) == Approx(2 * 70 + 1));  // at first where it was
    stage.advance(stage.now() + ms(50));
    CHECK(start(2) < 2 * 70 + 1);
    CHECK(start(2) > 70);
    settle(stage);
    CHECK(start(2) == Approx(70));
    stage.remove(*pads[2]);
    settle(stage);
    CHECK(list.items() == 7);
    CHECK(start(3) == Approx(70));
    stage.show(*pads[1]);
    settle(stage);
    CHECK(start(3) == Approx(2 * 70 + 1));
    CHECK(list.item_of(*pads[3]) == 2);
    CHECK(list.length() == Approx(60 + 61 + 63 + 64 + 65 + 66 + 67 + 6 * 10));
    // To its end and back, by keys.
    stage.focus("list");
    stage.press(Key::end, stage.now());
    settle(stage);
    CHECK(start(7) + 67 == Approx(300));
    stage.press(right_to_left ? Key::right : Key::left, stage.now());
    settle(stage);
    CHECK(start(7) + 67 == Approx(348));
  }
}

TEST_CASE("what an app gives a list that does not lie in it is refused, and says why") {
  Stage stage;
  auto& other = stage.add<Pad>("other", {0, 0, 10, 10}, {});
  stage.add<List>("list", {0, 0, 100, 100},
                  {.count = 3, .on_near = [&](std::size_t, Part*) -> Part& { return other; }});
  CHECK_THROWS_WITH(stage.advance(ms(0)), Catch::Contains("does not lie in it"));
  CHECK_THROWS_WITH(stage.add<List>("b", {0, 0, 100, 100}, {.count = 1.5}),
                    Catch::Contains("a whole number"));
}

TEST_CASE("what is asked of items that are not there changes nothing") {
  for (const double count : {1.0, 40.0}) {
    Rows rows(count);
    const auto items = static_cast<std::size_t>(count);
    const double length = rows.list->length();
    for (const std::size_t beyond : {items, items + 1}) {
      rows.list->measure(beyond, 90);
      rows.list->remove(beyond);
      for (const double size : {-1.0, HUGE_VAL, std::nan("")}) rows.list->measure(items - 1, size);
      settle(rows.stage);
      CHECK(rows.list->items() == items);
      CHECK(rows.list->length() == length);
    }
    rows.list->insert(items);  // behind the last is a place
    settle(rows.stage);
    CHECK(rows.list->items() == items + 1);
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
             return stage.add<Pad>("row" + std::to_string(made++), size, {.gestures = {.drags = Drags::none}},
                                   {.inside = "rows"});
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
    // An item that lies above gets another size: nothing in view moves, and the list begins where it did.
    stage.at(ms(3000), [&] { list.scroll_to(10); });
    stage.advance(ms(6000));
    list.measure(0, 90);
    CHECK(list.box_of(10).y == Approx(0).margin(1e-6));
    CHECK(list.box_of(0).h == 90);
    for (const double at : {6100.0, 7100.0, 8100.0}) drag(stage, at, {180, 20}, {180, 390});
    settle(stage);
    CHECK(list.offset() == 0);
  }
}

TEST_CASE(
    "items that come and go while a list is on its way leave it on its way to the item it was sent to") {
  struct Case {
    bool comes;
    std::size_t at, aim;  // where what it was sent to, 200, is then
  };
  for (const Case& c : {Case{true, 3, 201},
                        {true, 200, 201},
                        {true, 201, 200},
                        {false, 3, 199},
                        {false, 199, 199},
                        {false, 201, 200}}) {
    CAPTURE(c.comes, c.at);
    Stage stage;
    auto& list = stage.add<List>("rows", {0, 0, 360, 400}, {.count = 400, .item_size = 40});
    stage.advance(ms(0));
    stage.at(ms(10), [&] { list.scroll_to(200); });
    stage.at(ms(100), [&] { c.comes ? list.insert(c.at) : list.remove(c.at); });
    stage.advance(ms(5000));
    CHECK(list.box_of(c.aim).y == Approx(0).margin(1e-6));
    CHECK(list.items() == (c.comes ? 401 : 399));
  }
}

TEST_CASE("a list shorter than its box stays where it is, keys go by pages where there are more") {
  Stage stage;
  auto& few = stage.add<List>("few", {0, 0, 360, 300}, {.count = 2, .item_size = 40});
  auto& many = stage.add<List>("many", {0, 300, 360, 300}, {.count = 40, .item_size = 40});
  stage.advance(ms(0));
  for (const double by : {-200.0, 200.0}) {
    swipe(stage, {180, 150}, {180, 150 + by});
    settle(stage);
    CHECK(few.offset() == 0);
    CHECK(few.target() == 0);
  }
  stage.focus("many");
  double before = 0;
  for (const Key key : {Key::page_down, Key::page_down, Key::page_up, Key::page_up}) {
    stage.press(key, stage.now() + ms(5));
    settle(stage);
    CHECK((many.offset() < before) == (key == Key::page_down));
    CHECK(std::fabs(many.offset() - before) > 200);
    CHECK(std::fabs(many.offset() - before) <= 300);
    before = many.offset();
  }
  CHECK(many.offset() == 0);
}
