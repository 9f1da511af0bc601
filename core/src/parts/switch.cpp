#include "ubbo/parts/switch.hpp"

#include <array>
#include <cmath>
#include <span>

namespace ubbo {

template <>
std::span<const Setting<SwitchSettings>> settings_of<SwitchSettings>() {
  using S = SwitchSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the switch is called, for people and screen readers"),
      declare::needed_cell<&S::on>("on", "the cell the switch shows and changes"),
      declare::choice<&S::axis>("axis", axis_names,
                                "the direction in which it switches; vertical: yes is above"),
      declare::transition<&S::transition>("transition", "how the thumb goes across"),
      declare::choice<&S::reduced_motion>(
          "reduced_motion", part_reduced_names,
          "what becomes of the thumb's travel for people who asked for less motion"),
      declare::number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for the side it goes to; 0: none, and a "
          "flick does not count either"),
  };
  return table;
}

std::string Switch::misfit(const Box& box, const SwitchSettings& settings) {
  const Point size{box.w, box.h};
  if (!(along(settings.axis, size) > across(settings.axis, size)))
    return "a box of " + plain_number(box.w) + " by " + plain_number(box.h) +
           " dp leaves the thumb no way; it takes one " +
           (settings.axis == Axis::horizontal ? "wider than high" : "higher than wide");
  return {};
}

Switch::Switch(std::string id, const Box& box, SwitchSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context), rail_(*this, plan(), number()) {
  rail_.on_rest = [this](double place) { tell(settings_.on_rest, place > 0.5); };
}

NumberLink Switch::number() const {
  return {settings_.on, std::function([](const bool& on) { return on ? 1.0 : 0.0; }),
          std::function([](double place, const bool&) { return place > 0.5; })};
}

// The thumb is as large as the box is across.
SliderTrack Switch::way(const Box& box) const {
  return {.box = box,
          .axis = settings_.axis,
          .right_to_left = context().right_to_left,
          .thumb = across(settings_.axis, {box.w, box.h})};
}

RailPlan Switch::plan() const {
  return {.axis = settings_.axis,
          .min = 0.0,
          .max = 1.0,
          .dp_per_unit = way(layout_box()).dp_per_unit(),
          .unit = "",
          .sense = Sense::switched,
          .snap_points = SnapPoints::list({0.0, 1.0}),
          .transition = settings_.transition,
          .projection_time = settings_.projection_time,
          .tells = Tells::target,
          .reduced_motion = settings_.reduced_motion,
          .stays_caught = false};
}

void Switch::changed() { rail_.change(plan(), number()); }

void Switch::resized() { rail_.set_dp_per_unit(plan().dp_per_unit); }

Point Switch::place_of(double fraction) const { return way(box()).place_of(fraction); }

void Switch::present(Accessible& told) const {
  told.label = settings_.label;
  told.checked = on();
}

bool Switch::capture(const Contact& contact, const Sample& sample) { return rail_.down(contact, sample); }

void Switch::move(const Contact& contact, const Sample& sample) { rail_.follow(contact, sample); }

void Switch::let_go(const Contact&, LetGo how) { rail_.let_go(how); }

void Switch::lift(const Contact& contact, const Sample& sample) {
  if (rail_.lift(contact, sample)) return;
  const Feel& feel = feel_for(sample.tool);
  // However long it was held: a switch knows no other press.
  if (rail_.strayed() <= feel.tap_reach) return toggle();
  decide(answers::tap_strayed, {rail_.strayed(), feel.tap_reach},
         {to_ms(sample.time - contact.down.time), to_ms(feel.tap_time)});
  rail_.explain_press(contact, sample);
  rail_.resume();
}

void Switch::toggle() {
  const bool wanted = !on();
  decide(wanted ? answers::toggled_on : answers::toggled_off);
  rail_.go_to(wanted ? 1.0 : 0.0);
}

bool Switch::press(Key key) {
  if (key != Key::space && key != Key::enter) return false;
  if (pressed())
    decide(answers::key_held);
  else
    toggle();
  return true;
}

namespace {

const Switch& one_of(const Part& part) { return static_cast<const Switch&>(part); }

void snap_points(const Part&, std::vector<double>& places) { places.insert(places.end(), {0.0, 1.0}); }
double switch_thumb_x(const Switch& it) { return it.thumb().x; }
double switch_thumb_y(const Switch& it) { return it.thumb().y; }
template <Axis axis>
void switch_thumb_rests(const Part& part, std::vector<double>& places) {
  if (one_of(part).settings().axis != axis) return;
  for (const double fraction : {0.0, 1.0}) places.push_back(along(axis, one_of(part).place_of(fraction)));
}

template <Axis axis>
void switch_thumb_thresholds(const Part& part, std::vector<Threshold>& out) {
  const Switch& it = one_of(part);
  if (it.settings().axis != axis) return;
  const std::size_t first = out.size();
  it.rail().add_thresholds(out);
  const bool mirrored = it.rail().plan().dp_per_unit < 0.0;
  for (Threshold& one : std::span(out).subspan(first))
    one = {along(axis, it.place_of(one.value)), mirrored ? -one.way : one.way};
}

constexpr std::array switch_readings{
    ReadingInfo{"thumb.x", "dp", "the middle of the thumb", &read<Switch, &switch_thumb_x>,
                &switch_thumb_rests<Axis::horizontal>, true, &switch_thumb_thresholds<Axis::horizontal>},
    ReadingInfo{"thumb.y", "dp", "the middle of the thumb", &read<Switch, &switch_thumb_y>,
                &switch_thumb_rests<Axis::vertical>, true, &switch_thumb_thresholds<Axis::vertical>},
    ReadingInfo{"fraction", "", "how far the thumb is from no to yes", &read<Switch, &Switch::fraction>,
                &snap_points, false, &rail_thresholds<Switch>},
    ReadingInfo{"on", "", "what it is set to", &read<Switch, &Switch::on>},
    ReadingInfo{"velocity", "per second", "how fast the share changes", &read<Switch, &Switch::velocity>,
                nullptr, false, &rail_flick_speeds<Switch>},
    ReadingInfo{"opacity", "", "how visible the thumb is while a fade stands for its travel",
                &read<Switch, &Switch::thumb_opacity>},
    ReadingInfo{"pressed", "", "a finger has it", &read<Switch, &Switch::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<Switch, &Switch::dragging>},
};

void switch_pieces(const Part& part, const PieceTaker& out) {
  const Switch& it = one_of(part);
  const Box box = it.box();
  const double across_it = std::fmin(box.w, box.h);
  const double inset = across_it * 0.2;
  const Box track{box.x + inset, box.y + inset, box.w - 2 * inset, box.h - 2 * inset};
  constexpr double min_label = 120.0;  // a switch is narrower than what it says
  const double wide = std::fmax(box.w, min_label);
  out({.role = Role::label,
       .box = {it.context().right_to_left ? box.right() - wide : box.x, box.y - 22.0, wide, 20.0},
       .words = it.settings().label});
  out({.role = Role::track, .box = track});
  out({.role = Role::fill, .box = track, .opacity = std::clamp(it.fraction(), 0.0, 1.0), .on = true});
  const double radius = across_it / 2 * (it.pressed() ? 1.08 : 1.0);
  const Point at = it.thumb();
  out({.role = Role::handle,
       .name = "thumb",
       .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
       .opacity = it.thumb_opacity(),
       .on = it.on(),
       .held = it.pressed(),
       .cursor = Cursor::pointer});
}

std::optional<Point> switch_place(const Part& part, double value) {
  if (value != 0.0 && value != 1.0) return std::nullopt;
  return one_of(part).place_of(value);
}

constexpr std::array switch_actions{
    PartAction{"toggle", "switches over", &run_action<Switch, &Switch::toggle>}};

}  // namespace

const PartKind& Switch::described() {
  static const PartKind kind =
      describe<Switch>({.name = "switch",
                        .means = "a thumb that goes across, for yes or no",
                        .role = "switch",
                        .example = {.box = "40, 200, 80, 44",
                                    .lines = "label = \"Queen seen\"\non = \"seen\"\n",
                                    .cells = "seen = false\n"},
                        .readings = switch_readings,
                        .pieces = &switch_pieces,
                        .place_of = &switch_place,
                        .upright = Upright::upwards,
                        .tap_toggles = true,
                        .margin = {.top = 24.0},
                        .usual_size = {80.0, 44.0},
                        .keys = "Space, Enter",
                        .actions = switch_actions,
                        .answers = answers::switch_answers});
  return kind;
}

}  // namespace ubbo
