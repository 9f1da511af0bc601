#include "ubbo/words/number.hpp"

#include <array>
#include <charconv>
#include <cmath>

namespace ubbo::words {

double rounded(double value) {
  const double decimals = std::fabs(value) < 1e-3 ? 1e9 : 1e6;
  constexpr double largest = 1e9;  // beyond that six decimals are more than a double holds
  if (!(std::fabs(value) < largest)) return value;
  return std::round(value * decimals) / decimals + 0.0;  // + 0.0 turns -0 into 0
}

std::string plain(double value, int digits) {
  std::array<char, 40> text{};
  const auto end = std::to_chars(text.data(), text.data() + text.size(), rounded(value),
                                 std::chars_format::general, digits);
  return {text.data(), end.ptr};
}

}  // namespace ubbo::words
