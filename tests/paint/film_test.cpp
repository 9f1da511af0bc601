#include "ubbo/show/film.hpp"

#include <filesystem>
#include <fstream>
#include <map>

#include "files.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/show/reel.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

show::FilmReel reel(int frames, const Box& region) {
  HoneySlider app({.step = 1});
  show::FilmReel made;
  made.title = "Heather Ridge";
  made.region = region;
  made.ends = ms(25.0 * (frames - 1));
  made.trails = {{{ms(0), {150, 224}, true}, {ms(60), {200, 224}, false}}};
  for (int i = 0; i < frames; ++i) {
    show::FilmFrame frame{
        .time = ms(25.0 * i), .scene = skin::comb(app.stage), .captions = {}, .presses = {}, .ghosts = {}};
    if (i % 2 == 0) frame.captions = {"drag: 12.5 of 12 dp", "lifts at 431.9 dp/s", "lands on 7"};
    made.frames.push_back(std::move(frame));
  }
  return made;
}

}  // namespace

namespace {

double smallest_text(const skin::Picture& picture, double scale = 1) {
  double min = 1e9;
  for (const skin::Shape& shape : picture) {
    if (const auto* group = std::get_if<skin::Group>(&shape))
      min = std::min(min, smallest_text(group->shapes, scale * group->scale));
    if (const auto* text = std::get_if<skin::Text>(&shape)) min = std::min(min, text->size * scale);
  }
  return min;
}

}  // namespace

TEST_CASE("whatever the size, a film can be read or is refused") {
  PROPERTY("any number of frames on any page", [] {
    const int frames = *rc::gen::inRange(2, 60);
    const int width = *rc::gen::inRange(200, 2000), height = *rc::gen::inRange(200, 1400);
    const Box region = *rc::gen::element(Box{26, 174, 308, 90}, Box{0, 0, 360, 720}, Box{0, 0, 1200, 40});
    try {
      RC_ASSERT(smallest_text(show::film(reel(frames, region), width, height, paint::text_width)) >= 6);
    } catch (const std::invalid_argument& refused) {
      RC_ASSERT(std::string(refused.what()).find("takes a larger size or fewer frames") != std::string::npos);
      RC_ASSERT(width * height < frames * 60'000);
    }
  });
}

TEST_CASE(
    "a film has every frame, in order, each with its time, and no text leaves the page or meets another") {
  struct Case {
    int frames;
    Box region;
    double width, height;
  };
  for (const Case& c : {Case{12, {26, 174, 308, 90}, 1280, 800},
                        {5, {0, 0, 360, 720}, 1280, 800},
                        {30, {26, 174, 308, 90}, 1600, 1000}}) {
    const skin::Picture page = show::film(reel(c.frames, c.region), c.width, c.height, paint::text_width);
    std::vector<Point> groups;
    std::vector<std::string> times;
    std::map<double, std::vector<std::pair<double, double>>> lines;  // baseline to spans
    for (const skin::Shape& shape : page) {
      if (const auto* group = std::get_if<skin::Group>(&shape))
        groups.push_back({group->clip->x, group->clip->y});
      const auto* text = std::get_if<skin::Text>(&shape);
      if (text == nullptr) continue;
      if (text->bold && text->words.ends_with(" ms")) times.push_back(text->words);
      const double wide = paint::text_width(*text);
      const double left = text->at.x - (text->align == skin::Align::right    ? wide
                                        : text->align == skin::Align::centre ? wide / 2
                                                                             : 0);
      CHECK(left >= 0);
      CHECK(left + wide <= c.width);
      lines[text->at.y].emplace_back(left, left + wide);
    }
    REQUIRE(groups.size() == static_cast<std::size_t>(c.frames));
    CHECK(std::is_sorted(groups.begin(), groups.end(),
                         [](Point a, Point b) { return std::pair(a.y, a.x) < std::pair(b.y, b.x); }));
    REQUIRE(times.size() == groups.size());
    for (std::size_t i = 0; i < times.size(); ++i) CHECK(times[i] == std::to_string(25 * i) + " ms");
    for (auto& [baseline, spans] : lines) {
      std::sort(spans.begin(), spans.end());
      for (std::size_t i = 1; i < spans.size(); ++i) CHECK(spans[i].first >= spans[i - 1].second);
    }
  }
}

TEST_CASE("a moving picture holds each of its pages, the first one whole, the others as far as they differ") {
  constexpr int width = 60, height = 40;
  std::vector<skin::Picture> pages;
  for (int i = 0; i < 4; ++i)  // the third is like the second
    pages.push_back(
        {skin::paper({0, 0, width, height}, 0, {.fill = skin::day.paper}),
         skin::paper({10.0 * std::min(i, 1) + (i == 3 ? 30.0 : 0.0), 8, 8, 8}, 0, {.fill = skin::day.ink})});
  const std::string path = (std::filesystem::temp_directory_path() / "ubbo-moving.png").string();
  paint::save_moving(pages, ms(50), ms(900), width, height, path);
  std::ifstream in(path, std::ios::binary);
  const std::string png(std::istreambuf_iterator<char>(in), {});
  std::filesystem::remove(path);
  const auto word = [&](std::size_t at) {
    unsigned value = 0;
    for (std::size_t i = 0; i < 4; ++i) value = value << 8U | static_cast<unsigned char>(png.at(at + i));
    return value;
  };
  std::vector<Box> areas;
  unsigned order = 0;
  for (std::size_t at = 8; at < png.size(); at += 12 + word(at)) {
    const std::string name = png.substr(at + 4, 4);
    if (name == "acTL") CHECK(word(at + 8) == 4);
    if (name == "fcTL" || name == "fdAT") CHECK(word(at + 8) == order++);
    if (name == "fcTL")
      areas.push_back(
          {double(word(at + 20)), double(word(at + 24)), double(word(at + 12)), double(word(at + 16))});
  }
  REQUIRE(areas.size() == 4);
  CHECK(areas[0] == Box{0, 0, width, height});
  CHECK(areas[1] == Box{0, 8, 18, 8});
  CHECK(areas[2] == Box{0, 0, 1, 1});
  CHECK(areas[3] == Box{10, 8, 38, 8});
  CHECK_THROWS_WITH(paint::save_moving(pages, ms(50), ms(50), width, height, "x.svg"),
                    Catch::Contains(".png"));
}

TEST_CASE("no caption of the demo's films is cut") {
  for (const auto& entry : std::filesystem::directory_iterator(UBBO_SOURCE_DIR "/demo")) {
    const std::string path = entry.path().string();
    if (!path.ends_with(".take.csv")) continue;
    const io::Take take = test::take_at(path);
    const io::Scene scene = test::scene_at(UBBO_SOURCE_DIR "/demo/" + take.note("scene"));
    for (const std::size_t frames : {4U, 8U, 16U}) {
      CAPTURE(path, frames);
      const show::FilmReel made = show::reel_of(scene, take, {.frames = frames});
      for (const skin::Shape& shape : show::film(made, 1280, 800, paint::text_width))
        if (const auto* text = std::get_if<skin::Text>(&shape)) CHECK_FALSE(text->words.ends_with("\u2026"));
    }
  }
}
