#pragma once

#include <functional>
#include <vector>

#include "ubbo/base/journal.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/drag.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/gesture.hpp"
#include "ubbo/touch/pair.hpp"

namespace ubbo {

/// When a single tap is reported while a double tap is still possible.
enum class TellTap : std::uint8_t {
  at_once,  ///< at the lift; withdrawn when a second tap comes
  held      ///< once a further tap is ruled out; the journal says what the wait cost
};

/// Which drags an area follows.
enum class Drags : std::uint8_t { none, horizontal, vertical, both };

/// Which gestures are looked for. Units, ranges and meanings stand in the settings table.
struct GestureSettings {
  double taps = 2;
  TellTap tell_tap = TellTap::at_once;
  bool long_press = true;
  Drags drags = Drags::both;
  bool two_contacts = true;
  bool edges = true;

  friend bool operator==(const GestureSettings&, const GestureSettings&) = default;
};

template <>
std::span<const Setting<GestureSettings>> settings_of<GestureSettings>();

/// Takes the touches on one area for what they are: presses, taps in a row, long presses, drags, flicks, edge
/// swipes, and what two contacts do together. Usable without a part or a stage.
///
/// A press is reported at once and withdrawn when it becomes anything but a tap or a long press. Each gesture
/// reported as begun is reported as ended or withdrawn exactly once. A third contact, and what is left of a
/// pair after one of its contacts has lifted, counts for nothing. News are reported when the recogniser is
/// done with what it was told, so that a callback may touch, withdraw or ask it. Allocates nothing after it
/// is made.
class Gestures {
 public:
  /// `report` gets every piece of news; decisions are recorded by `voice`. Throws `std::invalid_argument` for
  /// a setting out of its range.
  Gestures(GestureSettings settings, Voice voice, std::function<void(const Gesture&)> report);

  /// A sound sample of a contact, with the feel for its tool and the screen it is on (without a size: no
  /// edges). Call `advance(sample.time)` first.
  void touch(const Contact& contact, const Sample& sample, const Feel& feel, const Box& screen);
  /// When something next happens by itself: a long press, or a further tap being ruled out.
  [[nodiscard]] Micros due() const;
  /// Lets time pass, and everything happen that is due until `now`, each at its own time.
  void advance(Micros now);
  /// Looks for other gestures from now on; what goes on is withdrawn at `now`. Throws as the constructor
  /// does.
  void change(const GestureSettings& settings, Micros now);
  [[nodiscard]] const GestureSettings& settings() const { return settings_; }
  /// Another part got the contacts: everything that began is withdrawn.
  void withdraw(Micros now);

  /// True while a contact is down.
  [[nodiscard]] bool busy() const { return state_ != State::idle; }
  /// True while a contact is down, or something of it is still to happen.
  [[nodiscard]] bool moving() const { return busy() || due() != never; }
  /// True while a press is to be shown.
  [[nodiscard]] bool pressed() const { return state_ == State::pressed || state_ == State::held; }

 private:
  enum class State : std::uint8_t { idle, pressed, held, dragging, two, spent };
  static constexpr int none = -1;

  void say(GestureKind kind, GestureStep step, Micros time);
  void report();
  void withdraw_all(Micros now);
  void happen();
  void down(const Contact& contact, const Sample& sample);
  void second_down(const Contact& contact, const Sample& sample);
  void move(const Contact& contact, const Sample& sample);
  void move_pair(const Sample& sample);
  void lift(const Contact& contact, const Sample& sample);
  void begin_drag(const Contact& contact, const Sample& sample);
  void end_drag(const Contact& contact, const Sample& sample);
  void lock_axis(Point moved, const Sample& sample);
  [[nodiscard]] bool from_edge(const Contact& contact, const Sample& sample);
  void tapped(const Contact& contact, const Sample& sample);
  void join_row(const Sample& sample);
  void report_row(Micros now, bool waited);
  void end_pair(GestureStep step, Micros time);
  void abandon(Micros now);

  GestureSettings settings_;
  Voice voice_;
  std::function<void(const Gesture&)> report_;
  std::vector<Gesture> news_;  // still to be reported
  bool reporting_ = false;
  Feel feel_{};
  Box screen_{};

  State state_ = State::idle;
  int first_ = none;  // slots of contacts
  int second_ = none;
  int contacts_ = 0;
  Gesture now_{};  // what is reported next: place, offset and the rest are kept up to date here
  Drag drag_;
  Pair pair_;
  GestureKind drag_kind_ = GestureKind::drag;
  Point first_at_{}, second_at_{};
  Micros down_time_{};
  bool locked_ = false;
  Axis lock_ = Axis::horizontal;

  int row_ = 0;                // taps in a row so far; 0: no row is open
  Point row_at_{};             // where the first of them was
  Micros row_began_{};         // when the first of them went down
  Micros row_lifted_{};        // when the last of them ended
  bool row_seen_ = false;      // time has closed a row: a tap that missed it is told by how much
  bool row_reported_ = false;  // it has been reported with its present count
};

namespace questions {
inline constexpr Question tap{"is it a tap?"};
inline constexpr Question again{"does it belong to the tap before?"};
inline constexpr Question tap_reported{"when is the tap reported?"};
inline constexpr Question hold{"is it a long press?"};
inline constexpr Question flick{"is it a flick?"};
inline constexpr Question axis{"which axis does it keep to?"};
inline constexpr Question edge{"is it an edge swipe?"};
inline constexpr Question pair{"what do two contacts do?"};
inline constexpr Question pair_end{"how far did two contacts go?"};
}  // namespace questions
namespace answers {
inline constexpr Answer tap{
    &questions::tap, "yes", true,
    "it was a tap: it strayed {strayed} of the {strayed.limit} a tap may, and lifted after "
    "{held}, of {held.limit}",
    "tap"};
inline constexpr Answer tap_strayed{&questions::tap, "no, it strayed", false,
                                    "it was no tap: it strayed {strayed}, {strayed.margin} more than the "
                                    "{strayed.limit} a tap may",
                                    "no tap: strayed {strayed}"};
inline constexpr Answer tap_too_long{
    &questions::tap, "no, it was held too long", false,
    "it was no tap: it was held {held}, {held.margin} longer than the {held.limit} a "
    "tap may be",
    "no tap: held {held}"};
inline constexpr Answer again{
    &questions::again, "yes", true,
    "it belongs to the tap before: it came {gap} after that one's lift, of {gap.limit} "
    "allowed, and {apart} from it, of {apart.limit}",
    "next tap in the row"};
inline constexpr Answer again_too_late{
    &questions::again, "no, too late", false,
    "it does not belong to the tap before: it came {gap} after that one's lift, "
    "{gap.margin} past the {gap.limit} allowed",
    "too late: {gap} of {gap.limit}"};
inline constexpr Answer again_too_far{&questions::again, "no, too far", false,
                                      "it does not belong to the tap before: it came {apart} away from it, "
                                      "{apart.margin} more than the {apart.limit} allowed",
                                      "too far: {apart} of {apart.limit}"};
inline constexpr Answer tap_at_once{&questions::tap_reported, "at once", true, "the tap was reported at once",
                                    "reported"};
inline constexpr Answer row_at_once{&questions::tap_reported, "a row, at once", true,
                                    "{taps} taps in a row were reported at once", "reported: {taps}"};
inline constexpr Answer tap_after_wait{
    &questions::tap_reported, "after a further tap was ruled out", true,
    "the tap was reported after a further tap was ruled out: the wait cost {waited}",
    "reported, {waited} late"};
inline constexpr Answer row_after_wait{
    &questions::tap_reported, "a row, after a further tap was ruled out", true,
    "{taps} taps in a row were reported after a further tap was ruled out: the "
    "wait cost {waited}",
    "reported: {taps}, {waited} late"};
inline constexpr Answer held{&questions::hold, "yes", true,
                             "it is a long press: it was down for {held} and strayed {strayed} of the "
                             "{strayed.limit} it may",
                             "long press"};
inline constexpr Answer flick{
    &questions::flick, "yes", true,
    "it was a flick: it lifted at {speed} ({x} to the right, {y} down), {speed.margin} "
    "faster than the {speed.limit} of a flick, {way} from where the drag began",
    "flick: {speed}"};
inline constexpr Answer flick_too_slow{
    &questions::flick, "no, too slow", false,
    "it was a drag, no flick: it lifted at {speed}, {speed.margin} slower than the "
    "{speed.limit} of a flick, {way} from where the drag began",
    "no flick: {speed}"};
inline constexpr Answer flick_rested{&questions::flick, "no, it rested", false,
                                     "it was a drag, no flick: it had rested {rested} before the lift, and "
                                     "{rested.limit} are enough; it ended {way} from where the drag began",
                                     "no flick: it rested"};
inline constexpr Answer axis_horizontal{
    &questions::axis, "horizontal", true,
    "it keeps to the horizontal axis: it began {off axis} off it, and up to "
    "{off axis.limit} are held",
    "axis: horizontal"};
inline constexpr Answer axis_vertical{&questions::axis, "vertical", true,
                                      "it keeps to the vertical axis: it began {off axis} off it, and up to "
                                      "{off axis.limit} are held",
                                      "axis: vertical"};
inline constexpr Answer axis_free{
    &questions::axis, "none", false,
    "it keeps to no axis: it began {off axis} off the nearer one, {off axis.margin} more "
    "than the {off axis.limit} that are held",
    "axis: none"};
inline constexpr Answer axis_unlocked{&questions::axis, "none, the lock is off", false,
                                      "it keeps to no axis: the axis lock is off", ""};
inline constexpr Answer edge_swipe{&questions::edge, "yes", true,
                                   "it is an edge swipe: it began {from the edge} from the edge, of "
                                   "{from the edge.limit} allowed",
                                   "edge swipe"};
#define UBBO_PAIR_FACTS                                                                                \
  "their distance changed by {pinch} of {pinch.limit}, they went {turn} of {turn.limit} around their " \
  "middle, "                                                                                           \
  "and their middle moved {pan} of {pan.limit}"
inline constexpr Answer pair_pans{&questions::pair, "pan", true,
                                  "two contacts began to pan: " UBBO_PAIR_FACTS, "pan"};
inline constexpr Answer pair_pinches{&questions::pair, "pinch", true,
                                     "two contacts began to pinch: " UBBO_PAIR_FACTS, "pinch"};
inline constexpr Answer pair_rotates{&questions::pair, "rotate", true,
                                     "two contacts began to rotate: " UBBO_PAIR_FACTS, "rotate"};
#undef UBBO_PAIR_FACTS
inline constexpr Answer pair_ended{
    &questions::pair_end, "ended", true,
    "two contacts ended: their distance is {scale} of what it was when they began, they "
    "turned by {turn} and moved {moved}",
    "x {scale}, turned {turn}"};
inline constexpr Answer pair_withdrawn{&questions::pair_end, "withdrawn", false,
                                       "two contacts came to nothing: one was taken away", "pair withdrawn"};
inline constexpr Answer pair_too_little{
    &questions::pair_end, "nowhere", false,
    "two contacts did nothing: their distance changed by {pinch} of "
    "{pinch.limit}, they went {turn} of {turn.limit} around their middle, and "
    "their middle moved {pan} of {pan.limit}",
    "two contacts: too little"};
inline constexpr std::array gesture_answers{
    &tap,           &tap_strayed,  &tap_too_long,   &again,          &again_too_late,
    &again_too_far, &tap_at_once,  &row_at_once,    &tap_after_wait, &row_after_wait,
    &held,          &flick,        &flick_too_slow, &flick_rested,   &axis_horizontal,
    &axis_vertical, &axis_free,    &axis_unlocked,  &edge_swipe,     &pair_pans,
    &pair_pinches,  &pair_rotates, &pair_ended,     &pair_withdrawn, &pair_too_little};
}  // namespace answers

}  // namespace ubbo
