#pragma once

#include <functional>
#include <string_view>

#include "ubbo/base/journal.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/drag.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/gesture.hpp"
#include "ubbo/touch/pair.hpp"

namespace ubbo {

/// When a single tap is told while a double tap is still possible.
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
};

template <>
std::span<const Setting<GestureSettings>> settings_of<GestureSettings>();

/// Takes the touches on one area for what they are: presses, taps in a row, long presses, drags, flicks, edge
/// swipes, and what two contacts do together. Usable without a part or a stage.
///
/// A press is told at once and withdrawn when it becomes anything but a tap or a long press. Each gesture
/// told as begun is told as ended or withdrawn exactly once. A third contact, and what is left of a pair
/// after one of its contacts has lifted, counts for nothing. Allocates nothing after it is made.
class Gestures {
 public:
  /// What the recogniser stands in: who is asking, the screen, and where its decisions go.
  struct Place {
    std::string_view part{};
    Box screen{};
    Journal* journal = nullptr;
  };

  /// `tell` gets every piece of news. Throws `std::invalid_argument` for a setting out of its range.
  Gestures(GestureSettings settings, Place place, std::function<void(const Gesture&)> tell);

  /// A sound sample of a contact, with the feel for its tool. Call `advance(sample.time)` first.
  void touch(const Contact& contact, const Sample& sample, const Feel& feel);
  /// When something next happens by itself: a long press, or a further tap being ruled out.
  [[nodiscard]] Micros due() const;
  /// Lets time pass.
  void advance(Micros now);
  /// Another part got the contacts: everything that began is withdrawn.
  void withdraw(Micros now);

  /// True while a contact is down.
  [[nodiscard]] bool busy() const { return state_ != State::idle; }
  /// True while a press is to be shown.
  [[nodiscard]] bool pressed() const { return state_ == State::pressed || state_ == State::held; }

 private:
  enum class State : std::uint8_t { idle, pressed, held, dragging, two, spent };
  static constexpr int none = -1;

  void decide(Micros time, const char* question, std::string_view answer,
              std::initializer_list<Fact> facts) const;
  void say(GestureKind kind, GestureStep step, Micros time);
  void down(const Sample& sample);
  void second_down(const Sample& sample);
  void move(const Contact& contact, const Sample& sample);
  void lift(const Contact& contact, const Sample& sample);
  void begin_drag(const Contact& contact, const Sample& sample);
  void end_drag(const Contact& contact, const Sample& sample);
  void tapped(const Contact& contact, const Sample& sample);
  void join_row(const Sample& sample);
  void tell_row(Micros now, bool waited);
  void end_pair(GestureStep step, Micros time);
  void abandon(Micros now);

  GestureSettings settings_;
  Place place_;
  std::function<void(const Gesture&)> tell_;
  Feel feel_{};

  State state_ = State::idle;
  int first_ = none;
  int second_ = none;
  int contacts_ = 0;
  Gesture now_{};  // what is told next: place, offset and the rest are kept up to date here
  Drag drag_;
  Pair pair_;
  GestureKind drag_kind_ = GestureKind::drag;
  Point first_at_{}, second_at_{};
  Micros down_time_{};
  bool locked_ = false;
  Axis lock_ = Axis::horizontal;

  int row_ = 0;            // taps in a row so far; 0: no row is open
  Point row_at_{};         // where the first of them was
  Micros row_began_{};     // when the first of them went down
  Micros row_lifted_{};    // when the last of them ended
  bool row_seen_ = false;  // a row has closed whose end is still worth explaining
  bool row_told_ = false;  // it has been told with its present count
};

/// The questions gestures decide.
namespace questions {
inline constexpr const char* tap = "is it a tap?";
inline constexpr const char* drag = "is it a drag?";
inline constexpr const char* again = "does it belong to the tap before?";
inline constexpr const char* tap_told = "when is the tap told?";
inline constexpr const char* hold = "is it a long press?";
inline constexpr const char* flick = "is it a flick?";
inline constexpr const char* axis = "which axis does it keep to?";
inline constexpr const char* edge = "is it an edge swipe?";
inline constexpr const char* pair = "what do two contacts do?";
}  // namespace questions

}  // namespace ubbo
