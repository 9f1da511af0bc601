#include <cstdlib>

#include "ubbo/testing/check.hpp"

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
        snaps, {.place = place, .velocity = velocity, .projection_time = carry, .min = -1000, .max = 1000});
    RC_ASSERT(std::fabs(landing.aimed - (place + velocity * carry)) < 1e-9);
    std::vector<double> distances;
    for (std::size_t i = 0; i < snaps.size(); ++i)
      distances.push_back(std::fabs(snaps.at(i) - landing.aimed));
    std::sort(distances.begin(), distances.end());
    RC_ASSERT(landing.distance == distances[0]);
    RC_ASSERT(std::fabs(landing.place - landing.aimed) == distances[0]);
    // What is known to be nearest further around is.
    const SnapPoints::Found found = snaps.look(place);
    for (const double off : {-0.999, -0.5, 0.5, 0.999})
      if (found.around > 0.0) RC_ASSERT(snaps.nearest(found.place + off * found.around) == found.index);
    RC_ASSERT(landing.contested == (snaps.size() > 1));
    if (landing.contested) RC_ASSERT(landing.other_distance == distances[1]);
  });
}

TEST_CASE("a flick from the very place of a snap point goes on to the next one, either way") {
  for (const double way : {-1.0, 1.0}) {
    const Release release{.place = 4, .velocity = 2 * way, .flick = true, .min = 0, .max = 10, .origin = 4};
    CHECK(choose_landing(SnapPoints::even(0, 10, 1), release).place == 4 + way);
  }
}

TEST_CASE("what a limit or a way to commit decided has that for its reason and no other") {
  PROPERTY("any release", [] {
    const SnapPoints snaps = SnapPoints::even(0, 10, 1);
    const Release release{.place = *number(-1, 11),
                          .velocity = *number(-20, 20),
                          .projection_time = *rc::gen::element(0.0, 0.2),
                          .flick = *rc::gen::arbitrary<bool>(),
                          .min = 0,
                          .max = 10,
                          .origin = *rc::gen::inRange(0, 11) * 1.0,
                          .max_per_flick = *rc::gen::element(0.0, 1.0, 2.0),
                          .commit_distance = *rc::gen::element(Length{}, Length{0.3}, Length::of(0.7))};
    const Landing made = choose_landing(snaps, release);
    const double far = std::fabs(made.place - release.origin);
    RC_ASSERT(release.max_per_flick == 0.0 || far <= release.max_per_flick);
    if (made.limited)
      RC_ASSERT(made.contested && far == release.max_per_flick &&
                std::fabs(made.other - release.origin) > far);
    if (made.commit > 0.0) {
      RC_ASSERT(!made.contested && !made.flicked && !made.limited);
      RC_ASSERT(made.moved == std::fabs(made.aimed - release.origin));
      RC_ASSERT((far == 1.0) == (made.moved >= made.commit));
    }
    if (made.flicked) RC_ASSERT(made.contested && release.flick && made.other != made.place);
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
  CHECK(choose_landing({}, {.place = 3.3, .min = 0, .max = 10}).place == 3.3);
  CHECK(
      choose_landing({}, {.place = 9, .velocity = 100, .projection_time = 0.1, .min = 0, .max = 10}).place ==
      10);
  CHECK_THROWS_WITH(SnapPoints::even(0, 1, -1), Catch::Contains("step = -1"));
  CHECK_THROWS_WITH(SnapPoints::even(1, 1, 1), Catch::Contains("no range"));
  CHECK_THROWS(SnapPoints::even(0, 1e9, 1e-9));
  CHECK_THROWS(SnapPoints::list({1, HUGE_VAL}));
}

namespace {

// A finger at 1,500 dp/s to the left or upwards, lifted on its way; what it was taken for stands in the
// journal.
double flick(Stage& stage, Axis axis) {
  for (int i = 0; i <= 8; ++i) {
    const Point at = axis == Axis::horizontal ? Point{330 - 12.0 * i, 300} : Point{180, 500 - 12.0 * i};
    stage.touch(
        {.time = ms(100 + 8 * i), .contact = 1, .phase = i == 0 ? Phase::down : Phase::move, .at = at});
  }
  const Point last = axis == Axis::horizontal ? Point{234, 300} : Point{180, 404};
  stage.touch({.time = ms(164), .contact = 1, .phase = Phase::up, .at = last});
  for (const Decision& decision : stage.journal().decisions())
    if (decision.says(answers::lifted_moving)) return decision.all_facts()[0].value;
  FAIL("it did not lift moving");
  return 0;
}

}  // namespace

TEST_CASE(
    "a flick of 1,500 dp/s runs as its settings say, frame by frame, and its end is known at the lift") {
  for (const double fps : {60.0, 120.0}) {
    for (const bool of_items : {false, true}) {
      Stage stage({.journal = 100});
      const Box box{0, 0, 360, 720};
      const Sliding& list =
          of_items ? static_cast<Sliding&>(
                         stage.add<List>("list", box, {.count = 1000, .gap = 4, .half_life = ms(180)}))
                   : stage.add<Pane>("list", box, {.min = -5000, .max = 0, .half_life = ms(180)});
      stage.advance(ms(0));
      const double speed = flick(stage, Axis::vertical);
      CHECK(speed == Approx(-1500).epsilon(0.01));
      const double friction = std::log(2.0) / 0.180;  // e^(-f·t) halves in 180 ms
      const double from = list.offset(), ends = list.target();
      const Micros at_rest = list.due();
      CHECK(ends == Approx(from + speed / friction).margin(0.5));
      Micros now = ms(164);
      for (; now < at_rest; now += from_seconds(1 / fps)) {
        stage.advance(now);
        const double t = to_seconds(now - ms(164));
        CHECK(std::fabs(list.offset() - (from + speed / friction * (1 - std::exp(-friction * t)))) < 0.5);
        CHECK_FALSE(list.settled());
      }
      stage.advance(at_rest);
      CHECK(list.settled());
      CHECK(list.offset() == ends);
    }
    {
      Stage stage({.journal = 100});
      Cell<int> index{1};
      const Carousel& photos = stage.add<Carousel>(
          "photos", {0, 200, 360, 300},
          {.selected = index, .count = 9, .max_per_flick = 2, .projection_time = ms(400)});
      stage.advance(ms(0));
      const double speed = flick(stage, Axis::horizontal) / 360;  // items a second
      const double from = photos.position();
      const double ends = photos.target();
      CHECK(ends == 3);
      const Spring spring = Spring::settling(ms(320), 0);
      const double w = spring.frequency();
      REQUIRE(spring.ratio() == 1);
      // It keeps the finger's speed up to where a spring does not speed up any more, d = 2·v/w, then is that
      // spring.
      const double near = 2 * speed / w;
      const double even = std::max(0.0, (ends - from - near) / speed);
      const double left = ends - from - speed * even;
      for (Micros now = ms(164); now < ms(1500); now += from_seconds(1 / fps)) {
        stage.advance(now);
        const double t = to_seconds(now - ms(164));
        const double s = t - even;
        const double expected =
            s < 0 ? from + speed * t : ends - (left + (w * left - speed) * s) * std::exp(-w * s);
        CHECK(std::fabs(photos.position() - expected) * 360 < 0.5);
        CHECK(photos.position() <= ends + 1e-9);
      }
      CHECK(photos.position() == ends);
      CHECK(index.get() == 3);
    }
  }
}

TEST_CASE("none, one, a million items: a carousel costs the same, and goes nowhere it may not") {
  for (const double count : {0.0, 1.0, 1e6}) {
    Stage stage;
    Cell<int> index{0};
    Carousel& photos = stage.add<Carousel>("photos", {0, 200, 360, 300}, {.selected = index, .count = count});
    stage.at(ms(0), [&] { photos.go_to(2'000'000); });
    settle(stage);
    CHECK(photos.selected() == std::max(0, static_cast<int>(count) - 1));
    std::size_t pieces = 0;
    pieces_of(photos,
              [&](const Piece& piece) { pieces += static_cast<std::size_t>(piece.role == Role::surface); });
    CHECK(pieces == static_cast<std::size_t>(std::min(count, 1.0)));
    stage.at(stage.now(), [&] { index.set(-7); });
    settle(stage);
    CHECK(photos.selected() == 0);
  }
}
