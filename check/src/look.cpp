#include "look.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace ubbo::check {

Look::Look(const io::Scene& scene_, const TextWidth& measure_, bool partial_)
    : scene(&scene_), measure(&measure_), partial(partial_), run(scene_) {
  run.stage().advance(Micros{0});
  for (const io::PartPlan& plan : scene->parts) {
    const Part& part = *run.stage().find(plan.id);
    const bool layer = part.absent() || part.modal();
    const Accessible access = part.accessible();
    const bool target = !layer && !plan.disabled && (!access.keys.empty() || !OfferedActions(part).empty());
    Box box = part.layout_box();
    const Part* inner = &part;
    for (const Part* outer = part.outer(); outer != nullptr; inner = std::exchange(outer, outer->outer()))
      if (!outer->absent()) box = box + outer->carries_part(*inner);
    parts.push_back({&plan, &part, layer, target, box});
  }
}

void Look::say(RuleName rule, const std::string& of, io::FilePlace place, std::string what,
               std::string remedy) {
  const bool of_absence = rule == unheard || rule == never_shown || rule == lost_content ||
                          rule == idle_cell || rule == no_way_back || rule == no_way_out ||
                          rule == idle_silence;
  if (partial && of_absence) return;
  found.push_back({&check_rules()[rule], of, place, std::move(what), std::move(remedy), {}});
}

void Look::say(RuleName rule, const Looked& one, const char* setting, std::string what, std::string remedy) {
  const auto place = one.plan->places.find(setting);
  say(rule, one.plan->id,
      place == one.plan->places.end() ? io::FilePlace{one.plan->line, one.plan->column} : place->second,
      std::move(what), std::move(remedy));
}

const io::CellValue* Look::begins(const std::string& cell) const {
  const auto held = std::find_if(scene->cells.begin(), scene->cells.end(),
                                 [&](const auto& other) { return other.first == cell; });
  return held == scene->cells.end() ? nullptr : &held->second;
}

std::optional<SettingValue> value(const Looked& one, std::string_view name) {
  const std::size_t at = find_setting(*one.plan->kind, name);
  if (at == one.plan->kind->settings()) return {};
  return one.plan->kind->get(one.plan->settings, at);
}

std::optional<double> number(const Looked& one, std::string_view name) {
  const auto held = value(one, name);
  if (!held || !std::holds_alternative<double>(*held)) return {};
  return std::get<double>(*held);
}

double length_of(const Transition& transition) {
  const Motion motion({.from = 0.0, .to = 100.0, .rest_floor = 0.05}, transition);
  return to_ms(motion.ends());
}

std::string ms(double value) { return plain_number(value) + " ms"; }
std::string dp(double value) { return plain_number(value) + " dp"; }

bool any_of(std::string_view text, std::initializer_list<std::string_view> all) {
  return std::find(all.begin(), all.end(), text) != all.end();
}

}  // namespace ubbo::check
