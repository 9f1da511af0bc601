#include "ubbo/io/scene/plan.hpp"

#include "files.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

std::string outcome(io::SceneRun& run, const io::ReadyTake& take) {
  io::Replay replay(run, take);
  replay.finish();
  return io::replay_json(run, replay);
}

}  // namespace

TEST_CASE("a variation comes to what a scene that says so comes to, as often as one likes") {
  const std::string path = demo + "inspection.scene.toml";
  const io::Take take = take_at(demo + "inspection.drag.take.csv");
  const io::Plan plan(scene_at(path));
  const io::ReadyTake ready(take, plan.scene());
  io::SceneRun usual(plan, 64);
  const std::string as_it_is = outcome(usual, ready);
  struct Case {
    const char* setting;
    SettingValue value;
    const char* change;
  };
  const std::vector<Case> cases{{"step", 2.0, "frames.step=2"},
                                {"to", 20.0, "frames.to=20"},
                                {"label", std::string("boxes"), "frames.label=\"boxes\""},
                                {"tap_moves", 1.0, "frames.tap_moves=true"},
                                {"transition", SettingValue(Transition(Timed{Curve::ease_out(), ms(900)})),
                                 "frames.transition=\"ease-out 900ms\""}};
  for (const Case& one : cases) {
    CAPTURE(one.setting);
    const io::Variation variation = plan.vary("frames", one.setting, one.value);
    const std::vector<std::string> changes{one.change};
    io::SceneRun said(io::parse_scene(file::read(path), path, shipped_kinds(), changes), 64);
    const std::string wanted = outcome(said, ready);
    for (int again = 0; again < 2; ++again) {
      io::SceneRun varied(plan, 64, {&variation, 1});
      CHECK(outcome(varied, ready) == wanted);
    }
    io::SceneRun untouched(plan, 64);  // the plan is as it was
    CHECK(outcome(untouched, ready) == as_it_is);
  }
}

TEST_CASE("what a variation cannot be is said, with part, setting, what was given and what is taken") {
  const io::Plan plan(scene_at(demo + "inspection.scene.toml"));
  const auto refusal = [&](const char* part, const char* setting, SettingValue value) {
    try {
      (void)plan.vary(part, setting, std::move(value));
      return std::string("taken");
    } catch (const std::invalid_argument& refused) {
      return std::string(refused.what());
    }
  };
  CHECK_THAT(refusal("frame", "step", 2.0),
             Catch::Contains("'frame'") && Catch::Contains("nearest known: frames"));
  CHECK_THAT(refusal("frames", "stop", 2.0),
             Catch::Contains("'stop'") && Catch::Contains("nearest known: step"));
  CHECK_THAT(refusal("frames", "step", -1.0), Catch::Contains("slider 'frames': step = -1 is not taken"));
  CHECK(refusal("frames", "step", std::string("two"))
            .starts_with("slider 'frames': step is given a text; it takes 0 to "));
  CHECK_THAT(refusal("frames", "label", 3.0), Catch::Contains("label is given a number; it takes text"));
  CHECK_THAT(refusal("frames", "value", AnyCell{}), Catch::Contains("a scene links it"));
  // What only several settings show is refused when the run is made.
  const io::Variation backwards = plan.vary("frames", "to", -5.0);
  CHECK_THROWS_WITH(io::SceneRun(plan, 0, {&backwards, 1}), Catch::Contains("inspection.scene.toml:"));
}

TEST_CASE("a plan hands out its cells for every run of it") {
  const io::Plan plan(scene_at(demo + "inspection.scene.toml"));
  const auto frames = plan.cell<double>("frames");
  io::SceneRun first(plan);
  io::SceneRun second(plan);
  first.cell(frames).set(9);
  CHECK(first.cell("frames")->get() == 9);
  CHECK(second.cell(frames).get() == 4);
  CHECK_THROWS_WITH(plan.cell<bool>("frames"), Catch::Contains("holds a number"));
  CHECK_THROWS_WITH(plan.cell<double>("frame"), Catch::Contains("nearest known: frames"));
}

TEST_CASE("settings of another kind of part are refused, and the stage is as it was") {
  Stage stage;
  CHECK_THROWS_WITH(
      stage.add(Switch::described(), "smoke", Placement::of({0, 0, 60, 32}), AnySettings(SliderSettings{})),
      Catch::Contains("another kind of part") && Catch::Contains("switch"));
  CHECK(stage.parts().empty());
}

TEST_CASE(
    "a take is refused where it asks a part for what that cannot do, with the line and the nearest name") {
  const io::Plan plan(scene_at(demo + "inspection.scene.toml"));
  const auto refusal = [&](const char* part, const char* action) {
    const io::Take take{
        .file = "t.take.csv",
        .actions = {{.kind = io::Action::Kind::call, .target = part, .value = action, .line = 7}}};
    try {
      (void)io::ReadyTake(take, plan.scene());
      return std::string("taken");
    } catch (const io::InputError& refused) {
      return std::string(refused.what());
    }
  };
  CHECK(refusal("frames", "increase") == "taken");
  CHECK_THAT(refusal("frames", "increas"), Catch::StartsWith("t.take.csv:7:1: 'frames' cannot be asked to") &&
                                               Catch::Contains("nearest known: increase"));
  CHECK_THAT(refusal("frame", "increase"), Catch::Contains("no part 'frame'") && Catch::Contains("frames"));
}
