#pragma once

#include <nlohmann/json.hpp>
#include <string>
#include <string_view>

namespace ubbo::io {

/// Keys stay in their order.
using Json = nlohmann::ordered_json;

/// How deep JSON may be nested.
inline constexpr int deepest_json = 64;

/// Reads `text`, the contents of `file` from `line` on. Throws `InputError` with line and column when it is
/// no JSON, or nested deeper than `deepest_json`.
[[nodiscard]] Json read_json(std::string_view text, const std::string& file, std::size_t line = 1);

/// As text with two spaces a level and a new line at the end; in one line where `level` is below 0. Bytes
/// that are no UTF-8 become U+FFFD.
[[nodiscard]] std::string json_text(const Json& json, int level = 2);

}  // namespace ubbo::io
