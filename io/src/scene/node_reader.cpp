#include "node_reader.hpp"

#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

void NodeReader::note(const InputError& error) {
  failed_ = true;
  // What a template says wrongly is said once, however often it is used.
  for (const InputError::Facts& one : error.all())
    if (std::none_of(wrong_.begin(), wrong_.end(), [&](const InputError::Facts& said) {
          return one.line != 0 && said.line == one.line && said.column == one.column &&
                 said.found == one.found;
        }))
      wrong_.push_back(one);
}

void NodeReader::refuse(const toml::source_position& where, std::string_view found, std::string_view takes,
                        std::string_view nearest, InputFault fault) const {
  // What has no place in the file came by a change.
  throw InputError({where.line == 0 ? "--set" : file_, where.line, where.column, std::string(found),
                    std::string(takes), std::string(nearest), fault});
}

void NodeReader::refuse(const toml::node& node, std::string_view found, std::string_view takes,
                        std::string_view nearest) const {
  refuse(node.source().begin, found, takes, nearest);
}

FilePlace NodeReader::place_in(const toml::node& node) {
  return {node.source().begin.line, node.source().begin.column};
}

std::string NodeReader::shown(const toml::node& node) {
  if (const auto value = node.value<std::string>()) return fmt::format("'{}'", *value);
  if (const auto value = node.value<double>()) return fmt::format("{}", *value);
  if (const auto value = node.value<bool>()) return *value ? "true" : "false";
  return node.is_table() ? "a table" : node.is_array() ? "a list" : "a date or time";
}

void NodeReader::know(const toml::table& table, std::string_view owner,
                      const std::vector<std::string_view>& known) {
  for (const auto& [called, node] : table) {
    const toml::key& key = called;
    const bool is_known = std::find(known.begin(), known.end(), key.str()) != known.end();
    if (is_known && !node.is_table()) continue;
    // A table of settings that are one in code: travel = { from_edge = "top" }, enter = { all = "…" }.
    const std::string before = std::string(key.str()) + ".";
    std::vector<std::string_view> within;
    if (is_known) within.emplace_back("all");
    for (const std::string_view name : known)
      if (name.starts_with(before)) within.push_back(name.substr(before.size()));
    const toml::node& value = node;
    if (within.size() > (is_known ? 1U : 0U)) {
      attempt([&] { know(table_of(value, key.str()), fmt::format("{} of {}", key.str(), owner), within); });
      continue;
    }
    if (is_known) continue;
    attempt([&] {
      std::string_view now = new_name(key.str(), known);
      for (const std::string_view name : known)
        if (now.empty() && name.size() > key.str().size() && name.ends_with(key.str()) &&
            name[name.size() - key.str().size() - 1] == '.')
          now = name;
      refuse(key.source().begin,
             now.empty() ? fmt::format("unknown key '{}' in {}", key.str(), owner)
                         : fmt::format("'{}' in {} is called {} now", key.str(), owner, now),
             now.empty() ? fmt::format("{}", fmt::join(known, ", ")) : std::string(now),
             now.empty() ? nearest_name(key.str(), known) : std::string(),
             now.empty() ? InputFault::unknown_key : InputFault::former_key);
    });
  }
}

const toml::table& NodeReader::table_of(const toml::node& node, std::string_view name) const {
  if (const auto* table = node.as_table()) return *table;
  refuse(node, fmt::format("{} = {}", name, shown(node)), fmt::format("a table, [{}]", name));
}

std::string NodeReader::text_of(const toml::node& node, std::string_view name) const {
  if (const auto text = node.value_exact<std::string>()) return *text;
  refuse(node, fmt::format("{} = {}", name, shown(node)), "text in quotes");
}

double NodeReader::number_of(const toml::node& node, const SettingInfo& setting) const {
  const auto value = node.is_number() ? node.value<double>() : std::nullopt;
  if (value && *value >= setting.min && *value <= setting.max) return *value;
  refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting));
}

bool NodeReader::flag_of(const toml::node& node, std::string_view name) const {
  if (const auto flag = node.value_exact<bool>()) return *flag;
  refuse(node, fmt::format("{} = {}", name, shown(node)), "true or false");
}

std::vector<double> NodeReader::numbers_of(const toml::node& node, const SettingInfo& setting) const {
  const auto* list = node.as_array();
  if (list == nullptr)
    refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting));
  std::vector<double> numbers;
  for (const toml::node& entry : *list) numbers.push_back(number_of(entry, setting));
  return numbers;
}

double NodeReader::choice_of(const toml::node& node, const SettingInfo& setting) const {
  const auto text = node.value_exact<std::string>();
  for (std::size_t i = 0; text && i < setting.choices.size(); ++i)
    if (*text == setting.choices[i]) return static_cast<double>(i);
  const std::vector<std::string_view> known(setting.choices.begin(), setting.choices.end());
  refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting),
         text ? nearest_name(*text, known) : "");
}

std::vector<std::string> NodeReader::texts_of(const toml::node& node, std::string_view name) const {
  std::vector<std::string> texts;
  if (node.as_array() == nullptr) refuse(node, fmt::format("{} = {}", name, shown(node)), "a list of texts");
  for (const toml::node& entry : *node.as_array()) texts.push_back(text_of(entry, name));
  return texts;
}

// A setting's value; that of a cell is not known yet.
SettingValue NodeReader::value_of(const toml::node& node, const SettingInfo& setting) const {
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
    case SettingKind::length:
      return length_of(node, setting);
    case SettingKind::transition:
      return transition_of(node, setting.name);
    case SettingKind::cell:
      break;
  }
  return AnyCell{};
}

Transition NodeReader::transition_of(const toml::node& node, std::string_view name) const {
  const std::string text = text_of(node, name);
  try {
    return read_transition(text, curves_);
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

// 100 or "100dp", or "40%" of what the setting says.
Length NodeReader::length_of(const toml::node& node, const SettingInfo& setting) const {
  const std::optional<Length> read = node.is_string() ? read_length(text_of(node, setting.name))
                                                      : std::optional<Length>(number_of(node, setting));
  const std::string fault = read ? length_fault(setting, *read) : "";
  if (!read || !fault.empty())
    refuse(node, fmt::format("{} = {}", setting.name, shown(node)), what_it_takes(setting));
  return *read;
}

// "40" dp, "50%" of the container, "50% - 8dp".
Length NodeReader::length_of(const toml::node& node, std::string_view name) const {
  const char* takes = "a length in dp, a share such as \"50%\", or both, such as \"50% - 8dp\"";
  if (node.is_number()) {
    const SettingInfo info{.name = "a length", .unit = "dp", .min = -100000.0, .max = 100000.0};
    return number_of(node, info);
  }
  const std::string text = text_of(node, name);
  const std::optional<Length> read = read_length(text);
  if (read && std::fabs(read->fraction) <= 10.0 && std::fabs(read->dp) <= 100000.0) return *read;
  refuse(node, fmt::format("{} = '{}'", name, text), takes);
}

}  // namespace ubbo::io
