#include "ubbo/io/replay/reading.hpp"

#include "files.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

double read(io::SceneRun& run, const char* name) {
  const auto found = io::find_readings(run, "s", name);
  REQUIRE(found.size() == 1);
  return found[0].now();
}

}  // namespace

TEST_CASE("readings are what the parts and cells say, at any moment of a replay") {
  const io::Scene scene = test::scene_at(demo + "inspection.scene.toml");
  const io::Take take = test::take_at(demo + "inspection.drag.take.csv");
  io::SceneRun run(scene);
  io::Replay replay(run, take);
  const auto& slider = static_cast<const Slider&>(*run.stage().find("frames"));
  for (double t = 0; t < 1100; t += 37) {
    replay.play_to(replay.begins() + ms(t));
    CHECK(read(run, "frames.thumb.x") == slider.thumb().x);
    CHECK(read(run, "frames.thumb.y") == slider.thumb().y);
    CHECK(read(run, "frames.position") == slider.position());
    CHECK(read(run, "frames.velocity") == slider.velocity());
    CHECK(read(run, "frames.fraction") == slider.fraction());
    CHECK(read(run, "frames.opacity") == 1.0);
    CHECK(read(run, "cell.frames") == run.cell("frames")->get());
  }
  // Where it may rest, in the unit of what is read.
  const auto values = io::find_readings(run, "s", "frames.value")[0].snap_points();
  const auto places = io::find_readings(run, "s", "frames.thumb.x")[0].snap_points();
  REQUIRE(values.size() == 11);
  REQUIRE(places.size() == 11);
  for (std::size_t i = 0; i < 11; ++i) {
    CHECK(values[i] == static_cast<double>(i));
    CHECK(places[i] == Approx(54 + 25.2 * static_cast<double>(i)));
  }
  CHECK(io::find_readings(run, "s", "thumb.y")[0].snap_points().empty());
}

TEST_CASE("a name means one reading, or that of each part which has it") {
  const io::Scene scene = test::scene_at(demo + "hive-list.scene.toml");
  io::SceneRun run(scene);
  const auto all = io::find_readings(run, "s", "pressed");
  CHECK(all.size() > 2);
  for (const auto& one : all) CHECK_THAT(one.name, Catch::EndsWith(".pressed"));
  const auto sheet = io::find_readings(run, "s", "sheet.offset");
  REQUIRE(sheet.size() == 1);
  CHECK(sheet[0].unit == "dp");
  CHECK(sheet[0].snap_points() ==
        static_cast<const Pane&>(*run.stage().find("sheet")).settings().snap_points);
  try {
    (void)io::find_readings(run, "hive.scene.toml", "ofset");
    FAIL("taken");
  } catch (const io::InputError& error) {
    CHECK(error.facts().file == "hive.scene.toml");
    CHECK(error.facts().nearest == "offset");
    CHECK_THAT(error.facts().takes, Catch::Contains("sheet.offset"));
  }
}
