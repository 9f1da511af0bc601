#include "ubbo/io/motion_spec.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <charconv>
#include <cmath>
#include <map>
#include <optional>

#include "ubbo/base/settings.hpp"
#include "ubbo/io/easing_css.hpp"
#include "ubbo/io/input_error.hpp"
#include "ubbo/motion/progress.hpp"

namespace ubbo::io {

namespace {

constexpr std::array family_names{std::string_view{"sine"},    std::string_view{"quad"},
                                  std::string_view{"cubic"},   std::string_view{"quart"},
                                  std::string_view{"quint"},   std::string_view{"expo"},
                                  std::string_view{"circ"},    std::string_view{"back"},
                                  std::string_view{"elastic"}, std::string_view{"bounce"}};
constexpr std::array ease_names{std::string_view{"in"}, std::string_view{"out"}, std::string_view{"in-out"}};
constexpr std::array jump_names{std::string_view{"jump-start"}, std::string_view{"jump-end"},
                                std::string_view{"jump-none"},  std::string_view{"jump-both"},
                                std::string_view{"start"},      std::string_view{"end"}};
constexpr std::array motion_names{
    std::string_view{"linear"},   std::string_view{"ease"},         std::string_view{"ease-in"},
    std::string_view{"ease-out"}, std::string_view{"ease-in-out"},  std::string_view{"step-start"},
    std::string_view{"step-end"}, std::string_view{"cubic-bezier"}, std::string_view{"steps"},
    std::string_view{"through"},  std::string_view{"joined"},       std::string_view{"reversed"},
    std::string_view{"mirrored"}, std::string_view{"limited"},      std::string_view{"sine"},
    std::string_view{"quad"},     std::string_view{"cubic"},        std::string_view{"quart"},
    std::string_view{"quint"},    std::string_view{"expo"},         std::string_view{"circ"},
    std::string_view{"back"},     std::string_view{"elastic"},      std::string_view{"bounce"},
    std::string_view{"spring"},   std::string_view{"coast"}};

template <std::size_t N>
std::size_t index_of(const std::array<std::string_view, N>& names, std::string_view name) {
  return static_cast<std::size_t>(std::find(names.begin(), names.end(), name) - names.begin());
}

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
       "spring(mass 1, stiffness 170, damping 26), spring(frequency 12, ratio 0.6) or "
       "spring(settle 400ms, overshoot 5%)"},
      {"coast", "coast(half-life 170ms) or coast(friction 4)"}};
  if (const auto found = examples.find(name); found != examples.end()) return std::string(found->second);
  if (index_of(family_names, name) < family_names.size()) return fmt::format("{}(in-out)", name);
  return "ease-out 240ms";
}

enum class Unit { none, percent, ms, s, other };

struct Number {
  double value = 0.0;
  Unit unit = Unit::none;
  std::size_t at = 0;
  std::size_t end = 0;
};

// What a number may be here: `least` to `most` in the plain unit (shares for per cents, ms for times).
struct Range {
  const char* name;
  double least;
  double most;
};

class Parser {
 public:
  explicit Parser(std::string_view text) : text_(text) {}

  MotionSpec read() {
    skip();
    if (done()) refuse(at_, 1, "nothing", "a motion");
    std::optional<Passage::Way> way = moving();
    MotionSpec spec{std::string(text_), Timed{}, true};
    if (way) {
      spec.passage.way = *way;
    } else {
      spec.passage.way = Timed{curve(), Micros{0}};
      spec.has_time = false;
    }
    options(spec);
    return spec;
  }

 private:
  [[noreturn]] void refuse(std::size_t at, std::size_t length, std::string found, std::string takes) const {
    throw SpecError({std::string(text_), at, std::max<std::size_t>(length, 1), std::move(found),
                     std::move(takes), example_of(in_)});
  }
  [[noreturn]] void refuse_here(const std::string& takes) {
    skip();
    if (done()) refuse(text_.size(), 1, "the end", takes);
    const std::size_t length = std::max<std::size_t>(word_length(at_), 1);
    refuse(at_, length, fmt::format("'{}'", text_.substr(at_, length)), takes);
  }

  [[nodiscard]] bool done() const { return at_ >= text_.size(); }
  [[nodiscard]] static bool is_word(char c) {
    return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' || c == '_';
  }
  [[nodiscard]] static bool is_letter(char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z'); }
  [[nodiscard]] std::size_t word_length(std::size_t from) const {
    std::size_t to = from;
    while (to < text_.size() &&
           (is_word(text_[to]) || text_[to] == '.' || text_[to] == '+' || text_[to] == '%'))
      ++to;
    return to - from;
  }
  void skip() {
    for (;;) {
      while (!done() && (text_[at_] == ' ' || text_[at_] == '\t' || text_[at_] == '\n' ||
                         text_[at_] == '\r' || text_[at_] == '\f'))
        ++at_;
      if (text_.substr(std::min(at_, text_.size()), 2) != "/*") return;
      const std::size_t end = text_.find("*/", at_ + 2);
      at_ = end == std::string_view::npos ? text_.size() : end + 2;
    }
  }
  // The next character if it is `c`.
  bool take(char c) {
    skip();
    if (done() || text_[at_] != c) return false;
    ++at_;
    return true;
  }
  void need(char c, const std::string& takes) {
    if (!take(c)) refuse_here(takes);
  }
  // The word that comes next, in small letters; "" when none does.
  std::string peek_word() {
    skip();
    if (done() || !is_letter(text_[at_])) return {};
    std::size_t end = at_;
    while (end < text_.size() && is_word(text_[end])) ++end;
    std::string word(text_.substr(at_, end - at_));
    std::transform(word.begin(), word.end(), word.begin(),
                   [](char c) { return c >= 'A' && c <= 'Z' ? static_cast<char>(c - 'A' + 'a') : c; });
    return word;
  }
  bool take_word(std::string_view word) {
    if (peek_word() != word) return false;
    at_ += word.size();
    return true;
  }
  template <std::size_t N>
  std::size_t need_name(const std::array<std::string_view, N>& names) {
    const std::string word = peek_word();
    const std::size_t index = index_of(names, word);
    if (index < N) {
      at_ += word.size();
      return index;
    }
    const std::string nearest = nearest_name(word, names);
    refuse_here(
        fmt::format("{}{}", fmt::join(names, ", "), nearest.empty() ? "" : "; nearest known: " + nearest));
  }
  [[nodiscard]] bool at_function() const { return at_ < text_.size() && text_[at_] == '('; }

  // A number as CSS writes it, with its unit.
  std::optional<Number> take_number() {
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
    const auto got = std::from_chars(text_.data() + from, text_.data() + i, number.value);
    if (got.ec != std::errc{})
      refuse(at_, i - at_, "a number that is too large or too small", "a finite number");
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

  std::string found(const Number& number) const {
    return fmt::format("'{}'", text_.substr(number.at, number.end - number.at));
  }
  void check(const Number& number, double value, const Range& range, const char* unit) const {
    if (value >= range.least && value <= range.most) return;
    refuse(number.at, number.end - number.at, fmt::format("{} = {}", range.name, found(number)),
           fmt::format("{} to {}{}", plain_number(range.least), plain_number(range.most), unit));
  }
  // A number without unit.
  double plain(const Range& range) {
    const auto number = take_number();
    const std::string takes = fmt::format("{}, a number", range.name);
    if (!number) refuse_here(takes);
    if (number->unit != Unit::none) refuse(number->at, number->end - number->at, found(*number), takes);
    check(*number, number->value, range, "");
    return number->value;
  }
  // A share: 0.25 or 25%.
  double share(const Range& range) {
    const auto number = take_number();
    const std::string takes = fmt::format("{}, as 25% or 0.25", range.name);
    if (!number) refuse_here(takes);
    if (number->unit != Unit::none && number->unit != Unit::percent)
      refuse(number->at, number->end - number->at, found(*number), takes);
    const double value = number->unit == Unit::percent ? number->value / 100.0 : number->value;
    check(*number, value, range, "");
    return value;
  }
  Micros time(const Range& range) {
    const auto number = take_number();
    if (!number) refuse_here(fmt::format("{}, as 240ms or 0.24s", range.name));
    return time(*number, range);
  }
  Micros time(const Number& number, const Range& range) const {
    if (number.unit != Unit::ms && number.unit != Unit::s)
      refuse(number.at, number.end - number.at, found(number),
             fmt::format("{} with its unit, as 240ms or 0.24s", range.name));
    const double ms = number.unit == Unit::s ? number.value * 1000.0 : number.value;
    check(number, ms, range, " ms");
    return from_ms(ms);
  }

  std::optional<Passage::Way> moving() {
    const std::string word = peek_word();
    if (word != "spring" && word != "coast") return std::nullopt;
    const std::size_t begins = at_;
    in_ = word;
    at_ += word.size();
    need('(', "'(' and what the " + word + " is like");
    Passage::Way way = word == "spring" ? Passage::Way(spring(begins)) : Passage::Way(coast());
    need(')', "',' or ')'");
    return way;
  }

  Spring spring(std::size_t begins) {
    constexpr std::array names{std::string_view{"mass"},     std::string_view{"stiffness"},
                               std::string_view{"damping"},  std::string_view{"frequency"},
                               std::string_view{"ratio"},    std::string_view{"settle"},
                               std::string_view{"overshoot"}};
    std::array<std::optional<double>, names.size()> given{};
    Micros settle{};
    do {
      skip();
      const std::size_t at = at_;
      const std::size_t i = need_name(names);
      const auto same_way = [](std::size_t a, std::size_t b) {
        return (a < 3) == (b < 3) && (a < 5) == (b < 5);
      };
      for (std::size_t other = 0; other < names.size(); ++other)
        if (given[other] && (other == i || !same_way(other, i)))
          refuse(at, names[i].size(), fmt::format("'{}' beside '{}'", names[i], names[other]),
                 "one of the three ways to tell a spring");
      switch (i) {
        case 0:
          given[i] = plain({"mass", 1e-6, 1e6});
          break;
        case 1:
          given[i] = plain({"stiffness", 1e-6, 1e9});
          break;
        case 2:
          given[i] = plain({"damping", 1e-9, 1e9});
          break;
        case 3:
          given[i] = plain({"frequency", 1e-3, 1e5});
          break;
        case 4:
          given[i] = plain({"ratio", 1e-3, 1e3});
          break;
        case 5:
          settle = time({"settle", 1e-3, 3.6e6});
          given[i] = 0.0;
          break;
        default:
          given[i] = share({"overshoot", 0.0, 0.95});
          break;
      }
    } while (take(','));
    const auto missing = [&](std::size_t i) {
      skip();
      refuse(at_, 1, fmt::format("a spring without '{}'", names[i]), std::string(names[i]));
    };
    try {
      if (given[0] || given[1] || given[2]) {
        if (!given[1]) missing(1);
        if (!given[2]) missing(2);
        return Spring::physical(given[0].value_or(1.0), *given[1], *given[2]);
      }
      if (given[3] || given[4]) {
        if (!given[3]) missing(3);
        if (!given[4]) missing(4);
        return Spring::natural(*given[3], *given[4]);
      }
      if (!given[5]) missing(5);
      return Spring::settling(settle, given[6].value_or(0.0));
    } catch (const SpecError&) {
      throw;
    } catch (const std::invalid_argument& refused) {
      refuse(begins, at_ - begins, refused.what(), "another spring");
    }
  }

  Coast coast() {
    constexpr std::array names{std::string_view{"friction"}, std::string_view{"half-life"}};
    if (need_name(names) == 0) return Coast::friction(plain({"friction", 1e-3, 1e4}));
    return Coast::half_life(time({"half-life", 0.07, 690'000}));
  }

  Curve curve() {
    constexpr int deepest = 20;
    if (++depth_ > deepest) refuse_here(fmt::format("at most {} curves within each other", deepest));
    const std::string outer = in_;
    const std::size_t begins = at_;
    try {
      Curve made = named_curve();
      in_ = outer;
      --depth_;
      return made;
    } catch (const SpecError&) {
      throw;
    } catch (const std::invalid_argument& refused) {
      refuse(begins, at_ - begins, refused.what(), "another one");
    }
  }

  Curve named_curve() {
    skip();
    const std::string name = peek_word();
    const std::size_t begins = at_;
    at_ += name.size();
    in_ = name;
    if (!at_function()) {
      if (name == "linear") return {};
      if (name == "ease") return Curve::ease();
      if (name == "ease-in") return Curve::ease_in();
      if (name == "ease-out") return Curve::ease_out();
      if (name == "ease-in-out") return Curve::ease_in_out();
      if (name == "step-start") return Curve::steps(1, Jump::start);
      if (name == "step-end") return Curve::steps(1, Jump::end);
      if (index_of(motion_names, name) < motion_names.size() && name != "spring" && name != "coast")
        refuse_here(fmt::format("'(' after {}", name));
    }
    const bool known = index_of(motion_names, name) < motion_names.size();
    const bool keyword = name.starts_with("ease") || name.starts_with("step-");
    if (!known || keyword || name == "spring" || name == "coast") {
      at_ = begins;
      in_ = "";
      if (keyword && known)
        refuse(begins + name.size(), 1, "'('", name + " alone; it takes nothing in brackets");
      if (known) refuse_here("a curve; a spring or coast stands alone");
      need_name(motion_names);
    }
    need('(', "'('");
    Curve made = function(name);
    need(')', "',' or ')'");
    return made;
  }

  Curve function(const std::string& name) {
    if (name == "cubic-bezier") {
      double n[4];
      constexpr Range ranges[4] = {{"x1", 0, 1}, {"y1", -1e6, 1e6}, {"x2", 0, 1}, {"y2", -1e6, 1e6}};
      for (int i = 0; i < 4; ++i) {
        if (i != 0) need(',', fmt::format("',' and {}; cubic-bezier has four numbers", ranges[i].name));
        n[i] = plain(ranges[i]);
      }
      return Curve::cubic_bezier(n[0], n[1], n[2], n[3]);
    }
    if (name == "steps") return steps();
    if (name == "linear") return stops();
    if (name == "through") return through();
    if (name == "joined") return joined();
    if (name == "reversed") return curve().reversed();
    if (name == "mirrored") return curve().mirrored();
    if (name == "limited") {
      const Curve inner = curve();
      if (!take(',')) return inner.limited();
      const double least = plain({"least", -1e6, 1e6});
      need(',', "',' and the most");
      skip();
      const double most = plain({"most", least + 1e-9, 1e6});
      return inner.limited(least, most);
    }
    return family(name);
  }

  Curve steps() {
    const auto count = take_number();
    if (!count) refuse_here("how many steps, a whole number");
    const auto whole = [&](int least) {
      if (count->unit != Unit::none || count->value != std::floor(count->value) || count->value < least ||
          count->value > 1e6)
        refuse(count->at, count->end - count->at, fmt::format("count = {}", found(*count)),
               fmt::format("a whole number, {} to 1000000{}", least, least == 2 ? " with jump-none" : ""));
    };
    Jump jump = Jump::end;
    if (take(',')) {
      constexpr std::array jumps{Jump::start, Jump::end, Jump::none, Jump::both, Jump::start, Jump::end};
      jump = jumps[need_name(jump_names)];
    }
    whole(jump == Jump::none ? 2 : 1);
    return Curve::steps(static_cast<int>(count->value), jump);
  }

  Curve stops() {
    std::vector<CurveStop> stops;
    do {
      // The number comes before its places or after them.
      std::optional<double> value;
      std::vector<double> places;
      bool closed = false;
      while (const auto number = take_number()) {
        if (number->unit == Unit::none && !value) {
          value = number->value;
          closed = !places.empty();
        } else if (number->unit == Unit::percent && !closed && places.size() < 2) {
          places.push_back(number->value / 100.0);
        } else {
          refuse(number->at, number->end - number->at, found(*number),
                 "',' between stops; a stop is a number and at most two places in %");
        }
      }
      if (!value) refuse_here("a stop: a number and, if wanted, its place, as 0.6 20%");
      if (places.empty())
        stops.push_back({*value, std::nullopt});
      else
        for (const double place : places) stops.push_back({*value, place});
    } while (take(','));
    return Curve::stops(stops);
  }

  Curve through() {
    std::vector<Stops::Point> points;
    Between between = Between::monotone;
    do {
      if (!points.empty() && take_word("free")) {
        between = Between::free;
        break;
      }
      const double least = points.empty() ? -1e6 : points.back().at + 1e-9;
      const double at = share({"place", least, 1e6});
      points.push_back({at, plain({"value", -1e6, 1e6})});
    } while (take(','));
    if (points.size() < 2) refuse_here("',' and another point; a curve runs through two or more");
    return Curve::through(points, between);
  }

  Curve joined() {
    std::vector<CurvePiece> pieces;
    do {
      CurvePiece piece{curve(), 1.0, 1.0};
      if (take_word("until")) {
        const double least = pieces.empty() ? 1e-9 : pieces.back().until + 1e-9;
        piece.until = share({"until", least, 1.0});
      }
      if (take_word("to")) piece.to = plain({"to", -1e6, 1e6});
      pieces.push_back(piece);
      if (piece.until == 1.0) break;
    } while (take(','));
    if (pieces.back().until != 1.0) refuse_here("',' and a last curve, which runs until 100%");
    return Curve::joined(pieces);
  }

  Curve family(const std::string& name) {
    const auto which = static_cast<Family>(index_of(family_names, name));
    const auto ease = static_cast<Ease>(need_name(ease_names));
    FamilyShape shape;
    while (take(',')) {
      if (which == Family::back) {
        need_name(std::array{std::string_view{"overshoot"}});
        shape.overshoot = share({"overshoot", 0.0, 10.0});
      } else if (which == Family::elastic) {
        need_name(std::array{std::string_view{"swings"}});
        shape.swings = plain({"swings", 0.25, 50.0});
      } else if (which == Family::bounce) {
        if (need_name(std::array{std::string_view{"bounces"}, std::string_view{"keeps"}}) == 0)
          shape.bounces = plain({"bounces", 0.0, 12.0});
        else
          shape.keeps = share({"keeps", 0.01, 0.9});
      } else {
        --at_;
        refuse_here("')'");
      }
    }
    return Curve::family(which, ease, shape);
  }

  void options(MotionSpec& spec) {
    bool delayed = false;
    for (skip(); !done(); skip()) {
      const std::size_t at = at_;
      if (const auto number = take_number()) {
        const Micros duration = time(*number, {"duration", 0.0, 3.6e6});
        auto* timed = std::get_if<Timed>(&spec.passage.way);
        if (timed == nullptr || spec.has_time)
          refuse(at, number->end - at, found(*number),
                 timed == nullptr ? "no time; a spring or coast has its own" : "one time");
        timed->duration = duration;
        spec.has_time = true;
      } else if (!delayed && take_word("after")) {
        spec.passage.delay = time({"delay", 0.0, 3.6e6});
        delayed = true;
      } else if (spec.passage.runs == 1 && take_word("repeat")) {
        if (take_word("endless")) {
          spec.passage.runs = Passage::endless;
          continue;
        }
        skip();
        const std::size_t count_at = at_;
        const double count = plain({"repeat", 1, 1e6});
        if (count != std::floor(count)) refuse(count_at, at_ - count_at, "part of a run", "a whole number");
        spec.passage.runs = static_cast<int>(count);
      } else if (!spec.passage.alternate && take_word("alternate")) {
        spec.passage.alternate = true;
      } else {
        in_ = "";
        refuse_here("a time, 'after' a time, 'repeat' a number or endless, or 'alternate'");
      }
    }
  }

  std::string_view text_;
  std::size_t at_ = 0;
  std::string in_;
  int depth_ = 0;
};

std::string message(const SpecError::Facts& facts) {
  return fmt::format("'{}': found {} at character {}; takes {}; for example {}", facts.spec, facts.found,
                     facts.at + 1, facts.takes, facts.example);
}

}  // namespace

SpecError::SpecError(Facts facts) : std::invalid_argument(message(facts)), facts_(std::move(facts)) {}

std::string SpecError::picture() const {
  // One column a character, not a byte.
  const auto width = [](std::string_view text) {
    return static_cast<std::size_t>(std::count_if(
        text.begin(), text.end(), [](char c) { return (static_cast<unsigned char>(c) & 0xC0U) != 0x80U; }));
  };
  std::string line = facts_.spec;
  for (char& c : line)
    if (c == '\n' || c == '\r' || c == '\t') c = ' ';
  return fmt::format("  {}\n  {:{}}{:^<{}}\n  for example: {}", line, "",
                     width(std::string_view(line).substr(0, std::min(facts_.at, line.size()))), "",
                     facts_.length, facts_.example);
}

MotionSpec read_motion(std::string_view text) { return Parser(text).read(); }

Passage read_passage(std::string_view text) {
  MotionSpec spec = read_motion(text);
  if (!spec.has_time)
    throw SpecError({spec.text, text.size(), 1, "the end", "the curve's time", spec.text + " 240ms"});
  return spec.passage;
}

std::string css_number(double value, int decimals) {
  std::string text = fmt::format("{:.{}f}", value, decimals);
  if (text.find('.') != std::string::npos) {
    while (text.back() == '0') text.pop_back();
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

std::string spec_text(const Passage& passage) {
  std::string text;
  if (const auto* spring = std::get_if<Spring>(&passage.way)) {
    if (spring->ratio() > 1.0)
      text = fmt::format("spring(frequency {}, ratio {})", spring->frequency(), spring->ratio());
    else
      text = fmt::format("spring(settle {}ms, overshoot {}%)", css_number(to_ms(duration_of(*spring)), 3),
                         css_number(spring->overshoot() * 100.0, 6));
  } else if (const auto* coast = std::get_if<Coast>(&passage.way)) {
    text = fmt::format("coast(friction {})", coast->friction());
  } else {
    const Timed& timed = std::get<Timed>(passage.way);
    text = fmt::format("{} {}ms", css_easing(timed.curve).text, css_number(to_ms(timed.duration), 3));
  }
  if (passage.delay != Micros{0}) text += fmt::format(" after {}ms", css_number(to_ms(passage.delay), 3));
  if (passage.runs <= Passage::endless) text += " repeat endless";
  if (passage.runs > 1) text += fmt::format(" repeat {}", passage.runs);
  if (passage.alternate) text += " alternate";
  return text;
}

}  // namespace ubbo::io
