// Nothing that comes from a file commands what it passes through, and no failure leaves less than was there.
#include <sys/stat.h>
#include <unistd.h>

#include <csignal>
#include <nlohmann/json.hpp>
#include <thread>

#include "ran.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo::test;

namespace {

#ifdef __SANITIZE_ADDRESS__
constexpr bool watched = true;
#elif defined(__has_feature)
constexpr bool watched = __has_feature(address_sanitizer);
#else
constexpr bool watched = false;
#endif

// Little address space, where no sanitizer needs all of it; and how often a verb is interrupted.
const std::string limited = watched ? "" : "ulimit -v 2000000; ";
constexpr int moments = watched ? 10 : 40;

}  // namespace

TEST_CASE("a name of a file is a name, whatever it looks like to a shell, gnuplot or a pipe") {
  const Folder folder;
  const std::string home = "HOME=" + folder.path.string() + " ";
  write(folder / ".gnuplot", "set output '" + (folder / "spied") + "'; print 'spied'; plot x\n");
  for (const std::string name :
       {"|touch x;cat>&2 #.svg", "a b.svg", "~.svg", "new\nline.png", "'q'.svg", "$(touch x).png"}) {
    const Ran ran =
        run("cd " + folder.path.string() + " && " + home + tool + " curve 'ease 1s' -o " + quoted(name));
    CAPTURE(name, ran.out);
    CHECK(ran.exit == 0);
    CHECK(std::filesystem::file_size(folder.path / name) > 1000);
    CHECK_FALSE(std::filesystem::exists(folder / "x"));
    CHECK_FALSE(std::filesystem::exists(folder / "spied"));
  }
}

TEST_CASE("text from files commands no terminal, and breaks no JSON and no picture") {
  const Folder folder;
  const std::string evil = "\\u001b[31m</text><script>\\u009b\\u202e & 'x' $(y)";
  std::string scene = read(demo + "inspection.scene.toml");
  scene.replace(
      scene.find("label = \"frames of honey"),
      scene.find('\n', scene.find("label = \"frames of honey")) - scene.find("label = \"frames of honey"),
      "label = \"" + evil + "\"");
  write(folder / "e.scene.toml", scene);
  const std::string on = (folder / "e.scene.toml") + " " + demo + "inspection.drag.take.csv";
  const auto harmless = [](const std::string& text) {
    for (std::size_t i = 0; i < text.size(); ++i) {
      const auto c = static_cast<unsigned char>(text[i]);
      if ((c < 0x20 && c != '\n' && c != '\t') || c == 0x7F) return false;
      if (c == 0xC2 && i + 1 < text.size() && static_cast<unsigned char>(text[i + 1]) < 0xA0) return false;
    }
    return true;
  };
  for (const char* verb : {"why ", "replay ", "graph "}) CHECK(harmless(run(tool + " " + verb + on).out));
  const auto json = nlohmann::json::parse(run(tool + " replay " + on + " --json").out);
  CHECK(json["parts"]["frames"]["accessible"]["label"].get<std::string>().find("\x1b[31m</text>") == 0);
  for (const char* verb : {"film ", "graph "}) {
    CHECK(run(tool + " " + verb + on + " -o " + (folder / "e.svg")).exit == 0);
    CHECK(read(folder / "e.svg").find("<script>") == std::string::npos);
  }
  const Ran wrong = run(tool + " replay " + quoted(folder / "no\x1b[31m.toml") + " x");
  CHECK(wrong.exit == 2);
  CHECK(harmless(wrong.out));
}

TEST_CASE("input that is too deep, too large or endless is refused with its place, in little memory") {
  const Folder folder;
  const auto many = [](const char* what, int times) {
    std::string text;
    for (int i = 0; i < times; ++i) text += what;
    return text;
  };
  struct Case {
    const char* file;
    std::string text;
    const char* says;
  };
  for (const Case& c :
       {Case{"t.json", many("{\"a\":", 20'000) + "1" + many("}", 20'000), ":1:321: the 65th level"},
        {"p.jsonl",
         "{\"type\":\"pointerdown\",\"pointerId\":" + many("[", 200'000) + many("]", 200'000) + "}",
         ":1:98: the 65th level"},
        {"k.scene.toml", "a" + many(".a", 100'000) + " = 1", ":1:32: a key of more than 16 parts"},
        {"n.scene.toml", "a = " + many("[", 100'000), "the 17th bracket"},
        {"h.scene.toml", "title = \"[#\"\n[#", ":2:2: '#'; takes the name of a table"},
        {"c.scene.toml", "title = \"a\x1b\"", ":1:11: the control character 0x1b"},
        {"b.scene.toml", many("# a long comment\n", 70'000), "takes a scene of at most 1 MiB"}}) {
    CAPTURE(c.file);
    write(folder / c.file, c.text);
    const std::string_view name = c.file;
    const std::string verb = name.ends_with(".json")    ? "export "
                             : name.ends_with(".jsonl") ? "take info "
                                                        : "replay ";
    const std::string behind = verb == "replay " ? " " + demo + "inspection.tap.take.csv" : "";
    const Ran ran = run(limited + tool + " " + verb + (folder / c.file) + behind);
    CHECK(ran.exit == 2);
    CHECK(ran.out.find(c.says) != std::string::npos);
  }
  CHECK(run(limited + tool + " take info /dev/zero").out.find("more than 256 MiB") != std::string::npos);
  const Ran endless =
      run(tool + " take make 'repeat 99999 { repeat 100000 { } }' -o " + (folder / "r.take.csv"));
  CHECK(endless.exit == 2);
  CHECK(endless.out.find("at most 100000 actions") != std::string::npos);
}

TEST_CASE("what cannot be written leaves what was there, and says so in one line with exit 2") {
  const Folder folder;
  const std::string drag = demo + "inspection.scene.toml " + demo + "inspection.drag.take.csv";
  const std::string old = "what was there";
  for (const std::string& verb : std::vector<std::string>{
           " curve 'ease 1s' -o out.svg", " film " + drag + " -o out.svg", " graph " + drag + " -o out.svg",
           " take info " + demo + "inspection.drag.take.csv -o out.svg", " export 'a=ease 1s' -o out.svg"}) {
    CAPTURE(verb);
    write(folder / "out.svg", old);
    // A folder in which nothing new can be made: the file itself could be written, and would be cut.
    const Ran ran =
        run("cd " + folder.path.string() + " && ulimit -f 0 && trap '' XFSZ && " + tool + verb + " >log");
    CHECK(ran.exit == 2);
    CHECK(std::count(ran.out.begin(), ran.out.end(), '\n') <= 1);
    CHECK(read(folder / "out.svg") == old);
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 2);
  }
  for (const char* verb : {" curve 'ease 1s' -o out.svg", " graph "}) {
    write(folder / "out.svg", old);
    const std::string whole = std::string(verb) + (verb[1] == 'g' ? drag + " -o out.svg" : "");
    const Ran none = run("cd " + folder.path.string() + " && PATH=/nowhere " + tool + whole);
    CHECK(none.exit == 2);
    CHECK(none.out.find("gnuplot is not installed") != std::string::npos);
    CHECK(read(folder / "out.svg") == old);
  }
  for (const char* verb : {" curve 'ease 1s'", " --help", " settings slider", " export 'a=ease 1s'"}) {
    CAPTURE(verb);
    const Ran full = run("{ " + tool + verb + " >/dev/full; }");
    CHECK(full.out.find("standard output: cannot be written: No space left") != std::string::npos);
    CHECK(full.exit == 2);
    const std::string code = folder / "code";
    (void)run("{ sleep 0.1; " + tool + verb + "; echo $? >" + code + "; } | true");  // nobody reads any more
    CHECK(read(code) == "2\n");
  }
  // A link stays one, rights stay, a device is written straight.
  write(folder / "real.csv", old);
  CHECK(chmod((folder / "real.csv").c_str(), 0640) == 0);
  std::filesystem::create_symlink("real.csv", folder.path / "link.csv");
  CHECK(run(tool + " take make 'tap (9, 9)' -o " + (folder / "link.csv")).exit == 0);
  CHECK(std::filesystem::is_symlink(folder.path / "link.csv"));
  CHECK(read(folder / "real.csv").find("time_ms") != std::string::npos);
  struct stat rights {};
  CHECK(stat((folder / "real.csv").c_str(), &rights) == 0);
  CHECK((rights.st_mode & 0777) == 0640);
}

TEST_CASE("an interrupt at any moment leaves the old file or the new one") {
  const Folder folder;
  const std::string drag = demo + "inspection.scene.toml " + demo + "inspection.drag.take.csv";
  int killed = 0;
  for (const std::string& verb : std::vector<std::string>{
           " curve 'ease 1s' -o out.svg", " film " + drag + " -o out.svg", " graph " + drag + " -o out.svg",
           " take make 'repeat 300 { tap (9, 9) }' -o out.csv", " export 'a=ease 1s' -o out.svg"}) {
    const std::string out = verb.ends_with("csv") ? "out.csv" : "out.svg";
    const std::string in = "cd " + folder.path.string() + " && ";
    REQUIRE(run(in + tool + verb).exit == 0);
    const std::string whole = read(folder.path / out);
    for (int i = 0; i < moments; ++i) {
      write(folder.path / out, "old");
      const double after = 0.001 + 0.1 * i / moments;
      const Ran ran = run(in + "timeout -s INT " + std::to_string(after) + " " + tool + verb);
      killed += ran.exit == 124 ? 1 : 0;
      const std::string now = read(folder.path / out);
      CHECK((now == "old" || now == whole));
      CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 1);
    }
    std::filesystem::remove(folder.path / out);
  }
  CHECK(killed > moments / 2);
}

TEST_CASE("an interrupt that reaches another thread of the program leaves the file whole too") {
  const std::string whole(1 << 20, 'w');
  for (int i = 0; i < moments; ++i) {
    const Folder folder;
    const std::string path = folder / "out";
    write(path, whole);
    const pid_t child = fork();
    REQUIRE(child >= 0);
    if (child == 0) {
      (void)std::signal(SIGINT, SIG_DFL);
      std::thread([] { pause(); }).detach();  // such as a library's own
      while (true) ubbo::file::write_whole(path, whole);
    }
    usleep(2000 + 700 * static_cast<useconds_t>(i));
    REQUIRE(kill(child, SIGINT) == 0);
    int status = 0;
    REQUIRE(waitpid(child, &status, 0) == child);
    CHECK(WIFSIGNALED(status));
    CHECK(read(path) == whole);
    CHECK(std::distance(std::filesystem::directory_iterator(folder.path), {}) == 1);
  }
}

TEST_CASE("the demo keeps what was changed") {
  const Folder folder;
  const std::string command = "cd " + folder.path.string() + " && " + tool + " demo -o d";
  REQUIRE(run(command).exit == 0);
  const std::string path = folder / "d/inspection.scene.toml";
  const std::string changed = "# mine\n" + read(path);
  write(path, changed);
  const Ran again = run(command);
  CHECK(again.out.find("kept as you changed them: inspection.scene.toml") != std::string::npos);
  CHECK(read(path) == changed);
}
