#pragma once

#include <deque>
#include <string>
#include <variant>
#include <vector>

#include "ubbo/base/refuse.hpp"
#include "ubbo/base/settings.hpp"
#include "ubbo/enter_exit/visual_state.hpp"
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
bool put_setting(const SettingAccess& setting, void* settings, const SettingValue& value);
template <class S>
bool put_setting(const Setting<S>& setting, S& settings, const SettingValue& value) {
  return put_setting(setting, static_cast<void*>(&settings), value);
}

/// What a setting holds; a cell comes as a null pointer.
[[nodiscard]] SettingValue get_setting(const SettingAccess& setting, const void* settings);
template <class S>
[[nodiscard]] SettingValue get_setting(const Setting<S>& setting, const S& settings) {
  return get_setting(setting, static_cast<const void*>(&settings));
}

namespace declare {

/// What is wrong with a motion that a part goes by: it repeats.
[[nodiscard]] inline const char* repeats_fault(const Transition& transition) {
  return transition.runs == 1 ? ""
                              : " repeats; it takes one that is gone once, so that the part comes to rest";
}

/// Appends the settings of a member that is `Transitions`: `name` for all properties, and such as
/// "enter.opacity" for those that go by one of their own.
template <auto Member, class S = Owner<Member>>
void add_transitions(std::vector<Setting<S>>& table, const char* name, const char* meaning) {
  static std::deque<std::string> texts;  // as long as the table, which is made once
  Setting<S> all;
  all.name = name;
  all.kind = SettingKind::transition;
  all.meaning =
      texts.emplace_back(joined({meaning, "; its properties may each have one of their own"})).data();
  all.at = [](const void* s) -> const void* { return &(owner<Member>(s).*Member).all(); };
  all.to = [](void* s) -> void* { return &(owner<Member>(s).*Member).all(); };
  all.wrong = [](const void* s) { return repeats_fault((owner<Member>(s).*Member).all()); };
  table.push_back(all);
  [&]<std::size_t... G>(std::index_sequence<G...>) {
    (..., [&] {
      constexpr auto group = static_cast<PropertyGroup>(G);
      Setting<S> own = all;
      own.name = texts.emplace_back(joined({name, ".", property_group_names[G]})).data();
      own.meaning = texts.emplace_back(joined({meaning, ", its ", property_group_names[G]})).data();
      own.like = name;
      own.at = [](const void* s) -> const void* { return &(owner<Member>(s).*Member).of(group); };
      own.to = [](void* s) -> void* { return &(owner<Member>(s).*Member).own(group); };
      own.wrong = [](const void* s) { return repeats_fault((owner<Member>(s).*Member).of(group)); };
      table.push_back(own);
    }());
  }
  (std::make_index_sequence<property_group_names.size()>{});
}

/// Appends the settings of the struct that is the member `Inner` of `S`, of whatever type they are. `member`
/// is what that is called; theirs are called as in C++, such as "travel.from_edge".
template <auto Inner, class S = Owner<Inner>>
void add_inner(std::vector<Setting<S>>& table, const char* member) {
  using I = Type<Inner>;
  static std::deque<std::string> names;  // as long as the table, which is made once
  for (const Setting<I>& inner : settings_of<I>()) {
    Setting<S> outer;
    static_cast<SettingInfo&>(outer) = inner;
    outer.name = names.emplace_back(joined({member, ".", inner.name})).data();
    reach<Inner>(outer);
    outer.inner = &inner;
    table.push_back(outer);
  }
}

}  // namespace declare
}  // namespace ubbo
