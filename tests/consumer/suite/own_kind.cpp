#define CATCH_CONFIG_MAIN
#include "own_part/dial.hpp"
#include "ubbo/testing/alone.hpp"

const std::vector<ubbo::test::KindUnderTest>& ubbo::test::kinds_under_test() {
  static const std::vector<KindUnderTest> all{{&smoker::Dial::described()}};
  return all;
}

TEST_CASE("the suite has the app's own kind on a stage") {
  ubbo::test::Alone alone(smoker::Dial::described(), false);
  alone.stage.advance(ubbo::test::ms(0));
  CHECK(alone.stage.settled());
}
