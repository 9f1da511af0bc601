#include "ubbo/paint/touch_map.hpp"

#include "check.hpp"
#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/take/take_info.hpp"
#include "ubbo/paint/save.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a touch map shows every contact and gesture, and no text leaves the page") {
  PROPERTY("any taps, drags and pinches", [] {
    io::Hand hand(io::find_hand("bare"), static_cast<std::uint64_t>(*rc::gen::inRange(1, 1000)));
    const int deeds = *rc::gen::inRange(1, 12);
    for (int i = 0; i < deeds; ++i) {
      const Point at{*number(5, 355), *number(5, 715)};
      switch (*rc::gen::inRange(0, 3)) {
        case 0:
          hand.tap(at, *rc::gen::inRange(1, 4));
          break;
        case 1:
          hand.press(at).drag({*number(-300, 300), *number(-300, 300)}, ms(200)).lift();
          break;
        default:
          hand.pinch(at, 60, 140, 1, ms(300));
          break;
      }
      hand.wait(ms(600));
    }
    const io::Take take = hand.take();
    const io::TakeInfo info = io::inspect(take, {}, {0, 0, 360, 720});
    paint::TouchMap map{.title = "a yard", .screen = {0, 0, 360, 720}, .samples = take.samples, .marks = {}};
    for (const Gesture& g : info.gestures) map.marks.push_back({g.time, g.began, g.at, io::title(g)});
    std::size_t titles = 0;
    std::size_t discs = 0;
    for (const skin::Shape& shape : paint::touch_map(map, 1280, 800)) {
      discs += static_cast<std::size_t>(std::holds_alternative<skin::Disc>(shape));
      const auto* text = std::get_if<skin::Text>(&shape);
      if (text == nullptr) continue;
      const double wide = paint::text_width(*text);
      const double left = text->at.x - (text->align == skin::Align::right    ? wide
                                        : text->align == skin::Align::centre ? wide / 2
                                                                             : 0);
      RC_ASSERT(left >= 0 && left + wide <= 1280);
      RC_ASSERT(text->at.y > 0 && text->at.y <= 800);
      for (const Gesture& g : info.gestures)
        if (text->words == io::title(g)) {
          ++titles;
          break;
        }
    }
    RC_ASSERT(titles >= info.gestures.size());
    RC_ASSERT(discs >= 2 * info.contacts.size());  // where each went down, and where it ended
  });
}

TEST_CASE("pictures are saved in both formats, or refused") {
  const skin::Picture picture{skin::hexagon({50, 50}, 40, {.fill = skin::day.honey})};
  CHECK_THROWS_WITH(paint::save(picture, 100, 100, "x.jpeg"), Catch::Contains("takes .png or .svg"));
  CHECK_THROWS_WITH(paint::save(picture, 0, 100, "x.png"), Catch::Contains("0x100"));
  CHECK_THROWS_WITH(paint::save(picture, 9, 9, "/no/such/folder/x.png"),
                    Catch::Contains("cannot be written"));
}
