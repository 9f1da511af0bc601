// Where parts stand: laid out again when what they stand in changes, until their sizes rest.
#include <string>
#include <vector>

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a measured height that depends on the width comes to rest, one that never does is told of") {
  Stage measured{{.journal = 100}};
  auto& note = measured.add<Pad>("note", {0, 0, 200, 20}, {});
  int rounds = 0;
  note.on_layout([&](const Box& box) {
    ++rounds;
    measured.place(note, {0, 0, box.w, 24000 / box.w});
  });
  measured.place(note, {0, 0, 300, 20});
  CHECK(note.box() == Box{0, 0, 300, 80});
  CHECK(rounds == 2);
  CHECK(measured.journal().size() == 0);
  for (const int changes : {2, 3}) {  // two rounds are granted
    int left = changes;
    note.on_layout([&](const Box& box) {
      if (left-- > 0) measured.place(note, {0, 0, box.w, box.h + 1});
    });
    measured.place(note, {0, 0, 90, 20});
    CHECK(measured.journal().size() == (changes == 2 ? 0 : 1));
    measured.journal().clear();
  }
  note.on_layout([&](const Box& box) { measured.place(note, {0, 0, box.w + 1, 20}); });
  measured.place(note, {0, 0, 100, 20});
  REQUIRE(measured.journal().size() == 1);
  CHECK(measured.journal().decisions()[0].says(answers::layout_restless));
  CHECK_THROWS_WITH(measured.place(note, {.x = 3}), Catch::Contains("takes two of the three"));
  CHECK_THROWS_WITH(measured.add<Pad>("p", {0, 0, -1, 5}, {}), Catch::Contains("w = -1"));
  CHECK_THROWS_WITH(measured.add<Pad>(std::string(64, 'x'), {0, 0, 1, 5}, {}), Catch::Contains("63 at most"));
  CHECK(measured.add<Pad>(std::string(63, 'x'), {0, 0, 1, 5}, {}).id().size() == 63);
}

TEST_CASE(
    "what a layout asks for by itself is laid out in the same event, containers before what lies in them") {
  Stage stage;
  Pad& page = stage.add<Pad>("page", {0, 0, 360, 720}, {});
  Pad& row = stage.add<Pad>("row", {.x = Length{0}, .y = Length{0}, .w = Length::of(1.0), .h = Length{40}},
                            {}, {.inside = "page"});
  Pad& name = stage.add<Pad>("name", {.x = Length{8}, .y = Length{8}, .w = Length::of(0.5), .h = Length{24}},
                             {}, {.inside = "row"});
  std::vector<std::string> order;
  for (Pad* part : {&page, &row, &name})
    part->on_layout(
        [&order, part](const Box& box) { order.push_back(part->id() + " " + plain_number(box.w)); });
  stage.at(ms(10), [&] {
    stage.place(page, {0, 0, 300, 720});
    CHECK(name.box().w == 180);  // not yet
  });
  CHECK(name.box().w == 150);
  CHECK(order == std::vector<std::string>{"page 300", "row 300", "name 150"});
  order.clear();
  stage.set_safe_area({.top = 24}, ms(20));  // nothing of these keeps clear of it
  CHECK(order.empty());
}

TEST_CASE("a placement takes lengths to their limits, and nothing beyond") {
  using P = Placement;
  const auto fault = [](std::optional<Length> P::*field, Length length) {
    P placement{.x = Length{0}, .y = Length{0}, .w = Length{90}, .h = Length{90}};
    if (field == &P::right) placement.x.reset();
    if (field == &P::bottom) placement.y.reset();
    placement.*field = length;
    return fault_of(placement);
  };
  for (const auto& [name, field] : {std::pair{"x", &P::x},
                                    {"y", &P::y},
                                    {"w", &P::w},
                                    {"h", &P::h},
                                    {"right", &P::right},
                                    {"bottom", &P::bottom}}) {
    CAPTURE(name);
    CHECK(fault(field, 1e6) == "");
    CHECK(fault(field, Length::of(10)) == "");
    for (const Length beyond :
         {Length{1e6 + 1}, Length{-1e6 - 1}, Length::of(10.1), Length::of(-10.1), Length{std::nan("")}})
      CHECK_THAT(fault(field, beyond), Catch::StartsWith(name));
    const bool extent = *name == 'w' || *name == 'h';
    CHECK(fault(field, -1e6).empty() != extent);
    CHECK(fault(field, Length::of(-10)).empty() != extent);
  }
}
