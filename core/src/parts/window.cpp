#include "ubbo/parts/window.hpp"

#include <array>
#include <cmath>

namespace ubbo {

template <>
std::span<const Setting<WindowSettings>> settings_of<WindowSettings>() {
  using S = WindowSettings;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::text<&S::label>("label", "what the window is called, for people and screen readers"),
        declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
        declare::passage<&S::enter>("enter", "how it comes"),
        declare::passage<&S::exit>("exit", "how it goes"),
        declare::choice<&S::reduced_motion>(
            "reduced_motion", part_reduced_names,
            "what becomes of its travel for people who asked for less motion"),
        declare::flag<&S::enters_at_first>("enters_at_first", "where it is open from the first, it comes in"),
        declare::flag<&S::touch_while_arriving>("touch_while_arriving",
                                                "it takes contacts as soon as it comes"),
        declare::flag<&S::back_closes>("back_closes", "the phone's back closes it")};
    declare::add_inner<&S::travel>(made);
    declare::add_inner<&S::inside>(made);
    return made;
  }();
  return table;
}

Window::Window(std::string id, const Box& box, WindowSettings&& settings, Surroundings& around)
    : PartOf(std::move(id), box, std::move(settings), around) {
  take_settings();
  follow(settings_.open, settings_.enters_at_first);
}

VisitPlan Window::planned() const {
  return visit_of(settings_.travel, settings_.enter, settings_.exit, *this);
}

void Window::take_settings() {
  plan(planned(), settings_.reduced_motion, settings_.touch_while_arriving, settings_.inside);
}

void Window::changed() {
  take_settings();
  follow(settings_.open, true);
}

void Window::went(Visit::State state) { tell(settings_.on_visit, state); }

// It covers what lies below it.
bool Window::touch(const Contact&, const Sample&) { return true; }

void Window::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
}

namespace {

std::string window_state(const Window& it) { return name_of(it.state()); }
double window_x(const Window& it) { return it.guise().offset.x; }
double window_y(const Window& it) { return it.guise().offset.y; }

constexpr std::array window_readings{
    ReadingInfo{"offset.x", "dp", "how far it stands from its place, to the right", &read<Window, &window_x>,
                nullptr, true},
    ReadingInfo{"offset.y", "dp", "how far it stands from its place, downwards", &read<Window, &window_y>,
                nullptr, true},
    ReadingInfo{"opacity", "", "how visible it is", &read<Window, &Window::opacity>},
    ReadingInfo{"visit", "", "away, arriving, here or leaving", &read<Window, &window_state>},
};

void window_pieces(const Part& part, const PieceTaker& out) {
  const auto& it = static_cast<const Window&>(part);
  const Box box = it.box();
  out({.role = Role::surface, .box = box});
  out({.role = Role::label,
       .box = {box.x + 16.0, box.y + 16.0, std::fmax(box.w - 32.0, 0.0), 20.0},
       .words = it.settings().label});
}

void window_stands(const Part& part, const StandTaker& out) {
  visit_stands(static_cast<const Window&>(part).ways(), part.laid(), out);
}

}  // namespace

const PartKind& Window::described() {
  static const PartKind kind =
      describe<Window>({.name = "window",
                        .means = "a surface that comes from one side and goes to another",
                        .role = "region",
                        .readings = window_readings,
                        .pieces = &window_pieces,
                        .stands = &window_stands,
                        .actions = described_actions(),
                        .answers = answers::visit_answers});
  return kind;
}

}  // namespace ubbo
