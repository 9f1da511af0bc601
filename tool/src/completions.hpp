#pragma once

#include <string>
#include <string_view>

#include "declared.hpp"

namespace ubbo::tool {

/// A script by which `shell` (bash, zsh or fish) completes verbs, options, their few values, and files.
/// Throws `std::invalid_argument` for another shell.
[[nodiscard]] std::string completions(const DeclaredVerb& command, std::string_view shell);

/// The manual page, section 1, in the language of roff.
[[nodiscard]] std::string manual(const DeclaredVerb& command, std::string_view version);

}  // namespace ubbo::tool
