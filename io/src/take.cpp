#include "ubbo/io/take.hpp"

#include <fmt/format.h>

#include <array>
#include <charconv>
#include <cmath>
#include <iterator>

#include "ubbo/io/input_error.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io {

namespace {

constexpr std::string_view full_header = "time_ms,contact,phase,x,y,pressure,tool,size,device";
constexpr std::array phase_names{std::string_view{"down"}, std::string_view{"move"}, std::string_view{"up"},
                                 std::string_view{"cancel"}};
constexpr std::array tool_names{std::string_view{"finger"}, std::string_view{"stylus"},
                                std::string_view{"mouse"}};
constexpr std::size_t needed_fields = 5;
constexpr std::size_t most_fields = 9;

std::string_view trimmed(std::string_view text) {
  const auto first = text.find_first_not_of(" \t\r");
  if (first == std::string_view::npos) return text.substr(0, 0);  // still says where it stands
  return text.substr(first, text.find_last_not_of(" \t\r") - first + 1);
}

// What was found, quoted and kept short.
std::string quoted(std::string_view text) {
  constexpr std::size_t most = 60;
  return fmt::format("'{}{}'", text.substr(0, most), text.size() > most ? "…" : "");
}

class Reader {
 public:
  Reader(std::string_view text, const std::string& name) : text_(text), name_(name) {}

  Take read() {
    while (next_line()) {
      const std::string_view line = trimmed(line_);
      if (line.empty()) continue;
      if (line.front() == '#') {
        if (take_.samples.empty()) read_note(line.substr(1));
      } else if (columns_ == 0) {
        read_header(line);
      } else {
        read_sample();
      }
    }
    if (columns_ == 0)
      throw InputError({.file = name_, .found = "no header line", .takes = std::string(full_header)});
    if (take_.samples.empty())
      throw InputError({.file = name_, .found = "no samples", .takes = "at least one line after the header"});
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

  [[noreturn]] void refuse(std::string_view where, std::string found, std::string takes,
                           std::string nearest = {}) {
    const auto column = static_cast<std::size_t>(where.data() - line_.data()) + 1;
    throw InputError({name_, line_number_, column, std::move(found), std::move(takes), std::move(nearest)});
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

  double number(std::string_view field, const char* what, double least, double most) {
    double value = 0.0;
    const auto [end, error] = std::from_chars(field.data(), field.data() + field.size(), value);
    if (error != std::errc{} || end != field.data() + field.size() || !(value >= least && value <= most))
      refuse(field, fmt::format("{} {}", what, quoted(field)),
             fmt::format("a number from {} to {}", least, most));
    return value;
  }

  template <class Names>
  std::size_t choice(std::string_view field, const char* what, const Names& names) {
    for (std::size_t i = 0; i < names.size(); ++i)
      if (field == names[i]) return i;
    refuse(field, fmt::format("{} {}", what, quoted(field)), fmt::format("{}", fmt::join(names, ", ")),
           nearest_name(field, names));
  }

  void read_sample() {
    std::array<std::string_view, most_fields> fields;
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

    constexpr double most_ms = 1e13;
    Sample sample;
    sample.time = from_ms(number(fields[0], "time_ms", -most_ms, most_ms));
    sample.contact = static_cast<int>(number(fields[1], "contact", 0, 2147483647));
    sample.phase = static_cast<Phase>(choice(fields[2], "phase", phase_names));
    sample.at.x = number(fields[3], "x", -Contacts::farthest, Contacts::farthest);
    sample.at.y = number(fields[4], "y", -Contacts::farthest, Contacts::farthest);
    if (columns_ > 5) sample.pressure = number(fields[5], "pressure", 0, 1);
    if (columns_ > 6) sample.tool = static_cast<Tool>(choice(fields[6], "tool", tool_names));
    if (columns_ > 7) sample.size = number(fields[7], "size", 0, 10000);
    if (columns_ > 8) sample.device = static_cast<int>(number(fields[8], "device", 0, 2147483647));
    if (!take_.samples.empty() && sample.time < take_.samples.back().time)
      refuse(fields[0], fmt::format("time_ms {} after {}", fields[0], to_ms(take_.samples.back().time)),
             "times that do not decrease");
    take_.samples.push_back(sample);
  }

  std::string_view text_;
  const std::string& name_;
  std::size_t at_ = 0;
  std::string_view line_;
  std::size_t line_number_ = 0;
  std::size_t columns_ = 0;
  Take take_;
};

}  // namespace

std::string Take::note(std::string_view name) const {
  for (const auto& [key, value] : notes)
    if (key == name) return value;
  return {};
}

Take parse_take(std::string_view text, const std::string& name) { return Reader(text, name).read(); }

Take read_take(const std::string& path) { return parse_take(read_text(path), path); }

std::string write_take(const Take& take) {
  std::string text;
  auto out = std::back_inserter(text);
  for (const auto& [key, value] : take.notes) fmt::format_to(out, "# {} = {}\n", key, value);
  // What no sample has is left out.
  const auto& samples = take.samples;
  const bool devices =
      std::any_of(samples.begin(), samples.end(), [](const Sample& s) { return s.device != 0; });
  const bool sizes =
      devices || std::any_of(samples.begin(), samples.end(), [](const Sample& s) { return s.size != 0.0; });
  fmt::format_to(out, "time_ms,contact,phase,x,y,pressure,tool{}{}\n", sizes ? ",size" : "",
                 devices ? ",device" : "");
  for (const Sample& sample : samples) {
    fmt::format_to(out, "{},{},{},{},{},{},{}", to_ms(sample.time), sample.contact, name_of(sample.phase),
                   sample.at.x, sample.at.y, sample.pressure, name_of(sample.tool));
    if (sizes) fmt::format_to(out, ",{}", sample.size);
    if (devices) fmt::format_to(out, ",{}", sample.device);
    text += '\n';
  }
  return text;
}

}  // namespace ubbo::io
