#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <cstdio>
#include <exception>

#include "commands.hpp"

int main(int argc, char** argv) {
  using namespace ubbo::tool;
  CLI::App app{"Ubbo: touch-driven components that are exact, explained, and tuned by measurement.", "ubbo"};
  app.set_version_flag("--version", "ubbo " UBBO_VERSION);
  app.require_subcommand(1);
  app.footer(
      "Start with:  ubbo demo\n"
      "Exit codes:  0 done, 1 the run found something wrong, 2 bad input or usage.");
  int exit = done;
  add_demo(app, exit);
  add_replay(app, exit);
  add_why(app, exit);
  add_film(app, exit);
  add_settings(app, exit);
  try {
    app.parse(argc, argv);
  } catch (const CLI::ParseError& error) {
    return app.exit(error) == 0 ? done : bad_input;
  } catch (const std::exception& error) {
    fmt::print(stderr, "ubbo: {}\n", error.what());
    return bad_input;
  }
  return exit;
}
