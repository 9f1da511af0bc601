#include "ubbo/parts/pane.hpp"

#include <array>
#include <cmath>

namespace ubbo {

namespace {

constexpr std::array moves_names{"itself", "content"};
constexpr std::array says_names{"place", "rest"};

}  // namespace

template <>
std::span<const Setting<PaneSettings>> settings_of<PaneSettings>() {
  using declare::number;
  using S = PaneSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the pane is called, for people and screen readers"),
      declare::cell<&S::offset>("offset", "the cell that holds where the pane is, in dp; may be left out"),
      declare::cell<&S::snap_point>(
          "snap_point",
          "the cell that says which snap point it is at or goes to, both ways, named "
          "from the smallest on; where offset is linked it is only told; may be left out"),
      declare::choice<&S::says>(
          "says", says_names, "what its cell says: where it is all the time, or where it will come to rest"),
      number<&S::min>("min", "dp", -100000.0, 100000.0, "how far it goes to the left or up"),
      number<&S::max>("max", "dp", -100000.0, 100000.0, "how far it goes to the right or down"),
      declare::choice<&S::axis>("axis", axis_names, "the direction in which it moves"),
      declare::choice<&S::moves>("moves", moves_names,
                                 "whether it moves itself with all that lies in it, or only what lies in it"),
      declare::numbers<&S::snap_points>("snap_points", "dp", -100000.0, 100000.0,
                                        "where it may come to rest; none: anywhere"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "with snap points: how much of the release velocity counts for where it lands; 0: none of it, and "
          "a flick does not count either"),
      number<&S::half_life>(
          "half_life", "ms", 0.0, 2000.0,
          "without snap points: the time in which its speed halves after the lift; 0: it stays where it is "
          "let go"),
      declare::flag<&S::hurries>(
          "hurries",
          "with snap points: after a flick it may go faster than the finger, to be there in the "
          "transition's own time"),
      declare::choice<&S::overscroll_min>(
          "overscroll_min", overscroll_names,
          "how its bound to the left or up yields: not at all, by a share, or less and "
          "less"),
      declare::choice<&S::overscroll_max>("overscroll_max", overscroll_names,
                                          "how its bound to the right or down yields"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows past a bound, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes past a bound at most"),
  };
  return table;
}

std::string Pane::misfit(const Box&, const PaneSettings& settings) {
  if (settings.max < settings.min)
    return "max = " + plain_number(settings.max) +
           " is not taken; it takes min = " + plain_number(settings.min) + " or more";
  for (const double rest : settings.snap_points)
    if (!(rest >= settings.min && rest <= settings.max))
      return "snap_points holds " + plain_number(rest) + "; it takes " + plain_number(settings.min) + " to " +
             plain_number(settings.max) + " dp";
  if (!settings.snap_point.linked()) return {};
  const std::size_t places = settings.snap_points.empty() ? 0 : SnapPoints::list(settings.snap_points).size();
  const std::size_t names = settings.snap_point.get().names().size();
  if (places == 0 || names != places)
    return "snap_point names " + std::to_string(names) + " places, and snap_points holds " +
           std::to_string(places) + " places; it takes a name for each";
  return {};
}

Pane::Pane(std::string id, const Box& box, PaneSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  rail_.on_rest = [this](double place) { tell(settings_.on_rest, place); };
  // There from the first; a number that is linked too counts before a name.
  if (settings_.snap_point.linked() && !settings_.offset.linked())
    rail_.put_at(rail().plan().snap_points.at(
        std::min(settings_.snap_point.get().index(), rail().plan().snap_points.size() - 1)));
  follow();
}

void Pane::follow() {
  watch_.stop();
  if (!settings_.snap_point.linked()) return;
  if (!settings_.offset.linked())
    watch_ = settings_.snap_point.watch([this](const Choice& choice) {
      if (choice.index() != rail().plan().snap_points.nearest(target())) hear();
    });
}

// Where it goes is known once no finger has it, unless another part carries it along.
void Pane::update() {
  if (!settings_.snap_point.linked() || pressed() || rail_.owes_landing() || asked()) return;
  if (std::exchange(carried_, false)) return;
  const std::size_t rest = rail().plan().snap_points.nearest(target());
  // Only what has changed is said, or two panes on one cell would contradict each other for ever.
  if (std::exchange(said_, rest) == rest) return;
  if (settings_.snap_point.get().index() != rest)
    settings_.snap_point.set(settings_.snap_point.get().with(rest));
}

void Pane::cell_changed() {
  if (settings_.offset.linked()) {
    carried_ = context().write == Write::carried;
    return Sliding::cell_changed();
  }
  const SnapPoints& snap_points = rail().plan().snap_points;
  if (!settings_.snap_point.linked()) return;
  const std::size_t wanted = settings_.snap_point.get().index();
  said_.reset();  // none, which a pane never is, is put right
  if (wanted >= snap_points.size() || wanted == snap_points.nearest(target())) return;
  context().write == Write::travels ? rail_.go_to(snap_points.at(wanted)) : rail_.put(snap_points.at(wanted));
}

RailPlan Pane::plan(const PaneSettings& settings) {
  const auto overscroll = [&](Overscroll::How how) {
    return Overscroll{
        how, how == Overscroll::How::linear ? settings.overscroll_fraction : settings.overscroll_reach};
  };
  return {.axis = settings.axis,
          .min = settings.min,
          .max = settings.max,
          .sense = settings.moves == Moves::content ? Sense::scrolled : sense_along(settings.axis),
          .snap_points = settings.snap_points.empty() ? SnapPoints{} : SnapPoints::list(settings.snap_points),
          .transition = settings.transition,
          .coast = settings.half_life > Micros{0} ? std::optional(Coast::half_life(settings.half_life))
                                                  : std::nullopt,
          .projection_time = settings.snap_points.empty() ? Micros{0} : settings.projection_time,
          .hurries = settings.hurries,
          .overscroll_min = overscroll(settings.overscroll_min),
          .overscroll_max = overscroll(settings.overscroll_max),
          .tells = settings.says == Says::place ? Tells::place : Tells::target,
          .reduced_motion = settings.reduced_motion};
}

void Pane::changed() {
  const SnapPoints before = rail().plan().snap_points;
  const std::size_t rest = before.empty() ? 0 : before.nearest(target());
  const bool stood = rail_.settled() && !before.empty() && before.at(rest) == offset();
  rail_.change(plan(settings_), settings_.offset);
  if (const SnapPoints& now = rail().plan().snap_points;
      !before.empty() && now.size() == before.size() && !(now == before))
    if (!pressed()) stood ? rail_.put(now.at(rest)) : rail_.go_to(now.at(rest));
  follow();
}

void Pane::present(Accessible& told) const {
  told.label = settings_.label;
  told.orientation = name_of(settings_.axis);
  told.keys = settings_.max > settings_.min ? described().keys : "";
}

bool Pane::press(Key key) {
  // What lies further down or right comes into view, so the content goes the other way; a pane that moves
  // itself goes the way of the key.
  const double sign = settings_.moves == Moves::content ? -1.0 : 1.0;
  const double page = 0.8 * along(settings_.axis, {layout_box().w, layout_box().h});
  const double from = rail_.target();
  auto place = scrolled_to(key, settings_.axis, sign, page, from, settings_.min, settings_.max);
  if (!place) return false;
  const SnapPoints& snap_points = rail_.plan().snap_points;
  if (!snap_points.empty() && key != Key::home && key != Key::end) {  // the next one that way
    std::size_t at = snap_points.nearest(from);
    if (*place > from && at + 1 < snap_points.size()) ++at;
    if (*place < from && at > 0) --at;
    place = snap_points.at(at);
  }
  rail_.key(*place);
  return true;
}

namespace {

const Pane& pane(const Part& part) { return static_cast<const Pane&>(part); }

void snap_points(const Part& part, std::vector<double>& out) {
  out.insert(out.end(), pane(part).settings().snap_points.begin(), pane(part).settings().snap_points.end());
}

constexpr std::array pane_readings{
    ReadingInfo{"offset", "dp", "where it is along its axis", &read<Pane, &Pane::offset>, &snap_points, true,
                &rail_thresholds<Pane>},
    ReadingInfo{"shown", "dp", "where it is drawn: ahead of it while prediction sees the finger ahead",
                &read<Pane, &Pane::shown>, &snap_points},
    ReadingInfo{"target", "dp", "where it goes, or stands", &read<Pane, &Pane::target>, &snap_points},
    ReadingInfo{"fraction", "", "how far it is from min to max", &read<Pane, &Pane::fraction>},
    ReadingInfo{"velocity", "dp/s", "how fast it moves", &read<Pane, &Pane::velocity>, nullptr, false,
                &rail_flick_speeds<Pane>},
    ReadingInfo{"opacity", "", "how visible it is while a fade stands for its travel",
                &read<Pane, &Pane::opacity>},
    ReadingInfo{"pressed", "", "a finger has it", &read<Pane, &Pane::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<Pane, &Pane::dragging>},
};

void pane_pieces(const Part& part, const PieceTaker& out) {
  const Pane& it = pane(part);
  const Box box = it.box();
  const std::string& label = it.settings().label;
  if (it.settings().moves == Moves::content) {
    out({.role = Role::label, .box = {box.x + 12.0, box.y - 30.0, box.w - 24.0, 24.0}, .words = label});
    return;
  }
  const bool aside = it.settings().axis == Axis::horizontal;
  if (aside && it.offset() != 0.0) {
    // What it uncovers when it slides aside, on the leading or the trailing side.
    const double bare = std::fabs(it.offset());
    const bool leading = (it.offset() > 0.0) != it.context().right_to_left;
    out({.role = Role::behind,
         .name = leading ? "leading" : "trailing",
         .box = {it.offset() > 0.0 ? box.x - bare : box.right(), box.y, bare, box.h},
         .on = leading});
  }
  out({.role = Role::surface, .box = box, .held = it.dragging()});
  if (!aside)
    out({.role = Role::handle,
         .name = "grip",
         .box = {box.centre().x - 14.0, box.y + 7.0, 28.0, 7.0},
         .held = it.dragging(),
         .cursor = Cursor::ns_resize});
  const Box title{box.x + 16.0, aside ? box.centre().y - 10.0 : box.y + 18.0, box.w - 32.0,
                  aside ? 20.0 : 28.0};
  out({.role = Role::label, .box = title, .words = label});
}

}  // namespace

const PartKind& Pane::described() {
  static const PartKind kind =
      describe<Pane>({.name = "pane",
                      .means = "a surface that follows the finger along one axis: the ground "
                               "of lists, rows and sheets",
                      .role = "group",
                      .example = {.box = R"(0, 60, "100%", 600)",
                                  .lines = "label = \"Notes\"\noffset = \"scrolled\"\nmin = -400\nmax = 0\n",
                                  .cells = "scrolled = 0\n"},
                      .readings = pane_readings,
                      .pieces = &pane_pieces,
                      .mirrors = false,
                      .upright = Upright::downwards,
                      .put_anywhere = true,
                      .wheel = WheelUse::scrolls,
                      .frame = {.top = 48.0},
                      .keys = "arrows, Page Up, Page Down, Home, End"});
  return kind;
}

}  // namespace ubbo
