#include "ubbo/io/take/take.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <iterator>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io {

namespace {

constexpr std::string_view full_header = "time_ms,contact,phase,x,y,pressure,tool,size,device";
constexpr std::array phase_names{std::string_view{"down"},  std::string_view{"move"},
                                 std::string_view{"up"},    std::string_view{"cancel"},
                                 std::string_view{"hover"}, std::string_view{"leave"}};
constexpr std::array tool_names{std::string_view{"finger"}, std::string_view{"stylus"},
                                std::string_view{"mouse"}};
constexpr std::array action_words{
    std::string_view{"set"},     std::string_view{"put"},    std::string_view{"key"},
    std::string_view{"back"},    std::string_view{"turn"},   std::string_view{"focus"},
    std::string_view{"show"},    std::string_view{"hide"},   std::string_view{"enable"},
    std::string_view{"disable"}, std::string_view{"remove"}, std::string_view{"call"},
    std::string_view{"wheel"}};
constexpr std::size_t needed_fields = 5;
constexpr std::size_t max_fields = 9;

std::string_view trimmed(std::string_view text) {
  const auto first = text.find_first_not_of(" \t\r");
  if (first == std::string_view::npos) return text.substr(0, 0);  // still says where it stands
  return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

// What was found, quoted and kept short.
std::string quoted(std::string_view text) {
  constexpr std::size_t max = 60;
  return fmt::format("'{}{}'", text.substr(0, max), text.size() > max ? "…" : "");
}

class TakeReader {
 public:
  TakeReader(std::string_view text, const std::string& name) : text_(text), name_(name) {}

  Take read() {
    while (next_line()) {
      const std::string_view line = trimmed(line_);
      if (line.empty()) continue;
      if (line.front() == '#') {
        if (take_.samples.empty() && take_.actions.empty()) read_note(line.substr(1));
      } else if (columns_ == 0) {
        read_header(line);
      } else {
        read_sample();
      }
    }
    if (columns_ == 0)
      throw InputError({.file = name_, .found = "no header line", .takes = std::string(full_header)});
    if (take_.samples.empty() && take_.actions.empty())
      throw InputError({.file = name_, .found = "no samples", .takes = "at least one line after the header"});
    take_.file = name_;
    return std::move(take_);
  }

 private:
  bool next_line() {
    if (at_ >= text_.size()) return false;
    const std::size_t end = std::min(text_.find('\n', at_), text_.size());
    line_ = text_.substr(at_, end - at_);
    at_ = end + 1;
    ++line_number_;
    return true;
  }

  [[noreturn]] void refuse(std::string_view where, std::string_view found, std::string_view takes,
                           std::string_view nearest = {}) {
    const auto column = static_cast<std::size_t>(where.data() - line_.data()) + 1;
    throw InputError(
        {name_, line_number_, column, std::string(found), std::string(takes), std::string(nearest)});
  }

  void read_note(std::string_view text) {
    const std::size_t equals = text.find('=');
    if (equals == std::string_view::npos) return;  // a plain comment
    take_.notes.emplace_back(trimmed(text.substr(0, equals)), trimmed(text.substr(equals + 1)));
  }

  void read_header(std::string_view line) {
    // The last columns may be left out.
    for (std::string_view known = full_header;; known = known.substr(0, known.rfind(','))) {
      columns_ = 1 + static_cast<std::size_t>(std::count(known.begin(), known.end(), ','));
      if (columns_ < needed_fields) refuse(line, "header " + quoted(line), std::string(full_header));
      if (line == known) return;
    }
  }

  double number(std::string_view field, const char* what, double min, double max) {
    const auto value = number_of(field);
    if (!value || !(*value >= min && *value <= max))
      refuse(field, fmt::format("{} {}", what, quoted(field)),
             fmt::format("a number from {} to {}", min, max));
    return *value;
  }

  template <class Names>
  std::size_t choice(std::string_view field, const char* what, const Names& names) {
    for (std::size_t i = 0; i < names.size(); ++i)
      if (field == names[i]) return i;
    refuse(field, fmt::format("{} {}", what, quoted(field)), fmt::format("{}", fmt::join(names, ", ")),
           nearest_name(field, names));
  }

  // "350,,set,frames,9": what the app or the phone did. The last field may be quoted, with quotes doubled.
  bool read_action() {
    const std::size_t first = line_.find(',');
    if (first == std::string_view::npos) return false;
    const std::size_t second = line_.find(',', first + 1);
    if (second == std::string_view::npos || !trimmed(line_.substr(first + 1, second - first - 1)).empty())
      return false;
    std::array<std::string_view, 3> fields{};
    std::size_t from = second + 1;
    for (std::size_t i = 0; i < fields.size() && from <= line_.size(); ++i) {
      // The value keeps its commas.
      const std::size_t end =
          i + 1 < fields.size() ? std::min(line_.find(',', from), line_.size()) : line_.size();
      fields[i] = trimmed(line_.substr(from, end - from));
      from = end + 1;
    }
    Action action;
    action.time = time_of(trimmed(line_.substr(0, first)));
    action.kind = static_cast<Action::Kind>(choice(fields[0], "what happens", action_words));
    action.target = std::string(fields[1]);
    action.value = unquoted(fields[2]);
    action.before = take_.samples.size();
    action.line = line_number_;
    take_.actions.push_back(std::move(action));
    return true;
  }

  static std::string unquoted(std::string_view text) {
    if (text.size() < 2 || text.front() != '"' || text.back() != '"') return std::string(text);
    std::string made;
    for (std::size_t i = 1; i + 1 < text.size(); ++i) {
      made += text[i];
      if (text[i] == '"' && text[i + 1] == '"') ++i;
    }
    return made;
  }

  Micros time_of(std::string_view field) {
    constexpr double max_ms = 1e13;
    const Micros time = from_ms(number(field, "time_ms", -max_ms, max_ms));
    if (time < latest_)
      refuse(field, fmt::format("time_ms {} after {}", field, to_ms(latest_)), "times that do not decrease");
    latest_ = time;
    return time;
  }

  void read_sample() {
    if (read_action()) return;
    std::array<std::string_view, max_fields> fields;
    std::size_t count = 0;
    for (std::size_t from = 0;; ++count) {
      const std::size_t end = std::min(line_.find(',', from), line_.size());
      if (count < columns_) fields[count] = trimmed(line_.substr(from, end - from));
      if (end == line_.size()) break;
      from = end + 1;
    }
    ++count;
    if (count != columns_)
      refuse(line_, fmt::format("{} fields", count), fmt::format("{} fields, as the header says", columns_));

    Sample sample;
    sample.time = time_of(fields[0]);
    sample.contact = static_cast<int>(number(fields[1], "contact", -2147483648.0, 2147483647));
    sample.phase = static_cast<Phase>(choice(fields[2], "phase", phase_names));
    sample.at.x = number(fields[3], "x", -Contacts::farthest, Contacts::farthest);
    sample.at.y = number(fields[4], "y", -Contacts::farthest, Contacts::farthest);
    if (columns_ > 5) sample.pressure = number(fields[5], "pressure", 0, 1);
    if (columns_ > 6) sample.tool = static_cast<Tool>(choice(fields[6], "tool", tool_names));
    if (columns_ > 7) sample.size = number(fields[7], "size", 0, 10000);
    if (columns_ > 8) sample.device = static_cast<int>(number(fields[8], "device", 0, 2147483647));
    take_.samples.push_back(sample);
  }

  std::string_view text_;
  const std::string& name_;
  std::size_t at_ = 0;
  std::string_view line_;
  std::size_t line_number_ = 0;
  std::size_t columns_ = 0;
  Micros latest_ = Micros::min();
  Take take_;
};

}  // namespace

const char* name_of(Action::Kind kind) { return action_words[static_cast<std::size_t>(kind)].data(); }

std::span<const std::string_view> action_names() { return action_words; }

std::string Take::note(std::string_view name) const {
  for (const auto& [key, value] : notes)
    if (key == name) return value;
  return {};
}

Take parse_take(std::string_view text, const std::string& name) { return TakeReader(text, name).read(); }

namespace {

// A line end in a name or a value would end the line.
std::string one_line(std::string text) {
  std::replace_if(
      text.begin(), text.end(), [](char c) { return c == '\n' || c == '\r'; }, ' ');
  return text;
}

std::string quoted_value(const std::string& value) {
  if (value.find_first_of("\", \t") == std::string::npos) return one_line(value);
  std::string made = "\"";
  for (const char c : one_line(value)) made += c == '"' ? "\"\"" : std::string(1, c);
  return made + "\"";
}

}  // namespace

std::string write_take(const Take& take) {
  std::string text;
  auto out = std::back_inserter(text);
  for (const auto& [key, value] : take.notes)
    fmt::format_to(out, "# {} = {}\n", one_line(key), one_line(value));
  // What no sample has is left out.
  const auto& samples = take.samples;
  const bool devices =
      std::any_of(samples.begin(), samples.end(), [](const Sample& s) { return s.device != 0; });
  const bool sizes =
      devices || std::any_of(samples.begin(), samples.end(), [](const Sample& s) { return s.size != 0.0; });
  fmt::format_to(out, "time_ms,contact,phase,x,y,pressure,tool{}{}\n", sizes ? ",size" : "",
                 devices ? ",device" : "");
  std::size_t next = 0;
  const auto actions_before = [&](std::size_t count) {
    for (; next < take.actions.size() && take.actions[next].before <= count; ++next) {
      const Action& action = take.actions[next];
      fmt::format_to(out, "{},,{}", to_ms(action.time), name_of(action.kind));
      if (!action.target.empty() || !action.value.empty()) text += "," + one_line(action.target);
      if (!action.value.empty()) text += "," + quoted_value(action.value);
      text += '\n';
    }
  };
  std::size_t count = 0;
  for (const Sample& sample : samples) {
    actions_before(count++);
    fmt::format_to(out, "{},{},{},{},{},{},{}", to_ms(sample.time), sample.contact, name_of(sample.phase),
                   sample.at.x, sample.at.y, sample.pressure, name_of(sample.tool));
    if (sizes) fmt::format_to(out, ",{}", sample.size);
    if (devices) fmt::format_to(out, ",{}", sample.device);
    text += '\n';
  }
  actions_before(count);
  return text;
}

}  // namespace ubbo::io
