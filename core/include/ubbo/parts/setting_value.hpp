#pragma once

#include <deque>
#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/refuse.hpp"
#include "ubbo/base/settings.hpp"
#include "ubbo/motion/transition.hpp"

namespace ubbo {

/// What a setting of any kind holds: a number (also a time in ms, a flag as 0 or 1, a choice by its index), a
/// text, a list of numbers, a transition, the cell to link to, or a length (also a bare number: dp).
struct SettingValue : std::variant<double, std::string, std::vector<double>, Transition, AnyCell, Length> {
  using variant::variant;
};

/// "a number", "a text", …: the type of a value.
[[nodiscard]] const char* type_of(const SettingValue& value);

/// Whether a value is of the type that a setting has.
[[nodiscard]] bool takes_type(const SettingInfo& setting, const SettingValue& value);
/// What is wrong with a value of another type, in words.
[[nodiscard]] std::string type_fault(const SettingInfo& setting, const SettingValue& value);

/// Gives a setting a value. False, and nothing is changed, where that is of another type than the setting.
template <class S>
bool put_setting(const Setting<S>& setting, S& settings, const SettingValue& value) {
  if (setting.within != nullptr) return setting.within->put(*setting.inner, settings, value);
  if (!takes_type(setting, value)) return false;
  if (setting.text != nullptr)
    settings.*setting.text = std::get<std::string>(value);
  else if (setting.numbers != nullptr)
    settings.*setting.numbers = std::get<std::vector<double>>(value);
  else if (setting.transition != nullptr)
    settings.*setting.transition = std::get<Transition>(value);
  else if (setting.length != nullptr)
    settings.*setting.length =
        std::holds_alternative<double>(value) ? Length(std::get<double>(value)) : std::get<Length>(value);
  else if (setting.link != nullptr)
    setting.link(settings, std::get<AnyCell>(value));
  else
    setting.set(settings, std::get<double>(value));
  return true;
}

/// What a setting holds; a cell comes as a null pointer.
template <class S>
SettingValue get_setting(const Setting<S>& setting, const S& settings) {
  if (setting.within != nullptr) return setting.within->get(*setting.inner, settings);
  if (setting.text != nullptr) return settings.*setting.text;
  if (setting.numbers != nullptr) return settings.*setting.numbers;
  if (setting.transition != nullptr) return settings.*setting.transition;
  if (setting.length != nullptr) return settings.*setting.length;
  if (setting.get != nullptr) return setting.get(settings);
  return AnyCell{};
}

namespace declare {

/// Appends the settings of the struct that is the member `Inner` of `S`, of whatever type they are. `member`
/// is what that is called; theirs are called as in C++, such as "travel.from_edge".
template <auto Inner, class S = Owner<Inner>>
void add_inner(std::vector<Setting<S>>& table, const char* member) {
  using I = Type<Inner>;
  static std::deque<std::string> names;  // as long as the table, which is made once
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
    outer.name = names.emplace_back(joined({member, ".", inner.name})).data();
    outer.within = &within;
    outer.inner = &inner;
    table.push_back(outer);
  }
}

}  // namespace declare
}  // namespace ubbo
