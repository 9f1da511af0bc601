#include <fmt/format.h>
#include <fmt/ranges.h>

#include <CLI/CLI.hpp>
#include <array>
#include <string>
#include <string_view>
#include <vector>

#include "commands.hpp"
#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

struct Value {
  std::string_view option;
  const char* called;
};
// An option of one name takes the same everywhere.
constexpr std::array values{Value{"SCENE", "FILE"},
                            Value{"TAKE", "FILE"},
                            Value{"IN", "FILE"},
                            Value{"--scene", "FILE"},
                            Value{"--script", "FILE"},
                            Value{"--out", "FILE"},
                            Value{"SCRIPT", "TEXT"},
                            Value{"SPEC", "MOTION"},
                            Value{"FROM", "NAME=MOTION"},
                            Value{"--set", "NAME=VALUE"},
                            Value{"--size", "WxH"},
                            Value{"--screen", "WxH"},
                            Value{"--range", "WxH"},
                            Value{"--frames", "COUNT"},
                            Value{"--samples", "COUNT"},
                            Value{"--count", "COUNT"},
                            Value{"--runs", "COUNT"},
                            Value{"--fps", "RATE"},
                            Value{"--rate", "RATE"},
                            Value{"--seed", "NUMBER"},
                            Value{"--from", "NUMBER"},
                            Value{"--to", "NUMBER"},
                            Value{"--velocity", "NUMBER"},
                            Value{"--duration", "MS"},
                            Value{"--error", "SHARE"},
                            Value{"--at", "MOMENTS"},
                            Value{"--of", "READINGS"},
                            Value{"--part", "ID"},
                            Value{"--namespace", "NAME"},
                            Value{"--animate", "DECLARATION"},
                            Value{"--listen", "ADDRESS"},
                            Value{"--takes", "FOLDER"},
                            Value{"--certificate", "FILE"},
                            Value{"--key", "FILE"},
                            Value{"--export", "FOLDER|FILE.html"}};

std::vector<std::string> words_of(std::string_view option, const Kit& kit) {
  std::vector<std::string> words;
  if (option == "--as") return {"css", "keyframes", "tokens", "header"};
  if (option == "SHELL") return {"bash", "zsh", "fish"};
  if (option == "--feel")
    for (const NamedFeel& feel : shipped_feels()) words.emplace_back(feel.name);
  if (option == "--hand")
    for (const io::HandModel& hand : io::shipped_hands()) words.emplace_back(hand.name);
  if (option != "OF" && option != "KIND") return words;
  if (option == "OF") words = {"screen", "feel", "feel.wheel", "hover"};
  for (const PartKind* kind : kit.kinds) words.emplace_back(kind->name);
  return words;
}

// Takes one of the words; the name of another is answered with the nearest.
void take_words(CLI::Option& option, const std::vector<std::string>& words) {
  option.type_name(fmt::format("{}", fmt::join(words, "|")));
  option.check(CLI::Validator(
      [words](const std::string& given) {
        const std::vector<std::string_view> known(words.begin(), words.end());
        if (std::find(known.begin(), known.end(), given) != known.end()) return std::string();
        const std::string nearest = io::nearest_name(given, known);
        return fmt::format("'{}'; takes {}{}", given, fmt::join(words, ", "),
                           nearest.empty() ? "" : "; nearest known: " + nearest);
      },
      ""));
}

}  // namespace

void name_values(Verb verb, const Kit& kit) {
  CLI::App& app = verb.app();
  for (CLI::Option* option : app.get_options()) {
    const std::string name =
        option->get_lnames().empty() ? option->get_name() : "--" + option->get_lnames()[0];
    for (const Value& value : values)
      if (value.option == name) option->type_name(value.called);
    if (const auto words = words_of(name, kit); !words.empty()) take_words(*option, words);
    if (name == "--out" && app.get_name() == "demo") option->type_name("FOLDER");
  }
  if (app.get_footer().find("Exit codes") == std::string::npos)
    app.footer(app.get_footer() + "\nExit codes:  0 done, 2 bad input or usage.");
  for (CLI::App* inner : app.get_subcommands({})) name_values(Verb(inner), kit);
}

}  // namespace ubbo::tool
