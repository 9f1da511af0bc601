#define CATCH_CONFIG_RUNNER
#include <catch2/catch.hpp>
#include <clocale>
#include <cstdio>
#include <cstdlib>
#include <locale>
#include <string_view>

int main(int argc, char** argv) {
  // Numbers read and written must not change where people write 4,5: the same tests once more in such a
  // locale.
  if (const char* name = std::getenv("UBBO_TEST_LOCALE")) {
    if (std::setlocale(LC_ALL, name) == nullptr ||
        std::string_view(std::localeconv()->decimal_point) != ",") {
      std::fprintf(stderr, "%s is no locale with a decimal comma here\n", name);
      return 1;
    }
    std::locale::global(std::locale(name));
  }
  return Catch::Session().run(argc, argv);
}
