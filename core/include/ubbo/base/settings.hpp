#pragma once

#include <array>
#include <cmath>
#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <variant>
#include <vector>

#include "ubbo/base/cell.hpp"
#include "ubbo/base/length.hpp"
#include "ubbo/base/refuse.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

struct Transition;    // ubbo/motion/transition.hpp; only pointed at here
struct SettingValue;  // ubbo/parts/setting_value.hpp; likewise

/// What a setting holds. A `time` is given in milliseconds, a `choice` by one of its names, a `cell` by a
/// cell's, a `length` in dp or as a share of what its meaning says.
enum class SettingKind { number, time, flag, choice, text, cell, numbers, transition, length };

/// What is said of a setting without knowing the struct it sits in.
struct SettingInfo {
  const char* name = "";
  SettingKind kind = SettingKind::number;
  const char* unit = "";
  double min = 0.0;    ///< smallest value taken, in `unit`
  double max = 0.0;    ///< largest value taken, in `unit`
  bool whole = false;  ///< only whole numbers are taken
  std::span<const char* const> choices{};
  const char* meaning = "";
  CellKind cell_kind = CellKind::number;  ///< of the cell that a `cell` takes
  bool needed = false;                    ///< a cell that must be given
  const char* like = "";  ///< the setting whose value counts where this one is left out; "": none

  /// Whether this number is one it takes.
  [[nodiscard]] bool takes(double number) const {
    return number >= min && number <= max && (!whole || number == std::floor(number));
  }
};

/// A cell of any kind, in the order of `CellKind`.
using AnyCell = std::variant<Cell<double>*, Cell<int>*, Cell<bool>*, Cell<Choice>*, Cell<std::string>*,
                             Cell<std::vector<std::string>>*>;

/// The kind of a cell that holds a `T`.
template <class T>
inline constexpr CellKind cell_kind_of = CellKind::number;
template <>
inline constexpr CellKind cell_kind_of<int> = CellKind::whole;
template <>
inline constexpr CellKind cell_kind_of<bool> = CellKind::flag;
template <>
inline constexpr CellKind cell_kind_of<Choice> = CellKind::choice;
template <>
inline constexpr CellKind cell_kind_of<std::string> = CellKind::text;
template <>
inline constexpr CellKind cell_kind_of<std::vector<std::string>> = CellKind::texts;

/// "number", "whole number", "yes or no", "choice", "text", "list of texts".
[[nodiscard]] const char* name_of(CellKind kind);

/// A setting and how it is reached in the struct that holds it, whichever struct that is. Numbers, times
/// (ms), flags (0, 1) and choices (index) are reached as a `double`, what is larger by the address of the
/// member.
struct SettingAccess : SettingInfo {
  double (*get)(const void* settings) = nullptr;
  void (*set)(void* settings, double) = nullptr;
  /// The member: a text, list of numbers, transition or length, as `kind` says; or the struct that holds
  /// `inner`.
  const void* (*at)(const void* settings) = nullptr;
  void* (*to)(void* settings) = nullptr;                   ///< the same, to be written
  void (*link)(void* settings, const AnyCell&) = nullptr;  ///< to a cell of `cell_kind`
  /// "" or what is wrong with a motion, or a cell that is needed.
  const char* (*wrong)(const void* settings) = nullptr;
  const SettingAccess* inner =
      nullptr;  ///< set where it lies in a struct in the settings, which has it as this
};

/// One setting of the struct `S`. The default is what `S{}` holds.
template <class S>
struct Setting : SettingAccess {};

/// The settings of `S`, in the order in which they are documented. Specialised beside each settings struct;
/// this one table feeds the checks, the scene reader and its messages, the tool and the reference page.
template <class S>
std::span<const Setting<S>> settings_of();

/// What is wrong with a number that `SettingInfo::takes` denies, and what it takes.
[[nodiscard]] std::string number_fault(const SettingInfo& setting, double got);
/// What is wrong with a length, and what the setting takes; "" when nothing is.
[[nodiscard]] std::string length_fault(const SettingInfo& setting, const Length& got);

/// Whether one setting of `settings` holds what it takes. Allocates nothing.
[[nodiscard]] bool setting_fits(const SettingAccess& setting, const void* settings);
/// What is wrong with one setting of `settings`; "" when nothing is.
[[nodiscard]] std::string setting_fault(const SettingAccess& setting, const void* settings);

/// What is wrong with the first wrong one of `settings`, held against their table; "" when nothing is.
template <class S>
[[nodiscard]] std::string settings_fault(const S& settings) {
  for (const Setting<S>& setting : settings_of<S>())
    if (!setting_fits(setting, &settings)) return setting_fault(setting, &settings);
  return {};
}

/// Throws `std::invalid_argument` with the fault of `owner`, if there is one.
template <class S>
void check_settings(const std::string& owner, const S& settings) {
  if (const std::string fault = settings_fault(settings); !fault.empty()) refuse(owner + ": " + fault);
}

/// A number as people write it: at most six significant digits, no trailing zeros.
std::string plain_number(double value);
/// A length as scenes write it: "100dp", "40%", "50% - 8dp"; "0" for none.
std::string length_text(const Length& length);

/// "0 to 200 dp", "true or false", "one of horizontal, vertical": what a setting takes, in words.
std::string what_it_takes(const SettingInfo& setting);

/// Builders of settings tables, for parts of ours and of an app's.
namespace declare {

namespace detail {
template <class S, class T>
S owner_of(T S::*);
template <class S, class T>
T type_of(T S::*);
template <class T>
T held_by(const Link<T>&);
}  // namespace detail

template <auto Member>
using Owner = decltype(detail::owner_of(Member));
template <auto Member>
using Type = decltype(detail::type_of(Member));
/// The settings struct that has `Member`.
template <auto Member>
const Owner<Member>& owner(const void* settings) {
  return *static_cast<const Owner<Member>*>(settings);
}
template <auto Member>
Owner<Member>& owner(void* settings) {
  return *static_cast<Owner<Member>*>(settings);
}
/// Lets `setting` reach that member by its address.
template <auto Member>
constexpr void reach(SettingAccess& setting) {
  setting.at = [](const void* settings) -> const void* { return &(owner<Member>(settings).*Member); };
  setting.to = [](void* settings) -> void* { return &(owner<Member>(settings).*Member); };
}

/// A number, or a time in ms, or a flag, as the member is; `unit`, `least` and `most` are those of the
/// number.
template <auto Member>
constexpr Setting<Owner<Member>> number(const char* name, const char* unit, double min, double max,
                                        const char* meaning) {
  using T = Type<Member>;
  Setting<Owner<Member>> made;
  made.name = name;
  made.unit = unit;
  made.min = min;
  made.max = max;
  made.meaning = meaning;
  if constexpr (std::is_same_v<T, Micros>) {
    made.kind = SettingKind::time;
    made.get = [](const void* s) { return to_ms(owner<Member>(s).*Member); };
    made.set = [](void* s, double ms) { owner<Member>(s).*Member = from_ms(ms); };
  } else {
    made.kind = std::is_same_v<T, bool> ? SettingKind::flag : SettingKind::number;
    made.get = [](const void* s) { return static_cast<double>(owner<Member>(s).*Member); };
    made.set = [](void* s, double value) { owner<Member>(s).*Member = static_cast<T>(value); };
  }
  return made;
}

/// A number that is whole.
template <auto Member>
constexpr Setting<Owner<Member>> whole(const char* name, const char* unit, double min, double max,
                                       const char* meaning) {
  Setting<Owner<Member>> made = number<Member>(name, unit, min, max, meaning);
  made.whole = true;
  return made;
}

/// Yes or no.
template <auto Member>
constexpr Setting<Owner<Member>> flag(const char* name, const char* meaning) {
  return number<Member>(name, "", 0.0, 1.0, meaning);
}

/// One of an enum's values, named in its order.
template <auto Member>
constexpr Setting<Owner<Member>> choice(const char* name, std::span<const char* const> choices,
                                        const char* meaning) {
  using T = Type<Member>;
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::choice;
  made.max = static_cast<double>(choices.size()) - 1.0;
  made.choices = choices;
  made.meaning = meaning;
  made.get = [](const void* s) { return static_cast<double>(owner<Member>(s).*Member); };
  made.set = [](void* s, double index) {
    owner<Member>(s).*Member = static_cast<T>(static_cast<int>(index));
  };
  return made;
}

/// A text.
template <auto Member>
constexpr Setting<Owner<Member>> text(const char* name, const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::text;
  made.meaning = meaning;
  reach<Member>(made);
  return made;
}

/// A list of numbers, each within `least` and `most`.
template <auto Member>
constexpr Setting<Owner<Member>> numbers(const char* name, const char* unit, double min, double max,
                                         const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::numbers;
  made.unit = unit;
  made.min = min;
  made.max = max;
  made.meaning = meaning;
  reach<Member>(made);
  return made;
}

/// A distance: 0 to 100,000 dp, or a share of what `meaning` says, 0 to 1.
template <auto Member>
constexpr Setting<Owner<Member>> length(const char* name, const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::length;
  made.max = 100000.0;
  made.meaning = meaning;
  reach<Member>(made);
  return made;
}

/// How something goes where it is sent.
template <auto Member>
constexpr Setting<Owner<Member>> transition(const char* name, const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::transition;
  made.meaning = meaning;
  reach<Member>(made);
  made.wrong = [](const void* s) {
    return (owner<Member>(s).*Member).runs == 1
               ? ""
               : " repeats; it takes one that is gone once, so that the part comes to rest";
  };
  return made;
}

/// A cell; its kind follows from the member, a `Link`.
template <auto Member>
constexpr Setting<Owner<Member>> cell(const char* name, const char* meaning) {
  using T = decltype(detail::held_by(std::declval<Type<Member>>()));
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::cell;
  made.meaning = meaning;
  made.cell_kind = cell_kind_of<T>;
  made.link = [](void* s, const AnyCell& any) {
    if (auto* const* found = std::get_if<Cell<T>*>(&any)) owner<Member>(s).*Member = **found;
  };
  return made;
}

/// A cell that must be given.
template <auto Member>
constexpr Setting<Owner<Member>> needed_cell(const char* name, const char* meaning) {
  Setting<Owner<Member>> made = cell<Member>(name, meaning);
  made.needed = true;
  made.wrong = [](const void* s) {
    const auto& link = owner<Member>(s).*Member;
    if (!link.linked())
      return " is not linked; it takes a cell, which the app owns and the part shows and changes";
    if constexpr (std::is_same_v<Type<Member>, Link<double>>)
      if (!std::isfinite(link.get())) return ": its cell holds no finite number";
    return "";
  };
  return made;
}

}  // namespace declare
}  // namespace ubbo
