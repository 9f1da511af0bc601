#pragma once

#include <string>

namespace ubbo {

/// A number as files have it, with a point in every locale: to so many significant digits, without the zeros
/// at its end, such as "12.5" or "1e+09".
[[nodiscard]] std::string number_text(double value, int digits);

}  // namespace ubbo
