#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/press.hpp"
#include "ubbo/touch/drag.hpp"

namespace ubbo {

namespace questions {
inline constexpr Question rate{"rating.rate"};
}
namespace answers {
using Rated = AnswerWith<Number<"x", "dp">, Number<"meant", "">, Number<"marks", "">>;
inline constexpr Rated rated{"rating.rated", &questions::rate, true};
inline constexpr Rated rated_none{"rating.rated-none", &questions::rate, true};
inline constexpr AnswerWith<Number<"meant", "">> rating_goes_back{"rating.goes-back", &questions::rate,
                                                                  false};
inline constexpr std::array<const Answer*, 4> rating_answers{&press_left, &rated, &rated_none,
                                                             &rating_goes_back};
}  // namespace answers

/// The settings of a rating. Units, ranges and meanings stand in the settings table.
struct RatingSettings {
  std::string label{};
  Link<double> value{};
  double marks = 5;
  bool halves = false;
  bool clears = true;  ///< a drag off the low end clears it
  std::function<void(double)> on_rate{};
};

template <>
std::span<const Setting<RatingSettings>> settings_of<RatingSettings>();

/// A rating by marks in a row. The mark under the finger counts, at the touch and all along a drag; off the
/// low end there is none.
///
/// Of two marks that meet, the left edge of a region is its own and the right edge the next one's; beyond
/// either end the last one counts. The cell follows the finger once it drags, else it is told at the lift; a
/// cancel goes back to what it was. What the app writes meanwhile counts until the finger means another mark.
class Rating final : public PartOf<Rating, RatingSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  Rating(std::string id, const Box& box, RatingSettings&& settings, Context& context);

  void changed() {}

  /// What the cell says, as marks can show it: within 0 and `marks`, to the whole or the half.
  [[nodiscard]] double value() const;
  /// What is shown: the value, or what the finger means.
  [[nodiscard]] double shown() const { return press_.held() ? meant_ : value(); }
  [[nodiscard]] bool pressed() const { return press_.held(); }
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }
  /// The region of mark `index`, from 0, dp.
  [[nodiscard]] Box mark(std::size_t index) const;
  /// What a finger at `at` means.
  [[nodiscard]] double meant_at(Point at) const;

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override {
    return {.handle = true, .horizontal = true};
  }
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;

  [[nodiscard]] std::array<double, 1> saved() const { return {value()}; }
  void restore(std::span<const double> saved) { settings_.value.set(saved[0]); }

 private:
  [[nodiscard]] double unit() const { return settings_.halves ? 0.5 : 1.0; }
  void rate(double value, const answers::Rated& answer);
  [[nodiscard]] bool app_wrote() const;

  Press press_;
  Drag drag_{Axis::horizontal};
  double meant_ = 0.0;
  double before_ = 0.0;  // what a cancel goes back to
  double said_ = 0.0;    // what the cell held when the finger last had a say
};

}  // namespace ubbo
