#pragma once

#include <initializer_list>
#include <string>
#include <string_view>

namespace ubbo {

/// These texts, one after another: for messages, since it takes far less code than adding them up.
[[nodiscard]] std::string joined(std::initializer_list<std::string_view> texts);

/// Throws `std::invalid_argument` with these words. In a program built without exceptions it prints them and
/// ends the program; such a program asks first, by the `fault` of what it sets.
[[noreturn]] void refuse(std::string_view words);
/// Refuses `got` unless it lies between `least` and `most`; `what` names it, such as "spring: ratio".
void demand(const char* what, double got, double min, double max);

}  // namespace ubbo
