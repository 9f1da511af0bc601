#include "spec_reader.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <map>

#include "ubbo/base/settings.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

bool is_word(char c) {
  return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' || c == '_';
}

bool is_letter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }

// A right one of the same kind, to be shown beside a wrong one.
std::string example_of(std::string_view name) {
  static const std::map<std::string_view, std::string_view> examples{
      {"cubic-bezier", "cubic-bezier(0.3, 0, 0.2, 1)"},
      {"steps", "steps(4, jump-none)"},
      {"linear", "linear(0, 0.6 20%, 1)"},
      {"through", "through(0 0, 30% 0.8, 1 1)"},
      {"joined", "joined(ease-in until 40% to 0.7, bounce(out))"},
      {"reversed", "reversed(ease-in)"},
      {"mirrored", "mirrored(quad(in))"},
      {"limited", "limited(back(out), 0, 1)"},
      {"back", "back(out, overshoot 10%)"},
      {"elastic", "elastic(out, swings 3)"},
      {"bounce", "bounce(out, bounces 3, keeps 25%)"},
      {"spring",
       "spring(mass 1, stiffness 320, damping 30), spring(frequency 12, ratio 0.6) or "
       "spring(settle 400ms, overshoot 5%)"},
      {"coast", "coast(half-life 170ms) or coast(friction 4)"}};
  if (const auto found = examples.find(name); found != examples.end()) return std::string(found->second);
  for (const char* family : {"sine", "quad", "cubic", "quart", "quint", "expo", "circ"})
    if (name == family) return fmt::format("{}(in-out)", name);
  return "ease-out 240ms";
}

std::string message(const SpecError::Facts& facts) {
  return fmt::format("'{}': found {} at character {}; takes {}; for example {}", facts.spec, facts.found,
                     facts.at + 1, facts.takes, facts.example);
}

std::string picture_of(const SpecError::Facts& facts) {
  // One column a character, not a byte.
  const auto width = [](std::string_view text) {
    return static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
  };
  std::string line = facts.spec;
  for (char& c : line)
    if (c == '\n' || c == '\r' || c == '\t') c = ' ';
  const std::string_view shown = line;
  const std::size_t before = width(shown.substr(0, std::min(facts.at, line.size())));
  const std::size_t marks =
      std::max<std::size_t>(1, width(shown.substr(std::min(facts.at, line.size()), facts.length)));
  return fmt::format("  {}\n  {:{}}{:^<{}}\n  for example: {}", line, "", before, "", marks, facts.example);
}

}  // namespace

SpecError::SpecError(Facts facts)
    : std::invalid_argument(message(facts)), facts_(std::move(facts)), picture_(picture_of(facts_)) {}

namespace detail {

void SpecReader::refuse(std::size_t at, std::size_t length, std::string_view found,
                        std::string_view takes) const {
  throw SpecError({std::string(text_), at, std::max<std::size_t>(length, 1), std::string(found),
                   std::string(takes), example_of(in_)});
}

void SpecReader::refuse_here(const std::string& takes) {
  skip();
  if (done()) refuse(text_.size(), 1, "the end", takes);
  const std::size_t length = word_length(at_);
  refuse(at_, length, fmt::format("'{}'", text_.substr(at_, length)), takes);
}

std::size_t SpecReader::word_length(std::size_t from) const {
  std::size_t to = from;
  while (to < text_.size() &&
         (is_word(text_[to]) || text_[to] == '.' || text_[to] == '+' || text_[to] == '%'))
    ++to;
  // What is no word is one character, which may be several bytes.
  if (to == from && to < text_.size()) ++to;
  while (to < text_.size() && (static_cast<unsigned char>(text_[to]) & 0xC0U) == 0x80U) ++to;
  return to - from;
}

void SpecReader::skip() {
  for (;;) {
    while (!done() && (text_[at_] == ' ' || text_[at_] == '\t' || text_[at_] == '\n' || text_[at_] == '\r' ||
                       text_[at_] == '\f'))
      ++at_;
    if (text_.substr(std::min(at_, text_.size()), 2) != "/*") return;
    const std::size_t end = text_.find("*/", at_ + 2);
    at_ = end == std::string_view::npos ? text_.size() : end + 2;
  }
}

bool SpecReader::take(char c) {
  skip();
  if (done() || text_[at_] != c) return false;
  ++at_;
  return true;
}

void SpecReader::need(char c, const std::string& takes) {
  if (!take(c)) refuse_here(takes);
}

std::string SpecReader::peek_word() {
  skip();
  if (done() || !is_letter(text_[at_])) return {};
  std::size_t end = at_;
  while (end < text_.size() && is_word(text_[end])) ++end;
  std::string word(text_.substr(at_, end - at_));
  std::transform(word.begin(), word.end(), word.begin(),
                 [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
  return word;
}

bool SpecReader::take_word(std::string_view word) {
  if (peek_word() != word) return false;
  at_ += word.size();
  return true;
}

void SpecReader::refuse_name(std::string_view word, std::span<const std::string_view> names) {
  const std::string nearest = nearest_name(word, names);
  refuse_here(
      fmt::format("{}{}", fmt::join(names, ", "), nearest.empty() ? "" : "; nearest known: " + nearest));
}

std::optional<Number> SpecReader::take_number() {
  skip();
  std::size_t i = at_;
  const auto digits = [&] {
    const std::size_t from = i;
    while (i < text_.size() && text_[i] >= '0' && text_[i] <= '9') ++i;
    return i != from;
  };
  if (i < text_.size() && (text_[i] == '+' || text_[i] == '-')) ++i;
  bool any = digits();
  if (i + 1 < text_.size() && text_[i] == '.' && text_[i + 1] >= '0' && text_[i + 1] <= '9') {
    ++i;
    any = digits();
  }
  if (!any) return std::nullopt;
  if (i < text_.size() && (text_[i] == 'e' || text_[i] == 'E')) {
    const std::size_t mark = i++;
    if (i < text_.size() && (text_[i] == '+' || text_[i] == '-')) ++i;
    if (!digits()) i = mark;
  }
  Number number;
  number.at = at_;
  const std::size_t from = text_[at_] == '+' ? at_ + 1 : at_;
  const NumberAt got = number_at(std::string_view(text_).substr(from, i - from));
  number.value = got.value;
  if (got.used == 0) refuse(at_, i - at_, "a number that is too large or too small", "a finite number");
  std::size_t end = i;
  if (end < text_.size() && text_[end] == '%') {
    ++end;
    number.unit = Unit::percent;
  } else {
    while (end < text_.size() && is_word(text_[end])) ++end;
    std::string unit(text_.substr(i, end - i));
    for (char& c : unit) c = static_cast<char>(c | 0x20);
    number.unit = unit.empty() ? Unit::none : unit == "ms" ? Unit::ms : unit == "s" ? Unit::s : Unit::other;
  }
  number.end = at_ = end;
  return number;
}

std::string SpecReader::found(const Number& number) const {
  return fmt::format("'{}'", text_.substr(number.at, number.end - number.at));
}

void SpecReader::check(const Number& number, double value, const Range& range, const char* unit) const {
  if (value >= range.min && value <= range.max) return;
  refuse(number.at, number.end - number.at, fmt::format("{} = {}", range.name, found(number)),
         fmt::format("{} to {}{}", plain_number(range.min), plain_number(range.max), unit));
}

double SpecReader::plain(const Range& range) {
  const auto number = take_number();
  const std::string takes = fmt::format("{}, a number", range.name);
  if (!number) refuse_here(takes);
  if (number->unit != Unit::none) refuse(number->at, number->end - number->at, found(*number), takes);
  check(*number, number->value, range, "");
  return number->value;
}

double SpecReader::fraction(const Range& range) {
  const auto number = take_number();
  const std::string takes = fmt::format("{}, as 25% or 0.25", range.name);
  if (!number) refuse_here(takes);
  if (number->unit != Unit::none && number->unit != Unit::percent)
    refuse(number->at, number->end - number->at, found(*number), takes);
  const double value = number->unit == Unit::percent ? number->value / 100.0 : number->value;
  check(*number, value, range, "");
  return value;
}

Micros SpecReader::time(const Range& range) {
  const auto number = take_number();
  if (!number) refuse_here(fmt::format("{}, as 240ms or 0.24s", range.name));
  return time(*number, range);
}

Micros SpecReader::time(const Number& number, const Range& range) const {
  if (number.unit != Unit::ms && number.unit != Unit::s)
    refuse(number.at, number.end - number.at, found(number),
           fmt::format("{} with its unit, as 240ms or 0.24s", range.name));
  const double ms = number.unit == Unit::s ? number.value * 1000.0 : number.value;
  check(number, ms, range, " ms");
  return from_ms(ms);
}

}  // namespace detail
}  // namespace ubbo::io
