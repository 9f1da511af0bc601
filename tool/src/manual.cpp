#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cctype>

#include "completions.hpp"

namespace ubbo::tool {

namespace {

// Text that roff takes for nothing but text: no escapes, no requests, dashes that can be copied.
std::string roff(std::string_view text) {
  std::string made;
  for (const char c : text) {
    if ((c == '.' || c == '\'') && (made.empty() || made.back() == '\n')) made += "\\&";
    if (c == '\\')
      made += "\\e";
    else if (c == '-')
      made += "\\-";
    else
      made += c;
  }
  return made;
}

std::string synopsis(const DeclaredVerb& verb, const std::string& path) {
  std::string text = fmt::format("\\fB{}\\fR", roff(path));
  if (std::any_of(verb.options.begin(), verb.options.end(),
                  [](const auto& one) { return !one.positional(); }))
    text += " [\\fIOPTIONS\\fR]";
  for (const DeclaredOption& option : verb.options)
    if (option.positional())
      text += fmt::format(" {}\\fI{}\\fR{}{}", option.required ? "" : "[", roff(option.value),
                          option.several ? "\\&..." : "", option.required ? "" : "]");
  return text;
}

void verb_section(const DeclaredVerb& verb, const std::string& path, std::string& text) {
  text += fmt::format(".SS \"{}\"\n{}.\n.PP\n{}\n", roff(path), roff(verb.means), synopsis(verb, path));
  for (const DeclaredOption& option : verb.options) {
    std::vector<std::string> names;
    for (const std::string& name : option.names) names.push_back(fmt::format("\\fB{}\\fR", roff(name)));
    if (option.positional()) names.push_back(fmt::format("\\fI{}\\fR", roff(option.value)));
    std::string head = fmt::format("{}", fmt::join(names, ", "));
    if (!option.positional() && !option.value.empty()) head += fmt::format(" \\fI{}\\fR", roff(option.value));
    text += fmt::format(".TP\n{}\n{}.", head, roff(option.means));
    if (!option.usual.empty()) text += fmt::format(" Without it: {}.", roff(option.usual));
    text += '\n';
  }
  if (!verb.footer.empty()) text += fmt::format(".PP\n.nf\n{}\n.fi\n", roff(verb.footer));
  for (const DeclaredVerb& inner : verb.verbs) verb_section(inner, path + " " + inner.name, text);
}

}  // namespace

std::string manual(const DeclaredVerb& command, std::string_view version) {
  std::string title = command.name;
  std::transform(title.begin(), title.end(), title.begin(), [](unsigned char c) { return std::toupper(c); });
  std::string text = fmt::format(
      ".TH {} 1 \"\" \"{} {}\"\n.SH NAME\n{} \\- {}\n.SH SYNOPSIS\n\\fB{}\\fR \\fICOMMAND\\fR "
      "[\\fIOPTIONS\\fR]\n.SH COMMANDS\n",
      roff(title), roff(command.name), roff(version), roff(command.name), roff(command.means),
      roff(command.name));
  for (const DeclaredVerb& verb : command.verbs) verb_section(verb, command.name + " " + verb.name, text);
  text +=
      ".SH EXIT STATUS\n.TP\n0\ndone.\n.TP\n1\nthe run found something wrong, such as an expectation that is "
      "not "
      "met.\n.TP\n2\nbad input or usage.\n.SH ENVIRONMENT\n.TP\nNO_COLOR\nwhen set, nothing is printed in "
      "colour.\n";
  return text;
}

}  // namespace ubbo::tool
