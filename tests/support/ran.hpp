#pragma once

#include <sys/wait.h>
#include <unistd.h>

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <string>

#include "files.hpp"
#include "ubbo/testing/check.hpp"

/// Runs the command line as its users do.
namespace ubbo::test {

// The command under test: the one beside the tests, or another that is named.
inline const bool other_command = std::getenv("UBBO_COMMAND") != nullptr;
inline const std::string tool = other_command ? std::getenv("UBBO_COMMAND") : UBBO_TOOL_PATH;
inline const std::string scene_and_drag = demo + "inspection.scene.toml " + demo + "inspection.drag.take.csv";

struct Ran {
  int exit = -1;
  std::string out;  // both streams
};

inline Ran run(const std::string& command) {
  Ran ran;
  std::FILE* pipe = popen((command + " 2>&1 </dev/null").c_str(), "r");
  REQUIRE(pipe != nullptr);
  char block[4096];
  while (const std::size_t got = std::fread(block, 1, sizeof block, pipe)) ran.out.append(block, got);
  const int status = pclose(pipe);
  if (WIFEXITED(status)) ran.exit = WEXITSTATUS(status);
  return ran;
}

inline std::string read(const std::filesystem::path& path) {
  std::ifstream file(path, std::ios::binary);
  return {std::istreambuf_iterator<char>(file), {}};
}

// A folder of this test's own, gone at its end.
struct Folder {
  std::filesystem::path path =
      std::filesystem::temp_directory_path() / ("ubbo-test-" + std::to_string(getpid()));
  Folder() { std::filesystem::create_directories(path); }
  ~Folder() { std::filesystem::remove_all(path); }
  std::string operator/(const char* name) const { return (path / name).string(); }
};

inline void write(const std::filesystem::path& path, const std::string& text) {
  std::ofstream(path, std::ios::binary) << text;
}

/// As one word of a shell.
inline std::string quoted(const std::string& text) {
  std::string made = "'";
  for (const char c : text) made += c == '\'' ? std::string("'\\''") : std::string(1, c);
  return made + "'";
}

}  // namespace ubbo::test
