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
enum class ReportTap : std::uint8_t {
  immediately,  ///< at the lift; withdrawn when a second tap comes
  after_wait    ///< once a further tap is ruled out; the journal says what the wait cost
};

/// Which drags an area follows.
enum class Drags : std::uint8_t { none, horizontal, vertical, both };

/// Which gestures are looked for. Units, ranges and meanings stand in the settings table.
struct GestureSettings {
  double taps = 2;
  ReportTap report_tap = ReportTap::immediately;
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
  /// `report` gets every piece of news; decisions are recorded by `log`. Throws `std::invalid_argument` for
  /// a setting out of its range.
  Gestures(GestureSettings settings, DecisionLog log, std::function<void(const Gesture&)> report);

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

  void say(GestureKind kind, GesturePhase step, Micros time);
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
  void end_pair(GesturePhase step, Micros time);
  void abandon(Micros now);

  GestureSettings settings_;
  DecisionLog log_;
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
  Micros row_closed_after_{};  // … so long after its last tap
  bool row_reported_ = false;  // it has been reported with its present count
};

namespace questions {
inline constexpr Question tap{"gesture.tap"};
inline constexpr Question again{"gesture.again"};
inline constexpr Question tap_reported{"gesture.tap-reported"};
inline constexpr Question hold{"gesture.hold"};
inline constexpr Question flick{"gesture.flick"};
inline constexpr Question axis{"gesture.axis"};
inline constexpr Question edge{"gesture.edge"};
inline constexpr Question pair{"gesture.pair"};
inline constexpr Question pair_end{"gesture.pair-end"};
}  // namespace questions
namespace answers {
using Tap = AnswerWith<AtMost<"strayed", "dp">, AtMost<"held", "ms">>;
using Again = AnswerWith<AtMost<"gap", "ms">, AtMost<"apart", "dp">, Number<"taps", "">>;
using TapReport = AnswerWith<Number<"waited", "ms">, Number<"taps", "">>;
using Flick = AnswerWith<AtLeast<"speed", "dp/s">, AtMost<"rested", "ms">, Number<"way", "dp">,
                         Number<"x", "dp/s">, Number<"y", "dp/s">>;
using AxisKept = AnswerWith<AtMost<"off axis", "degrees">>;
using Pairs = AnswerWith<AtLeast<"pan", "dp">, AtLeast<"pinch", "dp">, AtLeast<"turn", "dp">>;
inline constexpr Tap tap{"gesture.tap", &questions::tap, true};
inline constexpr Tap tap_strayed{"gesture.tap-strayed", &questions::tap, false};
inline constexpr Tap tap_too_long{"gesture.tap-too-long", &questions::tap, false};
inline constexpr Again again{"gesture.again", &questions::again, true};
inline constexpr Again again_too_late{"gesture.again-too-late", &questions::again, false};
inline constexpr Again again_too_far{"gesture.again-too-far", &questions::again, false};
inline constexpr TapReport tap_at_once{"gesture.tap-at-once", &questions::tap_reported, true};
inline constexpr TapReport row_at_once{"gesture.row-at-once", &questions::tap_reported, true};
inline constexpr TapReport tap_after_wait{"gesture.tap-after-wait", &questions::tap_reported, true};
inline constexpr TapReport row_after_wait{"gesture.row-after-wait", &questions::tap_reported, true};
inline constexpr AnswerWith<AtLeast<"held", "ms">, AtMost<"strayed", "dp">> held{"gesture.held",
                                                                                 &questions::hold, true};
inline constexpr Flick flick{"gesture.flick", &questions::flick, true};
inline constexpr Flick flick_too_slow{"gesture.flick-too-slow", &questions::flick, false};
inline constexpr Flick flick_rested{"gesture.flick-rested", &questions::flick, false};
inline constexpr AxisKept axis_horizontal{"gesture.axis-horizontal", &questions::axis, true};
inline constexpr AxisKept axis_vertical{"gesture.axis-vertical", &questions::axis, true};
inline constexpr AxisKept axis_free{"gesture.axis-free", &questions::axis, false};
inline constexpr AxisKept axis_unlocked{"gesture.axis-unlocked", &questions::axis, false};
inline constexpr AnswerWith<AtMost<"from the edge", "dp">> edge_swipe{"gesture.edge-swipe", &questions::edge,
                                                                      true};
inline constexpr Pairs pair_pans{"gesture.pair-pans", &questions::pair, true};
inline constexpr Pairs pair_pinches{"gesture.pair-pinches", &questions::pair, true};
inline constexpr Pairs pair_rotates{"gesture.pair-rotates", &questions::pair, true};
inline constexpr AnswerWith<Number<"scale", "">, Number<"turn", "degrees">, Number<"moved", "dp">> pair_ended{
    "gesture.pair-ended", &questions::pair_end, true};
inline constexpr AnswerWith<> pair_withdrawn{"gesture.pair-withdrawn", &questions::pair_end, false};
inline constexpr Pairs pair_too_little{"gesture.pair-too-little", &questions::pair_end, false};
}  // namespace answers

}  // namespace ubbo
