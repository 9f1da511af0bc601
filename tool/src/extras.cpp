#include <fmt/format.h>

#include <stdexcept>

#include "commands.hpp"

namespace ubbo::tool {

namespace {

[[noreturn]] void left_out(std::string_view what) {
  throw std::invalid_argument(
      fmt::format("this ubbo was built without {}; './dev live' builds one with it", what));
}

}  // namespace

io::BezierFitter Kit::fitter() const {
  if (extras.fit) return extras.fit;
  return [](const Curve& /*curve*/) -> io::BezierFit { left_out("the search for a cubic-bezier()"); };
}

void add_extras(Verb app, int& exit, const Kit& kit) {
  if (kit.extras.add_live != nullptr) {
    kit.extras.add_live(app, exit, kit);
    return;
  }
  const Verb verb = app.add_verb("live", "Put a scene under the finger in a page (not in this build)");
  verb.leave_rest();
  verb.footer(
      "This ubbo was built without the page; './dev live' builds one with it.\n"
      "Example:  ./dev live hive-sheet\n"
      "Exit codes:  2 not in this build.");
  verb.when_called([] { left_out("the page"); });
}

}  // namespace ubbo::tool
