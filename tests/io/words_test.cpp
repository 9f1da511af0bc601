// Takes made by every hand on every scene of the demo: no sentence says what its numbers deny, and none is
// left with a gap.
#include "claims.hpp"
#include "files.hpp"
#include "streams.hpp"
#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

const std::vector<io::Scene>& demo_scenes() {
  static const std::vector<io::Scene> scenes = [] {
    std::vector<io::Scene> read;
    for (const char* path :
         {UBBO_SOURCE_DIR "/demo/inspection.scene.toml", UBBO_SOURCE_DIR "/demo/hive-list.scene.toml",
          UBBO_SOURCE_DIR "/demo/yard-plan.scene.toml"})
      read.push_back(test::scene_at(path));
    return read;
  }();
  return scenes;
}

Point anywhere() { return {*number(0, 360), *number(0, 720)}; }

// A place that means something to a part, or any.
Point aimed(const Stage& stage) {
  const auto parts = stage.parts();
  const Part& part = *parts[*rc::gen::inRange<std::size_t>(0, parts.size())];
  const Box box = part.box();
  return *rc::gen::inRange(0, 4) == 0 ? anywhere()
                                      : Point{box.x + *number(0, 1) * box.w, box.y + *number(0, 1) * box.h};
}

io::Take made_take(const Stage& stage) {
  const auto hands = io::shipped_hands();
  io::Hand hand(hands[*rc::gen::inRange<std::size_t>(0, hands.size())], *rc::gen::arbitrary<std::uint64_t>());
  const int actions = *rc::gen::inRange(1, 7);
  for (int i = 0; i < actions; ++i) {
    const Point at = aimed(stage);
    const Point by{*number(-200, 200), *number(-300, 300)};
    const Micros over = ms(*number(40, 700));
    switch (*rc::gen::inRange(0, 7)) {
      case 0:
        hand.tap(at, *rc::gen::inRange(1, 4));
        break;
      case 1:
        hand.press(at).drag(by, over).wait(ms(*number(0, 200))).lift();
        break;
      case 2:
        hand.press(at).flick(by, *number(50, 3000));
        break;
      case 3:
        hand.press(at).wait(ms(*number(50, 1200))).lift();
        break;
      case 4:
        hand.pinch(at, *number(40, 200), *number(40, 200), *number(-2, 2), over);
        break;
      case 5:
        hand.press(at).drag(by * 0.1, over).drag({-by.y, by.x}, over).drag(by, over).lift();
        break;
      default:
        hand.press(at).drag(by, over).cancel();
    }
    hand.wait(ms(*number(0, 900)));
  }
  return hand.take();
}

}  // namespace

TEST_CASE("no sentence of a made take is false or left with a gap") {
  PROPERTY("every hand, every scene", [] {
    const io::Scene& scene = demo_scenes()[*rc::gen::inRange<std::size_t>(0, demo_scenes().size())];
    io::SceneRun run(scene, 64);
    const io::Take take = made_take(run.stage());
    io::Replay replay(run, take);
    replay.finish();
    RC_ASSERT(!replay.decisions().empty());
    for (const Decision& decision : replay.decisions()) {
      const std::string said = words::sentence(decision);
      RC_LOG() << said << "\n";
      RC_ASSERT(true_to_its_numbers(decision));
      RC_ASSERT(said.find_first_of("{}") == std::string::npos);
      RC_ASSERT(said.find("nan") == std::string::npos);
    }
  });
}
