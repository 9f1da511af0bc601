#include "ubbo/io/scene/plan.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <stdexcept>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

[[noreturn]] void refuse_name(const char* what, std::string_view name,
                              const std::vector<std::string_view>& known) {
  const std::string nearest = nearest_name(name, known);
  throw std::invalid_argument(fmt::format("no {} '{}'; takes {}{}", what, name, fmt::join(known, ", "),
                                          nearest.empty() ? "" : "; nearest known: " + nearest));
}

}  // namespace

Plan::Plan(Scene scene)
    : scene_(std::make_shared<const Scene>(std::move(scene))), links_(scene_->parts.size()) {
  for (std::size_t i = 0; i < scene_->parts.size(); ++i)
    for (const auto& [setting, name] : scene_->parts[i].cells) {
      const auto cell = std::find_if(scene_->cells.begin(), scene_->cells.end(),
                                     [&called = name](const auto& one) { return one.first == called; });
      if (cell != scene_->cells.end())
        links_[i].push_back({find_setting(*scene_->parts[i].kind, setting),
                             static_cast<std::size_t>(cell - scene_->cells.begin())});
    }
}

Variation Plan::vary(std::string_view part, std::string_view setting, SettingValue value) const {
  const auto found = std::find_if(scene_->parts.begin(), scene_->parts.end(),
                                  [part](const PartPlan& one) { return one.id == part; });
  std::vector<std::string_view> known;
  if (found == scene_->parts.end()) {
    for (const PartPlan& one : scene_->parts) known.emplace_back(one.id);
    refuse_name("part", part, known);
  }
  const PartKind& kind = *found->kind;
  const std::size_t at = find_setting(kind, setting);
  if (at == kind.settings()) {
    for (std::size_t i = 0; i < kind.settings(); ++i) known.emplace_back(kind.setting(i).name);
    refuse_name("setting", setting, known);
  }
  const SettingInfo& info = kind.setting(at);
  std::string fault = takes_type(info, value) ? "" : type_fault(info, value);
  const auto wrong = [&](double number) { return info.kind != SettingKind::cell && !info.takes(number); };
  if (const auto* number = std::get_if<double>(&value); fault.empty() && number != nullptr && wrong(*number))
    fault = number_fault(info, *number);
  if (const auto* list = std::get_if<std::vector<double>>(&value); fault.empty() && list != nullptr)
    if (const auto first = std::find_if(list->begin(), list->end(), wrong); first != list->end())
      fault = number_fault(info, *first);
  if (const auto* length = std::get_if<Length>(&value); fault.empty() && length != nullptr)
    fault = length_fault(info, *length);
  if (info.kind == SettingKind::cell) fault = fmt::format("{} is a cell; a scene links it", info.name);
  if (!fault.empty()) throw std::invalid_argument(kind.fault_of(found->id, fault));
  return {static_cast<std::size_t>(found - scene_->parts.begin()), at, std::move(value)};
}

std::size_t Plan::cell_at(std::string_view name, CellKind kind) const {
  std::vector<std::string_view> known;
  for (std::size_t i = 0; i < scene_->cells.size(); ++i) {
    const auto& [called, value] = scene_->cells[i];
    known.emplace_back(called);
    if (called != name) continue;
    if (kind_of(value) == kind) return i;
    throw std::invalid_argument(fmt::format("cell '{}' holds a {}; a handle of a {} is asked for", name,
                                            name_of(kind_of(value)), name_of(kind)));
  }
  refuse_name("cell", name, known);
}

}  // namespace ubbo::io
