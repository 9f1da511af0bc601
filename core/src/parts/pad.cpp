#include "ubbo/parts/pad.hpp"

#include <array>
#include <cmath>

#include "ubbo/base/maths.hpp"

namespace ubbo {

template <>
std::span<const Setting<PadSettings>> settings_of<PadSettings>() {
  using S = PadSettings;
  // The table of GestureSettings, reached through the pad's own struct.
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::text<&S::label>("label", "what the area is called, for people and screen readers"),
        declare::flag<&S::opaque>("opaque",
                                  "it hides what lies below it, such as a page; its label stands at its top"),
        declare::cell<&S::taps>("taps_cell",
                                "a cell that gets the count of each row of taps; may be left out"),
        declare::numbers<&S::marks>(
            "marks", "dp", -10000.0, 10000.0,
            "what the app put on it: x and y of each mark in turn, from its middle; two "
            "fingers move, scale and turn them"),
    };
    declare::add_inner<&S::gestures>(made, "gestures");
    return made;
  }();
  return table;
}

std::string Pad::misfit(const Box&, const PadSettings& settings) {
  if (settings.marks.size() % 2 != 0)
    return "marks holds " + std::to_string(settings.marks.size()) +
           " numbers; it takes two for each, x and y";
  return {};
}

Pad::Pad(std::string id, const Box& box, PadSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      gestures_(*this, settings_.gestures, log(), [this](const Gesture& news) { report(news); }) {}

void Pad::report(const Gesture& news) {
  last_ = news;
  if (news.kind == GestureKind::long_press && news.step == GesturePhase::began)
    moment(MomentKind::long_press);
  if (news.kind == GestureKind::tap && news.step == GesturePhase::ended) settings_.taps.set(news.count);
  tell(settings_.on_gesture, news);
}

void Pad::changed() {
  if (!(settings_.gestures == gestures_.settings())) gestures_.change(settings_.gestures, context().now);
}

void Pad::present(Accessible& told) const {
  told.label = settings_.label;
  told.pressed = pressed();
}

DragInterest Pad::drag_interest(const Sample&) const {
  const Drags drags = settings_.gestures.drags;
  return {.horizontal = drags == Drags::horizontal || drags == Drags::both,
          .vertical = drags == Drags::vertical || drags == Drags::both};
}

bool Pad::capture(const Contact& contact, const Sample& sample) {
  move(contact, sample);
  return true;
}

void Pad::move(const Contact& contact, const Sample& sample) {
  gestures_.touch(contact, sample, feel_for(sample.tool), context().screen);
}

void Pad::lift(const Contact& contact, const Sample& sample) { move(contact, sample); }

void Pad::let_go(const Contact& contact, LetGo) {
  Sample end = contact.seen;
  end.phase = Phase::cancel;
  end.time = std::max(end.time, context().now);
  move(contact, end);
}

bool Pad::press(Key key) {
  if (key != Key::space && key != Key::enter) return false;
  if (gestures_.busy()) {
    decide(answers::key_held);
    return true;
  }
  decide(answers::key_activates);
  const Micros now = context().now;
  report({.kind = GestureKind::tap,
          .step = GesturePhase::ended,
          .time = now,
          .began = now,
          .at = box().centre()});
  return true;
}

Point Pad::place_of(Point mark) const {
  const bool pair =
      last_.kind == GestureKind::pan || last_.kind == GestureKind::pinch || last_.kind == GestureKind::rotate;
  if (!pair) return box().centre() + mark;
  return box().centre() + last_.offset + turned(mark, last_.angle) * last_.scale;
}

namespace {

const Pad& pad(const Part& part) { return static_cast<const Pad&>(part); }

std::string gesture(const Pad& it) { return name_of(it.last().kind); }
std::string step(const Pad& it) { return name_of(it.last().step); }
double dragged_x(const Pad& it) { return it.last().offset.x; }
double dragged_y(const Pad& it) { return it.last().offset.y; }

constexpr std::array pad_readings{
    ReadingInfo{"gesture", "", "the last gesture that was reported", &read<Pad, &gesture>},
    ReadingInfo{"step", "", "where that gesture is in its life", &read<Pad, &step>},
    ReadingInfo{"dragged.x", "dp", "how far it dragged", &read<Pad, &dragged_x>},
    ReadingInfo{"dragged.y", "dp", "how far it dragged", &read<Pad, &dragged_y>},
    ReadingInfo{"scale", "", "what two contacts scale by", &read<Pad, &Pad::scale>, nullptr, true},
    ReadingInfo{"angle", "rad", "what two contacts turn by, clockwise", &read<Pad, &Pad::angle>, nullptr,
                true},
    ReadingInfo{"pressed", "", "a press is to be shown", &read<Pad, &Pad::pressed>},
};

void pad_pieces(const Part& part, const PieceTaker& out) {
  const Pad& it = pad(part);
  const Box box = it.box();
  const std::vector<double>& marks = it.settings().marks;
  out({.role = Role::surface,
       .box = box,
       .held = it.pressed() && !it.settings().opaque,
       .bare = !it.settings().opaque,
       .cursor = Cursor::pointer});
  const double radius = 20.0 * std::fmin(it.scale(), 100.0);
  for (std::size_t i = 0; i + 1 < marks.size(); i += 2) {
    const Point at = it.place_of({marks[i], marks[i + 1]});
    out({.role = Role::mark,
         .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
         .turn = it.angle(),
         .on = true,
         .held = i == 0});
  }
  const double middle = marks.empty() && !it.settings().opaque ? box.centre().y - 10.0 : box.y + 12.0;
  out({.role = Role::label, .box = {box.x + 16.0, middle, box.w - 32.0, 20.0}, .words = it.settings().label});
}

constexpr std::array pad_actions{
    PartAction{"activate", "as a tap on its middle", [](Part& part) { part.press(Key::enter); }}};

}  // namespace

const PartKind& Pad::described() {
  static const PartKind kind =
      describe<Pad>({.name = "pad",
                     .means = "an area that tells what its touches were taken for",
                     .role = "button",
                     .example = {.box = R"(0, 200, "100%", 72)",
                                 .lines = "label = \"Heather\"\ntaps_cell = \"taps\"\n",
                                 .cells = "taps = 0\n"},
                     .readings = pad_readings,
                     .pieces = &pad_pieces,
                     .own_state = true,
                     .wheel = WheelUse::scrolls,
                     .wheel_zooms = true,
                     .keys = "Space, Enter",
                     .actions = pad_actions});
  return kind;
}

}  // namespace ubbo
