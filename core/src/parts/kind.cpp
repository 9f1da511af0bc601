#include "ubbo/parts/kind.hpp"

#include <algorithm>
#include <array>

namespace ubbo {

const char* name_of(Role role) {
  static constexpr std::array names{"backdrop", "behind", "surface", "track", "fill",
                                    "mark",     "handle", "label",   "value"};
  return names[static_cast<std::size_t>(role)];
}

std::string PartKind::words() const {
  std::string written = name;
  std::replace(written.begin(), written.end(), '-', ' ');
  return written;
}

std::string PartKind::fault_of(const std::string& id, const std::string& wrong) const {
  return joined({words(), " '", id, "': ", wrong});
}

const char* type_of(const SettingValue& value) {
  static constexpr std::array names{"a number", "a text", "a list of numbers", "a motion", "a cell"};
  return names[value.index()];
}

bool takes_type(const SettingInfo& setting, const SettingValue& value) {
  switch (setting.kind) {
    case SettingKind::text:
      return std::holds_alternative<std::string>(value);
    case SettingKind::numbers:
      return std::holds_alternative<std::vector<double>>(value);
    case SettingKind::transition:
      return std::holds_alternative<Transition>(value);
    case SettingKind::cell: {
      const auto* cell = std::get_if<AnyCell>(&value);
      return cell != nullptr && static_cast<CellKind>(cell->index()) == setting.cell_kind;
    }
    default:
      return std::holds_alternative<double>(value);
  }
}

std::string type_fault(const SettingInfo& setting, const SettingValue& value) {
  const auto* cell = std::get_if<AnyCell>(&value);
  const std::string got =
      cell == nullptr ? type_of(value)
                      : joined({"a cell that holds a ", name_of(static_cast<CellKind>(cell->index()))});
  return joined({setting.name, " is given ", got, "; it takes ", what_it_takes(setting)});
}

namespace detail {

void refuse_settings(const PartKind& kind) {
  refuse(joined({"settings of another kind of part are not taken; it takes those of a ", kind.words()}));
}

}  // namespace detail

const PartKind* find_kind(Kinds kinds, std::string_view name) {
  for (const PartKind* kind : kinds)
    if (kind->name == name) return kind;
  return nullptr;
}

std::size_t find_setting(const PartKind& kind, std::string_view name) {
  std::size_t i = 0;
  while (i < kind.settings() && kind.setting(i).name != name) ++i;
  return i;
}

const PartAction* find_action(const PartKind& kind, std::string_view name) {
  for (const PartAction& action : kind.actions)
    if (action.name == name) return &action;
  return nullptr;
}

OfferedActions::OfferedActions(const Part& part) {
  for (const PartAction& action : part.kind().actions)
    if (count_ < found_.size() && action.offered && action.can(part)) found_[count_++] = &action;
}

bool OfferedActions::has(std::string_view name) const {
  return std::any_of(found_.begin(), found_.begin() + static_cast<std::ptrdiff_t>(count_),
                     [&](const PartAction* action) { return action->name == name; });
}

}  // namespace ubbo
