#include "ubbo/base/settings.hpp"

#include <cmath>
#include <cstdio>

namespace ubbo {

std::string plain_number(double value) {
  char text[40];
  std::snprintf(text, sizeof text, "%.6g", value == 0.0 ? 0.0 : value);
  return text;
}

namespace {

std::string range_of(const SettingInfo& setting) {
  std::string words = plain_number(setting.least) + " to " + plain_number(setting.most);
  if (*setting.unit != '\0') words += std::string(" ") + setting.unit;
  return words;
}

}  // namespace

std::string what_it_takes(const SettingInfo& setting) {
  switch (setting.kind) {
    case SettingKind::flag:
      return "true or false";
    case SettingKind::text:
      return "text";
    case SettingKind::cell:
      return std::string("the name of a cell that holds a ") + name_of(setting.cell_kind);
    case SettingKind::passage:
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
  return setting.kind == SettingKind::numbers ? "a list of numbers, each " + range_of(setting)
                                              : range_of(setting);
}

std::string number_fault(const SettingInfo& setting, double got) {
  const bool within = got >= setting.least && got <= setting.most;
  if (within && (!setting.whole || got == std::floor(got))) return {};
  if (setting.kind == SettingKind::numbers)
    return std::string(setting.name) + " holds " + plain_number(got) + "; it takes " + range_of(setting);
  return std::string(setting.name) + " = " + plain_number(got) +
         (*setting.unit != '\0' ? std::string(" ") + setting.unit : std::string()) +
         " is not taken; it takes " + (within ? "a whole number" : what_it_takes(setting));
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
