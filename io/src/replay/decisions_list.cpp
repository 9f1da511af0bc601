#include "ubbo/io/replay/decisions_list.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <stdexcept>
#include <vector>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

namespace {

std::string_view topic_of(std::string_view name) { return name.substr(0, name.find('.')); }

std::vector<const Answer*> decisions_of(std::string_view of, Kinds kinds) {
  const auto core = words::Catalogue::english().answers();
  std::vector<const Answer*> all(core.begin(), core.end());
  for (const PartKind* kind : kinds)
    for (const Answer* own : kind->answers)
      if (std::find(all.begin(), all.end(), own) == all.end()) all.push_back(own);
  if (of.empty()) return all;
  std::vector<std::string_view> known;
  std::vector<const Answer*> wanted;
  for (const Answer* one : all) {
    known.emplace_back(one->name);
    if (one->name == of || topic_of(one->name) == of) wanted.push_back(one);
  }
  if (!wanted.empty()) return wanted;
  const std::string nearest = nearest_name(of, known);
  throw std::invalid_argument(fmt::format(
      "decisions: no decision or topic '{}'; takes a name such as rail.at-rest, or a topic such as rail{}",
      of, nearest.empty() ? "" : "; nearest known: " + nearest));
}

// Its facts as one line: "travel (dp, at least), after (ms)"; "" where it has none.
std::string facts_line(const Answer& answer) {
  std::string line;
  for (const FactSpec& fact : answer.facts) {
    std::string about = fact.unit == nullptr ? "the part's unit" : fact.unit;
    if (fact.limit != Limit::none)
      about += std::string(about.empty() ? "" : ", ") +
               (fact.limit == Limit::at_least ? "at least a limit" : "at most a limit");
    line += std::string(line.empty() ? "" : ", ") + fact.name + (about.empty() ? "" : " (" + about + ")");
  }
  return line;
}

Json facts_json(const Answer& answer) {
  Json list = Json::array();
  for (const FactSpec& fact : answer.facts) {
    Json one{{"name", fact.name}, {"unit", fact.unit == nullptr ? "the part's" : fact.unit}};
    if (fact.limit != Limit::none) one["limit"] = fact.limit == Limit::at_least ? "at least" : "at most";
    list.push_back(std::move(one));
  }
  return list;
}

}  // namespace

std::string decisions_list(std::string_view of, SettingsFormat format, Kinds kinds) {
  const auto& said = words::Catalogue::english();
  const auto decisions = decisions_of(of, kinds);
  if (format == SettingsFormat::json) {
    Json list = Json::array();
    for (const Answer* one : decisions) {
      const words::Wording wording = said.of(*one);
      list.push_back({{"name", one->name},
                      {"question", said.of(*one->question)},
                      {"answer", wording.in_short},
                      {"yes", one->yes},
                      {"facts", facts_json(*one)},
                      {"sentence", wording.sentence},
                      {"caption", wording.caption}});
    }
    return json_text(list);
  }
  const bool markdown = format == SettingsFormat::markdown;
  std::string text;
  std::string_view topic;
  if (markdown)
    text =
        "# Decisions\n\nWhat Ubbo decides on an app's behalf, by names that stay. `ubbo why --json` tells "
        "each with its "
        "name; `ubbo decisions` lists them. In the sentences, facts stand in braces: `{travel.limit}` is "
        "what "
        "the travel was held against, `{travel.margin}` by how much it passed or failed. A decision is "
        "always "
        "told with all its facts.\n";
  for (const Answer* one : decisions) {
    const words::Wording wording = said.of(*one);
    if (markdown && topic_of(one->name) != topic) {
      topic = topic_of(one->name);
      text += fmt::format("\n## {}\n\n| decision | asks | says | facts |\n|---|---|---|---|\n", topic);
    }
    text += markdown ? fmt::format("| `{}` | {} | {} | {} |\n", one->name, said.of(*one->question),
                                   wording.sentence, facts_line(*one))
                     : fmt::format("{}\n  {} {}\n  {}\n", one->name, said.of(*one->question),
                                   wording.in_short, wording.sentence) +
                           (one->facts.empty() ? "" : "  facts: " + facts_line(*one) + "\n");
  }
  // Bars within a sentence, such as {taps|tap|taps}, would end a cell of the table.
  for (std::size_t open = 0; markdown && (open = text.find('{', open)) != std::string::npos;) {
    const std::size_t close = text.find('}', open);
    for (std::size_t bar = text.find('|', open); bar < text.find('}', open); bar = text.find('|', bar + 2))
      text.insert(bar, "\\");
    open = std::max(close, open + 1);
  }
  return text;
}

}  // namespace ubbo::io
