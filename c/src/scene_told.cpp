#include "scene_told.hpp"

#include <algorithm>
#include <set>

#include "ubbo/io/scene/setting_text.hpp"
#include "ubbo/io/text/json.hpp"

namespace ubbo::c {

namespace {

using io::Json;

constexpr std::array kind_names{"number", "time",    "flag",       "choice", "text",
                                "cell",   "numbers", "transition", "length"};

Json setting_json(const SettingInfo& setting, const SettingValue& standard) {
  Json made{{"name", setting.name},
            {"kind", kind_names[static_cast<std::size_t>(setting.kind)]},
            {"unit", setting.unit},
            {"default", io::setting_text(setting, standard)},
            {"takes", what_it_takes(setting)},
            {"meaning", setting.meaning}};
  if (setting.kind == SettingKind::number || setting.kind == SettingKind::time ||
      setting.kind == SettingKind::numbers) {
    made["min"] = setting.min;
    made["max"] = setting.max;
    made["whole"] = setting.whole;
  }
  if (!setting.choices.empty()) {
    made["choices"] = Json::array();
    for (const char* choice : setting.choices) made["choices"].push_back(choice);
  }
  if (*setting.like != '\0') made["like"] = setting.like;
  return made;
}

// The settings of a struct that a scene says under one name, and their values.
template <class S>
Json group_json(const char* name, const char* words, const S& now) {
  Json made{{"name", name}, {"words", words}, {"settings", Json::array()}, {"values", Json::array()}};
  const S fresh{};
  for (const Setting<S>& setting : settings_of<S>()) {
    if (std::is_same_v<S, StageSettings> && !io::is_scene_setting(setting.name)) continue;
    made["settings"].push_back(setting_json(setting, get_setting(setting, fresh)));
    made["values"].push_back(io::setting_text(setting, get_setting(setting, now)));
  }
  return made;
}

Json kind_settings(const PartKind& kind) {
  Json made = Json::array();
  const AnySettings fresh = kind.fresh();
  for (std::size_t i = 0; i < kind.settings(); ++i)
    made.push_back(setting_json(kind.setting(i), kind.get(fresh, i)));
  return made;
}

Json kind_json(const PartKind& kind) {
  Json made{{"words", kind.words()}, {"means", kind.means},       {"role", kind.role},
            {"keys", kind.keys},     {"readings", Json::array()}, {"actions", Json::array()}};
  for (const ReadingInfo& reading : kind.readings)
    made["readings"].push_back(
        {{"name", reading.name}, {"unit", reading.unit}, {"means", reading.means}, {"usual", reading.usual}});
  for (const PartAction& action : kind.actions)
    made["actions"].push_back({{"name", action.name}, {"means", action.means}});
  return made;
}

Json part_settings(const io::PartPlan& part) {
  Json made{{"id", part.id},          {"kind", part.kind->name}, {"inside", part.contact_rules.inside},
            {"line", part.line},      {"values", Json::array()}, {"said", Json::object()},
            {"cells", Json::object()}};
  for (std::size_t i = 0; i < part.kind->settings(); ++i)
    made["values"].push_back(io::setting_text(part.kind->setting(i), part.kind->get(part.settings, i)));
  for (const auto& [setting, place] : part.places) made["said"][setting] = place.line;
  for (const auto& [setting, cell] : part.cells) made["cells"][setting] = cell;
  return made;
}

Json cell_json(const std::string& name, const io::CellValue& value) {
  Json made{{"name", name}, {"kind", name_of(io::kind_of(value))}, {"value", io::shown(value)}};
  if (const auto* choice = std::get_if<Choice>(&value)) {
    made["choices"] = Json::array();
    for (const std::string& one : choice->names()) made["choices"].push_back(one);
  }
  return made;
}

// The images that a scene names, with "{item}" where each item has its own.
Json images_of(const io::Scene& scene) {
  std::set<std::string> names;
  for (const io::PartPlan& part : scene.parts)
    if (!part.content.image.empty()) names.insert(part.content.image);
  return std::vector<std::string>(names.begin(), names.end());
}

}  // namespace

std::string scene_told(const io::Scene& scene) {
  const StageSettings& stage = scene.stage;
  const Insets& safe = stage.safe;
  Json root{{"title", scene.title},
            {"file", scene.file},
            {"screen",
             {{"w", stage.width},
              {"h", stage.height},
              {"safe", {safe.left, safe.top, safe.right, safe.bottom}},
              {"right_to_left", stage.right_to_left}}},
            {"cells", Json::array()},
            {"parts", Json::array()},
            {"kinds", Json::object()},
            {"images", images_of(scene)},
            {"keys", Json::array()}};
  for (const auto& [name, value] : scene.cells) root["cells"].push_back(cell_json(name, value));
  for (const io::PartPlan& part : scene.parts) {
    root["parts"].push_back(
        {{"id", part.id}, {"kind", part.kind->name}, {"inside", part.contact_rules.inside}});
    if (!root["kinds"].contains(part.kind->name)) root["kinds"][part.kind->name] = kind_json(*part.kind);
  }
  for (const Key key : all_keys()) root["keys"].push_back(name_of(key));
  return io::json_text(root, -1);
}

std::string scene_settings(const io::Scene& scene) {
  const StageSettings& stage = scene.stage;
  Json root{{"kinds", Json::object()}, {"parts", Json::array()}, {"groups", Json::array()}};
  for (const io::PartPlan& part : scene.parts) {
    root["parts"].push_back(part_settings(part));
    if (!root["kinds"].contains(part.kind->name)) root["kinds"][part.kind->name] = kind_settings(*part.kind);
  }
  root["groups"].push_back(group_json("feel", "fingers", stage.feel));
  root["groups"].push_back(group_json("feel.stylus", "pens", stage.stylus));
  root["groups"].push_back(group_json("feel.mouse", "the mouse", stage.mouse));
  root["groups"].push_back(group_json("feel.wheel", "wheels and trackpads", stage.wheel));
  root["groups"].push_back(group_json("screen", "the screen", stage));
  return io::json_text(root, -1);
}

}  // namespace ubbo::c
