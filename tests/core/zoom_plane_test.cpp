#include "claims.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

struct Close {
  explicit Close(ZoomPlaneSettings settings = {}) : stage({.journal = 1000}) {
    settings.zoom = zoom;
    settings.turn = turn;
    plane = &stage.add<ZoomPlane>("frame", {0, 100, 360, 480}, settings);
    stage.advance(ms(0));
  }
  void touch(double at, Phase phase, Point where, int contact) {
    stage.touch({.time = ms(at), .contact = contact, .phase = phase, .at = where});
  }
  // Two fingers about `middle`: from `from` apart to `to`, turning by `degrees`, the middle going by `carry`.
  void pair(Point middle, double from, double to, double degrees, Point carry,
            const std::function<void(Point)>& look = {}) {
    constexpr int steps = 40;
    const double begin = to_ms(stage.now()) + 10;
    for (int i = 0; i <= steps; ++i) {
      const double fraction = static_cast<double>(i) / steps;
      const double apart = (from + (to - from) * fraction) / 2,
                   angle = degrees * fraction * std::acos(-1.0) / 180;
      const Point arm{apart * std::cos(angle), apart * std::sin(angle)}, at = middle + carry * fraction;
      for (const int contact : {1, 2})
        touch(begin + 8 * i, i == 0 ? Phase::down : Phase::move, contact == 1 ? at - arm : at + arm, contact);
      if (look && plane->carried()) look(at);
    }
    const double end = degrees * std::acos(-1.0) / 180;
    const Point arm{to / 2 * std::cos(end), to / 2 * std::sin(end)};
    for (const int contact : {1, 2})
      touch(begin + 8 * steps + 200, Phase::up, contact == 1 ? middle + carry - arm : middle + carry + arm,
            contact);
  }
  // What of the content, at zoom 1, lies at a place.
  [[nodiscard]] Point under(Point at) const {
    const Point from = at - plane->box().centre() - plane->pan();
    const double angle = -plane->turn() * std::acos(-1.0) / 180;
    return Point{from.x * std::cos(angle) - from.y * std::sin(angle),
                 from.x * std::sin(angle) + from.y * std::cos(angle)} *
           (1 / plane->zoom());
  }

  Cell<double> zoom{1}, turn{0};
  Stage stage;
  ZoomPlane* plane = nullptr;
};

}  // namespace

TEST_CASE("what lies under the fingers stays under them, and at rest it is within its limits") {
  PROPERTY("any pair of fingers", [] {
    Close app({.overscroll = 1.0});  // so that nothing yields on the way
    std::optional<Point> held;
    app.pair({*number(120, 240), *number(250, 430)}, *number(40, 160), *number(40, 300), *number(-120, 120),
             {*number(-40, 40), *number(-40, 40)}, [&](Point at) {
               if (!held) held = app.under(at);
               RC_ASSERT(length(app.under(at) - *held) < 1e-6);
             });
    settle(app.stage);
    RC_ASSERT(app.plane->settled());
    RC_ASSERT(app.zoom.get() == app.plane->zoom());
    RC_ASSERT(app.plane->zoom() >= 1 && app.plane->zoom() <= 4);
    const Point reach{(app.plane->zoom() - 1) * 180, (app.plane->zoom() - 1) * 240};
    RC_ASSERT(std::fabs(app.plane->pan().x) <= reach.x + 1e-9 &&
              std::fabs(app.plane->pan().y) <= reach.y + 1e-9);
    const double off = std::fabs(std::remainder(app.plane->turn(), 90));
    RC_ASSERT(off == 0 || off > 12);
  });
}

TEST_CASE("a double tap zooms to the point that was tapped, and another back to the whole") {
  Close app;
  const Point at{250, 250};
  const Point before = app.under(at);
  const auto double_tap = [&] {
    const double t = to_ms(app.stage.now()) + 400;
    for (const double begin : {t, t + 150}) {
      app.touch(begin, Phase::down, at, 1);
      app.touch(begin + 60, Phase::up, at, 1);
    }
    settle(app.stage);
  };
  double_tap();
  CHECK(app.zoom.get() == 2.5);
  CHECK(length(app.under(at) - before) < 1e-9);
  // One finger moves it now, no further than its edge; a list around it would have got the finger before.
  CHECK(app.plane->drag_interest({}).horizontal);
  for (int i = 0; i <= 20; ++i)
    app.touch(to_ms(app.stage.now()) + 8, i == 0 ? Phase::down : Phase::move, {100 + 12.0 * i, 300}, 1);
  app.touch(to_ms(app.stage.now()) + 300, Phase::up, {340, 300}, 1);
  settle(app.stage);
  CHECK(app.plane->pan().x == Approx(-1.5 * 70 + 240 - 8));
  double_tap();
  CHECK(app.zoom.get() == 1);
  CHECK(app.plane->pan() == Point{});
  CHECK_FALSE(app.plane->drag_interest({}).horizontal);
  for (const Decision& decision : app.stage.journal().decisions()) CHECK(true_to_its_numbers(decision));
  // The app's own writes, also such as cannot be.
  app.stage.at(app.stage.now(), [&] { app.zoom.set(99); });
  settle(app.stage);
  CHECK(app.zoom.get() == 4);
}
