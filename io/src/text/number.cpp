#include "ubbo/io/text/number.hpp"

#include <charconv>

namespace ubbo::io {

NumberAt number_at(std::string_view text) {
  NumberAt found;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), found.value);
  if (error == std::errc{}) found.used = static_cast<std::size_t>(end - text.data());
  return found;
}

std::optional<double> number_of(std::string_view text) {
  const NumberAt found = number_at(text);
  if (found.used == 0 || found.used != text.size()) return std::nullopt;
  return found.value;
}

std::optional<Size> size_of(std::string_view text) {
  const NumberAt w = number_at(text);
  if (w.used == 0 || w.used >= text.size() || text[w.used] != 'x') return std::nullopt;
  const auto h = number_of(text.substr(w.used + 1));
  if (!h) return std::nullopt;
  return Size{w.value, *h};
}

}  // namespace ubbo::io
