#include "progress.hpp"

#include <fmt/format.h>

#include <cstdio>

#include "say.hpp"

namespace ubbo::tool {

namespace {

constexpr const char* whole_line = "\r\x1b[K";  // back to its start, and nothing stands in it

}  // namespace

void Progress::tell(double fraction) {
  const Clock::time_point now = Clock::now();
  if (now - began_ < std::chrono::seconds(1) || now - told_ < std::chrono::milliseconds(200)) return;
  told_ = now;
  if (!on_terminal(stderr)) return;
  shown_ = true;
  (void)std::fputs((whole_line + fmt::format("{} {:.0f} %", what_, fraction * 100.0)).c_str(), stderr);
}

Progress::~Progress() {
  if (shown_) (void)std::fputs(whole_line, stderr);
}

}  // namespace ubbo::tool
