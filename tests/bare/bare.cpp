// Core in a program without exceptions: what would be refused is asked for first.
#include <cstdio>

#include "ubbo/ubbo.hpp"

int main() {
  using namespace ubbo;
  Cell<double> frames{4};
  Stage stage;
  SliderSettings wrong{.value = frames, .step = -1};
  const Box box{40, 200, 280, 48};
  if (Slider::fault("frames", box, wrong).find("step = -1") == std::string::npos) return 1;
  if (stage.fault("", Placement::of(box), {}).empty()) return 2;
  auto& slider = stage.add<Slider>("frames", box, {.value = frames, .to = 10, .step = 1});
  stage.touch({.time = Micros{0}, .contact = 1, .phase = Phase::down, .at = {290, 224}});
  stage.touch({.time = Micros{60'000}, .contact = 1, .phase = Phase::up, .at = {290, 224}});
  stage.advance(Micros{60'000});
  stage.advance(Micros{2'000'000});
  std::printf("%g\n", slider.value());
  return slider.value() == 9 && frames.get() == 9 ? 0 : 3;
}
