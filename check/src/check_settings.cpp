#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "look.hpp"

namespace ubbo::check {

namespace {

// What people see as a motion, and do not wait for: docs/formats/scene.md.
constexpr double quickest = 125.0;  // ms
constexpr double slowest = 800.0;   // ms

// What shows one of the parts in it has a name for each.
void contents(Look& look, const Looked& one) {
  for (const auto& [setting, cell] : one.plan->cells) {
    const io::CellValue* held = look.begins(cell);
    const auto* choice = held == nullptr ? nullptr : std::get_if<Choice>(held);
    if (setting != "selected" || choice == nullptr || !one.part->places_children()) continue;
    const auto inside = static_cast<std::size_t>(
        std::count_if(look.parts.begin(), look.parts.end(),
                      [&](const Looked& other) { return other.part->outer() == one.part; }));
    if (inside != choice->names().size())
      look.say(lost_content, one, "selected",
               fmt::format("{} has {} parts in it, and {} names {}", one.plan->id, inside, cell,
                           choice->names().size()),
               "give each content a name, and each name a content");
  }
}

void numbers(Look& look, const Looked& one) {
  const auto from = number(one, "from");
  const auto to = number(one, "to");
  const auto step = number(one, "step");
  if (from && to && step && *step > std::fabs(*to - *from))
    look.say(
        step_over_range, one, "step",
        fmt::format("step = {} on a range of {}", plain_number(*step), plain_number(std::fabs(*to - *from))),
        "take a smaller step, or a wider range");
  for (const char* name : {"snap_points", "snap_fractions"})
    if (const auto snap_points = value(one, name);
        snap_points && std::holds_alternative<std::vector<double>>(*snap_points)) {
      std::vector<double> sorted = std::get<std::vector<double>>(*snap_points);
      std::sort(sorted.begin(), sorted.end());
      if (const auto twice = std::adjacent_find(sorted.begin(), sorted.end(),
                                                [](double a, double b) { return b - a < 1e-9; });
          twice != sorted.end())
        look.say(doubled_snap_point, one, name, fmt::format("{} holds {} twice", name, plain_number(*twice)),
                 "leave one of them out");
    }
  const auto commits = value(one, "commit_distance");
  const auto leading = number(one, "leading");
  if (!commits || !leading) return;
  constexpr double reach = 0.85;  // of the way across: a finger begins somewhere, and stays on the screen
  const double across = one.part->layout_box().w;
  const double at = std::get<Length>(*commits).in(across);
  const double opens = std::max(*leading, number(one, "trailing").value_or(0.0));
  if (at > reach * across)
    look.say(commit_out_of_reach, one, "commit_distance",
             fmt::format("a long swipe commits at {} of {}", dp(at), dp(across)),
             fmt::format("let it commit at 85% of the way at most, {}", dp(std::floor(reach * across))));
  else if (at > 0.0 && at <= opens)
    look.say(commit_out_of_reach, one, "commit_distance",
             fmt::format("a long swipe commits at {}, and it opens at {}", dp(at), dp(opens)),
             "let it commit further than it opens");
}

void times(Look& look, const Looked& one, const char* name, const Transition& transition) {
  const double lasts = length_of(transition);
  if (lasts > 0.0 && lasts < quickest)
    look.say(too_quick, one, name, fmt::format("{} takes {} for 100 dp", name, ms(std::round(lasts))),
             "give it 125 ms at least");
  if (lasts > slowest)
    look.say(too_slow, one, name, fmt::format("{} takes {} for 100 dp", name, ms(std::round(lasts))),
             "give it 800 ms at most");
}

void settings(Look& look, const Looked& one) {
  const Accessible access = one.part->accessible();
  const bool names_itself =
      !one.layer && std::any_of(look.parts.begin(), look.parts.end(), [&](const Looked& inside) {
        return inside.part != one.part && lies_in(*inside.part, *one.part) &&
               !inside.part->accessible().label.empty();
      });
  if ((one.target || one.layer) && access.label.empty() && !names_itself && value(one, "label"))
    look.say(no_name, one, "label", fmt::format("{} has no label", one.plan->id), "say in label what it is");
  // What has places to rest at has a value.
  const auto readings = one.plan->kind->readings;
  const bool holds_value = !any_of(one.plan->kind->role, {"group", "list"}) &&
                           std::any_of(readings.begin(), readings.end(), [](const ReadingInfo& reading) {
                             return reading.snap_points != nullptr;
                           });
  bool takes_cell = false;
  for (std::size_t i = 0; i < one.plan->kind->settings(); ++i)
    takes_cell = takes_cell || one.plan->kind->setting(i).kind == SettingKind::cell;
  if (one.target && holds_value && takes_cell && one.plan->cells.empty())
    look.say(unheard, one, "kind", fmt::format("{} is linked to no cell", one.plan->id),
             "link it to a cell of the app");
  numbers(look, one);
  contents(look, one);
  for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
    const SettingInfo& info = one.plan->kind->setting(i);
    if (!one.plan->places.contains(info.name)) continue;  // defaults are no fault of the scene's
    const SettingValue value = one.plan->kind->get(one.plan->settings, i);
    if (const auto* transition = std::get_if<Transition>(&value)) times(look, one, info.name, *transition);
    const auto* number = std::get_if<double>(&value);
    if (number == nullptr) continue;
    if (info.kind == SettingKind::time && *number > 0.0 && *number < 10.0)
      look.say(seconds_for_ms, one, info.name,
               fmt::format("{} = {} are {}", info.name, plain_number(*number), ms(*number)),
               fmt::format("for {} s write {}", plain_number(*number), plain_number(*number * 1000.0)));
    if (info.kind == SettingKind::number && info.unit == std::string_view("dp") && *number > 0.0 &&
        *number < 1.0 && info.max > 100.0)
      look.say(share_for_dp, one, info.name,
               fmt::format("{} = {} are {}", info.name, plain_number(*number), dp(*number)),
               "write the length in dp");
  }
  const Placement& at = one.plan->placement;
  for (const auto& [name, length] : {std::pair{"w", at.w}, {"h", at.h}})
    if (length && length->fraction == 0.0 && length->dp > 0.0 && length->dp <= 1.0)
      look.say(share_for_dp, one, name,
               fmt::format("{} = {} is {}", name, plain_number(length->dp), dp(length->dp)),
               fmt::format("for a share of the container write \"{}%\"", plain_number(length->dp * 100.0)));
}

}  // namespace

void check_settings(Look& look) {
  for (const Looked& one : look.parts) settings(look, one);
}

}  // namespace ubbo::check
