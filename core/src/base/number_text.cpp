#include "ubbo/base/number_text.hpp"

#include <array>
#include <charconv>

namespace ubbo {

std::string number_text(double value, int digits) {
  std::array<char, 40> text{};
  const auto end =
      std::to_chars(text.data(), text.data() + text.size(), value, std::chars_format::general, digits);
  return {text.data(), end.ptr};
}

}  // namespace ubbo
