#pragma once

#include <array>

#include "node_reader.hpp"

namespace ubbo::io {

inline constexpr std::array placement_keys{"x", "y", "w", "h", "right", "bottom"};

/// Reads what tables of a scene hold beside settings: feels, places, content, paddings.
class FieldReader : protected NodeReader {
 protected:
  using NodeReader::NodeReader;

  template <class S>
  static void add_names(std::vector<std::string_view>& names) {
    for (const Setting<S>& setting : settings_of<S>()) names.emplace_back(setting.name);
  }

  /// A name, or a table that says what is unlike `feels`, or unlike a named one.
  void read_feels(const toml::node& node, const std::string& name, Feels& feels);
  Placement placement_of(const PartSource& source) const;
  Content content_of(const PartSource& source);
  Insets padding_of(const toml::node& node) const;

 private:
  Feel shipped_feel(const toml::node& node) const;
  void read_feel_table(const toml::table& table, const std::string& name, std::vector<std::string_view> known,
                       Feel& feel);
};

}  // namespace ubbo::io
