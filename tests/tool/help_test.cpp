#include <fmt/format.h>

#include <sstream>

#include "ran.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo::test;

namespace {

// The command as its users call it, in a folder.
std::string in(const Folder& folder, const std::string& command) {
  const std::string place = std::filesystem::path(tool).parent_path().string();
  return "cd " + folder.path.string() + " && PATH=" + place + ":\"$PATH\" && { " + command + "; }";
}
Ran asked(const std::string& arguments) { return run(tool + " " + arguments); }

std::vector<std::string> verbs_below(const std::string& command) {
  std::vector<std::string> verbs;
  std::istringstream help(asked(command + " --help").out);
  bool listed = false;
  for (std::string line; std::getline(help, line);) {
    if (line == "Subcommands:")
      listed = true;
    else if (line.empty())
      listed = false;
    else if (listed && line[2] != ' ')
      verbs.push_back(command + (command.empty() ? "" : " ") + line.substr(2, line.find(' ', 2) - 2));
  }
  const std::vector<std::string> here = verbs;
  for (const std::string& verb : here)
    for (std::string& inner : verbs_below(verb)) verbs.push_back(std::move(inner));
  return verbs;
}

// Lines that end with a backslash go on in the next.
std::vector<std::string> examples_in(const std::string& help) {
  constexpr std::string_view begin = "Example:  ";
  std::vector<std::string> examples;
  bool goes_on = false;
  std::istringstream lines(help);
  for (std::string line; std::getline(lines, line);) {
    if (goes_on)
      examples.back() += "\n" + line;
    else if (line.starts_with(begin))
      examples.push_back(line.substr(begin.size()));
    else
      continue;
    goes_on = line.ends_with('\\');
  }
  return examples;
}

}  // namespace

TEST_CASE("each command's help tells its exit codes and has an example that runs as it stands") {
  const Folder folder;
  REQUIRE(run(in(folder, "ubbo demo")).exit == 0);
  const auto verbs = verbs_below("");
  REQUIRE(verbs.size() == 20);
  for (const std::string& verb : verbs) {
    const std::string help = asked(verb + " --help").out;
    INFO(help);
    CHECK_THAT(help, Catch::Contains("Exit codes:  "));
    const auto examples = examples_in(help);
    CHECK_FALSE(examples.empty());
    for (std::string example : examples) {
      if (example.starts_with("ubbo watch ")) example.insert(11, "--runs 1 ");
      if (const auto many = example.find("--count 500"); many != std::string::npos)
        example.replace(many, 11, "--count 5");
      if (example.starts_with("./dev live ")) {  // in a build without the page
        const Ran left_out = asked("live hive-sheet.scene.toml --port 0");
        CHECK(left_out.exit == 2);
        CHECK_THAT(left_out.out, Catch::Contains("'./dev live' builds one with it"));
        continue;
      }
      if (example.starts_with("ubbo live ")) {
        if (example.find("--export") == std::string::npos)  // it serves until it is interrupted
          example = "timeout --preserve-status --signal=INT 2 " + example + " --port 0";
      }
      const Ran ran = run(in(folder, example));
      INFO(example << "\n" << ran.out);
      CHECK(ran.exit == 0);
      CHECK_THAT(ran.out, !Catch::Contains("ubbo:"));
    }
  }
}

TEST_CASE("what is completed is what the command takes") {
  const Folder folder;
  REQUIRE(run(in(folder, "ubbo completions bash > c.bash")).exit == 0);
  const auto completed = [&](const std::string& words) {
    return run(in(folder, "bash -c 'source c.bash; COMP_WORDS=(" + words +
                              "); COMP_CWORD=$((${#COMP_WORDS[@]} - 1)); _ubbo; echo \"${COMPREPLY[*]}\"'"))
        .out;
  };
  CHECK(completed("ubbo fi") == "film\n");
  CHECK(completed("ubbo take \"\"") == "make convert info trial\n");
  CHECK(completed("ubbo take make --hand g") == "gloved\n");
  CHECK(completed("ubbo export x --as \"\"") == "css keyframes tokens header\n");
  CHECK(completed("ubbo settings pa") == "page-dots pane pad panel page-host\n");
  CHECK(completed("ubbo film --s") == "--set --slow --size\n");
  CHECK(completed("ubbo film c.") == "c.bash\n");
  CHECK(asked("completions tcsh").exit == 2);
  // What stands in help stands in the manual and in each shell's completions.
  const std::string page = asked("manual").out, zsh = asked("completions zsh").out,
                    fish = asked("completions fish").out, bash = asked("completions bash").out;
  CHECK_THAT(page, Catch::StartsWith(".TH UBBO 1 ") && Catch::Contains("\\fB\\-\\-frames\\fR \\fICOUNT\\fR"));
  for (const char* option : {"frames", "set", "expectation", "seed", "runs"}) {
    CHECK_THAT(bash, Catch::Contains(fmt::format("--{}", option)));
    CHECK_THAT(zsh, Catch::Contains(fmt::format("--{}[", option)));
    CHECK_THAT(fish, Catch::Contains(fmt::format(" -l {} ", option)));
  }
}

TEST_CASE("watch runs again when a file it names has changed, and not before") {
  const Folder folder;
  REQUIRE(run(in(folder, "ubbo demo")).exit == 0);
  const std::string watched =
      "cd heather-ridge; ubbo watch --runs 2 why inspection.scene.toml inspection.tap.take.csv > said 2> "
      "why-not & ";
  const Ran ran = run(
      in(folder, watched +
                     "for i in $(seq 300); do grep -q watching why-not && break; sleep 0.1; done; sleep 0.3; "
                     "grep -c 'at rest at' said; sed -i 's/^to = .*/to = 8/' inspection.scene.toml; wait; "
                     "grep -c 'at rest at' said; grep -c 'inspection.scene.toml has changed' said"));
  CHECK(ran.out == "1\n2\n1\n");
  CHECK_THAT(asked("watch").out, Catch::Contains("no command"));
  CHECK_THAT(asked("watch settings feel").out, Catch::Contains("no file"));
  CHECK_THAT(asked("watch watch why " UBBO_SOURCE_DIR "/README.md").out,
             Catch::Contains("takes another command"));
}

TEST_CASE("a terminal gets colours, NO_COLOR and files do not, progress stands on a terminal only") {
  const Folder folder;
  REQUIRE(run(in(folder, "ubbo demo")).exit == 0);
  const std::string why =
      "ubbo why heather-ridge/inspection.scene.toml heather-ridge/inspection.tap.take.csv";
  const auto on_terminal = [&](const std::string& command) {
    return run(in(folder, "TERM=xterm script -qec '" + command + "' /dev/null")).out;
  };
  CHECK_THAT(on_terminal(why), Catch::Contains("\x1b[36mframes"));
  CHECK_THAT(on_terminal("NO_COLOR=1 " + why), Catch::Contains("frames") && !Catch::Contains("\x1b"));
  CHECK_THAT(on_terminal("TERM=dumb " + why), !Catch::Contains("\x1b"));
  CHECK_THAT(run(in(folder, why)).out, !Catch::Contains("\x1b"));
  CHECK_THAT(on_terminal("ubbo film nothing nothing -o f.png"), Catch::Contains("\x1b[1;31mubbo:"));
  // So long that it is ended before it is done, however fast the machine.
  const std::string trial = "timeout 4 ubbo take trial --hand bare --count 1000000";
  CHECK_THAT(on_terminal(trial), Catch::Contains("trial of the hand bare ") && Catch::Contains(" %\r\x1b[K"));
  CHECK_THAT(run(in(folder, trial)).out, !Catch::Contains("trial of the hand"));
}
