#pragma once

namespace ubbo {

/// Something that is decided. A value declared beside the code that asks; compared by where it stands.
struct Question {
  const char* words;
};

/// One way in which a question is decided, with its words, declared beside the code that decides so.
///
/// `sentence` and `caption` are text with facts in braces, which io fills in: `{travel}` is the fact's value
/// with its unit, `{travel.limit}` what it was held against, `{travel.margin}` by how much it passed or
/// failed, without a sign; `{x.number}` the value without its unit, `{part}` the part that decided;
/// `{taps|tap|taps}` the value and the word for one or for many. A sentence claims nothing that does not hold
/// whenever the answer is given. An empty caption: not worth one.
struct Answer {
  const Question* question;
  const char* words;  ///< in a few words, for JSON
  bool yes;           ///< whether it does what was asked about
  const char* sentence;
  const char* caption;
};

}  // namespace ubbo
