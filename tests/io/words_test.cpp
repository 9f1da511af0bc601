// Takes made by every hand on every scene of the demo: no sentence says what its numbers deny, and none is
// left with a gap.
#include <algorithm>
#include <filesystem>
#include <map>
#include <regex>

#include "claims.hpp"
#include "files.hpp"
#include "streams.hpp"
#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

const std::vector<io::Scene>& demo_scenes() {
  static const std::vector<io::Scene> scenes = [] {
    std::vector<io::Scene> read;
    for (const auto& entry : std::filesystem::directory_iterator(demo))
      if (entry.path().string().ends_with(".scene.toml"))
        read.push_back(test::scene_at(entry.path().string()));
    std::sort(read.begin(), read.end(),
              [](const io::Scene& a, const io::Scene& b) { return a.file < b.file; });
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

// What is wrong with how a sentence says its numbers; "" where nothing is.
std::string oddly_said(const std::string& said) {
  static const std::regex places("\\([^)]*\\)");  // on the screen: these may be negative
  const std::string words = std::regex_replace(said, places, "");
  static const std::pair<std::regex, const char*> odd[] = {
      {std::regex("(^|[^0-9a-z])-[0-9]"), "a negative number"},
      {std::regex("(item|page|card|tab) 0([^.0-9]|$)"), "counted from zero"},
      {std::regex("(^|[^0-9])0 (items|pages) of"), "counted from zero"},
      {std::regex("nan|inf[^o]"), "no number"},
      {std::regex("[0-9] (dp|ms|dp/s|degrees?)(dp|ms)"), "two units"},
      {std::regex("[1-9][0-9]*\\.[0-9]{4}"), "more digits than anybody reads"}};
  for (const auto& [pattern, what] : odd)
    if (std::regex_search(words, pattern)) return what;
  return {};
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
      RC_ASSERT(oddly_said(said) == "");
      RC_ASSERT(oddly_said(words::caption(decision)) == "");
    }
    // What came to rest last is where its part says it is.
    std::map<std::string, std::pair<double, Micros>> rests;
    for (const Decision& decision : replay.decisions()) {
      const std::string part(decision.part.view());
      if (decision.says(answers::at_rest))
        rests[part] = {decision.all_facts()[0].value, decision.time};
      else if (const auto said = rests.find(part); said != rests.end() && said->second.second < decision.time)
        rests.erase(said);
    }
    const auto readings = io::readings_of(run);
    for (const auto& [part, place] : rests)
      RC_ASSERT(std::any_of(readings.begin(), readings.end(),
                            [&, id = part, at = place.first](const io::Reading& one) {
                              return one.part != nullptr && one.part->id() == id &&
                                     std::fabs(std::fabs(one.now()) - std::fabs(at)) < 1e-6;
                            }));
  });
}
