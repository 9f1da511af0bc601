#pragma once

#include <string>

namespace ubbo::words {

/// A number as people write it: six significant digits, no trailing zeros, no `-0`, and 0 for what is only
/// rounding (nearer to it than a billionth). The same in every locale.
[[nodiscard]] std::string plain(double value, int digits = 6);

/// A number without what rounding left behind it: to six decimals, below a thousandth to nine.
[[nodiscard]] double rounded(double value);

}  // namespace ubbo::words
