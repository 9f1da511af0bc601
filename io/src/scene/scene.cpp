#include "ubbo/io/scene/scene.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>
#include <toml++/toml.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>

#include "arrange.hpp"
#include "field_reader.hpp"
#include "part_source.hpp"
#include "scene_changes.hpp"
#include "toml_guard.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

constexpr std::array contact_rule_keys{"inside", "yields_to", "yield_direction", "observes"};
constexpr std::array content_keys{"detail", "glyph", "image", "rank", "hover"};
constexpr std::array layout_keys{"layout", "gap", "padding"};
constexpr std::array making_keys{"id",   "kind",         "box",    "template", "each",
                                 "part", "in_safe_area", "hidden", "disabled", "feel"};
constexpr std::size_t max_parts = 10'000;

template <std::size_t N>
void add(std::vector<std::string_view>& names, const std::array<const char*, N>& more) {
  names.insert(names.end(), more.begin(), more.end());
}

class SceneReader : FieldReader {
 public:
  SceneReader(const std::string& name, Kinds kinds, const TextWidth& measure,
              std::span<const NamedCurve> curves)
      : FieldReader(name, curves), measure_(&measure) {
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
      refuse(error.source().begin, std::string(error.description()), "TOML", {}, InputFault::syntax);
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

  void scene_feel(const toml::node& node) {
    Feels feels;
    scene_.feel_place = place_in(node);
    read_feels(node, "feel", feels);
    scene_.stage.feel = feels.finger;
    scene_.stage.stylus = feels.stylus;
    scene_.stage.mouse = feels.mouse;
    scene_.stage.wheel = feels.wheel;
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

  ContactRules contact_rules_of(const PartSource& table) const {
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
          .name = "yield_direction", .kind = SettingKind::choice, .choices = yield_direction_names};
      contact_rules.yield_direction =
          static_cast<YieldDirection>(static_cast<int>(choice_of(*towards, info)));
    }
    return contact_rules;
  }

  const PartKind& kind_in(const PartSource& table) const {
    const toml::node* said = table.get("kind");
    const PartKind* kind = said == nullptr ? nullptr : find_kind(scene_.kinds, text_of(*said, "kind"));
    if (kind != nullptr) return *kind;
    std::vector<std::string_view> known;
    for (const PartKind* one : scene_.kinds) known.emplace_back(one->name);
    const toml::node& node = need(table, "kind", fmt::format("kind = \"{}\"", fmt::join(known, "\" or \"")));
    const std::string name = text_of(node, "kind");
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
    attempt([&] { plan.contact_rules = contact_rules_of(source); });
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
      plan.feels = Feels{scene_.stage.feel, scene_.stage.stylus, scene_.stage.mouse, scene_.stage.wheel};
      read_feels(node, "part.feel", *plan.feels);
    });
    plan.settings = plan.kind->fresh();
    for (std::size_t i = 0; i < plan.kind->settings(); ++i) {
      const SettingInfo& setting = plan.kind->setting(i);
      // Only what has settings of its own below it may stand as a table, with `all` in it.
      const bool grouped =
          i + 1 < plan.kind->settings() &&
          std::string_view(plan.kind->setting(i + 1).name).starts_with(setting.name + std::string("."));
      const toml::node* node = grouped ? source.setting(setting.name) : source.get(setting.name);
      if (node == nullptr) continue;
      attempt([&] {
        plan.places[setting.name] = place_in(*node);
        if (setting.kind == SettingKind::cell)
          plan.cells[setting.name] = cell_name(*node, setting);
        else
          (void)plan.kind->put(plan.settings, i, value_of(*node, setting));
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
    add(known, contact_rule_keys);
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

  std::set<std::string> unread_;     // parts and cells that are there, but wrong
  std::set<std::string> broken_;     // parts of which something is wrong
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
                  std::span<const std::string> changes, const TextWidth& measure,
                  std::span<const NamedCurve> curves) {
  SceneRead read = read_scene(text, name, kinds, changes, measure, curves);
  if (!read.wrong.empty()) throw InputError(std::move(read.wrong));
  return std::move(read.scene);
}

SceneRead read_scene(std::string_view text, const std::string& name, Kinds kinds,
                     std::span<const std::string> changes, const TextWidth& measure,
                     std::span<const NamedCurve> curves) {
  return SceneReader(name, kinds, measure, curves).read(text, changes);
}

}  // namespace ubbo::io
