#include "scene_changes.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <optional>
#include <vector>

#include "part_source.hpp"
#include "toml_guard.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

[[noreturn]] void refuse_change(std::string_view found, std::string_view takes,
                                std::string_view nearest = {}) {
  throw InputError({.file = "--set",
                    .found = std::string(found),
                    .takes = std::string(takes),
                    .nearest = std::string(nearest)});
}

// As a scene has it, or else as text.
toml::table value_in(const std::string& text) {
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

toml::table* table_in(toml::table& owner, const std::string& name) {
  if (toml::node* there = owner.get(name); there != nullptr && there->is_table()) return there->as_table();
  toml::table made;
  if (const toml::node* like = owner.get(name); like != nullptr && like->is_string())
    made.insert_or_assign(name == "feel" ? "like" : "all",
                          *like);  // feel = "gloved", enter = "ease-out 200ms"
  owner.insert_or_assign(name, std::move(made));
  return owner.get(name)->as_table();
}

toml::table* changed_table(toml::table& root, const std::string& owner) {
  std::vector<std::string> known{"feel", "screen", "cells"};
  if (std::find(known.begin(), known.end(), owner) != known.end()) return table_in(root, owner);
  if (toml::table* part = find_part_table(root, owner, known)) return part;
  const std::vector<std::string_view> names(known.begin(), known.end());
  refuse_change(fmt::format("'{}', which is no part", owner), fmt::format("{}", fmt::join(known, ", ")),
                nearest_name(owner, names));
}

}  // namespace

void change_scene(toml::table& root, const std::string& change) {
  const std::size_t equals = change.find('=');
  const std::string name = change.substr(0, std::min(equals, change.size()));
  const std::size_t dot = name.find('.');
  if (equals == std::string::npos || dot == std::string::npos || dot == 0 || dot + 1 == name.size())
    refuse_change(fmt::format("'{}'", change),
                  "PART.SETTING=VALUE, feel.SETTING=VALUE, screen.SETTING=VALUE or cells.NAME=VALUE");
  const toml::table value = value_in(change.substr(equals + 1));
  std::string key = name.substr(dot + 1);
  toml::table* table = changed_table(root, name.substr(0, dot));
  for (std::size_t inner = key.find('.'); inner != std::string::npos; inner = key.find('.')) {
    table = table_in(*table, key.substr(0, inner));
    key = key.substr(inner + 1);
  }
  // A cell that no part is linked to would change nothing.
  if (name.substr(0, dot) == "cells" && !table->contains(key)) {
    std::vector<std::string_view> known;
    for (const auto& [cell, held] : *table) known.push_back(cell.str());
    refuse_change(fmt::format("'{}', which is no cell", key),
                  known.empty() ? "PART.SETTING=VALUE: the scene has no cells"
                                : fmt::format("{}", fmt::join(known, ", ")),
                  nearest_name(key, known));
  }
  if (toml::node* there = table->get(key);
      there != nullptr && there->is_table() && !value.get("v")->is_table()) {
    table = there->as_table();  // what it says of single properties stays
    key = "all";
  }
  table->insert_or_assign(key, *value.get("v"));
}

}  // namespace ubbo::io
