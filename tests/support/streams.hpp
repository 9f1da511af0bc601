#pragma once

#include <limits>
#include <vector>

#include "ubbo/testing/check.hpp"

namespace ubbo::test {

/// Samples that obey no rule: any phase, contact, order of times, and now and then numbers that are none.
inline rc::Gen<std::vector<Sample>> wild_stream() {
  const auto coordinate = rc::gen::weightedOneOf<double>(
      {{20, number(0, 400)},
       {1, rc::gen::element(std::numeric_limits<double>::quiet_NaN(), std::numeric_limits<double>::infinity(),
                            1e300, -1e7)}});
  const auto time = rc::gen::weightedOneOf<Micros>(
      {{20, rc::gen::map(rc::gen::inRange(0, 3'000'000), [](int us) { return Micros{us}; })},
       {1, rc::gen::element(never, Micros::min(), Micros{-5})}});
  const auto sample = rc::gen::build<Sample>(
      rc::gen::set(&Sample::time, time), rc::gen::set(&Sample::contact, rc::gen::inRange(-1, 20)),
      rc::gen::set(&Sample::phase, rc::gen::element(Phase::down, Phase::move, Phase::up, Phase::cancel)),
      rc::gen::set(&Sample::at, rc::gen::construct<Point>(coordinate, coordinate)));
  return rc::gen::container<std::vector<Sample>>(sample);
}

/// Sound gestures around the honey slider, one after another: presses, wobbles, drags, ends of each kind.
inline std::vector<Sample> gestures() {
  std::vector<Sample> made;
  Micros time{};
  const int count = *rc::gen::inRange(1, 5);
  for (int contact = 1; contact <= count; ++contact) {
    time += Micros{*rc::gen::inRange(0, 600'000)};
    Point at{*number(30, 330), *number(195, 250)};
    made.push_back({.time = time, .contact = contact, .phase = Phase::down, .at = at});
    const int moves = *rc::gen::inRange(0, 25);
    const double pace = *number(0, 30);
    for (int i = 0; i < moves; ++i) {
      time += Micros{*rc::gen::inRange(1, 40'000)};
      at = at + Point{*number(-1, 1) * pace, *number(-1, 1) * pace};
      made.push_back({.time = time, .contact = contact, .phase = Phase::move, .at = at});
    }
    time += Micros{*rc::gen::inRange(0, 150'000)};
    made.push_back({.time = time,
                    .contact = contact,
                    .phase = *rc::gen::element(Phase::up, Phase::up, Phase::cancel),
                    .at = at});
  }
  return made;
}

/// Slider settings of every kind that a range of 0 to 10 takes.
inline SliderSettings any_slider() {
  return {.to = 10,
          .step = *rc::gen::element(0.0, 1.0, 0.1, 3.0),
          .axis = *rc::gen::element(Axis::horizontal, Axis::vertical),
          .update_when = *rc::gen::element(UpdateWhen::dragging, UpdateWhen::at_rest),
          .grab = *rc::gen::element(Grab::thumb, Grab::anywhere),
          .tap_moves = *rc::gen::arbitrary<bool>(),
          .transition = *rc::gen::element<Transition>(
              Timed{}, Spring::settling(ms(100), 0.1), Spring::settling(ms(400), 0.6),
              Timed{Curve::ease_out(), ms(240)}, Transition(Coast::half_life(ms(60)), ms(30))),
          .projection_time = Micros{*rc::gen::element(0, 120'000)}};
}

}  // namespace ubbo::test
