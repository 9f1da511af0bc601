// A slider without any drawing: fingers and time in, values and reasons out.
#include <cstdio>
#include <ubbo/ubbo.hpp>

using namespace std::chrono_literals;

int main() {
  ubbo::Cell<double> frames{4};  // the app's value; the slider has no copy of it
  ubbo::Stage stage{{.width = 360, .height = 720, .feel = ubbo::feels::gloved, .journal = 100}};
  auto& slider = stage.add<ubbo::Slider>("frames", {.x = 40, .y = 200, .w = 280, .h = 48},
                                         {.label = "frames of honey", .value = frames, .to = 10, .step = 1});
  const ubbo::Watch watch = frames.watch([](double now) { std::printf("frames: %g\n", now); });

  // A finger takes the thumb at x = 155 and draws it 80 dp to the right in 160 ms.
  stage.touch({.time = 0ms, .contact = 1, .phase = ubbo::Phase::down, .at = {155, 224}});
  for (int i = 1; i <= 20; ++i)
    stage.touch({.time = i * 8ms, .contact = 1, .phase = ubbo::Phase::move, .at = {155 + 4.0 * i, 224}});
  stage.touch({.time = 300ms, .contact = 1, .phase = ubbo::Phase::up, .at = {235, 224}});

  for (ubbo::Micros now = 300ms; !stage.settled(); now += 16ms) {  // the app's frames
    stage.advance(now);
    std::printf("thumb at %.1f dp\n", slider.thumb().x);
  }
  for (const ubbo::Decision& decision : stage.journal().decisions()) {
    std::printf("%6.1f ms  %s\n", ubbo::to_ms(decision.time), decision.answer->name);
    for (const ubbo::Fact& fact : decision.all_facts())
      std::printf("             %s = %.4g %s\n", fact.name, fact.value, fact.unit);
  }
}
