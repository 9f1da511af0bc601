#include "ubbo/check/check.hpp"

#include <fmt/format.h>

#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::tool {

namespace {

struct CheckOrder {
  OnScene on;
  bool json = false;
  bool sarif = false;
};

int check_one(const CheckOrder& order, const Kit& kit) {
  const std::string& file = order.on.path;
  const auto findings =
      check::check_text(file::read(file), file, kit.kinds, order.on.changes, skin::inter_width);
  std::size_t silenced = 0;
  for (const check::Finding& one : findings) silenced += one.silenced.empty() ? 0U : 1U;
  const std::size_t faults = findings.size() - silenced;
  if (order.json) say("{}", check::findings_json(file, findings));
  if (order.sarif) say("{}", check::findings_sarif(file, findings));
  if (order.json || order.sarif) return faults > 0 ? found_wrong : done;
  for (const check::Finding& one : findings) {
    say_in(Ink::quiet, "{}:{}:{}: ", file, one.place.line, one.place.column);
    say_in(one.silenced.empty() ? Ink::bad : Ink::quiet, "{}", one.rule->name);
    say(": {}\n", one.found);
    if (!one.silenced.empty()) {
      say_in(Ink::quiet, "    silenced: {}\n", one.silenced);
      continue;
    }
    say("    why: {}\n    do:  {}\n", one.rule->means, one.remedy);
  }
  const std::string quiet = silenced > 0 ? fmt::format(", {} silenced", silenced) : "";
  if (faults == 0)
    say_in(Ink::good, "{}: no fault found{}\n", file, quiet);
  else
    say_in(Ink::bad, "{}: {} fault{} found{}\n", file, faults, faults == 1 ? "" : "s", quiet);
  return faults > 0 ? found_wrong : done;
}

}  // namespace

void add_check(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<CheckOrder>();
  const Verb verb = app.add_verb("check", "Find faults in a scene without running it");
  order->on.add_to(verb);
  const Option json = verb.add_flag("--json", order->json, "print JSON");
  verb.add_flag("--sarif", order->sarif, "print SARIF 2.1.0, for editors and CI").excludes(json);
  std::string rules = "Rules, each silenced in the scene by [[silence]] with rule, of and reason:\n";
  for (const check::Rule& rule : check::check_rules())
    rules += fmt::format("  {:<20}{}\n", rule.name, rule.means);
  verb.footer(rules +
              "Example:  ubbo check heather-ridge/hive-sheet.scene.toml\n"
              "Exit codes:  0 no fault, 1 faults found, 2 bad input or usage.");
  verb.when_called([order, &exit, &kit] { exit = check_one(*order, kit); });
}

}  // namespace ubbo::tool
