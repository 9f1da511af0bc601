#include "check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("cubic-bezier agrees with the curve's own definition") {
  PROPERTY("walking the parameter", [] {
    const double x1 = *number(0, 1), y1 = *number(-3, 3), x2 = *number(0, 1), y2 = *number(-3, 3);
    const Curve curve = Curve::cubic_bezier(x1, y1, x2, y2);
    // The definition in Bernstein form, apart from the solver's own arithmetic.
    const double s = *number(0, 1), r = 1 - s;
    const double x = 3 * r * r * s * x1 + 3 * r * s * s * x2 + s * s * s;
    const double y = 3 * r * r * s * y1 + 3 * r * s * s * y2 + s * s * s;
    const double x_rate = 3 * r * r * x1 + 6 * r * s * (x2 - x1) + 3 * s * s * (1 - x2);
    // Where the curve stands upright, y is not a function of x to within rounding.
    RC_PRE(x_rate > 1e-4);
    RC_ASSERT(std::fabs(curve.value(x) - y) < 1e-6);
    const double y_rate = 3 * r * r * y1 + 6 * r * s * (y2 - y1) + 3 * s * s * (1 - y2);
    RC_ASSERT(std::fabs(curve.slope(x) - y_rate / x_rate) < 1e-4 * (1 + std::fabs(y_rate / x_rate)));
  });
}

TEST_CASE("ends are exact, and beyond them the curve goes on along its tangents") {
  for (const Curve& curve :
       {Curve{}, Curve::ease(), Curve::ease_in(), Curve::ease_out(), Curve::ease_in_out()}) {
    CHECK(curve.value(0) == 0.0);
    CHECK(curve.value(1) == 1.0);
    CHECK(curve.value(-0.5) == Approx(-0.5 * curve.slope(0)));
    CHECK(curve.value(1.5) == Approx(1 + 0.5 * curve.slope(1)));
  }
  // CSS Easing Functions Level 2: a control point on the end passes the tangent on to the other one.
  CHECK(Curve::cubic_bezier(0, 0, 0.5, 1).value(-1) == Approx(-2));
  CHECK(Curve::cubic_bezier(0, 0.5, 1, 1).value(-1) == Approx(-1));
  CHECK(Curve::cubic_bezier(0, 0.5, 0, 1).value(-1) == 0.0);
  CHECK(Curve::cubic_bezier(1, 2, 1, 0).value(2) == 1.0);
  CHECK_THROWS_WITH(Curve::cubic_bezier(1.2, 0, 1, 1),
                    Catch::Contains("x1 = 1.2") && Catch::Contains("0 to 1"));
  CHECK_THROWS(Curve::cubic_bezier(0, std::nan(""), 1, 1));
}
