#include <stdexcept>

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

AnyCell SceneRun::Named::any() {
  return std::visit([](auto& one) { return AnyCell(&one); }, cell);
}

CellValue SceneRun::Named::value() const {
  return std::visit([](const auto& one) { return CellValue(one.get()); }, cell);
}

SceneRun::SceneRun(const Scene& scene, std::size_t journal_room) {
  StageSettings settings = scene.stage;
  settings.journal = static_cast<double>(journal_room);
  stage_ = std::make_unique<Stage>(settings);
  for (const auto& [name, value] : scene.cells)
    std::visit([this, &called = name](const auto& held) { cells_.emplace_back(called, held); }, value);
  for (const PartPlan& plan : scene.parts) {
    const AnySettings linked = plan.kind->copy(plan.settings.get());
    for (const auto& [setting, name] : plan.cells)
      if (Named* named = find_cell(name))
        plan.kind->put(linked.get(), find_setting(*plan.kind, setting), named->any());
    try {
      Part& part = stage_->add(*plan.kind, plan.id, plan.placement, linked.get(), plan.standing);
      if (plan.feels) part.set_feels(*plan.feels);
      if (plan.hidden) stage_->hide(part);
      if (plan.disabled) stage_->disable(part);
    } catch (const std::invalid_argument& refused) {
      throw InputError(
          {.file = scene.file, .line = plan.line, .column = plan.column, .found = refused.what()});
    }
  }
}

SceneRun::Named* SceneRun::find_cell(std::string_view name) {
  for (Named& known : cells_)
    if (known.name == name) return &known;
  return nullptr;
}

}  // namespace ubbo::io
