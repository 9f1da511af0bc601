#include "ubbo/parts/zoom_plane.hpp"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "ubbo/base/maths.hpp"

namespace ubbo {

namespace {

constexpr double degree = std::numbers::pi / 180.0;

// Past its limits it shows a share.
double yielding(double value, double min, double max, double fraction) {
  const double within = std::clamp(value, min, max);
  return within + (value - within) * fraction;
}

}  // namespace

template <>
std::span<const Setting<ZoomPlaneSettings>> settings_of<ZoomPlaneSettings>() {
  using declare::number;
  using S = ZoomPlaneSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what is on the plane, for people and screen readers"),
      declare::cell<&S::zoom>("zoom", "the cell of how large the content is; may be left out, as the others"),
      declare::cell<&S::turn>("turn", "the cell of how far it is turned, degrees clockwise"),
      declare::cell<&S::pan_x>("pan_x", "the cell of how far its middle is to the right of the plane's, dp"),
      declare::cell<&S::pan_y>("pan_y", "the cell of how far its middle is below the plane's, dp"),
      number<&S::min>("min", "", 0.01, 100.0, "the smallest zoom"),
      number<&S::max>("max", "", 0.01, 100.0, "the largest zoom"),
      number<&S::tap_zoom>("tap_zoom", "", 0.0, 100.0, "what a double tap zooms to; 0: it does nothing"),
      declare::flag<&S::rotates>("rotates", "two fingers turn it"),
      number<&S::right_angle>("right_angle", "degrees", 0.0, 45.0,
                              "how near to a right angle it goes there; 0: it stays as it is turned"),
      number<&S::overscroll>("overscroll", "", 0.0, 1.0, "how much of the fingers' way shows past a limit"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::half_life>("half_life", "ms", 0.0, 2000.0,
                            "the time in which its speed halves after the lift; 0: it stays"),
  };
  return table;
}

std::string ZoomPlane::misfit(const Box&, const ZoomPlaneSettings& settings) {
  if (settings.max < settings.min)
    return "most = " + plain_number(settings.max) +
           " is not taken; it takes least = " + plain_number(settings.min) + " or more";
  if (settings.tap_zoom != 0.0 && (settings.tap_zoom < settings.min || settings.tap_zoom > settings.max))
    return "tap_zoom = " + plain_number(settings.tap_zoom) + " is not taken; it takes 0, or " +
           plain_number(settings.min) + " to " + plain_number(settings.max);
  return {};
}

ZoomPlane::ZoomPlane(std::string id, const Box& box, ZoomPlaneSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      gestures_(*this, GestureSettings{.taps = 2, .long_press = false, .edges = false}, log(),
                [this](const Gesture& gesture) { news(gesture); }) {
  put({.zoom = std::clamp(1.0, settings_.min, settings_.max)});
  changed({});
}

std::array<const Link<double>*, 4> ZoomPlane::cells(const ZoomPlaneSettings& of) {
  return {&of.zoom, &of.turn, &of.pan_x, &of.pan_y};
}

void ZoomPlane::changed(const ZoomPlaneSettings& before) {
  const auto had = cells(before);
  const auto now = cells();
  Pose there = goal();
  const std::array<double*, 4> places{&there.zoom, &there.turn, &there.pan.x, &there.pan.y};
  bool other_cells = false;
  for (std::size_t i = 0; i < now.size(); ++i) {
    if (now[i]->cell() == had[i]->cell()) continue;
    watches_[i].stop();
    if (!now[i]->linked()) continue;
    other_cells = true;
    if (std::isfinite(now[i]->get())) *places[i] = now[i]->get();
    told_[i] = now[i]->get();
    watches_[i] = now[i]->watch([this, i](double value) {
      if (value != told_[i]) hear();
    });
  }
  // What fingers carry, or goes where it may be, is left alone.
  if (carried_) return;
  const double zoom = std::clamp(there.zoom, settings_.min, settings_.max);
  if (other_cells || zoom != there.zoom) {
    there.zoom = zoom;
    put(there);
  }
}

// How far the content's middle may be from the plane's, at this zoom.
Point ZoomPlane::reach(double zoom) const {
  return {std::fmax(zoom - 1.0, 0.0) * layout_box().w / 2, std::fmax(zoom - 1.0, 0.0) * layout_box().h / 2};
}

Point ZoomPlane::inside(Point pan, double zoom) const {
  const Point max = reach(zoom);
  return {std::clamp(pan.x, -max.x, max.x), std::clamp(pan.y, -max.y, max.y)};
}

Point ZoomPlane::place_of(Point at) const {
  return box().centre() + pan() + turned(at * zoom(), turn() * degree);
}

bool ZoomPlane::moving() const {
  return std::any_of(movers_.begin(), movers_.end(), [](const Mover& mover) { return mover.moving(); });
}

void ZoomPlane::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = ShortText::of(plain_number(std::round(zoom() * 100.0)), " %");
}

// With nothing to move, one finger is left to what lies around it.
DragInterest ZoomPlane::drag_interest(const Sample&) const {
  const Point max = reach(zoom());
  return {.horizontal = max.x > 0.5, .vertical = max.y > 0.5};
}

bool ZoomPlane::can_go(Side side) const {
  const Point max = reach(zoom());
  switch (side) {
    case Side::left:
      return pan().x > -max.x;
    case Side::right:
      return pan().x < max.x;
    case Side::up:
      return pan().y > -max.y;
    default:
      return pan().y < max.y;
  }
}

void ZoomPlane::put(const Pose& pose) {
  movers_[0].put(pose.zoom);
  movers_[1].put(pose.turn);
  movers_[2].put(pose.pan.x);
  movers_[3].put(pose.pan.y);
}

void ZoomPlane::send(const Pose& pose) {
  const std::array to{pose.zoom, pose.turn, pose.pan.x, pose.pan.y};
  for (std::size_t i = 0; i < movers_.size(); ++i) {
    if (movers_[i].target() == to[i] && (movers_[i].moving() || movers_[i].value() == to[i])) continue;
    movers_[i].set_reduced(reduced(settings_.reduced_motion));
    movers_[i].send(to[i], settings_.transition, context().now);
  }
  if (moving()) lead();
  rested_ = false;
}

// Where it goes, or stands.
ZoomPlane::Pose ZoomPlane::goal() const {
  return {movers_[0].target(), movers_[1].target(), {movers_[2].target(), movers_[3].target()}};
}

// What lies under `at` stays there.
void ZoomPlane::zoom_to(double zoom, Point at) {
  const Pose from = pose();
  const Point held = at - box().centre();
  const Point pan = held + (from.pan - held) * (zoom / from.zoom);
  send({zoom, goal().turn, inside(pan, zoom)});
}

// Let go: back within its limits, to the right angle that is near, and on by its speed.
void ZoomPlane::settle(Point velocity) {
  const Pose from = pose();
  Pose to = from;
  to.zoom = std::clamp(from.zoom, settings_.min, settings_.max);
  const double right = std::round(from.turn / 90.0) * 90.0;
  if (settings_.right_angle > 0.0 && std::fabs(from.turn - right) <= settings_.right_angle) to.turn = right;
  Point end = from.pan * (to.zoom / from.zoom);
  if (settings_.half_life > Micros{0}) {
    const Coast coast = Coast::half_life(settings_.half_life);
    end = end + Point{coast.distance(velocity.x), coast.distance(velocity.y)};
  }
  to.pan = inside(end, to.zoom);
  decide(answers::plane_lands, from.zoom, from.turn, to.zoom, to.turn);
  const std::array speeds{velocity.x, velocity.y};
  const std::array ends{to.pan.x, to.pan.y};
  for (const std::size_t i : {0U, 1U}) {
    Mover& mover = movers_[i + 2];
    mover.set_reduced(reduced(settings_.reduced_motion));
    // The friction that lands exactly there, where one does.
    const auto lands =
        settings_.half_life > Micros{0} ? Coast::landing(ends[i] - mover.value(), speeds[i]) : std::nullopt;
    if (lands)
      mover.send(ends[i], Transition(*lands), context().now, speeds[i]);
    else
      mover.send(ends[i], settings_.transition, context().now);
  }
  send(to);
}

void ZoomPlane::news(const Gesture& gesture) {
  heed_leader();
  const bool pair = gesture.kind == GestureKind::pan || gesture.kind == GestureKind::pinch ||
                    gesture.kind == GestureKind::rotate;
  if (gesture.kind == GestureKind::tap && gesture.step == GesturePhase::ended) {
    if (gesture.count != 2 || settings_.tap_zoom <= 0.0) return;
    // In, and from anywhere further in back to where all is seen.
    const double small = std::clamp(1.0, settings_.min, settings_.max);
    const double to = zoom() > (small + settings_.tap_zoom) / 2 ? small : settings_.tap_zoom;
    decide(answers::plane_zooms, gesture.at.x, gesture.at.y, zoom(), to);
    return zoom_to(to, gesture.at);
  }
  if (!pair && gesture.kind != GestureKind::drag) return;
  if (gesture.step == GesturePhase::began) {
    grabbed_ = pose();
    carried_ = true;
    lead();
  }
  if (!carried_) return;
  if (gesture.step == GesturePhase::ended || gesture.step == GesturePhase::withdrawn) {
    carried_ = false;
    return settle(pair || gesture.step == GesturePhase::withdrawn ? Point{} : gesture.velocity);
  }
  Pose to = grabbed_;
  if (pair) {
    // In the logarithm a limit yields alike in both directions.
    to.zoom = maths::exp(yielding(maths::log(grabbed_.zoom * gesture.scale), maths::log(settings_.min),
                                  maths::log(settings_.max), settings_.overscroll));
    if (settings_.rotates) to.turn += gesture.angle / degree;
  }
  const Point middle = gesture.at - box().centre();
  const Point began = middle - gesture.offset;
  const Point arm = turned(grabbed_.pan - (pair ? began : Point{}), (to.turn - grabbed_.turn) * degree) *
                    (to.zoom / grabbed_.zoom);
  const Point wanted = pair ? middle + arm : grabbed_.pan + gesture.offset;
  const Point max = reach(to.zoom);
  to.pan = {yielding(wanted.x, -max.x, max.x, settings_.overscroll),
            yielding(wanted.y, -max.y, max.y, settings_.overscroll)};
  put(to);
}

bool ZoomPlane::capture(const Contact& contact, const Sample& sample) {
  heed_leader();
  if (moving()) {
    // Caught where it is.
    const Pose here = pose();
    put(here);
    rested_ = false;
  }
  take(contact, sample);
  return true;
}

void ZoomPlane::move(const Contact& contact, const Sample& sample) {
  heed_leader();
  take(contact, sample);
}

void ZoomPlane::lift(const Contact& contact, const Sample& sample) { move(contact, sample); }

void ZoomPlane::take(const Contact& contact, const Sample& sample) {
  Feel feel = feel_for(sample.tool);
  feel.axis_lock_angle = 0.0;
  gestures_.touch(contact, sample, feel, context().screen);
}

void ZoomPlane::let_go(const Contact& contact, LetGo) {
  Sample end = contact.seen;
  end.phase = Phase::cancel;
  end.time = std::max(end.time, context().now);
  take(contact, end);
}

Point ZoomPlane::drag_to(const Contact& contact, const Sample& sample) {
  Sample moved = sample;
  moved.phase = Phase::move;
  move(contact, moved);
  return {};
}

// Let go by all, it is at rest within its limits, or goes there.
void ZoomPlane::update() {
  if (!gestures_.busy() && !carried_ && !moving() && !rested_) {
    const Pose here = pose();
    if (here.zoom != std::clamp(here.zoom, settings_.min, settings_.max) ||
        !(inside(here.pan, here.zoom) == here.pan))
      settle({});
    if (!moving()) {
      rested_ = true;
      decide(answers::plane_rests, zoom());
      tell(settings_.on_rest);
    }
  }
  tell_cells();
}

bool ZoomPlane::press(Key key) {
  constexpr double step = 48.0;  // dp
  heed_leader();
  if (carried_) return false;
  Pose to = goal();
  switch (key) {
    case Key::page_up:
      zoom_by(zoom_step);
      return true;
    case Key::page_down:
      zoom_by(1.0 / zoom_step);
      return true;
    case Key::home:
      turn_back();
      return true;
    case Key::left:
      to.pan.x += step;
      break;
    case Key::right:
      to.pan.x -= step;
      break;
    case Key::up:
      to.pan.y += step;
      break;
    case Key::down:
      to.pan.y -= step;
      break;
    default:
      return false;
  }
  to.pan = inside(to.pan, to.zoom);
  send(to);
  return true;
}

void ZoomPlane::zoom_by(double factor) {
  heed_leader();
  zoom_to(std::clamp(zoom() * factor, settings_.min, settings_.max), box().centre());
}

void ZoomPlane::turn_back() {
  heed_leader();
  send({std::clamp(1.0, settings_.min, settings_.max), 0.0, {}});
}

// Of several planes on one cell the one that began last moves; the others show where it is.
void ZoomPlane::lead() {
  for (const Link<double>* cell : cells()) cell->lead(this);
}

bool ZoomPlane::leads() const {
  const auto all = cells();
  return std::all_of(all.begin(), all.end(),
                     [this](const Link<double>* cell) { return !cell->linked() || cell->led_by(this); });
}

void ZoomPlane::heed_leader() {
  if ((carried_ || moving()) && !leads()) follow();
}

void ZoomPlane::follow() {
  const auto from = cells();
  Pose to = pose();
  const std::array<double*, 4> places{&to.zoom, &to.turn, &to.pan.x, &to.pan.y};
  for (std::size_t i = 0; i < from.size(); ++i) {
    if (!from[i]->linked()) continue;
    told_[i] = from[i]->get();
    if (std::isfinite(told_[i])) *places[i] = told_[i];
  }
  to.zoom = std::clamp(to.zoom, settings_.min, settings_.max);
  to.pan = inside(to.pan, to.zoom);
  put(to);
  carried_ = false;
  rested_ = true;
  for (std::size_t i = 0; i < from.size(); ++i) said_[i] = now_of(i);
}

void ZoomPlane::tell_cells() {
  heed_leader();
  const auto to = cells();
  const detail::Writing carried(Write::carried);
  for (std::size_t i = 0; i < to.size(); ++i) {
    // Only what has moved is said, or two planes on one cell would contradict each other for ever.
    if (!to[i]->linked() || now_of(i) == said_[i]) continue;
    if (to[i]->get() != told_[i] && asked()) continue;  // what the app has written waits
    said_[i] = told_[i] = now_of(i);
    to[i]->set(told_[i]);
  }
}

std::array<double, 4> ZoomPlane::saved() const {
  const Pose to = goal();
  return {to.zoom, to.turn, to.pan.x, to.pan.y};
}

void ZoomPlane::restore(std::span<const double> saved) {
  const double zoom = std::clamp(saved[0], settings_.min, settings_.max);
  ask([this, to = Pose{zoom, saved[1], inside({saved[2], saved[3]}, zoom)}] { send(to); }, WhileHeld::waits);
}

void ZoomPlane::cell_changed() {
  const auto from = cells();
  if (context().write == Write::carried) {
    if (!(carried_ || moving()) || !leads()) follow();
    return;
  }
  Pose to = goal();
  const std::array<double*, 4> places{&to.zoom, &to.turn, &to.pan.x, &to.pan.y};
  bool written = false;
  for (std::size_t i = 0; i < from.size(); ++i) {
    if (!from[i]->linked() || from[i]->get() == told_[i]) continue;
    told_[i] = from[i]->get();
    said_[i] = std::nan("");  // what it cannot follow is put right
    if (!std::isfinite(told_[i])) continue;
    *places[i] = told_[i];
    written = true;
  }
  if (written && !carried_) {
    to.zoom = std::clamp(to.zoom, settings_.min, settings_.max);
    to.pan = inside(to.pan, to.zoom);
    send(to);
  }
}

namespace {

const ZoomPlane& plane_of(const Part& part) { return static_cast<const ZoomPlane&>(part); }

double pan_right(const ZoomPlane& it) { return it.pan().x; }
double pan_down(const ZoomPlane& it) { return it.pan().y; }

constexpr std::array zoom_plane_readings{
    ReadingInfo{"zoom", "", "how large the content is", &read<ZoomPlane, &ZoomPlane::zoom>, nullptr, true},
    ReadingInfo{"turn", "degrees", "how far it is turned, clockwise", &read<ZoomPlane, &ZoomPlane::turn>,
                nullptr, true},
    ReadingInfo{"pan.x", "dp", "how far its middle is to the right of the plane's",
                &read<ZoomPlane, &pan_right>},
    ReadingInfo{"pan.y", "dp", "how far it is below that", &read<ZoomPlane, &pan_down>},
    ReadingInfo{"pressed", "", "a finger is on it", &read<ZoomPlane, &ZoomPlane::pressed>},
    ReadingInfo{"carried", "", "fingers carry it", &read<ZoomPlane, &ZoomPlane::carried>},
};

// Its content is the app's; drawn are its corners and its middle, so that one sees where it is.
void zoom_plane_pieces(const Part& part, const PieceTaker& out) {
  const ZoomPlane& it = plane_of(part);
  const Box box = it.box();
  const Point middle = it.place_of({});
  const double w = box.w * it.zoom();
  const double h = box.h * it.zoom();
  out({.role = Role::surface,
       .name = "content",
       .box = {middle.x - w / 2, middle.y - h / 2, w, h},
       .turn = it.turn() * degree,
       .clip = box,
       .held = it.carried(),
       .cursor =
           it.drag_interest({}).horizontal || it.drag_interest({}).vertical ? Cursor::grab : Cursor::arrow});
  const double radius = std::clamp(14.0 * it.zoom(), 8.0, 80.0);
  for (const double x : {-0.3, 0.0, 0.3}) {
    if (!it.content().image.empty()) break;
    for (const double y : {-0.3, 0.0, 0.3}) {
      const Point at = it.place_of({x * box.w, y * box.h});
      out({.role = Role::mark,
           .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
           .turn = it.turn() * degree,
           .clip = box,
           .on = true,
           .held = x == 0.0 && y == 0.0});
    }
  }
  out({.role = Role::label, .box = {box.x, box.y - 24.0, box.w, 20.0}, .words = it.settings().label});
}

bool is_free(const Part& part) { return !plane_of(part).carried(); }

constexpr std::array plane_actions{
    PartAction{"zoom in", "zooms in about its middle",
               [](Part& part) { static_cast<ZoomPlane&>(part).zoom_by(ZoomPlane::zoom_step); }, &is_free},
    PartAction{"zoom out", "zooms out about its middle",
               [](Part& part) { static_cast<ZoomPlane&>(part).zoom_by(1.0 / ZoomPlane::zoom_step); },
               &is_free},
    PartAction{"turn back", "shows all, turned upright", &run_action<ZoomPlane, &ZoomPlane::turn_back>,
               &is_free}};

}  // namespace

const PartKind& ZoomPlane::described() {
  static const PartKind kind =
      describe<ZoomPlane>({.name = "zoom-plane",
                           .means = "a plane whose content fingers zoom, turn and carry",
                           .role = "group",
                           .example = {.box = R"(20, 120, "100% - 40dp", 480)",
                                       .lines = "label = \"Frame 3\"\nzoom = \"zoom\"\n",
                                       .cells = "zoom = 1.0\n"},
                           .readings = zoom_plane_readings,
                           .pieces = &zoom_plane_pieces,
                           .mirrors = false,
                           .wheel = WheelUse::scrolls,
                           .wheel_zooms = true,
                           .keys = "arrows, Page Up, Page Down, Home",
                           .actions = plane_actions,
                           .answers = answers::zoom_plane_answers});
  return kind;
}

}  // namespace ubbo
