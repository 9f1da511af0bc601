#include <fmt/format.h>

#include <chrono>
#include <filesystem>
#include <map>
#include <memory>
#include <stdexcept>
#include <string>
#include <thread>
#include <vector>

#include "commands.hpp"
#include "say.hpp"

namespace ubbo::tool {

namespace {

namespace fs = std::filesystem;

using Times = std::map<std::string, fs::file_time_type>;

// Files that stand in the words, and what lies in folders that do; not what the words say to write.
Times times_of(const std::vector<std::string>& words) {
  Times times;
  std::error_code none;  // a file may be gone for a moment while an editor writes it
  const auto note = [&times](const fs::path& path) {
    std::error_code gone;
    const auto time = fs::last_write_time(path, gone);
    if (!gone) times[path.string()] = time;
  };
  for (std::size_t i = 0; i < words.size(); ++i) {
    if (i > 0 && (words[i - 1] == "-o" || words[i - 1] == "--out")) continue;
    if (fs::is_regular_file(words[i], none)) note(words[i]);
    if (!fs::is_directory(words[i], none)) continue;
    for (const auto& entry : fs::directory_iterator(words[i], none)) note(entry.path());
  }
  return times;
}

std::string changed(const Times& before, const Times& now) {
  for (const auto& [path, time] : now)
    if (const auto found = before.find(path); found == before.end() || found->second != time) return path;
  for (const auto& [path, time] : before)
    if (!now.contains(path)) return path;
  return {};
}

int watch(const std::vector<std::string>& words, int runs, const Again& again) {
  if (words.empty())
    throw std::invalid_argument(
        "watch: no command; takes one with its arguments, such as: watch why SCENE TAKE");
  Times seen = times_of(words);
  if (seen.empty())
    throw std::invalid_argument(
        "watch: no file in what is to be run; takes a command with files, such as: watch why SCENE TAKE");
  int exit = done;
  for (int run = 1;; ++run) {
    exit = again(words);
    finish_saying();
    if (run == runs) return exit;
    warn("watching {} file{}; an interrupt ends it\n", seen.size(), seen.size() == 1 ? "" : "s");
    std::string path;
    for (;;) {
      std::this_thread::sleep_for(std::chrono::milliseconds(100));
      Times now = times_of(words);
      path = changed(seen, now);
      // Gone for a moment: it is waited for, with the rest as it was.
      if (path.empty() || now.size() < seen.size()) continue;
      seen = std::move(now);
      break;
    }
    say_in(Ink::quiet, "\n{} has changed\n", path);
  }
}

}  // namespace

void add_watch(Verb app, int& exit, Again again) {
  auto runs = std::make_shared<int>(0);
  const Verb verb = app.add_verb("watch", "Run a command again whenever a file it names has changed");
  verb.add_option("--runs", *runs, "end after this many runs; 0: go on until an interrupt")
      .between(0, 1'000'000)
      .with_default();
  verb.leave_rest();
  verb.footer(
      "Example:  ubbo watch why heather-ridge/inspection.scene.toml heather-ridge/inspection.drag.take.csv\n"
      "Exit codes:  those of the last run.");
  verb.when_called(
      [verb, runs, &exit, again = std::move(again)] { exit = watch(verb.rest(), *runs, again); });
}

}  // namespace ubbo::tool
