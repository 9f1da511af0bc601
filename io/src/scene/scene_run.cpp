#include "ubbo/io/scene/scene_run.hpp"

#include <stdexcept>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

AnyCell SceneRun::Named::any() {
  return std::visit([](auto& one) { return AnyCell(&one); }, cell);
}

CellValue SceneRun::Named::value() const {
  return std::visit([](const auto& one) { return CellValue(one.get()); }, cell);
}

SceneRun::SceneRun(const Plan& plan, std::size_t journal_room, std::span<const Variation> variations)
    : scene_(plan.scene_) {
  const Scene& scene = *scene_;
  StageSettings settings = scene.stage;
  settings.journal = static_cast<double>(journal_room);
  stage_ = std::make_unique<Stage>(settings);
  for (const auto& [name, value] : scene.cells)
    std::visit([this, &called = name](const auto& held) { cells_.emplace_back(called, held); }, value);
  for (std::size_t i = 0; i < scene.parts.size(); ++i) {
    const PartPlan& part_plan = scene.parts[i];
    AnySettings own = part_plan.settings;
    // What does not fit is refused when it is said: links by the reader, variations by the plan.
    for (const auto& [setting, cell] : plan.links(i)) (void)part_plan.kind->put(own, setting, cell_at(cell));
    for (const Variation& other : variations)
      if (other.part == i) (void)part_plan.kind->put(own, other.setting, other.value);
    try {
      Part& part = stage_->add(*part_plan.kind, part_plan.id, part_plan.placement, std::move(own),
                               part_plan.contact_rules);
      part.set_content(part_plan.content);
      if (part_plan.feels) part.set_feels(*part_plan.feels);
      if (part_plan.hidden) stage_->hide(part);
      if (part_plan.disabled) stage_->disable(part);
    } catch (const std::invalid_argument& refused) {
      throw InputError({.file = scene.file,
                        .line = part_plan.line,
                        .column = part_plan.column,
                        .found = refused.what(),
                        .fault = InputFault::refused});
    }
  }
}

SceneRun::Named* SceneRun::find_cell(std::string_view name) {
  for (Named& known : cells_)
    if (known.name == name) return &known;
  return nullptr;
}

}  // namespace ubbo::io
