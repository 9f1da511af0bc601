#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/press.hpp"

namespace ubbo {

namespace questions {
inline constexpr Question choose{"tabs.choose"};
}
namespace answers {
using TabChosen = AnswerWith<Number<"index", "">, Number<"count", "">>;
inline constexpr TabChosen tab_chosen{"tabs.chosen", &questions::choose, true};
inline constexpr TabChosen tab_is_chosen{"tabs.is-chosen", &questions::choose, false};
inline constexpr TabChosen tab_by_key{"tabs.by-key", &questions::choose, true};
inline constexpr TabChosen tab_by_wheel{"tabs.by-wheel", &questions::choose, true};
inline constexpr TabChosen tab_by_call{"tabs.by-call", &questions::choose, true};
inline constexpr AnswerWith<Number<"index", "">> underline_rests{"tabs.underline-rests", &questions::choose,
                                                                 true};
inline constexpr std::array<const Answer*, 8> tabs_answers{&press_left,    &press_cancelled, &tab_chosen,
                                                           &tab_is_chosen, &tab_by_key,      &tab_by_wheel,
                                                           &tab_by_call,   &underline_rests};
}  // namespace answers

/// The settings of tabs. Units, ranges and meanings stand in the settings table.
struct TabsSettings {
  std::string label{};
  Link<Choice> selected{};
  Link<double> position{};       ///< where between the pages one is, while they are swiped; may be left out
  Axis axis = Axis::horizontal;  ///< vertical: below each other, with the underline along their trailing side
  std::vector<double> widths{};  ///< dp along them, measured, one for each title; none: evenly
  double inset = 12.0;           ///< dp the underline is shorter than its title's place, on each side
  Transition transition = Spring::settling(Micros{260'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void(std::size_t)> on_choose{};
};

template <>
std::span<const Setting<TabsSettings>> settings_of<TabsSettings>();

/// Titles beside or below each other, one of them selected, with an underline whose two ends each travel to
/// the chosen title's.
///
/// The titles are the choice's names; where none is chosen no underline is drawn. Where `position` is
/// linked the underline is where the pages are: half-way between two titles while the pages are. The ends are
/// worked out when titles, widths, box or choice change, and at no other time; at the first layout they are
/// simply there.
class Tabs final : public PartOf<Tabs, TabsSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const TabsSettings& settings);

  Tabs(std::string id, const Box& box, TabsSettings&& settings, Context& context);

  void changed();

  [[nodiscard]] std::size_t count() const { return names().size(); }
  [[nodiscard]] std::span<const std::string> names() const;
  /// The index of what is selected; `count()` when nothing is.
  [[nodiscard]] std::size_t selected() const;
  /// The place of title `index`, dp.
  [[nodiscard]] Box tab(std::size_t index) const;
  /// The underline, dp; without width when nothing is selected.
  [[nodiscard]] Box underline() const;
  [[nodiscard]] bool pressed() const { return press_.over(); }

  void present(Accessible& told) const override;
  void resized() override { measure(false); }
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;
  void update() override;
  /// Chooses the next title, or the one before.
  void step(int by);

  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(selected())}; }
  void restore(std::span<const double> saved);

 private:
  struct Ends {
    double begin = 0.0;
    double end = 0.0;
  };
  [[nodiscard]] std::size_t pressed_tab() const;
  [[nodiscard]] bool upright() const { return settings_.axis == Axis::vertical; }
  bool step_to(std::size_t wanted);
  // From the leading edge, or from the top, dp.
  [[nodiscard]] Ends ends_of(std::size_t index) const;
  [[nodiscard]] Ends wanted() const;
  [[nodiscard]] std::size_t index_at(Point at) const;
  void measure(bool travels);
  void choose(std::size_t index, const answers::TabChosen& answer);

  Watch chosen_watch_;
  Watch page_watch_;
  Press press_;
  std::size_t pressed_index_ = 0;
  Clocked<Mover> begin_{*this, 0.0, 0.05};
  Clocked<Mover> end_{*this, 0.0, 0.05};
  bool laid_out_ = false;
  bool had_one_ = false;
  bool moved_ = false;
};

}  // namespace ubbo
