#include "ubbo/io/scene/cell_value.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <charconv>
#include <cmath>

#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

std::optional<int> whole_number_of(std::string_view text) {
  int value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc{} || end != text.data() + text.size()) return std::nullopt;
  return value;
}

std::string quoted(const std::string& text) { return fmt::format("\"{}\"", text); }

}  // namespace

CellKind kind_of(const CellValue& value) { return static_cast<CellKind>(value.index()); }

CellValue value_of(const AnyCell& cell) {
  return std::visit([](const auto* one) { return CellValue(one->get()); }, cell);
}

void set_cell(const AnyCell& cell, const CellValue& value) {
  std::visit(
      [&]<class T>(Cell<T>* one) {
        if (const T* held = std::get_if<T>(&value)) one->set(*held);
      },
      cell);
}

std::string shown(const CellValue& value) {
  struct Show {
    std::string operator()(double v) const { return plain(v); }
    std::string operator()(int v) const { return std::to_string(v); }
    std::string operator()(bool v) const { return v ? "yes" : "no"; }
    std::string operator()(const Choice& v) const { return std::string(v.name()); }
    std::string operator()(const std::string& v) const { return quoted(v); }
    std::string operator()(const std::vector<std::string>& v) const {
      std::vector<std::string> all;
      for (const std::string& one : v) all.push_back(quoted(one));
      return fmt::format("[{}]", fmt::join(all, ", "));
    }
  };
  return std::visit(Show{}, value);
}

std::optional<CellValue> read_value(std::string_view text, const CellValue& like) {
  switch (kind_of(like)) {
    case CellKind::number: {
      const auto number = number_of(text);
      if (!number || !(std::fabs(*number) <= 1e9)) return std::nullopt;
      return *number;
    }
    case CellKind::whole: {
      const auto number = whole_number_of(text);
      if (!number) return std::nullopt;
      return *number;
    }
    case CellKind::flag:
      if (text == "yes" || text == "true") return true;
      if (text == "no" || text == "false") return false;
      return std::nullopt;
    case CellKind::choice: {
      const Choice chosen = std::get<Choice>(like).with(text);
      if (chosen.name() != text) return std::nullopt;
      return chosen;
    }
    case CellKind::text:
      return std::string(text);
    case CellKind::texts: {
      std::vector<std::string> all;
      for (std::size_t from = 0; !text.empty();) {
        const std::size_t end = text.find('|', from);
        all.emplace_back(text.substr(from, end - from));
        if (end == std::string_view::npos) break;
        from = end + 1;
      }
      return all;
    }
  }
  return std::nullopt;
}

std::string what_value_takes(const CellValue& like) {
  switch (kind_of(like)) {
    case CellKind::number:
      return "a number from -1e9 to 1e9";
    case CellKind::whole:
      return "a whole number";
    case CellKind::flag:
      return "yes or no";
    case CellKind::choice:
      return fmt::format("one of {}", fmt::join(std::get<Choice>(like).names(), ", "));
    case CellKind::text:
      return "a text";
    case CellKind::texts:
      return "texts separated by |";
  }
  return "";
}

bool same_value(const CellValue& a, const CellValue& b, double tolerance) {
  if (a.index() != b.index()) return false;
  if (const auto* number = std::get_if<double>(&a))
    return std::fabs(*number - std::get<double>(b)) <= tolerance;
  if (const auto* choice = std::get_if<Choice>(&a)) return choice->name() == std::get<Choice>(b).name();
  return a == b;
}

std::optional<double> number_in(const CellValue& value) {
  if (const auto* number = std::get_if<double>(&value)) return *number;
  if (const auto* whole = std::get_if<int>(&value)) return *whole;
  if (const auto* flag = std::get_if<bool>(&value)) return *flag ? 1.0 : 0.0;
  return std::nullopt;
}

}  // namespace ubbo::io
