#include "ubbo/io/scene/parts_list.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <array>
#include <stdexcept>
#include <vector>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

namespace {

const PartKind& part_kind(std::string_view name, Kinds kinds) {
  if (const PartKind* kind = find_kind(kinds, name)) return *kind;
  std::vector<std::string_view> known;
  for (const PartKind* kind : kinds) known.emplace_back(kind->name);
  const std::string nearest = nearest_name(name, known);
  throw std::invalid_argument(fmt::format("parts: no kind '{}'; takes {}{}", name, fmt::join(known, ", "),
                                          nearest.empty() ? "" : "; nearest known: " + nearest));
}

// The questions it decides itself, with its answers, in the order in which they were declared.
std::vector<std::pair<const Question*, std::vector<const Answer*>>> questions_of(const PartKind& kind) {
  std::vector<std::pair<const Question*, std::vector<const Answer*>>> asked;
  for (const Answer* answer : kind.answers) {
    auto found = std::find_if(asked.begin(), asked.end(),
                              [&](const auto& one) { return one.first == answer->question; });
    if (found == asked.end()) found = asked.insert(asked.end(), {answer->question, {}});
    found->second.push_back(answer);
  }
  return asked;
}

// What it does with a wheel or trackpad.
std::string wheel_words(const PartKind& kind) {
  static constexpr std::array uses{"nothing: what lies around it gets it", "drags it, as a finger would",
                                   "a notch is a step, where it has the focus or nothing around it scrolls",
                                   "a notch is a step, and a trackpad drags it"};
  std::string words = uses[static_cast<std::size_t>(kind.wheel)];
  if (kind.wheel_zooms) words += "; a pinch, or the wheel with the control key, zooms";
  return words;
}

std::string text_page(const PartKind& kind, Kinds kinds) {
  std::string text = fmt::format("{}: {}\n\nARIA role  {}\n", kind.name, kind.means, kind.role);
  text += fmt::format("keys       {}\n", *kind.keys == '\0' ? "none" : kind.keys);
  text += fmt::format("wheel      {}\n", wheel_words(kind));
  if (!kind.actions.empty()) text += "\nactions\n";
  for (const PartAction& action : kind.actions)
    text += fmt::format("  {:<16} {}\n", action.name, action.means);
  text +=
      "\nsettings\n" +
      settings_list(kind.name, SettingsFormat::text, kinds).substr(std::string_view(kind.name).size() + 2);
  text += "\nreadings\n";
  for (const ReadingInfo& reading : kind.readings)
    text += fmt::format("  {:<16} {:<10} {}\n", reading.name, reading.unit, reading.means);
  const auto asked = questions_of(kind);
  const auto& said = words::Catalogue::english();
  if (!asked.empty()) text += "\ndecisions of its own\n";
  for (const auto& [question, given] : asked) {
    text += fmt::format("  {}\n", said.of(*question));
    for (const Answer* answer : given)
      text += fmt::format("    {:<28} {}\n", answer->name, said.of(*answer).in_short);
  }
  return text;
}

std::string markdown_page(const PartKind& kind, Kinds kinds) {
  std::string text = fmt::format("| | |\n|---|---|\n| ARIA role | `{}` |\n| keys | {} |\n| wheel | {} |\n",
                                 kind.role, *kind.keys == '\0' ? "none" : kind.keys, wheel_words(kind));
  if (!kind.actions.empty()) text += "\n## Actions\n\n| action | means | under a finger |\n|---|---|---|\n";
  for (const PartAction& action : kind.actions)
    text += fmt::format("| `{}` | {} | {} |\n", action.name, action.means,
                        action.while_held == WhileHeld::waits     ? "waits for the lift"
                        : action.while_held == WhileHeld::cancels ? "takes it from the finger"
                                                                  : "counts at once");
  std::string settings = settings_list(kind.name, SettingsFormat::markdown, kinds);
  settings = settings.substr(settings.find("| setting |"));
  text += "\n## Settings\n\n" + settings + "\n## Readings\n\n| reading | unit | means |\n|---|---|---|\n";
  for (const ReadingInfo& reading : kind.readings)
    text += fmt::format("| `{}` | {} | {} |\n", reading.name, reading.unit, reading.means);
  const auto asked = questions_of(kind);
  const auto& said = words::Catalogue::english();
  if (!asked.empty()) text += "\n## Decisions of its own\n\n| it asks | and answers |\n|---|---|\n";
  for (const auto& [question, given] : asked) {
    std::vector<std::string> words;
    for (const Answer* answer : given)
      words.push_back(fmt::format("{} (`{}`)", said.of(*answer).in_short, answer->name));
    text += fmt::format("| {} | {} |\n", said.of(*question), fmt::join(words, "; "));
  }
  return text;
}

Json json_page(const PartKind& kind, Kinds kinds) {
  Json page{{"name", kind.name},
            {"means", kind.means},
            {"role", kind.role},
            {"keys", kind.keys},
            {"wheel", wheel_words(kind)}};
  page["actions"] = Json::array();
  for (const PartAction& action : kind.actions)
    page["actions"].push_back({{"name", action.name}, {"means", action.means}});
  page["settings"] =
      read_json(settings_list(kind.name, SettingsFormat::json, kinds), "settings").at(kind.name);
  page["readings"] = Json::array();
  for (const ReadingInfo& reading : kind.readings)
    page["readings"].push_back({{"name", reading.name}, {"unit", reading.unit}, {"means", reading.means}});
  page["questions"] = Json::array();
  const auto& said = words::Catalogue::english();
  for (const auto& [question, given] : questions_of(kind)) {
    Json words = Json::array();
    Json names = Json::array();
    for (const Answer* answer : given) {
      words.push_back(said.of(*answer).in_short);
      names.push_back(answer->name);
    }
    page["questions"].push_back(
        {{"asks", said.of(*question)}, {"answers", std::move(words)}, {"decisions", std::move(names)}});
  }
  return page;
}

}  // namespace

std::string parts_list(std::string_view of, SettingsFormat format, Kinds kinds) {
  if (!of.empty()) {
    const PartKind& kind = part_kind(of, kinds);
    if (format == SettingsFormat::json) return json_text(json_page(kind, kinds));
    return format == SettingsFormat::text ? text_page(kind, kinds) : markdown_page(kind, kinds);
  }
  Json all = Json::array();
  std::string text = format == SettingsFormat::markdown ? "| kind | what it is |\n|---|---|\n" : "";
  for (const PartKind* kind : kinds) {
    all.push_back(json_page(*kind, kinds));
    text += format == SettingsFormat::markdown
                ? fmt::format("| [{0}]({0}.md) | {1} |\n", kind->name, kind->means)
                : fmt::format("{:<14} {}\n", kind->name, kind->means);
  }
  return format == SettingsFormat::json ? json_text(all) : text;
}

std::string example_scene(std::string_view name, Kinds kinds) {
  const PartKind& kind = part_kind(name, kinds);
  const PartExample& example = kind.example;
  if (*example.box == '\0') throw std::invalid_argument(fmt::format("parts: a {} shows no scene", name));
  const std::string cells = *example.cells == '\0' ? "" : fmt::format("[cells]\n{}\n", example.cells);
  return fmt::format(
      "# A smallest scene with a {0}: {1}.\ntitle = \"Heather Ridge: {0}\"\nscreen = {{ width = 360, height "
      "= 720 }}\n\n"
      "{2}[[part]]\nid = \"mine\"\nkind = \"{3}\"\nbox = [{4}]\n{5}",
      kind.words(), kind.means, cells, kind.name, example.box, example.lines);
}

std::string parts_of(const Scene& scene, SettingsFormat format) {
  Json all = Json::array();
  std::string text =
      format == SettingsFormat::markdown ? "| id | kind | inside | line |\n|---|---|---|---|\n" : "";
  for (const PartPlan& plan : scene.parts) {
    const std::string& inside = plan.contact_rules.inside;
    all.push_back({{"id", plan.id}, {"kind", plan.kind->name}, {"inside", inside}, {"line", plan.line}});
    text += format == SettingsFormat::markdown
                ? fmt::format("| `{}` | {} | {} | {} |\n", plan.id, plan.kind->name, inside, plan.line)
                : fmt::format("{:<20} {:<14} {:<20} line {}\n", plan.id, plan.kind->name,
                              inside.empty() ? "on the screen" : "in " + inside, plan.line);
  }
  return format == SettingsFormat::json ? json_text(all) : text;
}

}  // namespace ubbo::io
