#include "ubbo/words/number.hpp"

#include <cmath>

#include "ubbo/base/number_text.hpp"

namespace ubbo::words {

double rounded(double value) {
  const double decimals = std::fabs(value) < 1e-3 ? 1e9 : 1e6;
  constexpr double largest = 1e9;  // beyond that six decimals are more than a double holds
  if (!(std::fabs(value) < largest)) return value;
  return std::round(value * decimals) / decimals + 0.0;  // + 0.0 turns -0 into 0
}

std::string plain(double value, int digits) { return number_text(rounded(value), digits); }

}  // namespace ubbo::words
