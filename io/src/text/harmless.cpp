#include "ubbo/io/text/harmless.hpp"

#include <cstdint>

namespace ubbo::io {

namespace {

struct Letter {
  std::uint32_t code = 0;
  std::size_t bytes = 0;  // 0: no UTF-8
};

Letter first_of(std::string_view text) {
  const auto byte = [&](std::size_t i) {
    return i < text.size() ? static_cast<std::uint32_t>(static_cast<unsigned char>(text[i])) : 0U;
  };
  const std::uint32_t head = byte(0);
  if (head < 0x80) return {head, 1};
  const std::size_t bytes = head >= 0xF0 && head < 0xF5 ? 4 : head >= 0xE0 ? 3 : 2;
  if (head < 0xC2 || head >= 0xF5) return {};
  std::uint32_t code = head & (0x7FU >> bytes);
  for (std::size_t i = 1; i < bytes; ++i) {
    if ((byte(i) & 0xC0U) != 0x80U) return {};
    code = (code << 6) | (byte(i) & 0x3FU);
  }
  constexpr std::uint32_t min[]{0, 0, 0x80, 0x800, 0x10000};
  if (code < min[bytes] || code > 0x10FFFF || (code >= 0xD800 && code < 0xE000)) return {};
  return {code, bytes};
}

// Controls of either set, and marks that turn the direction of what follows.
bool commands(std::uint32_t code) {
  return (code < 0x20 && code != '\n' && code != '\t') || (code >= 0x7F && code < 0xA0) ||
         (code >= 0x202A && code <= 0x202E) || (code >= 0x2066 && code <= 0x2069);
}

}  // namespace

std::string harmless(std::string_view text) {
  std::string made;
  made.reserve(text.size());
  while (!text.empty()) {
    const Letter letter = first_of(text);
    if (letter.bytes == 0)
      made += "\uFFFD";
    else if (commands(letter.code))
      for (made += "\\u"; const unsigned shift : {12U, 8U, 4U, 0U})
        made += "0123456789abcdef"[letter.code >> shift & 15U];
    else
      made += text.substr(0, letter.bytes);
    text.remove_prefix(letter.bytes == 0 ? 1 : letter.bytes);
  }
  return made;
}

}  // namespace ubbo::io
