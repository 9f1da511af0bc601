#include <memory>
#include <string>

#include "commands.hpp"
#include "completions.hpp"
#include "say.hpp"

namespace ubbo::tool {

void add_help(Verb app, int& exit) {
  auto shell = std::make_shared<std::string>();
  const Verb complete = app.add_verb("completions", "Print completions of this command for a shell");
  complete.add_option("SHELL", *shell, "whose").required();
  complete.footer("Example:  ubbo completions bash > ubbo.bash");
  complete.when_called([shell, app, &exit] {
    say("{}", completions(declared(app), *shell));
    exit = done;
  });
  const Verb page = app.add_verb("manual", "Print the manual page of this command");
  page.footer("Example:  ubbo manual > ubbo.1");
  page.when_called([app, &exit] {
    say("{}", manual(declared(app), UBBO_VERSION));
    exit = done;
  });
}

}  // namespace ubbo::tool
