#include "ubbo/base/refuse.hpp"

#include "ubbo/base/settings.hpp"

#ifdef __cpp_exceptions
#include <stdexcept>
#else
#include <cstdio>
#include <cstdlib>
#endif

namespace ubbo {

std::string joined(std::initializer_list<std::string_view> texts) {
  std::string all;
  for (const std::string_view text : texts) all += text;
  return all;
}

void refuse(std::string_view words) {
#ifdef __cpp_exceptions
  throw std::invalid_argument(std::string(words));
#else
  std::fprintf(stderr, "ubbo: %.*s\n", static_cast<int>(words.size()), words.data());
  std::abort();
#endif
}

void demand(const char* what, double got, double min, double max) {
  if (got >= min && got <= max) return;
  refuse(joined({what, " = ", plain_number(got), " is not taken; it takes ", plain_number(min), " to ",
                 plain_number(max)}));
}

}  // namespace ubbo
