#pragma once

#include <optional>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "ubbo/base/settings.hpp"

namespace ubbo::io {

/// What a cell of any kind holds, in the order of `CellKind`.
using CellValue = std::variant<double, int, bool, Choice, std::string, std::vector<std::string>>;

[[nodiscard]] CellKind kind_of(const CellValue& value);
[[nodiscard]] CellValue value_of(const AnyCell& cell);
/// Sets a cell to a value of its own kind; does nothing for another.
void set_cell(const AnyCell& cell, const CellValue& value);

/// A value for people: `7`, `yes`, `Notes`, `"Inspection saved"`, `["Brood", "Stores"]`.
[[nodiscard]] std::string shown(const CellValue& value);
/// Reads what people write for a value of the kind `like` has: a number, a whole number, yes or no (true or
/// false), one of a choice's names, a text, texts separated by `|`. Empty when it is none.
[[nodiscard]] std::optional<CellValue> read_value(std::string_view text, const CellValue& like);
/// What such a value takes, in words.
[[nodiscard]] std::string what_value_takes(const CellValue& like);
/// Equal, numbers within `tolerance`.
[[nodiscard]] bool same_value(const CellValue& a, const CellValue& b, double tolerance = 1e-9);
/// Numbers, whole numbers and flags (0, 1) as a number.
[[nodiscard]] std::optional<double> number_in(const CellValue& value);

}  // namespace ubbo::io
