#include <limits>
#include <set>

#include "streams.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("faulty samples are named: a faulty end still ends the contact") {
  struct Case {
    Sample sample;
    SampleFault fault;
    bool dropped;
  };
  const double nan = std::numeric_limits<double>::quiet_NaN();
  const Case cases[] = {
      {{.time = ms(10), .contact = 1, .phase = Phase::move, .at = {6, 5}}, SampleFault::none, false},
      {{.time = ms(10), .contact = 1, .phase = Phase::down, .at = {5, 5}}, SampleFault::already_down, true},
      {{.time = ms(10), .contact = 2, .phase = Phase::move, .at = {5, 5}}, SampleFault::not_down, true},
      {{.time = ms(10), .contact = 2, .phase = Phase::up, .at = {5, 5}}, SampleFault::not_down, true},
      {{.time = ms(-1), .contact = 1, .phase = Phase::move, .at = {5, 5}}, SampleFault::time_went_back, true},
      {{.time = ms(-1), .contact = 1, .phase = Phase::up, .at = {9, 9}}, SampleFault::time_went_back, false},
      {{.time = ms(10), .contact = 1, .phase = Phase::move, .at = {nan, 5}}, SampleFault::not_finite, true},
      {{.time = ms(10), .contact = 2, .phase = Phase::down, .at = {1e300, 5}}, SampleFault::not_finite, true},
      {{.time = never, .contact = 1, .phase = Phase::cancel, .at = {5, nan}}, SampleFault::not_finite, false},
  };
  for (const Case& c : cases) {
    Contacts contacts;
    contacts.admit({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {5, 5}});
    const auto admitted = contacts.admit(c.sample);
    CAPTURE(static_cast<int>(c.fault));
    CHECK(admitted.fault == c.fault);
    CHECK((admitted.contact == nullptr) == c.dropped);
    if (!c.dropped && c.fault != SampleFault::none) CHECK(admitted.contact->seen.at == Point{5, 5});
  }
}

TEST_CASE("a place is usable up to the farthest, on every side") {
  constexpr double far = Contacts::farthest;
  for (const Point way : {Point{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
    CHECK(usable({.at = way * far}));
    CHECK_FALSE(usable({.at = way * (far + 1e-3)}));
  }
}

TEST_CASE("every admitted down has exactly one end, whatever comes") {
  PROPERTY("wild streams", [] {
    const auto stream = *wild_stream();
    Contacts contacts;
    std::set<int> open;
    for (const Sample& sample : stream) {
      const auto admitted = contacts.admit(sample);
      if (admitted.contact == nullptr) continue;
      if (sample.phase == Phase::down) {
        RC_ASSERT(open.insert(sample.contact).second);
      } else {
        RC_ASSERT(open.contains(sample.contact));
      }
      if (sample.phase == Phase::up || sample.phase == Phase::cancel) {
        contacts.close(*admitted.contact);
        open.erase(sample.contact);
      }
      RC_ASSERT(contacts.open_count() == open.size());
      RC_ASSERT(open.size() <= Contacts::room);
    }
  });
}
