#include <set>

#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEMPLATE_TEST_CASE(
    "each setting is declared once, its default is taken, and both sides of its range are held", "", Feel,
    StageSettings, GestureSettings) {
  std::set<std::string> names;
  const TestType standard{};
  CHECK_NOTHROW(check_settings("it", standard));
  for (const auto& setting : settings_of<TestType>()) {
    CAPTURE(setting.name);
    CHECK(names.insert(setting.name).second);
    CHECK(std::string_view(setting.meaning).size() > 5);
    if (!std::holds_alternative<double>(get_setting(setting, standard))) continue;
    for (const double wrong : {setting.min - 1, setting.max + 1}) {
      if (setting.kind == SettingKind::flag) continue;  // a bool cannot hold a wrong value
      TestType changed{};
      CHECK(put_setting(setting, changed, wrong));
      CHECK_THROWS_WITH(check_settings("it", changed), Catch::Contains(std::string("it: ") + setting.name) &&
                                                           Catch::Contains(what_it_takes(setting)));
    }
    TestType changed{};
    CHECK(put_setting(setting, changed, setting.max));
    CHECK(std::get<double>(get_setting(setting, changed)) == setting.max);
    CHECK_NOTHROW(check_settings("it", changed));
  }
}

TEST_CASE("the settings of each kind of part say truly what they take") {
  each_kind([](const PartKind& kind) {
    std::set<std::string> names;
    const Box box{0, 0, 300, 48};
    const Alone alone(kind, false);
    const AnySettings sound = kind.settings_of(*alone.part);
    CHECK(kind.fault("it", box, sound) == "");
    const auto fault_with = [&](std::size_t at, const SettingValue& value) {
      AnySettings changed = sound;
      CHECK(kind.put(changed, at, value) == "");
      CHECK(kind.fault("it", box, sound) == "");  // a copy shares nothing
      return kind.fault("it", box, changed);
    };
    for (std::size_t i = 0; i < kind.settings(); ++i) {
      const SettingInfo& setting = kind.setting(i);
      CAPTURE(setting.name);
      CHECK(names.insert(setting.name).second);
      CHECK(std::string_view(setting.meaning).size() > 5);
      const std::string of_it = kind.words() + " 'it': " + setting.name;
      if (setting.kind == SettingKind::transition)
        CHECK_THAT(fault_with(i, Transition(Timed{Curve{}, ms(200)}).repeated(2)),
                   Catch::Equals(of_it +
                                 " repeats; it takes one that is gone once, so that the part comes to rest"));
      const bool counts = setting.kind == SettingKind::number || setting.kind == SettingKind::time;
      const bool lists = setting.kind == SettingKind::numbers;
      if (!counts && !lists) continue;
      const auto value = [&](double number) {
        return lists ? SettingValue(std::vector{number, number}) : SettingValue(number);
      };
      for (const double wrong : {setting.min - 1.0, setting.max + 1.0, std::nan("")})
        CHECK_THAT(fault_with(i, value(wrong)), Catch::StartsWith(of_it) && Catch::Contains("it takes") &&
                                                    Catch::Contains(plain_number(setting.max)));
      if (setting.whole)
        CHECK_THAT(fault_with(i, value(setting.min + 0.5)), Catch::Contains("a whole number"));
      // Its bounds are taken, if other settings allow it.
      for (const double bound : {setting.min, setting.max})
        CHECK_THAT(fault_with(i, value(bound)), !Catch::Contains("it takes " + what_it_takes(setting)));
    }
  });
}

TEST_CASE("a length is written as scenes take it") {
  CHECK(length_text(Length(24)) == "24dp");
  CHECK(length_text(Length(0)) == "0");
  CHECK(length_text(Length::of(0.5)) == "50%");
  CHECK(length_text(Length(8, 0.5)) == "50% + 8dp");
  CHECK(length_text(Length(-8, 0.25)) == "25% - 8dp");
}
