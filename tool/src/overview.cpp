#include <algorithm>
#include <filesystem>

#include "commands.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/skin/comb.hpp"

namespace ubbo::tool {

void shoot_overview(const std::vector<std::string>& scenes, const std::string& out, bool dark,
                    const Kit& kit) {
  constexpr int width = 1280;
  constexpr double edge = 24.0;
  constexpr double above = 84.0;
  constexpr double title = 20.0;
  constexpr std::size_t max_in_row = 5;
  const std::size_t columns = std::clamp<std::size_t>(scenes.size(), 1, max_in_row);
  const std::size_t rows = std::max<std::size_t>((scenes.size() + columns - 1) / columns, 1);
  const double room = (width - edge * (static_cast<double>(columns) + 1.0)) / static_cast<double>(columns);
  // Phones are about twice as high as they are wide.
  const double high = std::min(2.0 * room, 400.0);
  const int height = static_cast<int>(above + static_cast<double>(rows) * (title + high + edge));
  const skin::CombColours& colours = dark ? skin::dark : skin::day;
  skin::Picture page;
  const auto write = [&](Point at, std::string words, double size, double solid, bool bold) {
    page.emplace_back(
        skin::Text{at, std::move(words), size, colours.ink.with_alpha(solid), skin::Align::left, bold});
  };
  page.emplace_back(skin::paper({0, 0, width, static_cast<double>(height)}, 0.0,
                                {.fill = mix(colours.paper, colours.honey, 0.10)}));
  write({edge, 40}, "Heather Ridge", 22, 1.0, true);
  write({edge, 62}, "its screens, each a scene file, as they stand before anybody touches them", 13.5, 0.75,
        false);
  std::string spoken;
  for (std::size_t i = 0; i < scenes.size(); ++i) {
    const io::Scene scene = scene_at(scenes[i], kit.kinds);
    io::SceneRun run(scene);
    run.stage().advance(Micros{0});
    const double scale = std::min(room / scene.stage.width, high / scene.stage.height);
    const auto column = static_cast<double>(i % columns);
    const double top = above + static_cast<double>(i / columns) * (title + high + edge);
    const Box screen{edge + (room + edge) * column + (room - scene.stage.width * scale) / 2, top + title,
                     scene.stage.width * scale, scene.stage.height * scale};
    const std::string name = scene.title.substr(std::min(scene.title.find(": ") + 2, scene.title.size()));
    write({screen.x, top + 10.0}, scene.title.find(": ") == std::string::npos ? scene.title : name, 13.5, 1.0,
          true);
    spoken += (spoken.empty() ? "" : ", ") + name;
    skin::Picture drawn = skin::comb(run.stage(), colours, kit.looks);
    skin::make_legible(drawn, 9.5 / scale, skin::inter_width);
    page.emplace_back(skin::Group{
        .shapes = std::move(drawn), .move = {screen.x, screen.y}, .scale = scale, .clip = screen});
    page.emplace_back(skin::paper(screen, 14.0, {.stroke = colours.ink.with_alpha(0.6), .width = 1.6}));
  }
  paint::save(page, width, height, out, {"Heather Ridge", spoken},
              paint::images_beside(scenes.empty() ? "" : scenes.front()));
}

}  // namespace ubbo::tool
