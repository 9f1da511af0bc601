#include <fmt/format.h>

#include <CLI/CLI.hpp>
#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::tool {

void add_settings(CLI::App& app, int& exit, const Kit& kit) {
  struct Order {
    std::string of;
    bool json = false;
    bool markdown = false;
  };
  auto order = std::make_shared<Order>();
  std::string names = "only these: screen, feel";
  for (const PartKind* kind : kit.kinds) names += std::string(", ") + kind->name;
  CLI::App* verb = app.add_subcommand("settings", "List every setting: unit, default, range, meaning");
  verb->add_option("OF", order->of, names.c_str());
  verb->add_flag("--json", order->json, "print JSON");
  verb->add_flag("--markdown", order->markdown, "print the reference page docs/settings.md");
  verb->footer("Example:  ubbo settings slider");
  verb->callback([order, &exit, &kit] {
    using io::SettingsFormat;
    const SettingsFormat format = order->json       ? SettingsFormat::json
                                  : order->markdown ? SettingsFormat::markdown
                                                    : SettingsFormat::text;
    say("{}", io::settings_list(order->of, format, kit.kinds));
    exit = done;
  });
}

}  // namespace ubbo::tool
