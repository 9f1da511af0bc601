#pragma once

#include <array>
#include <span>
#include <string_view>

#include "ubbo/base/fact.hpp"

namespace ubbo {

/// Something that is decided, such as "rail.rest". Declared as a constant beside the code that asks, and
/// compared by address.
struct Question {
  const char* name;        ///< stable
  const char* words = "";  ///< what an app's own question is called; ours are in the library `words`
};

/// One possible answer to a question. Its name, such as "rail.at-rest", is stable: outputs and expectations
/// use it, and the library `words` turns it into a sentence. Declared as an `AnswerWith`.
struct Answer {
  const char* name;
  const Question* question;
  bool yes;                         ///< whether it says yes to the question
  std::span<const FactSpec> facts;  ///< the facts it always comes with, in this order
  // Of an app's own part: how it is said, as `words::Wording` describes.
  const char* in_short = "";
  const char* sentence = "";
  const char* caption = "";
};

/// The first `{...}` in `words` that names none of `facts`, nor `part`; empty where there is none. Words are
/// as `words::Wording` describes.
[[nodiscard]] constexpr std::string_view unknown_fact(std::string_view words,
                                                      std::span<const FactSpec> facts) {
  while (true) {
    const auto open = words.find('{');
    if (open == std::string_view::npos) return {};
    const auto close = words.find('}', open);
    if (close == std::string_view::npos) return words.substr(open);
    const std::string_view key = words.substr(open + 1, close - open - 1);
    const auto ends = key.find_first_of(".|");
    const std::string_view name = key.substr(0, ends);
    const std::string_view after = ends == std::string_view::npos ? "" : key.substr(ends);
    bool known = key == "part";
    for (const FactSpec& fact : facts)
      if (name == fact.name)
        known = after.empty() || after == ".number" || after == ".size" ||
                after.find('|', 1) != std::string_view::npos ||
                (fact.limit != Limit::none && (after == ".limit" || after == ".margin"));
    if (!known) return key;
    words = words.substr(close + 1);
  }
}

namespace detail {
/// Not defined: a call while compiling is an error that says what is wrong.
void these_words_name_a_fact_that_their_answer_is_not_given_with();

consteval void need_facts(const char* words, std::span<const FactSpec> facts) {
  if (!unknown_fact(words, facts).empty()) these_words_name_a_fact_that_their_answer_is_not_given_with();
}
}  // namespace detail

/// An answer and the kinds of facts it comes with, declared beside the code that decides: `inline constexpr
/// AnswerWith<AtLeast<"travel", "dp">> drags{"drag.drags", &questions::drag, true};`. The caller passes a
/// value for each: `decide(answers::drags, {travel, threshold})`. A missing value, or words that name another
/// fact, do not compile.
template <class... Facts>
struct AnswerWith : Answer {
  static constexpr std::array<FactSpec, sizeof...(Facts)> specs{Facts::spec...};

  consteval AnswerWith(const char* its_name, const Question* asked, bool done, const char* few_words = "",
                       const char* words = "", const char* for_picture = "")
      : Answer{its_name, asked, done, specs, few_words, words, for_picture} {
    detail::need_facts(words, specs);
    detail::need_facts(for_picture, specs);
  }
};

}  // namespace ubbo
