#pragma once

#include <toml++/toml.h>

#include <string>
#include <string_view>
#include <vector>

namespace ubbo::io {

/// What stands in a table at a key, which may lead through tables in it: "travel.from_edge". Null: nothing.
[[nodiscard]] const toml::node* node_at(const toml::table& table, std::string_view key);

/// One part as tables of a scene say it, together: an entry of `each`, the table headed [[part]], its
/// template. What the first of them says counts.
struct PartSource {
  std::vector<const toml::table*> layers;
  std::string id_before{};  ///< "heather-": of what lies in a part that was made from a template or an entry
  std::string inside{};     ///< the part under which it stands; "": none
  bool made = false;        ///< from a template, or an entry of `each`

  [[nodiscard]] const toml::node* get(std::string_view key) const;
  /// A setting's value: its own, or where it stands as a table with more, such as
  /// `enter = { all = "…", opacity = "…" }`, what that says of `all`.
  [[nodiscard]] const toml::node* setting(std::string_view key) const;
  /// Where it stands in the file: the first of its tables.
  [[nodiscard]] const toml::table& place() const { return *layers.front(); }
};

/// The tables headed [[part.part]] of a part, with what entries and templates say for them under their ids;
/// those of the template first. `id` is the part's own.
[[nodiscard]] std::vector<PartSource> inner_sources(const PartSource& outer, const std::string& id);

/// The table that says what the part `id` says first, to be changed: made where nothing is said yet. Null:
/// there is no such part. Adds all ids that there are to `known`.
[[nodiscard]] toml::table* find_part_table(toml::table& root, const std::string& id,
                                           std::vector<std::string>& known);

}  // namespace ubbo::io
