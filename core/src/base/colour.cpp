#include "ubbo/base/colour.hpp"

#include <algorithm>

#include "ubbo/base/maths.hpp"

namespace ubbo {

namespace {

// A positive number to some power, far more exact than a colour needs.
double raised(double x, double power) { return maths::exp(power * maths::log(x)); }

double to_linear(double channel) {
  return channel <= 0.04045 ? channel / 12.92 : raised((channel + 0.055) / 1.055, 2.4);
}

double from_linear(double light) {
  const double channel = light <= 0.0031308 ? 12.92 * light : 1.055 * raised(light, 1.0 / 2.4) - 0.055;
  return std::clamp(channel, 0.0, 1.0);
}

}  // namespace

Oklab to_oklab(const Colour& colour) {
  const double r = to_linear(colour.red);
  const double g = to_linear(colour.green);
  const double b = to_linear(colour.blue);
  const double l = raised(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b, 1.0 / 3);
  const double m = raised(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b, 1.0 / 3);
  const double s = raised(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b, 1.0 / 3);
  return {0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s,
          1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s,
          0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s, colour.alpha};
}

Colour from_oklab(const Oklab& lab) {
  const auto cube = [](double x) { return x * x * x; };
  const double l = cube(lab.lightness + 0.3963377774 * lab.a + 0.2158037573 * lab.b);
  const double m = cube(lab.lightness - 0.1055613458 * lab.a - 0.0638541728 * lab.b);
  const double s = cube(lab.lightness - 0.0894841775 * lab.a - 1.2914855480 * lab.b);
  return {from_linear(4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s),
          from_linear(-1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s),
          from_linear(-0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s),
          std::clamp(lab.alpha, 0.0, 1.0)};
}

Colour mix(const Colour& from, const Colour& to, double fraction) {
  const Oklab a = to_oklab(from);
  const Oklab b = to_oklab(to);
  const auto at = [fraction](double x, double y) { return x + (y - x) * fraction; };
  const double alpha = at(a.alpha, b.alpha);
  const double cover = alpha > 1e-9 ? alpha : 1.0;
  return from_oklab({at(a.lightness * a.alpha, b.lightness * b.alpha) / cover,
                     at(a.a * a.alpha, b.a * b.alpha) / cover, at(a.b * a.alpha, b.b * b.alpha) / cover,
                     alpha});
}

}  // namespace ubbo
