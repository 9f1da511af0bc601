#include <fmt/format.h>

#include <memory>

#include "commands.hpp"
#include "say.hpp"
#include "ubbo/io/replay/decisions_list.hpp"
#include "ubbo/io/scene/parts_list.hpp"
#include "ubbo/io/scene/scene_schema.hpp"
#include "ubbo/io/scene/settings_list.hpp"

namespace ubbo::tool {

namespace {

struct ListOrder {
  std::string of;
  bool json = false;
  bool markdown = false;
  bool scene = false;
  std::string in;
  bool schema = false;

  [[nodiscard]] io::SettingsFormat format() const {
    if (json) return io::SettingsFormat::json;
    return markdown ? io::SettingsFormat::markdown : io::SettingsFormat::text;
  }
};

}  // namespace

void add_parts(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  const Verb verb = app.add_verb("parts", "Tell of the parts: settings, readings, keys, calls, decisions");
  verb.add_option("KIND", order->of, "only this one; without it a line for each");
  verb.add_option("--in", order->in, "list the parts of this scene file, also those made by templates")
      .value_name("SCENE");
  verb.add_flag("--scene", order->scene, "print a smallest scene with such a part");
  verb.add_flag("--json", order->json, "print JSON");
  verb.add_flag("--markdown", order->markdown, "print it for docs/parts");
  verb.footer(
      "Example:  ubbo parts carousel\nExample:  ubbo parts sheet --scene >sheet.scene.toml\n"
      "Example:  ubbo parts --in heather-ridge/hive-list.scene.toml");
  verb.when_called([order, &exit, &kit] {
    exit = done;
    if (order->scene) return say("{}", io::example_scene(order->of, kit.kinds));
    if (!order->in.empty()) return say("{}", io::parts_of(scene_at(order->in, kit.kinds), order->format()));
    say("{}", io::parts_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

void add_decisions(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  const Verb verb = app.add_verb("decisions", "List what can be decided: name, question, sentence");
  verb.add_option("DECISION", order->of,
                  "only this one, such as rail.at-rest, or those of a topic, such as rail");
  verb.add_flag("--json", order->json, "print JSON");
  verb.add_flag("--markdown", order->markdown, "print the reference page docs/decisions.md");
  verb.footer("Example:  ubbo decisions routing");
  verb.when_called([order, &exit, &kit] {
    say("{}", io::decisions_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

void add_settings(Verb app, int& exit, const Kit& kit) {
  auto order = std::make_shared<ListOrder>();
  std::string names = "only these: screen, feel";
  for (const PartKind* kind : kit.kinds) names += std::string(", ") + kind->name;
  const Verb verb = app.add_verb("settings", "List every setting: unit, default, range, meaning");
  verb.add_option("OF", order->of, names);
  verb.add_flag("--json", order->json, "print JSON");
  verb.add_flag("--markdown", order->markdown, "print the reference page docs/settings.md");
  verb.add_flag("--schema", order->schema, "print a JSON Schema of scene files, for editors");
  verb.footer("Example:  ubbo settings slider\nExample:  ubbo settings --schema >scene.schema.json");
  verb.when_called([order, &exit, &kit] {
    exit = done;
    if (order->schema) return say("{}", io::scene_schema(kit.kinds));
    say("{}", io::settings_list(order->of, order->format(), kit.kinds));
    exit = done;
  });
}

}  // namespace ubbo::tool
