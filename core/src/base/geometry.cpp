#include "ubbo/base/geometry.hpp"

namespace ubbo {

// Not in the header: some compilers fuse these sums in an app's build, whatever the library's flags say.
Point turned(Point p, double radians) {
  if (radians == 0.0) return p;
  const auto [sin, cos] = maths::sin_cos(radians);
  return {p.x * cos - p.y * sin, p.x * sin + p.y * cos};
}

}  // namespace ubbo
