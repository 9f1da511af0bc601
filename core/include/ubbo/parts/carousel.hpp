#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

/// The settings of a carousel. Units, ranges and meanings stand in the settings table.
struct CarouselSettings {
  std::string label{};
  Link<int> selected{};
  Link<double> position{};  ///< told where it is, in items, as it moves, for tabs and titles; writing to it
                            ///< moves nothing: write `selected`
  Link<std::vector<std::string>> titles{};  ///< a line for each item
  double count = 0;
  Axis axis = Axis::horizontal;
  double visible_items = 1.0;       ///< items that the box holds beside each other, parts of one too
  double visible_items_wide = 0.0;  ///< where the box is at least as wide as `wide_from`; 0: `visible_items`
  double wide_from = 600.0;         ///< dp
  double spacing = 0.0;             ///< dp between items
  double peek = 0.0;                ///< dp of the neighbours at either side
  double start = 0.0;               ///< dp the selected item is moved in from where it would stand
  bool wrap = false;                ///< behind the last comes the first
  bool coasts = false;              ///< it rests wherever friction lets it come
  double max_per_flick = 1;         ///< items that one flick goes on by; 0: any number
  Length commit_distance{};         ///< to go on to the next item; a share is of the way there; 0: half-way
  double shrink = 0.0;              ///< how much smaller an item is that is one away or more, 0 to 1
  double fade = 0.0;                ///< how much less opaque
  double parallax = 0.5;            ///< how fast what lies far behind the items moves, of their own rate
  Transition transition = Spring::settling(Micros{320'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{140'000};
  Micros half_life{220'000};
  Overscroll::How overscroll_start = Overscroll::How::damped;  ///< how it yields before its first item
  Overscroll::How overscroll_end = Overscroll::How::damped;    ///< and beyond its last
  double overscroll_fraction = 0.5;
  double overscroll_reach = 90.0;  ///< dp
  std::function<void(int, double)>
      on_move{};                       ///< told the nearest index and the share of the way to the next
  std::function<void(int)> on_rest{};  ///< told the index each time it comes to rest
};

template <>
std::span<const Setting<CarouselSettings>> settings_of<CarouselSettings>();

/// Items in a row, one of them selected, moved by a finger, by a tap on a neighbour, by keys and by calls. It
/// may wrap around.
///
/// One rail, in items, is all it keeps, so what it costs does not depend on their number. What an item looks
/// like follows from its distance alone: `look(distance)`.
class Carousel final : public PartOf<Carousel, CarouselSettings>, public DragSurface {
 public:
  /// How an item is drawn that lies `distance` items away.
  struct Look {
    double scale = 1.0;
    double opacity = 1.0;
  };

  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const CarouselSettings& settings);

  Carousel(std::string id, const Box& box, CarouselSettings&& settings, Context& context);

  void changed(const CarouselSettings& before);

  [[nodiscard]] int count() const { return static_cast<int>(settings_.count); }
  /// Where it is, in items; 0 is the first. Wrapped it goes on past either end, and counts on.
  [[nodiscard]] double position() const { return rail_.position(); }
  /// Where it goes, or stands, in items.
  [[nodiscard]] double target() const { return rail_.target(); }
  /// Items a second.
  [[nodiscard]] double velocity() const { return rail_.velocity(); }
  /// The item nearest to where it is, 0 to `count() - 1`; 0 when there is none.
  [[nodiscard]] int selected() const { return item_at(position()); }
  /// How far it is from that item towards the next: -0.5 to 0.5.
  [[nodiscard]] double fraction() const;
  /// An item's length along the row, dp.
  [[nodiscard]] double item_length() const;
  /// Where the item stands that is `place` in the row, dp; wrapped, place 5 of 5 is the first again.
  [[nodiscard]] Box item(double place) const;
  [[nodiscard]] Look look(double distance) const;
  /// How far a layer has moved that moves at `rate` of the items' own, dp.
  [[nodiscard]] double layer_offset(double rate) const;
  /// What it goes along, in items.
  [[nodiscard]] const Rail& rail() const { return rail_; }
  [[nodiscard]] bool pressed() const { return rail_.pressed(); }
  [[nodiscard]] bool dragging() const { return rail_.dragging(); }

  /// Goes to an item, the short way round where it wraps; past either end it is the last.
  void go_to(int index);
  void next() { step(1); }
  void previous() { step(-1); }
  /// Goes `by` items on, or back when that is below 0.
  void step(int by);

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override {
    const bool upright = settings_.axis == Axis::vertical;
    return {.horizontal = count() > 0 && !upright, .vertical = count() > 0 && upright};
  }
  void resized() override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override { rail_.cell_changed(); }
  void update() override;

  [[nodiscard]] bool can_go(Side side) const override { return count() > 0 && rail_.can_go(side); }
  Point drag_to(const Contact& contact, const Sample& sample) override;
  void overscroll() override { rail_.overscroll(); }
  bool take_over(const Contact& contact, Point anchor) override;
  void hand_over() override { rail_.hand_over(); }
  void left_behind() override { rail_.left_behind(); }
  bool take_momentum(Point velocity) override { return count() > 0 && rail_.take_momentum(velocity); }
  Point predict(Point) override { return {}; }

  [[nodiscard]] std::array<double, 1> saved() const { return {target()}; }
  void restore(std::span<const double> saved);

 private:
  [[nodiscard]] RailPlan plan() const;
  [[nodiscard]] bool mirrored() const {
    return settings_.axis == Axis::horizontal && context().right_to_left;
  }
  [[nodiscard]] double pitch() const { return item_length() + settings_.spacing; }
  [[nodiscard]] double wrapped(double place) const;
  [[nodiscard]] int item_at(double place) const;
  [[nodiscard]] double place_near(int index) const;
  [[nodiscard]] NumberLink number();
  void take_step(int by);

  // The cell that goes along with it; others that show it know of its place before anything happens.
  struct PositionCell final : TimedMember {
    explicit PositionCell(Carousel& carousel) : TimedMember(carousel), carousel_(&carousel) {}
    void add_timing(Timing& timing) const override {
      timing.tells = carousel_->settings_.position.linked() || carousel_->settings_.on_move;
      if (carousel_->rail_.moving()) timing.add({.shares = carousel_->settings_.position.cell()});
    }
    void tell_place() override { carousel_->update(); }
    Carousel* carousel_;
  };

  Rail rail_;
  PositionCell position_{*this};
  double told_ = 0.0;
};

namespace answers {
inline constexpr AnswerWith<Number<"item", "">, Number<"away", "">> item_tapped{"carousel.tapped",
                                                                                &questions::landing, true};
inline constexpr AnswerWith<Number<"item", "">> item_asked{"carousel.asked", &questions::landing, true};
inline constexpr std::array<const Answer*, 2> carousel_answers{&item_tapped, &item_asked};
}  // namespace answers

}  // namespace ubbo
