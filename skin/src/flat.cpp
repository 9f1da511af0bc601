#include "ubbo/skin/flat.hpp"

#include <algorithm>

namespace ubbo::skin {

namespace {

// From a group's own unit to the picture's: turned, scaled and moved.
struct Place {
  Point move{};
  double scale = 1.0;
  double turn = 0.0;

  [[nodiscard]] Point of(Point at) const { return turned(at, turn) * scale + move; }
  [[nodiscard]] Place within(const Group& group) const {
    return {of(group.move), scale * group.scale, turn + group.turn};
  }
};

class Flattener {
 public:
  void add(const Picture& picture, const Place& place) {
    for (const Shape& shape : picture) std::visit([&](const auto& one) { add(one, place); }, shape);
  }
  std::vector<Step> steps;

 private:
  static Ink scaled(Ink ink, double scale) {
    ink.width *= scale;
    ink.dash *= scale;
    return ink;
  }

  void add(const Path& path, const Place& place) {
    Path made{.points = path.points, .closed = path.closed, .ink = scaled(path.ink, place.scale)};
    for (Point& point : made.points) point = place.of(point);
    steps.emplace_back(std::move(made));
  }

  void add(const Disc& disc, const Place& place) {
    steps.emplace_back(Disc{place.of(disc.centre), disc.radius * place.scale, scaled(disc.ink, place.scale)});
  }

  void add(const Text& text, const Place& place) {
    PlacedText made{text, place.turn};
    made.text.at = place.of(text.at);
    made.text.size *= place.scale;
    steps.emplace_back(std::move(made));
  }

  void add(const Image& image, const Place& place) {
    const Point middle = place.of(image.box.centre());
    const double w = image.box.w * place.scale;
    const double h = image.box.h * place.scale;
    steps.emplace_back(PlacedImage{{{middle.x - w / 2, middle.y - h / 2, w, h}, image.name}, place.turn});
  }

  void add(const Group& group, const Place& place) {
    const bool seen_whole = !group.clip && group.opacity >= 1.0;
    if (!seen_whole) {
      Begin begin{.opacity = std::clamp(group.opacity, 0.0, 1.0)};
      if (const auto& box = group.clip)
        begin.clip = {place.of({box->x, box->y}), place.of({box->right(), box->y}),
                      place.of({box->right(), box->bottom()}), place.of({box->x, box->bottom()})};
      steps.emplace_back(begin);
    }
    add(group.shapes, place.within(group));
    if (!seen_whole) steps.emplace_back(End{});
  }
};

}  // namespace

std::vector<Step> flat(const Picture& picture) {
  Flattener flattener;
  flattener.add(picture, {});
  return std::move(flattener.steps);
}

}  // namespace ubbo::skin
