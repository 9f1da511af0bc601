#include "ubbo/io/scene/scene.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <toml++/toml.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdio>
#include <set>

#include "toml_guard.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

constexpr std::array placement_keys{"x", "y", "w", "h", "right", "bottom"};
constexpr std::array standing_keys{"inside", "stands_back_for", "stands_back_towards", "shares"};

class SceneReader {
 public:
  SceneReader(const std::string& name, Kinds kinds) {
    scene_.file = name;
    scene_.kinds = kinds;
  }

  Scene read(std::string_view text, std::span<const std::string> changes) {
    guard_toml(text, scene_.file);
    toml::table root;
    try {
      root = toml::parse(text, scene_.file);
    } catch (const toml::parse_error& error) {
      refuse(error.source().begin, std::string(error.description()), "TOML");
    }
    for (const std::string& change : changes) apply(root, change);
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
    // What has no place in the file came by a change.
    throw InputError({where.line == 0 ? "--set" : scene_.file, where.line, where.column, std::move(found),
                      std::move(takes), std::move(nearest)});
  }

  // "frames.step=2", "feel.drag_threshold=8".
  void apply(toml::table& root, const std::string& change) const {
    const std::size_t equals = change.find('=');
    const std::string name = change.substr(0, std::min(equals, change.size()));
    const std::size_t dot = name.find('.');
    if (equals == std::string::npos || dot == std::string::npos || dot == 0 || dot + 1 == name.size())
      refuse(toml::source_position{}, fmt::format("'{}'", change),
             "PART.SETTING=VALUE, feel.SETTING=VALUE, screen.SETTING=VALUE or cells.NAME=VALUE");
    const toml::table value = value_in(change.substr(equals + 1));
    std::string key = name.substr(dot + 1);
    toml::table* table = changed_table(root, name.substr(0, dot));
    if (const std::size_t inner = key.find('.'); inner != std::string::npos) {
      table = table_in(*table, key.substr(0, inner));
      key = key.substr(inner + 1);
    }
    table->insert_or_assign(key, *value.get("v"));
  }

  // As a scene has it, or else as text.
  toml::table value_in(const std::string& text) const {
    try {
      guard_toml(text, "--set");
      toml::table read = toml::parse("v = " + text);
      if (read.size() == 1) return read;
    } catch (const toml::parse_error&) {  // then it is text
    }
    toml::table words;
    words.insert_or_assign("v", text);
    return words;
  }

  static toml::table* table_in(toml::table& owner, const std::string& name) {
    if (toml::node* there = owner.get(name); there != nullptr && there->is_table()) return there->as_table();
    toml::table made;
    if (const toml::node* like = owner.get(name); like != nullptr && like->is_string())
      made.insert_or_assign("like", *like);  // feel = "gloved"
    owner.insert_or_assign(name, std::move(made));
    return owner.get(name)->as_table();
  }

  toml::table* changed_table(toml::table& root, const std::string& owner) const {
    std::vector<std::string> known{"feel", "screen", "cells"};
    if (std::find(known.begin(), known.end(), owner) != known.end()) return table_in(root, owner);
    if (toml::array* parts = root.get_as<toml::array>("part"))
      for (toml::node& part : *parts) {
        toml::table* table = part.as_table();
        const auto id = table == nullptr ? std::nullopt : (*table)["id"].value<std::string>();
        if (id == owner) return table;
        if (id) known.push_back(*id);
      }
    const std::vector<std::string_view> names(known.begin(), known.end());
    refuse(toml::source_position{}, fmt::format("'{}', which is no part", owner),
           fmt::format("{}", fmt::join(known, ", ")), nearest_name(owner, names));
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

  // A setting's value; that of a cell is not known yet.
  SettingValue value_of(const toml::node& node, const SettingInfo& setting) const {
    switch (setting.kind) {
      case SettingKind::number:
      case SettingKind::time:
        return number_of(node, setting);
      case SettingKind::choice:
        return choice_of(node, setting);
      case SettingKind::text:
        return text_of(node, setting.name);
      case SettingKind::flag:
        return flag_of(node, setting.name) ? 1.0 : 0.0;
      case SettingKind::numbers:
        return numbers_of(node, setting);
      case SettingKind::passage:
        return passage_of(node, setting.name);
      case SettingKind::cell:
        break;
    }
    return AnyCell{};
  }

  template <class S>
  void read_settings(const toml::table& table, S& settings) const {
    for (const Setting<S>& setting : settings_of<S>())
      if (const toml::node* node = table.get(setting.name))
        ubbo::detail::put_setting(setting, settings, value_of(*node, setting));
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

  // A whole number in a file is a number, until a part takes it for a whole one.
  void settle_kind(const toml::node& node, const SettingInfo& setting, std::string_view name,
                   CellValue& value) {
    const bool open = open_.contains(std::string(name));
    if (setting.cell_kind == CellKind::whole && open) value = static_cast<int>(std::get<double>(value));
    open_.erase(std::string(name));
    if (kind_of(value) == setting.cell_kind) return;
    refuse(node,
           fmt::format("{} = '{}', a cell that holds a {}", setting.name, name, name_of(kind_of(value))),
           fmt::format("a cell that holds a {}", name_of(setting.cell_kind)));
  }

  std::string cell_name(const toml::node& node, const SettingInfo& setting) {
    std::string name = text_of(node, setting.name);
    std::vector<std::string_view> known;
    for (auto& [cell, value] : scene_.cells) {
      if (cell == name) {
        settle_kind(node, setting, cell, value);
        return name;
      }
      known.emplace_back(cell);
    }
    refuse(node, fmt::format("{} = '{}', which is no cell", setting.name, name),
           known.empty() ? "a name from [cells], which is empty"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_screen(const toml::table& table) {
    std::vector<std::string_view> known;
    for (const auto& setting : settings_of<StageSettings>())
      if (is_scene_setting(setting.name)) known.emplace_back(setting.name);
    know(table, "[screen]", known);
    read_settings(table, scene_.stage);
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
    read_settings(table, feel);
  }

  void read_cells(const toml::table& table) {
    for (const auto& [key, node] : table) {
      const std::string name(key.str());
      scene_.cells.emplace_back(name, cell_value(node, name));
      if (node.is_integer()) open_.insert(name);
    }
  }

  CellValue cell_value(const toml::node& node, const std::string& name) const {
    if (const auto flag = node.value_exact<bool>()) return *flag;
    if (const auto text = node.value_exact<std::string>()) return *text;
    if (node.is_array()) return texts_of(node, name);
    if (const auto* table = node.as_table()) return choice_cell(*table, name);
    const SettingInfo any{.name = name.c_str(), .least = -1e9, .most = 1e9};
    if (node.is_number()) return number_of(node, any);
    refuse(node, fmt::format("{} = {}", name, shown(node)),
           "a number, true or false, a text, a list of texts, or { choice = \"a name\", of = [names] }");
  }

  std::vector<std::string> texts_of(const toml::node& node, std::string_view name) const {
    std::vector<std::string> texts;
    if (node.as_array() == nullptr)
      refuse(node, fmt::format("{} = {}", name, shown(node)), "a list of texts");
    for (const toml::node& entry : *node.as_array()) texts.push_back(text_of(entry, name));
    return texts;
  }

  Choice choice_cell(const toml::table& table, const std::string& name) const {
    know(table, "a choice", {"choice", "of"});
    const toml::node& of = need(table, "of", "of = [\"a name\", …]");
    const toml::node& chosen = need(table, "choice", "choice = \"one of the names\"");
    const std::vector<std::string> names = texts_of(of, name);
    const std::string text = text_of(chosen, name);
    const Choice made = Choice(names).with(text);
    const std::vector<std::string_view> known(names.begin(), names.end());
    if (made.name() != text || names.empty())
      refuse(chosen, fmt::format("choice = '{}'", text), fmt::format("one of {}", fmt::join(names, ", ")),
             nearest_name(text, known));
    return made;
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
    refuse(table, fmt::format("a table without '{}'", key), std::string(takes));
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

  // "40" dp, "50%" of the container, "50% - 8dp".
  Length length_of(const toml::node& node, std::string_view name) const {
    const char* takes = "a length in dp, a share such as \"50%\", or both, such as \"50% - 8dp\"";
    if (node.is_number()) {
      const SettingInfo info{.name = "a length", .unit = "dp", .least = -100000.0, .most = 100000.0};
      return number_of(node, info);
    }
    const std::string text = text_of(node, name);
    double share = 0.0;
    double dp = 0.0;
    char sign = '+';
    int used = 0;
    const auto whole = [&](int fields, int wanted) {
      return fields == wanted && used == static_cast<int>(text.size()) && std::fabs(share) <= 1000.0 &&
             std::fabs(dp) <= 100000.0 && (sign == '+' || sign == '-');
    };
    if (whole(std::sscanf(text.c_str(), " %lf %% %n", &share, &used), 1)) return Length::of(share / 100.0);
    if (whole(std::sscanf(text.c_str(), " %lf %% %c %lf dp %n", &share, &sign, &dp, &used), 3))
      return {sign == '-' ? -dp : dp, share / 100.0};
    refuse(node, fmt::format("{} = '{}'", name, text), takes);
  }

  Placement placement_of(const toml::table& table) const {
    Placement placement;
    const std::array fields{&placement.x, &placement.y,     &placement.w,
                            &placement.h, &placement.right, &placement.bottom};
    for (std::size_t i = 0; i < fields.size(); ++i)
      if (const toml::node* node = table.get(placement_keys[i]))
        *fields[i] = length_of(*node, placement_keys[i]);
    if (const auto* safe = table.get("in_safe_area")) placement.in_safe_area = flag_of(*safe, "in_safe_area");
    if (const std::string fault = fault_of(placement); !fault.empty())
      refuse(table, fault,
             "x, y, w, h in dp, as a share of the container (\"50%\"), or right and bottom as distances from "
             "its edges");
    return placement;
  }

  Standing standing_of(const toml::table& table) const {
    Standing standing;
    const toml::node* inside = table.get("inside");
    const toml::node* back = table.get("stands_back_for");
    if (inside != nullptr) standing.inside = text_of(*inside, "inside");
    if (back != nullptr) standing.stands_back_for = text_of(*back, "stands_back_for");
    for (const toml::node* other : {inside, back})
      if (other != nullptr) must_stand_above(*other);
    if (const auto* shares = table.get("shares")) standing.shares = flag_of(*shares, "shares");
    if (const auto* towards = table.get("stands_back_towards")) {
      const SettingInfo info{
          .name = "stands_back_towards", .kind = SettingKind::choice, .choices = towards_names};
      standing.towards = static_cast<Towards>(static_cast<int>(choice_of(*towards, info)));
    }
    return standing;
  }

  const PartKind& kind_in(const toml::table& table) const {
    std::vector<std::string_view> known;
    for (const PartKind* kind : scene_.kinds) known.emplace_back(kind->name);
    const toml::node& node = need(table, "kind", fmt::format("kind = \"{}\"", fmt::join(known, "\" or \"")));
    const std::string name = text_of(node, "kind");
    if (const PartKind* kind = find_kind(scene_.kinds, name)) return *kind;
    refuse(node, fmt::format("kind = '{}'", name), fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_part(const toml::table& table) {
    PartPlan plan;
    plan.kind = &kind_in(table);
    plan.line = table.source().begin.line;
    plan.column = table.source().begin.column;
    plan.id = text_of(need(table, "id", "id = \"a name of its own\""), "id");
    if (plan.id.empty()) refuse(*table.get("id"), "id = ''", "a name that is not empty");
    for (const PartPlan& other : scene_.parts)
      if (other.id == plan.id)
        refuse(*table.get("id"), fmt::format("id = '{}', which the part at line {} has", plan.id, other.line),
               "a name of its own");
    std::vector<std::string_view> known{"id", "kind", "in_safe_area", "hidden", "disabled"};
    known.insert(known.end(), placement_keys.begin(), placement_keys.end());
    known.insert(known.end(), standing_keys.begin(), standing_keys.end());
    for (std::size_t i = 0; i < plan.kind->settings(); ++i) known.emplace_back(plan.kind->setting(i).name);
    know(table, fmt::format("a {}", plan.kind->name), known);
    plan.standing = standing_of(table);
    plan.placement = placement_of(table);
    if (const auto* hidden = table.get("hidden")) plan.hidden = flag_of(*hidden, "hidden");
    if (const auto* disabled = table.get("disabled")) plan.disabled = flag_of(*disabled, "disabled");
    plan.settings = plan.kind->fresh();
    for (std::size_t i = 0; i < plan.kind->settings(); ++i) {
      const SettingInfo& setting = plan.kind->setting(i);
      const toml::node* node = table.get(setting.name);
      if (node == nullptr) continue;
      if (setting.kind == SettingKind::cell)
        plan.cells[setting.name] = cell_name(*node, setting);
      else
        plan.kind->put(plan.settings.get(), i, value_of(*node, setting));
    }
    scene_.parts.push_back(std::move(plan));
  }

  std::set<std::string> open_;  // cells whose whole number may still be a number or a whole one
  Scene scene_;
};

}  // namespace

Scene parse_scene(std::string_view text, const std::string& name, Kinds kinds,
                  std::span<const std::string> changes) {
  return SceneReader(name, kinds).read(text, changes);
}

Scene read_scene(const std::string& path, Kinds kinds, std::span<const std::string> changes) {
  return parse_scene(read_text(path), path, kinds, changes);
}

}  // namespace ubbo::io
