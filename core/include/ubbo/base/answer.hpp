#pragma once

namespace ubbo {

/// Something that is decided, such as "rail.rest". A value declared beside the code that asks; compared by
/// where it stands.
struct Question {
  const char* name;        ///< stable
  const char* words = "";  ///< of an app's own: what it is called. Ours are in the library `words`
};

/// One way in which a question is decided, declared beside the code that decides so. Its name, such as
/// "rail.at-rest", is stable: outputs and expectations use it, and the library `words` says it in a sentence.
struct Answer {
  const char* name;
  const Question* question;
  bool yes;  ///< whether it does what was asked about
  // Of an app's own part: how it is said, as `words::Wording` describes.
  const char* in_short = "";
  const char* sentence = "";
  const char* caption = "";
};

}  // namespace ubbo
