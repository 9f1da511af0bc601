#include <ubbo/ubbo.hpp>
#include <ubbo/words/catalogue.hpp>

namespace {

bool works() {
  ubbo::Cell<bool> smoke{false};
  ubbo::Stage stage({.journal = 10});
  stage.add<ubbo::Switch>("smoke", {.x = 40, .y = 40, .w = 60, .h = 32}, {.on = smoke});
  using std::chrono::milliseconds;
  stage.touch({.time = milliseconds(0), .contact = 1, .phase = ubbo::Phase::down, .at = {50, 50}});
  stage.touch({.time = milliseconds(60), .contact = 1, .phase = ubbo::Phase::up, .at = {50, 50}});
  for (const ubbo::Decision& decision : stage.journal().decisions())
    if (ubbo::words::sentence(decision).empty()) return false;
  return smoke.get() && stage.journal().size() > 0;
}

}  // namespace

int main() { return works() ? 0 : 1; }
