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

/// How the settings of a struct that lies in `S` are reached.
template <class S>
struct InnerSettings {
  SettingValue (*get)(const SettingInfo& inner, const S&);
  bool (*put)(const SettingInfo& inner, S&, const SettingValue&);  ///< false: not of its type
  std::string (*fault)(const SettingInfo& inner, const S&);
};

/// One setting of the struct `S`: what it is called, what it takes, what it means and where it is kept.
/// Numbers, times (ms), flags (0, 1) and choices (index) are all reached as a `double`. The default is what
/// `S{}` holds.
template <class S>
struct Setting : SettingInfo {
  double (*get)(const S&) = nullptr;
  void (*set)(S&, double) = nullptr;
  std::string S::*text = nullptr;
  void (*link)(S&, const AnyCell&) = nullptr;  ///< to a cell of `cell_kind`
  std::vector<double> S::*numbers = nullptr;
  Transition S::*transition = nullptr;
  Length S::*length = nullptr;
  const char* (*wrong)(const S&) = nullptr;  ///< "" or what is wrong with a motion, or a cell that is needed
  const InnerSettings<S>* within = nullptr;  ///< set instead of all these where it lies in a struct in `S`,
  const SettingInfo* inner = nullptr;        ///< which has it as this
};

/// The settings of `S`, in the order in which they are documented. Specialised beside each settings struct;
/// this one table feeds the checks, the scene reader and its messages, the tool and the reference page.
template <class S>
std::span<const Setting<S>> settings_of();

/// What is wrong with a number that `SettingInfo::takes` denies, and what it takes.
[[nodiscard]] std::string number_fault(const SettingInfo& setting, double got);
/// What is wrong with a length, and what the setting takes; "" when nothing is.
[[nodiscard]] std::string length_fault(const SettingInfo& setting, const Length& got);

/// What is wrong with one setting of `settings`; "" when nothing is.
template <class S>
[[nodiscard]] std::string setting_fault(const Setting<S>& setting, const S& settings) {
  if (setting.within != nullptr) {
    std::string fault = setting.within->fault(*setting.inner, settings);
    const std::string_view own = setting.inner->name;  // it is called by its whole name here
    return fault.starts_with(own) ? setting.name + fault.substr(own.size()) : fault;
  }
  if (setting.get != nullptr)
    if (const double number = setting.get(settings); !setting.takes(number))
      return number_fault(setting, number);
  if (setting.numbers != nullptr)
    for (const double number : settings.*setting.numbers)
      if (!setting.takes(number)) return number_fault(setting, number);
  if (setting.length != nullptr)
    if (std::string fault = length_fault(setting, settings.*setting.length); !fault.empty()) return fault;
  if (setting.wrong != nullptr)
    if (const char* wrong = setting.wrong(settings); *wrong != '\0') return joined({setting.name, wrong});
  return {};
}

/// What is wrong with the first wrong one of `settings`, held against their table; "" when nothing is.
template <class S>
[[nodiscard]] std::string settings_fault(const S& settings) {
  for (const Setting<S>& setting : settings_of<S>())
    if (std::string fault = setting_fault(setting, settings); !fault.empty()) return fault;
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

/// A number, or a time in ms, or a flag, as the member is; `unit`, `least` and `most` are those of the
/// number.
template <auto Member>
constexpr Setting<Owner<Member>> number(const char* name, const char* unit, double min, double max,
                                        const char* meaning) {
  using S = Owner<Member>;
  using T = Type<Member>;
  Setting<S> made;
  made.name = name;
  made.unit = unit;
  made.min = min;
  made.max = max;
  made.meaning = meaning;
  if constexpr (std::is_same_v<T, Micros>) {
    made.kind = SettingKind::time;
    made.get = [](const S& s) { return to_ms(s.*Member); };
    made.set = [](S& s, double ms) { s.*Member = from_ms(ms); };
  } else {
    made.kind = std::is_same_v<T, bool> ? SettingKind::flag : SettingKind::number;
    made.get = [](const S& s) { return static_cast<double>(s.*Member); };
    made.set = [](S& s, double value) { s.*Member = static_cast<T>(value); };
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
  using S = Owner<Member>;
  using T = Type<Member>;
  Setting<S> made;
  made.name = name;
  made.kind = SettingKind::choice;
  made.max = static_cast<double>(choices.size()) - 1.0;
  made.choices = choices;
  made.meaning = meaning;
  made.get = [](const S& s) { return static_cast<double>(s.*Member); };
  made.set = [](S& s, double index) { s.*Member = static_cast<T>(static_cast<int>(index)); };
  return made;
}

/// A text.
template <auto Member>
constexpr Setting<Owner<Member>> text(const char* name, const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::text;
  made.meaning = meaning;
  made.text = Member;
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
  made.numbers = Member;
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
  made.length = Member;
  return made;
}

/// How something goes where it is sent.
template <auto Member>
constexpr Setting<Owner<Member>> transition(const char* name, const char* meaning) {
  Setting<Owner<Member>> made;
  made.name = name;
  made.kind = SettingKind::transition;
  made.meaning = meaning;
  made.transition = Member;
  made.wrong = [](const Owner<Member>& s) {
    return (s.*Member).runs == 1 ? ""
                                 : " repeats; it takes one that is gone once, so that the part comes to rest";
  };
  return made;
}

/// A cell; its kind follows from the member, a `Link`.
template <auto Member>
constexpr Setting<Owner<Member>> cell(const char* name, const char* meaning) {
  using S = Owner<Member>;
  using T = decltype(detail::held_by(std::declval<Type<Member>>()));
  Setting<S> made;
  made.name = name;
  made.kind = SettingKind::cell;
  made.meaning = meaning;
  made.cell_kind = cell_kind_of<T>;
  made.link = [](S& s, const AnyCell& any) {
    if (auto* const* found = std::get_if<Cell<T>*>(&any)) s.*Member = **found;
  };
  return made;
}

/// A cell that must be given.
template <auto Member>
constexpr Setting<Owner<Member>> needed_cell(const char* name, const char* meaning) {
  Setting<Owner<Member>> made = cell<Member>(name, meaning);
  made.needed = true;
  made.wrong = [](const Owner<Member>& s) {
    if (!(s.*Member).linked())
      return " is not linked; it takes a cell, which the app owns and the part shows and changes";
    if constexpr (std::is_same_v<Type<Member>, Link<double>>)
      if (!std::isfinite((s.*Member).get())) return ": its cell holds no finite number";
    return "";
  };
  return made;
}

}  // namespace declare
}  // namespace ubbo
