#pragma once

#include <fmt/format.h>
#include <toml++/toml.h>

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "part_source.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

/// The node of `key` in a table, or in what a part is made of; null where it has none.
inline const toml::node* get(const toml::table& table, std::string_view key) { return node_at(table, key); }
inline const toml::node* get(const PartSource& source, std::string_view key) { return source.get(key); }
inline const toml::table& whole(const toml::table& table) { return table; }
inline const toml::table& whole(const PartSource& source) { return source.place(); }

/// Reads single values of a scene: each either is what it should be, or is refused with its place, what was
/// found and what is expected. What is wrong is noted by `attempt`, and reading goes on.
class NodeReader {
 protected:
  NodeReader(std::string file, std::span<const NamedCurve> curves)
      : file_(std::move(file)), curves_(curves) {}

  /// Runs `read`; what it refuses is noted.
  template <class Read>
  void attempt(Read&& read) {
    try {
      read();
    } catch (const InputError& error) {
      note(error);
    }
  }
  void note(const InputError& error);
  template <class Table, class Read>
  void try_with(const Table& table, std::string_view key, Read&& read) {
    if (const toml::node* node = get(table, key)) attempt([&] { read(*node); });
  }

  [[noreturn]] void refuse(const toml::source_position& where, std::string_view found, std::string_view takes,
                           std::string_view nearest = {}, InputFault fault = InputFault::wrong_value) const;
  [[noreturn]] void refuse(const toml::node& node, std::string_view found, std::string_view takes,
                           std::string_view nearest = {}) const;

  static FilePlace place_in(const toml::node& node);
  static std::string shown(const toml::node& node);

  /// Refuses each key of `table` that is none of `known`.
  void know(const toml::table& table, std::string_view owner, const std::vector<std::string_view>& known);
  template <class Table>
  const toml::node& need(const Table& table, std::string_view key, std::string_view takes) const {
    if (const auto* node = get(table, key)) return *node;
    refuse(whole(table), fmt::format("a table without '{}'", key), std::string(takes));
  }

  const toml::table& table_of(const toml::node& node, std::string_view name) const;
  std::string text_of(const toml::node& node, std::string_view name) const;
  std::vector<std::string> texts_of(const toml::node& node, std::string_view name) const;
  double number_of(const toml::node& node, const SettingInfo& setting) const;
  std::vector<double> numbers_of(const toml::node& node, const SettingInfo& setting) const;
  bool flag_of(const toml::node& node, std::string_view name) const;
  /// The index of the choice.
  double choice_of(const toml::node& node, const SettingInfo& setting) const;
  Transition transition_of(const toml::node& node, std::string_view name) const;
  /// 100 or "100dp", or "40%" of what the setting says.
  Length length_of(const toml::node& node, const SettingInfo& setting) const;
  /// 40 for dp, "50%" of the container, "50% - 8dp".
  Length length_of(const toml::node& node, std::string_view name) const;
  /// A setting's value; that of a cell is not known yet.
  SettingValue value_of(const toml::node& node, const SettingInfo& setting) const;

  template <class S>
  void read_settings(const toml::table& table, S& settings) {
    for (const Setting<S>& setting : settings_of<S>())
      try_with(table, setting.name, [&](const toml::node& node) {
        (void)put_setting(setting, settings, value_of(node, setting));
      });
  }

  std::string file_;
  std::span<const NamedCurve> curves_;  // of the app's own
  std::vector<InputError::Facts> wrong_;
  bool failed_ = false;  // something was wrong since this was last put to false
};

}  // namespace ubbo::io
