#include "ubbo/base/maths.hpp"

#include <array>
#include <cmath>
#include <cstdint>
#include <limits>
#include <utility>

#include "bits.hpp"

namespace ubbo::maths {

namespace {

// A number as the sum of two doubles, good for some 106 bits: what the tables below are worked out with while
// this is compiled. Each operation is exact but for its last bits (Dekker 1971, Knuth's two-sum).
struct Two {
  double hi = 0.0;
  double lo = 0.0;
};

constexpr Two sum(double a, double b) {
  const double s = a + b;
  const double of_b = s - a;
  return {s, (a - (s - of_b)) + (b - of_b)};
}

constexpr Two product(double a, double b) {
  constexpr double splitter = 134217729.0;  // 2^27 + 1
  const double a_top = splitter * a - (splitter * a - a);
  const double b_top = splitter * b - (splitter * b - b);
  const double p = a * b;
  const double rest = ((a_top * b_top - p) + a_top * (b - b_top) + (a - a_top) * b_top);
  return {p, rest + (a - a_top) * (b - b_top)};
}

constexpr Two operator+(Two a, Two b) {
  const Two s = sum(a.hi, b.hi);
  return sum(s.hi, s.lo + (a.lo + b.lo));
}

constexpr Two operator*(Two a, Two b) {
  const Two p = product(a.hi, b.hi);
  return sum(p.hi, p.lo + (a.hi * b.lo + a.lo * b.hi));
}

constexpr Two operator/(Two a, Two b) {
  const double q = a.hi / b.hi;
  const Two taken = b * Two{q, 0.0};
  const Two left = a + Two{-taken.hi, -taken.lo};
  return sum(q, (left.hi + left.lo) / b.hi);
}

constexpr Two ln2{0x1.62e42fefa39efp-1, 0x1.abc9e3b39803fp-56};
constexpr Two pi{0x1.921fb54442d18p+1, 0x1.1a62633145c07p-53};

// 2^(i/64) = e^x by its series.
constexpr std::array<Two, 64> powers = [] {
  std::array<Two, 64> made{};
  for (std::size_t i = 0; i < made.size(); ++i) {
    const Two x = ln2 * Two{static_cast<double>(i) / 64.0, 0.0};
    Two term{1.0, 0.0};
    for (int n = 1; n < 28; ++n) {
      made[i] = made[i] + term;
      term = term * x / Two{static_cast<double>(n), 0.0};
    }
  }
  return made;
}();

// What a mantissa between `first_mantissa` and twice that is multiplied with to come near 1, and the
// logarithm of that, the top of which is a multiple of 2^-42 so that adding a multiple of ln 2 to it is
// exact.
struct Reciprocal {
  double of = 1.0;
  Two minus_log{};
};
constexpr double first_mantissa = 0.6875;
constexpr std::uint64_t first_bits = 0x3fe6000000000000;

constexpr Two log_of(double c) {  // 2·artanh((c-1)/(c+1)) by its series
  const Two z = Two{c - 1.0, 0.0} / sum(c, 1.0);
  const Two square = z * z;
  Two power = z;
  Two total{};
  for (int n = 1; n < 46; n += 2) {
    total = total + power / Two{static_cast<double>(n), 0.0};
    power = power * square;
  }
  return total + total;
}

constexpr std::array<Reciprocal, 128> reciprocals = [] {
  std::array<Reciprocal, 128> made{};
  for (int i = 0; i < 128; ++i) {
    // Those below 1 lie half as far apart as those from 1 on. Either neighbour of 1 keeps what it is.
    const double middle = i < 80 ? first_mantissa + (i + 0.5) / 256.0 : 1.0 + (i - 80 + 0.5) / 128.0;
    if (i == 79 || i == 80) continue;
    const double of = static_cast<double>(static_cast<int>(1024.0 / middle + 0.5)) / 1024.0;
    const Two log = log_of(of);
    constexpr double to_multiple = 1536.0;  // from 1024 to 2048 doubles are multiples of 2^-42
    const double top = (-log.hi + to_multiple) - to_multiple;
    made[static_cast<std::size_t>(i)] = {of, {top, (-log.hi - top) - log.lo}};
  }
  return made;
}();

// The arctangent of i/32, by Euler's series.
constexpr std::array<Two, 33> arctangents = [] {
  std::array<Two, 33> made{};
  for (std::size_t i = 1; i < made.size(); ++i) {
    const double c = static_cast<double>(i) / 32.0;
    const Two scale = Two{c * c, 0.0} / Two{1.0 + c * c, 0.0};
    Two term = Two{c, 0.0} / Two{1.0 + c * c, 0.0};
    for (int n = 1; term.hi > 1e-33; n += 2) {
      made[i] = made[i] + term;
      term = term * scale * (Two{n + 1.0, 0.0} / Two{n + 2.0, 0.0});
    }
  }
  return made;
}();

// The nearest whole number, for what is smaller than 2^51: adding this leaves no bits behind the point.
constexpr double to_whole = 0x1.8p52;
double nearest(double x) { return (x + to_whole) - to_whole; }

double times_power_of_two(double x, int power) {
  if (power < -1020 || power > 1022) return std::ldexp(x, power);
  return x * from_bits(static_cast<std::uint64_t>(power + 1023) << 52U);
}

// e^x = 2^(k/64) · e^r with k whole and |r| ≤ ln 2 / 128; the first from the table, the second by its series,
// whose seventh term would be below 2^-66.
struct Reduced {
  int k = 0;
  double less_one = 0.0;  // e^r - 1
  [[nodiscard]] const Two& power() const { return powers[static_cast<unsigned>(k) & 63U]; }
  [[nodiscard]] double rest() const { return power().lo + power().hi * less_one; }
};

Reduced reduced(double k, double r) {
  const double s = r * r;
  const double series = (1.0 / 2 + r * (1.0 / 6)) + s * ((1.0 / 24 + r * (1.0 / 120)) + s * (1.0 / 720));
  return {static_cast<int>(k), r + s * series};
}

Reduced reduced(double x) {
  // ln 2 / 64, of which the first part has so few bits that k times it is exact.
  constexpr double first = 0x1.62e42fee00000p-7;
  constexpr double second = 0x1.a39ef35793c76p-39;
  const double k = nearest(x * (64.0 / ln2.hi));
  return reduced(k, (x - k * first) - k * second);
}

double grown(const Reduced& of) { return times_power_of_two(of.power().hi + of.rest(), of.k >> 6); }

// x² (1/2 + x/6 + x²/24 + …), for |x| ≤ 1/4: the part of e^x - 1 that is not x.
double beyond_x(double x) {
  const double s = x * x;
  const double q = s * s;
  const double low = (1.0 / 6 + x * (1.0 / 24)) + s * (1.0 / 120 + x * (1.0 / 720));
  const double high = (1.0 / 5040 + x * (1.0 / 40320)) + s * (1.0 / 362880 + x * (1.0 / 3628800));
  const double last = 1.0 / 39916800 + x * (1.0 / 479001600);
  return s * 0.5 + x * s * (low + q * (high + q * last));
}

// The logarithm of x + more, which is next to nothing beside x: x = 2^e · m, m · reciprocal = 1 + r, and
// log(1 + r) by its series, |r| < 1/127.
double log_of_sum(double x, double more) {
  std::uint64_t bits = bits_of(x);
  int e = 0;
  if (x < std::numeric_limits<double>::min()) {
    bits = bits_of(x * 0x1p54);
    e = -54;
  }
  const std::uint64_t above = bits - first_bits;
  const Reciprocal& by = reciprocals[(above >> 45U) & 127U];
  const auto whole = static_cast<int>(static_cast<std::int64_t>(above) >> 52);
  e += whole;
  const double m = from_bits(bits - (static_cast<std::uint64_t>(static_cast<std::int64_t>(whole)) << 52U));
  const double top = from_bits(bits_of(m) & ~std::uint64_t{0x7ffffff});
  const double first = top * by.of - 1.0;
  const double second = (m - top) * by.of;
  const double r = first + second;
  double tail = (first - r) + second;
  if (more != 0.0) tail += more / x;
  const double s = r * r;
  const double series = (-1.0 / 2 + r * (1.0 / 3)) +
                        s * ((-1.0 / 4 + r * (1.0 / 5)) + s * ((-1.0 / 6 + r * (1.0 / 7)) + s * (-1.0 / 8)));
  constexpr double ln2_first = 0x1.62e42fee00000p-1;
  constexpr double ln2_second = 0x1.a39ef35793c76p-33;
  const double known = e * ln2_first + by.minus_log.hi;
  const double sum = known + r;
  tail += (known - sum) + r;
  return sum + (tail + (s * series + (e * ln2_second + by.minus_log.lo)));
}

}  // namespace

double exp(double x) {
  if (x > 709.79) return std::numeric_limits<double>::infinity();
  if (x < -745.2) return 0.0;
  if (x != x) return x;
  return grown(reduced(x));
}

double exp2(double x) {
  if (x >= 1024.0) return std::numeric_limits<double>::infinity();
  if (x < -1075.0) return 0.0;
  if (x != x) return x;
  const double k = nearest(x * 64.0);
  return grown(reduced(k, (x - k / 64.0) * ln2.hi));
}

double expm1(double x) {
  if (x == 0.0) return x;
  if (std::fabs(x) <= 0.25) return x + beyond_x(x);
  if (x < -40.0) return -1.0;
  if (x > 50.0 || x != x) return exp(x);
  const Reduced of = reduced(x);
  const double power = times_power_of_two(of.power().hi, of.k >> 6);
  const double less = power - 1.0;
  const double lost = power < 1.0 ? power - (less + 1.0) : (power - less) - 1.0;
  return less + (lost + times_power_of_two(of.rest(), of.k >> 6));
}

double log(double x) {
  if (x == 0.0) return -std::numeric_limits<double>::infinity();
  if (x < 0.0) return std::numeric_limits<double>::quiet_NaN();
  if (!(x <= std::numeric_limits<double>::max())) return x;
  return log_of_sum(x, 0.0);
}

double log1p(double x) {
  if (std::fabs(x) < 0x1p-54) return x;
  if (!(x > -1.0 && x <= std::numeric_limits<double>::max())) return log(1.0 + x);
  const Two whole = sum(1.0, x);
  return log_of_sum(whole.hi, whole.lo);
}

// The angle is k · π/2 + r + rest with |r| ≤ π/4: π/2 in three parts, the first two of which have so few bits
// that k times them is exact. Then both by their series.
SinCos sin_cos(double angle) {
  if (std::fabs(angle) < 0x1p-27) return {angle, 1.0};
  if (!(std::fabs(angle) <= std::numeric_limits<double>::max())) {
    constexpr double none = std::numeric_limits<double>::quiet_NaN();
    return {none, none};
  }
  if (!(std::fabs(angle) <= 100000.0)) angle = std::remainder(angle, 2.0 * pi.hi);
  const double k = nearest(angle * (2.0 / pi.hi));
  const Two far = sum(angle - k * 0x1.921fb54400000p+0, -k * 0x1.0b4611a600000p-34);
  const double third = k * 0x1.3198a2e037073p-69;
  const double r = far.hi - third;
  const double rest = ((far.hi - r) - third) + far.lo;

  const double s = r * r;
  const double q = s * s;
  const double sine = ((-1.0 / 6 + s * (1.0 / 120)) + q * (-1.0 / 5040 + s * (1.0 / 362880))) +
                      q * q *
                          ((-1.0 / 39916800 + s * (1.0 / 6227020800)) +
                           q * (-1.0 / 1307674368000 + s * (1.0 / 355687428096000)));
  const double cosine = ((1.0 / 24 + s * (-1.0 / 720)) + q * (1.0 / 40320 + s * (-1.0 / 3628800))) +
                        q * q * ((1.0 / 479001600 + s * (-1.0 / 87178291200)) + q * (1.0 / 20922789888000));
  const double half = 0.5 * s;
  const double near_one = 1.0 - half;
  const double sin = r + (s * r * sine + rest * near_one);
  const double cos = near_one + (((1.0 - near_one) - half) + (q * cosine - r * rest));
  switch (static_cast<unsigned>(static_cast<int>(k)) & 3U) {
    case 0:
      return {sin, cos};
    case 1:
      return {cos, -sin};
    case 2:
      return {-sin, -cos};
    default:
      return {-cos, sin};
  }
}

// With c = i/32 next to the ratio: arctan(y/x) = arctan c + arctan((y - c x) / (x + c y)), the last by its
// series.
double atan2(double y, double x) {
  if (x != x || y != y) return x + y;
  double longer = std::fabs(x);
  double shorter = std::fabs(y);
  const bool steep = shorter > longer;
  if (steep) std::swap(longer, shorter);
  Two angle{};
  if (std::isinf(longer)) {
    if (std::isinf(shorter)) angle = arctangents.back();
  } else if (shorter != 0.0) {
    const double scale = longer > 0x1p1000 ? 0x1p-200 : longer < 0x1p-900 ? 0x1p120 : 1.0;
    longer *= scale;
    shorter *= scale;
    const double i = nearest(shorter / longer * 32.0);
    const double c = i / 32.0;
    const double top = from_bits(bits_of(longer) & ~std::uint64_t{0x7ffffff});
    const double u = ((shorter - c * top) - c * (longer - top)) / (longer + c * shorter);
    const double s = u * u;
    const double series = s * ((-1.0 / 3 + s * (1.0 / 5)) + s * s * (-1.0 / 7 + s * (1.0 / 9)));
    const Two& known = arctangents[static_cast<std::size_t>(static_cast<int>(i))];
    angle = sum(known.hi, u);
    angle.lo += known.lo + u * series;
  }
  const auto less_from = [&angle](double times) {
    const Two from = sum(times * pi.hi, -angle.hi);
    angle = {from.hi, from.lo + (times * pi.lo - angle.lo)};
  };
  if (steep) less_from(0.5);
  if (std::signbit(x)) less_from(1.0);
  return std::copysign(angle.hi + angle.lo, y);
}

double hypot(double x, double y) {
  const double squares = x * x + y * y;
  if (squares >= 0x1p-900 && squares <= 0x1p1000) return std::sqrt(squares);
  if (std::isinf(x) || std::isinf(y)) return std::numeric_limits<double>::infinity();
  if (squares != squares || (x == 0.0 && y == 0.0)) return squares;
  const double scale = squares < 1.0 ? 0x1p600 : 0x1p-600;
  const double scaled = std::sqrt((x * scale) * (x * scale) + (y * scale) * (y * scale));
  return scaled / scale;
}

}  // namespace ubbo::maths
