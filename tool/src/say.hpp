#pragma once

#include <fmt/format.h>

#include <cstdint>
#include <cstdio>
#include <string_view>

namespace ubbo::tool {

/// What a piece of text is to its reader. Colours where the terminal has them and NO_COLOR is not set.
enum class Ink : std::uint8_t { plain, quiet, name, good, bad };

/// Whether `stream` is a terminal that takes colours and moves of the cursor.
[[nodiscard]] bool on_terminal(std::FILE* stream);

/// Text for standard output. What would command a terminal is written out. Throws `std::runtime_error` when
/// it cannot be written.
void say_text(std::string_view text, Ink ink = Ink::plain);
/// The same for standard error, where a failure is passed over.
void warn_text(std::string_view text);
/// Everything said is out there, or `std::runtime_error`.
void finish_saying();

template <class... Args>
void say(fmt::format_string<Args...> words, Args&&... args) {
  say_text(fmt::format(words, std::forward<Args>(args)...));
}
template <class... Args>
void say_in(Ink ink, fmt::format_string<Args...> words, Args&&... args) {
  say_text(fmt::format(words, std::forward<Args>(args)...), ink);
}
template <class... Args>
void warn(fmt::format_string<Args...> words, Args&&... args) {
  warn_text(fmt::format(words, std::forward<Args>(args)...));
}

}  // namespace ubbo::tool
