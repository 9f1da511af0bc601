#pragma once

#include <functional>
#include <optional>

#include "ubbo/base/number_link.hpp"
#include "ubbo/landing/landing.hpp"
#include "ubbo/landing/overscroll.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/touch/drag.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// What the cell of a rail is told.
enum class Tells : std::uint8_t {
  place,   ///< where it is, all the time, also while it moves by itself
  choice,  ///< what the finger means while it drags, and at the lift where it goes
  target,  ///< at the lift where it goes
  rest     ///< where it came to rest
};

/// How people say where something is that was moved along `axis`.
[[nodiscard]] constexpr Sense sense_along(Axis axis) {
  return axis == Axis::horizontal ? Sense::rightwards : Sense::downwards;
}

/// What a rail is made of. Lengths along it are in the part's own unit, unless they say dp.
struct RailPlan {
  Axis axis = Axis::vertical;
  double min = 0.0;
  double max = 0.0;
  double dp_per_unit = 1.0;    ///< not 0; negative where it grows leftwards or upwards
  const char* unit = "dp";     ///< of its decisions
  Sense sense = Sense::plain;  ///< how people say a place along it
  int of = 0;                  ///< for places that are counted: how many there are; 0: not known
  double (*said_as)(const Part&, double place) = nullptr;  ///< what people call a place; none: by its number
  SnapPoints snap_points{};                                ///< none: anywhere
  Transition transition = Spring::settling(Micros{300'000}, 0.0);
  std::optional<Coast> coast{};  ///< without snap points: how it goes on after the lift
  Micros projection_time{0};   ///< how much of the release velocity counts for where it lands; 0: none of it
  double max_per_flick = 0.0;  ///< snap points it goes on by at a time; 0: any number
  Length commit_distance{};    ///< as `Release` has it
  bool hurries = false;  ///< a flick may go faster than the finger, to be there in the transition's time
  Overscroll overscroll_min{};  ///< how each bound yields
  Overscroll overscroll_max{};
  Tells tells = Tells::place;
  PartReduced reduced_motion = PartReduced::as_screen;
  bool stays_caught =
      true;  ///< touched while it moves by itself it stays there; else it goes on after a mere press
  bool snaps_writes = false;  ///< what the app writes means the nearest snap point
};

/// A number that a finger drags along a way between two bounds, and that moves along it by itself: what
/// sliders, panes, sheets and rows own one or two of.
///
/// It keeps the mover, the drag, the place to return to and the link to the app's cell, chooses where it
/// lands, and records why. A part passes on what it gets from the stage, and reads it; the caller has let
/// time pass.
class Rail final : public TimedMember {
 public:
  /// `part` must outlive it. An unlinked `cell` is none; then it starts at 0 within its bounds.
  Rail(Part& part, RailPlan plan, NumberLink cell);
  ~Rail() override;

  /// Called last of all when it has come to rest, while the part's own state may be incomplete.
  std::function<void(double)> on_rest{};

  [[nodiscard]] const RailPlan& plan() const { return plan_; }
  /// Where it is now; past a bound only where that yields.
  [[nodiscard]] double position() const;
  /// The unit per second: the finger's while that drags it.
  [[nodiscard]] double velocity() const;
  /// Where it goes, or stands.
  [[nodiscard]] double target() const { return within(goal()); }
  /// Where to draw it: ahead of `position` while prediction sees a finger ahead.
  [[nodiscard]] double shown() const { return position() + ahead_; }
  [[nodiscard]] double opacity() const { return mover_.opacity_at(part_->context().now); }
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }
  [[nodiscard]] bool pressed() const { return held_ != nullptr; }
  /// True while this one has it.
  [[nodiscard]] bool held_by(const Contact& contact) const { return held_ == &contact; }
  [[nodiscard]] bool moving() const { return mover_.moving(); }
  [[nodiscard]] bool settled() const { return !moving() && !pressed(); }
  /// The largest distance of its contact from where that went down, dp.
  [[nodiscard]] double strayed() const { return drag_.strayed(); }
  /// Where the contact that holds it went down, dp.
  [[nodiscard]] Point press_place() const { return pressed_at_; }
  [[nodiscard]] bool can_go(Side side) const;
  /// Adds where it is decided between its snap points, in its own unit.
  void add_thresholds(std::vector<Threshold>& out) const {
    ubbo::add_thresholds(plan_.snap_points, plan_.commit_distance, out);
  }
  /// Adds how fast it must be at the lift for a flick by a finger, in its own unit per second, where flicks
  /// count.
  void add_flick_speeds(std::vector<Threshold>& out) const;
  /// The first time from `from` on at which its own motion takes it out of these bounds; `never`: it stays,
  /// or does not move. O(time of the motion), at most some 500 looks at it.
  [[nodiscard]] Micros leaves(double min, double max, Micros from) const;

  // A contact. False from `down`: another one has it.

  /// `off_handle`: how far beside the handle that a drag must begin on it went down, dp; up to `reach` it
  /// counts as on it.
  bool down(const Contact& contact, const Sample& sample, double off_handle = 0.0, double reach = 0.0);
  /// It has moved: follows within its bounds, and returns what it cannot follow, dp.
  Point follow(const Contact& contact, const Sample& sample);
  /// Nobody takes what it could not follow: its bound may yield.
  void overscroll();
  /// True: it was a drag, and is on its way. False: a press; what becomes of it is up to the part, which then
  /// calls `tapped_at` or `resume`.
  bool lift(const Contact& contact, const Sample& sample);
  /// Whether the press that has just been lifted, and was no drag, was a tap; says so, or why not.
  bool was_tap(const Contact& contact, const Sample& sample) const;
  /// Says why a press that came to nothing was no drag, if it moved at all.
  void explain_press(const Contact& contact, const Sample& sample) const;
  /// The contact was cancelled or lost: it goes where it was going, or where the app has sent it since.
  void let_go(LetGo how);
  /// A mere press was lifted: it goes on as before, or stays where it was caught.
  void resume();
  bool take_over(const Contact& contact, Point anchor);
  void hand_over();
  void left_behind();
  /// It gave its contact away, which goes on elsewhere: it has yet to land.
  [[nodiscard]] bool owes_landing() const { return owes_landing_; }
  bool take_momentum(Point velocity);
  Point predict(Point ahead);

  /// A tap meant `place`: it lands on the snap point nearest to it.
  void tapped_at(double place);
  /// The part has decided that it goes to `place`, which it says itself; on with its speed.
  void go_to(double place) { choose(plan_.snap_points.snapped(within(place)), speed()); }
  /// A key that means `place`.
  void key(double place);

  void add_timing(Timing& timing) const override {
    if (pressed()) timing.add({.due = ahead_until_, .settled = false});
    if (!moving()) return;
    timing.add({.due = due(), .settled = false, .catches = true});
    if (plan_.tells != Tells::place || !cell_.linked()) return;
    timing.tells = true;
    if (!watch_.alone()) timing.shares = cell_.cell();
  }
  void advance(Micros now) override;
  /// The part heard of a change of a cell, which may be its own.
  void cell_changed();
  /// What the cell says counts anew, where it stands elsewhere: it may be able to go there now.
  void heed_cell();
  void tell_place() override;
  void carry(const void* cell) override;
  /// Other settings, and perhaps another cell. What is under a finger stays there, and what moves goes on,
  /// as far as it still may.
  void change(RailPlan plan, NumberLink cell);
  /// The way has become longer or shorter on the screen.
  void set_dp_per_unit(double dp_per_unit);
  /// Other bounds, such as when a second thumb has moved: what goes, or stands, beyond them comes to the
  /// nearest place it may be.
  void set_bounds(double min, double max);
  /// What it is measured from has moved: it, where it goes and the finger's hold on it are `by` further on,
  /// between other bounds, and nothing of it changes its speed. What goes beyond the new bounds stops there.
  void shift(double by, double min, double max);
  /// Other places to rest; where it is it stays until it is moved.
  void set_snap_points(SnapPoints snap_points) {
    plan_.snap_points = std::move(snap_points);
    step_.around = 0.0;
  }
  /// It goes to `place` instead, on with its speed, and nothing is said of it: what it is to reach has moved.
  void aim_at(double place);
  /// It is at `place`, put there by another; at rest.
  void put(double place);
  /// The same, and its cell is not told: it says so already.
  void put_at(double place);

 private:
  /// A place along it, and how far two are apart, for its decisions.
  [[nodiscard]] Amount own(double place) const;
  [[nodiscard]] Amount difference(double length) const { return {length, plan_.unit}; }
  static constexpr double min_speed = 0.5;  // dp/s; slower than that is no speed

  [[nodiscard]] double within(double value) const { return std::clamp(value, plan_.min, plan_.max); }
  [[nodiscard]] Micros due() const { return std::min({hit_, ahead_until_, mover_.due()}); }
  [[nodiscard]] double goal() const { return onward_ ? onward_->target : mover_.target(); }
  /// Of its own motion.
  [[nodiscard]] double speed() const { return mover_.at(part_->context().now).velocity; }
  [[nodiscard]] const Overscroll& overscroll_at(double value) const {
    return value < plan_.min ? plan_.overscroll_min : plan_.overscroll_max;
  }
  [[nodiscard]] double wanted() const {
    return grabbed_ + along(plan_.axis, drag_.offset()) / plan_.dp_per_unit;
  }
  [[nodiscard]] double yielded(double wanted) const;
  [[nodiscard]] double pulled(double shown) const;
  [[nodiscard]] double floor() const;
  void link(NumberLink cell);
  void hold(const Contact& contact, Point at);
  void release();
  void show_dragged(double place);
  void land(double velocity, bool flick);
  void fly(double velocity);
  void meet_bound();
  void reach_bound();
  void choose(double target, double velocity, bool thrown = false);
  void go(double target, double velocity, bool thrown);
  void throw_to(double target, double velocity);
  void stop_short();
  void give_up_hidden(double min, double max);
  void set_off();
  void rest();
  void tell(double value);

  Part* part_;
  RailPlan plan_;
  NumberLink cell_;
  Watch watch_;
  Mover mover_;
  Drag drag_;
  const Contact* held_ = nullptr;
  Point pressed_at_{};
  double off_handle_ = 0.0;  // dp beside the handle; 0: on it
  double handle_reach_ = 0.0;
  double grabbed_ = 0.0;        // where it was when the drag began, as if no bound had yielded
  Micros ahead_until_ = never;  // then the finger rests, and prediction sees nothing ahead
  double ahead_ = 0.0;          // how far prediction sees it beyond where it is
  bool caught_ = false;         // the press stopped a motion
  bool owes_landing_ = false;   // a contact went on elsewhere and left it between its snap points
  struct Onward {
    double target;
    double velocity;
  };
  std::optional<Onward> onward_;  // where it goes when it has come near enough at the finger's speed
  Micros hit_ = never;            // when it meets its bound under way
  bool owes_cell_ = false;        // the cell has yet to hear of a place the user chose
  SnapPoints::Found step_{};      // the snap point the finger was last nearest to
  bool at_end_ = false;           // the finger is at a bound, or beyond
  bool owes_snap_ = false;        // a finger let it go, and it has yet to rest
  double cell_value_ = 0.0;       // what we last saw or wrote in the cell
  struct Asked {
    double value;
    Write how;
  };
  std::optional<Asked> asked_;  // what was written to the cell, and it has yet to deal with
  double origin_ = 0.0;         // where it stood, or went, when a finger took it
  double return_to_ = 0.0;      // where it goes when the contact comes to nothing, and the cell's value then
  double return_cell_ = 0.0;
};

/// For the readings of a part `P` that tells its `rail()`: where it is decided, and how fast a flick is.
template <class P>
void rail_thresholds(const Part& part, std::vector<Threshold>& out) {
  static_cast<const P&>(part).rail().add_thresholds(out);
}
template <class P>
void rail_flick_speeds(const Part& part, std::vector<Threshold>& out) {
  static_cast<const P&>(part).rail().add_flick_speeds(out);
}

namespace questions {
inline constexpr Question speed{"rail.speed"};
inline constexpr Question rest{"rail.rest"};
inline constexpr Question cancelled{"rail.cancelled"};
inline constexpr Question write{"rail.write"};
inline constexpr Question bound{"rail.bound"};
inline constexpr Question caught{"rail.caught"};
}  // namespace questions
namespace answers {
using Lifted = AnswerWith<Number<"velocity", "dp/s">, AtMost<"rested", "ms">, Number<"samples", "">>;
using ContactCancelled = AnswerWith<OwnNumber<"from">, OwnNumber<"to">>;
using Written = AnswerWith<OwnNumber<"written">, OwnNumber<"to">>;
using AtBound = AnswerWith<OwnNumber<"place">, Number<"speed", "dp/s">>;
inline constexpr Lifted lifted_moving{"rail.lifted-moving", &questions::speed, true};
inline constexpr Lifted lifted_resting{"rail.lifted-resting", &questions::speed, false};
inline constexpr Lifted lifted_still{"rail.lifted-still", &questions::speed, false};
inline constexpr AnswerWith<OwnNumber<"value">> at_rest{"rail.at-rest", &questions::rest, true};
inline constexpr ContactCancelled goes_back{"rail.goes-back", &questions::cancelled, true};
inline constexpr ContactCancelled stays_cancelled{"rail.stays-cancelled", &questions::cancelled, false};
inline constexpr Written write_moves{"rail.write-moves", &questions::write, true};
inline constexpr Written write_limited{"rail.write-limited", &questions::write, true};
inline constexpr Written write_is_there{"rail.write-is-there", &questions::write, false};
inline constexpr AnswerWith<OwnNumber<"written">> write_waits{"rail.write-waits", &questions::write, false};
inline constexpr AnswerWith<> write_unusable{"rail.write-unusable", &questions::write, false};
inline constexpr AtBound bound_passes_on{"rail.bound-passes-on", &questions::bound, true};
inline constexpr AtBound bound_yields{"rail.bound-yields", &questions::bound, true};
inline constexpr AtBound bound_stops{"rail.bound-stops", &questions::bound, false};
inline constexpr AnswerWith<OwnNumber<"place">> caught_stays{"rail.caught-stays", &questions::caught, true};
inline constexpr AnswerWith<OwnNumber<"place">, OwnNumber<"to">> caught_goes_on{"rail.caught-goes-on",
                                                                                &questions::caught, false};
}  // namespace answers

}  // namespace ubbo
