#include "ubbo/parts/dialog.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "edge_panel_kind.hpp"

namespace ubbo {

namespace {

constexpr double deepest = 2.0;  // layers that a dialog steps back; there it is not seen any more

}  // namespace

template <>
std::span<const Setting<DialogSettings>> settings_of<DialogSettings>() {
  using declare::number;
  using S = DialogSettings;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::text<&S::label>("label", "what the dialog is called, for people and screen readers"),
        declare::cell<&S::open>("open", "the cell that says whether it is open; may be left out"),
        declare::choice<&S::reduced_motion>(
            "reduced_motion", part_reduced_names,
            "what becomes of its travel for people who asked for less motion"),
        declare::flag<&S::enter_on_start>("enter_on_start",
                                          "it enters by a motion even where it is open from the first"),
        declare::flag<&S::touch_while_entering>(
            "touch_while_entering", "it takes contacts while it enters, not only once it is there"),
        number<&S::dim>("dim", "", 0.0, 1.0, "how much of what lies below its backdrop hides; 0: nothing"),
        declare::transition<&S::dim_transition>("dim_transition", "how its backdrop comes and goes"),
        declare::flag<&S::backdrop_closes>("backdrop_closes", "a tap on its backdrop closes it"),
        declare::flag<&S::back_closes>("back_closes", "the phone's back and Escape close it"),
        declare::flag<&S::button_closes>("button_closes", "it has a button of its own that closes it"),
        number<&S::steps_back_by>("steps_back_by", "dp", 0.0, 1000.0,
                                  "how far it goes up when a dialog opens on it"),
        number<&S::steps_back_to>("steps_back_to", "", 0.5, 1.0,
                                  "the scale it has when a dialog opens on it")};
    declare::add_transitions<&S::enter>(made, "enter", "how it enters");
    declare::add_transitions<&S::exit>(made, "exit", "how it leaves");
    declare::add_inner<&S::travel>(made, "travel");
    declare::add_inner<&S::children>(made, "children");
    return made;
  }();
  return table;
}

std::string Dialog::misfit(const Box&, const DialogSettings& settings) {
  if (!settings.backdrop_closes && !settings.back_closes && !settings.button_closes)
    return "it has no way out; it takes backdrop_closes, back_closes or button_closes, or several";
  return {};
}

Dialog::Dialog(std::string id, const Box& box, DialogSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  take_settings();
  follow(settings_.open, settings_.enter_on_start);
  if (is_open()) dim_.put(settings_.dim);
}

EnterExitPlan Dialog::planned() const {
  return enter_exit_of(settings_.travel, settings_.enter, settings_.exit, *this);
}

void Dialog::take_settings() {
  plan(planned(), settings_.reduced_motion, settings_.touch_while_entering, settings_.children);
}

void Dialog::changed() {
  take_settings();
  follow(settings_.open, true);
  if (is_open() && !dim_.moving()) dim_.put(settings_.dim);
}

void Dialog::went(EnterExit::State state) {
  const double dim = is_open() ? settings_.dim : 0.0;
  if (dim_.target() != dim) {
    if (enter_exit_.moving())
      dim_.send(dim, settings_.dim_transition, context().now);
    else
      dim_.put(dim);  // there at once
  }
  if (enter_exit_.absent()) {
    behind_.put(0.0);
  }
  tell(settings_.on_state, state);
}

void Dialog::covered(int layers) {
  const double depth = std::min(static_cast<double>(layers), deepest);
  if (depth == behind_.target()) return;
  behind_.set_reduced(reduced(settings_.reduced_motion));
  behind_.send(depth, settings_.enter.all(), context().now);
}

// From one layer on it soon fades: what is seen behind the topmost is the one below that.
double Dialog::seen() const {
  constexpr double fades_within = 0.25;  // layers
  const double further = stepped_back() - 1.0;
  return further > 0.0 && steps_back() ? std::clamp(1.0 - further / fades_within, 0.0, 1.0) : 1.0;
}

void Dialog::update() {
  EnteringPart::update();
  const bool stands = !behind_.moving();
  set_sight(!stands ? Sight::fades : seen() == 0.0 ? Sight::behind : Sight::clear);
}

VisualState Dialog::visual_state() const {
  VisualState visual_state = EnteringPart::visual_state();
  const double depth = stepped_back();
  visual_state.offset.y -= settings_.steps_back_by * depth;
  visual_state.scale *= 1.0 - (1.0 - settings_.steps_back_to) * depth;
  visual_state.opacity *= seen();
  return visual_state;
}

std::optional<Box> Dialog::button() const {
  if (!settings_.button_closes) return {};
  constexpr double size = 44.0;
  const Box here = box();
  const double x = context().right_to_left ? here.x + 4.0 : here.right() - size - 4.0;
  return Box{x, here.y + 4.0, size, size};
}

// Open, it takes what goes down anywhere.
bool Dialog::takes(Point at) const { return is_open() || EnteringPart::takes(at); }

bool Dialog::inside(Point at) const { return box().contains(at); }

bool Dialog::capture(const Contact& contact, const Sample& sample) {
  const auto own = button();
  const On on = is_shut()                         ? On::surface
                : own && own->contains(sample.at) ? On::button
                : inside(sample.at)               ? On::surface
                                                  : On::backdrop;
  outside_.down(contact, sample, on);
  return true;  // whatever it comes to, what lies below does not get it
}

void Dialog::move(const Contact& contact, const Sample& sample) {
  if (outside_.mine(contact)) outside_.follow(sample);
}

void Dialog::lift(const Contact& contact, const Sample& sample) {
  if (!outside_.mine(contact)) return;
  if (outside_.on() == On::surface) return outside_.end();
  if (!outside_.lift(*this, contact, sample) || !is_open()) return;
  const bool by_button = outside_.on() == On::button;
  if (!by_button && !settings_.backdrop_closes) return decide(answers::backdrop_stays);
  decide(by_button ? answers::closed_by_button : answers::closed_by_backdrop);
  go(false);
}

void Dialog::let_go(const Contact& contact, LetGo) {
  if (outside_.mine(contact)) outside_.end();
}

bool Dialog::press(Key key) {
  if (key != Key::escape || !wants_back()) return false;
  back();
  return true;
}

void Dialog::back() {
  decide(settings_.back_closes ? answers::closed_by_back : answers::back_stays);
  if (settings_.back_closes) go(false);
}

void Dialog::present(Accessible& told) const {
  told.label = settings_.label;
  told.expanded = is_open();
  told.modal = true;
  told.keys = settings_.back_closes ? described().keys : "";
}

namespace {

std::string dialog_state(const Dialog& it) { return name_of(it.state()); }
double dialog_y(const Dialog& it) { return it.visual_state().offset.y; }
double dialog_scale(const Dialog& it) { return it.visual_state().scale; }

constexpr std::array dialog_readings{
    ReadingInfo{"offset.y", "dp", "how far it stands from its place, downwards", &read<Dialog, &dialog_y>,
                nullptr, true},
    ReadingInfo{"opacity", "", "how visible it is", &read<Dialog, &Dialog::opacity>, nullptr, true},
    ReadingInfo{"scale", "", "how large it is shown", &read<Dialog, &dialog_scale>},
    ReadingInfo{"dim", "", "how much its backdrop hides", &read<Dialog, &Dialog::dim>},
    ReadingInfo{"stepped back", "layers", "how far it has stepped back",
                &read<Dialog, &Dialog::stepped_back>},
    ReadingInfo{"state", "", "absent, entering, present or leaving", &read<Dialog, &dialog_state>},
};

void dialog_pieces(const Part& part, const PieceTaker& out) {
  const auto& it = static_cast<const Dialog&>(part);
  const Box box = it.box();
  out({.role = Role::backdrop, .box = it.context().screen, .opacity = it.dim()});
  out({.role = Role::surface, .box = box});
  out({.role = Role::label,
       .box = {box.x + (it.context().right_to_left ? 52.0 : 20.0), box.y + 16.0, std::fmax(box.w - 72.0, 0.0),
               28.0},
       .words = it.settings().label});
  if (const auto button = it.button())
    out({.role = Role::mark,
         .name = "close",
         .box = {button->x + 12.0, button->y + 12.0, 20.0, 20.0},
         .glyph = "close"});
}

void dialog_stands(const Part& part, const StandTaker& out) {
  enter_exit_places(static_cast<const Dialog&>(part).ways(), part.layout_box(), out);
}

}  // namespace

const PartKind& Dialog::described() {
  static const PartKind kind =
      describe<Dialog>({.name = "dialog",
                        .means = "a surface that has to be dealt with before what lies below it",
                        .role = "dialog",
                        .example = {.box = R"(30, 270, "100% - 60dp", 190)",
                                    .lines = "label = \"Close this hive?\"\nopen = \"asked\"\n",
                                    .cells = "asked = true\n"},
                        .readings = dialog_readings,
                        .pieces = &dialog_pieces,
                        .stands = &dialog_stands,
                        .own_state = true,
                        .reaches_out = true,
                        .frame = {.top = 52.0},
                        .keys = "Escape",
                        .actions = described_actions(),
                        .answers = detail::layer_answers});
  return kind;
}

}  // namespace ubbo
