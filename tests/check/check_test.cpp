// What `check` finds in scenes with a fault each, and that it says nothing of sound ones.
#include "ubbo/testing/check.hpp"

#include <filesystem>
#include <map>
#include <set>

#include "files.hpp"
#include "ubbo/check/check.hpp"
#include "ubbo/io/scene/parts_list.hpp"
#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"

using namespace ubbo;
using namespace ubbo::io;
using namespace ubbo::check;

namespace {

// A sound screen of Heather Ridge with a little of everything; a line that is changed stands for a fault.
constexpr const char* sound = R"(
[screen]
width = 360
height = 720
safe.top = 28
[feel]
like = "gloved"
[cells]
frames = 4
photo = 2
stands = 0
asks = false
weather = false
saved = 0
says = "Inspection saved"
open = ""
[[part]]
id = "frames"
kind = "slider"
label = "frames of honey"
value = "frames"
to = 10
step = 1
x = 40
y = 100
w = 280
h = 48
[[part]]
id = "photos"
kind = "carousel"
label = "photos"
selected = "photo"
count = 5
x = 0
y = 160
w = 360
h = 120
[[part]]
id = "save"
kind = "button"
label = "Save"
presses = "saved"
x = 40
y = 300
w = 120
h = 48
[[part]]
id = "weather-button"
kind = "button"
label = "Weather"
down = "weather"
x = 176
y = 300
w = 120
h = 48
[[part]]
id = "row"
kind = "swipe-row"
label = "Heather, strong"
leading = 96
commit_distance = "60%"
open = "open"
x = 0
y = 360
w = 360
h = 76
[[part]]
id = "hive"
kind = "sheet"
label = "Ridge"
snap_point = "stands"
snap_points = [176, 360]
x = 0
y = 200
w = 360
h = 520
[[part]]
id = "close-hive"
kind = "button"
label = "Close this hive"
down = "asks"
inside = "hive"
x = 16
y = 60
w = 160
h = 48
[[part]]
id = "ask"
kind = "dialog"
label = "Close this hive?"
open = "asks"
x = 30
y = 270
w = 300
h = 190
[[part]]
id = "weather"
kind = "panel"
label = "Weather"
open = "weather"
travel.from_edge = "top"
travel.to_edge = "top"
exit = "ease-in 200ms"
x = 20
y = 60
w = 320
h = 160
[[part]]
id = "wind"
kind = "panel"
label = "Wind"
open = "weather"
inside = "weather"
exit = "ease-in 180ms"
x = 20
y = 60
w = 200
h = 60
[[part]]
id = "toasts"
kind = "toast-tray"
message = "says"
trigger = "saved"
time = 3000
x = 20
y = 640
w = 320
h = 52
)";

constexpr const char* one_page_for_two_names = R"(open = ""
page = { choice = "Notes", of = ["Notes", "Harvest"] }
[[part]]
id = "pages"
kind = "page-host"
selected = "page"
x = 0
y = 560
w = 360
h = 60
[[part]]
id = "notes"
kind = "pad"
label = "Notes"
inside = "pages"
x = 0
y = 0
w = 360
h = 60
)";

std::string with(const std::string& found, const std::string& made) {
  std::string text = sound;
  const std::size_t at = text.find(found);
  INFO(found);
  REQUIRE(at != std::string::npos);
  return text.replace(at, found.size(), made);
}

double wide(std::string_view words, double size, bool) {
  return 0.55 * size * static_cast<double>(words.size());
}

std::string rules_of(const std::vector<Finding>& findings) {
  std::set<std::string> names;
  for (const Finding& one : findings)
    if (one.silenced.empty()) names.insert(one.rule->name);
  std::string all;
  for (const std::string& name : names) all += (all.empty() ? "" : " ") + name;
  return all;
}

}  // namespace

TEST_CASE("check finds each fault that is put into a sound scene, at its place, and no other") {
  struct Case {
    const char* rule;
    const char* found;
    const char* made;
  };
  const Case cases[] = {
      {"off-screen", "x = 40\ny = 100", "x = 120\ny = 100"},
      {"off-screen", "x = 16\ny = 60\nw = 160", "x = 216\ny = 60\nw = 160"},
      {"off-screen", "w = 320\nh = 160", "w = 344\nh = 160"},
      {"off-screen", "y = 640\nw = 320", "y = 690\nw = 320"},
      {"under-cutout", "x = 40\ny = 100", "x = 40\ny = 10"},
      {"covered", "x = 176\ny = 300\nw = 120", "x = 90\ny = 300\nw = 120"},
      {"covered", "x = 40\ny = 300\nw = 120", "x = 100\ny = 370\nw = 170"},
      {"small-target", "w = 120\nh = 48", "w = 120\nh = 40"},
      {"small-target", "w = 160\nh = 48", "w = 36\nh = 48"},
      {"small-target", "w = 280\nh = 48", "w = 280\nh = 30"},
      {"close-targets", "x = 176\ny = 300", "x = 164\ny = 300"},
      {"close-targets", "x = 176\ny = 300\nw = 120\nh = 48", "x = 166\ny = 300\nw = 120\nh = 48"},
      {"no-name", "label = \"frames of honey\"\n", ""},
      {"no-name", "label = \"Ridge\"", "label = \"\""},
      {"no-name", "label = \"Weather\"\ndown", "down"},
      {"refused", "value = \"frames\"\n", ""},
      {"unheard", "presses = \"saved\"\nx", "x"},
      {"never-shown", "open = \"asks\"\n", ""},
      {"never-shown", "snap_point = \"stands\"\n", ""},
      {"one-way", "travel.to_edge = \"top\"", "travel.to_edge = \"none\""},
      {"one-way", "travel.from_edge = \"top\"", "travel.from_edge = \"none\""},
      {"cut-exit", "exit = \"ease-in 180ms\"", "exit = \"ease-in 420ms\""},
      {"back-ignored", "label = \"Close this hive?\"", "label = \"Close this hive?\"\nback_closes = false"},
      {"back-ignored", "label = \"Ridge\"", "label = \"Ridge\"\nback_closes = false"},
      {"short-message", "time = 3000", "time = 500"},
      {"doubled-snap-point", "snap_points = [176, 360]", "snap_points = [176, 360, 176]"},
      {"lost-content", "open = \"\"", one_page_for_two_names},
      {"step-over-range", "step = 1", "step = 25"},
      {"commit-out-of-reach", "commit_distance = \"60%\"", "commit_distance = \"95%\""},
      {"commit-out-of-reach", "commit_distance = \"60%\"", "commit_distance = \"20%\""},
      {"out-of-range", "frames = 4", "frames = 14"},
      {"out-of-range", "photo = 2", "photo = 9"},
      {"out-of-range", "stands = 0", "stands = 3"},
      {"idle-cell", "open = \"\"", "open = \"\"\nharvest = 0"},
      {"drag-above-tap", "like = \"gloved\"", "like = \"gloved\"\ntap_reach = 6"},
      {"drag-above-tap", "like = \"gloved\"", "like = \"gloved\"\ndrag_threshold_vertical = 40"},
      {"hold-below-tap", "like = \"gloved\"", "like = \"gloved\"\ntap_time = 800"},
      {"gap-above-hold", "like = \"gloved\"", "like = \"gloved\"\nmulti_tap_gap = 900"},
      {"too-quick", "exit = \"ease-in 200ms\"", "exit = \"ease-in 60ms\""},
      {"too-slow", "label = \"Close this hive?\"",
       "label = \"Close this hive?\"\nenter = \"ease-out 1200ms\""},
      {"seconds-for-ms", "time = 3000", "time = 3"},
      {"share-for-dp", "w = 120\nh = 48", "w = 1\nh = 48"},
      {"refused", "label = \"Close this hive?\"",
       "label = \"Close this hive?\"\nbackdrop_closes = false\nback_closes = false"},
      {"refused", "time = 3000", "time = 0\nswipes = false"},
      {"unreadable", "[screen]", "[screen"},
      {"unknown-key", "step = 1", "step = 1\nthing = 2"},
      {"former-key", "leading = 96", "leading = 96\nreturns_after = 900"},
      {"wrong-value", "to = 10", "to = \"ten\""},
      {"wrong-value", "commit_distance = \"60%\"", "commit_distance = \"60%+10dp\""},
      {"no-way-back", "presses = \"saved\"", "presses = \"saved\"\nrank = \"destructive\""},
      {"no-way-back", "leading = 96",
       "leading = 96\nleading_label = \"Drop\"\nleading_rank = \"destructive\""},
      {"text-cut", "label = \"Save\"", "label = \"Save all of what was seen today\""},
      {"alike-actions", "leading = 96", "leading = 96\ntrailing = 96\ntrailing_rank = \"main\""},
      {"hover-only", "label = \"photos\"", "label = \"photos\"\nhover = { words = \"Weigh it {item}\" }"},
      {"low-contrast", "label = \"photos\"", "label = \"photos\"\nvisible_items = 3\nfade = 0.6"},
      {"no-way-out", "open = \"\"",
       "open = \"\"\nrain = true\n[[part]]\nid = \"rain\"\nkind = \"panel\"\nlabel = \"Rain\"\n"
       "open = \"rain\"\nbox = [20, 450, 320, 60]"},
      {"idle-silence", "[screen]", "[[silence]]\nrule = \"covered\"\nreason = \"so drawn\"\n[screen]"},
      {"idle-silence", "[screen]", "[[silence]]\nrule = \"coverd\"\nreason = \"so drawn\"\n[screen]"},
  };
  const std::map<std::string, std::string> besides{
      {"share-for-dp", "small-target"}, {"too-quick", "cut-exit"}, {"never-shown", "idle-cell"}};
  CHECK(std::size(cases) >= 40);
  for (const Case& c : cases) {
    const std::string text = with(c.found, c.made);
    const auto findings = check_text(text, "ridge.scene.toml", shipped_kinds(), {}, wide);
    CAPTURE(c.made);
    std::string all = rules_of(findings);
    INFO(all);
    CHECK(all.find(c.rule) != std::string::npos);
    for (const Finding& one : findings) {
      const auto more = besides.find(c.rule);
      const bool expected =
          one.rule->name == std::string_view(c.rule) ||
          (more != besides.end() && more->second.find(one.rule->name) != std::string::npos) ||
          one.rule->name == std::string_view("commit-out-of-reach") ||
          (c.rule == std::string_view("off-screen") && one.rule->name == std::string_view("under-cutout"));
      CHECK(expected);
      CHECK(one.place.line > 0);
      CHECK_FALSE(one.found.empty());
      CHECK_FALSE(one.remedy.empty());
    }
  }
}

TEST_CASE("check says nothing of sound scenes") {
  std::size_t looked = 0;
  for (const auto& entry : std::filesystem::directory_iterator(UBBO_SOURCE_DIR "/demo")) {
    if (!entry.path().string().ends_with(".scene.toml")) continue;
    CAPTURE(entry.path().filename().string());
    CHECK(rules_of(check_scene(test::scene_at(entry.path().string()))) == "");
    ++looked;
  }
  const std::pair<const char*, const char*> sound_changes[] = {
      {"x = 40\ny = 100", "x = 40\ny = 90"},
      {"w = 120\nh = 48", "w = 44\nh = 44"},
      {"x = 176\ny = 300", "x = 168\ny = 300"},
      {"step = 1", "step = 10"},
      {"commit_distance = \"60%\"", "commit_distance = \"85%\""},
      {"frames = 4", "frames = 10"},
      {"photo = 2", "photo = 4"},
      {"stands = 0", "stands = 2"},
      {"time = 3000", "time = 1000"},
      {"exit = \"ease-in 200ms\"", "exit = \"ease-in 800ms\""},
      {"exit = \"ease-in 180ms\"", "exit = \"ease-in 200ms\""},
      {"like = \"gloved\"", "like = \"bare-finger\""},
      {"snap_points = [176, 360]", "snap_fractions = [0.3, 0.6]"},
      {"asks = false", "asks = true"},
  };
  for (const auto& [found, made] : sound_changes) {
    CAPTURE(made);
    CHECK(rules_of(check_text(with(found, made), "ridge.scene.toml")) == "");
    ++looked;
  }
  CHECK(rules_of(check_text(sound, "ridge.scene.toml")) == "");
  CHECK(looked >= 20);
}

TEST_CASE(
    "a fault that a scene silences with a reason is told as silenced, and its reports are well-formed") {
  const std::string text =
      with("w = 120\nh = 48", "w = 120\nh = 40") +
      "[[silence]]\nrule = \"small-target\"\nof = \"save\"\nreason = \"a \\\"quiet\\\" button\"\n";
  const auto findings = check_text(text, "ridge.scene.toml");
  REQUIRE(findings.size() == 1);
  CHECK(findings[0].of == "save");
  CHECK(findings[0].silenced == "a \"quiet\" button");
  const std::string sarif = findings_sarif("ridge.scene.toml", findings);
  CHECK_THAT(sarif, Catch::Contains("\"version\": \"2.1.0\"") &&
                        Catch::Contains("\"ruleId\": \"small-target\"") && Catch::Contains("\"startLine\"") &&
                        Catch::Contains("\"kind\": \"inSource\"") &&
                        Catch::Contains("a \\\"quiet\\\" button"));
  CHECK_THAT(findings_sarif("the ridge/h\303\266he 50%.toml", findings),
             Catch::Contains("\"uri\": \"the%20ridge/h%C3%B6he%2050%25.toml\""));
  CHECK_THAT(findings_json("ridge.scene.toml", findings),
             Catch::Contains("\"silenced\"") && Catch::Contains("\"line\""));
  CHECK_THROWS_AS(parse_scene("[[silence]]\nrule = \"covered\"\n", "s"), InputError);
}

TEST_CASE(
    "check goes on behind what cannot be read, says what to do, and blames nothing for what it left out") {
  // A slip in one part, another that its kind refuses, and a fault of another sort in a third.
  std::string text = with("step = 1", "step = \"one\"");
  text.replace(text.find("time = 3000"), 11, "time = 0\nswipes = false");
  text.replace(text.find("w = 120\nh = 48"), 14, "w = 120\nh = 40");
  const auto findings = check_text(text, "ridge.scene.toml");
  CHECK(rules_of(findings) == "refused small-target wrong-value");
  CHECK(findings.size() == 3);
  for (const Finding& one : findings) {
    INFO(one.found << ": " << one.remedy);
    CHECK(one.place.line > 0);
    CHECK(one.remedy.size() > 10);
  }
  // What lies in a part that cannot be read is left out with it.
  CHECK(rules_of(check_text(with("kind = \"sheet\"", "kind = \"shet\""), "ridge.scene.toml")) ==
        "wrong-value");
  const auto locked =
      check_text(with("label = \"Close this hive?\"",
                      "label = \"Close this hive?\"\nbackdrop_closes = false\nback_closes = false"),
                 "ridge.scene.toml");
  REQUIRE(locked.size() == 1);
  CHECK(locked[0].remedy.find("give it ") == 0);
  // A former name is told its present one, and nothing else.
  const auto former =
      check_text(with("leading = 96", "leading = 96\nreturns_after = 900"), "ridge.scene.toml");
  REQUIRE(former.size() == 1);
  CHECK(former[0].remedy == "write closes_after");
}

TEST_CASE("each kind's own example is a scene without a fault, and runs") {
  for (const PartKind* kind : shipped_kinds()) {
    CAPTURE(kind->name);
    const std::string text = io::example_scene(kind->name);
    const Scene scene = io::parse_scene(text, "mine.scene.toml");
    for (const Finding& finding : check_scene(scene)) FAIL_CHECK(finding.rule->name << ": " << finding.found);
    SceneRun run(scene, 256);
    run.stage().advance(Micros{2'000'000});
    CHECK(run.stage().settled());
    CHECK((run.stage().find("mine")->visible() || run.stage().find("mine")->absent()));
  }
}

TEST_CASE("what a part refuses is told apart from what it takes") {
  const auto findings = check_text(
      "title = \"x\"\n[[part]]\nkind = \"carousel\"\nid = \"c\"\nx = 0\ny = 0\nw = 300\nh = 200\ncount = "
      "2.5\n",
      "x");
  REQUIRE(findings.size() == 1);
  CHECK(findings[0].found == "carousel 'c': count = 2.5 is not taken");
  CHECK(findings[0].remedy == "give it a whole number");
}
