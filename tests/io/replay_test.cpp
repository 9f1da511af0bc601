#include "ubbo/io/replay/replay.hpp"

#include <filesystem>
#include <nlohmann/json.hpp>
#include <set>

#include "approved.hpp"
#include "files.hpp"
#include "plans.hpp"
#include "streams.hpp"
#include "ubbo/io/hand/hand_script.hpp"
#include "ubbo/io/replay/expectation.hpp"
#include "ubbo/io/replay/report.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

io::Scene scene_with(SliderSettings settings, bool mirrored = false) {
  settings.to = 10;
  io::Scene scene;
  scene.stage.right_to_left = mirrored;
  scene.cells = {{"frames", 4.0}, {"brood", 2.0}};
  // Below the sliders a yard that scrolls, with a pad on it that has to wait for double taps.
  scene.parts.push_back(
      plan<Pane>("yard", {0, 0, 360, 720}, {.min = -300, .max = 300, .snap_points = {-300, 0, 300}}));
  scene.parts.push_back(
      plan<Pad>("hive", {60, 260, 300, 460},
                {.gestures = {.report_tap = ReportTap::after_wait, .drags = Drags::horizontal}}, {},
                {.inside = "yard"}));
  scene.parts.push_back(plan<Slider>("frames", HoneySlider::box, settings, {{"value", "frames"}}));
  settings.axis = Axis::vertical;
  scene.parts.push_back(plan<Slider>("brood", {0, 300, 60, 300}, settings, {{"value", "brood"}}));
  return scene;
}

// All that must not depend on the frame rate, as text.
std::string outcome(const io::Scene& scene, const io::Take& take, double fps) {
  io::SceneRun run(scene, 64);
  io::Replay replay(run, take, {.fps = fps});
  replay.finish();
  auto root = nlohmann::json::parse(io::replay_json(run, replay));
  root.erase("frames");
  return root.dump();
}

}  // namespace

TEST_CASE("24, 60, 120 and 240 frames a second give the same decisions and cells to the byte") {
  PROPERTY("any scene, any take, sound or wild", [] {
    const io::Scene scene = scene_with(any_slider(), *rc::gen::arbitrary<bool>());
    io::Take take{.samples = gestures()};
    if (*rc::gen::arbitrary<bool>()) {
      take.samples = *rc::gen::nonEmpty(wild_stream());
      std::erase_if(take.samples, [](const Sample& s) { return s.time < Micros{0} || s.time > ms(5000); });
      std::stable_sort(take.samples.begin(), take.samples.end(),
                       [](auto& a, auto& b) { return a.time < b.time; });
      RC_PRE(!take.samples.empty());
    }
    const std::string at_60 = outcome(scene, take, 60);
    RC_ASSERT(at_60.find("\"decisions\"") != std::string::npos);
    for (const double fps : {24.0, 120.0, 240.0, 999.0}) RC_ASSERT(outcome(scene, take, fps) == at_60);
  });
}

TEST_CASE("a contact left open long before the last sample is ended too, and comes to rest") {
  const io::Scene scene = scene_with({.step = 1});
  io::SceneRun run(scene, 64);
  const io::Take take{
      .samples = {{.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}},
                  {.time = ms(50), .contact = 1, .phase = Phase::move, .at = {250, 224}},
                  {.time = ms(9000), .contact = 2, .phase = Phase::move, .at = {0, 0}}}};  // of no contact
  io::Replay replay(run, take);
  replay.finish();
  CHECK(run.stage().settled());
  CHECK(replay.ends() > ms(9000));
}

TEST_CASE("a take that ends with the finger down is ended by a cancel, with a warning") {
  const io::Scene scene = scene_with({.step = 1});
  io::SceneRun run(scene, 64);
  const io::Take take{.notes = {{"expectation", "frames = 4, brood = 1, says frames \"cancelled\""}},
                      .samples = {{.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}},
                                  {.time = ms(50), .contact = 1, .phase = Phase::move, .at = {250, 224}}}};
  io::Replay replay(run, take);
  const auto unmet = io::play_and_check(run, replay, io::expectations_of(take));
  REQUIRE(replay.warnings().size() == 1);
  CHECK_THAT(replay.warnings()[0], Catch::Contains("ends at 50 ms with 1 contact"));
  CHECK(run.cell("frames")->get() == 4);
  CHECK(run.stage().settled());
  CHECK(unmet == std::vector<std::string>{"brood is 2, not 1"});
}

TEST_CASE("pauses of years and a million samples are replayed without a hang") {
  const io::Scene scene = scene_with({.step = 1});
  io::SceneRun run(scene, 4096);
  io::Take take{.samples = {{.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}},
                            {.time = ms(9e12), .contact = 1, .phase = Phase::up, .at = {150, 224}}}};
  io::Replay years(run, take, {.fps = 240});
  years.finish();
  CHECK(years.ends() == ms(9e12));

  take.samples.resize(1);
  for (int i = 1; i < 1'000'000; ++i)  // every other sample is one of a contact that is not down
    take.samples.push_back(
        {.time = ms(8.0 * i), .contact = i % 2, .phase = Phase::move, .at = {150.0 + i % 100, 224}});
  io::SceneRun fresh(scene, 4096);
  io::Replay long_one(fresh, take, {.fps = 240, .max_decisions = 1000});
  long_one.finish();
  CHECK(long_one.decisions().size() == 1000);
  CHECK_THAT(long_one.warnings().back(), Catch::Contains("more decisions"));
  CHECK_THROWS_WITH(io::Replay(fresh, take, {.fps = 0}), Catch::Contains("fps = 0"));
}

TEST_CASE("each decision is told in a sentence with its numbers") {
  io::SceneRun run(scene_with({.step = 1}), 64);
  const io::Take take{.samples = {{.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}},
                                  {.time = ms(40), .contact = 1, .phase = Phase::move, .at = {159.2, 224}},
                                  {.time = ms(80), .contact = 1, .phase = Phase::move, .at = {223.52, 224}},
                                  {.time = ms(500), .contact = 1, .phase = Phase::up, .at = {223.52, 224}}}};
  io::Replay replay(run, take);
  replay.finish();
  const std::string why = io::why_text(replay, "frames");
  for (const char* says :
       {"a finger went down at (150, 224), 24 dp inside frames",
        "it moved 9.2 dp, 1.2 dp over the threshold of 8 dp", "the finger was still for 420 ms",
        "snaps to 7: let go at 6.6, which is 0.4 from 7 and 0.6 from 6", "at rest at 7"})
    CHECK_THAT(why, Catch::Contains(says));
  CHECK(io::why_text(replay, "brood") == "no decisions\n");
}

TEST_CASE("what the app and the phone did is told in a script, kept in a take, and happens at its own time") {
  const io::Scene scene = io::parse_scene(
      "[cells]\nv = 4\nseen = false\nnote = \"\"\npage = { choice = \"Notes\", of = [\"Notes\", \"Harvest\"] "
      "}\n"
      "pages = [\"Notes\"]\n"
      "[[part]]\nid = \"frames\"\nkind = \"slider\"\nvalue = \"v\"\nto = 10\nstep = 1\nx = \"5%\"\nright = "
      "\"5%\"\ny = 100\nh = 48\n"
      "[[part]]\nid = \"name\"\nkind = \"pad\"\nx = 0\ny = 300\nw = 100\nh = 50\nhidden = true\n",
      "s");
  io::Hand hand(io::find_hand("steady"));
  io::SceneRun places(scene);
  io::perform(hand,
              "focus frames, key right, wait 500 ms, set seen yes, set note \"two queen cells, one capped\"; "
              "put page Harvest,\n"
              "set pages to A|B, tap frames.9, wait 600 ms, show name, call frames decrease, turn to "
              "720x360, wait 100 ms,\n"
              "back, put v 2, wait 9, disable frames, tap frames",
              io::places_of(places));
  const io::Take take = io::parse_take(io::write_take(hand.take()), "t");
  CHECK(take.actions.size() == 12);
  std::string at_24, at_240;
  for (std::string* out : {&at_24, &at_240}) {
    io::SceneRun run(scene, 200);
    io::Replay replay(run, take, {.fps = out == &at_24 ? 24.0 : 240.0});
    replay.finish();
    auto root = nlohmann::json::parse(io::replay_json(run, replay));
    root.erase("frames");
    *out = root.dump();
    CHECK(root["cells"] == nlohmann::json{{"v", 2.0},
                                          {"seen", true},
                                          {"note", "two queen cells, one capped"},
                                          {"page", "Harvest"},
                                          {"pages", {"A", "B"}}});
    CHECK(root["parts"]["frames"]["box"]["w"] == Approx(0.9 * 720));
    CHECK(root["parts"]["name"]["visible"] == true);
    CHECK(root["parts"]["frames"]["enabled"] == false);
    const std::string why = io::why_text(replay, "");
    for (const char* says : {"a key moves it from 4 to 5", "the tap is at 9",
                             "it was asked to go from 9 to 8", "back was pressed, and no part answers it",
                             "the app wrote 2, and it goes there", "which is disabled"})
      CHECK_THAT(why, Catch::Contains(says));
  }
  CHECK(at_24 == at_240);

  const std::string head = "time_ms,contact,phase,x,y\n0,1,down,5,5\n";
  for (const auto& [line, says] : {std::pair{"9,,set,w,3\n", "no cell 'w'; takes note, page, pages, seen, v"},
                                   {"9,,set,v,three\n", "v = 'three'; takes a number"},
                                   {"9,,put,page,Nots\n", "takes one of Notes, Harvest"},
                                   {"9,,key,rihgt\n", "nearest known: right"},
                                   {"9,,hide,framse\n", "nearest known: frames"},
                                   {"9,,turn,,720\n", "turn to '720'"}}) {
    io::SceneRun run(scene);
    const io::Take bad = io::parse_take(head + line, "t.take.csv");
    CHECK_THROWS_WITH(io::Replay(run, bad), Catch::Contains(says) && Catch::StartsWith("t.take.csv:3:1: "));
  }
  CHECK_THROWS_WITH(io::parse_take(head + "9,,sett,v,3\n", "t"), Catch::Contains("nearest known: set"));
}

TEST_CASE("what is said of the demo's takes is as it was approved") {
  std::set<std::filesystem::path> takes;
  for (const auto& entry : std::filesystem::directory_iterator(UBBO_SOURCE_DIR "/demo"))
    if (entry.path().string().ends_with(".take.csv")) takes.insert(entry.path());
  CHECK(takes.size() > 30);
  std::string text;
  for (const auto& path : takes) {
    const std::string name = path.filename().string();
    const auto scene = path.parent_path() / (name.substr(0, name.find('.')) + ".scene.toml");
    const io::Scene read = test::scene_at(scene.string());
    const io::Take take = test::take_at(path.string());
    io::SceneRun run(read, 4096);
    io::Replay replay(run, take, {.fps = 60});
    replay.finish();
    text += "# " + name + "\n" + io::why_text(replay, "");
  }
  approve("io", "why", text);
}
