#pragma once

#include <array>
#include <functional>
#include <optional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/press.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

/// The settings of a swipe row. Units, ranges and meanings stand in the settings table.
struct SwipeRowSettings {
  std::string label{};
  double leading = 0.0;   ///< dp it opens by over what lies at its leading side; 0: not that way
  double trailing = 0.0;  ///< dp it opens by at its trailing side; 0: not that way
  double above = 0.0;     ///< dp it slides down by, over what lies above it; 0: not that way
  double below = 0.0;
  std::string leading_label{};  ///< what lies there, such as "Visited"; for people and screen readers
  std::string trailing_label{};
  std::string above_label{};
  std::string below_label{};
  std::string leading_glyph{};  ///< the sign beside that label, by a skin's name
  std::string trailing_glyph{};
  std::string above_glyph{};
  std::string below_glyph{};
  Rank leading_rank = Rank::plain;  ///< what the action there is to people
  Rank trailing_rank = Rank::plain;
  Rank above_rank = Rank::plain;
  Rank below_rank = Rank::plain;
  /// Cells that count how often the action there was pressed. A side takes presses where its cell is linked
  /// or `on_action` is given; else what lies behind the row gets them.
  Link<int> leading_presses{};
  Link<int> trailing_presses{};
  Link<int> above_presses{};
  Link<int> below_presses{};
  bool action_closes = true;  ///< a press of an action closes the row
  Length open_distance =
      Length::of(0.5);       ///< from which it opens; a share is of where it is open; 0: half-way
  Length commit_distance{};  ///< from which a long swipe commits; a share is of its own length; 0: none does
  Micros closes_after{0};    ///< once open, it closes by itself after this time; 0: it stays
  Micros timeout{
      0};  ///< once committed, it shows as failed when the app has not answered within this time; 0: never
  Link<std::string> open{};  ///< the id of the row that is open, for all that share the cell: one at a time
  Transition transition = Spring::settling(Micros{260'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{120'000};
  Overscroll::How overscroll =
      Overscroll::How::damped;       ///< how it yields past its furthest place on a side it opens to
  double overscroll_fraction = 0.3;  ///< of a finger's way, where it yields by a share
  double overscroll_reach = 36.0;    ///< dp, where it yields less and less
  std::function<void(const char*)> on_open{};    ///< told the side it opens over, at the lift
  std::function<void(const char*)> on_commit{};  ///< told the side that a long swipe committed, at the lift
  std::function<void(const char*)> on_action{};  ///< told the side whose action was pressed
  std::function<void(const char*, double)>
      on_fraction{};  ///< told the side, and how far it is open over it: 1 is open; as it moves
  std::function<void()> on_removed{};  ///< its place has closed after `remove`: it can be taken away
};

template <>
std::span<const Setting<SwipeRowSettings>> settings_of<SwipeRowSettings>();

/// A row that slides aside, over what lies behind it at up to four sides.
///
/// Dragged far enough, or flicked, it opens there and stays, or closes by itself after a time. A long swipe
/// commits: the row stays away until the app calls `reset`, `remove` or `fail`, and shows as failed when no
/// answer comes in time. What it uncovers is an action that may be pressed. Both times pause while a finger
/// is on it. Rows that share the cell `open` are open one at a time; one that the cell names from the first
/// is open from the first.
class SwipeRow final : public PartOf<SwipeRow, SwipeRowSettings>,
                       public Container,
                       public DragSurface,
                       public BackTaker {
 public:
  enum class State : std::uint8_t { closed, open, committed, failed, removed };

  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const SwipeRowSettings& settings);

  SwipeRow(std::string id, const Box& box, SwipeRowSettings&& settings, Context& context);

  void changed();

  /// How far it has slid, dp on the screen.
  [[nodiscard]] Point offset() const;
  /// How far it is open towards a side: 0 closed, 1 open, beyond that on the way to a commit; negative for
  /// the trailing side and below.
  [[nodiscard]] double fraction() const;
  /// The side it is open over, or moves over: "leading", "trailing", "above", "below"; "" when closed.
  [[nodiscard]] const char* side() const;
  [[nodiscard]] State state() const { return state_; }
  /// What lies at that side, by the settings; "" when closed.
  [[nodiscard]] const std::string& side_label() const;
  /// The sign beside that, and the rank of the action there.
  [[nodiscard]] const std::string& side_glyph() const;
  [[nodiscard]] Rank side_rank() const;
  /// How much of its place is left: 1, and after `remove` down to 0.
  [[nodiscard]] double room() const { return room_.at(context().now).value; }
  /// What it slides along, to the sides or up and down.
  [[nodiscard]] const Rail& rail(Axis axis) const { return rails_[static_cast<std::size_t>(axis)]; }
  [[nodiscard]] bool pressed() const { return rails_[0].pressed() || rails_[1].pressed(); }
  [[nodiscard]] bool dragging() const { return rails_[0].dragging() || rails_[1].dragging(); }

  /// Opens over a side: 0 leading, 1 trailing, 2 above, 3 below. Waits for the lift.
  void open(int side);
  /// Goes back and is as it was; takes it from a finger.
  void reset();
  /// What was committed has failed: the row shows that, and stays away until `reset`.
  void fail();
  /// Its place closes; then it may be taken away. Takes it from a finger.
  void remove();
  /// Whether it could open over that side now.
  [[nodiscard]] bool can_open(int side) const;
  /// Presses the action of a side, as a finger would: 0 leading, 1 trailing, 2 above, 3 below. Waits for the
  /// lift.
  void press_action(int side);
  /// Whether the action of that side may be pressed.
  [[nodiscard]] bool has_action(int side) const;
  /// Where it lies when it is closed, dp on the screen. Slid down or up it is seen and touched within that
  /// alone, with all that lies in it: above and below others lie.
  [[nodiscard]] Box place() const { return box() + (Point{} - offset()); }
  /// What it has uncovered of the action there, dp on the screen; without an extent while it is closed.
  [[nodiscard]] Box uncovered() const;
  /// The side whose action it uncovers, as `open` takes it; below 0: none.
  [[nodiscard]] int uncovered_side() const;
  /// A finger presses the action that it uncovers.
  [[nodiscard]] bool action_pressed() const { return press_.over(); }

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override;
  [[nodiscard]] Point moved() const override { return offset(); }
  [[nodiscard]] Point carries(const Part&) const override { return offset(); }
  [[nodiscard]] std::optional<Box> window() const override;
  [[nodiscard]] bool takes(Point at) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void resized() override;
  void cell_changed() override;
  void update() override;

  [[nodiscard]] bool can_go(Side side) const override;
  Point drag_to(const Contact& contact, const Sample& sample) override;
  void overscroll() override;
  bool take_over(const Contact& contact, Point anchor) override;
  void hand_over() override;
  void left_behind() override;
  bool take_momentum(Point velocity) override;
  Point predict(Point) override { return {}; }

  [[nodiscard]] bool wants_back() const override { return state_ == State::open; }
  void back() override { goes_back(); }

  /// The side it is open on, as `open` takes it; below 0: none.
  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(saved_side())}; }
  void restore(std::span<const double> saved);

 private:
  [[nodiscard]] RailPlan plan(std::size_t axis) const;
  [[nodiscard]] double length(std::size_t axis) const { return axis == 0 ? layout_box().w : layout_box().h; }
  [[nodiscard]] std::array<double, 2> sides(std::size_t axis) const;
  [[nodiscard]] double commit_from(std::size_t axis) const;
  [[nodiscard]] std::size_t moving_axis() const;
  [[nodiscard]] bool moving() const { return rails_[0].moving() || rails_[1].moving(); }
  [[nodiscard]] bool committed() const { return state_ != State::closed && state_ != State::open; }
  void land(const Contact& contact, const Sample& sample);
  [[nodiscard]] bool on_action(Point at) const;
  void act(int side);
  void watch();
  [[nodiscard]] int first_side() const;
  void chosen(std::size_t axis);
  [[nodiscard]] int saved_side() const;
  [[nodiscard]] double place_of(int side) const;
  std::size_t aim_at(int side);
  void open_to(int side);
  void close();
  void goes_back();
  void tell_fraction();

  State state_ = State::closed;
  std::size_t axis_ = 0;       // that it was last dragged along, or sent
  std::array<Rail, 2> rails_;  // to the trailing side, downwards
  Watch watch_;
  Clocked<Mover> room_{*this, 1.0, 1e-3};
  Alarm returns_;
  Alarm timeout_;
  PlaceTeller share_teller_{*this, [this] { tell_fraction(); }};
  double told_ = 0.0;
  bool told_removed_ = false;
  Press press_;  // of the action that it uncovers
};

/// "closed", "open", …
[[nodiscard]] const char* name_of(SwipeRow::State state);

namespace questions {
inline constexpr Question swipe{"swipe-row.swipe"};
inline constexpr Question swipe_action{"swipe-row.action"};
}  // namespace questions
namespace answers {
inline constexpr AnswerWith<Number<"place", "dp">> swipe_opens{"swipe-row.opens", &questions::swipe, true};
inline constexpr AnswerWith<AtLeast<"from", "dp">> swipe_commits{"swipe-row.commits", &questions::swipe,
                                                                 true};
inline constexpr AnswerWith<> swipe_closes{"swipe-row.closes", &questions::swipe, true};
inline constexpr AnswerWith<Number<"waited", "ms">> swipe_returns{"swipe-row.returns", &questions::swipe,
                                                                  true};
inline constexpr AnswerWith<Number<"waited", "ms">> swipe_timed_out{"swipe-row.timed-out", &questions::swipe,
                                                                    false};
inline constexpr AnswerWith<> swipe_failed{"swipe-row.failed", &questions::swipe, false};
inline constexpr AnswerWith<> swipe_removed{"swipe-row.removed", &questions::swipe, true};
inline constexpr AnswerWith<> swipe_action_pressed{"swipe-row.action-pressed", &questions::swipe_action,
                                                   true};
inline constexpr std::array<const Answer*, 8> swipe_row_answers{
    &swipe_opens,     &swipe_commits, &swipe_closes,  &swipe_returns,
    &swipe_timed_out, &swipe_failed,  &swipe_removed, &swipe_action_pressed};
}  // namespace answers

}  // namespace ubbo
