#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/landing/landing.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/touch/drag.hpp"

namespace ubbo {

/// The settings of a card deck. Units, ranges and meanings stand in the settings table.
struct CardDeckSettings {
  std::string label{};
  Link<int> selected{};                     ///< the index of the topmost card; `count` when all are gone
  Link<std::vector<std::string>> titles{};  ///< a line for each card
  double count = 0;
  bool to_left = true;  ///< cards may be thrown that way
  bool to_right = true;
  bool upwards = false;
  bool downwards = false;
  Length commit_distance = Length::of(0.35);  ///< from which a card is thrown; a share is of its own size
  double turn = 12.0;    ///< degrees a card turns that is dragged by its own width, held at its end
  double behind = 0.06;  ///< how much smaller the next card is, 0 to 1, before it rises
  Transition transition = Spring::settling(Micros{280'000}, 0.05);
  Transition leave = Timed{Curve::ease_out(), Micros{320'000}};
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void(int, Side)> on_throw{};  ///< told which card went to which side
};

template <>
std::span<const Setting<CardDeckSettings>> settings_of<CardDeckSettings>();

/// A stack of cards. The topmost is thrown to a side when it is dragged far enough, or flicked. It turns by
/// where it is held, the next one rises as it goes, and the last card thrown can be taken back.
class CardDeck final : public PartOf<CardDeck, CardDeckSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const CardDeckSettings& settings);

  CardDeck(std::string id, const Box& box, CardDeckSettings&& settings, Context& context);

  void changed(const CardDeckSettings& before);

  [[nodiscard]] int count() const { return static_cast<int>(settings_.count); }
  /// The index of the topmost card; `count()` when all are gone.
  [[nodiscard]] int selected() const;
  /// How far the topmost card is from its place, dp.
  [[nodiscard]] Point offset() const { return {x_.at(context().now).value, y_.at(context().now).value}; }
  /// How far it is turned, radians, clockwise.
  [[nodiscard]] double turn() const { return turn_at(offset()); }
  /// How far the topmost card has risen: 1, and less while the one above it is going.
  [[nodiscard]] double risen() const { return risen_.at(context().now).value; }
  /// How far the next one rises: with the topmost one's way to where it would be thrown, 0 to 1.
  [[nodiscard]] double next_risen() const;
  /// How many cards are on their way out.
  [[nodiscard]] std::size_t flying() const { return flying_.all.size(); }
  /// Card `index` of those on their way out: its place and turn.
  struct Flying {
    int card = 0;
    Mover x{0.0, 0.5};
    Mover y{0.0, 0.5};
    double turn = 0.0;
  };
  [[nodiscard]] const Flying& flying(std::size_t index) const { return flying_.all[index]; }
  [[nodiscard]] bool pressed() const { return pressed_; }
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }

  /// Throws the topmost card to a side that is open to it, without a finger.
  void throw_to(Side side);
  /// Takes the last card that was thrown back, from where it went.
  void undo();
  [[nodiscard]] bool can_throw(Side side) const;
  /// True where a finger may throw cards to that side.
  [[nodiscard]] bool open_to(Side side) const;
  /// How far a card must be dragged to a side to be thrown, dp.
  [[nodiscard]] double throw_distance(Side side) const;
  [[nodiscard]] bool can_undo() const { return selected() > 0; }

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(selected())}; }
  void restore(std::span<const double> saved) { settings_.selected.set(whole(saved[0])); }

 private:
  [[nodiscard]] Side first_side() const;
  static constexpr int none = -1;

  [[nodiscard]] double turn_at(Point offset) const;
  [[nodiscard]] Point beyond(Side side, Point offset) const;
  void send(Side side, Point velocity);
  void back(Point velocity);
  void say_top(int card);
  void deal(int card);
  void take_back();

  Watch watch_;
  struct Flights {
    std::vector<Flying> all;
    [[nodiscard]] Micros due() const;
    [[nodiscard]] bool moving() const { return !all.empty(); }
    void advance(Micros now);
  };
  Clocked<Mover> x_{*this, 0.0, 0.05};
  Clocked<Mover> y_{*this, 0.0, 0.05};
  Clocked<Mover> risen_{*this, 1.0, 1e-3};
  Clocked<Flights> flying_{*this};
  std::vector<Side> thrown_;  // where each card went, for taking back
  Drag drag_;
  Point grabbed_{};     // where the card was when the drag began
  double lever_ = 1.0;  // -1 to 1: how far below its middle it is held, which turns it
  bool pressed_ = false;
  int top_ = 0;  // what the cell said last, or was told
};

namespace questions {
inline constexpr Question card{"card-deck.card"};
}
namespace answers {
using CardLetGo = AnswerWith<AtLeast<"far", "dp">, AtLeast<"speed", "dp/s">>;
inline constexpr CardLetGo card_far{"card-deck.far", &questions::card, true};
inline constexpr CardLetGo card_fast{"card-deck.fast", &questions::card, true};
inline constexpr CardLetGo card_stays{"card-deck.stays", &questions::card, false};
inline constexpr CardLetGo card_flicked_back{"card-deck.flicked-back", &questions::card, false};
inline constexpr AnswerWith<> card_asked{"card-deck.asked", &questions::card, true};
inline constexpr AnswerWith<Number<"card", "">> card_undone{"card-deck.undone", &questions::card, true};
inline constexpr std::array<const Answer*, 6> card_deck_answers{
    &card_far, &card_fast, &card_stays, &card_flicked_back, &card_asked, &card_undone};
}  // namespace answers

}  // namespace ubbo
