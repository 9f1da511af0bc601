#include "film_marks.hpp"

#include <algorithm>
#include <tuple>

namespace ubbo::show {

namespace {

using skin::Picture;

constexpr double finger_radius = 17.0;  // dp; about 5.4 mm, half a fingertip's contact

}  // namespace

skin::Ink FilmMarks::finger_ink() const {
  return {.fill = colours_->heather.with_alpha(0.28), .stroke = colours_->heather, .width = 1.6};
}
skin::Path FilmMarks::diamond(Point at, double r) const {
  return {{at + Point{0, -r}, at + Point{r, 0}, at + Point{0, r}, at + Point{-r, 0}},
          true,
          {.fill = colours_->ink}};
}
skin::Path FilmMarks::snap_mark(Point at, double r) const {
  return {
      {at + Point{0, -r}, at + Point{r, r * 0.7}, at + Point{-r, r * 0.7}}, true, {.fill = colours_->moss}};
}

void FilmMarks::add(Picture& shapes, const FilmFrame& frame) const {
  for (const Point& place : reel_->snap_places) shapes.emplace_back(snap_mark(place + Point{0, 17.0}, 3.2));
  for (const FilmGhost& ghost : frame.ghosts)
    add_corners(shapes, ghost.box, 9.0, 1.6, 0.35 + 0.5 * ghost.opacity);
  for (const FilmPress& press : frame.presses) add_press(shapes, press);
  const Micros before = &frame == reel_->frames.data() ? reel_->begins : (&frame)[-1].time;
  for (const auto& trail : reel_->trails)
    if (!trail.empty() && trail.front().time <= frame.time &&
        (trail.back().time > before || before == reel_->begins))
      add_trail(shapes, trail, before, frame.time);
  add_hover(shapes, before, frame);
  add_turns(shapes, before, frame);
}

// All that was turned since the frame before is one mark.
void FilmMarks::add_turns(Picture& shapes, Micros before, const FilmFrame& frame) const {
  FilmTurn sum;
  bool any = false;
  for (const FilmTurn& turn : reel_->turns) {
    if (turn.time > frame.time || turn.time <= before) continue;
    sum.at = turn.at;
    sum.by = sum.by + turn.by;
    sum.zooms = turn.zooms;
    any = true;
  }
  if (any) add_turn(shapes, sum);
}

void FilmMarks::add_turn(Picture& shapes, const FilmTurn& turn) const {
  const bool aside = std::fabs(turn.by.x) > std::fabs(turn.by.y);
  const double sign = (aside ? turn.by.x : turn.by.y) < 0.0 ? -1.0 : 1.0;
  const Point way = aside ? Point{sign, 0} : Point{0, sign};
  const Point across{way.y, way.x};
  const auto head = [&](Point from, Point towards) {
    const Point tip = from + towards * 7.0;
    for (const bool under : {true, false})
      shapes.emplace_back(skin::Path{
          .points = {from + across * 7.0, tip, from - across * 7.0},
          .closed = false,
          .ink = {.stroke = under ? colours_->paper : colours_->heather, .width = under ? 4.8 : 2.4}});
  };
  constexpr double clear = 13.0;  // of the pointer's own ring
  if (turn.zooms) {
    // Closer: away from each other; further away: towards each other.
    const double from = sign < 0.0 ? clear : clear + 7.0;
    head(turn.at + Point{0, -from}, Point{0, sign});
    head(turn.at + Point{0, from}, Point{0, -sign});
    return;
  }
  head(turn.at + way * clear, way);
  head(turn.at + way * (clear + 7.0), way);
}

// A pointer that touches nothing is a ring, with a dashed way.
void FilmMarks::add_hover(Picture& shapes, Micros before, const FilmFrame& frame) const {
  skin::Path way{.points = {},
                 .closed = false,
                 .ink = {.stroke = colours_->heather.with_alpha(0.7), .width = 1.4, .dash = 3.0}};
  const TrailPoint* last = nullptr;
  for (const TrailPoint& point : reel_->hovers) {
    if (point.time > frame.time) break;
    if (!point.down || (last != nullptr && !last->down)) way.points.clear();
    if (point.time >= before && point.down) way.points.push_back(point.at);
    last = &point;
  }
  if (way.points.size() > 1) shapes.emplace_back(std::move(way));
  if (last == nullptr || !last->down || !frame.presses.empty()) return;
  add_pointer(shapes, last->at);
}

void FilmMarks::add_pointer(Picture& shapes, Point at) const {
  // On paper of its own, since what comes under a pointer may have its colour.
  shapes.emplace_back(skin::Disc{at, 7.5, {.fill = colours_->paper.with_alpha(0.85)}});
  shapes.emplace_back(skin::Disc{at, 6.0, {.stroke = colours_->heather, .width = 2.0}});
  shapes.emplace_back(skin::Disc{at, 1.6, {.fill = colours_->heather}});
}

void FilmMarks::add_corners(Picture& shapes, const Box& box, double reach, double width,
                            double opacity) const {
  const double x = std::min(reach, box.w / 3.0);
  const double y = std::min(reach, box.h / 3.0);
  for (const auto& [corner, right, down] : {std::tuple{Point{box.x, box.y}, x, y},
                                            {Point{box.right(), box.y}, -x, y},
                                            {Point{box.x, box.bottom()}, x, -y},
                                            {Point{box.right(), box.bottom()}, -x, -y}})
    shapes.emplace_back(skin::Path{.points = {corner + Point{right, 0}, corner, corner + Point{0, down}},
                                   .closed = false,
                                   .ink = {.stroke = colours_->moss.with_alpha(opacity), .width = width}});
}

void FilmMarks::add_press(Picture& shapes, const FilmPress& press) const {
  const auto [x, y, up] = press.threshold;
  if (x > 0.0 && x == y) {
    shapes.emplace_back(skin::Disc{press.at, x, {.stroke = colours_->brick, .width = 1.4, .dash = 3.0}});
  } else {
    for (const double side : {-1.0, 1.0}) {
      const auto add = [&](Point way, Point back, Point on) {
        const Point at = press.at + way * side;
        shapes.emplace_back(skin::line(at - back, at + on, colours_->brick, 1.4, 3.0));
      };
      if (x > 0.0) add({x, 0}, {0, up}, {0, threshold_reach});
      if (y > 0.0) add({0, y}, {threshold_reach, 0}, {threshold_reach, 0});
    }
  }
  shapes.emplace_back(skin::Disc{press.at, 2.4, {.fill = colours_->brick}});
}

// What was drawn before the last frame is faint.
void FilmMarks::add_trail(Picture& shapes, const std::vector<TrailPoint>& trail, Micros before,
                          Micros now) const {
  skin::Path old{
      .points = {}, .closed = false, .ink = {.stroke = colours_->heather.with_alpha(0.45), .width = 2.0}};
  skin::Path fresh{
      .points = {}, .closed = false, .ink = {.stroke = colours_->heather.with_alpha(0.9), .width = 2.0}};
  const TrailPoint* last = nullptr;
  for (const TrailPoint& point : trail) {
    if (point.time > now) break;
    if (point.time <= before) old.points.push_back(point.at);
    if (point.time > before && fresh.points.empty() && last != nullptr) fresh.points.push_back(last->at);
    if (point.time > before || trail.front().time >= before) fresh.points.push_back(point.at);
    last = &point;
  }
  if (last == nullptr) return;
  if (old.points.size() > 1) shapes.emplace_back(std::move(old));
  if (!fresh.points.empty()) shapes.emplace_back(std::move(fresh));
  if (!last->down) return;
  // With a rim of paper, so that it is seen over a picture too.
  shapes.emplace_back(
      skin::Disc{last->at, finger_radius + 1.4, {.stroke = colours_->paper.with_alpha(0.55), .width = 1.6}});
  shapes.emplace_back(skin::Disc{last->at, finger_radius, finger_ink()});
}

}  // namespace ubbo::show
