#pragma once

#include <cstdlib>
#include <fstream>
#include <sstream>

#include "ubbo/testing/check.hpp"

/// Text that somebody looked at once and found right: what parts do in chosen moments, what `why` says of the
/// demo's takes. It knows no right or wrong, but shows each change that reaches an app. One that is meant is
/// taken with `UBBO_APPROVE=1`; `git diff` shows it.
namespace ubbo::test {

/// Holds `text` against tests/FOLDER/NAME.approved.txt; where they differ it shows the first lines that do.
inline void approve(const std::string& folder, const std::string& name, const std::string& text) {
  const std::string file = UBBO_SOURCE_DIR "/tests/" + folder + "/" + name + ".approved.txt";
  std::ifstream in(file);
  std::stringstream before;
  before << in.rdbuf();
  CHECK(text.size() > 1000);
  if (before.str() == text) return;
  if (std::getenv("UBBO_APPROVE") != nullptr) std::ofstream(file) << text;
  std::istringstream old_lines(before.str()), new_lines(text);
  std::string heading, old_line, new_line, shown;
  for (int line = 1, differing = 0; differing < 4; ++line) {
    const bool old_goes_on = static_cast<bool>(std::getline(old_lines, old_line));
    const bool new_goes_on = static_cast<bool>(std::getline(new_lines, new_line));
    if (!old_goes_on && !new_goes_on) break;
    if (new_line.starts_with("#")) heading = new_line;
    if (old_goes_on == new_goes_on && old_line == new_line) continue;
    ++differing;
    shown += "line " + std::to_string(line) + ", " + heading + "\n- " + (old_goes_on ? old_line : "") +
             "\n+ " + (new_goes_on ? new_line : "") + "\n";
  }
  FAIL_CHECK(file << " says otherwise:\n" << shown);
}

}  // namespace ubbo::test
