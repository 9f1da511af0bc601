#pragma once

#include <fmt/format.h>

#include <string_view>

namespace ubbo::tool {

/// Text for standard output. What would command a terminal is written out. Throws `std::runtime_error` when
/// it cannot be written.
void say_text(std::string_view text);
/// The same for standard error, where a failure is passed over.
void warn_text(std::string_view text);
/// Everything said is out there, or `std::runtime_error`.
void finish_saying();

template <class... Args>
void say(fmt::format_string<Args...> words, Args&&... args) {
  say_text(fmt::format(words, std::forward<Args>(args)...));
}
template <class... Args>
void warn(fmt::format_string<Args...> words, Args&&... args) {
  warn_text(fmt::format(words, std::forward<Args>(args)...));
}

}  // namespace ubbo::tool
