#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/replay/decisions_list.hpp"
#include "ubbo/io/scene/parts_list.hpp"
#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::tool {

namespace {

struct ListOrder {
  std::string of;
  bool json = false;
  bool markdown = false;

  [[nodiscard]] io::SettingsFormat format() const {
    if (json) return io::SettingsFormat::json;
    return markdown ? io::SettingsFormat::markdown : io::SettingsFormat::text;
  }
};

}  // namespace

void add_parts(CLI::App& app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  CLI::App* verb =
      app.add_subcommand("parts", "Tell of the parts: settings, readings, keys, calls, decisions");
  verb->add_option("KIND", order->of, "only this one; without it a line for each");
  verb->add_flag("--json", order->json, "print JSON");
  verb->add_flag("--markdown", order->markdown, "print it for docs/parts");
  verb->footer("Example:  ubbo parts carousel");
  verb->callback([order, &exit, &kit] {
    say("{}", io::parts_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

void add_decisions(CLI::App& app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  CLI::App* verb = app.add_subcommand("decisions", "List what can be decided: name, question, sentence");
  verb->add_option("DECISION", order->of,
                   "only this one, such as rail.at-rest, or those of a topic, such as rail");
  verb->add_flag("--json", order->json, "print JSON");
  verb->add_flag("--markdown", order->markdown, "print the reference page docs/decisions.md");
  verb->footer("Example:  ubbo decisions routing");
  verb->callback([order, &exit, &kit] {
    say("{}", io::decisions_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

void add_settings(CLI::App& app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  std::string names = "only these: screen, feel";
  for (const PartKind* kind : kit.kinds) names += std::string(", ") + kind->name;
  CLI::App* verb = app.add_subcommand("settings", "List every setting: unit, default, range, meaning");
  verb->add_option("OF", order->of, names.c_str());
  verb->add_flag("--json", order->json, "print JSON");
  verb->add_flag("--markdown", order->markdown, "print the reference page docs/settings.md");
  verb->footer("Example:  ubbo settings slider");
  verb->callback([order, &exit, &kit] {
    say("{}", io::settings_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

}  // namespace ubbo::tool
