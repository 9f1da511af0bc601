#include "ubbo/parts/sheet.hpp"

#include <algorithm>
#include <array>

#include "edge_panel_kind.hpp"

namespace ubbo {

template <>
std::span<const Setting<SheetSettings>> settings_of<SheetSettings>() {
  using declare::number;
  using S = SheetSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the sheet is called, for people and screen readers"),
      declare::cell<&S::snap_point>(
          "snap_point",
          "the cell that holds where it is or goes: 0 is closed, then 1, 2, … from the "
          "lowest snap point on; may be left out"),
      declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
      declare::choice<&S::edge>("edge", edge_names, "the edge of the screen it is drawn out from"),
      declare::numbers<&S::snap_points>(
          "snap_points", "dp", 1.0, 100000.0,
          "where it may rest: how far it is drawn out; with none of any kind: all of it"),
      declare::numbers<&S::snap_fractions>(
          "snap_fractions", "", 0.01, 1.0,
          "where it may rest, as shares of the screen's length along its way; beside snap_points"),
      number<&S::content>(
          "content", "dp", 0.0, 100000.0,
          "how long what lies in it is, as the app has measured it: one more place to rest; 0: none"),
      declare::flag<&S::grip_only>("grip_only", "a finger drags it by its grip alone, not anywhere"),
      number<&S::grip>("grip", "dp", 1.0, 1000.0, "how far its grip reaches in from its inner edge"),
      declare::choice<&S::overscroll_out>("overscroll_out", overscroll_names,
                                          "how it yields beyond its furthest snap point: not at all, by a "
                                          "share of the finger's way, or less and less"),
      declare::choice<&S::overscroll_in>(
          "overscroll_in", overscroll_names,
          "how it yields below its lowest snap point, where a drag does not close it"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows past a bound, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes past a bound at most"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far it must be dragged to go on to the next snap point, or to close, when it is let go: a "
          "length, or a share of the way there; 0: half-way"),
      declare::flag<&S::dim_follows>("dim_follows",
                                     "the page dims as far as this is drawn out; no: by dim_transition"),
      declare::transition<&S::dim_transition>(
          "dim_transition",
          "how the page dims when this opens and clears when it closes, where it does not follow"),
      number<&S::dim>(
          "dim", "", 0.0, 1.0,
          "how much of what lies below its backdrop hides; 0: it has none, and what lies below stays "
          "in use"),
      declare::flag<&S::drag_closes>("drag_closes", "a drag or flick past its lowest snap point closes it"),
      declare::flag<&S::backdrop_closes>("backdrop_closes", "a tap on its backdrop closes it"),
      declare::flag<&S::back_closes>("back_closes", "the phone's back and Escape close it"),
      declare::flag<&S::edge_swipe_opens>("edge_swipe_opens",
                                          "a drag that begins at the screen's edge draws it out"),
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

std::string Sheet::misfit(const Box& box, const SheetSettings& settings) {
  if (settings.edge == Edge::none)
    return "edge = none is not taken; it takes an edge it can be drawn out from";
  const bool aside = settings.edge != Edge::bottom && settings.edge != Edge::top;
  for (const double snap_point : settings.snap_points)
    if (snap_point > (aside ? box.w : box.h))
      return "snap_points holds " + plain_number(snap_point) + "; it takes 1 to the sheet's own " +
             plain_number(aside ? box.w : box.h) + " dp";
  if (settings.dim > 0.0 && !settings.drag_closes && !settings.backdrop_closes && !settings.back_closes)
    return "it has no way out; it takes drag_closes, backdrop_closes or back_closes, or dim = 0";
  return {};
}

EdgePanel::Plan Sheet::base_plan(const SheetSettings& settings, const Box& box, const Context& context) {
  const bool aside = settings.edge != Edge::bottom && settings.edge != Edge::top;
  std::vector<double> snap_points = settings.snap_points;
  for (const double fraction : settings.snap_fractions)
    snap_points.push_back(fraction * (aside ? context.screen.w : context.screen.h));
  if (settings.content > 0.0) snap_points.push_back(settings.content);
  // What is longer than the sheet is all of it.
  const double longest = aside ? box.w : box.h;
  for (double& snap_point : snap_points) snap_point = std::min(snap_point, longest);
  if (snap_points.empty()) snap_points.push_back(longest);
  std::sort(snap_points.begin(), snap_points.end());
  snap_points.erase(std::unique(snap_points.begin(), snap_points.end()), snap_points.end());
  const auto overscroll = [&](Overscroll::How how) {
    return Overscroll{
        how, how == Overscroll::How::linear ? settings.overscroll_fraction : settings.overscroll_reach};
  };
  return {.edge = settings.edge,
          .snap_points = std::move(snap_points),
          .transition = settings.transition,
          .reduced_motion = settings.reduced_motion,
          .projection_time = settings.projection_time,
          .commit_distance = settings.commit_distance,
          .overscroll_out = overscroll(settings.overscroll_out),
          .overscroll_in = overscroll(settings.overscroll_in),
          .grip_only = settings.grip_only,
          .grip = settings.grip,
          .dim = settings.dim,
          .dim_follows = settings.dim_follows,
          .dim_transition = settings.dim_transition,
          .drag_closes = settings.drag_closes,
          .backdrop_closes = settings.backdrop_closes,
          .back_closes = settings.back_closes,
          .edge_swipe_opens = settings.edge_swipe_opens};
}

Sheet::Sheet(std::string id, const Box& box, SheetSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  follow(settings_.snap_point, settings_.open, true);
  told_ = snap_point();
}

void Sheet::changed() {
  take(planned(), true);
  follow(settings_.snap_point, settings_.open, false);
}

void Sheet::went(bool other) {
  if (other) tell(settings_.on_state, state());
  if (std::exchange(told_, snap_point()) != snap_point()) tell(settings_.on_rest, snap_point());
}

void Sheet::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
  told.modal = settings_.dim > 0.0;
}

const PartKind& Sheet::described() {
  static const PartKind kind = detail::describe_panel<Sheet>(
      "sheet", "a surface drawn out from an edge of the screen that rests at one of its snap points",
      {.box = R"(0, 160, "100%", 560)",
       .lines = "label = \"Ridge\"\nopen = \"shown\"\nsnap_points = [160, 360, 560]\n",
       .cells = "shown = true\n"},
      WheelUse::scrolls);
  return kind;
}

}  // namespace ubbo
