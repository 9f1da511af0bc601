#include "ubbo/base/refuse.hpp"

#ifdef __cpp_exceptions
#include <stdexcept>
#else
#include <cstdio>
#include <cstdlib>
#endif

namespace ubbo {

void refuse(const std::string& words) {
#ifdef __cpp_exceptions
  throw std::invalid_argument(words);
#else
  std::fprintf(stderr, "ubbo: %s\n", words.c_str());
  std::abort();
#endif
}

}  // namespace ubbo
