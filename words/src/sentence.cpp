// A decision as people read it.
#include <cmath>
#include <optional>
#include <string_view>

#include "ubbo/words/catalogue.hpp"
#include "ubbo/words/number.hpp"

namespace ubbo::words {

namespace {

// "dp" and "ms" stay as they are; things are one or several.
bool counts_things(std::string_view unit) { return unit == "item" || unit == "page"; }

// At most one decimal for what is measured; four significant digits for bare numbers, and three decimals.
std::string with_unit(double value, std::string_view unit) {
  if (unit.empty())
    return std::fabs(value) < 0.0005 ? plain(value, 2) : plain(std::round(value * 1000.0) / 1000.0, 4);
  if (counts_things(unit))
    return plain(std::round(value * 100.0) / 100.0 + 0.0, 12) + " " + std::string(unit) +
           (value == 1.0 ? "" : "s");
  const double tenth = std::round(value * 10.0) / 10.0 + 0.0;
  return plain(tenth, 12) + " " + std::string(unit);
}

// A place as people say it.
std::string placed(double value, const Fact& fact) {
  const std::string size = with_unit(std::fabs(value), fact.unit);
  const bool nowhere = size.starts_with("0 ");
  if (fact.unit == std::string_view("degrees") && !fact.limited && !nowhere)
    return size + (value > 0.0 ? " clockwise" : " anticlockwise");
  switch (fact.sense) {
    case Sense::plain:
      return with_unit(value, fact.unit);
    case Sense::rightwards:
    case Sense::leftwards:
      if (nowhere) return "its place";
      return size + ((value > 0.0) == (fact.sense == Sense::rightwards) ? " to the right" : " to the left");
    case Sense::downwards:
    case Sense::upwards:
      if (nowhere) return "its place";
      return size + ((value > 0.0) == (fact.sense == Sense::downwards) ? " down" : " up");
    case Sense::scrolled:
      return nowhere ? "its start" : size + (value < 0.0 ? " from its start" : " before its start");
    case Sense::switched:
      if (value == 0.0 || value == 1.0) return value == 0.0 ? "its off side" : "its on side";
      return with_unit(value, fact.unit);
    case Sense::counted: {
      const double number = std::round(value * 100.0) / 100.0 + 1.0;
      const bool whole = number == std::round(number);
      return std::string(fact.unit) + " " + plain(number, 12) +
             (fact.of > 0 && whole ? " of " + std::to_string(fact.of) : "");
    }
  }
  return with_unit(value, fact.unit);
}

const Fact* find(const Decision& decision, std::string_view name) {
  for (const Fact& fact : decision.all_facts())
    if (name == fact.name) return &fact;
  return nullptr;
}

// What stands for `{key}`; nothing when the decision has no such fact.
std::optional<std::string> filled(std::string_view key, const Decision& decision) {
  if (key == "part") return std::string(decision.part.view());
  if (const auto bar = key.find('|'); bar != std::string_view::npos) {  // {taps|tap|taps}
    const Fact* fact = find(decision, key.substr(0, bar));
    const auto second = key.find('|', bar + 1);
    if (fact == nullptr || second == std::string_view::npos) return std::nullopt;
    const std::string_view word =
        fact->value == 1.0 ? key.substr(bar + 1, second - bar - 1) : key.substr(second + 1);
    return with_unit(fact->value, "") + " " + std::string(word);
  }
  const auto dot = key.find('.');
  const Fact* fact = find(decision, key.substr(0, dot));
  if (fact == nullptr) return std::nullopt;
  if (dot == std::string_view::npos) return placed(fact->value, *fact);
  if (key.substr(dot + 1) == "number") return plain(fact->value, 4);
  if (key.substr(dot + 1) == "size") return with_unit(std::fabs(fact->value), fact->unit);
  if (!fact->limited) return std::nullopt;
  const std::string_view what = key.substr(dot + 1);
  if (what == "limit") return placed(fact->limit, *fact);
  if (what == "margin") return with_unit(std::fabs(fact->margin), fact->unit);
  return std::nullopt;
}

std::optional<std::string> fill(std::string_view words, const Decision& decision) {
  std::string text;
  while (true) {
    const auto open = words.find('{');
    text += words.substr(0, open);
    if (open == std::string_view::npos) return text;
    const auto close = words.find('}', open);
    if (close == std::string_view::npos) return std::nullopt;
    const auto value = filled(words.substr(open + 1, close - open - 1), decision);
    if (!value) return std::nullopt;
    text += *value;
    words = words.substr(close + 1);
  }
}

// For a decision that lacks what its sentence needs, such as one of an app's own part.
std::string any_sentence(const Decision& decision, const Catalogue& catalogue) {
  std::string text = catalogue.of(*decision.answer->question) + " " + catalogue.of(*decision.answer).in_short;
  const char* joint = ": ";
  for (const Fact& fact : decision.all_facts()) {
    text += joint + std::string(fact.name) + " " + placed(fact.value, fact);
    if (fact.limited) text += " against " + with_unit(fact.limit, fact.unit);
    joint = ", ";
  }
  return text;
}

}  // namespace

std::string sentence(const Decision& decision, const Catalogue& catalogue) {
  if (decision.answer == nullptr) return "nothing was decided";
  const std::string words = catalogue.of(*decision.answer).sentence;
  const auto text = words.empty() ? std::nullopt : fill(words, decision);
  return text ? *text : any_sentence(decision, catalogue);
}

std::string caption(const Decision& decision, const Catalogue& catalogue) {
  if (decision.answer == nullptr) return "";
  const Wording wording = catalogue.of(*decision.answer);
  return fill(wording.caption, decision).value_or(wording.in_short);
}

}  // namespace ubbo::words
