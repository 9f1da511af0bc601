#include "ubbo/parts/button.hpp"

#include <array>

namespace ubbo {

template <>
std::span<const Setting<ButtonSettings>> settings_of<ButtonSettings>() {
  using S = ButtonSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the button is called, for people and screen readers"),
      declare::cell<&S::down>("down",
                              "a cell that says whether it stays down; left out: it comes up by itself"),
      declare::cell<&S::opens>("opens",
                               "a cell that says whether what this button opens is open; a press turns that "
                               "over, and the button comes up by itself"),
      declare::cell<&S::presses>("presses", "a cell that counts the presses; may be left out"),
      declare::transition<&S::transition>("transition", "how it goes down and up"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that for people who asked for less motion"),
  };
  return table;
}

Button::Button(std::string id, const Box& box, ButtonSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  changed();
  mover_.put(down() ? 1.0 : 0.0);
}

void Button::changed() {
  watch_.stop();
  watch_opens_.stop();
  if (settings_.opens.linked()) watch_opens_ = settings_.opens.watch([this](bool) { hear(); });
  if (settings_.down.linked()) watch_ = settings_.down.watch([this](bool) { hear(); });
}

void Button::update() {
  const double wanted = pressed() || down() ? 1.0 : 0.0;
  if (wanted == mover_.target()) return;
  mover_.set_reduced(reduced(settings_.reduced_motion));
  mover_.send(wanted, settings_.transition, context().now);
}

void Button::present(Accessible& told) const {
  told.label = settings_.label;
  if (settings_.opens.linked()) told.expanded = settings_.opens.get();
  told.pressed = settings_.down.linked() ? std::optional(down()) : std::nullopt;
}

bool Button::capture(const Contact&, const Sample& sample) { return press_.down(sample); }

void Button::move(const Contact&, const Sample& sample) { press_.follow(*this, sample, box()); }

void Button::lift(const Contact&, const Sample& sample) {
  if (press_.lift(*this, sample, box())) activate();
}

void Button::let_go(const Contact&, LetGo how) { press_.let_go(*this, how); }

void Button::activate() {
  decide(!settings_.down.linked() ? answers::button_pressed
         : down()                 ? answers::button_comes_up
                                  : answers::button_stays_down);
  if (settings_.down.linked() && !asked()) settings_.down.set(!down());
  if (settings_.opens.linked() && !asked()) settings_.opens.set(!settings_.opens.get());
  if (settings_.presses.linked() && settings_.presses.get() < std::numeric_limits<int>::max())
    settings_.presses.set(settings_.presses.get() + 1);
  tell(settings_.on_press);
}

bool Button::press(Key key) {
  if (key != Key::space && key != Key::enter) return false;
  if (press_.held()) {
    decide(answers::key_held);
    return true;
  }
  activate();
  return true;
}

namespace {

const Button& button(const Part& part) { return static_cast<const Button&>(part); }

constexpr std::array button_readings{
    ReadingInfo{"sunk", "", "how far it looks pressed", &read<Button, &Button::sunk>,
                [](const Part&, std::vector<double>& places) {
                  places.insert(places.end(), {0.0, 1.0});
                },
                true},
    ReadingInfo{"down", "", "it stays down", &read<Button, &Button::down>},
    ReadingInfo{"pressed", "", "a finger presses it", &read<Button, &Button::pressed>},
};

void button_pieces(const Part& part, const PieceTaker& out) {
  const Button& it = button(part);
  const Box box = it.box();
  out({.role = Role::button, .box = box, .on = it.down(), .held = it.pressed()});
  if (it.sunk() > 0.0)
    out({.role = Role::fill, .name = "press", .box = box, .opacity = std::clamp(it.sunk(), 0.0, 1.0)});
  const double height = std::min(22.0, 0.6 * box.h);
  out({.role = Role::value,
       .name = "label",
       .box = {box.x + 8.0, box.centre().y - height / 2, std::fmax(box.w - 16.0, 0.0), height},
       .words = it.settings().label,
       .on = it.down()});
}

constexpr std::array button_actions{
    PartAction{"activate", "presses it", [](Part& part) { part.press(Key::enter); }}};

Size button_size(const AnySettings& settings, const Content& content, const TextWidth& width) {
  constexpr double room_for_glyph = 28.0;
  const auto* held = settings.as<ButtonSettings>();
  return {32.0 + width(held != nullptr ? held->label : "", 16.0, true) +
              (content.glyph.empty() ? 0.0 : room_for_glyph),
          48.0};
}

}  // namespace

const PartKind& Button::described() {
  static const PartKind kind =
      describe<Button>({.name = "button",
                        .means = "something to press, which may stay down",
                        .role = "button",
                        .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                                    .lines = "label = \"Save\"\npresses = \"saved\"\n",
                                    .cells = "saved = 0\n"},
                        .readings = button_readings,
                        .pieces = &button_pieces,
                        .content_size = &button_size,
                        .keys = "Space, Enter",
                        .actions = button_actions,
                        .answers = answers::button_answers});
  return kind;
}

}  // namespace ubbo
