#include "ubbo/io/input_error.hpp"
#include "ubbo/io/scene.hpp"

namespace ubbo::io {

namespace {

template <class S>
struct PartFor;
template <>
struct PartFor<SliderSettings> {
  using Type = Slider;
};
template <>
struct PartFor<PadSettings> {
  using Type = Pad;
};
template <>
struct PartFor<PaneSettings> {
  using Type = Pane;
};

}  // namespace

SceneRun::SceneRun(const Scene& scene, std::size_t journal_room) {
  StageSettings settings = scene.stage;
  settings.journal = static_cast<double>(journal_room);
  stage_ = std::make_unique<Stage>(settings);
  for (const auto& [name, value] : scene.cells)
    cells_.emplace_back(std::piecewise_construct, std::forward_as_tuple(name), std::forward_as_tuple(value));
  for (const PartPlan& plan : scene.parts) {
    std::visit(
        [&]<class S>(S part_settings) {
          for (const Setting<S>& setting : settings_of<S>()) {
            const auto named = plan.cells.find(setting.name);
            if (setting.cell == nullptr || named == plan.cells.end()) continue;
            if (Cell<double>* target = cell(named->second)) part_settings.*setting.cell = *target;
          }
          try {
            stage_->add<typename PartFor<S>::Type>(plan.id, plan.box, std::move(part_settings),
                                                   plan.standing);
          } catch (const std::invalid_argument& refused) {
            throw InputError(
                {.file = scene.file, .line = plan.line, .column = plan.column, .found = refused.what()});
          }
        },
        plan.settings);
  }
}

Cell<double>* SceneRun::cell(std::string_view name) {
  for (auto& [known, value] : cells_)
    if (known == name) return &value;
  return nullptr;
}

}  // namespace ubbo::io
