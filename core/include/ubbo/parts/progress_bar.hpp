#pragma once

#include <optional>
#include <string>

#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// The settings of a progress bar. Units, ranges and meanings stand in the settings table.
struct ProgressBarSettings {
  std::string label{};
  Link<double> fraction{};
  Axis axis = Axis::horizontal;
  bool unknown = false;  ///< how far it is cannot be told: something passes along it
  Transition transition = Timed{Curve::ease_in_out(), Micros{260'000}};
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros round{1'400'000};  ///< one pass of what passes along it
};

template <>
std::span<const Setting<ProgressBarSettings>> settings_of<ProgressBarSettings>();

/// A bar that eases to a new share. It takes no touch: what lies below it does.
class ProgressBar final : public PartOf<ProgressBar, ProgressBarSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const ProgressBarSettings& settings);

  ProgressBar(std::string id, const Box& box, ProgressBarSettings&& settings, Context& context);

  void changed();

  /// Sets the cell to `share` (0 to 1) and goes there by `transition`, this once. The transition must not
  /// repeat.
  void show(double fraction, const Transition& transition);

  /// How far the bar is filled now, 0 to 1.
  [[nodiscard]] double fraction() const { return mover_.at(context().now).value; }
  /// Where it goes, or stands.
  [[nodiscard]] double target() const { return mover_.target(); }
  /// The part of the bar that is filled, dp; of an unknown share what passes along it.
  [[nodiscard]] Box fill() const;

  void present(Accessible& told) const override;
  [[nodiscard]] bool takes(Point) const override { return false; }
  void cell_changed() override;
  void update() override;

 private:
  [[nodiscard]] bool passes() const;
  [[nodiscard]] double wanted() const;
  void go(const Transition& transition, bool travels, bool anew = false);

  Watch watch_;
  Clocked<Mover> mover_{*this, 0.0, 1e-4};
  // What passes along it for ever is never at rest, and never due.
  struct Endless final : TimedMember {
    explicit Endless(ProgressBar& bar) : TimedMember(bar), bar_(&bar) {}
    void add_timing(Timing& timing) const override { timing.add({.settled = !bar_->passes()}); }
    ProgressBar* bar_;
  } endless_{*this};
  bool said_ = true;
};

namespace questions {
inline constexpr Question fill{"progress-bar.fill"};
}
namespace answers {
inline constexpr AnswerWith<Number<"fraction", "">> filled_to{"progress-bar.filled-to", &questions::fill,
                                                              true};
inline constexpr std::array<const Answer*, 1> progress_answers{&filled_to};
}  // namespace answers

}  // namespace ubbo
