#pragma once

#include <string>
#include <string_view>

#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::io {

/// All that a kind of part tells of itself: what it is, its settings, readings, keys, calls, and the
/// questions it decides with their answers; or, where `of` is empty, a line for each kind. Throws
/// `std::invalid_argument` for a name that is no kind's.
[[nodiscard]] std::string parts_list(std::string_view of, SettingsFormat format,
                                     Kinds kinds = shipped_kinds());

}  // namespace ubbo::io
