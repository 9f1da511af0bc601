#include <CLI/CLI.hpp>
#include <memory>
#include <string>

#include "commands.hpp"
#include "completions.hpp"
#include "say.hpp"

namespace ubbo::tool {

void add_help(CLI::App& app, int& exit) {
  auto shell = std::make_shared<std::string>();
  CLI::App* complete = app.add_subcommand("completions", "Print completions of this command for a shell");
  complete->add_option("SHELL", *shell, "whose")->required();
  complete->footer("Example:  ubbo completions bash > ubbo.bash");
  complete->callback([shell, &app, &exit] {
    say("{}", completions(declared(app), *shell));
    exit = done;
  });
  CLI::App* page = app.add_subcommand("manual", "Print the manual page of this command");
  page->footer("Example:  ubbo manual > ubbo.1");
  page->callback([&app, &exit] {
    say("{}", manual(declared(app), UBBO_VERSION));
    exit = done;
  });
}

}  // namespace ubbo::tool
