#include "json.hpp"

#include <algorithm>

#include "ubbo/io/text/harmless.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

[[noreturn]] void refuse(std::string_view text, std::size_t at, const std::string& file,
                         std::size_t first_line, std::string found, std::string takes) {
  const std::string_view before = text.substr(0, at);
  const auto lines = static_cast<std::size_t>(std::count(before.begin(), before.end(), '\n'));
  const std::size_t line_begin = lines == 0 ? 0 : before.rfind('\n') + 1;
  throw InputError({.file = file,
                    .line = first_line + lines,
                    .column = at - line_begin + 1,
                    .found = std::move(found),
                    .takes = std::move(takes)});
}

// Where it is nested too deep, or npos: whoever walks through what was read does so by recursion.
std::size_t too_deep(std::string_view text) {
  int depth = 0;
  bool inside = false;  // of a string
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (inside && c == '\\')
      ++i;
    else if (c == '"')
      inside = !inside;
    else if (!inside && (c == '[' || c == '{') && ++depth > deepest_json)
      return i;
    else if (!inside && (c == ']' || c == '}'))
      --depth;
  }
  return std::string_view::npos;
}

}  // namespace

Json read_json(std::string_view text, const std::string& file, std::size_t line) {
  if (const std::size_t at = too_deep(text); at != std::string_view::npos)
    refuse(text, at, file, line, "the " + std::to_string(deepest_json + 1) + "th level",
           "JSON nested at most " + std::to_string(deepest_json) + " levels deep");
  const auto refuse_at = [&](std::size_t byte) {  // from 1
    const std::size_t at = byte == 0 ? 0 : std::min(byte - 1, text.size());
    refuse(text, at, file, line, at >= text.size() ? "the end" : "'" + harmless(text.substr(at, 1)) + "'",
           "JSON");
  };
  try {
    return Json::parse(text);
  } catch (const Json::parse_error& error) {
    refuse_at(error.byte);
  } catch (const Json::exception&) {
    refuse_at(0);
  }
  return {};
}

std::string json_text(const Json& json, int level) {
  return json.dump(level, ' ', false, Json::error_handler_t::replace) + (level < 0 ? "" : "\n");
}

}  // namespace ubbo::io
