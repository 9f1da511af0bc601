#include "ubbo/io/replay/ready_take.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

ReadyTake::ReadyTake(const Take& take, const Scene& scene) : take_(&take) {
  ready_.reserve(take_->deeds.size());
  for (const Deed& deed : take_->deeds) ready_.push_back(readied(deed, scene));
}

ReadyTake::Ready ReadyTake::readied(const Deed& deed, const Scene& scene) const {
  Ready made;
  const auto refuse = [&](std::string found, std::string takes, std::string nearest = {}) {
    throw InputError({.file = take_->file.empty() ? "take" : take_->file,
                      .line = deed.line,
                      .column = 1,
                      .found = std::move(found),
                      .takes = std::move(takes),
                      .nearest = std::move(nearest)});
  };
  std::vector<std::string_view> known;
  const auto none_of = [&](std::string found, std::string_view name, const char* else_nothing) {
    refuse(std::move(found), known.empty() ? else_nothing : fmt::format("{}", fmt::join(known, ", ")),
           nearest_name(name, known));
  };
  switch (deed.kind) {
    case Deed::Kind::set:
    case Deed::Kind::put: {
      for (const auto& [name, value] : scene.cells) known.emplace_back(name);
      const auto at = std::find(known.begin(), known.end(), deed.target);
      if (at == known.end())
        none_of(fmt::format("no cell '{}'", deed.target), deed.target, "nothing: the scene has no cells");
      made.cell = static_cast<std::size_t>(at - known.begin());
      const CellValue& like = scene.cells[made.cell].second;
      const auto value = read_value(deed.value, like);
      if (!value) refuse(fmt::format("{} = '{}'", deed.target, deed.value), what_value_takes(like));
      made.value = *value;
      return made;
    }
    case Deed::Kind::key: {
      const auto keys = all_keys();
      for (const Key key : keys) known.emplace_back(name_of(key));
      const auto at = std::find(known.begin(), known.end(), deed.target);
      if (at == known.end()) none_of(fmt::format("key '{}'", deed.target), deed.target, "nothing");
      made.key = keys[static_cast<std::size_t>(at - known.begin())];
      return made;
    }
    case Deed::Kind::back:
      return made;
    case Deed::Kind::turn: {
      const Size size = size_of(deed.value).value_or(Size{});
      if (!(size.w >= 1.0 && size.w <= 1e5) || !(size.h >= 1.0 && size.h <= 1e5))
        refuse(fmt::format("turn to '{}'", deed.value), "WIDTHxHEIGHT in dp, such as 720x360");
      made.screen = size;
      return made;
    }
    default:
      break;
  }
  for (const PartPlan& part : scene.parts) known.emplace_back(part.id);
  const auto at = std::find(known.begin(), known.end(), deed.target);
  if (at == known.end())
    none_of(fmt::format("no part '{}'", deed.target), deed.target, "nothing: the scene has no parts");
  if (deed.kind != Deed::Kind::call) return made;
  const PartKind& kind = *scene.parts[static_cast<std::size_t>(at - known.begin())].kind;
  made.action = find_action(kind, deed.value);
  if (made.action != nullptr) return made;
  known.clear();
  for (const PartAction& action : kind.actions) known.emplace_back(action.name);
  none_of(fmt::format("'{}' cannot be asked to '{}'", deed.target, deed.value), deed.value,
          "nothing: it can do nothing by itself");
  return made;
}

bool ReadyTake::perform(std::size_t index, SceneRun& run) const {
  const Deed& deed = take_->deeds[index];
  const Ready& ready = ready_[index];
  Stage& stage = run.stage();
  Part* part = stage.find(deed.target);  // may have been removed by an earlier deed
  const auto write = [&] { set_cell(run.cell_at(ready.cell), ready.value); };
  switch (deed.kind) {
    case Deed::Kind::set:
      stage.at(deed.time, write);
      return true;
    case Deed::Kind::put:
      stage.at(deed.time, [&] { stage.at_once(write); });
      return true;
    case Deed::Kind::key:
      stage.press(ready.key, deed.time);
      return true;
    case Deed::Kind::back:
      stage.back(deed.time);
      return true;
    case Deed::Kind::turn:
      stage.turn(ready.screen, stage.safe_area(), deed.time);
      return true;
    case Deed::Kind::focus:
      stage.at(deed.time, [&] { stage.focus(deed.target); });
      return true;
    case Deed::Kind::call:
      return part == nullptr || stage.act(*part, *ready.action, deed.time);
    default:
      break;
  }
  if (part == nullptr) return true;
  stage.at(deed.time, [&] {
    if (deed.kind == Deed::Kind::show || deed.kind == Deed::Kind::hide)
      stage.show(*part, deed.kind == Deed::Kind::show);
    if (deed.kind == Deed::Kind::enable || deed.kind == Deed::Kind::disable)
      stage.enable(*part, deed.kind == Deed::Kind::enable);
    if (deed.kind == Deed::Kind::remove) stage.remove(*part);
  });
  return true;
}

}  // namespace ubbo::io
