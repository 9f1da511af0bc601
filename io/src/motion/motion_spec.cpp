#include "ubbo/io/motion/motion_spec.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>

#include "spec_reader.hpp"
#include "ubbo/base/settings.hpp"

namespace ubbo::io {

namespace {

using detail::index_of;
using detail::Range;
using detail::Unit;

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

class Parser : private detail::SpecReader {
 public:
  Parser(std::string_view text, std::span<const NamedCurve> own) : SpecReader(text), own_(own) {}

  MotionSpec read() {
    skip();
    if (done()) refuse(at_, 1, "nothing", "a motion");
    std::optional<Transition::Way> way = moving();
    MotionSpec spec{std::string(text_), Timed{}, true};
    if (way) {
      spec.transition.way = *way;
    } else {
      spec.transition.way = Timed{curve(), Micros{0}};
      spec.has_time = false;
    }
    options(spec);
    return spec;
  }

 private:
  std::optional<Transition::Way> moving() {
    const std::string word = peek_word();
    if (word != "spring" && word != "coast") return std::nullopt;
    const std::size_t begins = at_;
    in_ = word;
    at_ += word.size();
    need('(', "'(' and what the " + word + " is like");
    Transition::Way way = word == "spring" ? Transition::Way(spring(begins)) : Transition::Way(coast());
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
          given[i] = fraction({"overshoot", 0.0, 0.95});
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
      for (const NamedCurve& one : own_)
        if (name == one.name) return one.curve;
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
      std::vector<std::string_view> names(motion_names.begin(), motion_names.end());
      for (const NamedCurve& one : own_) names.emplace_back(one.name);
      refuse_name(name, names);
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
      const double min = plain({"min", -1e6, 1e6});
      need(',', "',' and the most");
      skip();
      const double max = plain({"max", min + 1e-9, 1e6});
      return inner.limited(min, max);
    }
    return family(name);
  }

  Curve steps() {
    const auto count = take_number();
    if (!count) refuse_here("how many steps, a whole number");
    const auto whole = [&](int min) {
      if (count->unit != Unit::none || count->value != std::floor(count->value) || count->value < min ||
          count->value > 1e6)
        refuse(count->at, count->end - count->at, fmt::format("count = {}", found(*count)),
               fmt::format("a whole number, {} to 1000000{}", min, min == 2 ? " with jump-none" : ""));
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
      const double min = points.empty() ? -1e6 : points.back().at + 1e-9;
      const double at = fraction({"place", min, 1e6});
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
        const double min = pieces.empty() ? 1e-9 : pieces.back().until + 1e-9;
        piece.until = fraction({"until", min, 1.0});
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
        shape.overshoot = fraction({"overshoot", 0.0, 10.0});
      } else if (which == Family::elastic) {
        need_name(std::array{std::string_view{"swings"}});
        shape.swings = plain({"swings", 0.25, 50.0});
      } else if (which == Family::bounce) {
        if (need_name(std::array{std::string_view{"bounces"}, std::string_view{"keeps"}}) == 0)
          shape.bounces = plain({"bounces", 0.0, 12.0});
        else
          shape.keeps = fraction({"keeps", 0.01, 0.9});
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
        auto* timed = std::get_if<Timed>(&spec.transition.way);
        if (timed == nullptr || spec.has_time)
          refuse(at, number->end - at, found(*number),
                 timed == nullptr ? "no time; a spring or coast has its own" : "one time");
        timed->duration = duration;
        spec.has_time = true;
      } else if (!delayed && take_word("after")) {
        spec.transition.delay = time({"delay", 0.0, 3.6e6});
        delayed = true;
      } else if (spec.transition.runs == 1 && take_word("repeat")) {
        if (take_word("endless")) {
          spec.transition.runs = Transition::endless;
          continue;
        }
        skip();
        const std::size_t count_at = at_;
        const double count = plain({"repeat", 1, 1e6});
        if (count != std::floor(count)) refuse(count_at, at_ - count_at, "part of a run", "a whole number");
        spec.transition.runs = static_cast<int>(count);
      } else if (!spec.transition.alternate && take_word("alternate")) {
        spec.transition.alternate = true;
      } else {
        in_ = "";
        refuse_here("a time, 'after' a time, 'repeat' a number or endless, or 'alternate'");
      }
    }
  }

  std::span<const NamedCurve> own_;
  int depth_ = 0;
};

}  // namespace

MotionSpec read_motion(std::string_view text, std::span<const NamedCurve> own) {
  for (const NamedCurve& one : own) {
    const bool word = !one.name.empty() && one.name.front() >= 'a' && one.name.front() <= 'z' &&
                      std::all_of(one.name.begin(), one.name.end(), [](char c) {
                        return (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9') || c == '-';
                      });
    if (!word || index_of(motion_names, one.name) < motion_names.size())
      throw std::invalid_argument(
          fmt::format("curve '{}' is not taken; it takes small letters, digits and hyphens, and none of {}",
                      one.name, fmt::join(motion_names, ", ")));
  }
  return Parser(text, own).read();
}

Transition read_transition(std::string_view text, std::span<const NamedCurve> own) {
  MotionSpec spec = read_motion(text, own);
  if (!spec.has_time)
    throw SpecError({spec.text, text.size(), 1, "the end", "the curve's time", spec.text + " 240ms"});
  return spec.transition;
}

}  // namespace ubbo::io
