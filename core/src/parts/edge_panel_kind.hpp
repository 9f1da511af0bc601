// What sheets and drawers tell of themselves alike.
#pragma once

#include <array>
#include <cmath>
#include <string>

#include "ubbo/parts/edge_panel.hpp"

namespace ubbo::detail {

void panel_rest_places(const Part& part, std::vector<double>& out);
std::string panel_state(const EdgePanel& it);
double panel_rest(const EdgePanel& it);
void panel_pieces(const Part& part, const PieceTaker& out);
void panel_stands(const Part& part, const StandTaker& out);
std::optional<Point> panel_place(const Part& part, double value);

inline constexpr std::array panel_readings{
    ReadingInfo{"out", "dp", "how far it is drawn out", &read<EdgePanel, &EdgePanel::out>, &panel_rest_places,
                true, &rail_thresholds<EdgePanel>},
    ReadingInfo{"target", "dp", "where that goes, or stands", &read<EdgePanel, &EdgePanel::target>,
                &panel_rest_places},
    ReadingInfo{"velocity", "dp/s", "how fast it goes out", &read<EdgePanel, &EdgePanel::velocity>, nullptr,
                false, &rail_flick_speeds<EdgePanel>},
    ReadingInfo{"snap_point", "", "where it is or goes: 0 is closed, then the snap points from the lowest on",
                &read<EdgePanel, &panel_rest>},
    ReadingInfo{"dim", "", "how much its backdrop hides", &read<EdgePanel, &EdgePanel::dim>},
    ReadingInfo{"state", "", "absent, entering, present or leaving", &read<EdgePanel, &panel_state>},
    ReadingInfo{"pressed", "", "a finger has it", &read<EdgePanel, &EdgePanel::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<EdgePanel, &EdgePanel::dragging>},
};

inline constexpr std::array panel_actions{
    PartAction{"open", "opens to its lowest snap point", &run_action<EdgePanel, &EdgePanel::open>},
    PartAction{"close", "closes", &run_action<EdgePanel, &EdgePanel::close>},
    PartAction{.name = "toggle",
               .means = "opens where it is closed, closes where it is open",
               .run = &run_action<EdgePanel, &EdgePanel::toggle>,
               .offered = false},
    PartAction{.name = "next",
               .means = "goes to the next snap point further out",
               .run = [](Part& part) { static_cast<EdgePanel&>(part).step(1); },
               .offered = false},
    PartAction{.name = "previous",
               .means = "goes to the next snap point further in",
               .run = [](Part& part) { static_cast<EdgePanel&>(part).step(-1); },
               .offered = false}};

/// Those of all layers: how they come and go, and what closes them.
inline constexpr auto layer_answers = [] {
  std::array<const Answer*, answers::state_answers.size() + answers::way_out_answers.size()> all{};
  std::size_t at = 0;
  for (const Answer* one : answers::state_answers) all[at++] = one;
  for (const Answer* one : answers::way_out_answers) all[at++] = one;
  return all;
}();

template <class P>
PartKind describe_panel(const char* name, const char* means, PartExample example, WheelUse wheel) {
  return describe<P>({.name = name,
                      .means = means,
                      .role = "dialog",
                      .example = example,
                      .readings = panel_readings,
                      .pieces = &panel_pieces,
                      .place_of = &panel_place,
                      .stands = &panel_stands,
                      .reaches_out = true,
                      .wheel = wheel,
                      .frame = {.top = 56.0},
                      .keys = "arrows, Home, End, Escape",
                      .actions = panel_actions,
                      .answers = layer_answers});
}

}  // namespace ubbo::detail
