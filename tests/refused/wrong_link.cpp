// Must not compile, and say why in words: a slider shows a number, this cell holds a whole one.
#include "ubbo/ubbo.hpp"

int main() {
  ubbo::Cell<int> boxes{3};
  const ubbo::SliderSettings settings{.value = boxes};
  return settings.value.linked() ? 0 : 1;
}
