#include "ubbo/paint/graph.hpp"

#include <charconv>
#include <filesystem>
#include <fstream>

#include "ubbo/show/motion_film.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a graph shows its words as they are, whatever they hold, and says when it cannot be written") {
  const auto path = std::filesystem::temp_directory_path() / "ubbo-graph-test.svg";
  show::Graph graph{.title = "frames' \"honey\" & $x`id`", .panels = {}};
  graph.panels.push_back(
      {.title = "value",
       .lines = {{.name = "one_two^3", .points = {{0, 0}, {1, HUGE_VAL}, {2, 5}}, .colour = {}}},
       .levels = {{.at = 3, .colour = {}, .words = "snap points"}},
       .moments = {{.at = 1, .colour = {}, .words = "lands on 7"}},
       .x_to = 2});
  paint::plot(graph, 800, 500, path.string());
  std::ifstream file(path);
  const std::string svg((std::istreambuf_iterator<char>(file)), {});
  for (const char* words : {"honey", "$x`id`", "one_two^3", "snap points", "lands on 7"})
    CHECK_THAT(svg, Catch::Contains(words));
  CHECK_THAT(svg, Catch::Contains("font-weight=\"bold\"") && !Catch::Contains("Inter:Bold"));
  CHECK_THAT(svg, Catch::Contains("<title>frames' &quot;honey&quot; &amp; $x`id`</title>") &&
                      Catch::Contains("<desc>one_two^3; lands on 7</desc>") &&
                      !Catch::Contains("gnuplot</title>"));
  graph.panels.resize(6, graph.panels[0]);
  CHECK_THROWS_WITH(paint::plot(graph, 400, 300, path.string()),
                    Catch::Contains("6 panels cannot be read at 400x300; takes 400x"));
  graph.panels.resize(1);
  CHECK_THROWS_WITH(paint::plot(graph, 800, 500, "nowhere/at/all.png"), Catch::Contains("cannot be written"));
  CHECK_THROWS_WITH(paint::plot(graph, 8, 500, path.string()), Catch::Contains("200x200"));
  CHECK_THROWS_WITH(paint::plot(graph, 800, 500, "a.gif"), Catch::Contains(".png or .svg"));
  std::filesystem::remove(path);
}

TEST_CASE("words of moments stand in lanes: none runs into another or off the page") {
  struct Word {
    double x, y;
    bool ends_there;
    std::string text;
  };
  const auto path = std::filesystem::temp_directory_path() / "ubbo-graph-lanes.svg";
  for (const double spread : {1.0, 60.0, 990.0}) {
    show::Graph graph{.title = "moments", .panels = {}};
    show::Panel panel{.lines = {{.points = {{0, 0}, {1000, 1}}, .colour = {}}}, .x_to = 1000};
    for (int i = 0; i < 8; ++i)
      panel.moments.push_back(
          {.at = 5 + spread * i / 7, .colour = {}, .words = "decision number " + std::to_string(i)});
    graph.panels.push_back(panel);
    paint::plot(graph, 1280, 800, path.string());
    std::ifstream file(path);
    const std::string svg((std::istreambuf_iterator<char>(file)), {});
    // <g transform="translate(X,Y)" … text-anchor="start"> <text> words </text>
    std::vector<Word> words;
    for (std::size_t at = svg.find("decision number", svg.find("</desc>")); at != std::string::npos;
         at = svg.find("decision number", at + 1)) {
      const std::size_t group = svg.rfind("translate(", at);
      Word word{0, 0, svg.substr(group, at - group).find("text-anchor=\"end\"") != std::string::npos,
                svg.substr(at, 17)};
      const std::size_t comma = svg.find(',', group);
      const std::size_t from = group + std::string_view("translate(").size();
      REQUIRE(std::from_chars(&svg[from], &svg[comma], word.x).ec == std::errc());
      REQUIRE(std::from_chars(&svg[comma + 1], &svg[svg.find(')', comma)], word.y).ec == std::errc());
      words.push_back(word);
    }
    REQUIRE(words.size() == 8);
    constexpr double wide = 95;  // about what these words take at this size
    for (const Word& a : words) {
      const double from = a.ends_there ? a.x - wide : a.x;
      CHECK(from >= 0);
      CHECK(from + wide <= 1280);
      for (const Word& b : words) {
        if (&a == &b || std::fabs(a.y - b.y) > 8) continue;
        CHECK(std::fabs(from - (b.ends_there ? b.x - wide : b.x)) >= wide);
      }
    }
  }
  std::filesystem::remove(path);
}

TEST_CASE("thrown cards end in their place, and rows come in one after another") {
  const auto boxes = [](const skin::Picture& picture, std::size_t corners) {
    std::vector<double> left;
    const auto walk = [&](const auto& self, const skin::Picture& shapes) -> void {
      for (const skin::Shape& shape : shapes) {
        if (const auto* path = std::get_if<skin::Path>(&shape);
            path != nullptr && path->points.size() == corners)
          left.push_back(path->points[0].x);
        if (const auto* group = std::get_if<skin::Group>(&shape)) self(self, group->shapes);
      }
    };
    walk(walk, picture);
    return left;
  };
  const show::Throw thrown{.title = "t",
                           .card = "Quarry",
                           .from = 100,
                           .velocity = 900,
                           .ways = {{"a", Spring::settling(ms(300), 0)}}};
  const auto cards = boxes(show::thrown_cards(thrown, 1280, 800), 5);
  REQUIRE(cards.size() > 5);
  CHECK(cards.back() == Approx(cards.front()));  // the place itself is drawn first
  CHECK(cards[1] > cards.front());

  Timeline timeline;
  const std::vector<std::string> rows{"Quarry", "Mill"};
  std::vector<Timeline::Track> x;
  for (const auto& row : rows) {
    x.push_back(timeline.add_track(row + ".x", 100));
    timeline.add_track(row + ".opacity", 1);
  }
  timeline.cue(x, 0, Timed{Curve{}, ms(100)}, Stagger::by_order(2, ms(100)));
  const auto placed = boxes(show::rows_coming_in({.rows = rows, .frames = 3}, timeline, 1280, 800), 5);
  REQUIRE(placed.size() == 6);
  CHECK(placed[0] == Approx(placed[1]));  // both away
  CHECK(placed[2] < placed[3]);           // the first is there, the second not yet
  CHECK(placed[4] == Approx(placed[5]));
}
