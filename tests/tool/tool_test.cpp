#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <filesystem>
#include <fstream>
#include <nlohmann/json.hpp>

#include "ran.hpp"
#include "ridge_motion.hpp"  // made from the demo's tokens by the build
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/take/take.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo::test;

namespace {

// Width and height as a PNG's header has them.
std::pair<int, int> png_size(const std::string& bytes) {
  REQUIRE(bytes.substr(0, 8) == "\x89PNG\r\n\x1a\n");
  const auto number = [&](std::size_t at) {
    int value = 0;
    for (std::size_t i = 0; i < 4; ++i) value = value * 256 + static_cast<unsigned char>(bytes[at + i]);
    return value;
  };
  return {number(16), number(20)};
}

}  // namespace

TEST_CASE("replay prints the promised JSON") {
  const Ran ran = run(tool + " replay " + scene_and_drag + " --fps 120 --json");
  REQUIRE(ran.exit == 0);
  const auto root = nlohmann::json::parse(ran.out);
  CHECK(root["cells"]["frames"] == 7.0);
  CHECK(root["parts"]["frames"]["readings"]["value"] == 7.0);
  CHECK(root["parts"]["frames"]["settled"] == true);
  REQUIRE(root["decisions"].size() == 5);
  for (const auto& decision : root["decisions"]) {
    CHECK(decision["time_ms"].is_number());
    CHECK(decision["part"] == "frames");
    CHECK(!decision["question"].get<std::string>().empty());
    CHECK(run(tool + " decisions " + decision["decision"].get<std::string>()).exit == 0);
    CHECK(!decision["answer"].get<std::string>().empty());
    for (const auto& fact : decision["facts"])
      for (const char* key : {"name", "value", "unit", "limit", "margin"}) CHECK(fact.contains(key));
  }
  CHECK(root["decisions"][1]["facts"][0]["limit"] == 12.0);
  CHECK(nlohmann::json::parse(run(tool + " why " + scene_and_drag + " --json").out)["decisions"] ==
        root["decisions"]);
}

TEST_CASE("the demo runs in an empty folder, tells why, and names the pictures it wrote") {
  const Folder folder;
  const Ran ran = run(tool + " demo -o " + (folder / "new"));
  REQUIRE(ran.exit == 0);
  CHECK_THAT(ran.out, Catch::Contains("over the threshold of 12 dp") && Catch::Contains("snaps to 7") &&
                          Catch::StartsWith("take ") && Catch::Contains("frames = 9  ") &&
                          Catch::Contains("watch replay"));
  for (const char* name : {"new/inspection.drag.film.png", "new/inspection.drag.graph.png", "new/curves.png",
                           "new/thrown-card.png", "new/rows-in.png"}) {
    CHECK_THAT(ran.out, Catch::Contains(folder / name));
    CHECK(png_size(read(folder / name)) == std::pair{1280, 800});
  }
  CHECK(read(folder / "new/inspection.scene.toml") == read(demo + "inspection.scene.toml"));
}

TEST_CASE("films come in the asked size and format") {
  const Folder folder;
  REQUIRE(run(tool + " film " + scene_and_drag + " -o " + (folder / "a.png") + " --size 640x400").exit == 0);
  CHECK(png_size(read(folder / "a.png")) == std::pair{640, 400});
  REQUIRE(run(tool + " film " + scene_and_drag + " --dark --frames 5 -o " + (folder / "a.svg")).exit == 0);
  const std::string svg = read(folder / "a.svg");
  CHECK_THAT(svg, Catch::Contains("<svg") && Catch::Contains("width=\"1280") && Catch::Contains("</svg>"));
}

TEST_CASE("bad input and usage: exit 2 and what is taken: an unmet expectation: exit 1") {
  const Folder folder;
  std::ofstream(folder / "wrong.take.csv") << "# expectation = frames = 3\n"
                                           << "time_ms,contact,phase,x,y\n0,1,down,60,224\n9,1,up,60,224\n";
  std::ofstream(folder / "none.scene.toml") << "title = \"no parts\"\n";
  struct Case {
    std::string words;
    int exit;
    const char* says;
  };
  const std::string wrong = folder / "wrong.take.csv";
  const Case cases[] = {
      {"", 2, "subcommand"},
      {"repaly a b", 2, "nearest known: replay"},
      {"--help", 0, "ubbo demo"},
      {"film --help", 0, "Example"},
      {"replay " + scene_and_drag + " --fps 0", 2, "fps = 0 is not taken; it takes 1 to 1000"},
      {"replay " + scene_and_drag + " --fps much", 2, "fps"},
      {"replay nowhere.scene.toml " + wrong, 2, "nowhere.scene.toml: cannot be read"},
      {"replay " + wrong + " " + wrong, 2, "wrong.take.csv:2:"},
      {"replay " + demo + "inspection.scene.toml " + wrong, 1, "frames is 0, not 3"},
      {"replay " + (folder / "none.scene.toml") + " " + wrong, 2, "the scene has no parts"},
      {"why " + scene_and_drag + " --part frame", 2, "no part 'frame'; takes of, frames, brood"},
      {"film " + scene_and_drag + " -o x.gif", 2, "takes .png or .svg"},
      {"film " + scene_and_drag + " -o " + (folder / "no/x.png"), 2, "cannot be written"},
      {"film " + scene_and_drag + " -o x.png --size 10", 2, "takes WIDTHxHEIGHT"},
      {"film " + scene_and_drag + " -o x.png --frames 1", 2, "--frames"},
      {"curve 'eas-in'", 2, "  ^^^^^^\n  for example: ease-out 240ms"},
      {"curve ease --from 1 --to 1", 2, "takes two numbers that differ"},
      {"curve ease --velocity 3", 2, "a velocity is for springs and coasts"},
      {"curve ease --samples 0", 2, "--samples"},
      {"graph " + scene_and_drag + " --of thumb.z", 2, "nearest known: thumb.x"},
      {"graph " + demo + "inspection.scene.toml " + wrong + " -o g.gif", 2, ".png or .svg"},
      {"export 'a=eas'", 2, "nearest known: ease"},
      {"export ease", 2, "takes NAME=MOTION"},
      {"export 'a=ease 1s' --as keyframes --animate left", 2, "no {}"},
      {"settings slidr", 2, "nearest known: slider"},
      {"settings slider", 0, "tap_moves"},
  };
  for (const Case& c : cases) {
    const Ran ran = run(tool + " " + c.words);
    CAPTURE(c.words, ran.out);
    CHECK(ran.exit == c.exit);
    CHECK_THAT(ran.out, Catch::Contains(c.says));
  }
}

TEST_CASE("each kind has a page with code and a film, and what stands in it is what the kind tells") {
  for (const ubbo::PartKind* each : ubbo::shipped_kinds()) {
    const std::string kind = each->name;
    CAPTURE(kind);
    const std::string page = read(UBBO_SOURCE_DIR "/docs/parts/" + kind + ".md");
    CHECK_THAT(page, Catch::Contains("```cpp\n") && Catch::Contains("Its film: `ubbo film demo/") &&
                         Catch::Contains("(films/" + kind + ".png)"));
    CHECK(png_size(read(UBBO_SOURCE_DIR "/docs/parts/films/" + kind + ".png")) == std::pair{1280, 520});
    CHECK_THAT(page, Catch::EndsWith("<!-- below: ./dev docs -->\n\n" +
                                     run(tool + " parts " + kind + " --markdown").out));
    const Ran json = run(tool + " parts " + kind + " --json");
    CHECK(nlohmann::json::parse(json.out)["name"] == kind);
  }
  CHECK_THAT(run(tool + " parts carusel").out, Catch::Contains("nearest known: carousel"));
}

TEST_CASE("the reference page of settings is the tables'") {
  CHECK(run(tool + " settings --markdown").out == read(UBBO_SOURCE_DIR "/docs/settings.md"));
  CHECK(run(tool + " decisions --markdown").out == read(UBBO_SOURCE_DIR "/docs/decisions.md"));
  const auto root = nlohmann::json::parse(run(tool + " settings --json").out);
  CHECK(root["feel"][0]["name"] == "drag_threshold");
}

TEST_CASE("takes are made, converted and inspected") {
  const Folder folder;
  const std::string made = folder / "a.take.csv";
  REQUIRE(run(tool + " take make 'double tap heather-name' --scene " + demo +
              "hive-list.scene.toml --hand gloved --seed 4 -o " + made)
              .exit == 0);
  const auto root = nlohmann::json::parse(run(tool + " take info " + made + " --feel gloved --json").out);
  REQUIRE(root["contacts"].size() == 2);
  for (const char* key : {"id", "start_ms", "duration_ms", "samples", "path_dp", "net_dx_dp", "net_dy_dp"})
    CHECK(root["contacts"][0][key].is_number());
  CHECK(root["contacts"][0]["ended"] == "up");
  REQUIRE(root["gestures"].size() == 1);
  CHECK(root["gestures"][0]["title"] == "double tap");
  const Ran info = run(tool + " take info " + made + " --feel gloved -o " + (folder / "a.png"));
  CHECK_THAT(info.out, Catch::Contains("double tap") && Catch::Contains("it is the next tap of a row"));
  CHECK(png_size(read(folder / "a.png")) == std::pair{1280, 800});

  std::ofstream(folder / "panel.events")
      << "# ABS_MT_POSITION_X min 0 max 1000\n# ABS_MT_POSITION_Y min 0 max 1000\n"
      << "E: 1.000000 0003 0039 0005\nE: 1.000000 0003 0035 0500\nE: 1.000000 0003 0036 0250\n"
      << "E: 1.000000 0000 0000 0000\nE: 1.090000 0003 0039 -1\nE: 1.090000 0000 0000 0000\n";
  REQUIRE(run(tool + " take convert " + (folder / "panel.events") + " --screen 360x720 -o " +
              (folder / "p.take.csv"))
              .exit == 0);
  CHECK_THAT(read(folder / "p.take.csv"),
             Catch::Contains("0,5,down,180,180,") && Catch::Contains("90,5,up,180,180,"));
  const auto raw = nlohmann::json::parse(
      run(tool + " take info " + (folder / "panel.events") + " --raw-units --json").out);
  CHECK(raw["contacts"][0]["duration_ms"] == 90.0);
  CHECK_THAT(run(tool + " take convert " + (folder / "panel.events") + " -o " + (folder / "p.take.csv")).out,
             Catch::Contains("no way from panel units to dp"));
  CHECK_THAT(run(tool + " take make 'pres (1, 2)' -o " + made).out, Catch::Contains("nearest known: press"));
  CHECK_THAT(run(tool + " take trial --hand steady --count 5").out,
             Catch::Contains("100.00 % of 55 taken right"));
}

TEST_CASE("curve prints figures, the promised JSON, CSS, and draws") {
  const Folder folder;
  const auto curves = [](const std::string& words) {
    const Ran ran = run(tool + " curve --json " + words);
    REQUIRE(ran.exit == 0);
    return nlohmann::json::parse(ran.out)["curves"];
  };
  const auto both = curves("'ease-in' 'spring(frequency 12, ratio 0.6)' --samples 10 --duration 500");
  REQUIRE(both.size() == 2);
  CHECK(both[0]["spec"] == "ease-in");
  CHECK(both[0]["duration_ms"] == 500.0);
  REQUIRE(both[0]["samples"].size() == 11);
  CHECK(both[0]["samples"][5]["t"] == 0.5);
  using namespace ubbo;
  const Curve ease = Curve::ease_in();
  const Spring spring = Spring::natural(12, 0.6);
  for (const auto& sample : both[0]["samples"]) {
    CHECK(sample["value"].get<double>() == Approx(ease.value(sample["t"])));
    CHECK(sample["slope"].get<double>() == Approx(ease.slope(sample["t"])));
  }
  CHECK(both[1]["samples"][10]["t"].get<double>() * 1e3 == Approx(both[1]["duration_ms"].get<double>()));
  for (const auto& sample : both[1]["samples"])
    CHECK(sample["value"].get<double>() == Approx(1 + spring.at({-1, 0}, sample["t"]).distance));
  const auto thrown = curves("'spring(settle 400ms)' --from 100 --to 20 --velocity -900 --at 0,0.05");
  CHECK(thrown[0]["samples"][0]["slope"] == -900.0);
  CHECK(thrown[0]["samples"][1]["value"].get<double>() ==
        Approx(20 + Spring::settling(ubbo::test::ms(400), 0).at({80, -900}, 0.05).distance));
  CHECK(curves("'coast(friction 4)' --velocity 800 --at 100")[0]["samples"][0]["value"].get<double>() ==
        Approx(200));
  CHECK(curves("'circ(out)' --at 0")[0]["samples"][0]["slope"].is_null());
  CHECK_THAT(run(tool + " curve 'spring(settle 400ms, overshoot 5%)' -o " + (folder / "c.png")).out,
             Catch::Contains("400 ms") && Catch::Contains("5.00 %"));
  CHECK(png_size(read(folder / "c.png")) == std::pair{1280, 800});
  CHECK_THAT(run(tool + " curve 'spring(settle 400ms)' --css").out,
             Catch::Contains("--motion-1: linear(0, ") && Catch::Contains("off by at most 0.00"));
  // A velocity and repeats are not lost on the way to CSS.
  const std::string thrown_css =
      run(tool + " curve 'spring(settle 400ms)' --css --to 80 --velocity -900").out;
  const double lasts = curves("'spring(settle 400ms)' --to 80 --velocity -900")[0]["duration_ms"];
  const std::size_t said = thrown_css.find("-duration: ");
  REQUIRE(said != std::string::npos);
  CHECK(std::stod(thrown_css.substr(said + 11)) == Approx(lasts).margin(0.01));
  CHECK_THAT(run(tool + " curve 'ease 90ms after 5ms repeat 3 alternate' --css").out,
             Catch::Contains("-animation: 90ms cubic-bezier(0.25, 0.1, 0.25, 1) 5ms 3 alternate;"));
}

TEST_CASE("graph follows readings over a replay") {
  const Folder folder;
  const Ran ran =
      run(tool + " graph " + scene_and_drag + " --of frames.thumb.x,cell.frames --json --samples 50");
  REQUIRE(ran.exit == 0);
  const auto series = nlohmann::json::parse(ran.out)["series"];
  REQUIRE(series.size() == 2);
  CHECK(series[0]["name"] == "frames.thumb.x");
  REQUIRE(series[0]["points_ms"].size() == 51);
  CHECK(series[0]["points_ms"][50][1].get<double>() == Approx(54 + 7 * 25.2));
  CHECK(series[1]["points_ms"][50][1] == 7.0);
  // Unasked, it follows what moves and nothing else.
  const Ran moved =
      run(tool + " graph " + demo + "hive-list.scene.toml " + demo + "hive-list.hand-over.take.csv --json");
  std::vector<std::string> names;
  const auto root = nlohmann::json::parse(moved.out);
  for (const auto& one : root["series"]) names.push_back(one["name"]);
  CHECK(names == std::vector<std::string>{"sheet.offset", "list.offset"});
  REQUIRE(run(tool + " graph " + scene_and_drag + " -o " + (folder / "g.svg")).exit == 0);
  CHECK_THAT(read(folder / "g.svg"), Catch::Contains("snap points") && Catch::Contains("drag threshold") &&
                                         Catch::Contains("snaps to 7"));
}

TEST_CASE("export writes what it reads, and a header that compiles and moves alike") {
  const Folder folder;
  const std::string tokens = demo + "heather-ridge.tokens.json";
  CHECK(run(tool + " export " + tokens + " --as tokens").out == read(tokens));
  CHECK_THAT(run(tool + " export 'a.b=ease-in 90ms' stay=4s").out,
             Catch::Contains("--a-b: cubic-bezier(0.42, 0, 1, 1);") && Catch::Contains("--stay: 4000ms;"));
  CHECK(ridge::sheet_open_duration == ubbo::Micros{420'000});
  CHECK(
      ubbo::progress_of(ridge::sheet_open.way).value(0.3) ==
      Approx(
          ubbo::progress_of(ubbo::io::read_transition("spring(settle 420ms, overshoot 6%)").way).value(0.3)));
  CHECK(ridge::row_in.delay == ubbo::test::ms(60));
  CHECK(ridge::curve_settle.value(0.5) == ubbo::Curve::cubic_bezier(0.35, 0.05, 0.15, 0.95).value(0.5));
  CHECK(ridge::toast_stay == ubbo::test::ms(4000));
}

TEST_CASE("the demo's takes are what their scripts make, and come to what they expect") {
  const Folder folder;
  REQUIRE(run(demo + "make-takes.sh " + tool + " " + folder.path.string()).exit == 0);
  std::size_t takes = 0;
  for (const auto& entry : std::filesystem::directory_iterator(demo)) {
    const std::string name = entry.path().filename().string();
    if (!name.ends_with(".take.csv")) continue;
    ++takes;
    CAPTURE(name);
    CHECK(read(entry.path()) == read(folder.path / name));
    const std::string scene = name.substr(0, name.find('.')) + ".scene.toml";
    CHECK(run(tool + " replay " + demo + scene + " " + entry.path().string()).exit == 0);
  }
  CHECK(takes == 65);
}

TEST_CASE("the examples run") {
  const Folder folder;
  const std::string examples = UBBO_EXAMPLES_DIR "/";
  const Ran honey = run(examples + "honey_slider");
  CHECK(honey.exit == 0);
  CHECK_THAT(honey.out, Catch::Contains("frames: 7"));
  const Ran app = run(examples + "inspection_app " + (folder / "app.png"));
  CHECK_THAT(app.out,
             Catch::StartsWith("7 frames of honey\nsaved: 7 frames of honey, temper 4, queen seen\n"));
  CHECK(png_size(read(folder / "app.png")) == std::pair{360, 720});
  const Ran rows = run(examples + "coming_rows");
  CHECK(rows.exit == 0);
  CHECK_THAT(rows.out,
             Catch::Contains("0 ms:  Quarry  160.0 dp   0 %") && Catch::Contains("Ford    0.0 dp 100 %"));
  const Ran hive = run(examples + "hive_sheet");
  CHECK(hive.exit == 0);
  CHECK_THAT(hive.out, Catch::Contains("9 rows made for 1000 hives; sheet away, dialog closed"));
  const Ran live = run(examples + "live_touch /dev/null");  // no touch device, so a made hand stands in
  CHECK(live.exit == 0);
  CHECK_THAT(live.out, Catch::Contains("a made hand stands in") && Catch::Contains("frames: 7"));
  const Ran drawing = run(examples + "own_drawing " + (folder / "own.png"));
  CHECK(drawing.exit == 0);
  CHECK(png_size(read(folder / "own.png")).first > 100);
}

TEST_CASE("an app's own part is as good as ours: scenes, takes, why, graph, film and settings know it") {
  const std::string own = UBBO_EXAMPLES_DIR "/own_tool ", here = UBBO_SOURCE_DIR "/examples/own_part/";
  const std::string both = here + "smoker.scene.toml " + here + "smoker.turn.take.csv";
  const Folder folder;
  CHECK(run(own + "replay " + both).exit == 0);  // with its expectation
  CHECK_THAT(run(own + "why " + both).out, Catch::Contains("it was turned by "));
  CHECK_THAT(run(own + "settings dial").out, Catch::Contains("the largest number it can be turned to"));
  CHECK_THAT(run(own + "graph " + both + " --of draught.value --samples 3").out,
             Catch::Contains("draught.value"));
  REQUIRE(run(own + "film " + both + " -o " + (folder / "dial.png")).exit == 0);
  CHECK(png_size(read(folder / "dial.png")) == std::pair{1280, 800});
  CHECK(run(own + "take make 'tap draught.knob' --scene " + here + "smoker.scene.toml -o " +
            (folder / "t.take.csv"))
            .exit == 0);
  // In the app a quarter of a turn, less the drag threshold, is three units and a bit, and rests on whole
  // ones.
  CHECK(run(UBBO_EXAMPLES_DIR "/own_part").out == "turned to 6.08\ndraught: 6\n");
  // Ours does not know it, and says what it knows.
  const Ran ours = run(tool + " replay " + both);
  CHECK(ours.exit == 2);
  CHECK_THAT(ours.out, Catch::Contains("kind = 'dial'; takes one of slider, range-slider,"));
}

TEST_CASE("no shipped file but the list of kinds and a kind's own names a kind") {
  const Ran named = run("cd " UBBO_SOURCE_DIR
                        " && grep -lEr '\\b(Slider|Pane|Pad)(Settings)?\\b' core io skin paint show tool "
                        "| grep -vE 'parts/(slider|pane|pad)\\.[ch]pp' ; true");
  // The stage's header shows how a part is added, the list lists, and rail.hpp and links are for parts.
  CHECK(named.out.find("core/include/ubbo/parts/kinds.hpp") != std::string::npos);
  CAPTURE(named.out);
  CHECK(std::count(named.out.begin(), named.out.end(), '\n') == 1);
}
