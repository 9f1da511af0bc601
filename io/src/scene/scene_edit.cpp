#include "ubbo/io/scene/scene_edit.hpp"

#include <fmt/format.h>
#include <toml++/toml.h>

#include <algorithm>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "part_source.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/scene/setting_text.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

// A text in place of some characters of a file.
struct Edit {
  std::size_t at = 0;
  std::size_t length = 0;
  std::string text{};
};

bool is_value(const std::string& text) {
  try {
    return toml::parse("v = " + text).size() == 1;
  } catch (const toml::parse_error&) {
    return false;
  }
}

std::string in_quotes(std::string_view words) {
  std::string text = "\"";
  for (const char letter : words) {
    if (letter == '"' || letter == '\\') text += '\\';
    text += letter;
  }
  return text + '"';
}

// The table that holds a node, at any depth, and under which key; or null.
std::pair<toml::table*, std::string> holder_of(toml::node& in, const toml::node& wanted) {
  if (toml::table* table = in.as_table())
    for (auto&& [key, node] : *table) {
      if (&node == &wanted) return {table, std::string(key.str())};
      if (auto found = holder_of(node, wanted); found.first != nullptr) return found;
    }
  if (toml::array* list = in.as_array())
    for (toml::node& node : *list)
      if (auto found = holder_of(node, wanted); found.first != nullptr) return found;
  return {};
}

class Editor {
 public:
  Editor(std::string_view text, const std::string& name) : text_(text) {
    for (std::size_t at = 0; at <= text.size(); at = std::min(text.find('\n', at), text.size()) + 1)
      lines_.push_back(at);
    root_ = toml::parse(text, name);
  }

  // Ways to write one change, the best first.
  std::vector<Edit> ways(const std::string& change) {
    const std::size_t equals = change.find('=');
    const std::size_t dot = change.find('.');
    const std::string owner = change.substr(0, dot);
    const std::string key = change.substr(dot + 1, equals - dot - 1);
    std::string value = change.substr(equals + 1);
    if (!is_value(value)) value = in_quotes(value);
    std::vector<Edit> found;
    if (owner == "feel" || owner == "screen" || owner == "cells") {
      if (toml::node* there = root_.get(owner); there == nullptr)
        found.push_back(at_end(owner, key, value));
      else if (there->is_table())
        inside(*there->as_table(), key, value, found);
      else
        found.push_back(replaced(*there, fmt::format("{{ like = {}, {} = {} }}", token(*there), key, value)));
      return found;
    }
    std::vector<std::string> known;
    toml::table* part = find_part_table(root_, owner, known);
    if (part == nullptr) return found;
    // What lies in a part from a template may have no table of its own yet: it is said in that part's, under
    // its id.
    std::string path = key;
    while (part->source().begin.line == 0) {
      const auto [outer, own] = holder_of(root_, *part);
      if (outer == nullptr) return found;
      path = own + "." + path;
      part = outer;
    }
    if (path == key)
      inside(*part, key, value, found);
    else
      added(*part, path, value, found);
    return found;
  }

  [[nodiscard]] std::string with(const Edit& edit) const {
    std::string made(text_);
    return made.replace(edit.at, edit.length, edit.text);
  }

 private:
  [[nodiscard]] std::size_t offset(const toml::source_position& place) const {
    // Columns count characters, places in the text bytes.
    std::size_t at = lines_[std::min<std::size_t>(place.line, lines_.size()) - 1];
    for (std::size_t column = 1; column < place.column && at < text_.size(); ++column) do
        ++at;
      while (at < text_.size() && (static_cast<unsigned char>(text_[at]) & 0xC0U) == 0x80U);
    return at;
  }
  [[nodiscard]] std::string token(const toml::node& node) const {
    const std::size_t begin = offset(node.source().begin);
    return std::string(text_.substr(begin, offset(node.source().end) - begin));
  }
  [[nodiscard]] Edit replaced(const toml::node& node, std::string text) const {
    const std::size_t begin = offset(node.source().begin);
    return {begin, offset(node.source().end) - begin, std::move(text)};
  }
  [[nodiscard]] std::size_t after_line(std::size_t line) const {
    return line < lines_.size() ? lines_[line] : text_.size();
  }
  [[nodiscard]] Edit line_after(std::size_t line, const std::string& words) const {
    const std::size_t at = after_line(line);
    const bool ended = at == 0 || text_[at - 1] == '\n';
    return {at, 0, (ended ? "" : "\n") + words + "\n"};
  }
  [[nodiscard]] Edit at_end(const std::string& owner, const std::string& key,
                            const std::string& value) const {
    const bool ended = text_.empty() || text_.back() == '\n';
    return {text_.size(), 0, fmt::format("{}\n[{}]\n{} = {}\n", ended ? "" : "\n", owner, key, value)};
  }

  void inside(toml::table& table, const std::string& key, const std::string& value,
              std::vector<Edit>& found) {
    if (toml::node* there = table.get(key)) {  // a key with dots in quotes is none of ours
      if (toml::table* more = there->as_table()) {
        inside(*more, "all", value, found);
      } else if (there->source().begin.line > 0) {
        found.push_back(replaced(*there, value));
      }
      return;
    }
    if (const std::size_t dot = key.find('.'); dot != std::string::npos) {
      const std::string first = key.substr(0, dot);
      const std::string rest = key.substr(dot + 1);
      toml::node* there = table.get(first);
      if (there != nullptr && there->is_table())
        inside(*there->as_table(), rest, value, found);
      else if (there != nullptr && there->source().begin.line > 0)  // enter = "ease-out 200ms"
        found.push_back(
            replaced(*there, fmt::format("{{ {} = {}, {} = {} }}", first == "feel" ? "like" : "all",
                                         token(*there), rest, value)));
    }
    added(table, key, value, found);
  }

  void added(const toml::table& table, const std::string& key, const std::string& value,
             std::vector<Edit>& found) const {
    const std::string words = fmt::format("{} = {}", key, value);
    if (table.is_inline()) {
      if (table.source().begin.line == 0) return;
      const std::size_t close = text_.rfind('}', offset(table.source().end) - 1);
      std::size_t end = close;
      while (end > 0 && (text_[end - 1] == ' ' || text_[end - 1] == '\n')) --end;
      found.push_back({end, close - end, (table.empty() ? " " : ", ") + words + " "});
      return;
    }
    // Behind the last thing that it says in a line of its own.
    std::size_t last = table.source().begin.line;
    for (const auto& [name, node] : table) {
      const bool headed = (node.is_table() && !node.as_table()->is_inline()) || node.is_array_of_tables();
      if (!headed) last = std::max<std::size_t>(last, node.source().end.line);
    }
    if (last > 0) found.push_back(line_after(last, words));
  }

  std::string_view text_;
  std::vector<std::size_t> lines_;  // where each begins
  toml::table root_;
};

// All that a scene says, to be held against what another one does.
template <class S>
void add_settings(std::string& all, const S& settings) {
  for (const Setting<S>& setting : settings_of<S>())
    all += setting_text(setting, get_setting(setting, settings)) + '\n';
}

void add_feels(std::string& all, const Feels& feels) {
  add_settings(all, feels.finger);
  add_settings(all, feels.stylus);
  add_settings(all, feels.mouse);
  add_settings(all, feels.wheel);
}

std::string all_of(const Scene& scene) {
  std::string all = scene.title + '\n';
  add_settings(all, scene.stage);
  add_feels(all, {scene.stage.feel, scene.stage.stylus, scene.stage.mouse, scene.stage.wheel});
  for (const auto& [name, value] : scene.cells) all += name + '=' + shown(value) + '\n';
  for (const PartPlan& part : scene.parts) {
    all += part.id + ' ' + part.kind->name + '\n';
    for (std::size_t i = 0; i < part.kind->settings(); ++i)
      all += setting_text(part.kind->setting(i), part.kind->get(part.settings, i)) + '\n';
    for (const auto& [setting, cell] : part.cells) all += setting + ':' + cell + '\n';
    if (part.feels) add_feels(all, *part.feels);
  }
  return all;
}

}  // namespace

std::string edit_scene(std::string_view text, const std::string& name, std::span<const std::string> changes,
                       Kinds kinds) {
  (void)parse_scene(text, name, kinds, changes);
  std::string now(text);
  for (const std::string& change : changes) {
    const std::string wanted = all_of(parse_scene(now, name, kinds, {&change, 1}));
    std::optional<std::string> written;
    for (Editor editor(now, name); const Edit& edit : editor.ways(change)) {
      const std::string with = editor.with(edit);
      const SceneRead read = read_scene(with, name, kinds);
      if (!read.wrong.empty() || all_of(read.scene) != wanted) continue;
      written = with;
      break;
    }
    if (!written)
      throw InputError({.file = name,
                        .found = fmt::format("no place in the file for {} alone", change),
                        .takes = "it, written by hand: it may stand in a template"});
    now = *written;
  }
  return now;
}

}  // namespace ubbo::io
