#pragma once

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <vector>

#include "ubbo/io/take/take.hpp"
#include "ubbo/touch/wheel.hpp"

namespace ubbo::io {

/// How a hand moves. Lengths in dp, times in ms, each spread as a standard deviation.
struct HandModel {
  const char* name = "";
  double tremor = 0.0;     ///< amplitude of the tremor
  double tremor_hz = 9.0;  ///< its frequency; physiological tremor lies at 8 to 12 Hz
  double scatter = 0.0;    ///< spread of where it lands around the place that was meant
  double roll = 0.0;       ///< how far a fingertip rolls while it is pressed down
  double bow = 0.0;        ///< how far a path bends aside, as a share of its length
  double noise = 0.0;      ///< spread of the sensor's error
  double quantum = 0.0;    ///< the sensor's step; 0: none
  double slowness = 1.0;   ///< what the asked durations are multiplied by
  double tap = 80.0;       ///< how long a tap is down
  double tap_spread = 0.0;
  double gap = 120.0;  ///< from a lift to the next down within a row of taps
  double gap_spread = 0.0;
  double size = 50.0;  ///< width of the contact
};

/// The shipped hands: `steady`, `bare`, `gloved`, `shaky`. Their numbers are our own choice, told in
/// docs/hands.md.
[[nodiscard]] std::span<const HandModel> shipped_hands();
/// The shipped hand of this name. Throws `std::invalid_argument` that names the hands there are.
[[nodiscard]] const HandModel& find_hand(std::string_view name);

/// Makes takes as a hand would. Fingers are told what to do one thing after another; what is made depends on
/// the calls, the hand, the seed and the rate alone.
///
/// Paths follow the minimum-jerk law x(u) = x₀ + (x₁-x₀)·(10u³ - 15u⁴ + 6u⁵), u from 0 to 1 (Flash and Hogan
/// 1985), bent aside a little; a flick is its first half, so that it lifts at its fastest. Tremor, roll,
/// sensor noise and steps are laid over it; the sensor reports at a fixed rate.
class Hand {
 public:
  /// `rate` in samples a second, 10 to 2000, else `std::invalid_argument`.
  explicit Hand(const HandModel& model, std::uint64_t seed = 1, double rate = 120.0);

  /// Goes on as this finger (1 to 10), at the present time.
  Hand& finger(int number);
  Hand& press(Point at);
  Hand& move_to(Point at, Micros over);
  Hand& drag(Point by, Micros over);
  /// Like `drag`, and lifts at the fastest, at about `speed` dp/s.
  Hand& flick(Point by, double speed);
  Hand& wait(Micros time);
  Hand& lift();
  Hand& cancel();
  Hand& tap(Point at, int times = 1);
  /// Presses two fingers `from` apart around `centre`, brings them `to` apart while turning by `angle`
  /// (radians, clockwise), and lifts both.
  Hand& pinch(Point centre, double from, double to, double angle, Micros over);

  /// Brings a mouse that touches nothing to a place, from where it was; the first time it is just there.
  Hand& hover_to(Point at, Micros over);
  /// Where that mouse is; nothing: it is not over the screen.
  [[nodiscard]] std::optional<Point> hovering() const { return hovering_; }
  /// Takes that mouse off the screen.
  Hand& leave();

  /// At the present time the app or the phone does something; its time is set here.
  Hand& action(Action action);
  /// A wheel is turned: notches one after another, 60 ms apart; or, `over` more than 0, two fingers go that
  /// far on a trackpad, and are lifted.
  Hand& wheel(WheelTurn turn, Micros over);

  /// Whether this finger is down.
  [[nodiscard]] bool down() const { return tracks_[active_].down; }
  /// Where this finger is meant to be.
  [[nodiscard]] Point at() const { return tracks_[active_].at; }
  /// The time that has come.
  [[nodiscard]] Micros now() const { return now_; }
  /// Goes back to a time, so that the next actions happen beside those already told, by another finger.
  Hand& rewind(Micros time);

  /// What was made so far, with the hand and the seed in its notes.
  [[nodiscard]] Take take() const;

 private:
  struct Stroke {
    Micros begins, ends;
    Point from, to;
    Point bend;
    bool half = false;
  };
  struct Contact {
    Micros down, up;
    bool ended = false, cancelled = false;
    Point at, scatter, roll;
    std::array<double, 4> phases{};
    std::vector<Stroke> strokes;
  };
  struct Track {
    bool down = false;
    Point at{};
    std::vector<Contact> contacts;
  };

  [[nodiscard]] double uniform();
  [[nodiscard]] double normal();
  [[nodiscard]] Micros about(double ms, double spread);
  Hand& stroke(Point to, Micros over, bool half);
  void end(bool cancelled);
  [[nodiscard]] Point place(const Contact& contact, Micros time) const;

  HandModel model_;
  std::uint64_t seed_;
  std::uint64_t state_;
  double rate_;
  Micros now_{};
  std::vector<Action> done_;
  std::vector<Stroke> hovers_;                    // of a mouse without a contact, one after another
  std::vector<std::pair<Micros, Point>> leaves_;  // when it went off the screen, and from where
  std::optional<Point> hovering_;
  std::size_t active_ = 0;
  std::array<Track, 10> tracks_{};
};

}  // namespace ubbo::io
