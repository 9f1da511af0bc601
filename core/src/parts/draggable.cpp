#include "ubbo/parts/draggable.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

constexpr std::array freedom_names{"both", "horizontal", "vertical"};

}  // namespace

template <>
std::span<const Setting<DraggableSettings>> settings_of<DraggableSettings>() {
  using declare::number;
  using S = DraggableSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what it is, for people and screen readers"),
      declare::cell<&S::offset_x>(
          "offset_x", "the cell of how far it is to the right of where it was put, dp; may be left out"),
      declare::cell<&S::offset_y>("offset_y",
                                  "the cell of how far it is below where it was put, dp; may be left out"),
      declare::choice<&S::along>("along", freedom_names, "the ways it may go"),
      number<&S::grid>("grid", "dp", 0.0, 10000.0, "the distance from place to place; 0: it rests anywhere"),
      number<&S::farthest>(
          "farthest", "dp", 0.0, 100000.0,
          "how far it may go to each side; 0: as far as what it lies in, or the screen, lets it"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::half_life>(
          "half_life", "ms", 0.0, 2000.0,
          "without a grid: the time in which its speed halves after the lift; 0: it stays where it is "
          "let go"),
  };
  return table;
}

Draggable::Draggable(std::string id, const Box& box, DraggableSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      rails_{Rail(*this, plan(Axis::horizontal), settings_.offset_x),
             Rail(*this, plan(Axis::vertical), settings_.offset_y)} {
  for (Rail& rail : rails_)
    rail.on_rest = [this](double) {
      if (!rails_[0].moving() && !rails_[1].moving()) tell(settings_.on_rest, offset());
    };
}

bool Draggable::goes(Axis axis) const {
  return settings_.along == Freedom::both ||
         (settings_.along == Freedom::horizontal) == (axis == Axis::horizontal);
}

RailPlan Draggable::plan(Axis axis) const {
  const Box& inside = outer() != nullptr ? outer()->layout_box() : context().screen;
  const bool level = axis == Axis::horizontal;
  double min = level ? inside.x - layout_box().x : inside.y - layout_box().y;
  double max = level ? inside.right() - layout_box().right() : inside.bottom() - layout_box().bottom();
  if (settings_.farthest > 0.0) {
    min = -settings_.farthest;
    max = settings_.farthest;
  }
  // Where it was put is a place it may be.
  min = goes(axis) ? std::min(min, 0.0) : 0.0;
  max = goes(axis) ? std::max(max, 0.0) : 0.0;
  RailPlan made{.axis = axis,
                .min = min,
                .max = max,
                .unit = "dp",
                .sense = sense_along(axis),
                .transition = settings_.transition,
                .tells = Tells::place,
                .reduced_motion = settings_.reduced_motion};
  if (settings_.grid > 0.0) {
    const double from = std::ceil(min / settings_.grid) * settings_.grid;
    const double to = std::floor(max / settings_.grid) * settings_.grid;
    made.snap_points = to > from ? SnapPoints::even(from, to, settings_.grid) : SnapPoints::list({0.0});
  } else if (settings_.half_life > Micros{0}) {
    made.coast = Coast::half_life(settings_.half_life);
  }
  return made;
}

void Draggable::changed() {
  rails_[0].change(plan(Axis::horizontal), settings_.offset_x);
  rails_[1].change(plan(Axis::vertical), settings_.offset_y);
}

void Draggable::bound() {
  for (const Axis axis : {Axis::horizontal, Axis::vertical}) {
    RailPlan made = plan(axis);
    Rail& rail = rails_[axis == Axis::horizontal ? 0 : 1];
    rail.set_bounds(made.min, made.max);
    rail.set_snap_points(std::move(made.snap_points));
  }
}

void Draggable::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = ShortText::of(plain_number(std::round(offset().x)), " to the right, ",
                                  plain_number(std::round(offset().y)), " down");
}

DragInterest Draggable::drag_interest(const Sample&) const {
  return {.handle = true, .horizontal = goes(Axis::horizontal), .vertical = goes(Axis::vertical)};
}

bool Draggable::capture(const Contact& contact, const Sample& sample) {
  if (pressed()) return false;
  bound();
  drag_ = settings_.along == Freedom::both ? Drag()
                                           : Drag(goes(Axis::horizontal) ? Axis::horizontal : Axis::vertical);
  drag_.press(sample.at);
  // They wait until the drag of both begins.
  for (Rail& rail : rails_) rail.down(contact, sample, 1.0, 0.0);
  return true;
}

void Draggable::move(const Contact& contact, const Sample& sample) {
  const Feel& feel = feel_for(sample.tool);
  const double threshold = feel.threshold(feel.main_axis(sample.at - contact.down.at));
  if (drag_.move(sample.at, contact.contested ? HUGE_VAL : threshold)) {
    decide(answers::drags, {drag_.travel(), threshold}, to_ms(sample.time - contact.down.time));
    moment(MomentKind::threshold_crossed);
    const Point anchor = sample.at - drag_.offset();
    for (Rail& rail : rails_) rail.take_over(contact, anchor);
  }
  if (drag_.dragging())
    for (Rail& rail : rails_) rail.follow(contact, sample);
}

void Draggable::lift(const Contact& contact, const Sample& sample) {
  move(contact, sample);
  const bool dragged = drag_.dragging();
  drag_.end();
  for (Rail& rail : rails_)
    if (!rail.lift(contact, sample)) rail.resume();
  const Feel& feel = feel_for(sample.tool);
  if (!dragged && drag_.strayed() > feel.rest_radius)
    decide(answers::drag_too_short,
           {drag_.travel(), feel.threshold(feel.main_axis(sample.at - contact.down.at))});
}

void Draggable::let_go(const Contact&, LetGo how) {
  drag_.end();
  for (Rail& rail : rails_) rail.let_go(how);
}

bool Draggable::press(Key key) {
  const bool sideways = key == Key::left || key == Key::right;
  if (!sideways && key != Key::up && key != Key::down) return false;
  if (!goes(sideways ? Axis::horizontal : Axis::vertical)) return false;
  constexpr double step = 8.0;  // dp; what an arrow moves where there is no grid
  if (!pressed()) bound();
  Rail& rail = rails_[sideways ? 0 : 1];
  const double by = settings_.grid > 0.0 ? settings_.grid : step;
  rail.key(rail.target() + (key == Key::right || key == Key::down ? by : -by));
  return true;
}

void Draggable::restore(std::span<const double> saved) {
  ask(
      [this, x = saved[0], y = saved[1]] {
        rails_[0].put(x);
        rails_[1].put(y);
      },
      WhileHeld::waits);
}

void Draggable::cell_changed() {
  bound();
  for (Rail& rail : rails_) rail.cell_changed();
}

namespace {

const Draggable& draggable(const Part& part) { return static_cast<const Draggable&>(part); }

double dragged_right(const Draggable& it) { return it.offset().x; }
double dragged_down(const Draggable& it) { return it.offset().y; }
double speed_of(const Draggable& it) { return length(it.velocity()); }

constexpr std::array draggable_readings{
    ReadingInfo{"offset.x", "dp", "how far it is to the right of where it was put",
                &read<Draggable, &dragged_right>, nullptr, true},
    ReadingInfo{"offset.y", "dp", "how far it is below that", &read<Draggable, &dragged_down>, nullptr, true},
    ReadingInfo{"speed", "dp/s", "how fast it moves", &read<Draggable, &speed_of>},
    ReadingInfo{"pressed", "", "a finger has it", &read<Draggable, &Draggable::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<Draggable, &Draggable::dragging>},
};

void draggable_pieces(const Part& part, const PieceTaker& out) {
  const Draggable& it = draggable(part);
  const Box box = it.box();
  out({.role = Role::handle, .name = "marker", .box = box, .on = true, .held = it.pressed()});
  out({.role = Role::value,
       .name = "label",
       .box = {box.x - 40.0, box.bottom() + 2.0, box.w + 80.0, 18.0},
       .words = it.settings().label});
}

}  // namespace

const PartKind& Draggable::described() {
  static const PartKind kind =
      describe<Draggable>({.name = "draggable",
                           .means = "something that is dragged about, freely or on a grid",
                           .role = "group",
                           .example = {.box = "158, 330, 44, 44",
                                       .lines = "label = \"New hive\"\noffset_x = \"x\"\noffset_y = \"y\"\n",
                                       .cells = "x = 0\ny = 0\n"},
                           .readings = draggable_readings,
                           .pieces = &draggable_pieces,
                           .mirrors = false,
                           .keys = "arrows"});
  return kind;
}

}  // namespace ubbo
