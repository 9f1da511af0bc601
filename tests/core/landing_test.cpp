#include <cstdlib>

#include "check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE(
    "the landing is the nearest snap point and the runner-up the next, as a search over all finds them") {
  PROPERTY("even rows and lists", [] {
    const bool even = *rc::gen::arbitrary<bool>();
    const auto places = *rc::gen::nonEmpty(rc::gen::container<std::vector<double>>(number(-50, 50)));
    const SnapPoints snaps =
        even ? SnapPoints::even(-3, *number(-2, 40), *number(0.05, 9)) : SnapPoints::list(places);
    const double place = *number(-60, 60), velocity = *number(-900, 900),
                 carry = *rc::gen::element(0.0, 0.05);
    const Landing landing = choose_landing(
        snaps, {.place = place, .velocity = velocity, .carry = carry, .least = -1000, .most = 1000});
    RC_ASSERT(std::fabs(landing.aimed - (place + velocity * carry)) < 1e-9);
    std::vector<double> distances;
    for (std::size_t i = 0; i < snaps.size(); ++i)
      distances.push_back(std::fabs(snaps.at(i) - landing.aimed));
    std::sort(distances.begin(), distances.end());
    RC_ASSERT(landing.distance == distances[0]);
    RC_ASSERT(std::fabs(landing.place - landing.aimed) == distances[0]);
    RC_ASSERT(landing.contested == (snaps.size() > 1));
    if (landing.contested) RC_ASSERT(landing.other_distance == distances[1]);
  });
}

TEST_CASE("steps are the doubles nearest to their decimal values, and both ends are points") {
  PROPERTY("decimal steps", [] {
    const int from = *rc::gen::inRange(-500, 500), step = *rc::gen::inRange(1, 99),
              count = *rc::gen::inRange(1, 300);
    const SnapPoints snaps = SnapPoints::even(from / 100.0, (from + step * count) / 100.0, step / 100.0);
    RC_ASSERT(snaps.size() == static_cast<std::size_t>(count) + 1);
    for (int k = 0; k <= count; ++k) {
      const std::string written = std::to_string(from + step * k) + "e-2";
      RC_ASSERT(snaps.at(static_cast<std::size_t>(k)) == std::strtod(written.c_str(), nullptr));
    }
  });
  const SnapPoints uneven = SnapPoints::even(0, 10, 3);
  CHECK(uneven.size() == 5);
  CHECK(uneven.at(4) == 10.0);
  CHECK(uneven.at(uneven.nearest(9.6)) == 10.0);
  CHECK(SnapPoints::even(0, 2, 1).nearest(0.5) == 1);  // a tie goes to the later point
}

TEST_CASE("no snap points: it stays where it was let go, within its bounds") {
  CHECK(choose_landing({}, {.place = 3.3, .least = 0, .most = 10}).place == 3.3);
  CHECK(choose_landing({}, {.place = 9, .velocity = 100, .carry = 0.1, .least = 0, .most = 10}).place == 10);
  CHECK_THROWS_WITH(SnapPoints::even(0, 1, -1), Catch::Contains("step = -1"));
  CHECK_THROWS_WITH(SnapPoints::even(1, 1, 1), Catch::Contains("no range"));
  CHECK_THROWS(SnapPoints::even(0, 1e9, 1e-9));
  CHECK_THROWS(SnapPoints::list({1, HUGE_VAL}));
}
