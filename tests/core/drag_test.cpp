#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a drag grows from zero without a jump, whatever the threshold and the sampling") {
  PROPERTY("any path", [] {
    const double threshold = *number(0, 40);
    Drag drag = *rc::gen::element(Drag{Axis::horizontal}, Drag{Axis::vertical});
    Point at{*number(0, 300), *number(0, 300)};
    drag.press(at);
    Point offset = drag.offset();
    for (int i = 0; i < 60; ++i) {
      const Point step{*number(-9, 9), *number(-9, 9)};
      const bool before = drag.dragging();
      const bool began = drag.move(at = at + step, threshold);
      RC_ASSERT(began == (!before && drag.dragging()));
      if (began) RC_ASSERT(drag.travel() >= threshold);
      RC_ASSERT(length(drag.offset() - offset) <= length(step) + 1e-9);
      offset = drag.offset();
    }
  });
}

TEST_CASE("the same path drags as far at every sampling rate") {
  for (Drag drag : {Drag{Axis::horizontal}, Drag{}}) {
    for (const int steps : {1, 7, 100}) {
      drag.press({10, 10});
      for (int i = 1; i <= steps; ++i) drag.move({10 + 60.0 * i / steps, 10 + 25.0 * i / steps}, 13);
      // Along the axis 60 - 13 are left; over the plane 13 of the 65 dp are.
      CHECK(drag.offset().x == Approx(drag.travel() == 60.0 ? 47.0 : 48.0));
      CHECK(drag.strayed() == Approx(65.0));
      drag.end();
      CHECK(drag.offset() == Point{});
    }
  }
}
