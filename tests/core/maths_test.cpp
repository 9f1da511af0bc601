// The elementary functions against MPFR, which rounds the true result correctly.
#include "ubbo/base/maths.hpp"

#include <mpfr.h>

#include <cmath>
#include <functional>
#include <limits>
#include <random>

#include "ubbo/testing/check.hpp"

namespace ubbo::test {
namespace {

// How many units in the last place `got` is from `want`.
double ulp_apart(double got, mpfr_srcptr want) {
  const double nearest = mpfr_get_d(want, MPFR_RNDN);
  if (!std::isfinite(got) || !std::isfinite(nearest)) return got == nearest ? 0.0 : HUGE_VAL;
  const double unit = std::ldexp(1.0, std::max(nearest == 0.0 ? -1074 : std::ilogb(nearest) - 52, -1074));
  mpfr_t apart;
  mpfr_init2(apart, 120);
  mpfr_sub_d(apart, want, got, MPFR_RNDN);
  const double by = std::fabs(mpfr_get_d(apart, MPFR_RNDN)) / unit;
  mpfr_clear(apart);
  return by;
}

using Random = std::mt19937_64;

double between(Random& random, double from, double to) {
  return std::uniform_real_distribution<>(from, to)(random);
}

// Of any size from 2^least to 2^most, of either sign.
double sized(Random& random, double min, double max) {
  const double size = std::exp2(between(random, min, max));
  return random() % 2 == 0 ? size : -size;
}

using Reference = int (*)(mpfr_ptr, mpfr_srcptr, mpfr_rnd_t);

struct Claim {
  const char* name;
  double (*ours)(double);
  Reference reference;
  double within;  // ulp, as maths.hpp says
  std::function<double(Random&)> from;
};

}  // namespace

TEST_CASE("elementary functions are as exact as they say") {
  constexpr double never = std::numeric_limits<double>::quiet_NaN();
  const auto even = [](double from, double to) {
    return [=](Random& random) { return between(random, from, to); };
  };
  const auto any_size = [](double min, double max) {
    return [=](Random& random) { return sized(random, min, max); };
  };
  // The doubles nearest to a multiple of π/2, where a sine or a cosine nearly vanishes.
  const auto quarters = [](Random& random) {
    return static_cast<double>(random() % 60000) * 1.5707963267948966;
  };
  const std::vector<Claim> claims{
      {"exp", &maths::exp, &mpfr_exp, 0.6, even(-708.0, 709.7)},
      {"exp", &maths::exp, &mpfr_exp, 0.6, any_size(-60.0, 4.0)},
      {"exp", &maths::exp, &mpfr_exp, 1.0, even(-745.1, -708.0)},
      {"exp2", &maths::exp2, &mpfr_exp2, 0.6, even(-1020.0, 1023.9)},
      {"expm1", &maths::expm1, &mpfr_expm1, 0.7, even(-2.0, 2.0)},
      {"expm1", &maths::expm1, &mpfr_expm1, 0.7, even(-45.0, 60.0)},
      {"expm1", &maths::expm1, &mpfr_expm1, 0.7, any_size(-60.0, 1.0)},
      {"log", &maths::log, &mpfr_log, 0.6, even(0.5, 2.0)},
      {"log", &maths::log, &mpfr_log, 0.6, even(0.98, 1.02)},
      {"log", &maths::log, &mpfr_log, 0.6, [](Random& r) { return std::fabs(sized(r, -1073.0, 1023.9)); }},
      {"log1p", &maths::log1p, &mpfr_log1p, 0.7, even(-1.0, 2.0)},
      {"log1p", &maths::log1p, &mpfr_log1p, 0.7, any_size(-60.0, -0.1)},
      {"sin", &maths::sin, &mpfr_sin, 0.9, even(-10.0, 10.0)},
      {"sin", &maths::sin, &mpfr_sin, 0.9, even(-1e5, 1e5)},
      {"sin", &maths::sin, &mpfr_sin, 0.9, any_size(-60.0, 2.0)},
      {"sin", &maths::sin, &mpfr_sin, 0.9, quarters},
      {"cos", &maths::cos, &mpfr_cos, 0.9, even(-10.0, 10.0)},
      {"cos", &maths::cos, &mpfr_cos, 0.9, even(-1e5, 1e5)},
      {"cos", &maths::cos, &mpfr_cos, 0.9, quarters},
  };
  mpfr_t given;
  mpfr_t second;
  mpfr_t want;
  mpfr_init2(given, 53);
  mpfr_init2(second, 53);
  mpfr_init2(want, 120);
  Random random(26);
  for (const Claim& claim : claims) {
    double worst = 0.0;
    double at = never;
    for (int i = 0; i < 20000; ++i) {
      const double x = claim.from(random);
      mpfr_set_d(given, x, MPFR_RNDN);
      claim.reference(want, given, MPFR_RNDN);
      const double apart = ulp_apart(claim.ours(x), want);
      if (apart > worst) at = x;
      worst = std::fmax(worst, apart);
    }
    INFO(claim.name << "(" << at << ")");
    CHECK(worst <= claim.within);
    CHECK(worst > 0.4);  // the reference itself is looked at
  }
  double angle = 0.0;
  double distance = 0.0;
  for (int i = 0; i < 40000; ++i) {
    const double y = i % 2 == 0 ? between(random, -1000.0, 1000.0) : sized(random, -400.0, 400.0);
    const double x = i % 2 == 0 ? between(random, -1000.0, 1000.0) : y * sized(random, -9.0, 9.0);
    mpfr_set_d(given, y, MPFR_RNDN);
    mpfr_set_d(second, x, MPFR_RNDN);
    mpfr_atan2(want, given, second, MPFR_RNDN);
    angle = std::fmax(angle, ulp_apart(maths::atan2(y, x), want));
    mpfr_hypot(want, given, second, MPFR_RNDN);
    distance = std::fmax(distance, ulp_apart(maths::hypot(y, x), want));
  }
  CHECK(angle <= 1.5);
  CHECK(distance <= 1.3);
  mpfr_clears(given, second, want, nullptr);
}

// What the standard library's say of what is not finite, too large, too small or 0 is right to the sign.
TEST_CASE("elementary functions answer at their ends as C's do") {
  const double inf = HUGE_VAL;
  const std::vector<double> ends{0.0,
                                 -0.0,
                                 1.0,
                                 -1.0,
                                 inf,
                                 -inf,
                                 1e308,
                                 -1e308,
                                 5e-324,
                                 -5e-324,
                                 std::numeric_limits<double>::quiet_NaN()};
  const auto alike = [](double ours, double theirs) {
    if (std::isnan(theirs)) return std::isnan(ours);
    return std::signbit(ours) == std::signbit(theirs) &&
           (ours == theirs || std::fabs(ours - theirs) <= 4e-16 * std::fabs(theirs));
  };
  for (const double x : ends) {
    INFO(x);
    CHECK(alike(maths::exp(x), std::exp(x)));
    CHECK(alike(maths::exp2(x), std::exp2(x)));
    CHECK(alike(maths::expm1(x), std::expm1(x)));
    CHECK(alike(maths::log(x), std::log(x)));
    CHECK(alike(maths::log1p(x), std::log1p(x)));
    if (!(std::fabs(x) > 1e5 && std::isfinite(x))) CHECK(alike(maths::sin(x), std::sin(x)));
    for (const double y : ends) {
      INFO(y);
      CHECK(alike(maths::atan2(y, x), std::atan2(y, x)));
      CHECK(alike(maths::hypot(y, x), std::hypot(y, x)));
    }
  }
}

}  // namespace ubbo::test
