#include <ubbo/ubbo.hpp>

namespace {

bool works() {
  ubbo::Cell<double> frames{4};
  ubbo::Stage stage;
  auto& slider = stage.add<ubbo::Slider>("frames", {.w = 280, .h = 48}, {.value = frames, .to = 10});
  frames.set(9);
  stage.advance(std::chrono::seconds(0));  // told the time, the thumb sets off
  stage.advance(std::chrono::seconds(1));
  return slider.value() == 9;
}

}  // namespace

int main() { return works() ? 0 : 1; }
