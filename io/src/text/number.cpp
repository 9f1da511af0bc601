#include "ubbo/io/text/number.hpp"

#include <charconv>
#include <string>

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

std::optional<Length> read_length(std::string_view text) {
  std::string words(text);  // without blanks: "50%-8dp"
  std::erase_if(words, [](char c) { return c == ' ' || c == '\t'; });
  const NumberAt first = number_at(words);
  if (first.used == 0) return std::nullopt;
  const std::string_view behind = std::string_view(words).substr(first.used);
  if (behind == "dp") return Length(first.value);
  const double fraction = first.value / 100.0;
  if (behind == "%") return Length::of(fraction);
  if (!behind.starts_with("%+") && !behind.starts_with("%-")) return std::nullopt;
  const NumberAt dp = number_at(behind.substr(2));
  if (dp.used == 0 || behind.substr(2 + dp.used) != "dp") return std::nullopt;
  return Length{behind[1] == '-' ? -dp.value : dp.value, fraction};
}

std::optional<Size> size_of(std::string_view text) {
  const NumberAt w = number_at(text);
  if (w.used == 0 || w.used >= text.size() || text[w.used] != 'x') return std::nullopt;
  const auto h = number_of(text.substr(w.used + 1));
  if (!h) return std::nullopt;
  return Size{w.value, *h};
}

}  // namespace ubbo::io
