// The face for C, as the page calls it: what is touched through it is a take, and that take comes to the
// same.
#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <filesystem>
#include <nlohmann/json.hpp>
#include <string>
#include <vector>

#include "files.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/testing/check.hpp"
#include "ubbo/ubbo.h"

namespace {

using ubbo::test::demo;
using Json = nlohmann::json;

template <class Write>
std::string text(Write&& write) {
  std::string into(write(nullptr, 0), '\0');
  REQUIRE(write(into.data(), into.size()) == into.size());
  return into;
}
std::string taken(ubbo_run run) {
  return text([=](char* into, std::size_t room) { return ubbo_take(run, into, room); });
}
std::string outcome(ubbo_run run) {
  return text([=](char* into, std::size_t room) { return ubbo_outcome(run, into, room); });
}
std::string fault() { return text(ubbo_fault); }
std::string picture(ubbo_run run) {
  std::vector<double> numbers(1 << 16);
  std::string texts(1 << 14, '\0');
  std::size_t size = 0;
  const std::size_t count =
      ubbo_picture(run, 0, 1.0, numbers.data(), numbers.size(), texts.data(), texts.size(), &size);
  REQUIRE(count <= numbers.size());
  REQUIRE(size <= texts.size());
  std::string all(texts.data(), size);
  for (std::size_t i = 0; i < count; ++i) all += fmt::format(" {}", numbers[i]);
  return all;
}

std::vector<std::filesystem::path> demo_files(const std::string& end) {
  std::vector<std::filesystem::path> all;
  for (const auto& entry : std::filesystem::directory_iterator(demo))
    if (entry.path().string().ends_with(end)) all.push_back(entry.path());
  std::sort(all.begin(), all.end());
  REQUIRE(all.size() > 5);
  return all;
}

ubbo_scene scene_of(const std::filesystem::path& path, const char* changes = "") {
  const ubbo_scene scene =
      ubbo_scene_read(ubbo::file::read(path.string()).c_str(), path.filename().c_str(), changes);
  INFO(fault());
  REQUIRE(scene != 0);
  return scene;
}

// A hand that touches anywhere: taps, drags and flicks, seen at frames that come as they like.
class Hand {
 public:
  explicit Hand(ubbo_run run) : run_(run) {}
  void use(ubbo_run run) {
    run_ = run;
    time_ = 0.0;
  }
  void gesture() {
    const double x = *rc::gen::inRange(0, 360);
    const double y = *rc::gen::inRange(0, 720);
    const double far_x = *rc::gen::inRange(-200, 200);
    const double far_y = *rc::gen::inRange(-300, 300);
    const int steps = *rc::gen::inRange(0, 12);
    const double step = 1000.0 * *rc::gen::inRange(3, 40);
    touch(0, x, y);
    for (int i = 1; i <= steps; ++i) {
      pass(step);
      touch(1, x + far_x * i / steps, y + far_y * i / steps);
    }
    pass(step);
    touch(2, x + (steps > 0 ? far_x : 0.0), y + (steps > 0 ? far_y : 0.0));
  }
  void rest() {
    for (int i = 0; i < 4000 && ubbo_settled(run_) == 0; ++i) ubbo_advance(run_, time_ += 8000.0);
    REQUIRE(ubbo_settled(run_) == 1);
  }
  // All that waits has happened, such as a toast that goes.
  void wait() {
    for (int i = 0; i < 60 && ubbo_due(run_) >= 0.0; ++i) {
      ubbo_advance(run_, time_ += std::max(1.0, ubbo_due(run_) - time_));
      rest();
    }
  }

 private:
  void touch(int phase, double x, double y) { ubbo_touch(run_, time_, 1, phase, x, y, 0, 0.5, 0.0); }
  void pass(double time) {
    time_ += time;
    if (*rc::gen::inRange(0, 3) != 0) ubbo_advance(run_, time_);
  }

  ubbo_run run_;
  double time_ = 0.0;
};

}  // namespace

TEST_CASE(
    "what is touched in a run is a take that comes to the same, byte for byte, from wherever it began") {
  for (const auto& path : demo_files(".scene.toml")) {
    CAPTURE(path.string());
    const ubbo_scene scene = scene_of(path);
    int resumed = 0;
    PROPERTY("as its take", [&] {
      ubbo_run run = ubbo_run_begin(scene);
      Hand hand(run);
      for (int i = *rc::gen::inRange(1, 4); i > 0; --i) {
        hand.gesture();
        hand.rest();
        const std::string take = taken(run);
        const ubbo_run again = ubbo_run_take(scene, take.c_str(), "again");
        RC_ASSERT(again != 0U);
        ubbo_play(again, -1.0);
        const bool same = outcome(again) == outcome(run);
        if (!same) RC_FAIL("another outcome of\n" + take);
        // It may be touched on where its take has come to, as the run itself.
        RC_ASSERT(picture(again) == picture(run));
        ubbo_run_free(again);
        hand.wait();
        if (const ubbo_run next = ubbo_run_resume(scene, run, 1)) {
          ++resumed;
          const bool looks_same = picture(next) == picture(run);
          if (!looks_same) RC_FAIL("it looks otherwise where it is resumed, after\n" + take);
          ubbo_run_free(run);
          run = next;
          hand.use(run);
        } else {
          break;  // the take goes on
        }
      }
      ubbo_run_free(run);
    });
    CHECK(resumed > 0);
    ubbo_scene_free(scene);
  }
}

TEST_CASE("the demo's takes come out through the face as they do by themselves") {
  for (const auto& path : demo_files(".take.csv")) {
    const std::string name = path.filename().string();
    CAPTURE(name);
    const std::string file = demo + name.substr(0, name.find('.')) + ".scene.toml";
    const ubbo_scene scene = scene_of(file);
    const std::string text = ubbo::file::read(path.string());
    const ubbo_run run = ubbo_run_take(scene, text.c_str(), name.c_str());
    REQUIRE(run != 0);
    // Looked at in between, which changes nothing.
    for (double time = 0.0; time < 600'000.0; time += 7'000.0) {
      ubbo_play(run, time);
      (void)picture(run);
    }
    ubbo_play(run, -1.0);
    ubbo::io::SceneRun own(ubbo::test::scene_at(file), 4096);
    const ubbo::io::Take take = ubbo::test::take_at(path.string());
    ubbo::io::Replay replay(own, take);
    replay.finish();
    CHECK(outcome(run) == ubbo::io::outcome_json(own, replay.decisions()));
    ubbo_run_free(run);
    ubbo_scene_free(scene);
  }
}

TEST_CASE("what a run carries on: what the app has set, shown, taken away, turned and focused") {
  const ubbo_scene scene = scene_of(demo + "inspection.scene.toml");
  const ubbo_run run = ubbo_run_begin(scene);
  const auto act = [&](const char* kind, const char* target, const char* value = "") {
    INFO(kind << " " << target);
    CHECK(ubbo_act(run, 0.0, kind, target, value) == 1);
  };
  act("set", "frames", "9");
  act("remove", "checked");
  act("hide", "brood");
  act("disable", "save");
  act("focus", "temper");
  ubbo_advance(run, 2e6);
  REQUIRE(ubbo_settled(run) == 1);
  const ubbo_run next = ubbo_run_resume(scene, run, 1);
  REQUIRE(next != 0);
  CHECK(picture(next) == picture(run));
  const Json told = Json::parse(outcome(next));
  CHECK(told["cells"]["frames"] == 9);
  CHECK_FALSE(told["parts"].contains("checked"));
  CHECK(told["parts"]["brood"]["visible"] == false);
  // On other settings what is set stays.
  const ubbo_scene other = scene_of(demo + "inspection.scene.toml", "frames.step=3\nframes.thumb=40");
  const ubbo_run on_other = ubbo_run_resume(other, next, 0);
  REQUIRE(on_other != 0);
  CHECK(Json::parse(outcome(on_other))["cells"]["temper"] == told["cells"]["temper"]);
  // Nobody resumes what is under way.
  ubbo_touch(next, 1e6, 1, 0, 180, 224, 0, 1, 0);
  CHECK(ubbo_run_resume(scene, next, 0) == 0);
}

TEST_CASE("what is wrong is told, and nothing that is none does anything") {
  CHECK(ubbo_scene_read("[[part]]\nkind = \"slidr\"\n", "a.scene.toml", "") == 0);
  const Json wrong = Json::parse(fault());
  REQUIRE(wrong.size() > 0);
  const auto of_kind =
      std::find_if(wrong.begin(), wrong.end(), [](const Json& one) { return one["nearest"] == "slider"; });
  REQUIRE(of_kind != wrong.end());
  CHECK((*of_kind)["line"] == 2);
  const ubbo_scene scene = scene_of(demo + "inspection.scene.toml");
  CHECK(ubbo_scene_read(ubbo::file::read(demo + "inspection.scene.toml").c_str(), "b", "frames.step=-1") ==
        0);
  CHECK_THAT(fault(), Catch::Contains("step"));
  const ubbo_run run = ubbo_run_begin(scene);
  CHECK(ubbo_act(run, 0, "call", "frames", "fly") == 0);
  CHECK_THAT(fault(), Catch::Contains("fly"));
  CHECK(ubbo_act(run, 0, "fly", "frames", "") == 0);
  CHECK(ubbo_run_take(scene, "nonsense", "c") == 0);
  CHECK(ubbo_run_take(scene, "# state = dWJibw==\ntime_ms,contact,phase,x,y\n0,1,down,1,1\n", "d") == 0);
  CHECK_THAT(fault(), Catch::Contains("state"));
  for (const ubbo_run none : {0U, 4'000'000U}) {
    CHECK(ubbo_touch(none, 0, 1, 0, 1, 1, 0, 1, 0) == 0);
    ubbo_advance(none, 1);
    ubbo_play(none, 1);
    ubbo_run_free(none);
    CHECK(ubbo_take(none, nullptr, 0) == 0);
    CHECK(ubbo_picture(none, 0, 1, nullptr, 0, nullptr, 0, nullptr) == 0);
    CHECK(ubbo_due(none) < 0);
    CHECK(ubbo_run_begin(none) == 0);
  }
  // Times and places that are none are dropped, and leave nothing stuck.
  for (const double odd : {std::nan(""), 1e300, -1e300})
    for (int phase = -1; phase < 8; ++phase) ubbo_touch(run, odd, 1, phase, odd, odd, phase, odd, odd);
  ubbo_advance(run, 1e9);
  CHECK(ubbo_touch(run, 1e9, 7, 0, 180, 224, 0, 1, 0) == 1);
  // As much is written as there is room for.
  std::string little(5, '?');
  CHECK(ubbo_take(run, little.data(), 3) > 3);
  CHECK(little.substr(3) == "??");
}

TEST_CASE("readings, boxes and transitions are told as the page draws them") {
  const ubbo_scene scene = scene_of(demo + "hive-sheet.scene.toml");
  const ubbo_run run = ubbo_run_begin(scene);
  const auto list = [&] {
    return Json::parse(text([&](char* into, std::size_t room) { return ubbo_readings(run, into, room); }));
  };
  const Json before = list();
  CHECK(ubbo_act(run, 0, "call", "hive", "open") == 1);
  ubbo_advance(run, 5e6);
  CHECK(list().size() == before.size());  // what lies above what is another matter
  std::size_t out = 0;
  while (before[out]["name"] != "hive.out") ++out;
  std::vector<double> values(before.size());
  REQUIRE(ubbo_values(run, nullptr, 0, values.data(), values.size()) == before.size());
  const auto which = static_cast<std::uint32_t>(out);
  double one = 0.0;
  REQUIRE(ubbo_values(run, &which, 1, &one, 1) == 1);
  CHECK(one == values[out]);
  CHECK(one == 176.0);
  const Json told =
      Json::parse(text([&](char* into, std::size_t room) { return ubbo_scene_told(scene, into, room); }));
  std::vector<double> boxes(4 * told["parts"].size());
  REQUIRE(ubbo_boxes(run, boxes.data(), boxes.size()) == boxes.size());
  for (std::size_t i = 0; i < told["parts"].size(); ++i)
    if (told["parts"][i]["id"] == "hive") CHECK(boxes[4 * i + 1] == 720.0 - 176.0 + 9.0);  // its grip
  // What was decided before does not come again where it is resumed.
  const ubbo_run next = ubbo_run_resume(scene, run, 1);
  REQUIRE(next != 0);
  CHECK(ubbo_decisions_count(next) == 0);
  ubbo_touch(next, 0, 1, 0, 180, 558, 0, 1, 0);
  CHECK(ubbo_decisions_count(next) > 0);
  std::vector<double> way(11);
  CHECK(ubbo_transition("linear 200ms", way.data(), way.size()) == 200'000.0);
  for (std::size_t i = 0; i < way.size(); ++i)
    CHECK(way[i] == Approx(0.1 * static_cast<double>(i)).margin(1e-9));
  CHECK(ubbo_transition("liner 200ms", way.data(), way.size()) < 0.0);
}

TEST_CASE("the hit areas tell of each place which part a finger that goes down there is offered to") {
  constexpr double step = 40.0;
  for (const auto& path : demo_files(".scene.toml")) {
    CAPTURE(path.string());
    const ubbo_scene scene = scene_of(path);
    const ubbo_run run = ubbo_run_begin(scene);
    const Json parts = Json::parse(
        text([=](char* into, std::size_t room) { return ubbo_scene_told(scene, into, room); }))["parts"];
    std::vector<unsigned short> areas(ubbo_hit_areas(run, step, nullptr, 0));
    REQUIRE(ubbo_hit_areas(run, step, areas.data(), areas.size()) == areas.size());
    CHECK(ubbo_hit_areas(run, 0.4, areas.data(), areas.size()) == 0);
    const auto across = static_cast<std::size_t>(std::ceil(ubbo_width(run) / step));
    REQUIRE(areas.size() == across * static_cast<std::size_t>(std::ceil(ubbo_height(run) / step)));
    for (std::size_t i = 0; i < areas.size(); ++i) {
      const double x = (static_cast<double>(i % across) + 0.5) * step;
      const double y = (static_cast<double>(i / across) + 0.5) * step;
      const ubbo_run touched = ubbo_run_begin(scene);
      ubbo_touch(touched, 0.0, 1, 0, x, y, 0, 0.5, 0.0);
      std::string offered;
      const Json told = Json::parse(
          text([=](char* into, std::size_t room) { return ubbo_decisions(touched, 0, into, room); }));
      for (const Json& decision : told)
        if (decision["question"] == "routing.owner" && decision["yes"] == true) offered = decision["part"];
      ubbo_run_free(touched);
      CAPTURE(x, y, offered);
      CHECK((areas[i] == 0 ? std::string() : parts[areas[i] - 1U]["id"].get<std::string>()) == offered);
    }
    ubbo_run_free(run);
    ubbo_scene_free(scene);
  }
}
