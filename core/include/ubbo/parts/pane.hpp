#pragma once

#include <functional>
#include <vector>

#include "ubbo/landing/landing.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/touch/drag.hpp"

namespace ubbo {

/// What a pane moves: itself with all that lies in it, or only what lies in it.
enum class Moves : std::uint8_t { itself, content };

/// The settings of a pane. Units, ranges and meanings stand in the settings table.
struct PaneSettings {
  std::string label{};
  Link<double> offset{};  ///< where it is, dp; optional: a pane without one starts at 0 within its bounds
  double least = 0.0;     ///< dp
  double most = 0.0;      ///< dp
  Axis axis = Axis::vertical;
  Moves moves = Moves::content;
  std::vector<double> rests{};  ///< dp; empty: it rests wherever it is let go
  Passage passage = Spring::settling(Micros{300'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros carry{120'000};
};

template <>
std::span<const Setting<PaneSettings>> settings_of<PaneSettings>();

/// A surface that follows the finger along one axis between two bounds: the ground of lists, rows and sheets.
///
/// What it cannot follow at a bound is offered to the parts it lies in, or that lie in it, within the same
/// touch: a list at its end moves the sheet around it, and takes the finger back when the sheet is at its own
/// end.
class Pane final : public Part {
 public:
  using Settings = PaneSettings;

  /// Throws `std::invalid_argument` for a setting out of its range, or `most` below `least`.
  Pane(std::string id, Box box, PaneSettings settings, Surroundings& around);

  [[nodiscard]] const PaneSettings& settings() const { return settings_; }
  /// Where it is along its axis, dp; grows to the right and downwards.
  [[nodiscard]] double offset() const { return clamp(mover_.value()); }
  /// Where to draw it: `offset`, or while it is dragged where the feel's prediction sees it. Decides nothing.
  [[nodiscard]] double shown() const { return clamp(mover_.value() + ahead_); }
  [[nodiscard]] double target() const { return mover_.target(); }
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }

  [[nodiscard]] bool settled() const override { return !mover_.moving() && held_by_ == nullptr; }
  [[nodiscard]] Accessible accessible() const override;
  [[nodiscard]] Wish wish(const Sample& sample) const override;
  [[nodiscard]] Point carries() const override;
  [[nodiscard]] Point moved() const override {
    return settings_.moves == Moves::itself ? carries() : Point{};
  }
  [[nodiscard]] double presence() const override { return mover_.presence(); }
  [[nodiscard]] bool can_go(Side side) const override;
  [[nodiscard]] Point leftover() const override;
  bool take_over(const Contact& contact, Point anchor) override;
  void hand_over() override;
  bool touch(const Contact& contact, const Sample& sample) override;
  [[nodiscard]] Micros due() const override { return mover_.due(); }
  void advance(Micros now) override;

 private:
  [[nodiscard]] double clamp(double value) const {
    return std::clamp(value, settings_.least, settings_.most);
  }
  void hold(const Contact& contact, Point at);
  void follow(const Contact& contact, const Sample& sample);
  void let_go(const Contact& contact, const Sample& sample);
  void send(double target, double velocity);
  void go(double target, double velocity);
  void tell(double value);

  PaneSettings settings_;
  SnapPoints snaps_;
  Mover mover_;
  Drag drag_;
  const Contact* held_by_ = nullptr;
  double grabbed_ = 0.0;
  double return_to_ = 0.0;
  double leftover_ = 0.0;
  double ahead_ = 0.0;  // how far prediction sees it beyond where it is
  double cell_value_ = 0.0;
  Watch watch_;
};

}  // namespace ubbo
