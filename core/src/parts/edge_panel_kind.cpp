#include "edge_panel_kind.hpp"

namespace ubbo::detail {

namespace {

const EdgePanel& panel_of(const Part& part) { return static_cast<const EdgePanel&>(part); }

}  // namespace

void panel_rest_places(const Part& part, std::vector<double>& out) {
  out.push_back(0.0);
  for (const double snap_point : panel_of(part).snap_points()) out.push_back(snap_point);
}

std::string panel_state(const EdgePanel& it) { return name_of(it.state()); }
double panel_rest(const EdgePanel& it) { return it.snap_point(); }

void panel_stands(const Part& part, const StandTaker& out) {
  const EdgePanel& it = panel_of(part);
  out({StandAs::start, "absent", it.box_at(0.0), 1.0});
  for (std::size_t i = 0; i < it.snap_points().size(); ++i)
    out({StandAs::present, it.snap_points().size() > 1 ? "snap point " + std::to_string(i + 1) : "open",
         it.box_at(it.snap_points()[i]), 1.0});
}

// Where its inner edge stands when it is out by so much.
std::optional<Point> panel_place(const Part& part, double value) {
  const Box box = panel_of(part).box_at(value);
  switch (panel_of(part).side()) {
    case Side::left:
      return Point{box.right(), box.centre().y};
    case Side::up:
      return Point{box.centre().x, box.bottom()};
    case Side::right:
      return Point{box.x, box.centre().y};
    case Side::down:
      break;
  }
  return Point{box.centre().x, box.y};
}

void panel_pieces(const Part& part, const PieceTaker& out) {
  const EdgePanel& it = panel_of(part);
  const Box& screen = it.context().screen;
  const Box box = it.box();
  if (it.dim() > 0.0) out({.role = Role::backdrop, .box = screen, .opacity = it.dim()});
  // Its far side stays beyond the edge it comes from, also while it is drawn further out than it is long.
  Box seen = box;
  const Side side = it.side();
  if (side == Side::down) seen.h = std::fmax(seen.h, screen.bottom() - seen.y);
  if (side == Side::right) seen.w = std::fmax(seen.w, screen.right() - seen.x);
  if (side == Side::left && seen.x > screen.x) {
    seen.w += seen.x - screen.x;
    seen.x = screen.x;
  }
  if (side == Side::up && seen.y > screen.y) {
    seen.h += seen.y - screen.y;
    seen.y = screen.y;
  }
  out({.role = Role::surface, .box = seen, .held = it.dragging()});
  if (side == Side::down)
    out({.role = Role::handle,
         .name = "grip",
         .box = {box.centre().x - 14.0, box.y + 9.0, 28.0, 7.0},
         .held = it.dragging(),
         .cursor = Cursor::ns_resize});
  if (side == Side::up)
    out({.role = Role::handle,
         .name = "grip",
         .box = {box.centre().x - 14.0, box.bottom() - 16.0, 28.0, 7.0},
         .held = it.dragging(),
         .cursor = Cursor::ns_resize});
  out({.role = Role::label,
       .box = {box.x + 16.0, box.y + 22.0, std::fmax(box.w - 32.0, 0.0), 28.0},
       .words = it.accessible().label});
}

}  // namespace ubbo::detail
