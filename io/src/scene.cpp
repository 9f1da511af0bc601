#include "ubbo/io/scene.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <toml++/toml.h>

#include <algorithm>
#include <cmath>

#include "ubbo/io/input_error.hpp"
#include "ubbo/io/motion_spec.hpp"

namespace ubbo::io {

namespace {

constexpr std::array part_kinds{std::string_view{"slider"}, std::string_view{"pad"},
                                std::string_view{"pane"}};

class Reader {
 public:
  explicit Reader(const std::string& name) { scene_.file = name; }

  Scene read(std::string_view text) {
    toml::table root;
    try {
      root = toml::parse(text, scene_.file);
    } catch (const toml::parse_error& error) {
      refuse(error.source().begin, std::string(error.description()), "TOML");
    }
    know(root, "a scene", {"title", "screen", "feel", "cells", "part"});
    if (const auto* title = root.get("title")) scene_.title = text_of(*title, "title");
    if (const auto* screen = root.get("screen")) read_screen(table_of(*screen, "screen"));
    if (const auto* feel = root.get("feel")) read_feel(*feel);
    if (const auto* cells = root.get("cells")) read_cells(table_of(*cells, "cells"));
    if (const auto* parts = root.get("part")) read_parts(*parts);
    (void)SceneRun(scene_);  // what only a part can judge is judged now, with the line at hand
    return std::move(scene_);
  }

 private:
  [[noreturn]] void refuse(const toml::source_position& where, std::string found, std::string takes,
                           std::string nearest = {}) const {
    throw InputError(
        {scene_.file, where.line, where.column, std::move(found), std::move(takes), std::move(nearest)});
  }
  [[noreturn]] void refuse(const toml::node& node, std::string found, std::string takes,
                           std::string nearest = {}) const {
    refuse(node.source().begin, std::move(found), std::move(takes), std::move(nearest));
  }

  static std::string shown(const toml::node& node) {
    if (const auto value = node.value<std::string>()) return fmt::format("'{}'", *value);
    if (const auto value = node.value<double>()) return fmt::format("{}", *value);
    if (const auto value = node.value<bool>()) return *value ? "true" : "false";
    return node.is_table() ? "a table" : node.is_array() ? "a list" : "a date or time";
  }

  void know(const toml::table& table, std::string_view owner,
            const std::vector<std::string_view>& known) const {
    for (const auto& [key, node] : table)
      if (std::find(known.begin(), known.end(), key.str()) == known.end())
        refuse(key.source().begin, fmt::format("unknown key '{}' in {}", key.str(), owner),
               fmt::format("{}", fmt::join(known, ", ")), nearest_name(key.str(), known));
  }

  const toml::table& table_of(const toml::node& node, std::string_view name) const {
    if (const auto* table = node.as_table()) return *table;
    refuse(node, fmt::format("{} = {}", name, shown(node)), fmt::format("a table, [{}]", name));
  }

  std::string text_of(const toml::node& node, std::string_view name) const {
    if (const auto text = node.value_exact<std::string>()) return *text;
    refuse(node, fmt::format("{} = {}", name, shown(node)), "text in quotes");
  }

  double number_of(const toml::node& node, const SettingInfo& setting) const {
    const auto value = node.is_number() ? node.value<double>() : std::nullopt;
    if (value && *value >= setting.least && *value <= setting.most) return *value;
    refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting));
  }

  bool flag_of(const toml::node& node, std::string_view name) const {
    if (const auto flag = node.value_exact<bool>()) return *flag;
    refuse(node, fmt::format("{} = {}", name, shown(node)), "true or false");
  }

  std::vector<double> numbers_of(const toml::node& node, const SettingInfo& setting) const {
    const auto* list = node.as_array();
    if (list == nullptr)
      refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting));
    std::vector<double> numbers;
    for (const toml::node& entry : *list) numbers.push_back(number_of(entry, setting));
    return numbers;
  }

  double choice_of(const toml::node& node, const SettingInfo& setting) const {
    const auto text = node.value_exact<std::string>();
    for (std::size_t i = 0; text && i < setting.choices.size(); ++i)
      if (*text == setting.choices[i]) return static_cast<double>(i);
    const std::vector<std::string_view> known(setting.choices.begin(), setting.choices.end());
    refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting),
           text ? nearest_name(*text, known) : "");
  }

  template <class S>
  static void add_names(std::vector<std::string_view>& names) {
    for (const Setting<S>& setting : settings_of<S>()) names.emplace_back(setting.name);
  }

  template <class S>
  void read_settings(const toml::table& table, S& settings, std::map<std::string, std::string>* cells) const {
    for (const Setting<S>& setting : settings_of<S>()) {
      const toml::node* node = table.get(setting.name);
      if (node == nullptr) continue;
      switch (setting.kind) {
        case SettingKind::number:
        case SettingKind::time:
          setting.set(settings, number_of(*node, setting));
          break;
        case SettingKind::choice:
          setting.set(settings, choice_of(*node, setting));
          break;
        case SettingKind::text:
          settings.*setting.text = text_of(*node, setting.name);
          break;
        case SettingKind::flag: {
          setting.set(settings, flag_of(*node, setting.name) ? 1.0 : 0.0);
          break;
        }
        case SettingKind::numbers:
          settings.*setting.numbers = numbers_of(*node, setting);
          break;
        case SettingKind::passage:
          settings.*setting.passage = passage_of(*node, setting.name);
          break;
        case SettingKind::cell:
          if (cells != nullptr) (*cells)[setting.name] = cell_name(*node, setting.name);
          break;
      }
    }
  }

  Passage passage_of(const toml::node& node, std::string_view name) const {
    const std::string text = text_of(node, name);
    try {
      return read_passage(text);
    } catch (const SpecError& wrong) {
      // Behind the opening quote; a text in other quotes, or with escapes, is pointed at as a whole.
      toml::source_position where = node.source().begin;
      const bool plain =
          node.source().end.line == where.line && node.source().end.column == where.column + text.size() + 2;
      if (plain) where.column += static_cast<toml::source_index>(1 + wrong.facts().at);
      refuse(where, fmt::format("{} = \"{}\": {}", name, text, wrong.facts().found),
             fmt::format("{}; for example \"{}\"", wrong.facts().takes, wrong.facts().example));
    }
  }

  std::string cell_name(const toml::node& node, std::string_view setting) const {
    std::string name = text_of(node, setting);
    std::vector<std::string_view> known;
    for (const auto& [cell, value] : scene_.cells) {
      if (cell == name) return name;
      known.emplace_back(cell);
    }
    refuse(node, fmt::format("{} = '{}', which is no cell", setting, name),
           known.empty() ? "a name from [cells], which is empty"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_screen(const toml::table& table) {
    std::vector<std::string_view> known;
    for (const auto& setting : settings_of<StageSettings>())
      if (std::string_view(setting.name) != "journal") known.emplace_back(setting.name);
    know(table, "[screen]", known);
    read_settings(table, scene_.stage, nullptr);
  }

  Feel shipped_feel(const toml::node& node) const {
    const std::string name = text_of(node, "feel");
    std::vector<std::string_view> known;
    for (const NamedFeel& shipped : shipped_feels()) {
      if (name == shipped.name) return shipped.feel;
      known.emplace_back(shipped.name);
    }
    refuse(node, fmt::format("feel '{}'", name), fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_feel(const toml::node& node) {
    if (node.is_string()) {
      scene_.stage.feel = shipped_feel(node);
      return;
    }
    const toml::table& table = table_of(node, "feel");
    read_feel_table(table, "[feel]", {"like", "stylus", "mouse"}, scene_.stage.feel);
    if (const auto* stylus = table.get("stylus"))
      read_feel_table(table_of(*stylus, "feel.stylus"), "[feel.stylus]", {"like"}, scene_.stage.stylus);
    if (const auto* mouse = table.get("mouse"))
      read_feel_table(table_of(*mouse, "feel.mouse"), "[feel.mouse]", {"like"}, scene_.stage.mouse);
  }

  void read_feel_table(const toml::table& table, std::string_view name, std::vector<std::string_view> known,
                       Feel& feel) const {
    add_names<Feel>(known);
    know(table, name, known);
    if (const auto* like = table.get("like")) feel = shipped_feel(*like);
    read_settings(table, feel, nullptr);
  }

  void read_cells(const toml::table& table) {
    static const SettingInfo any{.name = "cell", .least = -1e9, .most = 1e9};
    for (const auto& [key, node] : table) {
      SettingInfo named = any;
      const std::string name(key.str());
      named.name = name.c_str();
      scene_.cells.emplace_back(name, number_of(node, named));
    }
  }

  void read_parts(const toml::node& node) {
    const auto* list = node.as_array();
    if (list == nullptr) refuse(node, "part = " + shown(node), "a list of tables, each headed [[part]]");
    for (const toml::node& entry : *list) {
      const auto* table = entry.as_table();
      if (table == nullptr) refuse(entry, shown(entry), "a table headed [[part]]");
      read_part(*table);
    }
  }

  const toml::node& need(const toml::table& table, std::string_view key, std::string_view takes) const {
    if (const auto* node = table.get(key)) return *node;
    refuse(table, fmt::format("a part without '{}'", key), std::string(takes));
  }

  // A part can only stand in relation to one that stands above it in the file.
  void must_stand_above(const toml::node& node) const {
    const std::string name = text_of(node, "a part's id");
    std::vector<std::string_view> known;
    for (const PartPlan& plan : scene_.parts) {
      if (plan.id == name) return;
      known.emplace_back(plan.id);
    }
    refuse(node, fmt::format("'{}', which is no part above this one", name),
           known.empty() ? "the id of a part above; there is none"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  template <class S>
  S part_settings(const toml::table& table, std::string_view what, PartPlan& plan) const {
    std::vector<std::string_view> known{"id",    "kind", "x", "y", "w", "h", "inside", "stands_back_for",
                                        "shares"};
    add_names<S>(known);
    know(table, what, known);
    S settings;
    read_settings(table, settings, &plan.cells);
    return settings;
  }

  void read_part(const toml::table& table) {
    const toml::node& kind_node =
        need(table, "kind", fmt::format("kind = \"{}\"", fmt::join(part_kinds, "\" or \"")));
    const std::string kind = text_of(kind_node, "kind");
    if (std::find(part_kinds.begin(), part_kinds.end(), kind) == part_kinds.end())
      refuse(kind_node, fmt::format("kind = '{}'", kind),
             fmt::format("one of {}", fmt::join(part_kinds, ", ")), nearest_name(kind, part_kinds));

    PartPlan plan;
    plan.line = table.source().begin.line;
    plan.column = table.source().begin.column;
    plan.id = text_of(need(table, "id", "id = \"a name of its own\""), "id");
    if (plan.id.empty()) refuse(*table.get("id"), "id = ''", "a name that is not empty");
    for (const PartPlan& other : scene_.parts)
      if (other.id == plan.id)
        refuse(*table.get("id"), fmt::format("id = '{}', which the part at line {} has", plan.id, other.line),
               "a name of its own");

    const toml::node* inside = table.get("inside");
    const toml::node* back = table.get("stands_back_for");
    if (inside != nullptr) plan.standing.inside = text_of(*inside, "inside");
    if (back != nullptr) plan.standing.stands_back_for = text_of(*back, "stands_back_for");
    for (const toml::node* other : {inside, back})
      if (other != nullptr) must_stand_above(*other);
    if (const auto* shares = table.get("shares")) plan.standing.shares = flag_of(*shares, "shares");

    const auto length = [&](const char* name, double least) {
      const SettingInfo info{.name = name, .unit = "dp", .least = least, .most = 100000.0};
      return number_of(need(table, name, fmt::format("{} = a length in dp", name)), info);
    };
    plan.box = {length("x", -100000.0), length("y", -100000.0), length("w", 1.0), length("h", 1.0)};

    if (kind == "slider") plan.settings = part_settings<SliderSettings>(table, "a slider", plan);
    if (kind == "pad") plan.settings = part_settings<PadSettings>(table, "a pad", plan);
    if (kind == "pane") plan.settings = part_settings<PaneSettings>(table, "a pane", plan);
    scene_.parts.push_back(std::move(plan));
  }

  Scene scene_;
};

}  // namespace

Scene parse_scene(std::string_view text, const std::string& name) { return Reader(name).read(text); }

Scene read_scene(const std::string& path) { return parse_scene(read_text(path), path); }

}  // namespace ubbo::io
