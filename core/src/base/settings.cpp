#include "ubbo/base/settings.hpp"

#include <cstdio>
#include <stdexcept>

namespace ubbo {

std::string plain_number(double value) {
  char text[40];
  std::snprintf(text, sizeof text, "%.6g", value == 0.0 ? 0.0 : value);
  return text;
}

std::string what_it_takes(const SettingInfo& setting) {
  switch (setting.kind) {
    case SettingKind::flag:
      return "true or false";
    case SettingKind::text:
      return "text";
    case SettingKind::cell:
      return "the name of a cell";
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
  std::string words = setting.kind == SettingKind::numbers ? "a list of numbers, each " : "";
  words += plain_number(setting.least) + " to " + plain_number(setting.most);
  if (*setting.unit != '\0') words += std::string(" ") + setting.unit;
  return words;
}

void refuse_setting(std::string_view owner, const SettingInfo& setting, double got) {
  throw std::invalid_argument(std::string(owner) + ": " + setting.name + " = " + plain_number(got) +
                              (*setting.unit != '\0' ? std::string(" ") + setting.unit : std::string()) +
                              " is not taken; it takes " + what_it_takes(setting));
}

}  // namespace ubbo
