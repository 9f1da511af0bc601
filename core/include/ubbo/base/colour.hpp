#pragma once

#include <cstdint>

namespace ubbo {

/// An sRGB colour as screens take it (gamma-encoded, IEC 61966-2-1); each channel 0 to 1. `alpha` 0 (clear)
/// to 1 (solid), not multiplied into the others.
struct Colour {
  double red = 0.0;
  double green = 0.0;
  double blue = 0.0;
  double alpha = 1.0;

  /// From 0xRRGGBB.
  static constexpr Colour hex(std::uint32_t rgb, double alpha = 1.0) {
    return {static_cast<double>(rgb >> 16U & 0xFFU) / 255.0, static_cast<double>(rgb >> 8U & 0xFFU) / 255.0,
            static_cast<double>(rgb & 0xFFU) / 255.0, alpha};
  }
  [[nodiscard]] constexpr Colour with_alpha(double a) const { return {red, green, blue, a}; }
  friend constexpr bool operator==(const Colour&, const Colour&) = default;
};

/// A colour in OKLab, where equal distances look about equally different: lightness 0 to 1, green-red and
/// blue-yellow within about ±0.4.
struct Oklab {
  double lightness = 0.0;
  double a = 0.0;
  double b = 0.0;
  double alpha = 1.0;
};

/// B. Ottosson, "A perceptual color space for image processing" (2020), as CSS Color Level 4 adopts it.
[[nodiscard]] Oklab to_oklab(const Colour& colour);
/// The way back; what lies outside sRGB is cut off channel by channel.
[[nodiscard]] Colour from_oklab(const Oklab& lab);
/// The colour at `share` (0: `from`, 1: `to`; beyond, it goes on) of the straight way through OKLab, alpha
/// multiplied in, as CSS Color Level 4 mixes.
[[nodiscard]] Colour mix(const Colour& from, const Colour& to, double fraction);

}  // namespace ubbo
