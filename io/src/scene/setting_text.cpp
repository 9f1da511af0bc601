#include "ubbo/io/scene/setting_text.hpp"

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/words/number.hpp"

namespace ubbo::io {

std::string setting_text(const SettingInfo& setting, const SettingValue& value) {
  switch (setting.kind) {
    case SettingKind::text:
      return std::get<std::string>(value);
    case SettingKind::cell:
      return "";
    case SettingKind::numbers: {
      std::string text = "[";
      for (const double number : std::get<std::vector<double>>(value))
        text += (text.size() == 1 ? "" : ", ") + words::plain(number);
      return text + "]";
    }
    case SettingKind::transition:
      return spec_text(std::get<Transition>(value));
    case SettingKind::length:
      return length_text(std::get<Length>(value));
    case SettingKind::flag:
      return std::get<double>(value) != 0.0 ? "true" : "false";
    case SettingKind::choice:
      return setting.choices[static_cast<std::size_t>(std::get<double>(value))];
    case SettingKind::number:
    case SettingKind::time:
      break;
  }
  return plain_number(std::get<double>(value));
}

}  // namespace ubbo::io
