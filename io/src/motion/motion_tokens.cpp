#include "ubbo/io/motion/motion_tokens.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <set>
#include <stdexcept>

#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/motion/fewest_stops.hpp"
#include "ubbo/motion/progress.hpp"

namespace ubbo::io {

namespace {

constexpr const char* own_key = "ubbo.motion";

// A bound stays one when it is written.
double rounded_up(double error, double per_unit) { return std::ceil(error * per_unit) / per_unit; }

Json duration_json(Micros time) { return {{"value", to_ms(time)}, {"unit", "ms"}}; }

// In CSS and keyframes.
std::string property_name(const std::string& name) {
  std::string made = name;
  std::replace(made.begin(), made.end(), '.', '-');
  return made;
}

// What was asked for, in words that cannot end the comment they stand in.
std::string comment_of(const MotionSpec& spec) {
  const bool plain = std::all_of(spec.text.begin(), spec.text.end(), [](char c) {
    return c >= ' ' && c <= '~' && c != '\\' && c != '*' && c != '/';
  });
  return plain ? spec.text : spec.has_time ? spec_text(spec.transition) : "a curve";
}

// The place of a token in the tree, made on the way.
Json& place_of(Json& root, std::string_view name) {
  Json* here = &root;
  for (std::size_t from = 0; from <= name.size();) {
    const std::size_t to = std::min(name.find('.', from), name.size());
    here = &(*here)[std::string(name.substr(from, to - from))];
    from = to + 1;
  }
  return *here;
}

// Each name must be one in CSS, in C++ and in the tree, and find a place of its own in all three.
void check_names(const MotionTokens& tokens) {
  std::set<std::string> taken;
  std::set<std::string> flat;
  const auto check = [&](const std::string& name) {
    const auto plain = [](char c) {
      return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '-' ||
             c == '_' || c == '.';
    };
    const bool good = !name.empty() && name.size() <= 100 && std::all_of(name.begin(), name.end(), plain) &&
                      name.front() != '.' && name.back() != '.' && name.find("..") == std::string::npos;
    if (!good)
      throw std::invalid_argument(
          fmt::format("'{}' is no token name; takes letters, digits, '-' and '_', in groups parted by dots",
                      name.substr(0, 60)));
    // A name that begins another one would be token and group at once.
    bool clash = taken.contains(name);
    for (std::size_t dot = name.find('.'); dot != std::string::npos; dot = name.find('.', dot + 1))
      clash = clash || taken.contains(name.substr(0, dot));
    const auto next = taken.lower_bound(name + ".");
    clash = clash || (next != taken.end() && next->starts_with(name + "."));
    if (clash)
      throw std::invalid_argument(
          fmt::format("the token name '{}' is taken, as a token or as a group", name));
    taken.insert(name);
    if (!flat.insert(property_name(name)).second)
      throw std::invalid_argument(
          fmt::format("the token name '{}' is taken: CSS knows it as --{}", name, property_name(name)));
  };
  for (const auto& [name, time] : tokens.durations) check(name);
  for (const auto& [name, spec] : tokens.motions) check(name);
}

Json motion_json(const MotionSpec& spec, const BezierFitter& fitter) {
  const BezierFit fit = fitter(progress_of(spec.transition.way));
  const Json bezier{fit.bezier.x1(), fit.bezier.y1(), fit.bezier.x2(), fit.bezier.y2()};
  Json token;
  if (spec.has_time)
    token = {{"$type", "transition"},
             {"$value",
              {{"duration", duration_json(duration_of(spec.transition.way))},
               {"delay", duration_json(spec.transition.delay)},
               {"timingFunction", bezier}}}};
  else
    token = {{"$type", "cubicBezier"}, {"$value", bezier}};
  token["$extensions"] = {{own_key, {{"spec", spec.text}, {"bezier_error", rounded_up(fit.error, 1e6)}}}};
  return token;
}

// A value in an error, not too much of it.
std::string brief(const Json& value) { return json_text(value, -1).substr(0, 60); }

class TokenReader {
 public:
  TokenReader(std::string_view json, std::string name) : name_(std::move(name)) {
    root_ = read_json(json, name_);
    if (!root_.is_object())
      throw InputError(
          {.file = name_, .line = 1, .column = 1, .found = "no object", .takes = "{ … }, groups of tokens"});
  }

  MotionTokens read() {
    walk(root_, "", "");
    return std::move(tokens_);
  }

 private:
  [[noreturn]] void refuse(std::string_view path, std::string_view found, std::string_view takes) const {
    throw InputError(
        {.file = name_, .found = fmt::format("token '{}': {}", path, found), .takes = std::string(takes)});
  }

  void walk(const Json& node, const std::string& path, std::string type) {
    if (node.contains("$type")) {
      if (!node.at("$type").is_string()) refuse(path, "$type = " + brief(node.at("$type")), "text");
      type = node.at("$type").text();
    }
    if (node.contains("$value")) {
      token(node, path, type);
      return;
    }
    for (const auto& [key, child] : node.items())
      if (!key.starts_with('$') && child.is_object())
        walk(child, path.empty() ? key : fmt::format("{}.{}", path, key), type);
  }

  void token(const Json& node, const std::string& path, const std::string& type) {
    if (type == "duration") {
      tokens_.durations.emplace_back(path, time(node.at("$value"), path));
      return;
    }
    if (type != "transition" && type != "cubicBezier") return;
    if (const auto own = own_text(node, path)) {
      tokens_.motions.emplace_back(path, *own);
      return;
    }
    const Json& value = resolved(node.at("$value"), path, "transition or cubicBezier");
    MotionSpec spec{"", Timed{}, type == "transition"};
    if (type == "cubicBezier") {
      spec.transition.way = Timed{bezier(value, path), Micros{0}};
      spec.text = css_text(bezier(value, path));
    } else {
      if (!value.is_object()) refuse(path, brief(value), "duration, delay and timingFunction");
      for (const char* part : {"duration", "timingFunction"})
        if (!value.contains(part)) refuse(path, fmt::format("no {}", part), part);
      spec.transition =
          Transition(Timed{bezier(value.at("timingFunction"), path), time(value.at("duration"), path)});
      if (value.contains("delay")) spec.transition.delay = time(value.at("delay"), path);
      spec.text = spec_text(spec.transition);
    }
    tokens_.motions.emplace_back(path, spec);
  }

  std::optional<MotionSpec> own_text(const Json& node, const std::string& path) const {
    const Json* extensions = node.find("$extensions");
    if (extensions == nullptr || !extensions->is_object()) return std::nullopt;
    const Json* ours = extensions->find(own_key);
    if (ours == nullptr || !ours->is_object() || !ours->contains("spec")) return std::nullopt;
    if (!ours->at("spec").is_string()) refuse(path, "spec = " + brief(ours->at("spec")), "text");
    try {
      return read_motion(ours->at("spec").text());
    } catch (const SpecError& wrong) {
      refuse(path, wrong.what(), "a motion (docs/formats/motion.md)");
    }
  }

  // Follows `{group.token}` to its value.
  const Json& resolved(const Json& value, const std::string& path, const char* takes) const {
    const Json* here = &value;
    for (int hops = 0; here->is_string(); ++hops) {
      const std::string& alias = here->text();
      if (alias.size() < 3 || alias.front() != '{' || alias.back() != '}') break;
      if (hops == 32) refuse(path, "aliases that lead round in a ring", takes);
      const Json* node = &root_;
      const std::string target = alias.substr(1, alias.size() - 2);
      for (std::size_t from = 0; from <= target.size();) {
        const std::size_t to = std::min(target.find('.', from), target.size());
        node = node->find(target.substr(from, to - from));
        if (node == nullptr)
          refuse(path, fmt::format("the alias {}, which leads nowhere", alias),
                 "the name of a token in braces");
        from = to + 1;
      }
      if (!node->contains("$value"))
        refuse(path, fmt::format("the alias {}, which is no token", alias), "the name of a token in braces");
      here = node->find("$value");
    }
    return *here;
  }

  Micros time(const Json& given, const std::string& path) const {
    const char* takes = R"({"value": 240, "unit": "ms"}, 0 to an hour)";
    const Json& value = resolved(given, path, takes);
    double number = NAN;
    std::string unit;
    if (value.is_object() && value.contains("value") && value.contains("unit") &&
        value.at("value").is_number() && value.at("unit").is_string()) {
      number = value.at("value").number();
      unit = value.at("unit").text();
    } else if (value.is_string()) {  // "240ms", as earlier drafts had it
      const std::string text = value.text();
      const NumberAt found = number_at(text);
      if (found.used > 0) number = found.value;  // else it is refused below
      unit = text.substr(found.used);
    }
    if (unit == "s") number *= 1000.0;
    if ((unit != "s" && unit != "ms") || !(number >= 0.0 && number <= 3.6e6))
      refuse(path, "the time " + brief(value), takes);
    return from_ms(number);
  }

  CubicBezier bezier(const Json& given, const std::string& path) const {
    const Json& value = resolved(given, path, "four numbers");
    std::array<double, 4> n{};
    const bool four =
        value.is_array() && value.size() == 4 &&
        std::all_of(value.begin(), value.end(), [](const Json& one) { return one.is_number(); });
    if (!four) refuse(path, "the curve " + brief(value), "four numbers, [x1, y1, x2, y2]");
    for (std::size_t i = 0; i < 4; ++i) n[i] = value[i].number();
    try {
      return {n[0], n[1], n[2], n[3]};
    } catch (const std::invalid_argument& refused) {
      refuse(path, refused.what(), "x1 and x2 within 0 to 1");
    }
  }

  std::string name_;
  Json root_;
  MotionTokens tokens_;
};

std::string identifier(const std::string& name) {
  std::string made;
  for (const char c : name) made += c == '.' || c == '-' ? '_' : c;
  const auto letter = [](char c) { return (c >= 'a' && c <= 'z') || (c >= 'A' && c <= 'Z') || c == '_'; };
  const bool good = !made.empty() && letter(made[0]) && std::all_of(made.begin(), made.end(), [&](char c) {
    return letter(c) || (c >= '0' && c <= '9');
  });
  if (!good)
    throw std::invalid_argument(
        fmt::format("'{}' gives no C++ name; takes letters, digits, '-', '_' and '.', a letter first", name));
  constexpr std::string_view keywords =
      " alignas alignof and and_eq asm auto bitand bitor bool break case catch char char8_t "
      "char16_t char32_t class compl concept const consteval constexpr constinit const_cast "
      "continue co_await co_return co_yield decltype default delete do double dynamic_cast else "
      "enum explicit export extern false float for friend goto if inline int long mutable "
      "namespace new noexcept not not_eq nullptr operator or or_eq private protected public "
      "register reinterpret_cast requires return short signed sizeof static static_assert "
      "static_cast struct switch template this thread_local throw true try typedef typeid "
      "typename union unsigned using virtual void volatile wchar_t while xor xor_eq ";
  if (keywords.find(" " + made + " ") != std::string_view::npos) made += '_';
  return made;
}

std::string curve_code(const Curve& curve) {
  if (std::holds_alternative<Curve::Linear>(curve.kind())) return "ubbo::Curve{}";
  if (const auto* b = std::get_if<CubicBezier>(&curve.kind()))
    return fmt::format("ubbo::Curve::cubic_bezier({}, {}, {}, {})", b->x1(), b->y1(), b->x2(), b->y2());
  if (const auto* steps = std::get_if<Steps>(&curve.kind())) {
    constexpr std::array jumps{"start", "end", "none", "both"};
    return fmt::format("ubbo::Curve::steps({}, ubbo::Jump::{})", steps->count(),
                       jumps[static_cast<std::size_t>(steps->jump())]);
  }
  if (const auto* family = std::get_if<FamilyCurve>(&curve.kind())) {
    constexpr std::array names{"sine", "quad", "cubic", "quart",   "quint",
                               "expo", "circ", "back",  "elastic", "bounce"};
    constexpr std::array eases{"in", "out", "in_out"};
    const FamilyShape shape = family->shape();
    std::string extra;
    if (family->family() == Family::back) extra = fmt::format(", {{.overshoot = {}}}", shape.overshoot);
    if (family->family() == Family::elastic) extra = fmt::format(", {{.swings = {}}}", shape.swings);
    if (family->family() == Family::bounce)
      extra = fmt::format(", {{.bounces = {}, .keeps = {}}}", shape.bounces, shape.keeps);
    return fmt::format("ubbo::Curve::family(ubbo::Family::{}, ubbo::Ease::{}{})",
                       names[static_cast<std::size_t>(family->family())],
                       eases[static_cast<std::size_t>(family->ease())], extra);
  }
  const Stops* own = curve.as_stops();
  const std::vector<Stops::Point> points =
      own != nullptr ? own->points() : fewest_stops(curve, 0.0005).points;
  std::string text = "ubbo::Curve::stops({";
  for (const Stops::Point& point : points)
    text += fmt::format("{}{{{}, {}}}", text.ends_with('{') ? "" : ", ", point.value, point.at);
  return text + "})";
}

std::string way_code(const Transition::Way& way) {
  if (const auto* spring = std::get_if<Spring>(&way))
    return fmt::format("ubbo::Spring::natural({}, {})", spring->frequency(), spring->ratio());
  if (const auto* coast = std::get_if<Coast>(&way))
    return fmt::format("ubbo::Coast::friction({})", coast->friction());
  const auto& timed = std::get<Timed>(way);
  return fmt::format("ubbo::Timed{{{}, ubbo::Micros{{{}}}}}", curve_code(timed.curve),
                     timed.duration.count());
}

}  // namespace

std::string tokens_json(const MotionTokens& tokens, const BezierFitter& fitter) {
  check_names(tokens);
  Json root = Json::object();
  for (const auto& [name, time] : tokens.durations)
    place_of(root, name) = {{"$type", "duration"}, {"$value", duration_json(time)}};
  for (const auto& [name, spec] : tokens.motions) place_of(root, name) = motion_json(spec, fitter);
  return json_text(root);
}

MotionTokens read_tokens(std::string_view json, const std::string& name) {
  return TokenReader(json, name).read();
}

std::string tokens_header(const MotionTokens& tokens, std::string_view name) {
  check_names(tokens);
  const std::string space = identifier(std::string(name));
  std::string text = fmt::format(
      "// Made by `ubbo export`; change the motions there.\n#pragma once\n\n#include "
      "\"ubbo/motion/transition.hpp\"\n\nnamespace {} {{\n",
      space);
  std::set<std::string> taken;
  const auto own = [&](const std::string& given) {
    std::string made = identifier(given);
    if (!taken.insert(made).second)
      throw std::invalid_argument(fmt::format("'{}' gives the C++ name {}, which is taken", given, made));
    return made;
  };
  for (const auto& [given, time] : tokens.durations)
    text += fmt::format("\ninline constexpr ubbo::Micros {}{{{}}};\n", own(given), time.count());
  for (const auto& [given, spec] : tokens.motions) {
    const std::string made = own(given);
    text += fmt::format("\n/// {}\n", comment_of(spec));
    if (!spec.has_time) {
      text += fmt::format("inline const ubbo::Curve {} = {};\n", made,
                          curve_code(std::get<Timed>(spec.transition.way).curve));
      continue;
    }
    std::string transition = fmt::format("ubbo::Transition({}", way_code(spec.transition.way));
    if (spec.transition.delay != Micros{0})
      transition += fmt::format(", ubbo::Micros{{{}}}", spec.transition.delay.count());
    transition += ")";
    if (spec.transition.runs != 1 || spec.transition.alternate)
      transition += fmt::format(".repeated({}, {})", spec.transition.runs, spec.transition.alternate);
    text += fmt::format("inline const ubbo::Transition {} = {};\n", made, transition);
    text += fmt::format("inline constexpr ubbo::Micros {}{{{}}};\n", own(given + "_duration"),
                        duration_of(spec.transition.way).count());
  }
  return text + "\n}  // namespace " + space + "\n";
}

std::string tokens_css(const MotionTokens& tokens, const BezierFitter& fitter, double max_error,
                       double velocity) {
  check_names(tokens);
  std::string text = ":root {\n";
  std::vector<std::string> timed;
  for (const auto& [given, time] : tokens.durations)
    text += fmt::format("  --{}: {}ms;\n", property_name(given), css_number(to_ms(time), 3));
  for (const auto& [given, spec] : tokens.motions) {
    const Curve progress = progress_of(spec.transition.way, velocity);
    const EasingText easing = css_easing(progress, max_error);
    const BezierFit fit = fitter(progress);
    const std::string name = property_name(given);
    text += fmt::format("  /* {}", comment_of(spec));
    if (easing.error > 0.0)
      text += fmt::format(": {} stops, off by at most {:.4f}", easing.stops, rounded_up(easing.error, 1e4));
    text += fmt::format(" */\n  --{}: {};\n", name, easing.text);
    if (fit.error > 0.0)
      text += fmt::format("  --{}-bezier: {}; /* off by at most {:.4f} */\n", name, css_text(fit.bezier),
                          rounded_up(fit.error, 1e4));
    if (!spec.has_time) continue;
    text += fmt::format("  --{}-duration: {}ms;\n", name,
                        css_number(to_ms(duration_of(spec.transition.way, velocity)), 3));
    if (spec.transition.runs != 1) {
      text +=
          fmt::format("  --{}-animation: {};\n", name, css_timing(spec.transition, easing.text, velocity));
      continue;
    }
    text += fmt::format("  --{0}-transition: var(--{0}-duration) var(--{0})", name);
    if (spec.transition.delay != Micros{0})
      text += fmt::format(" {}ms", css_number(to_ms(spec.transition.delay), 3));
    text += fmt::format("; /* transition: transform var(--{}-transition) */\n", name);
    timed.push_back(name);
  }
  text += "}\n";
  if (timed.empty()) return text;
  // A transition of no time at all would tell nobody that it has ended.
  text += "@media (prefers-reduced-motion: reduce) {\n  :root {\n";
  for (const std::string& name : timed)
    text += fmt::format("    --{0}: linear;\n    --{0}-duration: 1ms;\n", name);
  return text + "  }\n}\n";
}

}  // namespace ubbo::io
