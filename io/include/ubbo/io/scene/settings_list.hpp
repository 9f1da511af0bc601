#pragma once

#include <cstdint>
#include <string>
#include <string_view>

#include "ubbo/parts/kinds.hpp"

namespace ubbo::io {

enum class SettingsFormat : std::uint8_t { text, json, markdown };

/// All settings of the group `of` ("screen", "feel", or a kind of part), or of all groups when it is
/// empty, made from the settings tables. Throws `std::invalid_argument` for another group.
[[nodiscard]] std::string settings_list(std::string_view of, SettingsFormat format,
                                        Kinds kinds = shipped_kinds());

}  // namespace ubbo::io
