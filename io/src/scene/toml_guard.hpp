#pragma once

#include <string>
#include <string_view>

namespace ubbo::io {

inline constexpr std::size_t largest_scene = 1U << 20U;  ///< bytes
inline constexpr int deepest_scene = 16;                 ///< brackets in brackets, and parts of a dotted key

/// Refuses, by an `InputError` with its place, what the TOML library does not survive: text that is too large
/// or nested too deep, control characters, a table's name that is a comment.
void guard_toml(std::string_view text, const std::string& file);

}  // namespace ubbo::io
