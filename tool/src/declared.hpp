#pragma once

#include <string>
#include <vector>

#include "verb.hpp"

namespace ubbo::tool {

/// What the command line takes, as it was declared: completions and the manual are made from it.
struct DeclaredOption {
  std::vector<std::string> names;  ///< with their dashes; empty: a positional
  std::string value;               ///< what its value is called; "": it takes none
  std::vector<std::string> words;  ///< the values there are, when they are few
  std::string means;
  std::string usual;  ///< the value when nothing is said, "" when there is none
  bool required = false;
  bool several = false;
  bool file = false;  ///< its value is the path of a file or folder

  [[nodiscard]] bool positional() const { return names.empty(); }
};

/// A verb with those below it.
struct DeclaredVerb {
  std::string name;
  std::string means;
  std::string footer;
  std::vector<DeclaredOption> options;
  std::vector<DeclaredVerb> verbs;
};

[[nodiscard]] DeclaredVerb declared(Verb verb);

}  // namespace ubbo::tool
