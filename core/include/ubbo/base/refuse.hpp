#pragma once

#include <string>

namespace ubbo {

/// Throws `std::invalid_argument` with these words. In a program built without exceptions it prints them and
/// ends the program; such a program asks first, by the `fault` of what it sets.
[[noreturn]] void refuse(const std::string& words);
/// Refuses `got` unless it lies between `least` and `most`; `what` names it, such as "spring: ratio".
void demand(const char* what, double got, double least, double most);

}  // namespace ubbo
