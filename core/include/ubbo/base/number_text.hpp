#pragma once

#include <string>

namespace ubbo {

/// A number as files hold it, with a point in every locale: rounded to `digits` significant digits, without
/// trailing zeros, such as "12.5" or "1e+09".
[[nodiscard]] std::string number_text(double value, int digits);

}  // namespace ubbo
