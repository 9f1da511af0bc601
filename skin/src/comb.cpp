#include "ubbo/skin/comb.hpp"

#include <cmath>

#include "ubbo/base/settings.hpp"

namespace ubbo::skin {

namespace {

// Marks closer than this would run into each other.
constexpr double least_mark_gap = 8.0;

double track_length(const Slider& slider) {
  const Box track = slider.track();
  return std::fmax(track.w, track.h);
}

void add_marks(Picture& picture, const Slider& slider, const CombColours& colours) {
  const std::size_t count = slider.snaps().size();
  if (count < 2 || track_length(slider) / static_cast<double>(count - 1) < least_mark_gap) return;
  for (std::size_t i = 0; i < count; ++i) {
    const double value = slider.snaps().at(i);
    const bool filled = value <= slider.position();
    picture.emplace_back(hexagon(slider.place_of(value), slider.settings().thickness * 0.75,
                                 {.fill = filled ? colours.honey : colours.paper,
                                  .stroke = colours.ink.with_alpha(filled ? 0.55 : 0.35),
                                  .width = 1.0}));
  }
}

}  // namespace

Picture comb(const Slider& slider, const CombColours& colours) {
  Picture picture;
  picture.emplace_back(paper(slider.track(), 0.0, {.fill = colours.ink.with_alpha(0.16)}));
  picture.emplace_back(paper(slider.fill(), 0.0, {.fill = colours.honey}));
  add_marks(picture, slider, colours);

  const double radius = slider.settings().thumb / 2 * (slider.pressed() ? 1.18 : 1.05);
  picture.emplace_back(hexagon(slider.thumb(), radius,
                               {.fill = colours.honey,
                                .stroke = slider.dragging() ? colours.heather : colours.ink,
                                .width = slider.pressed() ? 3.0 : 2.0}));
  const std::string number = plain_number(std::round(slider.value() * 100.0) / 100.0);
  const double size = slider.settings().thumb * (number.size() < 3 ? 0.5 : 0.36);
  picture.emplace_back(Text{.at = slider.thumb() + Point{0.0, size * 0.36},
                            .words = number,
                            .size = size,
                            .colour = day.ink,
                            .align = Align::centre,
                            .bold = true});
  const Box& box = slider.box();
  picture.emplace_back(Text{.at = {slider.right_to_left() ? box.right() : box.x, box.y - 4.0},
                            .words = slider.settings().label,
                            .size = 14.0,
                            .colour = colours.ink,
                            .align = slider.right_to_left() ? Align::right : Align::left,
                            .bold = true});
  return picture;
}

Picture comb(const Stage& stage, const CombColours& colours) {
  Picture picture;
  picture.emplace_back(paper({0.0, 0.0, stage.width(), stage.height()}, 0.0, {.fill = colours.paper}));
  for (const auto& part : stage.parts())
    if (const auto* slider = dynamic_cast<const Slider*>(part.get()))
      for (Shape& shape : comb(*slider, colours)) picture.push_back(std::move(shape));
  return picture;
}

}  // namespace ubbo::skin
