#include "ubbo/io/report.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <cmath>
#include <nlohmann/json.hpp>

#include "ubbo/io/input_error.hpp"

namespace ubbo::io {

namespace {

using Json = nlohmann::ordered_json;

Json number_or_null(double value) { return std::isfinite(value) ? Json(value) : Json(nullptr); }

Json box_json(const Box& box) { return {{"x", box.x}, {"y", box.y}, {"w", box.w}, {"h", box.h}}; }

Json decision_json(const Decision& decision) {
  Json facts = Json::array();
  for (const Fact& fact : decision.all_facts())
    facts.push_back({{"name", fact.name},
                     {"value", number_or_null(fact.value)},
                     {"unit", fact.unit},
                     {"limit", number_or_null(fact.limit)},
                     {"margin", number_or_null(fact.margin)}});
  return {{"time_ms", to_ms(decision.time)},
          {"part", decision.part},
          {"question", decision.question},
          {"answer", decision.answer},
          {"facts", std::move(facts)}};
}

const char* kind_of(const Part& part) {
  if (dynamic_cast<const Pad*>(&part) != nullptr) return "pad";
  return dynamic_cast<const Pane*>(&part) != nullptr ? "pane" : "slider";
}

Json part_json(const Part& part) {
  const Accessible told = part.accessible();
  Json made{{"kind", kind_of(part)},
            {"role", told.role},
            {"label", told.label},
            {"box", box_json(part.box())},
            {"settled", part.settled()}};
  if (const auto* slider = dynamic_cast<const Slider*>(&part)) {
    made["value"] = slider->value();
    made["position"] = slider->position();
    made["share"] = slider->share();
    made["velocity"] = slider->velocity();
    made["from"] = slider->settings().from;
    made["to"] = slider->settings().to;
    made["thumb"] = {{"x", slider->thumb().x}, {"y", slider->thumb().y}};
    made["fill"] = box_json(slider->fill());
  }
  if (const auto* pane = dynamic_cast<const Pane*>(&part)) {
    made["offset"] = pane->offset();
    made["target"] = pane->target();
    made["least"] = pane->settings().least;
    made["most"] = pane->settings().most;
  }
  if (const auto* pad = dynamic_cast<const Pad*>(&part)) {
    made["pressed"] = pad->pressed();
    made["last"] = {{"gesture", name_of(pad->last().kind)}, {"step", name_of(pad->last().step)}};
  }
  return made;
}

}  // namespace

std::string replay_json(const SceneRun& run, const Replay& replay) {
  Json root{{"cells", Json::object()}, {"parts", Json::object()}, {"decisions", Json::array()}};
  for (const auto& [name, cell] : run.cells()) root["cells"][name] = number_or_null(cell.get());
  for (const auto& part : run.stage().parts()) root["parts"][part->id()] = part_json(*part);
  for (const Decision& decision : replay.decisions()) root["decisions"].push_back(decision_json(decision));
  root["warnings"] = replay.warnings();
  root["begins_ms"] = to_ms(replay.begins());
  root["ends_ms"] = to_ms(replay.ends());
  root["frames"] = replay.frames();
  // Names come from files, so they may not be UTF-8; they are shown as well as can be.
  return root.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
}

std::string cells_text(const SceneRun& run) {
  std::string text;
  for (const auto& [name, cell] : run.cells())
    text += fmt::format("{}{} = {:.6g}", text.empty() ? "cells: " : ", ", name, cell.get());
  return text.empty() ? text : text + "\n";
}

std::string replay_text(const SceneRun& run, const Replay& replay) {
  std::string text = fmt::format("{:.0f} ms replayed, {} decisions\n", to_ms(replay.ends() - replay.begins()),
                                 replay.decisions().size());
  for (const auto& [name, cell] : run.cells()) text += fmt::format("cell {:<12} {:.6g}\n", name, cell.get());
  for (const auto& part : run.stage().parts()) {
    const Accessible told = part->accessible();
    text += fmt::format("part {:<12} {} \"{}\" at {:.6g}, {}\n", part->id(), told.role, told.label,
                        told.value_now, part->settled() ? "at rest" : "moving");
  }
  if (run.stage().parts().empty()) text += "the scene has no parts, so no part can take a touch\n";
  return text;
}

std::string why_json(const Replay& replay, std::string_view part) {
  Json root{{"decisions", Json::array()}};
  for (const Decision& decision : replay.decisions())
    if (part.empty() || decision.part == part) root["decisions"].push_back(decision_json(decision));
  return root.dump(2, ' ', false, Json::error_handler_t::replace) + "\n";
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
