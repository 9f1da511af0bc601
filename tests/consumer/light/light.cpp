#include <ubbo/skin/comb.hpp>
#include <ubbo/ubbo.hpp>
#include <ubbo/words/catalogue.hpp>

// What stands without any library but Ubbo's: parts, sentences, a picture.
int main() {
  ubbo::Cell<bool> smoke{false};
  ubbo::Stage stage({.journal = 10});
  stage.add<ubbo::Switch>("smoke", {.x = 40, .y = 40, .w = 60, .h = 32}, {.on = smoke});
  stage.touch(
      {.time = std::chrono::milliseconds(0), .contact = 1, .phase = ubbo::Phase::down, .at = {50, 50}});
  stage.touch(
      {.time = std::chrono::milliseconds(60), .contact = 1, .phase = ubbo::Phase::up, .at = {50, 50}});
  stage.advance(std::chrono::seconds(1));
  if (!smoke.get()) return 4;
  if (ubbo::skin::comb(stage).empty()) return 1;
  for (const ubbo::Decision& decision : stage.journal().decisions())
    if (ubbo::words::sentence(decision).empty()) return 2;
  return stage.journal().size() > 0 ? 0 : 3;
}
