#include "ubbo/parts/slider.hpp"

#include <array>
#include <cmath>

#include "ubbo/parts/value_keys.hpp"

namespace ubbo {

namespace {

constexpr std::array update_names{"dragging", "at-rest"};
constexpr std::array grab_names{"thumb", "anywhere"};

// A thumb smaller than a finger is grabbed all the same: this far around its middle at least, dp.
constexpr double min_reach = 24.0;

double thumb_reach(const SliderSettings& settings) { return std::fmax(settings.thumb / 2, min_reach); }

}  // namespace

template <>
std::span<const Setting<SliderSettings>> settings_of<SliderSettings>() {
  using declare::number;
  using S = SliderSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the slider is called, for people and screen readers"),
      declare::needed_cell<&S::value>("value", "the cell the slider shows and changes"),
      number<&S::from>("from", "", -1e9, 1e9, "the value at the start of the track"),
      number<&S::to>("to", "", -1e9, 1e9, "the value at the end of the track; above `from`"),
      number<&S::step>("step", "", 0.0, 1e9,
                       "distance between snap points; 0: none, any value may be chosen"),
      number<&S::large_step>("large_step", "", 0.0, 1e9,
                             "what the page keys change the value by; 0: a tenth of the range, "
                             "two steps at least"),
      declare::choice<&S::axis>("axis", axis_names, "the direction of the track; vertical grows upwards"),
      declare::choice<&S::update_when>(
          "update_when", update_names,
          "when the cell follows: with the finger, or when the thumb is at rest"),
      declare::choice<&S::grab>("grab", grab_names, "where a drag may begin"),
      declare::flag<&S::tap_moves>("tap_moves", "a tap on the track sends the thumb there"),
      declare::flag<&S::value_bubble>(
          "value_bubble", "while a finger has it, its value stands beside the thumb, clear of the finger"),
      number<&S::thumb>("thumb", "dp", 1.0, 400.0, "the thumb's width"),
      number<&S::thickness>("thickness", "dp", 0.5, 400.0, "how thick the track is"),
      declare::transition<&S::transition>("transition", "how the thumb goes where it is sent"),
      declare::choice<&S::reduced_motion>(
          "reduced_motion", part_reduced_names,
          "what becomes of the thumb's travel for people who asked for less motion"),
      number<&S::projection_time>("projection_time", "ms", 0.0, 2000.0,
                                  "how much of the release velocity counts for where it lands; 0: none"),
  };
  return table;
}

std::string Slider::misfit(const Box& box, const SliderSettings& settings) {
  // A range narrower than that would be lost in its ends' own rounding.
  const double min_range = 1e-9 * std::fmax(1.0, std::fmax(std::fabs(settings.from), std::fabs(settings.to)));
  if (!(settings.to - settings.from >= min_range))
    return "to = " + plain_number(settings.to) +
           " is not taken; it takes more than from = " + plain_number(settings.from) + ", by " +
           plain_number(min_range) + " at least";
  if (settings.step > 0.0 && (settings.to - settings.from) / settings.step > 1e9)
    return "step = " + plain_number(settings.step) + " is not taken; it takes at most 1e9 steps in the range";
  if (!(slider_track(box, settings, false).room() > 0.0))
    return "a track of " + plain_number(along(settings.axis, {box.w, box.h})) +
           " dp leaves the thumb no room; it takes more than thumb = " + plain_number(settings.thumb) + " dp";
  return {};
}

Slider::Slider(std::string id, const Box& box, SliderSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context), rail_(*this, plan(), settings_.value) {
  listen();
}

RailPlan Slider::plan() const {
  return {.axis = settings_.axis,
          .min = settings_.from,
          .max = settings_.to,
          .dp_per_unit = way().dp_per_unit(),
          .unit = "",
          .snap_points = settings_.step > 0.0 ? SnapPoints::even(settings_.from, settings_.to, settings_.step)
                                              : SnapPoints{},
          .transition = settings_.transition,
          .projection_time = settings_.projection_time,
          .tells = settings_.update_when == UpdateWhen::dragging ? Tells::choice : Tells::rest,
          .reduced_motion = settings_.reduced_motion,
          .stays_caught = false,
          .snaps_writes = true};
}

void Slider::listen() {
  rail_.on_rest = [this](double value) { tell(settings_.on_rest, value); };
}

void Slider::changed() { rail_.change(plan(), settings_.value); }

void Slider::resized() { rail_.set_dp_per_unit(way().dp_per_unit()); }

double Slider::value() const { return snaps().snapped(position()); }

double Slider::fraction() const { return (position() - settings_.from) / (settings_.to - settings_.from); }

void Slider::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_now = value();
  told.value_min = settings_.from;
  told.value_max = settings_.to;
  told.orientation = name_of(settings_.axis);
}

DragInterest Slider::drag_interest(const Sample& sample) const {
  const bool on_thumb = off_thumb(sample.at) <= thumb_reach(settings_);
  const bool drags = settings_.grab == Grab::anywhere || on_thumb;
  // A thumb under the finger is a handle: along its axis nothing around it may take it away.
  return {.handle = on_thumb,
          .horizontal = drags && settings_.axis == Axis::horizontal,
          .vertical = drags && settings_.axis == Axis::vertical};
}

bool Slider::capture(const Contact& contact, const Sample& sample) {
  const double reach = thumb_reach(settings_);
  const double off = off_thumb(sample.at);
  const bool may_drag = settings_.grab == Grab::anywhere || off <= reach;
  return rail_.down(contact, sample, may_drag ? 0.0 : off, reach);
}

void Slider::move(const Contact& contact, const Sample& sample) { rail_.follow(contact, sample); }

void Slider::let_go(const Contact&, LetGo how) { rail_.let_go(how); }

void Slider::lift(const Contact& contact, const Sample& sample) {
  const bool on_thumb = off_thumb(contact.down.at) <= thumb_reach(settings_);
  if (rail_.lift(contact, sample)) return;
  if (!rail_.was_tap(contact, sample)) {
    rail_.explain_press(contact, sample);
    return rail_.resume();
  }
  if (!settings_.tap_moves || on_thumb) return rail_.resume();
  rail_.tapped_at(way().value_at(contact.down.at));
}

bool Slider::press(Key key) {
  const double range = settings_.to - settings_.from;
  const double small = settings_.step > 0.0 ? settings_.step : range / 100.0;
  const double large =
      settings_.large_step > 0.0 ? settings_.large_step : std::fmax(range / 10.0, 2.0 * small);
  const bool mirrored = settings_.axis == Axis::horizontal && context().right_to_left;
  const auto wanted =
      ValueKeys{small, large, settings_.from, settings_.to, mirrored}.apply(key, rail_.target());
  if (!wanted) return false;
  rail_.key(*wanted);
  return true;
}

namespace {

const Slider& slider(const Part& part) { return static_cast<const Slider&>(part); }

constexpr std::size_t max_marks = 200;

void rest_values(const Part& part, std::vector<double>& snap_points) {
  const SnapPoints& snaps = slider(part).snaps();
  for (std::size_t i = 0; i < snaps.size() && snaps.size() <= max_marks; ++i)
    snap_points.push_back(snaps.at(i));
}

template <Axis axis>
void rest_places(const Part& part, std::vector<double>& snap_points) {
  if (slider(part).settings().axis != axis) return;
  rest_values(part, snap_points);
  for (double& rest : snap_points) rest = along(axis, slider(part).place_of(rest));
}

double thumb_x(const Slider& it) { return it.thumb().x; }
double thumb_y(const Slider& it) { return it.thumb().y; }

constexpr std::array slider_readings{
    ReadingInfo{"thumb.x", "dp", "the middle of the thumb", &read<Slider, &thumb_x>,
                &rest_places<Axis::horizontal>, true},
    ReadingInfo{"thumb.y", "dp", "the middle of the thumb", &read<Slider, &thumb_y>,
                &rest_places<Axis::vertical>, true},
    ReadingInfo{"position", "", "where the thumb stands, between steps while it travels",
                &read<Slider, &Slider::position>, &rest_values},
    ReadingInfo{"value", "", "what the thumb's place means", &read<Slider, &Slider::value>, &rest_values},
    ReadingInfo{"target", "", "where the thumb goes, or stands", &read<Slider, &Slider::target>,
                &rest_values},
    ReadingInfo{"fraction", "", "the position as a share of the range", &read<Slider, &Slider::fraction>},
    ReadingInfo{"velocity", "per second", "how fast the position changes", &read<Slider, &Slider::velocity>},
    ReadingInfo{"opacity", "", "how visible the thumb is while a fade stands for its travel",
                &read<Slider, &Slider::thumb_opacity>},
    ReadingInfo{"pressed", "", "a finger has it", &read<Slider, &Slider::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<Slider, &Slider::dragging>},
};

Box around_point(Point middle, double radius) {
  return {middle.x - radius, middle.y - radius, 2 * radius, 2 * radius};
}

void slider_pieces(const Part& part, const PieceTaker& out) {
  const Slider& it = slider(part);
  const double seen = it.thumb_opacity();
  out({.role = Role::label,
       .box = {it.box().x, it.box().y - 22.0, it.box().w, 20.0},
       .words = it.settings().label});
  out({.role = Role::track, .box = it.track()});
  out({.role = Role::fill, .box = it.fill(), .opacity = seen, .on = true});
  const SnapPoints& snaps = it.snaps();
  const Box track = it.track();
  constexpr double min_gap = 8.0;  // marks closer than this would run into each other
  const bool marks = snaps.size() > 1 && snaps.size() <= max_marks &&
                     std::fmax(track.w, track.h) / static_cast<double>(snaps.size() - 1) >= min_gap;
  for (std::size_t i = 0; marks && i < snaps.size(); ++i) {
    const double value = snaps.at(i);
    out({.role = Role::mark,
         .box = around_point(it.place_of(value), it.settings().thickness * 0.75),
         .on = value <= it.position()});
  }
  const std::string number = plain_number(std::round(it.value() * 100.0) / 100.0);
  const double radius = it.settings().thumb / 2 * (it.pressed() ? 1.18 : 1.05);
  const bool beside = it.settings().value_bubble && it.pressed();
  out({.role = Role::handle,
       .name = "thumb",
       .box = around_point(it.thumb(), radius),
       .words = beside ? std::string_view() : std::string_view(number),
       .opacity = seen,
       .on = true,
       .held = it.pressed()});
  if (!beside) return;
  constexpr double clear = 34.0;  // dp a finger hides around its middle
  constexpr Size note{56.0, 36.0};
  const Box whole{0.0, 0.0, note.w, note.h};
  const Point off = it.settings().axis == Axis::horizontal ? Point{0.0, -clear - note.h / 2}
                                                           : Point{-clear - note.w / 2, 0.0};
  const Box at = whole + (it.thumb() + off - whole.centre());
  out({.role = Role::surface, .name = "note", .box = at, .opacity = seen, .notice = true});
  out({.role = Role::value,
       .box = {at.x, at.y + 4.0, at.w, at.h - 8.0},
       .words = number,
       .opacity = seen,
       .notice = true});
}

std::optional<Point> place(const Part& part, double value) {
  const Slider& it = slider(part);
  if (!(value >= it.settings().from && value <= it.settings().to)) return std::nullopt;
  return it.place_of(value);
}

constexpr std::array slider_actions{
    PartAction{"increase", "goes up by a step", [](Part& part) { part.press(Key::up); }},
    PartAction{"decrease", "goes down by a step", [](Part& part) { part.press(Key::down); }}};

}  // namespace

const PartKind& Slider::described() {
  static const PartKind kind = describe<Slider>(
      {.name = "slider",
       .means = "a thumb on a track, for one number",
       .role = "slider",
       .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                   .lines = "label = \"Frames of honey\"\nvalue = \"honey\"\nto = 10\nstep = 1\n",
                   .cells = "honey = 4\n"},
       .readings = slider_readings,
       .pieces = &slider_pieces,
       .place_of = &place,
       .upright = Upright::upwards,
       .wheel = WheelUse::steps,
       .margin = {.top = 24.0},
       .usual_size = {0.0, 48.0},
       .keys = "arrows, Page Up, Page Down, Home, End",
       .actions = slider_actions});
  return kind;
}

}  // namespace ubbo
