#pragma once

#include <span>
#include <string>
#include <string_view>

#include "ubbo/parts/kinds.hpp"

namespace ubbo::io {

/// The text of a scene file with `changes` written into it, as `parse_scene` takes them: of a value that is
/// said, only its own characters change; one that is not said comes on a line of its own, or into the braces
/// that say the others. Comments, order and spacing stay. The result reads as the text with those changes
/// does, which is made sure of. Throws `InputError` for a text that does not read, a change that is none, and
/// one that has no place of its own in the file, such as in a template's part.
[[nodiscard]] std::string edit_scene(std::string_view text, const std::string& name,
                                     std::span<const std::string> changes, Kinds kinds = shipped_kinds());

}  // namespace ubbo::io
