#include "ubbo/parts/panel.hpp"

#include <array>
#include <cmath>

namespace ubbo {

template <>
std::span<const Setting<PanelSettings>> settings_of<PanelSettings>() {
  using S = PanelSettings;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::text<&S::label>("label", "what the panel is called, for people and screen readers"),
        declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
        declare::choice<&S::reduced_motion>(
            "reduced_motion", part_reduced_names,
            "what becomes of its travel for people who asked for less motion"),
        declare::flag<&S::enter_on_start>("enter_on_start",
                                          "it enters by a motion even where it is open from the first"),
        declare::flag<&S::touch_while_entering>(
            "touch_while_entering", "it takes contacts while it enters, not only once it is there"),
        declare::flag<&S::back_closes>("back_closes", "the phone's back closes it")};
    declare::add_transitions<&S::enter>(made, "enter", "how it enters");
    declare::add_transitions<&S::exit>(made, "exit", "how it leaves");
    declare::add_inner<&S::travel>(made, "travel");
    declare::add_inner<&S::children>(made, "children");
    return made;
  }();
  return table;
}

Panel::Panel(std::string id, const Box& box, PanelSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  take_settings();
  follow(settings_.open, settings_.enter_on_start);
}

EnterExitPlan Panel::planned() const {
  return enter_exit_of(settings_.travel, settings_.enter, settings_.exit, *this);
}

void Panel::take_settings() {
  plan(planned(), settings_.reduced_motion, settings_.touch_while_entering, settings_.children);
}

void Panel::changed() {
  take_settings();
  follow(settings_.open, true);
}

void Panel::went(EnterExit::State state) { tell(settings_.on_state, state); }

// It covers what lies below it.
void Panel::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
}

namespace {

std::string panel_state(const Panel& it) { return name_of(it.state()); }
double panel_x(const Panel& it) { return it.visual_state().offset.x; }
double panel_y(const Panel& it) { return it.visual_state().offset.y; }

constexpr std::array panel_readings{
    ReadingInfo{"offset.x", "dp", "how far it stands from its place, to the right", &read<Panel, &panel_x>,
                nullptr, true},
    ReadingInfo{"offset.y", "dp", "how far it stands from its place, downwards", &read<Panel, &panel_y>,
                nullptr, true},
    ReadingInfo{"opacity", "", "how visible it is", &read<Panel, &Panel::opacity>},
    ReadingInfo{"state", "", "absent, entering, present or leaving", &read<Panel, &panel_state>},
};

void panel_pieces(const Part& part, const PieceTaker& out) {
  const auto& it = static_cast<const Panel&>(part);
  const Box box = it.box();
  out({.role = Role::surface, .box = box});
  out({.role = Role::label,
       .box = {box.x + 16.0, box.y + 14.0, std::fmax(box.w - 32.0, 0.0), 22.0},
       .words = it.settings().label});
}

void panel_stands(const Part& part, const StandTaker& out) {
  enter_exit_places(static_cast<const Panel&>(part).ways(), part.layout_box(), out);
}

}  // namespace

const PartKind& Panel::described() {
  static const PartKind kind = describe<Panel>(
      {.name = "panel",
       .means = "a surface that comes from one side and goes to another",
       .role = "region",
       .example = {.box = R"(20, 40, "100% - 40dp", 148)",
                   .lines = "label = \"The weather\"\nopen = \"shown\"\n\n[[part]]\nid = \"weather\"\nkind = "
                            "\"button\"\nlabel = \"Weather\"\nopens = \"shown\"\nbox = [40, 300, 120, 48]\n",
                   .cells = "shown = true\n"},
       .readings = panel_readings,
       .pieces = &panel_pieces,
       .stands = &panel_stands,
       .frame = {.top = 44.0},
       .actions = described_actions(),
       .answers = answers::state_answers});
  return kind;
}

}  // namespace ubbo
