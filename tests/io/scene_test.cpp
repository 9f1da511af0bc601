#include <fmt/format.h>

#include <fstream>
#include <set>

#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using io::InputError;
using io::PartPlan;
using io::Scene;
using io::SceneRun;

namespace {

// A sound scene, with `extra` as line 11 and on.
std::string scene(const std::string& extra) {
  return "[cells]\nframes = 4\n[[part]]\nid = \"frames\"\nkind = \"slider\"\nvalue = \"frames\"\nx = 1\ny = "
         "2\nw = 200\nh = 40\n" +
         extra;
}

// Cells from `cells`, and a part of `kind` whose first setting stands in line 11.
std::string with_cells(const std::string& cells, const std::string& kind, const std::string& extra) {
  return "[cells]\n" + cells + "\n[[part]]\nid = \"p\"\nkind = \"" + kind +
         "\"\n# wide enough\nx = 1\ny = 2\nw = 200\nh = 40\n" + extra;
}

}  // namespace

TEST_CASE("bad scenes are answered with line, column, what was found, what is taken and the nearest name") {
  struct Case {
    std::string text;
    std::size_t line, column;
    const char* says;
  };
  const Case cases[] = {
      {"[screen\n", 1, 8, "takes TOML"},
      {"[scren]\n", 1, 2,
       "unknown key 'scren' in a scene; takes title, screen, feel, cells, template, part, silence; nearest "
       "known: "
       "screen"},
      {"[screen]\nwidth = -4\n", 2, 9, "width = -4; takes 1 to 100000 dp"},
      {"[screen]\nwidth = \"360\"\n", 2, 9, "width = '360'"},
      {"[screen]\nwidth = nan\n", 2, 9, "width = nan"},
      {"screen = 3\n", 1, 10, "takes a table, [screen]"},
      {"feel = \"glowed\"\n", 1, 8,
       "feel 'glowed'; takes one of bare-finger, gloved, stylus, mouse; nearest known: gloved"},
      {"[feel]\nlike = \"gloved\"\ndrag_treshold = 5\n", 3, 1, "nearest known: drag_threshold"},
      {"[feel]\nstaleness = 5000\n", 2, 13, "staleness = 5000; takes 1 to 1000 ms"},
      {"[cells]\nframes = 1979-05-27\n", 2, 10, "frames = a date"},
      {"[cells]\nframes = nan\n", 2, 10, "frames = nan"},
      {"[cells]\npage = { choice = \"Nots\", of = [\"Notes\", \"Harvest\"] }\n", 2, 19,
       "takes one of Notes, Harvest; nearest known: Notes"},
      {with_cells("n = \"x\"", "slider", "value = \"n\"\n"), 11, 9,
       "a cell that holds a text; takes a cell that holds a number"},
      {with_cells("n = 0.5", "pad", "taps_cell = \"n\"\n"), 11, 13,
       "a cell that holds a number; takes a cell that holds a whole number"},
      {with_cells("n = 1", "pad", "right = 3\n"), 3, 1, "x, w and right are all given"},
      {with_cells("n = 1", "pad", "right = \"half\"\n"), 11, 9,
       "right = 'half'; takes a length in dp, a share"},
      {"part = 3\n", 1, 8, "headed [[part]]"},
      {"[[part]]\nid = \"a\"\n", 1, 1, "a table without 'kind'"},
      {"[[part]]\nid = \"a\"\nkind = \"slidder\"\n", 3, 8, "nearest known: slider"},
      {scene("stp = 1\n"), 11, 1, "unknown key 'stp' in a slider"},
      {scene("step = -1\n"), 11, 8, "step = -1; takes 0 to"},
      {scene("axis = \"vertcal\"\n"), 11, 8, "takes one of horizontal, vertical; nearest known: vertical"},
      {scene("tap_moves = 1\n"), 11, 13, "takes true or false"},
      {scene("from = 5\nto = 5\n"), 3, 1,
       "slider 'frames': to = 5 is not taken; it takes more than from = 5"},
      {scene("thumb = 300\n"), 3, 1, "no room"},
      {scene("[[part]]\nid = \"frames\"\nkind = \"slider\"\nx=0\ny=0\nw=100\nh=40\n"), 12, 6,
       "which the part at line 3 has"},
      {scene("[[part]]\nid = \"b\"\nkind = \"slider\"\nvalue = \"frame\"\nx=0\ny=0\nw=100\nh=40\n"), 14, 9,
       "value = 'frame', which is no cell; takes one of frames; nearest known: frames"},
      {scene("[[part]]\nid = \"b\"\nkind = \"slider\"\nx=0\ny=0\nw=100\nh=40\n"), 11, 1, "not linked"},
      {scene("[[part]]\nid = \"b\"\nkind = \"slider\"\nx=0\ny=0\nh=40\n"), 11, 1,
       "neither w nor both x and right"},
  };
  for (const Case& c : cases) {
    CAPTURE(c.text);
    try {
      (void)io::parse_scene(c.text, "s.scene.toml");
      FAIL("taken");
    } catch (const InputError& error) {
      CHECK_THAT(error.what(), Catch::Contains(c.says) && Catch::StartsWith("s.scene.toml:"));
      CHECK(error.facts().line == c.line);
      CHECK(error.facts().column == c.column);
    }
  }
}

TEST_CASE(
    "all that is wrong with a scene is told at once, in the order of its lines, and nothing that follows "
    "from it") {
  const std::string text =
      "[screen]\nwdth = 3\nheight = -1\n[feel]\nlike = \"glowed\"\nstaleness = 5000\n[cells]\nframes = nan\n"
      "[[part]]\nid = \"frames\"\nkind = \"slidder\"\n[[part]]\nid = \"brood\"\nkind = \"slider\"\nvalue = "
      "\"frames\"\n"
      "x = 1\ny = 2\nw = 200\nh = 40\ninside = \"frames\"\nstep = -1\naxis = \"up\"\nfeel = { tap_reach = -2 "
      "}\n";
  try {
    (void)io::parse_scene(text, "s");
    FAIL("taken");
  } catch (const InputError& error) {
    std::vector<std::size_t> lines;
    for (const auto& fault : error.all()) lines.push_back(fault.line);
    CHECK(lines == std::vector<std::size_t>{2, 3, 5, 6, 8, 11, 21, 22, 23});
    CHECK_THAT(error.what(),
               Catch::Contains("s:2:1: unknown key 'wdth'") && Catch::Contains("\ns:23:22: tap_reach = -2"));
  }
  std::string many = "[cells]\n";
  for (int i = 0; i < 50; ++i) many += fmt::format("c{} = nan\n", i);
  CHECK_THROWS_WITH(io::parse_scene(many, "s"), Catch::EndsWith("\nand 30 more"));
}

TEST_CASE("no kind has a setting of a name that every part has in a scene") {
  const std::set<std::string_view> taken{
      "id",           "kind",   "x",        "y",        "w",         "h",
      "right",        "bottom", "inside",   "observes", "yields_to", "yield_direction",
      "in_safe_area", "hidden", "disabled", "feel"};
  for (const PartKind* kind : shipped_kinds())
    for (std::size_t i = 0; i < kind->settings(); ++i) {
      CAPTURE(kind->name, kind->setting(i).name);
      CHECK_FALSE(taken.contains(kind->setting(i).name));
    }
}

TEST_CASE("a part's own feel is the scene's, but for what it says") {
  const io::Scene read = io::parse_scene(
      "[feel]\ntap_reach = 7\ndrag_threshold = 9\n" +
          scene(
              "feel = { drag_threshold = 40, stylus = { drag_threshold = 2 } }\n[[part]]\nid = \"brood\"\n"
              "kind = \"slider\"\nvalue = \"frames\"\nx = 10\ny = 200\nw = 200\nh = 40\nfeel = \"gloved\"\n"),
      "s", shipped_kinds(), std::vector<std::string>{"frames.feel.stylus.tap_reach=3"});
  io::SceneRun run(read);
  const Part& frames = *run.stage().find("frames");
  CHECK(frames.feel_for(Tool::finger).tap_reach == 7);
  CHECK(frames.feel_for(Tool::finger).drag_threshold == 40);
  CHECK(frames.feel_for(Tool::stylus).drag_threshold == 2);
  CHECK(frames.feel_for(Tool::stylus).tap_reach == 3);
  CHECK(frames.feel_for(Tool::mouse).tap_reach == feels::mouse.tap_reach);
  CHECK(run.stage().find("brood")->feel_for(Tool::finger).drag_threshold == feels::gloved.drag_threshold);
  CHECK(run.stage().feel().drag_threshold == 9);
}

TEST_CASE("a scene says what it says, and the rest stays as it is by default") {
  const io::Scene read = io::parse_scene(
      "title = \"t\"\n[screen]\nright_to_left = true\n[feel]\nlike = \"stylus\"\ntap_reach = 7\n" +
          scene("update_when = \"at-rest\"\ntransition = \"ease-out 120.5ms\"\nlabel = \"frames of "
                "honey\"\nto = 10\n"),
      "s");
  CHECK(read.stage.right_to_left);
  CHECK(read.stage.width == StageSettings{}.width);
  CHECK(read.stage.feel.tap_reach == 7);
  CHECK(read.stage.feel.drag_threshold == feels::stylus.drag_threshold);
  const auto& settings = *read.parts.at(0).settings.as<SliderSettings>();
  CHECK(settings.update_when == UpdateWhen::at_rest);
  CHECK(std::get<Timed>(settings.transition.way).duration == Micros{120'500});
  CHECK(settings.thumb == SliderSettings{}.thumb);
  io::SceneRun run(read);
  run.stage().at(Micros{0}, [&] { run.cell("frames")->set(9); });
  CHECK(static_cast<Slider*>(run.stage().find("frames"))->target() == 9);
  CHECK(io::parse_scene("", "s").parts.empty());
}

TEST_CASE("any text is read as a scene or refused") {
  std::ifstream file(UBBO_SOURCE_DIR "/demo/inspection.scene.toml");
  const std::string sound((std::istreambuf_iterator<char>(file)), {});
  REQUIRE(sound.size() > 300);
  PROPERTY("a sound scene with bytes changed", [&] {
    std::string text = sound;
    const int changes = *rc::gen::inRange(0, 5);
    for (int i = 0; i < changes; ++i)
      text[static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())))] =
          *rc::gen::element('=', '\n', '\0', '-', '[', '9', '\xff', '"', '{');
    try {
      io::SceneRun run(io::parse_scene(text, "s"));
      RC_ASSERT(run.stage().settled());
    } catch (const InputError&) {
    }
  });
}

TEST_CASE("a template, its entries and what lies in them come to the parts one would write one by one") {
  const std::string text = R"([cells]
taps = 0
[template.hive]
kind = "swipe-row"
h = 72
leading = 96
[[template.hive.part]]
id = "name"
kind = "pad"
box = [0, 0, "100%", "100%"]
glyph = "hive"
[[part]]
id = "rows"
kind = "list"
box = [0, 100, 360, 400]
[[part.part]]
template = "hive"
each = [
  { id = "heather", name = { label = "Heather", taps_cell = "taps" } },
  { id = "ridge", leading = 120, name.label = "Ridge" },
]
)";
  const Scene made = io::parse_scene(text, "s.scene.toml");
  const Scene one_by_one = io::parse_scene(R"([cells]
taps = 0
[[part]]
id = "rows"
kind = "list"
box = [0, 100, 360, 400]
[[part]]
id = "heather"
kind = "swipe-row"
inside = "rows"
h = 72
leading = 96
[[part]]
id = "heather-name"
kind = "pad"
inside = "heather"
x = 0
y = 0
w = "100%"
h = "100%"
glyph = "hive"
label = "Heather"
taps_cell = "taps"
[[part]]
id = "ridge"
kind = "swipe-row"
inside = "rows"
h = 72
leading = 120
[[part]]
id = "ridge-name"
kind = "pad"
inside = "ridge"
box = [0, 0, "100%", "100%"]
glyph = "hive"
label = "Ridge"
)",
                                           "t.scene.toml");
  REQUIRE(made.parts.size() == one_by_one.parts.size());
  for (std::size_t i = 0; i < made.parts.size(); ++i) {
    const PartPlan& a = made.parts[i];
    const PartPlan& b = one_by_one.parts[i];
    CAPTURE(b.id);
    CHECK(a.id == b.id);
    CHECK(a.kind == b.kind);
    CHECK(a.cells == b.cells);
    CHECK(a.placement == b.placement);
    CHECK(a.content.detail == b.content.detail);
    CHECK(a.content.glyph == b.content.glyph);
    CHECK(a.content.image == b.content.image);
    CHECK(a.content.rank == b.content.rank);
    CHECK(a.contact_rules.inside == b.contact_rules.inside);
    for (std::size_t s = 0; s < a.kind->settings(); ++s)
      if (const auto said = a.kind->get(a.settings, s); std::holds_alternative<std::string>(said))
        CHECK(std::get<std::string>(said) == std::get<std::string>(b.kind->get(b.settings, s)));
      else if (std::holds_alternative<double>(said))
        CHECK(std::get<double>(said) == std::get<double>(b.kind->get(b.settings, s)));
  }
  // What is changed for a run is said for that part alone, and what is wrong in a template once.
  const std::vector<std::string> changes{"ridge-name.label=Quarry", "heather.leading=80"};
  const Scene changed = io::parse_scene(text, "s.scene.toml", shipped_kinds(), changes);
  SceneRun run(changed);
  CHECK(run.stage().find("ridge-name")->accessible().label == "Quarry");
  CHECK(run.stage().find("heather-name")->accessible().label == "Heather");
  std::string wrong = text;
  wrong.replace(wrong.find("glyph ="), 5, "glif ");
  try {
    (void)io::parse_scene(wrong, "s.scene.toml");
    FAIL("taken");
  } catch (const InputError& error) {
    CHECK(error.all().size() == 1);
    CHECK(error.facts().line == 11);
  }
  for (const auto& [from, to, says] :
       {std::tuple{"template = \"hive\"\n", "template = \"hove\"\n", "nearest known: hive"},
        {"kind = \"pad\"", "template = \"hive\"", "in that template"},
        {"{ id = \"ridge\"", "{ id = \"heather\"", "which the part at line"},
        {"id = \"name\"", "id = \"label\"", "a key of a swipe-row"}}) {
    std::string other = text;
    other.replace(other.find(from), std::string_view(from).size(), to);
    CHECK_THROWS_WITH(io::parse_scene(other, "s.scene.toml"), Catch::Contains(says));
  }
}

TEST_CASE(
    "columns and rows: one after the other, with gaps, within the padding, the rest to one that wants it") {
  const auto boxes = [](const std::string& parts, const std::string& screen = "") {
    const io::Scene scene =
        io::parse_scene("[screen]\nwidth = 360\nheight = 600\n" + screen + parts, "s.scene.toml",
                        shipped_kinds(), {}, [](std::string_view words, double size, bool) {
                          return 0.5 * size * static_cast<double>(words.size());
                        });
    SceneRun run(scene);
    std::map<std::string, Box> found;
    for (const Part* part : run.stage().parts()) found[part->id()] = part->layout_box();
    return found;
  };
  const std::string three =
      "[[part]]\nid = \"a\"\nkind = \"button\"\n[[part]]\nid = \"b\"\nkind = \"list\"\n"
      "[[part]]\nid = \"c\"\nkind = \"slider\"\nvalue = \"n\"\nlabel = \"honey\"\n"
      "[[part]]\nid = \"d\"\nkind = \"button\"\nbox = [1, 2, 3, 4]\n[cells]\nn = 1.0\n";
  auto found = boxes(three, "layout = \"column\"\ngap = 10\npadding = [20, 16]\n");
  CHECK(found["a"] == Box{16, 20, 328, 48});
  CHECK(found["c"] == Box{16, 532, 328, 48});  // its label has 24 dp above it
  CHECK(found["b"] == Box{16, 78, 328, 420});
  CHECK(found["d"] == Box{1, 2, 3, 4});  // what says where it stands takes no room
  const std::string row =
      "layout = \"row\"\ngap = 10\npadding = [8, 8, 8, 20]\n[[part]]\nid = \"a\"\nkind = \"button\"\nlabel = "
      "\"Move\"\n"
      "[[part]]\nid = \"b\"\nkind = \"tabs\"\nselected = \"n\"\nh = 30\n[[part]]\nid = \"c\"\nkind = "
      "\"button\"\nw = 50\n"
      "[cells]\nn = { choice = \"x\", of = [\"x\", \"y\"] }\n";
  found = boxes(row);
  CHECK(found["a"] == Box{20, 8, 64, 48});
  CHECK(found["b"] == Box{94, 8, 198, 30});
  CHECK(found["c"] == Box{302, 8, 50, 48});
  found = boxes("right_to_left = true\n" + row);  // the leading side is the right one
  CHECK(found["a"] == Box{288, 8, 64, 48});
  CHECK(found["c"] == Box{20, 8, 50, 48});
  CHECK_THROWS_WITH(
      boxes(three + "[[part]]\nid = \"e\"\nkind = \"list\"\n", "layout = \"column\"\n"),
      Catch::Contains("list 'e' and list 'b' both take the room that is left; takes h for one"));
  CHECK_THROWS_WITH(io::parse_scene("[screen]\nwidth = 360\nheight = 600\n" + row, "s.scene.toml"),
                    Catch::Contains("button 'a' without w; takes w = its width in dp"));
}

TEST_CASE("a way in is one transition for all, or one each for some properties") {
  const auto panel = [](const std::string& lines, std::vector<std::string> changes = {}) {
    const io::Scene scene =
        io::parse_scene("[[part]]\nkind = \"panel\"\nid = \"weather\"\nbox = [0, 0, 300, 200]\n" + lines, "w",
                        shipped_kinds(), changes);
    return scene.parts[0].settings.as<PanelSettings>()->enter;
  };
  const auto lasts = [](const Transition& transition) { return std::get<Timed>(transition.way).duration; };
  const std::string one = "enter = \"ease-out 200ms\"\n";
  const std::string each = "enter.all = \"ease-out 200ms\"\nenter.opacity = \"linear 90ms after 80ms\"\n";
  for (const Transitions& read :
       {panel(each), panel("enter = { all = \"ease-out 200ms\", opacity = \"linear 90ms after 80ms\" }\n"),
        panel(one, {"weather.enter.opacity=linear 90ms after 80ms"}),
        panel(each, {"weather.enter=ease-out 200ms"})}) {
    CHECK(lasts(read.all()) == Micros{200'000});
    CHECK(lasts(read.of(PropertyGroup::opacity)) == Micros{90'000});
    CHECK(read.of(PropertyGroup::opacity).delay == Micros{80'000});
    CHECK(lasts(read.of(PropertyGroup::scale)) == Micros{200'000});
  }
  CHECK(lasts(panel(one).of(PropertyGroup::opacity)) == Micros{200'000});
  CHECK(lasts(panel("template = \"t\"\nenter.opacity = \"linear 90ms\"\n[template.t]\n" + one)
                  .of(PropertyGroup::turn)) == Micros{200'000});
  for (const auto& [lines, takes] : {std::pair{"enter.opacty = \"linear 90ms\"\n", "opacity"},
                                     {"enter = { all = 3 }\n", "text in quotes"},
                                     {"enter.opacity.x = 3\n", "enter.opacity = a table"},
                                     {"enter.opacity.all = \"linear 90ms\"\n", "enter.opacity = a table"},
                                     {"label = { all = \"Weather\" }\n", "label = a table"},
                                     {"travel.from_edge = { all = \"top\" }\n", "travel.from_edge = a table"},
                                     {"enter.scale = \"linear 90ms twice\"\n", "enter.scale"},
                                     {"enter.turn = \"linear 90ms 2 times\"\n", "enter.turn"}})
    CHECK_THROWS_WITH(panel(lines), Catch::Contains(takes));
}

TEST_CASE("scenes are short: the hive list, and a sheet with a list in it, as the docs write it") {
  const auto lines = [](const std::string& text) { return std::count(text.begin(), text.end(), '\n'); };
  const auto read = [](const std::string& path) {
    std::ifstream in(path);
    return std::string(std::istreambuf_iterator<char>(in), {});
  };
  CHECK(lines(read(UBBO_SOURCE_DIR "/demo/hive-list.scene.toml")) <= 90);
  const std::string docs = read(UBBO_SOURCE_DIR "/docs/formats/scene.md");
  const std::size_t from = docs.find("```toml\n", docs.find("A sheet with three snap points")) + 8;
  const std::string sheet = docs.substr(from, docs.find("```", from) - from);
  CHECK(lines(sheet) <= 25);
  SceneRun run(io::parse_scene(sheet, "docs"));
  run.stage().advance(Micros{1'000'000});
  CHECK(run.stage().find("sheet")->box().y == 720 - 176);
  CHECK(run.stage().find("notes")->layout_box().h == 600 - 56);
}
