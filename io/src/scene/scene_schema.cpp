#include "ubbo/io/scene/scene_schema.hpp"

#include <fmt/format.h>

#include <array>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::io {

namespace {

Json said(const char* type, const std::string& means) { return {{"type", type}, {"description", means}}; }

Json choice_of(std::span<const char* const> choices, const std::string& means) {
  Json one = said("string", means);
  one["enum"] = Json::array();
  for (const char* choice : choices) one["enum"].push_back(choice);
  return one;
}

Json ranged(const SettingInfo& setting, const std::string& means) {
  Json one = said("number", means);
  if (std::isfinite(setting.min)) one["minimum"] = setting.min;
  if (std::isfinite(setting.max)) one["maximum"] = setting.max;
  return one;
}

Json schema_of(const SettingInfo& setting) {
  const std::string unit = *setting.unit == '\0' ? "" : fmt::format(" [{}]", setting.unit);
  const std::string means = setting.meaning + unit;
  switch (setting.kind) {
    case SettingKind::number:
    case SettingKind::time:
      return ranged(setting, means);
    case SettingKind::choice:
      return choice_of(setting.choices, means);
    case SettingKind::flag:
      return said("boolean", means);
    case SettingKind::length: {
      Json one = ranged(setting, means);
      one["type"] = {"number", "string"};
      one["pattern"] = R"(^\s*[0-9.]+\s*(dp|%)\s*$)";
      return one;
    }
    case SettingKind::numbers: {
      Json one = said("array", means);
      one["items"] = ranged(setting, "");
      return one;
    }
    case SettingKind::text:
    case SettingKind::cell:
    case SettingKind::transition:
      break;
  }
  return said("string", means);
}

Json object_of(Json properties) {
  return {{"type", "object"}, {"properties", std::move(properties)}, {"additionalProperties", false}};
}

// A setting under its name, which may lead into a table: "travel.from_edge".
void put(Json& properties, const std::string& name, Json schema) {
  const std::size_t dot = name.find('.');
  if (dot == std::string::npos) {
    properties[name] = std::move(schema);
    return;
  }
  Json& inner = properties[name.substr(0, dot)];
  if (inner.is_null()) inner = object_of(Json::object());
  if (inner.at("type").is_string() &&
      inner.at("type").text() == "string") {  // for all, or as a table for some more
    const Json all = inner;
    inner.update(object_of({{"all", all}}));
    inner["type"] = Json::array({"string", "object"});
  }
  put(inner["properties"], name.substr(dot + 1), std::move(schema));
}

Json length(const char* means) {
  Json one{{"description", means}};
  one["type"] = Json::array({"number", "string"});
  return one;
}

template <class S>
void add_settings(Json& properties) {
  for (const Setting<S>& setting : settings_of<S>())
    if (!std::is_same_v<S, StageSettings> || is_scene_setting(setting.name))
      put(properties, setting.name, schema_of(setting));
}

void add_layout(Json& properties) {
  constexpr std::array<const char*, 2> ways{"column", "row"};
  properties["layout"] = choice_of(ways, "how what lies in it is laid out");
  if (!properties.contains("gap")) properties["gap"] = said("number", "between what is laid out [dp]");
  properties["padding"] = {{"description",
                            "between its edges and what is laid out [dp]; or [top and bottom, left and "
                            "right], or [top, right, bottom, left]"}};
  properties["padding"]["type"] = Json::array({"number", "array"});
}

Json feel_schema() {
  Json names = Json::array();
  for (const NamedFeel& feel : shipped_feels()) names.push_back(feel.name);
  const Json name{{"type", "string"}, {"enum", names}, {"description", "a shipped feel"}};
  Json own = Json::object();
  add_settings<Feel>(own);
  own["like"] = name;
  Json all = own;
  all["stylus"] = object_of(own);
  all["mouse"] = object_of(own);
  Json wheel = Json::object();
  add_settings<WheelFeel>(wheel);
  all["wheel"] = object_of(wheel);
  return {{"description", "how touches are judged"}, {"oneOf", Json::array({name, object_of(all)})}};
}

// Keys of any part.
Json part_keys() {
  Json keys = Json::object();
  keys["id"] = said("string", "its own name");
  keys["kind"] = said("string", "what it is");
  keys["template"] = said("string", "a [template.NAME] that says the rest");
  keys["each"] = said("array", "a part for each entry; what that says counts first");
  keys["each"]["items"] = {{"type", "object"}};
  keys["part"] = said("array", "what lies in it");
  keys["part"]["items"] = {{"$ref", "#/definitions/part"}};
  keys["box"] = said("array", "x, y, w, h");
  keys["box"]["items"] = length("[dp], or a share such as \"50%\"");
  keys["box"]["minItems"] = 4;
  keys["box"]["maxItems"] = 4;
  for (const auto& [name, means] : {std::pair{"x", "from the left edge of what it lies in [dp]"},
                                    {"y", "from the top edge [dp]"},
                                    {"w", "width [dp]"},
                                    {"h", "height [dp]"},
                                    {"right", "from the right edge, inwards [dp]"},
                                    {"bottom", "from the bottom edge, inwards [dp]"}})
    keys[name] = length(means);
  keys["in_safe_area"] = said("boolean", "its place counts from within notch and system bars");
  keys["hidden"] = said("boolean", "it is not shown at first");
  keys["disabled"] = said("boolean", "it answers nothing at first");
  keys["inside"] = said("string", "the part it lies in");
  keys["yields_to"] = said("string", "a part that it leaves a contact to");
  keys["yield_direction"] = choice_of(yield_direction_names, "in which direction it does");
  keys["observes"] = said("boolean", "it sees every contact that goes down on it");
  keys["detail"] = said("string", "a second line below its label");
  keys["glyph"] = said("string", "a sign beside its label");
  keys["image"] = said("string", "a picture that fills it; {item}: the number of each item");
  keys["rank"] = choice_of(rank_names, "what an action is to people");
  Json hover = Json::object();
  add_settings<HoverContent>(hover);
  keys["hover"] = object_of(hover);
  keys["hover"]["description"] = "what comes over it under a mouse or pen";
  keys["feel"] = {{"$ref", "#/definitions/feel"}};
  add_layout(keys);
  return keys;
}

}  // namespace

std::string scene_schema(Kinds kinds) {
  Json root{{"$schema", "http://json-schema.org/draft-07/schema#"},
            {"title", "A scene of Ubbo"},
            {"description", "One screen: its cells and its parts"}};
  Json kind_names = Json::array();
  Json cases = Json::array();
  Json& definitions = root["definitions"] = Json::object();
  definitions["feel"] = feel_schema();
  Json any = part_keys();
  for (const PartKind* kind : kinds) {
    kind_names.push_back(kind->name);
    Json keys = part_keys();
    for (std::size_t i = 0; i < kind->settings(); ++i)
      put(keys, kind->setting(i).name, schema_of(kind->setting(i)));
    for (const auto& [name, schema] : keys.items())
      if (!any.contains(name)) any[name] = Json::object();
    Json made = object_of(std::move(keys));
    made["description"] = kind->means;
    // What is said of a part of its template stands in a table under that part's id. Without one there is no
    // other key, and an editor is told which there are.
    made["additionalProperties"] = Json{{"type", "object"}};
    Json names = Json::array();
    for (const auto& [name, schema] : made["properties"].items()) names.push_back(name);
    made["if"] = {{"not", {{"required", Json::array({"template"})}}}};
    made["then"] = {{"propertyNames", {{"enum", std::move(names)}}}};
    definitions[kind->name] = std::move(made);
    cases.push_back(
        {{"if", {{"properties", {{"kind", {{"const", kind->name}}}}}, {"required", Json::array({"kind"})}}},
         {"then", {{"$ref", std::string("#/definitions/") + kind->name}}}});
  }
  any["kind"]["enum"] = kind_names;
  definitions["part"] = object_of(std::move(any));
  definitions["part"]["additionalProperties"] = Json{{"type", "object"}};
  definitions["part"]["allOf"] = std::move(cases);

  Json keys = Json::object();
  keys["title"] = said("string", "what the screen is called");
  Json screen = Json::object();
  add_settings<StageSettings>(screen);
  add_layout(screen);
  keys["screen"] = object_of(std::move(screen));
  keys["feel"] = {{"$ref", "#/definitions/feel"}};
  keys["cells"] = said("object", "the app's values, by name");
  keys["template"] = said("object", "parts that are made often, by name");
  keys["template"]["additionalProperties"] = {{"$ref", "#/definitions/part"}};
  keys["part"] = said("array", "from the lowest to the topmost");
  keys["part"]["items"] = {{"$ref", "#/definitions/part"}};
  Json silence = Json::object();
  for (const auto& [name, means] : {std::pair{"rule", "a rule of `ubbo check`"},
                                    {"of", "the part, cell or feel it is about; left out: any"},
                                    {"reason", "why this is meant so"}})
    silence[name] = said("string", means);
  Json silences = object_of(std::move(silence));
  silences["required"] = Json::array({"rule", "reason"});
  keys["silence"] = said("array", "what `ubbo check` finds that is meant so");
  keys["silence"]["items"] = std::move(silences);
  root.update(object_of(std::move(keys)));
  return json_text(root);
}

}  // namespace ubbo::io
