#include "field_reader.hpp"

#include <fmt/ranges.h>

#include <array>

namespace ubbo::io {

Feel FieldReader::shipped_feel(const toml::node& node) const {
  const std::string name = text_of(node, "feel");
  std::vector<std::string_view> known;
  for (const NamedFeel& shipped : shipped_feels()) {
    if (name == shipped.name) return shipped.feel;
    known.emplace_back(shipped.name);
  }
  refuse(node, fmt::format("feel '{}'", name), fmt::format("one of {}", fmt::join(known, ", ")),
         nearest_name(name, known));
}

// A name, or a table that says what is unlike `feels`, or unlike a named one.
void FieldReader::read_feels(const toml::node& node, const std::string& name, Feels& feels) {
  if (node.is_string()) {
    feels.finger = shipped_feel(node);
    return;
  }
  const toml::table& table = table_of(node, name);
  read_feel_table(table, name, {"like", "stylus", "mouse", "wheel"}, feels.finger);
  for (const auto& [tool, feel] : {std::pair{"stylus", &feels.stylus}, std::pair{"mouse", &feels.mouse}})
    try_with(table, tool, [&, inner = name + "." + tool, to = feel](const toml::node& other) {
      read_feel_table(table_of(other, inner), inner, {"like"}, *to);
    });
  try_with(table, "wheel", [&, inner = name + ".wheel"](const toml::node& other) {
    const toml::table& wheel = table_of(other, inner);
    std::vector<std::string_view> takes;
    add_names<WheelFeel>(takes);
    know(wheel, fmt::format("[{}]", inner), takes);
    read_settings(wheel, feels.wheel);
  });
}

void FieldReader::read_feel_table(const toml::table& table, const std::string& name,
                                  std::vector<std::string_view> known, Feel& feel) {
  add_names<Feel>(known);
  know(table, fmt::format("[{}]", name), known);
  try_with(table, "like", [&](const toml::node& like) { feel = shipped_feel(like); });
  read_settings(table, feel);
}

Placement FieldReader::placement_of(const PartSource& source) const {
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
  if (const auto* safe = source.get("in_safe_area")) placement.in_safe_area = flag_of(*safe, "in_safe_area");
  return placement;
}

Content FieldReader::content_of(const PartSource& source) {
  Content content;
  for (const auto& [key, text] : {std::pair{"detail", &content.detail}, std::pair{"glyph", &content.glyph},
                                  std::pair{"image", &content.image}})
    try_with(source, key, [&, name = key, to = text](const toml::node& node) { *to = text_of(node, name); });
  try_with(source, "hover", [&](const toml::node& node) {
    const toml::table& table = table_of(node, "hover");
    std::vector<std::string_view> known;
    add_names<HoverContent>(known);
    know(table, "hover", known);
    read_settings(table, content.hover.emplace());
  });
  try_with(source, "rank", [&](const toml::node& node) {
    const SettingInfo info{.name = "rank", .kind = SettingKind::choice, .choices = rank_names};
    content.rank = static_cast<Rank>(static_cast<int>(choice_of(node, info)));
  });
  return content;
}

Insets FieldReader::padding_of(const toml::node& node) const {
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

}  // namespace ubbo::io
