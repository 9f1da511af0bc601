// Every screen of the demo, as it stands and in the middle of each of its takes: no text leaves its box or
// lies on other text, and all of it can be read.
#include <filesystem>

#include "files.hpp"
#include "ubbo/base/colour.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/skin/flat.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct Seen {
  const skin::Text* text;
  Box box;           // of its letters
  Colour ground;     // what it lies on, all layers of it
  std::size_t step;  // in the flattened picture
};

double luminance(const Colour& colour) {
  const auto linear = [](double c) { return c <= 0.04045 ? c / 12.92 : std::pow((c + 0.055) / 1.055, 2.4); };
  return 0.2126 * linear(colour.red) + 0.7152 * linear(colour.green) + 0.0722 * linear(colour.blue);
}

// WCAG 2: from 1 to 21.
double contrast(const Colour& a, const Colour& b) {
  const double x = luminance(a);
  const double y = luminance(b);
  return (std::max(x, y) + 0.05) / (std::min(x, y) + 0.05);
}

Colour over(const Colour& below, const Colour& above) {
  return mix(below, above.with_alpha(1.0), above.alpha);
}

Box around(const std::vector<Point>& points) {
  Box box{points[0].x, points[0].y, 0, 0};
  for (const Point& p : points) {
    const double right = std::max(box.right(), p.x);
    const double bottom = std::max(box.bottom(), p.y);
    box = {std::min(box.x, p.x), std::min(box.y, p.y), right - std::min(box.x, p.x),
           bottom - std::min(box.y, p.y)};
  }
  return box;
}

bool holds(const Box& outer, const Box& inner) {
  return inner.x >= outer.x && inner.y >= outer.y && inner.right() <= outer.right() &&
         inner.bottom() <= outer.bottom();
}

Box letters_of(const skin::Text& text) {
  const double w = paint::text_width(text);
  const double x = text.align == skin::Align::left    ? text.at.x
                   : text.align == skin::Align::right ? text.at.x - w
                                                      : text.at.x - w / 2;
  return {x, text.at.y - 0.74 * text.size, w, 0.95 * text.size};
}

// What is wrong with how the text of a picture can be read: "" or which words.
std::string unreadable(const skin::Picture& picture, const Box& screen) {
  const std::vector<skin::Step> steps = skin::flat(picture);
  std::vector<Seen> seen;
  struct Layer {
    Box clip;
    double opacity;
  };
  std::vector<Layer> layers{{screen, 1.0}};
  std::vector<std::pair<Box, Colour>> grounds;
  std::string wrong;
  for (std::size_t i = 0; i < steps.size(); ++i) {
    if (const auto* begin = std::get_if<skin::Begin>(&steps[i])) {
      Layer layer = layers.back();
      if (begin->clip) layer.clip = common(layer.clip, around({begin->clip->begin(), begin->clip->end()}));
      layer.opacity *= begin->opacity;
      layers.push_back(layer);
    } else if (std::holds_alternative<skin::End>(steps[i])) {
      layers.pop_back();
    } else if (const auto* path = std::get_if<skin::Path>(&steps[i])) {
      if (!path->ink.fill || path->points.empty()) continue;
      const Box box = common(around(path->points), layers.back().clip);
      grounds.emplace_back(box, path->ink.fill->with_alpha(path->ink.fill->alpha * layers.back().opacity));
      // What an opaque shape covers is not read.
      if (grounds.back().second.alpha > 0.6)
        std::erase_if(seen, [&](const Seen& one) {
          return common(one.box, box).w > 0.0 && common(one.box, box).h > 0.0;
        });
    } else if (const auto* image = std::get_if<skin::PlacedImage>(&steps[i])) {
      std::erase_if(seen, [&](const Seen& one) { return common(one.box, image->image.box).w > 0.0; });
    } else if (const auto* placed = std::get_if<skin::PlacedText>(&steps[i])) {
      const Box box = letters_of(placed->text);
      // What is scrolled or slid half out of sight, turned, or fading is on its way.
      if (placed->turn != 0.0 || layers.back().opacity < 0.7 || placed->text.colour.alpha < 0.5 ||
          !holds(layers.back().clip, box))
        continue;
      Colour ground = Colour::hex(0xFFFFFF);
      for (const auto& [at, colour] : grounds)
        if (at.contains(box.centre())) ground = over(ground, colour);
      for (const Seen& one : seen)
        if (common(one.box, box).w > 0.5 && common(one.box, box).h > 0.5)
          wrong += "'" + placed->text.words + "' lies on '" + one.text->words + "'; ";
      if (placed->text.room.w > 0.0 && (box.w > placed->text.room.w + 0.5))
        wrong += "'" + placed->text.words + "' is wider than its box; ";
      const Colour ink = over(ground, placed->text.colour);
      if (contrast(ink, ground) < 4.5)
        wrong +=
            "'" + placed->text.words + "' has a contrast of " + std::to_string(contrast(ink, ground)) + "; ";
      seen.push_back({&placed->text, box, ground, i});
    }
  }
  return wrong;
}

}  // namespace

TEST_CASE(
    "on every screen of the demo text stays in its box, lies on no other, and has the contrast of WCAG AA") {
  struct Look {
    double width, scale;
    bool right_to_left, dark;
  };
  for (const Look& look :
       {Look{360, 1.0, false, false}, Look{320, 1.5, false, true}, Look{480, 2.0, true, false},
        Look{320, 2.0, true, true}, Look{480, 1.0, false, true}, Look{360, 1.5, true, false}}) {
    const std::vector<std::string> changes{
        "screen.width=" + std::to_string(static_cast<int>(look.width)),
        std::string("screen.right_to_left=") + (look.right_to_left ? "true" : "false")};
    for (const auto& entry : std::filesystem::directory_iterator(std::string(UBBO_SOURCE_DIR) + "/demo")) {
      const std::string path = entry.path().string();
      if (!path.ends_with(".take.csv")) continue;
      const io::Take take = test::take_at(path);
      const std::string scene_path = std::string(UBBO_SOURCE_DIR) + "/demo/" + take.note("scene");
      const io::Scene scene =
          io::parse_scene(file::read(scene_path), scene_path, shipped_kinds(), changes, skin::inter_width);
      io::SceneRun run(scene);
      io::Replay replay(run, take);
      const Box screen{0, 0, scene.stage.width, scene.stage.height};
      for (int i = 0; i < 5; ++i) {
        if (i > 0)
          replay.play_to(replay.begins() + (replay.ends() - replay.begins()) * i / 4);
        else
          run.stage().advance(Micros{0});
        const std::string wrong = unreadable(
            skin::comb(run.stage(), look.dark ? skin::dark : skin::day, {}, {.scale = look.scale}), screen);
        INFO(path << " at " << i << " of 4, " << look.width << " dp, text " << look.scale
                  << (look.dark ? ", dark" : "") << (look.right_to_left ? ", right to left" : ""));
        CHECK(wrong == "");
      }
    }
  }
}

TEST_CASE("the table of widths says how wide a line comes out, and a cut line fits") {
  PROPERTY("any line", [] {
    const std::string words = *rc::gen::container<std::string>(rc::gen::inRange<char>(' ', '~'));
    const double size = *number(8, 40);
    const bool bold = *rc::gen::arbitrary<bool>();
    const auto drawn = [&](const std::string& line) {
      return paint::text_width({.at = {}, .words = line, .size = size, .bold = bold});
    };
    RC_ASSERT(skin::inter_width(words, size, bold) > 0.94 * drawn(words) - 1.0);
    const double room = *number(5, 400);
    RC_ASSERT(drawn(skin::cut_to(words, size, bold, room, skin::inter_width)) <= 1.06 * room + 1.0);
  });
  CHECK(skin::cut_to("Heather Ridge", 16, true, 400, skin::inter_width) == "Heather Ridge");
  CHECK(skin::cut_to("Heather Ridge", 16, true, 80, skin::inter_width) == "Heather\u2026");
  CHECK(skin::cut_to("Heather Ridge", 16, true, 10, skin::inter_width).empty());
  CHECK(skin::cut_to("\u00e9\u00e9\u00e9\u00e9\u00e9\u00e9", 16, true, 40, skin::inter_width) ==
        "\u00e9\u00e9\u2026");
}
