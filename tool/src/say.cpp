#include "say.hpp"

#include <unistd.h>

#include <array>
#include <cerrno>
#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <stdexcept>
#include <string>

#include "ubbo/io/text/harmless.hpp"

namespace ubbo::tool {

namespace {

[[noreturn]] void fail() {
  throw std::runtime_error(std::string("standard output: cannot be written: ") + std::strerror(errno));
}

bool coloured(std::FILE* stream) {
  const char* none = std::getenv("NO_COLOR");
  return on_terminal(stream) && (none == nullptr || *none == '\0');
}

// The terminal's own colours, so that they suit its background.
std::string inked(std::string text, Ink ink, std::FILE* stream) {
  constexpr std::array codes{"", "2", "36", "32", "1;31"};
  if (ink == Ink::plain || text.empty() || !coloured(stream)) return text;
  return fmt::format("\x1b[{}m{}\x1b[0m", codes[static_cast<std::size_t>(ink)], text);
}

}  // namespace

bool on_terminal(std::FILE* stream) {
  const char* kind = std::getenv("TERM");
  return isatty(fileno(stream)) != 0 && kind != nullptr && std::string_view(kind) != "dumb";
}

void say_text(std::string_view text, Ink ink) {
  const std::string harmless = inked(io::harmless(text), ink, stdout);
  if (std::fwrite(harmless.data(), 1, harmless.size(), stdout) != harmless.size()) fail();
}

void warn_text(std::string_view text) {
  constexpr std::string_view caller = "ubbo:";
  const bool called = text.starts_with(caller);
  const std::string harmless = inked(called ? std::string(caller) : std::string(), Ink::bad, stderr) +
                               io::harmless(called ? text.substr(caller.size()) : text);
  (void)std::fflush(stdout);
  (void)std::fwrite(harmless.data(), 1, harmless.size(), stderr);
}

void finish_saying() {
  if (std::fflush(stdout) != 0) fail();
}

}  // namespace ubbo::tool
