#include "ubbo/check/check.hpp"

#include <fmt/format.h>

#include <algorithm>

#include "look.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::check {

namespace {

void silence(Look& look) {
  const std::span<const Rule> rules = check_rules();
  for (const io::Silence& silence : look.scene->silences) {
    const bool known =
        std::any_of(rules.begin(), rules.end(), [&](const Rule& rule) { return silence.rule == rule.name; });
    bool used = false;
    for (Finding& finding : look.found) {
      if (silence.rule != finding.rule->name || (!silence.of.empty() && silence.of != finding.of)) continue;
      finding.silenced = silence.reason;
      used = true;
    }
    if (used) continue;
    std::vector<std::string_view> names;
    for (const Rule& rule : rules) names.emplace_back(rule.name);
    const std::string nearest = known ? "" : io::nearest_name(silence.rule, names);
    look.say(idle_silence, silence.of, silence.place,
             known ? fmt::format("nothing here breaks {}{}{}", silence.rule, silence.of.empty() ? "" : " of ",
                                 silence.of)
                   : fmt::format("'{}' is no rule{}", silence.rule,
                                 nearest.empty() ? "" : "; did you mean " + nearest + "?"),
             "take it out");
  }
}

void in_order_of_the_file(std::vector<Finding>& findings) {
  std::stable_sort(findings.begin(), findings.end(), [](const Finding& a, const Finding& b) {
    return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
  });
}

std::vector<Finding> findings_of(const io::Scene& scene, const TextWidth& measure, bool partial) {
  Look look(scene, measure, partial);
  check_places(look);
  check_settings(look);
  check_layers(look);
  check_content(look);
  check_cells(look);
  check_feels(look);
  silence(look);
  in_order_of_the_file(look.found);
  return std::move(look.found);
}

RuleName rule_of(io::InputFault fault) {
  switch (fault) {
    case io::InputFault::syntax:
      return unreadable;
    case io::InputFault::unknown_key:
      return unknown_key;
    case io::InputFault::former_key:
      return former_key;
    case io::InputFault::wrong_value:
      return wrong_value;
    case io::InputFault::refused:
      return refused;
  }
  return unreadable;
}

Finding finding_of(const io::InputError::Facts& one) {
  std::string found = one.found;
  std::string remedy = one.takes.empty() ? "" : "write " + one.takes;
  if (one.fault == io::InputFault::unknown_key) {
    constexpr std::ptrdiff_t readable = 12;  // names in a row
    remedy = std::count(one.takes.begin(), one.takes.end(), ',') < readable
                 ? "take it out, or write one of " + one.takes
                 : "take it out; `ubbo settings --schema` has all keys there are";
  }
  // A near name is what was meant; a list of all names is no help then.
  if (!one.nearest.empty()) remedy = "write " + one.nearest;
  // What a part refuses says both at once.
  for (const std::string_view both : {"; it takes ", "; it needs "})
    if (const auto at = found.find(both); remedy.empty() && at != std::string::npos) {
      remedy = "give it " + found.substr(at + both.size());
      found.resize(at);
    }
  if (remedy.empty()) remedy = "see what `ubbo parts KIND` says it takes, and change that";
  return {.rule = &check_rules()[rule_of(one.fault)],
          .place = {one.line, one.column},
          .found = std::move(found),
          .remedy = std::move(remedy)};
}

}  // namespace

std::vector<Finding> check_scene(const io::Scene& scene, const TextWidth& measure) {
  return findings_of(scene, measure, false);
}

std::vector<Finding> check_text(std::string_view text, const std::string& name, Kinds kinds,
                                std::span<const std::string> changes, const TextWidth& measure) {
  const io::SceneRead read = io::read_scene(text, name, kinds, changes, measure);
  std::vector<Finding> findings;
  for (const io::InputError::Facts& one : read.wrong) findings.push_back(finding_of(one));
  if (!read.scene.parts.empty() || read.wrong.empty()) {
    std::vector<Finding> more = findings_of(read.scene, measure, !read.wrong.empty());
    findings.insert(findings.end(), std::make_move_iterator(more.begin()),
                    std::make_move_iterator(more.end()));
  }
  in_order_of_the_file(findings);
  return findings;
}

}  // namespace ubbo::check
