#include "ubbo/io/take/take.hpp"

#include <fstream>

#include "files.hpp"
#include "streams.hpp"
#include "ubbo/io/take/take_info.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;
using io::InputError;

namespace {
const std::string header = "time_ms,contact,phase,x,y,pressure,tool\n";
}

TEST_CASE("a take written and read again is the same") {
  PROPERTY("any sound samples", [] {
    io::Take take{.notes = {{"label", "a bee on the thumb"}, {"screen", "360x720"}}, .samples = gestures()};
    // What the app and the phone did meanwhile, here and there between the samples.
    const auto kinds = io::action_names();
    for (std::size_t before = 0; before <= take.samples.size(); ++before) {
      if (*rc::gen::inRange(0, 4) != 0) continue;
      const Micros time = before < take.samples.size() ? take.samples[before].time : take.samples.back().time;
      take.actions.push_back(
          {.time = time,
           .kind = static_cast<io::Action::Kind>(*rc::gen::inRange(0, static_cast<int>(kinds.size()))),
           .target = *rc::gen::element<std::string>("frames", "sheet"),
           .value = *rc::gen::element<std::string>("", "9", "a \"b\", c", "720x360"),
           .before = before});
    }
    const io::Take again = io::parse_take(io::write_take(take), "t");
    RC_ASSERT(again.notes == take.notes);
    RC_ASSERT(again.samples.size() == take.samples.size());
    for (std::size_t i = 0; i < take.samples.size(); ++i) {
      const Sample &a = take.samples[i], &b = again.samples[i];
      RC_ASSERT(a.time == b.time && a.contact == b.contact && a.phase == b.phase && a.at == b.at &&
                a.tool == b.tool);
    }
    RC_ASSERT(again.actions.size() == take.actions.size());
    for (std::size_t i = 0; i < take.actions.size(); ++i) {
      const io::Action &a = take.actions[i], &b = again.actions[i];
      RC_ASSERT(a.time == b.time && a.kind == b.kind && a.target == b.target && a.value == b.value &&
                a.before == b.before);
    }
  });
}

TEST_CASE("bad takes are answered with line, column, what was found and what is taken") {
  struct Case {
    std::string text;
    std::size_t line, column;
    const char* says;
  };
  const Case cases[] = {
      {"", 0, 0, "no header line"},
      {header, 0, 0, "no samples"},
      {"time,contact\n", 1, 1, "header 'time,contact'; takes time_ms,"},
      {header + "0,1,down,5\n", 2, 1, "4 fields; takes 7"},
      {header + "0,1,down,5,5,1,finger,9\n", 2, 1, "8 fields; takes 7"},
      {header + "0,1,down,5,nan,1,finger\n", 2, 12, "y 'nan'; takes a number from -1000000"},
      {header + "0,1,down,5,,1,finger\n", 2, 12, "y ''"},
      {header + "0,1,dwon,5,5,1,finger\n", 2, 5,
       "phase 'dwon'; takes down, move, up, cancel, hover, leave; nearest known: down"},
      {header + "0,1,down,5,5,1,stylo\n", 2, 16, "nearest known: stylus"},
      {header + "# note\n5,1,down,5,5,1,finger\n4.5,1,move,5,5,1,finger\n", 4, 1, "time_ms 4.5 after 5"},
      {header + "1e99,1,down,5,5,1,finger\n", 2, 1, "time_ms '1e99'"},
      {header + "0,1,down,5,5,7,finger\n", 2, 14, "pressure '7'; takes a number from 0 to 1"},
      {header + std::string(5000, 'x') + "\n", 2, 1, "1 fields"},
  };
  for (const Case& c : cases) {
    CAPTURE(c.text.substr(0, 120), c.says);
    try {
      (void)io::parse_take(c.text, "t.take.csv");
      FAIL("taken");
    } catch (const InputError& error) {
      CHECK(error.facts().line == c.line);
      CHECK(error.facts().column == c.column);
      CHECK_THAT(error.what(), Catch::Contains(c.says) && Catch::StartsWith("t.take.csv:"));
      CHECK(std::string_view(error.what()).size() < 300);
    }
  }
  CHECK_THROWS_WITH(test::take_at("no/such.take.csv"), Catch::Contains("no/such.take.csv: cannot be read"));
}

TEST_CASE("pressure and tool may be left out, lines may end as they like") {
  const io::Take take = io::parse_take(
      "# label=x = y \r\n\r\ntime_ms,contact,phase,x,y\r\n -1.5 , 3, down ,1,2\r\n9,3,up,1,2", "t");
  CHECK(take.note("label") == "x = y");
  CHECK(take.note("device").empty());
  REQUIRE(take.samples.size() == 2);
  CHECK(take.samples[0].time == Micros{-1500});
  CHECK(take.samples[1].phase == Phase::up);
}

TEST_CASE("what a take holds tells of mice and wheels too") {
  const io::Take take =
      io::parse_take(header +
                         "0,0,hover,10,10,0,mouse\n40,0,hover,40,50,0,mouse\n50,0,down,40,50,1,mouse\n"
                         "90,0,up,40,50,1,mouse\n100,0,hover,40,50,0,mouse\n"
                         "110,,wheel,40 50,\"0 1 notch\"\n200,,wheel,40 50,\"0 2 notch\"\n"
                         "900,,wheel,40 50,\"0 -4.5 dp change\"\n950,0,leave,0,0,0,mouse\n",
                     "t");
  const io::TakeInfo info = io::inspect(take, {}, {0, 0, 360, 720});
  REQUIRE(info.hovers.size() == 2);
  CHECK((info.hovers[0].ended == "down" && info.hovers[0].path == 50.0 && info.hovers[0].duration == ms(50)));
  CHECK((info.hovers[1].ended == "leave" && info.hovers[1].samples == 1));
  REQUIRE(info.wheels.size() == 2);
  CHECK((info.wheels[0].turns == 2 && info.wheels[0].total == Point{0, 3}));
  CHECK((info.wheels[1].unit == WheelUnit::dp && info.wheels[1].total == Point{0, -4.5}));
  CHECK(io::info_text(info).find("2 turns                at (40.0, 50.0): 0 right, 3 down, notches") !=
        std::string::npos);
}

TEST_CASE("any text is read as a take or refused") {
  std::ifstream file(UBBO_SOURCE_DIR "/demo/inspection.tap.take.csv");
  const std::string sound((std::istreambuf_iterator<char>(file)), {});
  REQUIRE(sound.size() > 500);
  PROPERTY("a sound take with bytes changed", [&] {
    std::string text = sound;
    const int changes = *rc::gen::inRange(0, 6);
    for (int i = 0; i < changes; ++i)
      text[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())))] =
          *rc::gen::element(',', '\n', '\0', '-', 'e', '9', '\xff', '#');
    text.resize(static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size() + 1))));
    try {
      const io::Take take = io::parse_take(text, "t");
      RC_ASSERT_FALSE(take.samples.empty());
    } catch (const InputError&) {
    }
  });
}
