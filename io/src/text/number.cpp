#include "ubbo/io/text/number.hpp"

#include <fmt/format.h>

#include <cmath>

namespace ubbo::io {

double rounded(double value) {
  constexpr double decimals = 1e9;
  constexpr double largest = 1e6;  // beyond that nine decimals are more than a double holds
  if (!(std::fabs(value) < largest)) return value;
  return std::round(value * decimals) / decimals + 0.0;  // + 0.0 turns -0 into 0
}

std::string plain(double value, int digits) { return fmt::format("{:.{}g}", rounded(value), digits); }

}  // namespace ubbo::io
