// What every kind does in chosen moments and what its settings change, as it was when somebody last looked:
// text to be read.
#include "approved.hpp"

#include "tour.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what each kind does in chosen moments is as it was approved") {
  std::string text;
  for (const PartKind* kind : shipped_kinds()) text += moments_of(*kind);
  approve("core", "moments", text);
}

TEST_CASE("what each setting of each kind changes is as it was approved") {
  std::string text;
  for (const PartKind* kind : shipped_kinds()) text += what_settings_change(*kind);
  approve("core", "settings", text);
}
