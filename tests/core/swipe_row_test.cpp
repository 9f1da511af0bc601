// The actions that a swipe row uncovers: who gets a press there, what it does, and what is said of it.
#include <string>

#include "ubbo/stage/stage.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct Row {
  Cell<int> moved{0};
  Cell<int> below{0};
  std::string told{};
  Stage stage{{.journal = 256}};
  SwipeRow* row = nullptr;

  explicit Row(bool with_action = true, bool right_to_left = false)
      : stage({.right_to_left = right_to_left, .journal = 256}) {
    stage.add<Button>("behind", {0, 100, 360, 60}, {.label = "Behind", .presses = below});
    SwipeRowSettings settings{.label = "Ridge", .leading = 80, .trailing = 80, .trailing_label = "Move"};
    if (with_action) {
      settings.trailing_presses = moved;
      settings.on_action = [this](const char* side) { told += side; };
    }
    row = &stage.add<SwipeRow>("row", {0, 100, 360, 60}, std::move(settings));
    row->open(1);
    settle(stage);
  }
  void touch(Phase phase, Point at, double after) {
    stage.touch({.time = stage.now() + ms(after), .contact = 1, .phase = phase, .at = at});
  }
  void press(Point from, Point to) {
    touch(Phase::down, from, 10);
    if (!(from == to)) touch(Phase::move, to, 40);
    touch(Phase::up, to, 40);
    settle(stage);
  }
};

}  // namespace

TEST_CASE("the action that a row uncovers is pressed where it is seen, and closes the row") {
  for (const bool right_to_left : {false, true}) {
    Row it(true, right_to_left);
    const Point action{right_to_left ? 40.0 : 320.0, 130};
    REQUIRE(it.row->uncovered().contains(action));
    it.touch(Phase::down, action, 10);
    CHECK(it.row->action_pressed());
    CHECK(it.moved.get() == 0);
    it.touch(Phase::up, action + Point{3, 2}, 80);
    CHECK(it.moved.get() == 1);
    CHECK(it.told == "trailing");
    settle(it.stage);
    CHECK(it.row->state() == SwipeRow::State::closed);
    it.press(action, action);  // closed, the row lies over it
    CHECK(it.moved.get() == 1);
    CHECK(it.below.get() == 0);
  }
  Row stays;
  stays.stage.change(*stays.row, [](SwipeRowSettings& settings) { settings.action_closes = false; });
  for (int i = 0; i < 3; ++i) stays.press({320, 130}, {320, 130});
  CHECK(stays.moved.get() == 3);
  CHECK(stays.row->state() == SwipeRow::State::open);
}

TEST_CASE("a row that commits to nothing has no place from which it would") {
  for (const double commits : {0.0, 120.0}) {
    Stage stage;
    const auto& row = stage.add<SwipeRow>(
        "row", {0, 100, 360, 60}, {.leading = 80, .trailing = 80, .commit_distance = Length(commits)});
    std::vector<Threshold> all;
    for (const ReadingInfo& reading : row.kind().readings)
      if (std::string_view(reading.name) == "offset.x") reading.thresholds(row, all);
    for (const double at : {commits, -commits})
      CHECK(std::count_if(all.begin(), all.end(), [&](const Threshold& one) { return one.value == at; }) ==
            (commits > 0.0 ? 1 : 0));
  }
}

TEST_CASE("a drag that begins on an action moves the row, beside it, or cancelled, a press does not count") {
  Row dragged;
  dragged.press({320, 130}, {352, 130});  // within the action, but further than the drag threshold
  CHECK(dragged.moved.get() == 0);
  Row left;
  left.press({320, 105}, {320, 98 - Feel{}.tap_reach});
  CHECK(left.moved.get() == 0);
  CHECK(left.row->state() == SwipeRow::State::open);
  Row cancelled;
  cancelled.touch(Phase::down, {320, 130}, 10);
  cancelled.touch(Phase::cancel, {320, 130}, 10);
  settle(cancelled.stage);
  CHECK(cancelled.moved.get() == 0);
  CHECK(cancelled.row->state() == SwipeRow::State::open);
}

TEST_CASE("where nobody listens for an action, what lies behind the row gets the press") {
  Row it(false);
  CHECK_FALSE(it.row->has_action(1));
  it.press({320, 130}, {320, 130});
  CHECK(it.below.get() == 1);
  CHECK(it.row->state() == SwipeRow::State::open);
}

TEST_CASE("an action is hovered, and reached by keys and by assistive technology") {
  Row it;
  it.stage.touch(
      {.time = it.stage.now() + ms(10), .phase = Phase::hover, .at = {320, 130}, .tool = Tool::mouse});
  CHECK(it.stage.hovered() == it.row);
  CHECK(it.stage.cursor() == Cursor::pointer);
  it.stage.focus("row");
  CHECK(it.stage.press(Key::enter, it.stage.now() + ms(10)));
  CHECK(it.moved.get() == 1);
  settle(it.stage);
  CHECK(it.row->state() == SwipeRow::State::closed);
  CHECK_FALSE(it.stage.press(Key::enter, it.stage.now() + ms(10)));  // nothing is uncovered
  CHECK(it.stage.act(*it.row, "press trailing", it.stage.now() + ms(10)));
  CHECK(it.moved.get() == 2);
  CHECK(it.stage.act(*it.row, "press leading", it.stage.now() + ms(10)));  // told by the callback alone
  CHECK(it.told == "trailingtrailingleading");
  CHECK_FALSE(it.stage.act(*it.row, "press above", it.stage.now() + ms(10)));
}

TEST_CASE("a row slid down or up is seen and touched in its own place alone") {
  for (const int side : {2, 3}) {
    Stage stage{StageSettings{}};
    const std::array ids{"first", "second", "third"};
    const Box place{0, 160, 360, 60};
    for (std::size_t i = 0; i < ids.size(); ++i)
      stage.add<SwipeRow>(ids[i], Box{0, 100 + 60.0 * static_cast<double>(i), 360, 60},
                          SwipeRowSettings{.label = "Ridge",
                                           .above = 40,
                                           .below = 40,
                                           .overscroll = Overscroll::How::linear,
                                           .overscroll_fraction = 1.0});
    auto& row = dynamic_cast<SwipeRow&>(*stage.find("second"));
    row.open(side);
    settle(stage);
    REQUIRE(std::fabs(row.offset().y) == 40.0);
    const auto look = [&] {
      int pieces = 0;
      stage.draw([&](const Part& part, const Piece& piece) {
        if (&part != &row) return;
        const Box seen = piece.clip ? common(piece.box, *piece.clip) : piece.box;
        CAPTURE(side, name_of(piece.role), seen.y, seen.h);
        CHECK((seen.h == 0.0 || (seen.y >= place.y && seen.bottom() <= place.bottom())));
        ++pieces;
      });
      CHECK(pieces == 3);
    };
    look();
    for (double y = 101; y < 280; y += 2) {
      const Part* under = stage.part_at({180, y});
      const bool of_row = common(row.box(), place).contains({180, y});
      const std::string expected = of_row ? "second" : y < 160 ? "first" : y >= 220 ? "third" : "nobody";
      CAPTURE(side, y);
      CHECK((under == nullptr ? "nobody" : under->id()) == expected);
    }
    // Pulled further than it is high.
    const double way = side == 2 ? 90 : -90;
    const Point at{180, side == 2 ? 210.0 : 170.0};
    stage.touch({.time = stage.now() + ms(10), .contact = 1, .phase = Phase::down, .at = at});
    stage.touch({.time = stage.now() + ms(50), .contact = 1, .phase = Phase::move, .at = at + Point{0, way}});
    CHECK(std::fabs(row.offset().y) > place.h);
    look();
  }
}

TEST_CASE(
    "what lies behind a swipe row is said and shown where it is open, and only what it can do is offered") {
  const auto actions = [](const Part& part) {
    std::string all;
    const OfferedActions offered(part);
    for (std::size_t i = 0; i < offered.size(); ++i) all += std::string(offered[i].name) + ", ";
    return all;
  };
  Stage stage;
  auto& row = stage.add<SwipeRow>("row", {0, 100, 360, 80},
                                  {.leading = 60,
                                   .trailing = 80,
                                   .above = 20,
                                   .below = 20,
                                   .leading_label = "Visited",
                                   .trailing_label = "Remove",
                                   .above_label = "Note",
                                   .below_label = "Move"});
  CHECK(actions(row) == "open leading, open trailing, open above, open below, reset, ");
  CHECK(actions(stage.add<SwipeRow>("a", {0, 200, 360, 80}, {.leading = 60})) == "open leading, reset, ");
  CHECK(actions(stage.add<SwipeRow>("b", {0, 300, 360, 80}, {.trailing = 60})) == "open trailing, reset, ");
  CHECK(actions(stage.add<SwipeRow>("c", {0, 400, 360, 80}, {.above = 30})) == "open above, reset, ");
  CHECK(row.side_label().empty());
  for (const auto& [way, label] : {std::pair{Point{70, 0}, "Visited"},
                                   {Point{-90, 0}, "Remove"},
                                   {Point{0, 40}, "Note"},
                                   {Point{0, -40}, "Move"}}) {
    swipe(stage, {180, 140}, Point{180, 140} + way);
    settle(stage);
    CHECK(row.side_label() == label);
    CHECK(row.accessible().value_text == std::string("open: ") + label);
    std::string shown;
    pieces_of(row, [&](const Piece& piece) {
      if (piece.role == Role::behind) shown += piece.words;
    });
    CHECK(shown == label);
    stage.act(row, "reset", stage.now());
    settle(stage);
  }
  CHECK(row.accessible().value_text == "closed");
}

TEST_CASE("a row that has slid up or down is seen and touched within its place, with all that lies in it") {
  for (const int side : {2, 3}) {
    CAPTURE(side);
    constexpr Box place{0, 100, 360, 60};
    Stage stage;
    auto& row = stage.add<SwipeRow>("row", place, {.above = 40, .below = 40});
    auto& note = stage.add<Button>("note", {10, 5, 120, 50}, {.label = "Note"}, {.inside = "row"});
    row.open(side);
    settle(stage);
    REQUIRE(std::fabs(row.offset().y) == 40);
    CHECK(note.box() == Box{10, 105 + row.offset().y, 120, 50});
    int seen = 0;
    stage.draw([&](const Part&, const Piece& piece) {
      const Box box = piece.clip ? common(piece.box, *piece.clip) : piece.box;
      CHECK((box.h == 0 || (box.y >= place.y && box.bottom() <= place.bottom())));
      ++seen;
    });
    CHECK(seen > 4);
    for (double y = 50; y < 210; y += 3) {
      CHECK(note.takes({20, y}) == (note.box().contains({20, y}) && place.contains({20, y})));
      CHECK(row.takes({200, y}) == (row.box().contains({200, y}) && place.contains({200, y})));
    }
  }
}
