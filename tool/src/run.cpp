#include "ubbo/tool/run.hpp"

#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <csignal>
#include <exception>
#include <filesystem>
#include <sstream>
#include <stdexcept>
#include <string_view>
#include <vector>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

void demand_verb(const CLI::App& app, std::string_view word) {
  if (word.starts_with('-')) return;
  std::vector<std::string> names;
  for (const CLI::App* verb : app.get_subcommands({})) names.push_back(verb->get_name());
  if (std::find(names.begin(), names.end(), word) != names.end()) return;
  const std::vector<std::string_view> known(names.begin(), names.end());
  const std::string nearest = ubbo::io::nearest_name(word, known);
  throw std::invalid_argument(fmt::format("no command '{}'; takes {}{}", word, fmt::join(names, ", "),
                                          nearest.empty() ? "" : "; nearest known: " + nearest));
}

// What was not taken, with the nearest option there is, "" when it was no option.
std::string unknown_option(const CLI::App& app, int argc, char** argv) {
  const CLI::App* verb = &app;
  for (auto inner = verb->get_subcommands(); !inner.empty(); inner = verb->get_subcommands())
    verb = inner.front();
  std::vector<std::string> names;
  for (const CLI::Option* option : verb->get_options())
    for (const std::string& name : option->get_lnames()) names.push_back("--" + name);
  const std::vector<std::string_view> known(names.begin(), names.end());
  for (int i = 1; i < argc; ++i) {
    const std::string word = std::string(argv[i]).substr(0, std::string_view(argv[i]).find('='));
    if (!word.starts_with("--") || std::find(names.begin(), names.end(), word) != names.end()) continue;
    const std::string nearest = ubbo::io::nearest_name(word, known);
    return fmt::format("no option '{}'; {} takes {}{}", word, verb->get_name(), fmt::join(names, ", "),
                       nearest.empty() ? "" : "; nearest known: " + nearest);
  }
  return {};
}

int run_command(int argc, char** argv, const Kit& kit) {
  // An app's own command is called as the app calls it.
  CLI::App command{"touch-driven components that are exact, explained, and tuned by measurement",
                   argc > 0 ? std::filesystem::path(argv[0]).filename().string() : "ubbo"};
  const Verb app(&command);
  command.set_version_flag("--version", "ubbo " UBBO_VERSION);
  app.require_verb();
  app.footer(
      "dp are lengths that look alike on every screen: 160 to an inch, about 6.3 to a millimetre.\n"
      "Start with:  ubbo demo          (the examples of each command use what it writes)\n"
      "Exit codes:  0 done, 1 the run found something wrong, 2 bad input or usage.");
  int exit = done;
  add_demo(app, exit, kit);
  add_replay(app, exit, kit);
  add_why(app, exit, kit);
  add_film(app, exit, kit);
  add_graph(app, exit, kit);
  add_check(app, exit, kit);
  add_extras(app, exit, kit);
  add_curve(app, exit, kit);
  add_export(app, exit, kit);
  add_take(app, exit, kit);
  add_parts(app, exit, kit);
  add_decisions(app, exit, kit);
  add_settings(app, exit, kit);
  add_watch(app, exit, [&](const std::vector<std::string>& words) {
    if (words[0] == "watch") throw std::invalid_argument("watch: 'watch'; takes another command");
    std::vector<std::string> all{argv[0]};
    all.insert(all.end(), words.begin(), words.end());
    std::vector<char*> pointers;
    for (std::string& word : all) pointers.push_back(word.data());
    return run(static_cast<int>(pointers.size()), pointers.data(), kit.kinds, kit.looks, kit.extras);
  });
  add_help(app, exit);
  name_values(app, kit);
  try {
    if (argc > 1) demand_verb(command, argv[1]);
    command.parse(argc, argv);
    finish_saying();
  } catch (const CLI::ExtrasError& error) {
    const std::string wrong = unknown_option(command, argc, argv);
    warn("ubbo: {}\n", wrong.empty() ? error.what() : wrong);
    return bad_input;
  } catch (const CLI::ParseError& error) {
    std::ostringstream out;
    std::ostringstream wrong;
    if (command.exit(error, out, wrong) != 0) {
      warn("ubbo: {}\n", error.what());
      return bad_input;
    }
    say_text(out.str());
    finish_saying();
    return done;
  } catch (const ubbo::io::SpecError& wrong) {
    warn("ubbo: found {} at character {}; takes {}\n{}\n", wrong.facts().found, wrong.facts().at + 1,
         wrong.facts().takes, wrong.picture());
    return bad_input;
  }
  return exit;
}

}  // namespace

int run(int argc, char** argv, Kinds kinds, const skin::Looks& looks, const Extras& extras) {
  const Kit kit{kinds, looks, extras};
  // A reader that goes away is told of in words, like every other place that takes no more.
  (void)std::signal(SIGPIPE, SIG_IGN);
  try {
    return run_command(argc, argv, kit);
  } catch (const std::exception& error) {
    warn("ubbo: {}\n", error.what());
    return bad_input;
  }
}

}  // namespace ubbo::tool
