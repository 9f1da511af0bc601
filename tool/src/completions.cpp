#include "completions.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <stdexcept>

namespace ubbo::tool {

namespace {

std::string replaced(std::string text, std::string_view what, std::string_view by) {
  for (std::size_t at = 0; (at = text.find(what, at)) != std::string::npos; at += by.size())
    text.replace(at, what.size(), by);
  return text;
}

// For a text within single quotes: closed, quoted apart, opened again.
std::string in_quotes(std::string text) { return replaced(std::move(text), "'", "'\\''"); }

std::vector<std::string> option_names(const DeclaredVerb& verb) {
  std::vector<std::string> names;
  for (const DeclaredOption& option : verb.options)
    names.insert(names.end(), option.names.begin(), option.names.end());
  return names;
}

// bash: the verbs so far make a path; what may follow stands in one case each.
void bash_cases(const DeclaredVerb& verb, const std::string& path, std::string& words, std::string& values) {
  std::vector<std::string> verbs;
  for (const DeclaredVerb& inner : verb.verbs) verbs.push_back(inner.name);
  std::vector<std::string> positional;
  for (const DeclaredOption& option : verb.options) {
    if (option.positional()) positional.insert(positional.end(), option.words.begin(), option.words.end());
    if (option.positional() || option.value.empty()) continue;
    values += fmt::format("    '{} '{}) ", path, fmt::join(option.names, fmt::format("|'{} '", path)));
    if (!option.words.empty())
      values += fmt::format("COMPREPLY=($(compgen -W '{}' -- \"$word\"))", fmt::join(option.words, " "));
    else if (option.file)
      values += "COMPREPLY=($(compgen -f -- \"$word\"))";
    else
      values += ":";
    values += "; return ;;\n";
  }
  words += fmt::format("    '{}') options='{}'; words='{}{}{}' ;;\n", path,
                       fmt::join(option_names(verb), " "), fmt::join(verbs, " "),
                       verbs.empty() || positional.empty() ? "" : " ", fmt::join(positional, " "));
  for (const DeclaredVerb& inner : verb.verbs) bash_cases(inner, path + " " + inner.name, words, values);
}

std::string bash(const DeclaredVerb& command) {
  std::string words;
  std::string values;
  bash_cases(command, command.name, words, values);
  std::string paths;
  const auto add_paths = [&](const auto& self, const DeclaredVerb& verb, const std::string& path) -> void {
    for (const DeclaredVerb& inner : verb.verbs) {
      paths += fmt::format(" '{} {}'", path, inner.name);
      self(self, inner, path + " " + inner.name);
    }
  };
  add_paths(add_paths, command, command.name);
  return fmt::format(
      R"(# Completion of {0} for bash. Load it:  source <({0} completions bash)
_{1}() {{
  local word=${{COMP_WORDS[COMP_CWORD]}} before=${{COMP_WORDS[COMP_CWORD-1]}} path='{0}' known options words i
  local paths=({4} )
  for ((i = 1; i < COMP_CWORD; ++i)); do
    for known in "${{paths[@]}}"; do
      if [[ "$path ${{COMP_WORDS[i]}}" == "$known" ]]; then path=$known; break; fi
    done
  done
  COMPREPLY=()
  case "$path $before" in
{3}  esac
  case "$path" in
{2}  esac
  if [[ $word == -* ]]; then
    COMPREPLY=($(compgen -W "$options" -- "$word"))
  elif [[ -n $words ]]; then
    COMPREPLY=($(compgen -W "$words" -- "$word"))
  else
    COMPREPLY=($(compgen -f -- "$word"))
  fi
}}
complete -o filenames -F _{1} {0}
)",
      command.name, replaced(command.name, "-", "_"), words, values, paths);
}

// zsh: a function for each verb. Brackets and colons end a text there.
std::string zsh_text(const std::string& text) {
  std::string made;
  for (const char c : in_quotes(text)) {
    if (c == '[' || c == ']' || c == ':') made += '\\';
    made += c;
  }
  return made;
}

std::string zsh_action(const DeclaredOption& option) {
  if (!option.words.empty()) return fmt::format("({})", fmt::join(option.words, " "));
  return option.file ? "_files" : " ";
}

void zsh_functions(const DeclaredVerb& verb, const std::string& path, std::string& text) {
  for (const DeclaredVerb& inner : verb.verbs) zsh_functions(inner, path + "_" + inner.name, text);
  text += fmt::format("_{}() {{\n", path);
  std::string arguments;
  int place = 0;
  for (const DeclaredOption& option : verb.options) {
    ++place;
    if (option.positional()) {
      arguments += fmt::format(" \\\n    '{}:{}:{}'", option.several ? "*" : "", zsh_text(option.value),
                               zsh_action(option));
      continue;
    }
    for (const std::string& name : option.names)
      arguments += fmt::format(
          " \\\n    '{}{}[{}]{}'", option.several ? "*" : "", name, zsh_text(option.means),
          option.value.empty() ? std::string()
                               : fmt::format(":{}:{}", zsh_text(option.value), zsh_action(option)));
  }
  if (verb.verbs.empty()) {
    text += fmt::format("  _arguments{}\n}}\n", arguments);
    return;
  }
  text += "  local line state\n  local -a verbs\n  verbs=(\n";
  for (const DeclaredVerb& inner : verb.verbs)
    text += fmt::format("    '{}:{}'\n", inner.name, zsh_text(inner.means));
  text += fmt::format(
      "  )\n  _arguments -C{} \\\n    '1:command:->verb' '*::rest:->rest'\n  case $state in\n"
      "    verb) _describe command verbs ;;\n    rest) case $line[1] in\n",
      arguments);
  for (const DeclaredVerb& inner : verb.verbs)
    text += fmt::format("      {}) _{}_{} ;;\n", inner.name, path, inner.name);
  text += "    esac ;;\n  esac\n}\n";
}

std::string zsh(const DeclaredVerb& command) {
  const std::string name = replaced(command.name, "-", "_");
  std::string text = fmt::format(
      "#compdef {0}\n# Completion of {0} for zsh. Put it as _{0} into a folder of $fpath.\n", command.name);
  zsh_functions(command, name, text);
  return text + fmt::format("compdef _{} {}\n", name, command.name);
}

// fish: a line for each word, with the condition under which it counts.
void fish_lines(const DeclaredVerb& verb, const std::string& command, const std::vector<std::string>& path,
                std::string& text) {
  std::string when;
  for (const std::string& seen : path)
    when += fmt::format("{}__fish_seen_subcommand_from {}", when.empty() ? "" : "; and ", seen);
  std::vector<std::string> names;
  for (const DeclaredVerb& inner : verb.verbs) names.push_back(inner.name);
  std::string before = when;
  if (!names.empty())
    before += fmt::format("{}not __fish_seen_subcommand_from {}", when.empty() ? "" : "; and ",
                          fmt::join(names, " "));
  const std::string begin = fmt::format("complete -c {}", command);
  for (const DeclaredVerb& inner : verb.verbs)
    text += fmt::format("{} -f -n '{}' -a {} -d '{}'\n", begin, before, inner.name, in_quotes(inner.means));
  for (const DeclaredOption& option : verb.options) {
    std::string line = begin + (before.empty() ? "" : fmt::format(" -n '{}'", before));
    for (const std::string& name : option.names)
      line += name.starts_with("--") ? " -l " + name.substr(2) : " -s " + name.substr(1);
    if (option.positional() && option.words.empty()) continue;
    if (!option.words.empty())
      line += fmt::format(" {}-a '{}'", option.positional() ? "-f " : "-x ", fmt::join(option.words, " "));
    else if (!option.value.empty())
      line += option.file ? " -r -F" : " -x";
    text += line + fmt::format(" -d '{}'\n", in_quotes(option.means));
  }
  for (const DeclaredVerb& inner : verb.verbs) {
    std::vector<std::string> deeper = path;
    deeper.push_back(inner.name);
    fish_lines(inner, command, deeper, text);
  }
}

std::string fish(const DeclaredVerb& command) {
  std::string text = fmt::format(
      "# Completion of {0} for fish. Put it into ~/.config/fish/completions/{0}.fish\n", command.name);
  fish_lines(command, command.name, {}, text);
  return text;
}

}  // namespace

std::string completions(const DeclaredVerb& command, std::string_view shell) {
  if (shell == "bash") return bash(command);
  if (shell == "zsh") return zsh(command);
  if (shell == "fish") return fish(command);
  throw std::invalid_argument(fmt::format("completions {}: takes bash, zsh, fish", shell));
}

}  // namespace ubbo::tool
