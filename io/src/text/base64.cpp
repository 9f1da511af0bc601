#include "ubbo/io/text/base64.hpp"

namespace ubbo::io {

namespace {
constexpr std::string_view letters = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
}

std::string to_base64(std::span<const std::uint8_t> bytes) {
  std::string text;
  text.reserve((bytes.size() + 2) / 3 * 4);
  for (std::size_t i = 0; i < bytes.size(); i += 3) {
    std::uint32_t three = 0;
    for (std::size_t k = 0; k < 3; ++k)
      three = three << 8U | (i + k < bytes.size() ? bytes[i + k] : std::uint32_t{0});
    for (std::size_t k = 0; k < 4; ++k)
      text += i + k > bytes.size() ? '=' : letters[three >> (18U - 6U * static_cast<unsigned>(k)) & 63U];
  }
  return text;
}

std::optional<std::vector<std::uint8_t>> from_base64(std::string_view text) {
  if (text.size() % 4 != 0) return std::nullopt;
  std::size_t filled = 0;
  while (filled < 2 && !text.empty() && text.back() == '=') {
    text.remove_suffix(1);
    ++filled;
  }
  std::vector<std::uint8_t> bytes;
  bytes.reserve(text.size() * 3 / 4);
  std::uint32_t held = 0;
  unsigned bits = 0;
  for (const char letter : text) {
    const std::size_t value = letters.find(letter);
    if (value == std::string_view::npos) return std::nullopt;
    held = held << 6U | static_cast<std::uint32_t>(value);
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes.push_back(static_cast<std::uint8_t>(held >> bits & 255U));
  }
  // What the last letter says beyond the last byte is nothing.
  if ((held & ((1U << bits) - 1U)) != 0) return std::nullopt;
  return bytes;
}

}  // namespace ubbo::io
