// A stage's state as bytes, and back.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// Pages with a list and a sheet that has contents to swap; rows of the list are swiped.
struct Screen {
  explicit Screen(bool apiaries = true) {
    pages = &stage.add<PageHost>("rounds", {0, 0, 360, 720}, {});
    for (const char* id : {"hives", "inspection", "photos"})
      stage.add<Pad>(id, {0, 0, 360, 720}, {}, {.inside = "rounds"});
    list = &stage.add<List>("list", {0, 0, 360, 720}, {}, {.inside = "hives"});
    row = &stage.add<SwipeRow>("row", {0, 0, 360, 80}, {.trailing = 90}, {.inside = "list"});
    for (int i = 1; i < 20; ++i)
      stage.add<Pad>("hive " + std::to_string(i), {0, 0, 360, 80}, {}, {.inside = "list"});
    if (apiaries) stage.add<Drawer>("apiaries", {0, 0, 240, 720}, {});
    sheet = &stage.add<Sheet>("sheet", {0, 0, 360, 600}, {.snap_points = {200, 400, 600}});
    swap = &stage.add<Swap>("tasks", {0, 0, 360, 400}, {}, {.inside = "sheet"});
    for (const char* id : {"notes", "treatment", "harvest"})
      stage.add<Pad>(id, {0, 0, 360, 400}, {}, {.inside = "tasks"});
  }
  Stage stage{{.journal = 1000}};
  PageHost* pages;
  List* list;
  SwipeRow* row;
  Sheet* sheet;
  Swap* swap;
};

}  // namespace

TEST_CASE("a screen is found again as it was left, and back goes the way it went before") {
  Screen left;
  left.stage.act(*left.list, "end", ms(1));
  left.row->open(1);
  left.pages->go_to(1);
  left.stage.advance(ms(3000));
  left.pages->go_to(2);
  left.sheet->go_to(2);
  left.swap->step(1);
  left.stage.advance(ms(9000));
  const auto bytes = left.stage.save();

  Cell<bool> there{true};
  Screen again(false);  // the drawer is no more, and a switch has its name
  again.stage.add<Switch>("apiaries", {0, 0, 64, 32}, {.on = there});
  again.stage.advance(ms(5));
  CHECK(again.stage.restore(bytes, ms(20)) == "");
  CHECK(again.stage.settled());
  CHECK(again.stage.due() == never);
  CHECK(again.pages->selected() == 2);
  CHECK(again.pages->page_below() == 1);
  CHECK(again.list->offset() == left.list->offset());
  CHECK(again.row->offset() == Point{-90, 0});
  CHECK(again.sheet->out() == 400);
  CHECK(again.sheet->state() == EnterExit::State::present);
  CHECK(again.stage.modal() == again.sheet);
  CHECK(again.swap->content() == 1);
  again.stage.back(ms(30));  // the sheet's
  again.stage.advance(ms(2000));
  again.stage.back(ms(2010));
  again.stage.advance(ms(4000));
  CHECK(again.pages->selected() == 1);
  CHECK(there.get());
  Screen without(false);
  without.stage.advance(ms(5));
  CHECK(without.stage.restore(bytes, ms(20)) == "");
  CHECK(without.pages->selected() == 2);
}

TEST_CASE("bytes that are damaged, cut off or of something else change nothing and say so") {
  Screen left, other;
  left.sheet->go_to(2);
  left.stage.advance(ms(3000));
  const auto good = left.stage.save();
  other.stage.advance(ms(0));
  const auto before = other.stage.save();
  PROPERTY("damage", [&] {
    auto bytes = good;
    if (*rc::gen::arbitrary<bool>())
      bytes.resize(*rc::gen::inRange<std::size_t>(0, bytes.size()));
    else
      bytes[*rc::gen::inRange<std::size_t>(0, bytes.size())] ^= *rc::gen::inRange<std::uint8_t>(1, 255);
    RC_ASSERT(other.stage.restore(bytes, ms(1)).starts_with("saved state: "));
    RC_ASSERT(other.stage.save() == before);
  });
  CHECK(other.stage.restore({}, ms(1)) == "saved state: it is no saved state");
  CHECK(other.stage.restore(good, ms(1)) == "");
  CHECK(other.stage.save() == good);
  // A stage without parts has a state too.
  Stage none, also;
  CHECK(also.restore(none.save(), ms(0)) == "");
}

TEST_CASE("what is asked for at once is there at once, in calls as in writes") {
  Screen screen;
  screen.stage.advance(ms(0));
  screen.stage.immediately([&] {
    screen.sheet->go_to(3);
    screen.pages->go_to(1);
    screen.swap->step(1);
  });
  CHECK(screen.stage.settled());
  CHECK(screen.sheet->out() == 600);
  CHECK(screen.sheet->box() == Box{0, 0, 360, 600});
  screen.sheet->close();
  CHECK_FALSE(screen.stage.settled());  // and later ones travel
}
