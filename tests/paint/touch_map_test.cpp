#include "ubbo/show/touch_map.hpp"

#include <filesystem>
#include <fstream>

#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/take/take_info.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/testing/check.hpp"
#include "ubbo/touch/gestures.hpp"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a touch map shows every contact and gesture, and no text leaves the page") {
  PROPERTY("any taps, drags and pinches", [] {
    io::Hand hand(io::find_hand("bare"), static_cast<std::uint64_t>(*rc::gen::inRange(1, 1000)));
    const int actions = *rc::gen::inRange(1, 12);
    for (int i = 0; i < actions; ++i) {
      const Point at{*number(5, 355), *number(5, 715)};
      switch (*rc::gen::inRange(0, 3)) {
        case 0:
          hand.tap(at, *rc::gen::inRange(1, 4));
          break;
        case 1:
          hand.press(at).drag({*number(-300, 300), *number(-300, 300)}, ms(200)).lift();
          break;
        default:
          hand.pinch(at, 60, 140, 1, ms(300));
          break;
      }
      hand.wait(ms(600));
    }
    const io::Take take = hand.take();
    const io::TakeInfo info = io::inspect(take, {}, {0, 0, 360, 720});
    show::TouchMap map{.title = "a yard", .screen = {0, 0, 360, 720}, .samples = take.samples, .marks = {}};
    for (const Gesture& g : info.gestures) map.marks.push_back({g.time, g.began, g.at, io::title(g)});
    for (const Decision& decision : info.decisions) {
      map.notes.push_back({decision.time, words::sentence(decision)});
      if (decision.says(answers::again_too_late)) map.misses.push_back({decision.time, "too late by 150 ms"});
    }
    std::size_t misses = 0;
    std::size_t titles = 0;
    std::size_t discs = 0;
    for (const skin::Shape& shape : show::touch_map(map, 1280, 800, paint::text_width)) {
      discs += static_cast<std::size_t>(std::holds_alternative<skin::Disc>(shape));
      const auto* text = std::get_if<skin::Text>(&shape);
      if (text == nullptr) continue;
      const double wide = paint::text_width(*text);
      const double left = text->at.x - (text->align == skin::Align::right    ? wide
                                        : text->align == skin::Align::centre ? wide / 2
                                                                             : 0);
      RC_ASSERT(left >= 0 && left + wide <= 1280);
      RC_ASSERT(text->at.y > 0 && text->at.y <= 800);
      misses += static_cast<std::size_t>(text->words == "too late by 150 ms");
      for (const Gesture& g : info.gestures)
        if (text->words == io::title(g)) {
          ++titles;
          break;
        }
    }
    RC_ASSERT(misses == map.misses.size());
    RC_ASSERT(titles >= info.gestures.size());
    RC_ASSERT(discs >= 2 * info.contacts.size());  // where each went down, and where it ended
  });
}

TEST_CASE("what a tap is called on a touch map stands clear of the ways beside it") {
  io::Hand hand(io::find_hand("steady"), 1);
  hand.tap({100, 200}).wait(ms(600)).press({140, 60}).drag({0, 400}, ms(300)).lift();
  const io::Take take = hand.take();
  show::TouchMap map{.title = "a yard", .screen = {0, 0, 360, 720}, .samples = take.samples, .marks = {}};
  for (const Gesture& g : io::inspect(take, {}, {0, 0, 360, 720}).gestures)
    map.marks.push_back({g.time, g.began, g.at, io::title(g)});
  const skin::Picture picture = show::touch_map(map, 1280, 800, paint::text_width);
  const auto* words = [&]() -> const skin::Text* {
    for (const skin::Shape& shape : picture)
      if (const auto* text = std::get_if<skin::Text>(&shape); text != nullptr && text->words == "tap")
        return text;
    return nullptr;
  }();
  REQUIRE(words != nullptr);
  const Box box{words->at.x, words->at.y - 10, paint::text_width(*words), 12};
  for (const skin::Shape& shape : picture)
    if (const auto* line = std::get_if<skin::Path>(&shape); line != nullptr && line->points.size() == 2)
      for (int i = 0; i <= 100; ++i)
        REQUIRE_FALSE(box.contains(line->points[0] + (line->points[1] - line->points[0]) * (i / 100.0)));
}

TEST_CASE("an SVG holds its writing as text, and what it shows in words, whatever they hold") {
  const auto path = std::filesystem::temp_directory_path() / "ubbo-map.svg";
  const std::string awkward = "a <b> & \"c\"\x1b]--> {";
  skin::Group part{.shapes = {skin::Text{.at = {3, 9}, .words = awkward}},
                   .move = {5, 0},
                   .scale = 2,
                   .clip = Box{1, 2, 30, 40},
                   .opacity = 0.5};
  paint::save({part, skin::Disc{{50, 50}, 4, {.fill = skin::day.honey.with_alpha(0.25)}}}, 100, 80,
              path.string(), {awkward, awkward});
  std::ifstream file(path);
  const std::string svg((std::istreambuf_iterator<char>(file)), {});
  const std::string sound = "a &lt;b&gt; &amp; &quot;c&quot; ]--&gt; {";
  for (const std::string& whole :
       {"<title>" + sound + "</title>", "<desc>" + sound + "</desc>", ">" + sound + "</text>",
        std::string("<path d=\"M1 2L31 2L31 42L1 42Z\"/>"),
        std::string("clip-path=\"url(#clip1)\" opacity=\"0.5\""),
        std::string("<text x=\"11\" y=\"18\" font-size=\"24\""), std::string("fill-opacity=\"0.25\"")})
    CHECK_THAT(svg, Catch::Contains(whole));
  // Well formed: what opens is closed, in order.
  std::vector<std::string> open;
  for (std::size_t at = svg.find('<'); at != std::string::npos; at = svg.find('<', at + 1)) {
    const std::size_t end = svg.find('>', at);
    REQUIRE(end != std::string::npos);
    if (svg[at + 1] == '?' || svg[end - 1] == '/') continue;
    const std::string name = svg.substr(at + 1, svg.find_first_of(" >", at) - at - 1);
    if (name[0] != '/') {
      open.push_back(name);
      continue;
    }
    REQUIRE_FALSE(open.empty());
    CHECK("/" + open.back() == name);
    open.pop_back();
  }
  CHECK(open.empty());
  std::filesystem::remove(path);
}

TEST_CASE("pictures are saved in both formats, or refused") {
  const skin::Picture picture{skin::hexagon({50, 50}, 40, {.fill = skin::day.honey})};
  CHECK_THROWS_WITH(paint::save(picture, 100, 100, "x.jpeg"), Catch::Contains("takes .png or .svg"));
  CHECK_THROWS_WITH(paint::save(picture, 0, 100, "x.png"), Catch::Contains("0x100"));
  CHECK_THROWS_WITH(paint::save(picture, 9, 9, "/no/such/folder/x.png"),
                    Catch::Contains("cannot be written"));
}
