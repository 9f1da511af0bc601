#include "ubbo/words/catalogue.hpp"

#include <utility>

namespace ubbo::words {

void Catalogue::add(const Question& question, const char* words) { asked_.emplace(question.name, words); }

void Catalogue::add(const Answer& answer, const char* in_short, const char* sentence, const char* caption) {
  answers_.push_back(&answer);
  said_.emplace(answer.name, Wording{in_short, sentence, caption});
}

bool Catalogue::say(std::string_view answer, Wording wording) {
  const auto found = said_.find(answer);
  if (found == said_.end()) return false;
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
