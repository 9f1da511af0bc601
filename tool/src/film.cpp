#include "ubbo/show/film.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <cstdio>
#include <memory>
#include <stdexcept>

#include "commands.hpp"
#include "progress.hpp"
#include "say.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/show/moving.hpp"
#include "ubbo/show/places.hpp"
#include "ubbo/show/reel.hpp"

namespace ubbo::tool {

std::pair<int, int> picture_size(const std::string& text) {
  int width = 0;
  int height = 0;
  char rest = '\0';
  if (std::sscanf(text.c_str(), "%dx%d%c", &width, &height, &rest) != 2 || width < 200 || height < 200 ||
      width > 16384 || height > 16384)
    throw std::invalid_argument(
        fmt::format("--size {}: takes WIDTHxHEIGHT, each 200 to 16384, such as 1280x800", text));
  return {width, height};
}

// A frame for each of that many parts of a second.
void shoot_moving(const FilmOrder& order, const Kit& kit) {
  const auto [width, height] = picture_size(order.size);
  const skin::CombColours& colours = order.dark ? skin::dark : skin::day;
  const io::Scene scene = order.on.read(kit);
  const Micros each = from_ms(1000.0 / order.moving);
  Progress progress("film");
  const show::FilmReel reel =
      show::reel_of(scene, read_take_on(scene, order.take),
                    {.every = each, .colours = colours, .looks = kit.looks, .told = progress.part()});
  std::vector<skin::Picture> pages;
  for (std::size_t i = 0; i < reel.frames.size(); ++i)
    pages.push_back(show::moving_page(reel, i, width, height, paint::text_width, colours));
  paint::save_moving(pages, from_ms(to_ms(each) * order.slow), Micros{1'800'000}, width, height, order.out,
                     paint::images_beside(order.on.path));
}

void shoot_film(const FilmOrder& order, const Kit& kit) {
  const auto [width, height] = picture_size(order.size);
  const skin::CombColours& colours = order.dark ? skin::dark : skin::day;
  const io::Scene scene = order.on.read(kit);
  Progress progress("film");
  const show::FilmReel reel = show::reel_of(scene, read_take_on(scene, order.take),
                                            {.frames = static_cast<std::size_t>(order.frames),
                                             .colours = colours,
                                             .looks = kit.looks,
                                             .told = progress.part()});
  std::string spoken = reel.subtitle;
  for (const show::FilmFrame& frame : reel.frames)
    if (!frame.captions.empty())
      spoken +=
          fmt::format("; {:.0f} ms: {}", to_ms(frame.time - reel.begins), fmt::join(frame.captions, ", "));
  paint::save(show::film(reel, width, height, paint::text_width, colours), width, height, order.out,
              {reel.title, spoken}, paint::images_beside(order.on.path));
}

void shoot_places(const FilmOrder& order, const Kit& kit) {
  const auto [width, height] = picture_size(order.size);
  const skin::CombColours& colours = order.dark ? skin::dark : skin::day;
  const show::Places places = show::places_of(order.on.read(kit));
  std::string spoken = "where its layers start, stand and go";
  for (const show::PlacesOf& layer : places.layers) spoken += fmt::format("; {}: {}", layer.name, layer.says);
  paint::save(show::places(places, width, height, paint::text_width, colours), width, height, order.out,
              {places.title, spoken});
}

void add_film(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<FilmOrder>();
  const Verb verb = app.add_verb("film", "Draw a replay as one picture with its frames side by side");
  order->on.add_to(verb);
  verb.add_option("TAKE", order->take, "a take (*.take.csv) or another recording of touches");
  verb.add_flag("--places", order->places,
                "without a take: where each layer starts, stands and goes, seen beforehand");
  verb.add_option("-o,--out", order->out, "file to write, .png or .svg").required();
  verb.add_option("--moving", order->moving,
                  "frames a second of a moving picture (animated PNG) instead, with the reasons as they fall")
      .between(1.0, 60.0)
      .value_name("RATE");
  verb.add_option("--slow", order->slow, "how many times slower a moving picture is shown, 1 to 20")
      .between(1.0, 20.0)
      .with_default()
      .value_name("TIMES");
  verb.add_option("--frames", order->frames, "how many frames, 2 to 100").between(2, 100).with_default();
  verb.add_option("--size", order->size, "width and height in pixels").with_default();
  verb.add_flag("--dark", order->dark, "dark colours");
  verb.footer(
      "Each decision has its own frame while there is room; the other frames fill the widest gaps.\n"
      "Example:  ubbo film heather-ridge/inspection.scene.toml heather-ridge/inspection.drag.take.csv -o "
      "film.png\n"
      "Example:  ubbo film heather-ridge/hive-sheet.scene.toml --places -o places.png");
  verb.when_called([order, &exit, &kit] {
    if (order->places == !order->take.empty())
      throw std::invalid_argument(order->places ? "film --places takes a scene and no take"
                                                : "film takes a scene and a take, or a scene and --places");
    if (order->places)
      shoot_places(*order, kit);
    else if (order->moving > 0.0)
      shoot_moving(*order, kit);
    else
      shoot_film(*order, kit);
    say("wrote {}\n", order->out);
    exit = done;
  });
}

}  // namespace ubbo::tool
