// A picture of groups within groups as plain steps.
#include "ubbo/skin/flat.hpp"

#include <cmath>

#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("flattened groups lie where a matrix puts them, and what begins ends") {
  PROPERTY("groups within groups", [] {
    const Point corner{*number(-90, 90), *number(-90, 90)};
    const Box clip{3, 4, 50, 60};
    skin::Picture picture{skin::Disc{corner, 2, {.stroke = skin::Colour{}, .width = 1.5}},
                          skin::Text{.at = corner, .words = "Ridge", .size = 10}};
    // The rows of a matrix, put together from the outermost group inwards, without the library's own turning.
    double a = 1, b = 0, c = 0, d = 1, x = 0, y = 0, scale = 1;
    const int depth = *rc::gen::inRange(1, 5);
    std::vector<skin::Group> groups;
    std::size_t seen_whole = 0;
    for (int i = 0; i < depth; ++i) {
      skin::Group& group = groups.emplace_back();
      group.move = {*number(-50, 50), *number(-50, 50)};
      group.scale = *number(0.2, 3);
      group.turn = *number(-4, 4);
      if (*rc::gen::arbitrary<bool>()) group.clip = clip;
      group.opacity = *rc::gen::element(1.0, 0.5);
      seen_whole += !group.clip && group.opacity == 1.0 ? 1 : 0;
      x += a * group.move.x + b * group.move.y;
      y += c * group.move.x + d * group.move.y;
      const double cs = std::cos(group.turn) * group.scale, sn = std::sin(group.turn) * group.scale;
      const double na = a * cs + b * sn, nb = -a * sn + b * cs, nc = c * cs + d * sn, nd = -c * sn + d * cs;
      a = na, b = nb, c = nc, d = nd;
      scale *= group.scale;
    }
    for (std::size_t i = groups.size(); i-- > 0;) {
      groups[i].shapes = std::move(picture);
      picture = {groups[i]};
    }
    const Point there{a * corner.x + b * corner.y + x, c * corner.x + d * corner.y + y};
    std::size_t open = 0, begun = 0;
    for (const skin::Step& step : skin::flat(picture)) {
      if (const auto* begin = std::get_if<skin::Begin>(&step)) {
        ++open, ++begun;
        RC_ASSERT(begin->clip || begin->opacity < 1.0);
      }
      if (std::holds_alternative<skin::End>(step)) RC_ASSERT(open-- > 0);
      if (const auto* disc = std::get_if<skin::Disc>(&step)) {
        RC_ASSERT(length(disc->centre - there) < 1e-9);
        RC_ASSERT(std::fabs(disc->radius - 2 * scale) < 1e-9);
        RC_ASSERT(std::fabs(disc->ink.width - 1.5 * scale) < 1e-9);
      }
      if (const auto* text = std::get_if<skin::PlacedText>(&step)) {
        RC_ASSERT(length(text->text.at - there) < 1e-9);
        RC_ASSERT(std::fabs(std::sin(text->turn) - c / std::hypot(a, c)) < 1e-9);
      }
    }
    RC_ASSERT(open == 0);
    RC_ASSERT(begun == groups.size() - seen_whole);
  });
}
