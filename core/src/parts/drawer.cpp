#include "ubbo/parts/drawer.hpp"

#include <array>

#include "edge_panel_kind.hpp"

namespace ubbo {

template <>
std::span<const Setting<DrawerSettings>> settings_of<DrawerSettings>() {
  using declare::number;
  using S = DrawerSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the drawer is called, for people and screen readers"),
      declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
      declare::choice<&S::edge>("edge", edge_names, "the edge of the screen it comes from"),
      declare::flag<&S::edge_swipe_opens>("edge_swipe_opens",
                                          "a drag that begins at the screen's edge draws it in"),
      declare::flag<&S::drag_closes>("drag_closes", "a drag or flick back closes it"),
      declare::flag<&S::backdrop_closes>("backdrop_closes", "a tap on its backdrop closes it"),
      declare::flag<&S::back_closes>("back_closes", "the phone's back and Escape close it"),
      declare::length<&S::commit_distance>("commit_distance",
                                           "how far it must be dragged to open or close when it is let go: a "
                                           "length, or a share of its way; 0: "
                                           "half-way"),
      declare::flag<&S::dim_follows>("dim_follows",
                                     "the page dims as far as this is drawn out; no: by dim_transition"),
      declare::transition<&S::dim_transition>(
          "dim_transition",
          "how the page dims when this opens and clears when it closes, where it does not follow"),
      number<&S::dim>(
          "dim", "", 0.0, 1.0,
          "how much of what lies below its backdrop hides; 0: it has none, and what lies below stays "
          "in use"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
  };
  return table;
}

std::string Drawer::misfit(const Box&, const DrawerSettings& settings) {
  if (settings.edge == Edge::none) return "edge = none is not taken; it takes an edge it can come from";
  if (settings.dim > 0.0 && !settings.drag_closes && !settings.backdrop_closes && !settings.back_closes)
    return "it has no way out; it takes drag_closes, backdrop_closes or back_closes, or dim = 0";
  return {};
}

EdgePanel::Plan Drawer::base_plan(const DrawerSettings& settings, const Box& box, const Context&) {
  const bool aside = settings.edge != Edge::bottom && settings.edge != Edge::top;
  return {.edge = settings.edge,
          .snap_points = {aside ? box.w : box.h},
          .transition = settings.transition,
          .reduced_motion = settings.reduced_motion,
          .projection_time = settings.projection_time,
          .commit_distance = settings.commit_distance,
          .dim = settings.dim,
          .dim_follows = settings.dim_follows,
          .dim_transition = settings.dim_transition,
          .drag_closes = settings.drag_closes,
          .backdrop_closes = settings.backdrop_closes,
          .back_closes = settings.back_closes,
          .edge_swipe_opens = settings.edge_swipe_opens};
}

Drawer::Drawer(std::string id, const Box& box, DrawerSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  follow({}, settings_.open, true);
}

void Drawer::changed() {
  take(planned(), true);
  follow({}, settings_.open, false);
}

void Drawer::went(bool other) {
  if (other) tell(settings_.on_state, state());
}

void Drawer::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
  told.modal = settings_.dim > 0.0;
}

const PartKind& Drawer::described() {
  static const PartKind kind =
      detail::describe_panel<Drawer>("drawer", "a surface beside the page that is drawn in from an edge",
                                     {.box = R"(0, 0, 264, "100%")",
                                      .lines = "label = \"Apiaries\"\nopen = \"shown\"\n",
                                      .cells = "shown = true\n"},
                                     WheelUse::none);
  return kind;
}

}  // namespace ubbo
