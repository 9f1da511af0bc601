#include "ubbo/io/replay/ready_take.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/base64.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

ReadyTake::ReadyTake(const Take& take, const Scene& scene) : take_(&take) {
  ready_.reserve(take_->actions.size());
  for (const Action& action : take_->actions) ready_.push_back(readied(action, scene));
  const std::string state = take.note("state");
  const auto bytes = from_base64(state);
  const std::string fault = !bytes ? "it is no base64" : bytes->empty() ? "" : Stage::saved_fault(*bytes);
  if (!fault.empty())
    throw InputError({.file = take.file.empty() ? "take" : take.file,
                      .found = fmt::format("the note state: {}", fault),
                      .takes = "what was saved of a screen, in base64"});
  state_ = *bytes;
}

ReadyTake::Ready ReadyTake::readied(const Action& action, const Scene& scene) const {
  Ready made;
  const auto refuse = [&](std::string_view found, std::string_view takes, std::string_view nearest = {}) {
    throw InputError({.file = take_->file.empty() ? "take" : take_->file,
                      .line = action.line,
                      .column = 1,
                      .found = std::string(found),
                      .takes = std::string(takes),
                      .nearest = std::string(nearest)});
  };
  std::vector<std::string_view> known;
  const auto none_of = [&](std::string found, std::string_view name, const char* else_nothing) {
    refuse(found, known.empty() ? else_nothing : fmt::format("{}", fmt::join(known, ", ")),
           nearest_name(name, known));
  };
  switch (action.kind) {
    case Action::Kind::set:
    case Action::Kind::put: {
      for (const auto& [name, value] : scene.cells) known.emplace_back(name);
      const auto at = std::find(known.begin(), known.end(), action.target);
      if (at == known.end())
        none_of(fmt::format("no cell '{}'", action.target), action.target, "nothing: the scene has no cells");
      made.cell = static_cast<std::size_t>(at - known.begin());
      const CellValue& like = scene.cells[made.cell].second;
      const auto value = read_value(action.value, like);
      if (!value) refuse(fmt::format("{} = '{}'", action.target, action.value), what_value_takes(like));
      made.value = *value;
      return made;
    }
    case Action::Kind::key: {
      const auto keys = all_keys();
      for (const Key key : keys) known.emplace_back(name_of(key));
      const auto at = std::find(known.begin(), known.end(), action.target);
      if (at == known.end()) none_of(fmt::format("key '{}'", action.target), action.target, "nothing");
      made.key = keys[static_cast<std::size_t>(at - known.begin())];
      return made;
    }
    case Action::Kind::back:
      return made;
    case Action::Kind::turn: {
      const Size size = size_of(action.value).value_or(Size{});
      if (!(size.w >= 1.0 && size.w <= 1e5) || !(size.h >= 1.0 && size.h <= 1e5))
        refuse(fmt::format("turn to '{}'", action.value), "WIDTHxHEIGHT in dp, such as 720x360");
      made.screen = size;
      return made;
    }
    case Action::Kind::wheel: {
      const auto turn = wheel_turn(action);
      if (!turn) refuse(fmt::format("wheel '{}', '{}'", action.target, action.value), wheel_action_takes);
      made.turn = *turn;
      return made;
    }
    default:
      break;
  }
  for (const PartPlan& part : scene.parts) known.emplace_back(part.id);
  const auto at = std::find(known.begin(), known.end(), action.target);
  if (at == known.end())
    none_of(fmt::format("no part '{}'", action.target), action.target, "nothing: the scene has no parts");
  if (action.kind != Action::Kind::call) return made;
  const PartKind& kind = *scene.parts[static_cast<std::size_t>(at - known.begin())].kind;
  made.action = find_action(kind, action.value);
  if (made.action != nullptr) return made;
  known.clear();
  for (const PartAction& one : kind.actions) known.emplace_back(one.name);
  none_of(fmt::format("'{}' cannot be asked to '{}'", action.target, action.value), action.value,
          "nothing: it can do nothing by itself");
  return made;
}

bool ReadyTake::perform(std::size_t index, SceneRun& run) const {
  const Action& action = take_->actions[index];
  const Ready& ready = ready_[index];
  Stage& stage = run.stage();
  Part* part = stage.find(action.target);  // may have been removed by an earlier action
  const auto write = [&] { set_cell(run.cell_at(ready.cell), ready.value); };
  switch (action.kind) {
    case Action::Kind::set:
      stage.at(action.time, write);
      return true;
    case Action::Kind::put:
      stage.at(action.time, [&] { stage.immediately(write); });
      return true;
    case Action::Kind::key:
      stage.press(ready.key, action.time);
      return true;
    case Action::Kind::back:
      stage.back(action.time);
      return true;
    case Action::Kind::turn:
      stage.set_screen(ready.screen, stage.safe_area(), action.time);
      return true;
    case Action::Kind::wheel:
      stage.wheel(ready.turn);
      return true;
    case Action::Kind::focus:
      stage.at(action.time, [&] { stage.focus(action.target); });
      return true;
    case Action::Kind::call:
      return part == nullptr || stage.act(*part, *ready.action, action.time);
    default:
      break;
  }
  if (part == nullptr) return true;
  stage.at(action.time, [&] {
    if (action.kind == Action::Kind::show || action.kind == Action::Kind::hide)
      stage.show(*part, action.kind == Action::Kind::show);
    if (action.kind == Action::Kind::enable || action.kind == Action::Kind::disable)
      stage.enable(*part, action.kind == Action::Kind::enable);
    if (action.kind == Action::Kind::remove) stage.remove(*part);
  });
  return true;
}

}  // namespace ubbo::io
