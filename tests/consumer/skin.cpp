#include <ubbo/skin/comb.hpp>
#include <ubbo/ubbo.hpp>

namespace {

bool works() {
  ubbo::Cell<bool> smoke{false};
  ubbo::Stage stage;
  stage.add<ubbo::Switch>("smoke", {.x = 40, .y = 40, .w = 60, .h = 32}, {.on = smoke});
  return !ubbo::skin::comb(stage).empty();
}

}  // namespace

int main() { return works() ? 0 : 1; }
