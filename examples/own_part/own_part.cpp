// The app's own part in the app: it is added, turned by a finger, and tells where it stands.
#include <cstdio>
#include <numbers>

#include "dial.hpp"

using namespace std::chrono_literals;

int main() {
  ubbo::Cell<double> draught{3};
  ubbo::Stage stage{{.feel = ubbo::feels::gloved}};
  const auto& dial = stage.add<smoker::Dial>("draught", {.x = 80, .y = 240, .w = 200, .h = 200},
                                             {.label = "smoker draught", .value = draught});
  // A finger takes it at its right and turns it by a quarter, downwards.
  const auto at = [&](double fraction) {
    const double angle = fraction * std::numbers::pi / 2;
    return dial.box().centre() + ubbo::Point{std::cos(angle), std::sin(angle)} * 80.0;
  };
  stage.touch({.time = 0ms, .contact = 1, .phase = ubbo::Phase::down, .at = at(0)});
  for (int i = 1; i <= 40; ++i)
    stage.touch({.time = i * 8ms, .contact = 1, .phase = ubbo::Phase::move, .at = at(i / 40.0)});
  std::printf("turned to %.2f\n", dial.value());
  stage.touch({.time = 420ms, .contact = 1, .phase = ubbo::Phase::up, .at = at(1)});
  for (ubbo::Micros now = 420ms; !stage.settled(); now += 16ms) stage.advance(now);
  std::printf("draught: %g\n", draught.get());
}
