#include "ubbo/parts/sheet.hpp"

#include <algorithm>
#include <array>

#include "panel_kind.hpp"

namespace ubbo {

namespace {

constexpr std::array sheet_gives{"none", "share", "less"};

}  // namespace

template <>
std::span<const Setting<SheetSettings>> settings_of<SheetSettings>() {
  using declare::number;
  using S = SheetSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the sheet is called, for people and screen readers"),
      declare::cell<&S::rest>("rest",
                              "the cell that holds where it stands or goes: 0 is away, then 1, 2, … from the "
                              "lowest rest on; may be left out"),
      declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
      declare::choice<&S::edge>("edge", edge_names, "the edge of the screen it is drawn out from"),
      declare::numbers<&S::rests>("rests", "dp", 1.0, 100000.0,
                                  "where it stands: how far it is out; none of any kind: all of it"),
      declare::numbers<&S::rest_shares>("rest_shares", "", 0.01, 1.0,
                                        "the same as shares of the screen's length along its way"),
      number<&S::content>("content", "dp", 0.0, 100000.0,
                          "the same as the app has measured what lies in it; 0: not"),
      declare::flag<&S::grip_only>("grip_only", "a finger drags it by its grip alone, not anywhere"),
      number<&S::grip>("grip", "dp", 1.0, 1000.0, "how far its grip reaches in from its inner edge"),
      declare::choice<&S::give_out>(
          "give_out", sheet_gives,
          "how it yields beyond its furthest rest: not at all, by a share, or less and "
          "less"),
      declare::choice<&S::give_in>("give_in", sheet_gives,
                                   "the same below its lowest rest, where a drag does not close it"),
      number<&S::give_share>("give_share", "", 0.0, 1.0,
                             "the share by which a bound follows that yields by a share"),
      number<&S::give_reach>("give_reach", "dp", 1.0, 10000.0,
                             "how far a bound yields that yields less and less"),
      number<&S::commit>("commit", "", 0.0, 1.0,
                         "the share of the way to the next rest from which it goes on when it is let go; 0: "
                         "half-way"),
      number<&S::commit_distance>("commit_distance", "dp", 0.0, 100000.0,
                                  "how far it must be dragged to go on to the next rest, or to close; the "
                                  "share counts too, whichever is reached first; 0: only the share"),
      number<&S::veil>(
          "veil", "", 0.0, 1.0,
          "how much of what lies below its backdrop hides; 0: it has none, and what lies below stays "
          "in use"),
      declare::flag<&S::drag_closes>("drag_closes", "a drag or flick past its lowest rest closes it"),
      declare::flag<&S::backdrop_closes>("backdrop_closes", "a tap on its backdrop closes it"),
      declare::flag<&S::back_closes>("back_closes", "the phone's back and Escape close it"),
      declare::flag<&S::edge_opens>("edge_opens", "a drag that begins at the screen's edge draws it out"),
      declare::passage<&S::passage>("passage", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::carry>(
          "carry", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
  };
  return table;
}

std::string Sheet::misfit(const Box& box, const SheetSettings& settings) {
  if (settings.edge == Edge::none)
    return "edge = none is not taken; it takes an edge it can be drawn out from";
  const bool aside = settings.edge != Edge::bottom && settings.edge != Edge::top;
  for (const double rest : settings.rests)
    if (rest > (aside ? box.w : box.h))
      return "rests holds " + plain_number(rest) + "; it takes 1 to the sheet's own " +
             plain_number(aside ? box.w : box.h) + " dp";
  if (settings.veil > 0.0 && !settings.drag_closes && !settings.backdrop_closes && !settings.back_closes)
    return "it has no way out; it takes drag_closes, backdrop_closes or back_closes, or veil = 0";
  return {};
}

EdgePanel::Plan Sheet::base_plan(const SheetSettings& settings, const Box& box, const Surroundings& around) {
  const bool aside = settings.edge != Edge::bottom && settings.edge != Edge::top;
  std::vector<double> rests = settings.rests;
  for (const double share : settings.rest_shares)
    rests.push_back(share * (aside ? around.screen.w : around.screen.h));
  if (settings.content > 0.0) rests.push_back(settings.content);
  // What is longer than the sheet is all of it.
  const double longest = aside ? box.w : box.h;
  for (double& rest : rests) rest = std::min(rest, longest);
  if (rests.empty()) rests.push_back(longest);
  std::sort(rests.begin(), rests.end());
  rests.erase(std::unique(rests.begin(), rests.end()), rests.end());
  const auto give = [&](Give::How how) {
    return Give{how, how == Give::How::share ? settings.give_share : settings.give_reach};
  };
  return {.edge = settings.edge,
          .rests = std::move(rests),
          .passage = settings.passage,
          .reduced_motion = settings.reduced_motion,
          .carry = settings.carry,
          .commit_distance = settings.commit_distance,
          .commit = settings.commit,
          .give_out = give(settings.give_out),
          .give_in = give(settings.give_in),
          .grip_only = settings.grip_only,
          .grip = settings.grip,
          .veil = settings.veil,
          .drag_closes = settings.drag_closes,
          .backdrop_closes = settings.backdrop_closes,
          .back_closes = settings.back_closes,
          .edge_opens = settings.edge_opens};
}

Sheet::Sheet(std::string id, const Box& box, SheetSettings&& settings, Surroundings& around)
    : PartOf(std::move(id), box, std::move(settings), around) {
  follow(settings_.rest, settings_.open, true);
  told_ = rest();
}

void Sheet::changed() {
  take(planned(), true);
  follow(settings_.rest, settings_.open, false);
}

void Sheet::went(Visit::State state) {
  tell(settings_.on_visit, state);
  if (std::exchange(told_, rest()) != rest()) tell(settings_.on_rest, rest());
}

void Sheet::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
  told.modal = settings_.veil > 0.0;
}

const PartKind& Sheet::described() {
  static const PartKind kind = detail::describe_panel<Sheet>(
      "sheet", "a surface drawn out from an edge of the screen that stands at one of its rests");
  return kind;
}

}  // namespace ubbo
