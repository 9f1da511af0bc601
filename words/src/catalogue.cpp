#include "ubbo/words/catalogue.hpp"

#include <algorithm>
#include <utility>

#include "ubbo/base/refuse.hpp"

namespace ubbo::words {

namespace {

void need_known_facts(const Answer& answer, const std::string& words) {
  const std::string_view unknown = unknown_fact(words, answer.facts);
  if (unknown.empty()) return;
  std::string given = "part";
  for (const FactSpec& fact : answer.facts) given += joined({", ", fact.name});
  refuse(joined({"wording of ", answer.name, ": {", unknown, "} is none of its facts; it takes ", given}));
}

}  // namespace

bool Catalogue::say(std::string_view answer, Wording wording) {
  const auto found = said_.find(answer);
  if (found == said_.end()) return false;
  const auto known =
      std::find_if(answers_.begin(), answers_.end(), [&](const Answer* one) { return one->name == answer; });
  need_known_facts(**known, wording.sentence);
  need_known_facts(**known, wording.caption);
  found->second = std::move(wording);
  return true;
}

bool Catalogue::ask(std::string_view question, std::string words) {
  const auto found = asked_.find(question);
  if (found == asked_.end()) return false;
  found->second = std::move(words);
  return true;
}

Wording Catalogue::of(const Answer& answer) const {
  const auto found = said_.find(answer.name);
  return found != said_.end() ? found->second : Wording{answer.in_short, answer.sentence, answer.caption};
}

std::string Catalogue::of(const Question& question) const {
  const auto found = asked_.find(question.name);
  return found != asked_.end() ? found->second : question.words;
}

}  // namespace ubbo::words
