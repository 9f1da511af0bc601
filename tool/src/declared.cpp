#include "declared.hpp"

#include <CLI/CLI.hpp>

namespace ubbo::tool {

namespace {

DeclaredOption declared_option(const CLI::Option& option) {
  DeclaredOption made;
  for (const std::string& name : option.get_snames()) made.names.push_back("-" + name);
  for (const std::string& name : option.get_lnames()) made.names.push_back("--" + name);
  made.means = option.get_description();
  made.required = option.get_required();
  made.several = option.get_expected_max() > 1;
  made.usual = option.get_default_str();
  const bool flag = option.get_items_expected_max() == 0;
  if (made.positional())
    made.value = option.get_name();
  else if (!flag)
    made.value = option.get_type_name();
  // Few values stand as the name of what is taken: "bare|gloved".
  const std::string kind = option.get_type_name();
  if (kind.find('|') != std::string::npos) {
    for (std::size_t from = 0; from <= kind.size();) {
      const std::size_t end = std::min(kind.find('|', from), kind.size());
      made.words.push_back(kind.substr(from, end - from));
      from = end + 1;
    }
  }
  made.file = kind == "FILE" || kind == "FOLDER";
  return made;
}

}  // namespace

DeclaredVerb declared(Verb verb) {
  const CLI::App& app = verb.app();
  DeclaredVerb made{app.get_name(), app.get_description(), app.get_footer(), {}, {}};
  for (const CLI::Option* option : app.get_options()) made.options.push_back(declared_option(*option));
  for (CLI::App* inner : verb.app().get_subcommands({})) made.verbs.push_back(declared(Verb(inner)));
  return made;
}

}  // namespace ubbo::tool
