#include "ubbo/skin/comb.hpp"

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

std::vector<skin::Path> filled_with(const skin::Picture& picture, skin::Colour colour) {
  std::vector<skin::Path> found;
  for (const skin::Shape& shape : picture)
    if (const auto* path = std::get_if<skin::Path>(&shape))
      if (path->ink.fill && path->ink.fill->red == colour.red && path->ink.fill->green == colour.green &&
          path->ink.fill->blue == colour.blue)
        found.push_back(*path);
  return found;
}

std::string words_in(const skin::Picture& picture) {
  std::string words;
  for (const skin::Shape& shape : picture)
    if (const auto* text = std::get_if<skin::Text>(&shape)) words += text->words + "|";
  return words;
}

}  // namespace

TEST_CASE("the slider's picture is a reading of its one mover") {
  PROPERTY("any value", [] {
    HoneySlider app({.label = "frames of honey", .step = 1});
    const int value = *rc::gen::inRange(0, 11);
    app.frames.set(value);
    app.settle();
    const skin::Picture picture = skin::comb(*app.slider);
    RC_ASSERT(words_in(picture) == "frames of honey|" + std::to_string(value) + "|");
    // Fill, thumb, and a mark for each step reached.
    const auto honey = filled_with(picture, skin::day.honey);
    RC_ASSERT(honey.size() == (value > 0 ? 2u : 1u) + static_cast<std::size_t>(value) + 1);
    double right = 0;
    for (const Point& p : honey[0].points) right = std::max(right, p.x);
    RC_ASSERT(value == 0 || std::fabs(right - app.slider->thumb().x) < 1e-9);
    RC_ASSERT(honey.back().points.size() == 6);  // the thumb is six-sided
  });
}

TEST_CASE(
    "a row slid aside shows what it uncovers, a pressed pad its frame, parts in parts only within them") {
  Cell<double> slid{60};
  Stage stage;
  stage.add<Pane>("list", {0, 100, 360, 200}, {.min = -100, .max = 0});
  auto& row = stage.add<Pane>("row", {0, 20, 360, 80},
                              {.label = "Heather",
                               .offset = slid,
                               .min = -96,
                               .max = 96,
                               .axis = Axis::horizontal,
                               .moves = Moves::itself},
                              {.inside = "list"});
  auto& pad = stage.add<Pad>("name", {0, 0, 200, 80}, {.label = "Ridge"}, {.inside = "row"});
  const auto bared = [&] { return std::get<skin::Path>(skin::comb(row).front()); };
  CHECK(bared().points[0] == Point{0, 120});
  CHECK(bared().points[1].x == 60);
  CHECK(filled_with(skin::comb(pad), skin::day.heather).empty());
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {100, 150}});
  CHECK(filled_with(skin::comb(pad), skin::day.heather).size() == 1);
  std::vector<Box> windows;
  for (const skin::Shape& shape : skin::comb(stage))
    if (const auto* group = std::get_if<skin::Group>(&shape)) windows.push_back(*group->clip);
  REQUIRE(windows.size() == 2);
  CHECK(windows[0] == Box{0, 100, 360, 200});
  CHECK(windows[1] == Box{60, 120, 300, 80});
}

TEST_CASE("what fades is drawn as faint as it is present: a thumb, and all that a sheet carries") {
  HoneySlider app({.step = 1}, {.reduced_motion = Reduced::fade});
  app.stage.advance(ms(0));
  app.stage.at(ms(0), [&] { app.frames.set(9); });
  app.stage.advance(Motion::fade_time / 4);
  REQUIRE(app.slider->thumb_opacity() == Approx(0.5));
  const auto honey = filled_with(skin::comb(*app.slider), skin::day.honey);
  CHECK(std::count_if(honey.begin(), honey.end(), [](const skin::Path& path) {
          return std::fabs(path.ink.fill->alpha - 0.5) < 1e-9;
        }) == 2);  // fill and thumb
  app.settle();
  CHECK(filled_with(skin::comb(*app.slider), skin::day.honey).size() >= 2);

  Cell<double> offset{0};
  Stage stage{{.reduced_motion = Reduced::fade}};
  stage.add<Pane>("sheet", {0, 400, 360, 300},
                  {.offset = offset, .min = -300, .max = 0, .moves = Moves::itself});
  stage.add<Pad>("note", {0, 100, 360, 40}, {.label = "note"}, {.inside = "sheet"});
  stage.at(ms(0), [&] { offset.set(-300); });
  const auto opacities = [&] {
    std::vector<double> found;
    const auto walk = [&](const auto& self, const skin::Picture& picture) -> void {
      for (const skin::Shape& shape : picture)
        if (const auto* group = std::get_if<skin::Group>(&shape)) {
          if (group->opacity < 1.0) found.push_back(group->opacity);
          self(self, group->shapes);
        }
    };
    walk(walk, skin::comb(stage));
    return found;
  };
  stage.advance(Motion::fade_time / 4);
  REQUIRE(opacities().size() == 2);  // the sheet and the note on it
  for (const double opacity : opacities()) CHECK(opacity == Approx(0.5));
  CHECK(static_cast<Pane*>(stage.find("sheet"))->offset() == 0);
  stage.advance(Motion::fade_time);
  CHECK(opacities().empty());
  CHECK(static_cast<Pane*>(stage.find("sheet"))->offset() == -300);
}
