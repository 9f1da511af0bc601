// What a part has is saved as bytes, and is there again on another stage.
#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what a part of any kind had is there again on another stage, without motion") {
  each_kind([](const PartKind& kind) {
    if (kind.saved == nullptr) return;
    for (const bool bare : {false, true})
      PROPERTY(kind.name, [&] {
        const auto make = [&] { return Alone(kind, false, false, {}, false, -1.0, bare); };
        Alone before = make(), after = make();
        live_through(before, any_events(), 0);
        live_through(after, any_events(), 60);
        before.stage.advance(ms(60'000));
        after.stage.advance(ms(60'000));
        RC_ASSERT(after.stage.restore(before.stage.save(), ms(60'000)) == "");
        RC_ASSERT(after.part->kind().saved(*after.part) == kind.saved(*before.part));
        RC_ASSERT(after.part->settled());  // though a pointer may be over another piece of it now
        RC_ASSERT(after.stage.save() == before.stage.save());
      });
  });
}
