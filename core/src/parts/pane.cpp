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
      declare::cell<&S::stands>(
          "stands",
          "the cell that says which of its rests it stands on or goes to, both ways, named "
          "from the least on; where offset is linked it is only told; may be left out"),
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

std::string Pane::misfit(const Box&, const PaneSettings& settings) {
  if (settings.most < settings.least)
    return "most = " + plain_number(settings.most) +
           " is not taken; it takes least = " + plain_number(settings.least) + " or more";
  for (const double rest : settings.rests)
    if (!(rest >= settings.least && rest <= settings.most))
      return "rests holds " + plain_number(rest) + "; it takes " + plain_number(settings.least) + " to " +
             plain_number(settings.most) + " dp";
  if (!settings.stands.linked()) return {};
  const std::size_t places = settings.rests.empty() ? 0 : SnapPoints::list(settings.rests).size();
  const std::size_t names = settings.stands.get().names().size();
  if (places == 0 || names != places)
    return "stands names " + std::to_string(names) + " rests, and rests holds " + std::to_string(places) +
           " places; it takes a name for each";
  return {};
}

Pane::Pane(std::string id, const Box& box, PaneSettings&& settings, Surroundings& around)
    : PartOf(std::move(id), box, std::move(settings), around) {
  rail_.on_rest = [this](double place) { tell(settings_.on_rest, place); };
  // There from the first; a number that is linked too counts before a name.
  if (settings_.stands.linked() && !settings_.offset.linked())
    rail_.put_at(
        rail().plan().rests.at(std::min(settings_.stands.get().index(), rail().plan().rests.size() - 1)));
  follow();
}

void Pane::follow() {
  watch_.stop();
  if (!settings_.stands.linked()) return;
  if (!settings_.offset.linked())
    watch_ = settings_.stands.watch([this](const Choice& choice) {
      if (choice.index() != rail().plan().rests.nearest(target())) hear();
    });
}

// Where it goes is known once no finger has it, unless another part carries it along.
void Pane::update() {
  if (!settings_.stands.linked() || pressed() || rail_.owes_landing() || asked()) return;
  if (std::exchange(carried_, false)) return;
  const std::size_t rest = rail().plan().rests.nearest(target());
  // Only what has changed is said, or two panes on one cell would contradict each other for ever.
  if (std::exchange(said_, rest) == rest) return;
  if (settings_.stands.get().index() != rest) settings_.stands.set(settings_.stands.get().with(rest));
}

void Pane::cell_changed() {
  if (settings_.offset.linked()) {
    carried_ = around().write == Write::carried;
    return Sliding::cell_changed();
  }
  const SnapPoints& rests = rail().plan().rests;
  if (!settings_.stands.linked()) return;
  const std::size_t wanted = settings_.stands.get().index();
  said_.reset();  // none, which a pane never is, is put right
  if (wanted >= rests.size() || wanted == rests.nearest(target())) return;
  around().write == Write::travels ? rail_.go_to(rests.at(wanted)) : rail_.put(rests.at(wanted));
}

RailPlan Pane::plan(const PaneSettings& settings) {
  const auto give = [&](Give::How how) {
    return Give{how, how == Give::How::share ? settings.give_share : settings.give_reach};
  };
  return {
      .axis = settings.axis,
      .least = settings.least,
      .most = settings.most,
      .rests = settings.rests.empty() ? SnapPoints{} : SnapPoints::list(settings.rests),
      .passage = settings.passage,
      .glide = settings.glide > Micros{0} ? std::optional(Coast::half_life(settings.glide)) : std::nullopt,
      .carry = settings.rests.empty() ? Micros{0} : settings.carry,
      .hurries = settings.hurries,
      .give_least = give(settings.give_least),
      .give_most = give(settings.give_most),
      .tells = settings.says == Says::place ? Tells::place : Tells::target,
      .reduced_motion = settings.reduced_motion};
}

void Pane::changed() {
  const SnapPoints before = rail().plan().rests;
  const std::size_t rest = before.empty() ? 0 : before.nearest(target());
  const bool stood = rail_.settled() && !before.empty() && before.at(rest) == offset();
  rail_.change(plan(settings_), settings_.offset);
  if (const SnapPoints& now = rail().plan().rests;
      !before.empty() && now.size() == before.size() && !(now == before))
    if (!pressed()) stood ? rail_.put(now.at(rest)) : rail_.go_to(now.at(rest));
  follow();
}

void Pane::present(Accessible& told) const {
  told.label = settings_.label;
  told.orientation = name_of(settings_.axis);
  told.keys = settings_.most > settings_.least ? described().keys : "";
}

bool Pane::press(Key key) {
  // What lies further down or right comes into view, so the content goes the other way; a pane that moves
  // itself goes the way of the key.
  const double sign = settings_.moves == Moves::content ? -1.0 : 1.0;
  const double page = 0.8 * along(settings_.axis, {laid().w, laid().h});
  const double from = rail_.target();
  auto place = scrolled_to(key, settings_.axis, sign, page, from, settings_.least, settings_.most);
  if (!place) return false;
  const SnapPoints& rests = rail_.plan().rests;
  if (!rests.empty() && key != Key::home && key != Key::end) {  // the next one that way
    std::size_t at = rests.nearest(from);
    if (*place > from && at + 1 < rests.size()) ++at;
    if (*place < from && at > 0) --at;
    place = rests.at(at);
  }
  rail_.key(*place);
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
                      .mirrors = false,
                      .upright = Upright::downwards,
                      .put_anywhere = true,
                      .keys = "arrows, Page Up, Page Down, Home, End"});
  return kind;
}

}  // namespace ubbo
