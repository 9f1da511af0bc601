#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace ubbo::io {

/// Bytes as letters, digits, `+` and `/`, filled up with `=` (RFC 4648, section 4).
[[nodiscard]] std::string to_base64(std::span<const std::uint8_t> bytes);
/// The bytes that such a text stands for; nothing where it is none.
[[nodiscard]] std::optional<std::vector<std::uint8_t>> from_base64(std::string_view text);

}  // namespace ubbo::io
