#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("coasts agree with a fine Runge-Kutta integration") {
  PROPERTY("any friction, velocity and time", [] {
    const double k = *number(0.1, 30), v0 = *number(-4000, 4000), seconds = *number(0, 2);
    double x = 0, v = v0;
    const int steps = 200 + static_cast<int>(seconds * k * 60);
    const double h = seconds / steps;
    for (int i = 0; i < steps; ++i) {
      const double a = -k * v, b = -k * (v + h / 2 * a), c = -k * (v + h / 2 * b), d = -k * (v + h * c);
      x += h / 6 * (v + 2 * (v + h / 2 * a) + 2 * (v + h / 2 * b) + (v + h * c));
      v += h / 6 * (a + 2 * b + 2 * c + d);
    }
    const CoastState exact = Coast::friction(k).at(v0, seconds);
    const double range = 1 + std::fabs(v0) / k;
    RC_ASSERT(std::fabs(exact.distance - x) < 1e-6 * range);
    RC_ASSERT(std::fabs(exact.velocity - v) < 1e-6 * range * k);
  });
}

TEST_CASE("the friction that lands exactly there does, and rest comes neither early nor late") {
  PROPERTY("any landing", [] {
    const double distance = *number(1, 2000), velocity = *number(100, 5000);
    const double side = *rc::gen::element(-1.0, 1.0);
    const auto coast = Coast::landing(side * distance, side * velocity);
    RC_ASSERT(coast.has_value());
    RC_ASSERT(std::fabs(coast->distance(side * velocity) - side * distance) < 1e-9 * distance);
    const double rest = coast->rest_time(velocity, 0.5);
    RC_ASSERT(std::fabs(distance - coast->at(velocity, rest).distance - 0.5) < 1e-6 * distance);
    Mover mover(10);
    mover.coast(*coast, ms(0), side * velocity);
    RC_ASSERT(std::fabs(mover.velocity() - side * velocity) < 1e-6 * velocity);
    RC_ASSERT(std::fabs(mover.target() - 10 - side * distance) < 1e-9 * distance);
    const double target = mover.target();
    mover.advance(mover.due());
    RC_ASSERT(mover.value() == target);
    RC_ASSERT_FALSE(mover.moving());
  });
  CHECK_FALSE(Coast::landing(100, -300).has_value());
  CHECK_FALSE(Coast::landing(0, 300).has_value());
  const Coast halving = Coast::half_life(ms(170));
  CHECK(halving.at(800, 0.17).velocity == Approx(400));
  CHECK(halving.half_life() == Approx(0.17));
  CHECK_THROWS_WITH(Coast::friction(-1), Catch::Contains("friction = -1"));
  CHECK_THROWS_WITH(Coast::half_life(ms(0)), Catch::Contains("half-life"));
}
