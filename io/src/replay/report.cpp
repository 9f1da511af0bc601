#include "ubbo/io/replay/report.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>

#include "ubbo/io/replay/accessible_json.hpp"
#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

namespace {

Json box_json(const Box& box) {
  return {{"x", rounded(box.x)}, {"y", rounded(box.y)}, {"w", rounded(box.w)}, {"h", rounded(box.h)}};
}

Json cell_json(const CellValue& value) {
  if (const auto* number = std::get_if<double>(&value)) return number_or_null(*number);
  if (const auto* whole = std::get_if<int>(&value)) return *whole;
  if (const auto* flag = std::get_if<bool>(&value)) return *flag;
  if (const auto* choice = std::get_if<Choice>(&value)) return choice->name();
  if (const auto* text = std::get_if<std::string>(&value)) return *text;
  return std::get<std::vector<std::string>>(value);
}

Json reading_json(const ReadingValue& value) {
  if (const auto* number = std::get_if<double>(&value)) return number_or_null(*number);
  if (const auto* flag = std::get_if<bool>(&value)) return *flag;
  return std::get<std::string>(value);
}

Json decision_json(const Decision& decision) {
  const auto& said = words::Catalogue::english();
  Json facts = Json::array();
  for (const Fact& fact : decision.all_facts())
    facts.push_back({{"name", fact.name},
                     {"value", number_or_null(fact.value)},
                     {"unit", fact.unit},
                     {"limit", fact.limited ? number_or_null(fact.limit) : Json(nullptr)},
                     {"margin", fact.limited ? number_or_null(fact.margin) : Json(nullptr)}});
  return {{"time_ms", to_ms(decision.time)},
          {"part", decision.part.view()},
          {"decision", decision.answer->name},
          {"question", said.of(*decision.answer->question)},
          {"answer", said.of(*decision.answer).in_short},
          {"yes", decision.answer->yes},
          {"facts", std::move(facts)}};
}

Json part_json(const Part& part) {
  const PartKind& kind = part.kind();
  Json readings = Json::object();
  for (const ReadingInfo& reading : kind.readings) readings[reading.name] = reading_json(reading.now(part));
  return {{"kind", kind.name},
          {"accessible", accessible_json(part)},
          {"box", box_json(part.box())},
          {"visible", part.visible()},
          {"enabled", part.enabled()},
          {"settled", part.settled()},
          {"readings", std::move(readings)}};
}

Json cells_of(const SceneRun& run) {
  Json cells = Json::object();
  for (const auto& cell : run.cells()) cells[cell.name] = cell_json(cell.value());
  return cells;
}

void add_outcome(Json& root, const SceneRun& run, std::span<const Decision> decisions) {
  root["cells"] = cells_of(run);
  root["parts"] = Json::object();
  root["decisions"] = Json::array();
  for (const auto& part : run.stage().parts()) root["parts"][part->id()] = part_json(*part);
  for (const Decision& decision : decisions) root["decisions"].push_back(decision_json(decision));
}

}  // namespace

std::string cells_json(const SceneRun& run) { return json_text(cells_of(run), -1); }

std::string outcome_json(const SceneRun& run, std::span<const Decision> decisions) {
  Json root = Json::object();
  add_outcome(root, run, decisions);
  return json_text(root);
}

std::string replay_json(const SceneRun& run, const Replay& replay, const std::vector<std::string>& unmet) {
  Json root{{"take", replay.take().file}};
  add_outcome(root, run, replay.decisions());
  root["unmet"] = unmet;
  root["warnings"] = replay.warnings();
  root["begins_ms"] = to_ms(replay.begins());
  root["ends_ms"] = to_ms(replay.ends());
  root["frames"] = replay.frames();
  // Names come from files, so they may not be UTF-8; they are shown as well as can be.
  return json_text(root);
}

std::string changed_cells(const Scene& scene, const SceneRun& run) {
  std::string text;
  for (std::size_t i = 0; i < scene.cells.size(); ++i) {
    const std::string now = shown(run.cells()[i].value());
    if (now != shown(scene.cells[i].second))
      text += fmt::format("{}{} = {}", text.empty() ? "" : ", ", scene.cells[i].first, now);
  }
  return text;
}

std::string replay_text(const SceneRun& run, const Replay& replay) {
  std::string text = fmt::format("{:.0f} ms replayed, {} decisions\n", to_ms(replay.ends() - replay.begins()),
                                 replay.decisions().size());
  std::size_t widest = 12;
  for (const auto& cell : run.cells()) widest = std::max(widest, cell.name.size());
  for (const Part* part : run.stage().parts()) widest = std::max(widest, part->id().size());
  for (const auto& cell : run.cells())
    text += fmt::format("cell {:<{}} {}\n", cell.name, widest, shown(cell.value()));
  for (const Part* part : run.stage().parts()) {
    const Accessible told = part->accessible();
    text += fmt::format("part {:<{}} {} \"{}\"", part->id(), widest, part->kind().name, told.label);
    // Where it stands: the first thing its kind has to tell of it.
    for (const ReadingInfo& reading : part->kind().readings)
      if (reading.usual && *reading.unit != '\0')
        text += fmt::format(", {} {} {}", reading.name, shown(reading.now(*part)), reading.unit);
    if (told.value_now) text += fmt::format(", at {}", plain(*told.value_now));
    text += !part->visible() ? ", hidden\n" : part->settled() ? ", at rest\n" : ", moving\n";
  }
  if (run.stage().parts().empty()) text += "the scene has no parts, so no part can take a touch\n";
  return text;
}

std::string why_json(const Replay& replay, std::string_view part) {
  Json root{{"decisions", Json::array()}};
  for (const Decision& decision : replay.decisions())
    if (part.empty() || decision.part == part) root["decisions"].push_back(decision_json(decision));
  return json_text(root);
}

void demand_part(SceneRun& run, const std::string& file, std::string_view part) {
  if (part.empty() || run.stage().find(part) != nullptr) return;
  std::vector<std::string_view> known;
  for (const auto& one : run.stage().parts()) known.emplace_back(one->id());
  throw InputError(
      {.file = file,
       .found = fmt::format("no part '{}'", part),
       .takes = known.empty() ? "nothing: the scene has no parts" : fmt::format("{}", fmt::join(known, ", ")),
       .nearest = nearest_name(part, known)});
}

}  // namespace ubbo::io
