#pragma once

#include <string>

#include "ubbo/parts/setting_value.hpp"

namespace ubbo::io {

/// A setting's value as scenes write it, texts without quotes: `12`, `true`, `ease-out 240ms`, `40%`,
/// `[0, 320]`; "" for a cell.
[[nodiscard]] std::string setting_text(const SettingInfo& setting, const SettingValue& value);

}  // namespace ubbo::io
