// Compiled once for each CASE: 0 builds, the others must not.
#include "ubbo/base/journal.hpp"

using namespace ubbo;

namespace {

constexpr Question full{"hive.full", "is the hive full?"};
constexpr AnswerWith<AtLeast<"honey", "kg">, Number<"frames", "">> is_full {
  "hive.is-full", &full, true, "yes",
#if CASE == 1
      "it holds {honey} of {pollen}"
#elif CASE == 2
      "it holds {frames.limit}"
#else
      "it holds {honey} of {honey.limit}, in {frames|frame|frames}"
#endif
};

[[maybe_unused]] void say(Journal& journal) {
#if CASE == 3
  journal.record(Micros{0}, {"hive"}, is_full, Held{12.0, 10.0});
#elif CASE == 4
  journal.record(Micros{0}, {"hive"}, is_full, 12.0, 8.0);
#else
  journal.record(Micros{0}, {"hive"}, is_full, {12.0, 10.0}, 8.0);
#endif
}

}  // namespace
