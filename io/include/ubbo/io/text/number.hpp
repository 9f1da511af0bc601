#pragma once

#include <cstddef>
#include <optional>
#include <string_view>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/length.hpp"
#include "ubbo/words/number.hpp"

namespace ubbo::io {

using words::plain;
using words::rounded;

/// A number at the beginning of a text, whatever the locale: "12.5 dp" gives 12.5 and 4.
struct NumberAt {
  double value = 0.0;
  std::size_t used = 0;  ///< how many characters it takes; 0: none stands there, or it is beyond a double
};
[[nodiscard]] NumberAt number_at(std::string_view text);

/// The number that a text is as a whole; nothing where it is none. May be infinite or none ("nan").
[[nodiscard]] std::optional<double> number_of(std::string_view text);

/// A length: "100dp", "40%", "50% - 8dp"; nothing where a text is anything else.
[[nodiscard]] std::optional<Length> read_length(std::string_view text);

/// Two numbers parted by an x, such as "360x720"; nothing where a text is anything else.
[[nodiscard]] std::optional<Size> size_of(std::string_view text);

}  // namespace ubbo::io
