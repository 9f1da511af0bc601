#pragma once

#include <span>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "ubbo/base/journal.hpp"

namespace ubbo::words {

/// How an answer is said.
///
/// `sentence` and `caption` are text with facts in braces: `{travel}` is the fact's value with its unit,
/// `{travel.limit}` what it was held against, `{travel.margin}` by how much it passed or failed, without a
/// sign; `{x.number}` the value without its unit, `{speed.size}` the
/// value without its sign, `{part}` the part that decided; `{taps|tap|taps}` the value
/// and the word for one or for many. A sentence claims nothing that does not hold whenever the answer is
/// given.
struct Wording {
  std::string in_short;  ///< in a few words, after the question
  std::string sentence;
  std::string caption;  ///< the same in a few words; "": not worth one
};

/// What all that core decides is called in one language. An app or another language replaces what it likes,
/// by the names of answers and questions:
/// `auto mine = Catalogue::english(); mine.say("rail.at-rest", {"yes", "it rests on {value}", "rests"});`
///
/// What is not in it, such as answers of an app's own part, is said as its `Answer` says it itself.
class Catalogue {
 public:
  /// The built-in one.
  static const Catalogue& english();

  /// How an answer is said, from now on. False: there is no answer of this name. Throws
  /// `std::invalid_argument` where the words name a fact that the answer is not given with.
  bool say(std::string_view answer, Wording wording);
  /// Sets what a question is called, from now on. False: there is no question of this name.
  bool ask(std::string_view question, std::string words);

  [[nodiscard]] Wording of(const Answer& answer) const;
  [[nodiscard]] std::string of(const Question& question) const;
  /// All answers of core, in the order of the headers that declare them.
  [[nodiscard]] std::span<const Answer* const> answers() const { return answers_; }

 private:
  Catalogue() = default;

  std::vector<const Answer*> answers_;
  std::unordered_map<std::string_view, Wording> said_;  // by their names, which are constants
  std::unordered_map<std::string_view, std::string> asked_;
};

/// What was decided and why, as one English sentence without a full stop.
[[nodiscard]] std::string sentence(const Decision& decision,
                                   const Catalogue& catalogue = Catalogue::english());
/// A decision in a few words, for a picture; "" when it is not worth a caption.
[[nodiscard]] std::string caption(const Decision& decision,
                                  const Catalogue& catalogue = Catalogue::english());

}  // namespace ubbo::words
