// What the suite over all kinds is run on: ours, and an app's own.
#include <map>

#include "own_part/dial.hpp"
#include "own_part/wheel.hpp"
#include "ubbo/testing/alone.hpp"

namespace ubbo::test {

const std::vector<KindUnderTest>& kinds_under_test() {
  static const std::vector<KindUnderTest> all = [] {
    const std::map<std::string_view, std::vector<std::pair<const char*, SettingValue>>> given{
        {"slider", {{"to", 10.0}, {"step", 1.0}}},
        {"pane",
         {{"min", -90.0}, {"max", 90.0}, {"axis", 0.0}, {"snap_points", std::vector{-90.0, 0.0, 90.0}}}},
        {"range-slider", {{"to", 10.0}, {"step", 1.0}, {"min_gap", 1.0}}},
        {"swipe-row",
         {{"leading", 60.0}, {"trailing", 80.0}, {"commit_distance", Length::of(0.6)}, {"timeout", 900.0}}},
        {"card-deck", {{"count", 6.0}}},
        {"carousel", {{"count", 5.0}, {"visible_items", 3.0}, {"commit_distance", Length::of(0.31)}}},
        {"page-dots", {{"count", 9.0}}},
        {"list", {{"count", 40.0}, {"gap", 4.0}}},
        {"sheet", {{"snap_points", std::vector{20.0, 40.0}}}},
        {"toast-tray", {{"time", 700.0}, {"button", std::string("Undo")}}},
    };
    std::vector<KindUnderTest> made;
    for (const PartKind* kind : shipped_kinds()) {
      const auto found = given.find(kind->name);
      made.push_back({kind, found == given.end() ? decltype(KindUnderTest::given){} : found->second});
    }
    made.push_back({&smoker::Dial::described()});
    made.push_back({&rounds::Wheel::described()});
    return made;
  }();
  return all;
}

}  // namespace ubbo::test
