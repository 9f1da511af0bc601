#pragma once

/// Elementary functions that come to the same bits on every processor, with every compiler and at every level
/// of optimisation, as the standard library's do not: they are made of additions, multiplications, divisions
/// and square roots, each rounded as IEEE 754 says. Compile what uses them with `-ffp-contract=off`, as the
/// CMake package and the pkg-config files ask for.
///
/// Errors are in units in the last place (ulp) of the true result; the tests hold them against MPFR. What is
/// not a number gives none; what is too large gives an infinity.
namespace ubbo::maths {

/// e^x, within 0.6 ulp; within 1 where that is below 2.3e-308.
[[nodiscard]] double exp(double x);
/// 2^x, within 0.6 ulp.
[[nodiscard]] double exp2(double x);
/// e^x - 1, as exact near 0 as elsewhere; within 0.7 ulp.
[[nodiscard]] double expm1(double x);
/// The natural logarithm, within 0.6 ulp. Of 0: minus infinity; of less: not a number.
[[nodiscard]] double log(double x);
/// log(1 + x), as exact near 0 as elsewhere; within 0.7 ulp.
[[nodiscard]] double log1p(double x);

/// The sine and the cosine of one angle.
struct SinCos {
  double sin = 0.0;
  double cos = 1.0;
};

/// Both at once, in radians; within 0.9 ulp for angles up to 100,000. A larger angle is first reduced by the
/// double nearest to 2π, which is as exact as such an angle itself.
[[nodiscard]] SinCos sin_cos(double angle);
[[nodiscard]] inline double sin(double angle) { return sin_cos(angle).sin; }
[[nodiscard]] inline double cos(double angle) { return sin_cos(angle).cos; }

/// The angle of the point (x, y), -π to π radians; within 1.5 ulp. Signed zeros and infinities as in C.
[[nodiscard]] double atan2(double y, double x);
/// The distance of the point (x, y) from (0, 0), within 1.3 ulp.
[[nodiscard]] double hypot(double x, double y);

}  // namespace ubbo::maths
