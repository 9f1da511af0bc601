// What there is to draw.
#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what a part of any kind is made of is sound, wherever it is") {
  for (const PartKind* kind : shipped_kinds())
    PROPERTY(kind->name, [&] {
      Alone alone(*kind, *rc::gen::arbitrary<bool>());
      const auto events = any_events();
      const auto look = [&] {
        std::size_t labels = 0;
        kind->pieces(*alone.part, [&](const Piece& piece) {
          const Box& b = piece.box;
          RC_ASSERT(std::isfinite(b.x + b.y + b.w + b.h + piece.turn));
          RC_ASSERT(b.w >= 0 && b.h >= 0);
          RC_ASSERT(piece.opacity >= 0 && piece.opacity <= 1 && piece.fraction >= 0 && piece.fraction <= 1);
          labels += static_cast<std::size_t>(piece.role == Role::label);
          // Handles and what is filled lie within the part, give or take a fingertip.
          const Box& whole = alone.part->box();
          if (piece.role == Role::handle || piece.role == Role::fill)
            RC_ASSERT(b.x >= whole.x - 12 && b.right() <= whole.right() + 12 && b.y >= whole.y - 12 &&
                      b.bottom() <= whole.bottom() + 12);
        });
        RC_ASSERT(labels <= 1);
      };
      alone.stage.advance(ms(0));
      look();
      for (const Event& event : events) {
        event.action(alone, Seen::plain);
        look();
      }
    });
}

TEST_CASE("pieces are handed out without allocation, however much the one who takes them holds") {
  Stage stage;
  Cell<bool> open{true};
  const Dialog& dialog = stage.add<Dialog>("dialog", {30, 300, 300, 300}, {.label = "Close?", .open = open});
  settle(stage);
  std::array<double, 32> held{};
  int taken = 0;
  const std::size_t before = allocations();
  pieces_of(dialog,
            [held, &taken](const Piece& piece) { taken += static_cast<int>(piece.opacity >= held[7]); });
  stage.draw([held, &taken](const Part&, const Piece& piece) {
    taken += static_cast<int>(piece.opacity >= held[7]);
  });
  CHECK(allocations() == before);
  CHECK(taken == 6);
}

TEST_CASE("a picture that a pointer has enlarged lies in what scales it as it lies in its piece") {
  Stage stage;
  Cell<bool> open{true};
  stage.add<Dialog>("dialog", {30, 300, 300, 300},
                    {.open = open, .travel = {.to_scale = 0.5}, .exit = Timed{Curve{}, ms(400)}});
  Button& photo = stage.add<Button>("photo", {10, 10, 100, 80}, {.label = "photo"}, {.inside = "dialog"});
  photo.set_content({.image = "ridge", .hover = HoverContent{.scale = 1.5}});
  settle(stage);
  stage.touch({.time = stage.now() + ms(10), .phase = Phase::hover, .at = {90, 350}, .tool = Tool::mouse});
  settle(stage);
  stage.at(stage.now(), [&] { open.set(false); });
  stage.advance(stage.now() + ms(40));
  const auto pictured = [](std::optional<Piece>& found) {
    return [&found](const Piece& piece) {
      if (piece.image_box && !found) found = piece;
    };
  };
  std::optional<Piece> own, seen;
  pieces_of(photo, pictured(own));
  stage.draw([&, look = pictured(seen)](const Part& part, const Piece& piece) {
    if (&part == &photo) look(piece);
  });
  REQUIRE(own);
  REQUIRE(seen);
  REQUIRE(own->image_box->x < own->box.x - 5);
  const double scale = seen->box.w / own->box.w;
  CHECK(scale < 0.99);
  CHECK(seen->image_box->x - seen->box.x == Approx((own->image_box->x - own->box.x) * scale));
  CHECK(seen->image_box->y - seen->box.y == Approx((own->image_box->y - own->box.y) * scale));
}

TEST_CASE("what is uncovered from any side is drawn as far as it is") {
  Insets sides{};  // how much has been covered from each
  for (const Axis axis : {Axis::horizontal, Axis::vertical}) {
    Stage stage;
    Cell<Choice> shown{Choice({"Notes", "Harvest"})};
    auto& swap = stage.add<Swap>("pages", {20, 100, 320, 80},
                                 {.selected = shown,
                                  .way = SwapMotion::uncover,
                                  .order = SwapOrder::together,
                                  .axis = axis,
                                  .enter = Timed{Curve{}, ms(100)},
                                  .exit = Timed{Curve{}, ms(100)}});
    for (const char* page : {"notes", "harvest"})
      stage.add<Button>(page, {0, 0, 320, 80}, {.label = page}, {.inside = "pages"});
    for (int i = 0; i < 2; ++i) {
      settle(stage);
      const Micros from = stage.now() + ms(100);
      stage.at(from, [&] { shown.set(shown.get().with(static_cast<std::size_t>(1 - i))); });
      stage.advance(from + ms(30));
      stage.draw([&](const Part& part, const Piece& piece) {
        if (piece.role != Role::button) return;
        const Insets covered = swap.visual_state_of(part).covered;
        sides = {sides.left + covered.left, sides.top + covered.top, sides.right + covered.right,
                 sides.bottom + covered.bottom};
        REQUIRE(piece.clip);
        CHECK(piece.clip->x == Approx(20 + 320 * covered.left));
        CHECK(piece.clip->y == Approx(100 + 80 * covered.top));
        CHECK(piece.clip->right() == Approx(340 - 320 * covered.right));
        CHECK(piece.clip->bottom() == Approx(180 - 80 * covered.bottom));
      });
    }
  }
  for (const double side : {sides.left, sides.top, sides.right, sides.bottom}) CHECK(side > 0.0);
}

TEST_CASE("pieces come as they are drawn: faded, scaled and clipped with what they lie in") {
  Stage stage;
  Cell<bool> open{false};
  auto& list = stage.add<List>("rows", {20, 100, 300, 200}, {});
  for (int i = 0; i < 8; ++i)
    stage.add<Button>("row" + std::to_string(i), {0, 0, 300, 60}, {.label = "row"}, {.inside = "rows"});
  stage.add<Dialog>(
      "dialog", {30, 300, 300, 300},
      {.open = open, .travel = {.from_scale = 0.5, .from_opacity = 0.0}, .enter = Timed{Curve{}, ms(100)}});
  stage.add<Button>("yes", {10, 10, 100, 48}, {.label = "yes"}, {.inside = "dialog"});
  stage.at(ms(0), [&] { open.set(true); });
  stage.advance(ms(20));
  const auto seen = [&](std::string_view id, Role role) {
    std::optional<Piece> found;
    stage.draw([&](const Part& part, const Piece& piece) {
      if (part.id() == id && piece.role == role && !found) found = piece;
    });
    return found;
  };
  // A fifth of its way it has a fifth of its opacity and six tenths of its size, with all that lies in it.
  for (const char* id : {"dialog", "yes"})
    CHECK(seen(id, id == std::string_view("yes") ? Role::button : Role::surface)->opacity == Approx(0.2));
  CHECK(seen("dialog", Role::surface)->box.w == Approx(180));
  CHECK(seen("yes", Role::button)->box.w == Approx(60));
  CHECK(seen("yes", Role::button)->box.x == Approx(180 + (40 - 180) * 0.6));
  // A row that reaches beyond its list is seen as far as that goes.
  const Piece row = *seen("row3", Role::button);
  CHECK(row.box.bottom() == Approx(340));
  REQUIRE(row.clip);
  CHECK(row.clip->bottom() == Approx(list.box().bottom()));
  // Where nothing fades, moves or clips, they are what the part says.
  stage.advance(ms(1000));
  const Piece there = *seen("dialog", Role::surface);
  CHECK((there.box == Box{30, 300, 300, 300} && there.opacity == 1 && !there.clip));
}
