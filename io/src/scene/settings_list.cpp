#include "ubbo/io/scene/settings_list.hpp"

#include <fmt/format.h>

#include <stdexcept>
#include <vector>

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/scene/setting_text.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::io {

namespace {

struct Row {
  std::string name;
  std::string unit;
  std::string standard;
  std::string takes;
  std::string meaning;
};

struct Group {
  std::string name;
  std::string place;  // what it is, and where it stands in a scene
  std::vector<Row> rows;
};

std::string default_of(const SettingInfo& setting, const SettingValue& value) {
  if (*setting.like != '\0') return fmt::format("as {}", setting.like);
  if (setting.kind == SettingKind::cell) return "none";
  const std::string text = setting_text(setting, value);
  return text.empty() ? "\"\"" : text;
}

void add_row(Group& group, const SettingInfo& setting, const SettingValue& standard) {
  group.rows.push_back(
      {setting.name, setting.unit, default_of(setting, standard), what_it_takes(setting), setting.meaning});
}

template <class S>
Group group(std::string name, std::string place) {
  Group made{std::move(name), std::move(place), {}};
  static const S fresh{};
  for (const Setting<S>& setting : settings_of<S>())
    if (!std::is_same_v<S, StageSettings> || is_scene_setting(setting.name))
      add_row(made, setting, get_setting(setting, fresh));
  return made;
}

Group group(const PartKind& kind) {
  Group made{kind.name,
             fmt::format("{}; in a scene under `[[part]]` with `kind = \"{}\"`", kind.means, kind.name),
             {}};
  const AnySettings fresh = kind.fresh();
  for (std::size_t i = 0; i < kind.settings(); ++i) add_row(made, kind.setting(i), kind.get(fresh, i));
  return made;
}

std::string text_of(const Group& group) {
  std::string text = fmt::format("{}: {}\n", group.name, group.place);
  for (const Row& row : group.rows)
    text += fmt::format("  {:<23} {:<14} {}; {}\n", row.name,
                        row.standard + (row.unit.empty() ? "" : " " + row.unit), row.meaning, row.takes);
  return text;
}

// The shipped feels side by side.
std::string feels_text() {
  std::string text = fmt::format("\n  {:<23}", "shipped feels");
  for (const NamedFeel& feel : shipped_feels()) text += fmt::format(" {:>12}", feel.name);
  text += "\n";
  for (const Setting<Feel>& setting : settings_of<Feel>()) {
    text += fmt::format("  {:<23}", setting.name);
    for (const NamedFeel& feel : shipped_feels())
      text += fmt::format(" {:>12}", default_of(setting, get_setting(setting, feel.feel)));
    text += fmt::format(" {}\n", setting.unit);
  }
  return text;
}

std::string markdown_of(const Group& group) {
  std::string text =
      fmt::format("\n## {}\n\n{}\n\n| setting | default | unit | takes | meaning |\n|---|---|---|---|---|\n",
                  group.name, group.place);
  for (const Row& row : group.rows)
    text += fmt::format("| `{}` | {} | {} | {} | {} |\n", row.name, row.standard, row.unit, row.takes,
                        row.meaning);
  return text;
}

Json json_of(const Group& group) {
  Json rows = Json::array();
  for (const Row& row : group.rows)
    rows.push_back({{"name", row.name},
                    {"unit", row.unit},
                    {"default", row.standard},
                    {"takes", row.takes},
                    {"meaning", row.meaning}});
  return rows;
}

}  // namespace

std::string settings_list(std::string_view of, SettingsFormat format, Kinds kinds) {
  std::vector<Group> groups{
      group<StageSettings>("screen", "in a scene under `[screen]`; in code `StageSettings`"),
      group<Feel>("feel", "in a scene under `[feel]`, over the shipped feel named by `like`; in code `Feel`"),
      group<WheelFeel>("feel.wheel", "in a scene under `[feel.wheel]`; in code `WheelFeel`"),
      group<HoverContent>("hover", "in a scene under `[[part]]`, as `hover = { … }`; in code `HoverContent`"),
  };
  for (const PartKind* kind : kinds) groups.push_back(group(*kind));
  std::string text;
  Json root = Json::object();
  if (format == SettingsFormat::markdown)
    text = "# Settings\n\nMade from the settings tables by `./dev docs`; times are in milliseconds.\n";
  std::vector<std::string_view> known;
  for (const Group& one : groups) {
    known.push_back(one.name);
    if (!of.empty() && of != one.name) continue;
    if (format == SettingsFormat::json)
      root[one.name] = json_of(one);
    else
      text += format == SettingsFormat::markdown ? markdown_of(one) : text_of(one);
    if (format == SettingsFormat::text && of == "feel" && one.name == of) text += feels_text();
  }
  if (!of.empty() && std::find(known.begin(), known.end(), of) == known.end())
    throw std::invalid_argument(
        fmt::format("settings: no group '{}'; takes {}{}", of, fmt::join(known, ", "),
                    nearest_name(of, known).empty() ? "" : "; nearest known: " + nearest_name(of, known)));
  return format == SettingsFormat::json ? json_text(root) : text;
}

}  // namespace ubbo::io
