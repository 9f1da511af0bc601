#include "ubbo/io/scene/scene.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <toml++/toml.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "arrange.hpp"
#include "part_source.hpp"
#include "scene_changes.hpp"
#include "toml_guard.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

constexpr std::array placement_keys{"x", "y", "w", "h", "right", "bottom"};
constexpr std::array standing_keys{"inside", "yields_to", "yield_direction", "observes"};
constexpr std::array content_keys{"detail", "glyph", "image", "rank"};
constexpr std::array layout_keys{"layout", "gap", "padding"};
constexpr std::array making_keys{"id",   "kind",         "box",    "template", "each",
                                 "part", "in_safe_area", "hidden", "disabled", "feel"};
constexpr std::size_t max_parts = 10'000;

const toml::node* get(const toml::table& table, std::string_view key) { return node_at(table, key); }
const toml::node* get(const PartSource& source, std::string_view key) { return source.get(key); }
const toml::table& whole(const toml::table& table) { return table; }
const toml::table& whole(const PartSource& source) { return source.place(); }

template <std::size_t N>
void add(std::vector<std::string_view>& names, const std::array<const char*, N>& more) {
  names.insert(names.end(), more.begin(), more.end());
}

class SceneReader {
 public:
  SceneReader(const std::string& name, Kinds kinds, const TextWidth& measure) : measure_(&measure) {
    scene_.file = name;
    scene_.kinds = kinds;
  }

  SceneRead read(std::string_view text, std::span<const std::string> changes) {
    attempt([&] { read_tables(text, changes); });
    drop_broken();
    make_parts();
    return {std::move(scene_), std::move(wrong_)};
  }

 private:
  void read_tables(std::string_view text, std::span<const std::string> changes) {
    guard_toml(text, scene_.file);
    toml::table root;
    try {
      root = toml::parse(text, scene_.file);
    } catch (const toml::parse_error& error) {
      refuse(error.source().begin, std::string(error.description()), "TOML");
    }
    for (const std::string& change : changes) change_scene(root, change);
    root_ = &root;
    know(root, "a scene", {"title", "screen", "feel", "cells", "template", "part", "silence"});
    try_with(root, "title", [this](const toml::node& title) { scene_.title = text_of(title, "title"); });
    try_with(root, "screen", [this](const toml::node& screen) { read_screen(table_of(screen, "screen")); });
    try_with(root, "feel", [this](const toml::node& feel) { scene_feel(feel); });
    try_with(root, "cells", [this](const toml::node& cells) { read_cells(table_of(cells, "cells")); });
    try_with(root, "part", [this](const toml::node& parts) { read_parts(parts); });
    attempt([this] { lay_out(); });
    try_with(root, "silence", [this](const toml::node& silences) { read_silences(silences); });
    root_ = nullptr;
  }

  // Takes out the parts that are wrong, what lies in them, and what names them.
  void drop_broken() {
    const auto there = [this](const std::string& id) {
      return id.empty() || std::any_of(scene_.parts.begin(), scene_.parts.end(),
                                       [&](const PartPlan& plan) { return plan.id == id; });
    };
    std::erase_if(scene_.parts, [this](const PartPlan& plan) { return broken_.contains(plan.id); });
    while (std::erase_if(scene_.parts, [&](const PartPlan& plan) {
             return !there(plan.contact_rules.inside) || !there(plan.contact_rules.yields_to);
           }) > 0) {
    }
  }

  // What only a part can judge is judged now, with the line at hand: each refusal takes its part out.
  void make_parts() {
    const std::size_t most = scene_.parts.size();
    for (std::size_t i = 0; i <= most; ++i) try {
        (void)SceneRun(scene_);
        return;
      } catch (const InputError& error) {
        wrong_.push_back(error.facts());
        for (const PartPlan& plan : scene_.parts)
          if (plan.line == error.facts().line && plan.column == error.facts().column) broken_.insert(plan.id);
        drop_broken();
      }
  }

  // What is wrong is noted, and reading goes on, so that a user hears of all of it at once.
  template <class Read>
  void attempt(Read&& read) {
    try {
      read();
    } catch (const InputError& error) {
      failed_ = true;
      // What a template says wrongly is said once, however often it is used.
      for (const InputError::Facts& one : error.all())
        if (std::none_of(wrong_.begin(), wrong_.end(), [&](const InputError::Facts& said) {
              return one.line != 0 && said.line == one.line && said.column == one.column &&
                     said.found == one.found;
            }))
          wrong_.push_back(one);
    }
  }
  template <class Table, class Read>
  void try_with(const Table& table, std::string_view key, Read&& read) {
    if (const toml::node* node = get(table, key)) attempt([&] { read(*node); });
  }

  [[noreturn]] void refuse(const toml::source_position& where, std::string found, std::string takes,
                           std::string nearest = {}) const {
    // What has no place in the file came by a change.
    throw InputError({where.line == 0 ? "--set" : scene_.file, where.line, where.column, std::move(found),
                      std::move(takes), std::move(nearest)});
  }

  [[noreturn]] void refuse(const toml::node& node, std::string found, std::string takes,
                           std::string nearest = {}) const {
    refuse(node.source().begin, std::move(found), std::move(takes), std::move(nearest));
  }

  static FilePlace place_in(const toml::node& node) {
    return {node.source().begin.line, node.source().begin.column};
  }

  static std::string shown(const toml::node& node) {
    if (const auto value = node.value<std::string>()) return fmt::format("'{}'", *value);
    if (const auto value = node.value<double>()) return fmt::format("{}", *value);
    if (const auto value = node.value<bool>()) return *value ? "true" : "false";
    return node.is_table() ? "a table" : node.is_array() ? "a list" : "a date or time";
  }

  void know(const toml::table& table, std::string_view owner, const std::vector<std::string_view>& known) {
    for (const auto& [called, node] : table) {
      const toml::key& key = called;
      if (std::find(known.begin(), known.end(), key.str()) != known.end()) continue;
      // A table of settings that are one in code: travel = { from_edge = "top" }.
      const std::string before = std::string(key.str()) + ".";
      std::vector<std::string_view> within;
      for (const std::string_view name : known)
        if (name.starts_with(before)) within.push_back(name.substr(before.size()));
      const toml::node& value = node;
      if (!within.empty()) {
        attempt([&] { know(table_of(value, key.str()), fmt::format("{} of {}", key.str(), owner), within); });
        continue;
      }
      attempt([&] {
        std::string_view now = new_name(key.str(), known);
        for (const std::string_view name : known)
          if (now.empty() && name.size() > key.str().size() && name.ends_with(key.str()) &&
              name[name.size() - key.str().size() - 1] == '.')
            now = name;
        refuse(key.source().begin,
               now.empty() ? fmt::format("unknown key '{}' in {}", key.str(), owner)
                           : fmt::format("'{}' in {} is called {} now", key.str(), owner, now),
               fmt::format("{}", fmt::join(known, ", ")), nearest_name(key.str(), known));
      });
    }
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
    if (value && *value >= setting.min && *value <= setting.max) return *value;
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
      case SettingKind::transition:
        return transition_of(node, setting.name);
      case SettingKind::cell:
        break;
    }
    return AnyCell{};
  }

  template <class S>
  void read_settings(const toml::table& table, S& settings) {
    for (const Setting<S>& setting : settings_of<S>())
      try_with(table, setting.name, [&](const toml::node& node) {
        (void)put_setting(setting, settings, value_of(node, setting));
      });
  }

  Transition transition_of(const toml::node& node, std::string_view name) const {
    const std::string text = text_of(node, name);
    try {
      return read_transition(text);
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
    if (unread_.contains("cell " + name)) return name;
    refuse(node, fmt::format("{} = '{}', which is no cell", setting.name, name),
           known.empty() ? "a name from [cells], which is empty"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_screen(const toml::table& table) {
    std::vector<std::string_view> known;
    for (const auto& setting : settings_of<StageSettings>())
      if (is_scene_setting(setting.name)) known.emplace_back(setting.name);
    add(known, layout_keys);
    know(table, "[screen]", known);
    read_settings(table, scene_.stage);
    read_layout(table, "", true);
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

  void scene_feel(const toml::node& node) {
    Feels feels;
    scene_.feel_place = place_in(node);
    read_feels(node, "feel", feels);
    scene_.stage.feel = feels.finger;
    scene_.stage.stylus = feels.stylus;
    scene_.stage.mouse = feels.mouse;
  }

  // A name, or a table that says what is unlike `feels`, or unlike a named one.
  void read_feels(const toml::node& node, const std::string& name, Feels& feels) {
    if (node.is_string()) {
      feels.finger = shipped_feel(node);
      return;
    }
    const toml::table& table = table_of(node, name);
    read_feel_table(table, name, {"like", "stylus", "mouse"}, feels.finger);
    for (const auto& [tool, feel] : {std::pair{"stylus", &feels.stylus}, std::pair{"mouse", &feels.mouse}})
      try_with(table, tool, [&, inner = name + "." + tool, to = feel](const toml::node& other) {
        read_feel_table(table_of(other, inner), inner, {"like"}, *to);
      });
  }

  void read_feel_table(const toml::table& table, const std::string& name, std::vector<std::string_view> known,
                       Feel& feel) {
    add_names<Feel>(known);
    know(table, fmt::format("[{}]", name), known);
    try_with(table, "like", [&](const toml::node& like) { feel = shipped_feel(like); });
    read_settings(table, feel);
  }

  void read_cells(const toml::table& table) {
    for (const auto& [key, node] : table) {
      const std::string name(key.str());
      const toml::node& value = node;
      unread_.insert("cell " + name);
      attempt([&] {
        scene_.cells.emplace_back(name, cell_value(value, name));
        unread_.erase("cell " + name);
      });
      if (node.is_integer()) open_.insert(name);
      scene_.cell_places[name] = {key.source().begin.line, key.source().begin.column};
    }
  }

  CellValue cell_value(const toml::node& node, const std::string& name) {
    if (const auto flag = node.value_exact<bool>()) return *flag;
    if (const auto text = node.value_exact<std::string>()) return *text;
    if (node.is_array()) return texts_of(node, name);
    if (const auto* table = node.as_table()) return choice_cell(*table, name);
    const SettingInfo any{.name = name.c_str(), .min = -1e9, .max = 1e9};
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

  Choice choice_cell(const toml::table& table, const std::string& name) {
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
      attempt([&] {
        if (table == nullptr) refuse(entry, shown(entry), "a table headed [[part]]");
        read_source({.layers = {table}});
      });
    }
  }

  // With its template, and once for each entry of `each`.
  void read_source(PartSource source) {
    const std::size_t templates = open_templates_.size();
    const toml::node* each = source.get("each");
    if (const toml::node* named = source.get("template")) source.layers.push_back(&template_of(*named));
    source.made = source.made || source.layers.size() > 1 || each != nullptr;
    if (each == nullptr) {
      read_part(source);
    } else {
      const auto* list = each->as_array();
      if (list == nullptr)
        refuse(*each, "each = " + shown(*each), "a list of tables, [{ id = \"a name\" }, …]");
      for (const toml::node& entry : *list)
        attempt([&] {
          PartSource one = source;
          if (entry.as_table() == nullptr)
            refuse(entry, shown(entry), "a table, { id = \"a name of its own\", … }");
          one.layers.insert(one.layers.begin(), entry.as_table());
          if (entry.as_table()->contains("each")) refuse(entry, "each within each", "an entry without it");
          read_part(one);
        });
    }
    open_templates_.resize(templates);
  }

  const toml::table& template_of(const toml::node& named) {
    const std::string name = text_of(named, "template");
    std::vector<std::string_view> known;
    if (const toml::table* all = (*root_)["template"].as_table())
      for (const auto& [key, value] : *all) {
        known.push_back(key.str());
        if (key.str() != name) continue;
        if (std::find(open_templates_.begin(), open_templates_.end(), name) != open_templates_.end())
          refuse(named, fmt::format("template = '{}', in that template", name), "another one");
        open_templates_.push_back(name);
        return table_of(value, "template." + name);
      }
    refuse(named, fmt::format("template = '{}', which is none", name),
           known.empty() ? "the name of a table [template.NAME]; there is none"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  // Tables headed [[silence]]: what `check` finds that is meant so.
  void read_silences(const toml::node& node) {
    const auto* list = node.as_array();
    if (list == nullptr)
      refuse(node, "silence = " + shown(node), "a list of tables, each headed [[silence]]");
    for (const toml::node& entry : *list)
      attempt([&] {
        const auto& table = table_of(entry, "silence");
        know(table, "a silence", {"rule", "of", "reason"});
        Silence silence{
            .rule = text_of(need(table, "rule", "rule = \"a rule's name\""), "rule"),
            .reason = text_of(need(table, "reason", "reason = \"why this is meant so\""), "reason"),
            .place = place_in(entry)};
        if (const toml::node* of = table.get("of")) silence.of = text_of(*of, "of");
        scene_.silences.push_back(std::move(silence));
      });
  }

  template <class Table>
  const toml::node& need(const Table& table, std::string_view key, std::string_view takes) const {
    if (const auto* node = get(table, key)) return *node;
    refuse(whole(table), fmt::format("a table without '{}'", key), std::string(takes));
  }

  // A part can only stand in relation to one that stands above it in the file.
  void must_stand_above(const toml::node& node) const {
    const std::string name = text_of(node, "a part's id");
    std::vector<std::string_view> known;
    for (const PartPlan& plan : scene_.parts) {
      if (plan.id == name) return;
      known.emplace_back(plan.id);
    }
    if (unread_.contains("part " + name)) return;
    refuse(node, fmt::format("'{}', which is no part above this one", name),
           known.empty() ? "the id of a part above; there is none"
                         : fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  // "40" dp, "50%" of the container, "50% - 8dp".
  Length length_of(const toml::node& node, std::string_view name) const {
    const char* takes = "a length in dp, a share such as \"50%\", or both, such as \"50% - 8dp\"";
    if (node.is_number()) {
      const SettingInfo info{.name = "a length", .unit = "dp", .min = -100000.0, .max = 100000.0};
      return number_of(node, info);
    }
    const std::string text = text_of(node, name);
    // Its words, without blanks: "50%-8dp".
    std::string words = text;
    std::erase_if(words, [](char c) { return c == ' ' || c == '\t'; });
    const NumberAt fraction = number_at(words);
    const std::string_view behind = std::string_view(words).substr(fraction.used);
    if (fraction.used > 0 && std::fabs(fraction.value) <= 1000.0) {
      if (behind == "%") return Length::of(fraction.value / 100.0);
      if (behind.starts_with("%+") || behind.starts_with("%-")) {
        const NumberAt dp = number_at(behind.substr(2));
        if (dp.used > 0 && std::fabs(dp.value) <= 100000.0 && behind.substr(2 + dp.used) == "dp")
          return {behind[1] == '-' ? -dp.value : dp.value, fraction.value / 100.0};
      }
    }
    refuse(node, fmt::format("{} = '{}'", name, text), takes);
  }

  Placement placement_of(const PartSource& source) const {
    Placement placement;
    const std::array fields{&placement.x, &placement.y,     &placement.w,
                            &placement.h, &placement.right, &placement.bottom};
    if (const toml::node* box = source.get("box")) {
      const auto* list = box->as_array();
      if (list == nullptr || list->size() != 4)
        refuse(*box, "box = " + shown(*box), "[x, y, w, h], each as it is taken by its own key");
      for (std::size_t i = 0; i < 4; ++i) *fields[i] = length_of((*list)[i], placement_keys[i]);
    }
    for (std::size_t i = 0; i < fields.size(); ++i)
      if (const toml::node* node = source.get(placement_keys[i]))
        *fields[i] = length_of(*node, placement_keys[i]);
    if (const auto* safe = source.get("in_safe_area"))
      placement.in_safe_area = flag_of(*safe, "in_safe_area");
    return placement;
  }

  Content content_of(const PartSource& source) {
    Content content;
    for (const auto& [key, text] : {std::pair{"detail", &content.detail}, std::pair{"glyph", &content.glyph},
                                    std::pair{"image", &content.image}})
      try_with(source, key,
               [&, name = key, to = text](const toml::node& node) { *to = text_of(node, name); });
    try_with(source, "rank", [&](const toml::node& node) {
      const SettingInfo info{.name = "rank", .kind = SettingKind::choice, .choices = rank_names};
      content.rank = static_cast<Rank>(static_cast<int>(choice_of(node, info)));
    });
    return content;
  }

  Insets padding_of(const toml::node& node) const {
    const SettingInfo info{.name = "padding", .unit = "dp", .min = 0.0, .max = 1000.0};
    if (node.is_number()) {
      const double all = number_of(node, info);
      return {all, all, all, all};
    }
    const auto* list = node.as_array();
    if (list == nullptr || (list->size() != 2 && list->size() != 4))
      refuse(node, "padding = " + shown(node),
             "0 to 1000 dp; or [top and bottom, left and right]; or [top, right, bottom, left]");
    std::vector<double> of;
    for (const toml::node& one : *list) of.push_back(number_of(one, info));
    if (of.size() == 2) return {of[1], of[0], of[1], of[0]};
    return {of[3], of[0], of[1], of[2]};
  }

  // How `table` lays out what lies in it; `with_gap`: its own setting of that name is none of this.
  template <class Table>
  void read_layout(const Table& table, const std::string& outer, bool with_gap) {
    const toml::node* node = get(table, "layout");
    Arrangement how;
    try_with(table, "padding", [&](const toml::node& padding) { how.padding = padding_of(padding); });
    if (const toml::node* gap = get(table, "gap"); with_gap && gap != nullptr) {
      const SettingInfo info{.name = "gap", .unit = "dp", .min = 0.0, .max = 1000.0};
      how.gap = number_of(*gap, info);
    }
    if (node == nullptr) return;
    constexpr std::array<const char*, 2> ways{"column", "row"};
    const SettingInfo info{.name = "layout", .kind = SettingKind::choice, .choices = ways};
    how.row = choice_of(*node, info) == 1.0;
    layouts_.emplace_back(outer, how);
  }

  // Gives every part the lengths nobody said, and refuses what is left without a place.
  void lay_out() {
    const auto plan_of = [this](const std::string& id) -> const PartPlan* {
      for (const PartPlan& plan : scene_.parts)
        if (plan.id == id) return &plan;
      return nullptr;
    };
    for (const auto& [outer, how] : layouts_) {
      const PartPlan* of = plan_of(outer);
      const auto fault = arrange(scene_, outer, of != nullptr ? of->kind->frame : Insets{}, how, *measure_);
      if (!fault) continue;
      const PartPlan& plan = scene_.parts[fault->part];
      broken_.insert(plan.id);
      attempt([&] {
        refuse({static_cast<toml::source_index>(plan.line), static_cast<toml::source_index>(plan.column)},
               fault->found, fault->takes);
      });
    }
    std::map<std::string_view, const PartPlan*> by_id;
    for (PartPlan& plan : scene_.parts) {
      by_id[plan.id] = &plan;
      const auto outer = by_id.find(plan.contact_rules.inside);
      give_usual_place(plan, outer == by_id.end() ? nullptr : outer->second);
      if (const std::string fault = fault_of(plan.placement);
          !fault.empty() && !misplaced_.contains(plan.id)) {
        broken_.insert(plan.id);
        attempt([&] {
          refuse({static_cast<toml::source_index>(plan.line), static_cast<toml::source_index>(plan.column)},
                 fault,
                 "x, y, w, h in dp, as a share of the container (\"50%\"), or right and bottom as distances "
                 "from its edges; or a layout = \"column\" or \"row\" around it");
        });
      }
    }
  }

  ContactRules standing_of(const PartSource& table) const {
    ContactRules contact_rules;
    contact_rules.inside = table.inside;
    const toml::node* inside = table.get("inside");
    const toml::node* back = table.get("yields_to");
    if (inside != nullptr) contact_rules.inside = text_of(*inside, "inside");
    if (back != nullptr) contact_rules.yields_to = text_of(*back, "yields_to");
    for (const toml::node* other : {inside, back})
      if (other != nullptr) must_stand_above(*other);
    if (const auto* shares = table.get("observes")) contact_rules.observes = flag_of(*shares, "observes");
    if (const auto* towards = table.get("yield_direction")) {
      const SettingInfo info{
          .name = "yield_direction", .kind = SettingKind::choice, .choices = towards_names};
      contact_rules.yield_direction =
          static_cast<YieldDirection>(static_cast<int>(choice_of(*towards, info)));
    }
    return contact_rules;
  }

  const PartKind& kind_in(const PartSource& table) const {
    std::vector<std::string_view> known;
    for (const PartKind* kind : scene_.kinds) known.emplace_back(kind->name);
    const toml::node& node = need(table, "kind", fmt::format("kind = \"{}\"", fmt::join(known, "\" or \"")));
    const std::string name = text_of(node, "kind");
    if (const PartKind* kind = find_kind(scene_.kinds, name)) return *kind;
    refuse(node, fmt::format("kind = '{}'", name), fmt::format("one of {}", fmt::join(known, ", ")),
           nearest_name(name, known));
  }

  void read_part(const PartSource& source) {
    if (scene_.parts.size() >= max_parts)
      refuse(source.place(), fmt::format("more than {} parts", max_parts), "fewer");
    failed_ = false;
    PartPlan plan;
    plan.line = source.place().source().begin.line;
    plan.column = source.place().source().begin.column;
    attempt([&] { plan.id = id_in(source); });
    unread_.insert("part " + plan.id);  // parts that name it are not to blame when its kind is none
    plan.kind = &kind_in(source);
    const std::vector<PartSource> inside = inner_sources(source, plan.id);
    know_part(source, *plan.kind, inside);
    attempt([&] { plan.contact_rules = standing_of(source); });
    misplaced_.insert(plan.id);  // what is wrong with its place is said once
    attempt([&] {
      plan.placement = placement_of(source);
      misplaced_.erase(plan.id);
    });
    plan.content = content_of(source);
    attempt([&] { read_layout(source, plan.id, find_setting(*plan.kind, "gap") == plan.kind->settings()); });
    try_with(source, "hidden", [&](const toml::node& node) { plan.hidden = flag_of(node, "hidden"); });
    try_with(source, "disabled", [&](const toml::node& node) { plan.disabled = flag_of(node, "disabled"); });
    try_with(source, "feel", [&](const toml::node& node) {
      plan.feels = Feels{scene_.stage.feel, scene_.stage.stylus, scene_.stage.mouse};
      read_feels(node, "part.feel", *plan.feels);
    });
    plan.settings = plan.kind->fresh();
    for (std::size_t i = 0; i < plan.kind->settings(); ++i) {
      const SettingInfo& setting = plan.kind->setting(i);
      try_with(source, setting.name, [&](const toml::node& node) {
        plan.places[setting.name] = place_in(node);
        if (setting.kind == SettingKind::cell)
          plan.cells[setting.name] = cell_name(node, setting);
        else
          (void)plan.kind->put(plan.settings, i, value_of(node, setting));
      });
    }
    if (failed_) broken_.insert(plan.id);
    scene_.parts.push_back(std::move(plan));
    for (const PartSource& inner : inside) attempt([&] { read_source(inner); });
  }

  void know_part(const PartSource& source, const PartKind& kind, const std::vector<PartSource>& inside) {
    std::vector<std::string_view> known;
    add(known, making_keys);
    add(known, placement_keys);
    add(known, standing_keys);
    add(known, content_keys);
    add(known, layout_keys);
    for (std::size_t i = 0; i < kind.settings(); ++i) known.emplace_back(kind.setting(i).name);
    const std::size_t own = known.size();
    for (const PartSource& inner : inside)
      if (const toml::node* id = inner.layers.back()->get("id"); id != nullptr && source.made) {
        const auto name = id->value<std::string_view>().value_or("");
        if (std::find(known.begin(), known.begin() + static_cast<std::ptrdiff_t>(own), name) !=
            known.begin() + static_cast<std::ptrdiff_t>(own))
          attempt(
              [&] { refuse(*id, fmt::format("id = '{}', a key of a {}", name, kind.name), "another name"); });
        known.push_back(name);
      }
    for (const toml::table* layer : source.layers) know(*layer, fmt::format("a {}", kind.name), known);
  }

  std::string id_in(const PartSource& source) const {
    const toml::node& node = need(source, "id", "id = \"a name of its own\"");
    std::string id = text_of(node, "id");
    if (id.empty()) refuse(node, "id = ''", "a name that is not empty");
    id = source.id_before + id;
    for (const PartPlan& other : scene_.parts)
      if (other.id == id)
        refuse(node, fmt::format("id = '{}', which the part at line {} has", id, other.line),
               "a name of its own");
    return id;
  }

  std::vector<InputError::Facts> wrong_;
  std::set<std::string> unread_;     // parts and cells that are there, but wrong
  std::set<std::string> broken_;     // parts of which something is wrong
  bool failed_ = false;              // something of the part that is being read
  std::set<std::string> misplaced_;  // parts whose place could not be read
  std::set<std::string> open_;       // cells whose whole number may still be a number or a whole one
  std::vector<std::pair<std::string, Arrangement>> layouts_;  // by the part that lays out; "": the screen
  std::vector<std::string> open_templates_;                   // those that are being read
  const toml::table* root_ = nullptr;
  const TextWidth* measure_;
  Scene scene_;
};

}  // namespace

Scene parse_scene(std::string_view text, const std::string& name, Kinds kinds,
                  std::span<const std::string> changes, const TextWidth& measure) {
  SceneRead read = read_scene(text, name, kinds, changes, measure);
  if (!read.wrong.empty()) throw InputError(std::move(read.wrong));
  return std::move(read.scene);
}

SceneRead read_scene(std::string_view text, const std::string& name, Kinds kinds,
                     std::span<const std::string> changes, const TextWidth& measure) {
  return SceneReader(name, kinds, measure).read(text, changes);
}

}  // namespace ubbo::io
