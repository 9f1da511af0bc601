#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

#include "look.hpp"

namespace ubbo::check {

namespace {

// The least and the most that a cell may hold for its part, where the part's settings say so.
std::optional<std::pair<double, double>> range_of(const Looked& one, std::string_view setting) {
  const auto pair = [&](const char* min, const char* max) -> std::optional<std::pair<double, double>> {
    const auto from = number(one, min);
    const auto to = number(one, max);
    if (!from || !to) return {};
    return std::pair(std::min(*from, *to), std::max(*from, *to));
  };
  if (any_of(setting, {"value", "low", "high"})) return pair("from", "to");
  if (any_of(setting, {"offset"}) && !number(one, "count")) return pair("min", "max");
  if (any_of(setting, {"selected"}))
    if (const auto count = number(one, "count")) return std::pair(0.0, std::max(*count - 1.0, 0.0));
  if (any_of(setting, {"snap_point"}))
    if (const auto snap_points = value(one, "snap_points");
        snap_points && std::holds_alternative<std::vector<double>>(*snap_points))
      return std::pair(
          0.0, std::max(1.0, static_cast<double>(std::get<std::vector<double>>(*snap_points).size())));
  return {};
}

void range(Look& look, const Looked& one, const std::string& setting, const std::string& cell) {
  const io::CellValue* held = look.begins(cell);
  if (held == nullptr) return;
  double begins = 0.0;
  if (const auto* real = std::get_if<double>(held))
    begins = *real;
  else if (const auto* whole = std::get_if<int>(held))
    begins = *whole;
  else
    return;
  const auto takes = range_of(one, setting);
  if (!takes || (begins >= takes->first && begins <= takes->second)) return;
  const auto where = look.scene->cell_places.find(cell);
  look.say(out_of_range, cell, where == look.scene->cell_places.end() ? io::FilePlace{} : where->second,
           fmt::format("{} begins at {}, and {} takes {} to {}", cell, plain_number(begins), one.plan->id,
                       plain_number(takes->first), plain_number(takes->second)),
           "begin within the part's range");
}

}  // namespace

void check_cells(Look& look) {
  std::set<std::string> used;
  for (const io::PartPlan& plan : look.scene->parts)
    for (const auto& [setting, cell] : plan.cells) used.insert(cell);
  for (const auto& [name, value] : look.scene->cells) {
    const auto where = look.scene->cell_places.find(name);
    if (!used.contains(name))
      look.say(idle_cell, name, where == look.scene->cell_places.end() ? io::FilePlace{} : where->second,
               fmt::format("no part is linked to {}", name), "link it, or take it out");
  }
  for (const Looked& one : look.parts)
    for (const auto& [setting, cell] : one.plan->cells) range(look, one, setting, cell);
}

}  // namespace ubbo::check
