#include "ubbo/io/hand/hand.hpp"

#include "files.hpp"
#include "ubbo/io/hand/hand_script.hpp"
#include "ubbo/io/hand/trial.hpp"
#include "ubbo/io/take/take_info.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

const io::Scene& inspection() {
  static const io::Scene scene = test::scene_at(UBBO_SOURCE_DIR "/demo/inspection.scene.toml");
  return scene;
}

io::Take made(const std::string& script, const char* hand = "steady", std::uint64_t seed = 1,
              double rate = 120) {
  io::SceneRun run(inspection());
  io::Hand one(io::find_hand(hand), seed, rate);
  io::perform(one, script, io::places_of(run));
  return one.take();
}

std::string taken_for(const io::Take& take, const Feel& feel = {}) {
  std::string words;
  for (const Gesture& g : io::inspect(take, feel, {0, 0, 360, 720}).gestures)
    words += (words.empty() ? "" : ", ") + io::title(g);
  return words;
}

}  // namespace

TEST_CASE("2,000 gestures of each kind are taken for what was meant") {
  for (const io::HandModel& hand : io::shipped_hands()) {
    const std::string name = hand.name;
    if (name == "shaky") continue;
    const bool gloved = name == "gloved";
    for (const io::TrialRow& row : io::run_trial(hand, gloved ? feels::gloved : feels::bare_finger, 2000)) {
      CAPTURE(name, row.meant);
      CHECK(row.count == 2000);
      CHECK(row.right >= (gloved ? 1940 : 1980));
    }
  }
  // The trial can tell: by a feel that is not meant for it a gloved hand is misread.
  int wrong = 0;
  for (const io::TrialRow& row : io::run_trial(io::find_hand("gloved"), feels::mouse, 50))
    wrong += row.count - row.right;
  CHECK(wrong > 50);
}

TEST_CASE("hand scripts do what they say") {
  struct Case {
    const char* script;
    const char* taken;
  };
  const Case cases[] = {
      {"tap (100, 200)", "tap"},
      {"double tap frames", "double tap"},
      {"tap frames 3 times", "triple tap"},
      {"press frames.thumb, drag right 90 dp over 200 ms, wait 100ms, lift", "drag right"},
      {"press (100,200) then hold 1 s then lift", "long press"},
      {"press (99, 300), wait 0.8s, drag up 80, wait 90, lift", "hold and drag up"},
      {"flick left 120dp from (250, 400) at 1500 dp/s", "flick left"},
      {"press (3, 300); drag right 120; lift", "edge swipe from left"},
      {"pinch in 90 dp at (180, 300) over 400 ms", "pinch in"},
      {"rotate 70 degrees at (180, 300)", "rotate 61 degrees"},
      {"repeat 2 { tap (100, 200), wait 900 ms }", "tap, tap"},
      {"finger 1 press (100,300) while finger 2 press (200,300)\nfinger 1 drag down 90 over 300ms while "
       "finger 2 drag down 90 over "
       "300ms\nfinger 1 lift while finger 2 lift",
       "pan"},
      {"press (50, 300), drag right 60, cancel", ""},
  };
  for (const Case& c : cases) {
    CAPTURE(c.script);
    CHECK(taken_for(made(c.script)) == c.taken);
  }
  const io::Take drag = made("press frames.thumb, drag right 90 dp over 200 ms, lift");
  CHECK(drag.samples.front().at == Point{154.8, 224});
  CHECK(length(drag.samples.back().at - Point{244.8, 224}) < 0.2);  // the sensor's last look came 8 ms before
  CHECK(drag.samples.back().time == from_ms(200));
  CHECK(made("tap frames.9").samples.front().at.x == Approx(54 + 9 * 25.2));
}

TEST_CASE(
    "the same call makes the same take, another seed another, and a steady hand moves by minimum jerk") {
  const std::string script = "press frames.thumb, drag right 90 over 300 ms, lift";
  CHECK(io::write_take(made(script, "gloved", 5)) == io::write_take(made(script, "gloved", 5)));
  CHECK(io::write_take(made(script, "gloved", 5)) != io::write_take(made(script, "gloved", 6)));
  const io::Take take = made(script, "steady", 1, 1000);
  for (std::size_t i = 1; i + 1 < take.samples.size(); ++i) {
    // The law's speed, 30·u²(1-u)² lengths in its time, against differences of the places.
    const double u = to_ms(take.samples[i].time) / 300, h = 1e-3;
    const double speed = (take.samples[i + 1].at.x - take.samples[i - 1].at.x) / (2 * h);
    if (u < 1) CHECK(speed == Approx(90 / 0.3 * 30 * u * u * (1 - u) * (1 - u)).margin(2));
  }
}

TEST_CASE("bad scripts are answered with the word, and what is taken there") {
  struct Case {
    const char* script;
    std::size_t line, column;
    const char* says;
  };
  const Case cases[] = {
      {"", 1, 1, "the end; takes at least one step"},
      {"pres the thumb", 1, 1, "'pres'; takes press, move, drag"},
      {"pres the thumb", 1, 1, "nearest known: press"},
      {"press the thmb", 1, 11, "'thmb'; takes a place"},
      {"press (10 20)", 1, 11, "'20'; takes a comma"},
      {"press (10, 20), drag rihgt 9", 1, 22, "nearest known: right"},
      {"press (10, 20), drag right 90 ms", 1, 31, "'ms'; takes a comma"},
      {"press (10, 20),\ndrag right -5", 2, 12, "'-5'; takes how far: a number from 0"},
      {"drag right 9", 1, 1, "takes a finger that is down: press first"},
      {"press (1, 2), press (3, 4)", 1, 15, "a finger that is up"},
      {"wait 9 min", 1, 8, "'min'"},
      {"finger 11 press (1, 2)", 1, 8, "a number from 1 to 10"},
      {"repeat 3 tap (1, 2)", 1, 10, "'{'"},
      {"repeat 3 { tap (1, 2)", 1, 22, "the end; takes '}'"},
      {"repeat 1000 { repeat 1000 { tap (1,2) } }", 1, 0, "at most 100000 actions"},
      {"tap (1, 2) }", 1, 12, "takes a step"},
      {"pinch sideways 9 at (1, 2)", 1, 7, "'in' or 'out'"},
  };
  for (const Case& c : cases) {
    CAPTURE(c.script);
    try {
      (void)made(c.script);
      FAIL("taken");
    } catch (const io::InputError& error) {
      CHECK(error.facts().line == c.line);
      if (c.column != 0) CHECK(error.facts().column == c.column);
      CHECK_THAT(error.what(), Catch::StartsWith("hand script:") && Catch::Contains(c.says));
    }
  }
  PROPERTY("any words are done or refused", [] {
    const auto words = *rc::gen::container<std::vector<std::string>>(rc::gen::element<std::string>(
        "press", "drag", "(10,20)", "thumb", "right", "90", "dp", "over", "200ms", "lift", "tap", "{", "}",
        "repeat", "2", ",", "while", "finger", "pinch", "in", "at", "\n", "the", "(", "wait", "\xff"));
    std::string script;
    for (const std::string& word : words) script += word + " ";
    try {
      (void)made(script, "bare");
    } catch (const io::InputError&) {
    }
  });
  CHECK_THROWS_WITH(io::find_hand("glovd"), Catch::Contains("nearest known: gloved"));
  CHECK_THROWS_WITH(io::Hand(io::find_hand("bare"), 1, 5), Catch::Contains("rate = 5"));
}
