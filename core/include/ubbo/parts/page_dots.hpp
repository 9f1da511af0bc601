#pragma once

#include <functional>
#include <string>

#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/press.hpp"

namespace ubbo {

namespace answers {
using Dot = AnswerWith<Number<"x", "dp">, Number<"page", "">, Number<"count", "">>;
inline constexpr Dot dot_pressed{"page-dots.pressed", &questions::press, true};
inline constexpr Dot dot_by_key{"page-dots.by-key", &questions::press, true};
inline constexpr Dot dot_by_wheel{"page-dots.by-wheel", &questions::press, true};
inline constexpr Dot dot_by_call{"page-dots.by-call", &questions::press, true};
inline constexpr std::array<const Answer*, 6> page_dots_answers{&press_left, &press_cancelled, &dot_pressed,
                                                                &dot_by_key, &dot_by_wheel,    &dot_by_call};
}  // namespace answers

/// The settings of page dots. Units, ranges and meanings stand in the settings table.
struct PageDotsSettings {
  std::string label{};
  Link<int> selected{};
  double count = 1;
  double visible_dots = 7;  ///< how many are seen at most
  double gap = 18.0;        ///< dp from dot to dot
  double size = 10.0;       ///< dp across a dot
  Transition transition = Spring::settling(Micros{240'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void(int)> on_choose{};
};

template <>
std::span<const Setting<PageDotsSettings>> settings_of<PageDotsSettings>();

/// A dot for each page, that of the present one filled. Of many only a window is seen, which slides so that
/// the present one stays inside; the dots at its ends are smaller where more follow.
///
/// A tap on a dot goes to its page; beside the dots, to the next or the one before.
class PageDots final : public PartOf<PageDots, PageDotsSettings> {
 public:
  [[nodiscard]] static const PartKind& described();

  PageDots(std::string id, const Box& box, PageDotsSettings&& settings, Context& context);

  void changed();

  [[nodiscard]] int count() const { return static_cast<int>(settings_.count); }
  /// The page the cell says, within those there are.
  [[nodiscard]] int selected() const;
  /// Where the filled dot is, between pages while it travels.
  [[nodiscard]] double position() const { return at_.at(context().now).value; }
  /// The first dot of the window; between two while it slides.
  [[nodiscard]] double first() const { return first_.at(context().now).value; }
  /// How many are seen at most.
  [[nodiscard]] int seen() const { return std::min(count(), static_cast<int>(settings_.visible_dots)); }
  /// The middle of a dot, dp; of a page that lies outside the window too.
  [[nodiscard]] Point place_of(double page) const;
  [[nodiscard]] bool pressed() const { return press_.over(); }

  void present(Accessible& told) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(selected())}; }
  void restore(std::span<const double> saved) { settings_.selected.set(whole(saved[0])); }

 private:
  [[nodiscard]] int window_for(int page) const;
  void show(bool travels);
  [[nodiscard]] int meant_at(Point at) const;
  void choose(int page, const answers::Dot& answer);

  Watch watch_;
  Press press_;
  Clocked<Mover> at_{*this, 0.0, 1e-3};
  Clocked<Mover> first_{*this, 0.0, 1e-3};
};

}  // namespace ubbo
