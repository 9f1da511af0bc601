#pragma once

#include "ubbo/show/film.hpp"

namespace ubbo::show {

/// What a film draws over the screen: fingers and their trails, thresholds, snap points, where things were.
class FilmMarks {
 public:
  FilmMarks(const FilmReel& reel, const skin::CombColours& colours) : reel_(&reel), colours_(&colours) {}

  /// Adds those of one of the reel's frames to its scene, in dp.
  void add(skin::Picture& shapes, const FilmFrame& frame) const;

  [[nodiscard]] skin::Ink finger_ink() const;
  [[nodiscard]] skin::Path diamond(Point at, double r) const;
  [[nodiscard]] skin::Path snap_mark(Point at, double r) const;
  /// A mouse or pen that touches nothing: a ring.
  void add_pointer(skin::Picture& shapes, Point at) const;
  /// A wheel that is turned: arrowheads towards where it scrolls, or away from each other where it zooms.
  void add_turn(skin::Picture& shapes, const FilmTurn& turn) const;
  /// The four corners of a box, each as two short lines: what stands in the box stays readable.
  void add_corners(skin::Picture& shapes, const Box& box, double reach, double width, double opacity) const;

 private:
  void add_turns(skin::Picture& shapes, Micros before, const FilmFrame& frame) const;
  void add_hover(skin::Picture& shapes, Micros before, const FilmFrame& frame) const;
  void add_press(skin::Picture& shapes, const FilmPress& press) const;
  void add_trail(skin::Picture& shapes, const std::vector<TrailPoint>& trail, Micros before,
                 Micros now) const;

  const FilmReel* reel_;
  const skin::CombColours* colours_;
};

}  // namespace ubbo::show
