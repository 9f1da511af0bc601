#include "ubbo/io/text/number.hpp"

#include <cstdlib>
#include <string>
#include <version>

#if defined(__cpp_lib_to_chars)
#include <charconv>
#endif

namespace ubbo::io {

NumberAt number_at(std::string_view text) {
  NumberAt found;
#if defined(__cpp_lib_to_chars)
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), found.value);
  if (error == std::errc{}) found.used = static_cast<std::size_t>(end - text.data());
#else
  // A platform whose library cannot do that yet, such as WebAssembly's, has no locales either. What strtod
  // reads besides, `from_chars` does not.
  const std::size_t sign = text.starts_with('-') ? 1 : 0;
  if (text.size() == sign || text[sign] == '+' || text[sign] == '-' || text[sign] == ' ' ||
      (text[sign] >= '\t' && text[sign] <= '\r'))
    return found;
  const std::size_t digit = sign;
  const bool hexadecimal = text.substr(digit).starts_with("0x") || text.substr(digit).starts_with("0X");
  const std::string copy(hexadecimal ? text.substr(0, digit + 1) : text);
  char* end = nullptr;
  const double value = std::strtod(copy.c_str(), &end);
  const auto used = static_cast<std::size_t>(end - copy.c_str());
  const bool written_infinite = used > sign && (copy[sign] == 'i' || copy[sign] == 'I');
  if (value - value != 0.0 && value == value && !written_infinite) return found;  // beyond a double
  found = {value, used};
#endif
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
