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
  std::vector<std::string> without_effect;
  for (const PartKind* kind : shipped_kinds()) text += what_settings_change(*kind, without_effect);
  approve("core", "settings", text);
  // What one part alone cannot show: who lends parts for items, an edge it reaches, one more layer, something
  // around it. Their own tests have these.
  CHECK(without_effect == std::vector<std::string>{"list ahead", "pad gestures.edges", "dialog steps_back_by",
                                                   "dialog steps_back_to", "dialog travel.just_off",
                                                   "panel travel.just_off", "toast-tray travel.just_off"});
}
