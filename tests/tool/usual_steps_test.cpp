// One command for a usual step: a number changed for a run, many takes at once, and what takes expect.
#include <nlohmann/json.hpp>

#include "ran.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo::test;

TEST_CASE("an option --set changes a scene for one run, with the checks of the scene") {
  const auto cell = [](const std::string& sets) {
    const Ran ran = run("{ " + tool + " replay " + scene_and_drag + " --json " + sets + " 2>/dev/null; }");
    return nlohmann::json::parse(ran.out)["cells"]["frames"].get<double>();
  };
  CHECK(cell("") == 7);
  CHECK(cell("--set frames.step=5") == 10);
  CHECK(cell("--set frames.step=0 --set frames.to=20") > 7);
  CHECK(cell("--set feel.drag_threshold=200") == 4);
  CHECK(cell("--set cells.frames=2") == 5);
  CHECK(cell("--set screen.right_to_left=true") != 7);
  const Ran slow = run(tool + " why " + scene_and_drag + " --set 'frames.transition=ease-out 3s'");
  CHECK(slow.out.find("3808") != std::string::npos);  // let go at 808.3 ms
  struct Case {
    const char* set;
    const char* says;
  };
  for (const Case& c : {Case{"frames.stp=2", "nearest known: step"},
                        {"frmes.step=2", "nearest known: frames"},
                        {"frames.step=-1", "--set: step = -1; takes"},
                        {"frames.step=x", "step = 'x'"},
                        {"frames", "takes PART.SETTING=VALUE"},
                        {"feel.like=glved", "nearest known: gloved"},
                        {"cells.frmes=2", "nearest known: frames"},
                        {"cells.frames=[[[[[[[[[[[[[[[[[[1", "the 17th bracket"}}) {
    CAPTURE(c.set);
    const Ran wrong = run(tool + " replay " + scene_and_drag + " --set '" + c.set + "'");
    CHECK(wrong.exit == 2);
    CHECK(wrong.out.find(c.says) != std::string::npos);
  }
  const Folder folder;
  CHECK(run(tool + " film " + scene_and_drag + " --set frames.step=5 -o " + (folder / "a.png")).exit == 0);
  CHECK(run(tool + " film " + scene_and_drag + " -o " + (folder / "b.png")).exit == 0);
  CHECK(read(folder / "a.png") != read(folder / "b.png"));
}

TEST_CASE("a folder of takes is replayed to a table, and JSON says what was not met") {
  const Ran all = run(tool + " replay " + demo + "inspection.scene.toml " + demo);
  CHECK(all.exit == 0);
  CHECK(all.out.find("inspection.drag.take.csv ") != std::string::npos);
  CHECK(all.out.find("made for hive-list.scene.toml") != std::string::npos);
  const std::string taps = demo + "inspection.drag.take.csv " + demo + "inspection.tap.take.csv";
  const Ran wrong = run("{ " + tool + " replay " + demo + "inspection.scene.toml " + taps +
                        " --set frames.step=5 --json 2>/dev/null; }");
  CHECK(wrong.exit == 1);
  const auto list = nlohmann::json::parse(wrong.out);
  REQUIRE(list.size() == 2);
  CHECK(list[0]["unmet"] == nlohmann::json{"frames is 10, not 7"});
  CHECK(list[0]["take"] == demo + "inspection.drag.take.csv");
}

TEST_CASE("a take expects cells, readings, times, tolerances and words, what does not read is bad input") {
  const Folder folder;
  const std::string drag = read(demo + "inspection.drag.take.csv");
  struct Case {
    const char* expects;
    int exit;
    const char* says;
  };
  for (const Case& c : {Case{"frames = 7, frames.position = 7, frames.dragging = no", 0, ""},
                        {"frames = 6.5 within 0.5", 0, ""},
                        {"frames = 6.4 within 0.5", 1, "frames is 7, not 6.4"},
                        {"at 100 ms frames.position = 4, at 217 ms frames.dragging = yes", 0, ""},
                        {"at 100 ms frames.dragging = yes", 1, "at 100 ms frames.dragging is no, not yes"},
                        {"says \"lifts at rest\", says frames \"at rest at 7\"", 0, ""},
                        {"says \"rail.lifted-resting\", says frames \"rail.at-rest\"", 0, ""},
                        {"says \"rail.lifted\"", 1, "nobody says"},
                        {"at 217 ms says frames \"drag: over\"", 0, ""},
                        {"at 300 ms within 50 ms says \"drag: over\"", 1, "it is said at 216.667 ms"},
                        {"says \"flick, to\"", 1, "nobody says"},
                        {"frames is 7", 2, "the expectation 'frames is 7': no =; takes [at TIME ms]"},
                        {"at noon frames = 7", 2, "a time such as 300 ms"},
                        {"frames = 7 within x", 2, "a tolerance of 0 or more"},
                        {"says frames at rest", 2, "words in quotes"},
                        {"frmes = 7", 2, "no reading 'frmes'"},
                        {"frames = many", 2, "'many'"}}) {
    CAPTURE(c.expects);
    write(folder / "t.take.csv",
          std::string("# expectation = ") + c.expects + "\n" + drag.substr(drag.find("time_ms")));
    const Ran ran = run(tool + " replay " + demo + "inspection.scene.toml " + (folder / "t.take.csv"));
    CAPTURE(ran.out);
    CHECK(ran.exit == c.exit);
    CHECK(ran.out.find(c.says) != std::string::npos);
  }
  write(folder / "t.take.csv", "# expectaton = frames = 7\n" + drag);
  CHECK(run(tool + " replay " + demo + "inspection.scene.toml " + (folder / "t.take.csv"))
            .out.find("nearest known: expectation") != std::string::npos);
}

TEST_CASE(
    "the usual small steps: pipes, scripts from files, moments in ms, the nearest option, the feel of a "
    "scene") {
  const Folder folder;
  write(folder / "s.hand", "press (60, 224), drag right 90 dp over 200 ms, lift");
  const std::string make = tool + " take make --seed 3 -o - ";
  const Ran piped = run(make + "--script " + (folder / "s.hand"));
  CHECK(piped.exit == 0);
  CHECK(piped.out == run("{ cat " + (folder / "s.hand") + " | " + make + "--script -; }").out);
  CHECK(run("{ " + make + "'tap (180, 224)' | " + tool + " replay " + demo + "inspection.scene.toml -; }")
            .out.find("cell frames       5") != std::string::npos);
  CHECK(run(tool + " take make -o x.csv").out.find("no script; takes one in quotes, or --script FILE") !=
        std::string::npos);

  CHECK(run(tool + " curve 'linear 400ms' --at 100ms,0.5,0.3s").out.find("0.75") != std::string::npos);
  CHECK(run(tool + " curve 'linear 400ms' --at 100")
            .out.find("takes 0 to 1, from -1 to 2 at most, or a time such as 100ms") != std::string::npos);
  CHECK(run(tool + " curve 'linear 400ms' --at 10min").exit == 2);
  CHECK(run(tool + " curve 'spring(settle 400ms)' --at 2").exit == 0);

  const Ran wrong = run(tool + " film " + scene_and_drag + " --framse 9 -o x.png");
  CHECK(wrong.exit == 2);
  CHECK(wrong.out.find("no option '--framse'") != std::string::npos);
  CHECK(wrong.out.find("nearest known: --frames") != std::string::npos);

  const std::string info = tool + " take info " + demo + "inspection.drag.take.csv";
  CHECK(run(info).out.find("by the feel bare-finger") != std::string::npos);
  CHECK(run(info + " --scene " + demo + "inspection.scene.toml").out.find("by the feel of ") !=
        std::string::npos);
  CHECK(nlohmann::json::parse(run(info + " --feel gloved --json").out)["feel"] == "gloved");
  CHECK(run(info + " --feel gloved --scene x").exit == 2);
  const std::string feels = run(tool + " settings feel").out;
  CHECK(feels.find("shipped feels") != std::string::npos);
  CHECK(feels.find("gloved") != std::string::npos);
}
