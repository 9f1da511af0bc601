#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

rc::Gen<Transition> way() {
  return rc::gen::exec([]() -> Transition {
    const Micros time{*rc::gen::inRange(10'000, 600'000)};
    return *rc::gen::element<Transition>(Spring::settling(time, *number(0, 0.8)),
                                         Spring::natural(*number(3, 40), *number(1, 4)),
                                         Timed{Curve::family(Family::back, Ease::in_out), time},
                                         Timed{Curve::steps(3), time}, Coast::half_life(time / 4));
  });
}

}  // namespace

TEST_CASE("a motion gone several times is its one run over and over, or there and back") {
  PROPERTY("any way", [] {
    Transition once = *way();
    const int runs = *rc::gen::inRange(2, 6);
    const bool alternate = *rc::gen::arbitrary<bool>();
    const Motion::Plan plan{.from = 20, .to = -70, .begins = ms(40)};
    const Motion one(plan, once), back({.from = -70, .to = 20, .begins = ms(40)}, once),
        many(plan, once.repeated(runs, alternate)),
        endless(plan, once.repeated(Transition::endless, alternate));
    const Micros run = one.ends() - one.begins();
    RC_ASSERT(many.ends() == one.begins() + run * runs);
    RC_ASSERT(endless.ends() == never);
    const Micros at{*rc::gen::inRange(0, static_cast<int>(run.count()))};
    const int n = *rc::gen::inRange(0, runs);
    const MotionState state = many.at(ms(40) + run * n + at);
    const bool returns = alternate && n % 2 == 1;
    MotionState expected = returns ? back.at(ms(40) + at) : one.at(ms(40) + at);
    if (returns && std::holds_alternative<Timed>(once.way) && at > Micros{0}) {
      expected = one.at(ms(40) + run - at);  // a curve goes back as it came
      expected.velocity = -expected.velocity;
    }
    if (at > Micros{0}) {
      RC_ASSERT(std::fabs(state.value - expected.value) < 1e-9 * 90);
      RC_ASSERT(std::fabs(state.velocity - expected.velocity) < 1e-6 * (1 + std::fabs(expected.velocity)));
    }
    RC_ASSERT(endless.at(ms(40) + run * n + at).value == state.value);
    RC_ASSERT(many.at(many.ends()).value == (alternate && runs % 2 == 0 ? 20 : -70));
    RC_ASSERT(many.at(ms(0)).value == 20);
    RC_ASSERT(many.at(ms(39)).velocity == 0.0);
  });
}

TEST_CASE("progress runs from start to target in the time that is told, and is the motion itself") {
  PROPERTY("any way", [] {
    const Transition transition = *way();
    const Curve progress = progress_of(transition.way);
    const Motion motion({.from = 100, .to = 300}, transition);
    RC_ASSERT(std::chrono::abs(duration_of(transition.way) - motion.ends()) <= Micros{1});
    RC_ASSERT(progress.value(0) == 0.0);
    RC_ASSERT(progress.value(1) == 1.0);
    const double fraction = *number(0.001, 0.999);
    const auto time = Micros{std::llround(fraction * static_cast<double>(motion.ends().count()))};
    const double exact = static_cast<double>(time.count()) / static_cast<double>(motion.ends().count());
    RC_ASSERT(std::fabs(100 + 200 * progress.value(exact) - motion.at(time).value) < 1e-3);
    const double whole = to_seconds(motion.ends());
    if (!std::holds_alternative<Timed>(transition.way)) {  // whose curves may stand upright
      const double slope = motion.at(time).velocity * whole / 200;
      RC_ASSERT(std::fabs(progress.slope(exact) - slope) < 1e-3 * (1 + std::fabs(slope)));
    }
    for (const double outside : {-0.25, 1.25}) RC_ASSERT(progress.slope(outside) == 0.0);
  });
}

TEST_CASE("a track of a timeline is a mover that is sent at the times of its cues") {
  PROPERTY("any cues", [] {
    Timeline timeline;
    const auto track = timeline.add_track("x", 5);
    Mover mover(5);
    Micros at{0};
    std::vector<Micros> looks;
    for (int i = *rc::gen::inRange(1, 6); i > 0; --i) {
      const Transition transition = *way();
      const double target = *number(-80, 80);
      timeline.cue(track, target, transition, Place::at(at));
      mover.advance(at);
      mover.send(target, transition, at);
      const Micros until = at + Micros{*rc::gen::inRange(1, 500'000)};
      const Micros look = at + Micros{*rc::gen::inRange(0, static_cast<int>((until - at).count()))};
      mover.advance(look);
      RC_ASSERT(mover.value() == timeline.at(track, look).value);
      RC_ASSERT(mover.velocity() == timeline.at(track, look).velocity);
      at = until;
    }
    mover.advance(timeline.length());
    RC_ASSERT(mover.value() == timeline.at(track, timeline.length()).value);
  });
}

TEST_CASE("cues may be laid in any order of time") {
  const Transition line = Timed{Curve{}, ms(100)};
  Timeline forward, backward;
  for (Timeline* timeline : {&forward, &backward}) timeline->add_track("x", 0);
  forward.cue(0, 10, line, Place::at(ms(0)));
  forward.cue(0, 20, line, Place::at(ms(50)));
  backward.cue(0, 20, line, Place::at(ms(50)));
  backward.cue(0, 10, line, Place::at(ms(0)));
  for (double t = 0; t < 200; t += 5) CHECK(forward.at(0, ms(t)).value == backward.at(0, ms(t)).value);
  CHECK(forward.at(0, ms(100)).value == Approx(12.5));  // from 5, half of the way to 20
  Timeline twice;
  twice.add_track("x", 0);
  twice.cue(0, 10, line, Place::at(ms(0)));
  twice.cue(0, -10, line, Place::at(ms(0)));
  CHECK(twice.at(0, ms(100)).value == -10);  // of two at one time the one laid later counts
}
