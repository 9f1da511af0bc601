#pragma once

#include <string>
#include <string_view>

#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::io {

/// What can be decided: the name of each decision, the question it answers, and its sentence; those of parts
/// of `kinds` too. `of`: only the one of this name, or those of a topic such as "rail"; "": all. Throws
/// `std::invalid_argument` for a name that is none.
[[nodiscard]] std::string decisions_list(std::string_view of, SettingsFormat format,
                                         Kinds kinds = shipped_kinds());

}  // namespace ubbo::io
