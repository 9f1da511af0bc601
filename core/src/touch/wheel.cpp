#include "ubbo/touch/wheel.hpp"

#include <array>

namespace ubbo {

template <>
std::span<const Setting<WheelFeel>> settings_of<WheelFeel>() {
  using declare::number;
  using W = WheelFeel;
  static const std::array table{
      number<&W::notch>("notch", "dp", 1.0, 1000.0, "how far a notch of a wheel scrolls"),
      number<&W::line>("line", "dp", 1.0, 1000.0, "how far a line scrolls, where a wheel tells lines"),
      number<&W::page>("page", "", 0.01, 1.0, "how much of what is seen a page scrolls by"),
      number<&W::step>("step", "dp", 1.0, 1000.0,
                       "way on a trackpad that is one step of a slider or tab bar"),
      number<&W::zoom>("zoom", "", 1.001, 10.0, "how much closer a notch zooms"),
      number<&W::rest>("rest", "ms", 20.0, 2000.0,
                       "how long a wheel rests until what it scrolled lands on its snap point"),
      declare::transition<&W::transition>("transition", "how a notch, a line or a page scrolls there"),
  };
  return table;
}

}  // namespace ubbo
