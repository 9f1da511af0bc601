#include "say.hpp"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <stdexcept>
#include <string>

#include "ubbo/io/text/harmless.hpp"

namespace ubbo::tool {

namespace {

[[noreturn]] void fail() {
  throw std::runtime_error(std::string("standard output: cannot be written: ") + std::strerror(errno));
}

}  // namespace

void say_text(std::string_view text) {
  const std::string harmless = io::harmless(text);
  if (std::fwrite(harmless.data(), 1, harmless.size(), stdout) != harmless.size()) fail();
}

void warn_text(std::string_view text) {
  const std::string harmless = io::harmless(text);
  (void)std::fflush(stdout);
  (void)std::fwrite(harmless.data(), 1, harmless.size(), stderr);
}

void finish_saying() {
  if (std::fflush(stdout) != 0) fail();
}

}  // namespace ubbo::tool
