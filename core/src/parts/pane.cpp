#include "ubbo/parts/pane.hpp"

#include <array>
#include <cmath>

namespace ubbo {

namespace {

constexpr std::array moves_names{"itself", "content"};
constexpr std::array says_names{"place", "rest"};
constexpr std::array give_names{"none", "share", "less"};

}  // namespace

template <>
std::span<const Setting<PaneSettings>> settings_of<PaneSettings>() {
  using declare::number;
  using S = PaneSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the pane is called, for people and screen readers"),
      declare::cell<&S::offset>("offset", "the cell that holds where the pane is, in dp; may be left out"),
      declare::choice<&S::says>(
          "says", says_names, "what its cell says: where it is all the time, or where it will come to rest"),
      number<&S::least>("least", "dp", -100000.0, 100000.0, "how far it goes to the left or up"),
      number<&S::most>("most", "dp", -100000.0, 100000.0, "how far it goes to the right or down"),
      declare::choice<&S::axis>("axis", axis_names, "the direction in which it moves"),
      declare::choice<&S::moves>("moves", moves_names,
                                 "itself with all that lies in it, or only what lies in it"),
      declare::numbers<&S::rests>("rests", "dp", -100000.0, 100000.0,
                                  "where it may come to rest; none: anywhere"),
      declare::passage<&S::passage>("passage", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::carry>(
          "carry", "ms", 0.0, 2000.0,
          "with rests: how much of the release velocity counts for where it lands; 0: none of it, and "
          "a flick does not count either"),
      number<&S::glide>(
          "glide", "ms", 0.0, 2000.0,
          "without rests: the time in which its speed halves after the lift; 0: it stays where it is "
          "let go"),
      declare::flag<&S::hurries>(
          "hurries",
          "with rests: after a flick it may go faster than the finger, to be there in the "
          "passage's own time"),
      declare::choice<&S::give_least>(
          "give_least", give_names,
          "how its bound to the left or up yields: not at all, by a share, or less and "
          "less"),
      declare::choice<&S::give_most>("give_most", give_names, "the same for its bound to the right or down"),
      number<&S::give_share>("give_share", "", 0.0, 1.0,
                             "the share by which a bound follows that yields by a share"),
      number<&S::give_reach>("give_reach", "dp", 1.0, 10000.0,
                             "how far a bound yields that yields less and less"),
  };
  return table;
}

std::string Pane::fault(const std::string& id, const Box&, const PaneSettings& settings) {
  const std::string owner = "pane '" + id + "'";
  std::string fault = settings_fault(owner, settings);
  if (!fault.empty()) return fault;
  if (fault = passage_fault(settings.passage); !fault.empty()) return owner + ": " + fault;
  if (settings.most < settings.least)
    return owner + ": most = " + plain_number(settings.most) +
           " is not taken; it takes least = " + plain_number(settings.least) + " or more";
  for (const double rest : settings.rests)
    if (!(rest >= settings.least && rest <= settings.most))
      return owner + ": rests holds " + plain_number(rest) + "; it takes " + plain_number(settings.least) +
             " to " + plain_number(settings.most) + " dp";
  return {};
}

Pane::Pane(std::string id, const Box& box, PaneSettings settings, Surroundings& around)
    : Part(std::move(id), box, around),
      settings_(checked_settings<Pane>(this->id(), box, std::move(settings))),
      rail_(*this, plan(), settings_.offset) {
  rail_.on_rest = [this](double place) {
    if (settings_.on_rest) settings_.on_rest(place);
  };
}

Give Pane::give(Give::How how) const {
  return {how, how == Give::How::share ? settings_.give_share : settings_.give_reach};
}

RailPlan Pane::plan() const {
  return {
      .axis = settings_.axis,
      .least = settings_.least,
      .most = settings_.most,
      .rests = settings_.rests.empty() ? SnapPoints{} : SnapPoints::list(settings_.rests),
      .passage = settings_.passage,
      .glide = settings_.glide > Micros{0} ? std::optional(Coast::half_life(settings_.glide)) : std::nullopt,
      .carry = settings_.rests.empty() ? Micros{0} : settings_.carry,
      .hurries = settings_.hurries,
      .give_least = give(settings_.give_least),
      .give_most = give(settings_.give_most),
      .tells = settings_.says == Says::place ? Tells::place : Tells::target,
      .reduced_motion = settings_.reduced_motion};
}

void Pane::change(PaneSettings settings) {
  settings_ = std::move(settings);
  rail_.change(plan(), settings_.offset);
}

double Pane::share() const {
  const double way = settings_.most - settings_.least;
  return way > 0.0 ? (offset() - settings_.least) / way : 0.0;
}

Accessible Pane::accessible() const {
  return {.role = described().role,
          .label = settings_.label,
          .orientation = axis_names[static_cast<std::size_t>(settings_.axis)],
          .disabled = !enabled(),
          .keys = settings_.most > settings_.least ? described().keys : ""};
}

Wish Pane::wish(const Sample&) const {
  return {.horizontal = settings_.axis == Axis::horizontal, .vertical = settings_.axis == Axis::vertical};
}

bool Pane::take_over(const Contact& contact, Point anchor) {
  if (!rail_.take_over(contact, anchor)) return false;
  held_by_ = contact.slot;
  return true;
}

bool Pane::touch(const Contact& contact, const Sample& sample) {
  if (sample.phase == Phase::down) {
    if (!rail_.down(contact, sample)) return false;
    held_by_ = contact.slot;
    return true;
  }
  if (!pressed() || contact.slot != held_by_) return false;
  switch (sample.phase) {
    case Phase::down:
      break;
    case Phase::move:
      rail_.follow(contact, sample);
      break;
    case Phase::up:
      if (rail_.lift(contact, sample)) break;
      rail_.explain_press(contact, sample);
      rail_.resume();
      break;
    case Phase::cancel:
      rail_.cancel();
      break;
  }
  return true;
}

void Pane::lose(const Contact& contact, const Sample&) {
  if (pressed() && contact.slot == held_by_) rail_.lose();
}

bool Pane::press(Key key) {
  constexpr double line = 48.0;  // dp; what an arrow scrolls
  const double page = 0.8 * along(settings_.axis, {laid().w, laid().h});
  const bool upright = settings_.axis == Axis::vertical;
  const SnapPoints& rests = rail_.plan().rests;
  // What lies further down or right comes into view, so the content goes the other way; a pane that moves
  // itself goes the way of the key.
  const double sign = settings_.moves == Moves::content ? -1.0 : 1.0;
  double by = 0.0;
  switch (key) {
    case Key::up:
    case Key::down:
      if (!upright) return false;
      by = key == Key::up ? -line : line;
      break;
    case Key::left:
    case Key::right:
      if (upright) return false;
      by = key == Key::left ? -line : line;
      break;
    case Key::page_up:
      by = -page;
      break;
    case Key::page_down:
      by = page;
      break;
    case Key::home:
      rail_.key(sign < 0.0 ? settings_.most : settings_.least);
      return true;
    case Key::end:
      rail_.key(sign < 0.0 ? settings_.least : settings_.most);
      return true;
    default:
      return false;
  }
  by *= sign;
  double place = rail_.target() + by;
  if (!rests.empty()) {  // the next one that way
    std::size_t at = rests.nearest(rail_.target());
    if (by > 0.0 && at + 1 < rests.size()) ++at;
    if (by < 0.0 && at > 0) --at;
    place = rests.at(at);
  }
  rail_.key(place);
  return true;
}

namespace {

const Pane& pane(const Part& part) { return static_cast<const Pane&>(part); }

void rests(const Part& part, std::vector<double>& out) {
  out.insert(out.end(), pane(part).settings().rests.begin(), pane(part).settings().rests.end());
}

constexpr std::array pane_readings{
    ReadingInfo{"offset", "dp", "where it is along its axis", &read<Pane, &Pane::offset>, &rests, true},
    ReadingInfo{"shown", "dp", "where it is drawn: ahead of it while prediction sees the finger ahead",
                &read<Pane, &Pane::shown>, &rests},
    ReadingInfo{"target", "dp", "where it goes, or stands", &read<Pane, &Pane::target>, &rests},
    ReadingInfo{"share", "", "how far it is from least to most", &read<Pane, &Pane::share>},
    ReadingInfo{"velocity", "dp/s", "how fast it moves", &read<Pane, &Pane::velocity>},
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
    const bool leading = (it.offset() > 0.0) != it.around().right_to_left;
    out({.role = Role::backdrop,
         .name = leading ? "leading" : "trailing",
         .box = {it.offset() > 0.0 ? box.x - bare : box.right(), box.y, bare, box.h},
         .on = leading});
  }
  out({.role = Role::surface, .box = box, .held = it.dragging()});
  if (!aside)
    out({.role = Role::handle,
         .name = "grip",
         .box = {box.centre().x - 14.0, box.y + 7.0, 28.0, 7.0},
         .held = it.dragging()});
  const double middle = aside ? box.centre().y - 10.0 : box.y + 24.0;
  out({.role = Role::label, .box = {box.x + 16.0, middle, box.w - 32.0, 20.0}, .words = label});
}

}  // namespace

const PartKind& Pane::described() {
  static const PartKind kind =
      describe<Pane>({.name = "pane",
                      .means = "a surface that follows the finger along one axis: the ground "
                               "of lists, rows and sheets",
                      .role = "group",
                      .readings = pane_readings,
                      .pieces = &pane_pieces,
                      .keys = "arrows, Page Up, Page Down, Home, End"});
  return kind;
}

}  // namespace ubbo
