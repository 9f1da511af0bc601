// What every kind does in chosen moments, as it was when somebody last looked: text to be read.
#include "approved.hpp"

#include "moments.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what each kind does in chosen moments is as it was approved") {
  std::string text;
  for (const PartKind* kind : shipped_kinds()) text += moments_of(*kind);
  approve("core", "moments", text);
}
