#include <set>

#include "check.hpp"

using namespace ubbo;

TEMPLATE_TEST_CASE(
    "each setting is declared once, its default is taken, and both sides of its range are held", "", Feel,
    StageSettings, SliderSettings, GestureSettings, PadSettings, PaneSettings) {
  std::set<std::string> names;
  const TestType standard{};
  CHECK_NOTHROW(check_settings("it", standard));
  for (const auto& setting : settings_of<TestType>()) {
    CAPTURE(setting.name);
    CHECK(names.insert(setting.name).second);
    CHECK(std::string_view(setting.meaning).size() > 5);
    if (setting.get == nullptr) continue;
    for (const double wrong : {setting.least - 1, setting.most + 1}) {
      if (setting.kind == SettingKind::flag) continue;  // a bool cannot hold a wrong value
      TestType changed{};
      setting.set(changed, wrong);
      CHECK_THROWS_WITH(check_settings("it", changed), Catch::Contains(std::string("it: ") + setting.name) &&
                                                           Catch::Contains(what_it_takes(setting)));
    }
    TestType changed{};
    setting.set(changed, setting.most);
    CHECK(setting.get(changed) == setting.most);
    CHECK_NOTHROW(check_settings("it", changed));
  }
}
