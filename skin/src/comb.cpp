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
  const double seen = slider.thumb_presence();
  picture.emplace_back(paper(slider.fill(), 0.0, {.fill = colours.honey.with_alpha(seen)}));
  add_marks(picture, slider, colours);

  const double radius = slider.settings().thumb / 2 * (slider.pressed() ? 1.18 : 1.05);
  picture.emplace_back(
      hexagon(slider.thumb(), radius,
              {.fill = colours.honey.with_alpha(seen),
               .stroke = (slider.dragging() ? colours.heather : colours.ink).with_alpha(seen),
               .width = slider.pressed() ? 3.0 : 2.0}));
  const std::string number = plain_number(std::round(slider.value() * 100.0) / 100.0);
  const double size = slider.settings().thumb * (number.size() < 3 ? 0.5 : 0.36);
  picture.emplace_back(Text{.at = slider.thumb() + Point{0.0, size * 0.36},
                            .words = number,
                            .size = size,
                            .colour = day.ink.with_alpha(seen),
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

Picture comb(const Pane& pane, const CombColours& colours) {
  Picture picture;
  const Box box = pane.box();
  const std::string& label = pane.settings().label;
  const bool aside = pane.settings().axis == Axis::horizontal;
  if (pane.settings().moves == Moves::content) {
    if (!label.empty())
      picture.emplace_back(Text{.at = {box.x + 12.0, box.y - 10.0},
                                .words = label,
                                .size = 17.0,
                                .colour = colours.ink,
                                .bold = true});
    return picture;
  }
  if (aside && pane.offset() != 0.0) {
    const double bare = std::fabs(pane.offset());
    const Box uncovered{pane.offset() > 0.0 ? box.x - bare : box.right(), box.y, bare, box.h};
    picture.emplace_back(paper(uncovered, 0.0, {.fill = pane.offset() > 0.0 ? colours.moss : colours.brick}));
  }
  picture.emplace_back(paper(
      box, aside ? 0.0 : 18.0,
      {.fill = colours.paper, .stroke = colours.ink.with_alpha(pane.dragging() ? 0.8 : 0.3), .width = 1.2}));
  if (!aside)
    for (const double y : {8.0, 13.0})  // the grip: two short parallel bars
      picture.emplace_back(line({box.centre().x - 14.0, box.y + y}, {box.centre().x + 14.0, box.y + y},
                                colours.ink.with_alpha(0.6), 2.0));
  if (!label.empty())
    picture.emplace_back(Text{.at = {box.x + 16.0, aside ? box.centre().y + 5.0 : box.y + 40.0},
                              .words = label,
                              .size = 15.0,
                              .colour = colours.ink,
                              .bold = true});
  return picture;
}

Picture comb(const Pad& pad, const CombColours& colours) {
  Picture picture;
  const Box box = pad.box();
  if (pad.pressed())
    picture.emplace_back(
        paper(box, 8.0, {.fill = colours.heather.with_alpha(0.14), .stroke = colours.heather, .width = 1.6}));
  const Gesture& last = pad.last();
  const bool pair =
      last.kind == GestureKind::pan || last.kind == GestureKind::pinch || last.kind == GestureKind::rotate;
  if (box.h > 200.0) {  // a plan: six hives around a seventh
    const double scale = pair ? last.scale : 1.0;
    const double turn = pair ? last.angle : 0.0;
    const Point middle = box.centre() + (pair ? last.offset : Point{});
    for (int i = 0; i < 7; ++i) {
      const double angle = turn + i * 1.0471975511965976;
      const Point at = i == 6 ? middle : middle + Point{std::cos(angle), std::sin(angle)} * (62.0 * scale);
      picture.emplace_back(
          hexagon(at, 20.0 * scale,
                  {.fill = i == 0 ? colours.heather.with_alpha(0.6) : colours.honey.with_alpha(0.75),
                   .stroke = colours.ink,
                   .width = 1.6}));
    }
  }
  if (!pad.settings().label.empty())
    picture.emplace_back(Text{.at = {box.x + 16.0, box.h > 200.0 ? box.y + 26.0 : box.centre().y + 5.0},
                              .words = pad.settings().label,
                              .size = 15.0,
                              .colour = colours.ink,
                              .bold = true});
  return picture;
}

namespace {

Picture any_part(const Part& part, const CombColours& colours) {
  if (const auto* slider = dynamic_cast<const Slider*>(&part)) return comb(*slider, colours);
  if (const auto* pane = dynamic_cast<const Pane*>(&part)) return comb(*pane, colours);
  if (const auto* pad = dynamic_cast<const Pad*>(&part)) return comb(*pad, colours);
  return {};
}

}  // namespace

Picture comb(const Stage& stage, const CombColours& colours) {
  Picture picture;
  picture.emplace_back(paper({0.0, 0.0, stage.width(), stage.height()}, 0.0, {.fill = colours.paper}));
  for (const auto& part : stage.parts()) {
    Picture drawn = any_part(*part, colours);
    double seen = part->presence();
    for (const Part* outer = part->outer(); outer != nullptr; outer = outer->outer())
      seen *= outer->presence();
    if (seen < 1.0) {
      Group fading{.shapes = std::move(drawn), .opacity = seen};
      drawn.clear();
      drawn.emplace_back(std::move(fading));
    }
    if (part->outer() == nullptr) {
      for (Shape& shape : drawn) picture.push_back(std::move(shape));
      continue;
    }
    // What lies in other parts is seen only within all of them.
    Box window = part->outer()->box();
    for (const Part* outer = part->outer()->outer(); outer != nullptr; outer = outer->outer())
      window = common(window, outer->box());
    picture.emplace_back(Group{.shapes = std::move(drawn), .clip = window});
  }
  return picture;
}

}  // namespace ubbo::skin
