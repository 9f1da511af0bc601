#include "ubbo/show/places.hpp"

#include <fmt/format.h>

#include <cmath>

#include "ubbo/io/scene/scene_run.hpp"

namespace ubbo::show {

namespace {

const char* side_name(Point way) {
  if (std::fabs(way.x) >= std::fabs(way.y)) return way.x < 0.0 ? "to the left" : "to the right";
  return way.y < 0.0 ? "up" : "down";
}

std::string way_of(const Stand& from, const Stand& to, const Stand& apart) {
  std::string words;
  const Point way = to.box.centre() - from.box.centre();
  if (length(way) > 0.5) words = fmt::format("{:.0f} dp {}", length(way), side_name(way));
  if (apart.opacity < 1.0) words += words.empty() ? "by fading" : ", fading";
  const bool scaled = std::fabs(from.box.w - to.box.w) > 0.5;
  if (scaled) words += words.empty() ? "by a change of size" : ", changing its size";
  return words.empty() ? "at once" : words;
}

std::string says(const std::vector<Stand>& stands) {
  const Stand* start = nullptr;
  const Stand* here = nullptr;
  const Stand* gone = nullptr;
  std::size_t snap_points = 0;
  for (const Stand& stand : stands) {
    const Stand*& which = stand.as == StandAs::start ? start : stand.as == StandAs::present ? here : gone;
    if (which == nullptr) which = &stand;
    snap_points += stand.as == StandAs::present ? 1U : 0U;
  }
  std::string words;
  if (start != nullptr && here != nullptr) words = "enters " + way_of(*start, *here, *start);
  if (here != nullptr && gone != nullptr) words += "; leaves " + way_of(*here, *gone, *gone);
  if (snap_points > 1) words += fmt::format("; has {} snap points", snap_points);
  return words;
}

}  // namespace

Places places_of(const io::Scene& scene) {
  io::SceneRun run(scene);
  run.stage().advance(Micros{0});
  const Stage& stage = run.stage();
  Places made{.title = scene.title.empty() ? scene.file : scene.title,
              .screen = {0.0, 0.0, stage.width(), stage.height()},
              .safe = stage.safe_area(),
              .others = {},
              .layers = {}};
  for (const Part* part : stage.parts()) {
    if (part->kind().stands == nullptr) {
      if (part->visible()) made.others.push_back(part->box());
      continue;
    }
    PlacesOf layer{part->id(), {}, {}};
    part->kind().stands(*part, [&](const Stand& stand) { layer.stands.push_back(stand); });
    layer.says = says(layer.stands);
    made.layers.push_back(std::move(layer));
  }
  return made;
}

}  // namespace ubbo::show
