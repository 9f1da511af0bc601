#pragma once

#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/settings.hpp"
#include "ubbo/motion/passage.hpp"

namespace ubbo {

/// What a setting of any kind holds: a number (also a time in ms, a flag as 0 or 1, a choice by its index), a
/// text, a list of numbers, a passage, or the cell to link to.
struct SettingValue : std::variant<double, std::string, std::vector<double>, Passage, AnyCell> {
  using variant::variant;
};

/// "a number", "a text", …: the type of a value.
[[nodiscard]] const char* type_of(const SettingValue& value);

/// Gives a setting a value. False, and nothing is changed, where that is of another type than the setting.
template <class S>
bool put_setting(const Setting<S>& setting, S& settings, const SettingValue& value) {
  if (setting.within != nullptr) return setting.within->put(*setting.inner, settings, value);
  const auto* number = std::get_if<double>(&value);
  const auto* text = std::get_if<std::string>(&value);
  const auto* list = std::get_if<std::vector<double>>(&value);
  const auto* passage = std::get_if<Passage>(&value);
  const auto* cell = std::get_if<AnyCell>(&value);
  if (number != nullptr && setting.set != nullptr)
    setting.set(settings, *number);
  else if (text != nullptr && setting.text != nullptr)
    settings.*setting.text = *text;
  else if (list != nullptr && setting.numbers != nullptr)
    settings.*setting.numbers = *list;
  else if (passage != nullptr && setting.passage != nullptr)
    settings.*setting.passage = *passage;
  else if (cell != nullptr && setting.link != nullptr && is_of(*cell, setting.cell_kind))
    setting.link(settings, *cell);
  else
    return false;
  return true;
}

/// What a setting holds; a cell comes as a null pointer.
template <class S>
SettingValue get_setting(const Setting<S>& setting, const S& settings) {
  if (setting.within != nullptr) return setting.within->get(*setting.inner, settings);
  if (setting.text != nullptr) return settings.*setting.text;
  if (setting.numbers != nullptr) return settings.*setting.numbers;
  if (setting.passage != nullptr) return settings.*setting.passage;
  if (setting.get != nullptr) return setting.get(settings);
  return AnyCell{};
}

namespace declare {

/// Appends the settings of the struct that is the member `Inner` of `S`, of whatever type they are.
template <auto Inner, class S = Owner<Inner>>
void add_inner(std::vector<Setting<S>>& table) {
  using I = Type<Inner>;
  static constexpr InnerSettings<S> within{
      [](const SettingInfo& inner, const S& settings) {
        return get_setting(static_cast<const Setting<I>&>(inner), settings.*Inner);
      },
      [](const SettingInfo& inner, S& settings, const SettingValue& value) {
        return put_setting(static_cast<const Setting<I>&>(inner), settings.*Inner, value);
      },
      [](const SettingInfo& inner, const S& settings) {
        return setting_fault(static_cast<const Setting<I>&>(inner), settings.*Inner);
      }};
  for (const Setting<I>& inner : settings_of<I>()) {
    Setting<S> outer;
    static_cast<SettingInfo&>(outer) = inner;
    outer.within = &within;
    outer.inner = &inner;
    table.push_back(outer);
  }
}

}  // namespace declare
}  // namespace ubbo
