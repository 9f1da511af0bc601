#include "ubbo/base/settings.hpp"

#include <algorithm>
#include <cmath>
#include <vector>

#include "ubbo/base/number_text.hpp"

namespace ubbo {

std::string plain_number(double value) { return number_text(value == 0.0 ? 0.0 : value, 6); }

std::string length_text(const Length& length) {
  const bool shared = length.fraction != 0.0;
  const std::string share = joined({plain_number(length.fraction * 100.0), "%"});
  if (shared && length.dp == 0.0) return share;
  if (!shared) return length.dp == 0.0 ? "0" : joined({plain_number(length.dp), "dp"});
  return joined({share, length.dp < 0.0 ? " - " : " + ", plain_number(std::fabs(length.dp)), "dp"});
}

namespace {

std::string range_of(const SettingInfo& setting) {
  const char* space = *setting.unit != '\0' ? " " : "";
  return joined({plain_number(setting.min), " to ", plain_number(setting.max), space, setting.unit});
}

}  // namespace

std::string what_it_takes(const SettingInfo& setting) {
  switch (setting.kind) {
    case SettingKind::flag:
      return "true or false";
    case SettingKind::text:
      return "text";
    case SettingKind::cell:
      return joined({"the name of a cell that holds a ", name_of(setting.cell_kind)});
    case SettingKind::length:
      return joined(
          {"0 to ", plain_number(setting.max), " dp, such as 100 or \"100dp\", or a share such as \"40%\""});
    case SettingKind::transition:
      return "a spring, a coast, or a curve with its time, such as \"spring(settle 250ms, overshoot 5%)\" or "
             "\"ease-out 240ms\"";
    case SettingKind::choice: {
      std::string words = "one of ";
      for (const char* name : setting.choices) {
        if (name != setting.choices.front()) words += ", ";
        words += name;
      }
      return words;
    }
    case SettingKind::numbers:
    case SettingKind::number:
    case SettingKind::time:
      break;
  }
  return joined({setting.kind == SettingKind::numbers ? "a list of numbers, each " : "", range_of(setting)});
}

std::string number_fault(const SettingInfo& setting, double got) {
  if (setting.kind == SettingKind::numbers)
    return joined({setting.name, " holds ", plain_number(got), "; it takes ", range_of(setting)});
  const bool within = got >= setting.min && got <= setting.max;
  const std::string takes = within ? "a whole number" : what_it_takes(setting);
  const char* space = *setting.unit != '\0' ? " " : "";
  return joined(
      {setting.name, " = ", plain_number(got), space, setting.unit, " is not taken; it takes ", takes});
}

namespace {

bool length_fits(const SettingInfo& setting, const Length& got) {
  const bool share = got.dp == 0.0 && got.fraction >= 0.0 && got.fraction <= 1.0;
  return share || (got.fraction == 0.0 && setting.takes(got.dp));
}

}  // namespace

std::string length_fault(const SettingInfo& setting, const Length& got) {
  if (length_fits(setting, got)) return {};
  return joined({setting.name, " = ", length_text(got), " is not taken; it takes ", what_it_takes(setting)});
}

bool setting_fits(const SettingAccess& setting, const void* settings) {
  if (setting.inner != nullptr) return setting_fits(*setting.inner, setting.at(settings));
  if (setting.get != nullptr && !setting.takes(setting.get(settings))) return false;
  if (setting.kind == SettingKind::length)
    return length_fits(setting, *static_cast<const Length*>(setting.at(settings)));
  if (setting.wrong != nullptr && *setting.wrong(settings) != '\0') return false;
  if (setting.kind != SettingKind::numbers) return true;
  const auto& numbers = *static_cast<const std::vector<double>*>(setting.at(settings));
  return std::all_of(numbers.begin(), numbers.end(), [&](double number) { return setting.takes(number); });
}

std::string setting_fault(const SettingAccess& setting, const void* settings) {
  if (setting_fits(setting, settings)) return {};
  if (setting.inner != nullptr) {
    std::string fault = setting_fault(*setting.inner, setting.at(settings));
    const std::string_view own = setting.inner->name;  // it is called by its whole name here
    return fault.starts_with(own) ? setting.name + fault.substr(own.size()) : fault;
  }
  if (setting.get != nullptr)
    if (const double number = setting.get(settings); !setting.takes(number))
      return number_fault(setting, number);
  if (setting.kind == SettingKind::numbers)
    for (const double number : *static_cast<const std::vector<double>*>(setting.at(settings)))
      if (!setting.takes(number)) return number_fault(setting, number);
  if (setting.kind == SettingKind::length)
    return length_fault(setting, *static_cast<const Length*>(setting.at(settings)));
  if (setting.wrong != nullptr)
    if (const char* wrong = setting.wrong(settings); *wrong != '\0') return joined({setting.name, wrong});
  return {};
}

const char* name_of(CellKind kind) {
  switch (kind) {
    case CellKind::number:
      return "number";
    case CellKind::whole:
      return "whole number";
    case CellKind::flag:
      return "yes or no";
    case CellKind::choice:
      return "choice";
    case CellKind::text:
      return "text";
    case CellKind::texts:
      return "list of texts";
  }
  return "";
}

}  // namespace ubbo
