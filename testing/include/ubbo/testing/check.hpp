#pragma once

#include <rapidcheck.h>

#include <catch2/catch.hpp>
#include <string>

#include "ubbo/ubbo.hpp"

/// Holds `property` against a hundred made inputs; a failure shows the smallest input that breaks it.
#define PROPERTY(name, ...) REQUIRE(rc::check(name, __VA_ARGS__))

namespace ubbo::test {

/// True within a nanometre.
inline bool same_place(Point a, Point b) { return length(a - b) < 1e-6; }

inline Micros ms(double value) { return from_ms(value); }

/// What waits happens now, and then everything comes to rest.
inline void settle(Stage& stage) {
  stage.advance(std::max(stage.now(), ms(0)));
  stage.advance(stage.now() + std::chrono::seconds(20));
}

/// A number in a range, to three decimals.
inline rc::Gen<double> number(double min, double max) {
  return rc::gen::map(rc::gen::inRange(0, 1'000'001),
                      [=](int i) { return min + (max - min) * static_cast<double>(i) / 1e6; });
}

/// One sample of a finger.
inline void touch(Stage& stage, double at_ms, Phase phase, Point at, int contact = 1) {
  stage.touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = at});
}

/// One touch: down, a straight way in ten steps of 8 ms, and after `rest_ms` up.
inline void drag(Stage& stage, double at_ms, Point from, Point to, double rest_ms = 0, int contact = 1) {
  for (int i = 0; i <= 10; ++i)
    touch(stage, at_ms + 8 * i, i == 0 ? Phase::down : Phase::move, from + (to - from) * (i / 10.0), contact);
  touch(stage, at_ms + 80 + rest_ms, Phase::up, to, contact);
}

/// One touch from 16 ms after now on: down, ten moves of 8 ms, and after `rest_ms` its end.
inline void swipe(Stage& stage, Point from, Point to, double rest_ms = 120, Phase end = Phase::up) {
  const double at = to_ms(stage.now()) + 16;
  touch(stage, at, Phase::down, from);
  for (int i = 1; i <= 10; ++i) touch(stage, at + 8 * i, Phase::move, from + (to - from) * (i / 10.0));
  touch(stage, at + 80 + rest_ms, end, to);
}
/// Down and up at one place, from 16 ms after now on.
inline void tap_on(Stage& stage, Point at) { swipe(stage, at, at, 0); }

/// A stage with the slider of the demo: values 0 to 10 on a track from x = 54 to 306, y = 224.
struct HoneySlider {
  static constexpr Box box{40, 200, 280, 48};
  static constexpr double dp_per_frame = 25.2;

  explicit HoneySlider(SliderSettings settings = {}, StageSettings on = {}) : stage(with_journal(on)) {
    settings.value = frames;
    if (settings.to == 1.0) settings.to = 10.0;
    slider = &stage.add<Slider>("frames", box, settings);
  }

  void touch(double at_ms, Phase phase, Point at, int contact = 1) {
    ubbo::test::touch(stage, at_ms, phase, at, contact);
  }
  /// Down at `from`, straight to `to` in ten moves of 10 ms, `rest_ms` of rest, up. Starts at `at_ms`.
  void swipe(double at_ms, Point from, Point to, double rest_ms = 100) {
    touch(at_ms, Phase::down, from);
    for (int i = 1; i <= 10; ++i) touch(at_ms + 10 * i, Phase::move, from + (to - from) * (i / 10.0));
    touch(at_ms + 100 + rest_ms, Phase::up, to);
  }
  void tap(double at_ms, Point at) {
    touch(at_ms, Phase::down, at);
    touch(at_ms + 80, Phase::up, at);
  }
  void settle() { ubbo::test::settle(stage); }
  /// The last decision on a question; null: there is none.
  const Decision* last(const Question& question) const {
    const Decision* found = nullptr;
    for (const Decision& d : stage.journal().decisions())
      if (d.asks(question)) found = &d;
    return found;
  }
  /// Whether the last decision on its question is this answer.
  bool says(const Answer& answer) const {
    const Decision* found = last(*answer.question);
    return found != nullptr && found->says(answer);
  }

  Cell<double> frames{4};
  Stage stage;
  Slider* slider = nullptr;

 private:
  static StageSettings with_journal(StageSettings settings) {
    settings.journal = 10'000;
    return settings;
  }
};

}  // namespace ubbo::test
