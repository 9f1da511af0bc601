// What is a sheet's own: where it may rest, and how far it must be dragged.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a sheet's rests may be as much as all of it, and no more") {
  const auto fault = [](SheetSettings settings) {
    return Sheet::fault("hive", {0, 100, 360, 600}, settings);
  };
  CHECK(fault({.snap_points = {1, 600}}).empty());
  CHECK(fault({.snap_fractions = {0.01, 1.0}}).empty());
  CHECK_THAT(fault({.snap_points = {601}}),
             Catch::Contains("snap_points holds 601; it takes 1 to the sheet's own 600"));
  CHECK_THAT(fault({.snap_points = {0.5}}), Catch::Contains("snap_points holds 0.5"));
  for (const double fraction : {0.009, 1.001})
    CHECK_THAT(fault({.snap_fractions = {fraction}}), Catch::Contains("it takes 0.01 to 1"));
}

TEST_CASE("a sheet takes snap points up to its own length along its way, from whichever edge it comes") {
  for (const auto& [edge, most] : {std::pair{Edge::bottom, 300.0},
                                   {Edge::top, 300.0},
                                   {Edge::left, 200.0},
                                   {Edge::right, 200.0},
                                   {Edge::leading, 200.0},
                                   {Edge::trailing, 200.0}}) {
    CHECK(Sheet::fault("s", {0, 0, 200, 300}, {.edge = edge, .snap_points = {most}}).empty());
    CHECK_THAT(Sheet::fault("s", {0, 0, 200, 300}, {.edge = edge, .snap_points = {most + 1}}),
               Catch::Contains("takes 1 to the sheet's own " + plain_number(most)));
  }
}

TEST_CASE("a distance to commit in dp is the same for a low sheet and a high one") {
  for (const double height : {240.0, 560.0}) {
    Stage stage;
    auto& sheet = stage.add<Sheet>(
        "s", {0, 120, 360, 600}, {.snap_points = {height}, .commit_distance = 100, .projection_time = ms(0)});
    stage.at(ms(0), [&] { sheet.open(); });
    stage.advance(ms(2000));
    const double top = 720 - height + 20;
    drag(stage, 2000, {180, top}, {180, top + 8 + 99}, 100);
    settle(stage);
    CHECK(sheet.is_open());
    drag(stage, 60'000, {180, top}, {180, top + 8 + 101}, 100);
    settle(stage);
    CHECK_FALSE(sheet.is_open());
  }
}
