#pragma once

#include <array>
#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

/// The ways a draggable may go.
enum class Freedom : std::uint8_t { both, horizontal, vertical };

/// The settings of a draggable. Units, ranges and meanings stand in the settings table.
struct DraggableSettings {
  std::string label{};
  Link<double> offset_x{};  ///< dp from where it was put, to the right
  Link<double> offset_y{};  ///< dp, downwards
  Freedom along = Freedom::both;
  double grid = 0.0;      ///< dp from place to place; 0: anywhere
  double farthest = 0.0;  ///< dp it may go to each side; 0: as far as what it lies in, or the screen, lets it
  Transition transition = Spring::settling(Micros{220'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros half_life{0};  ///< without a grid: the time in which its speed halves after the lift
  std::function<void(Point)> on_rest{};  ///< told where it came to rest
};

template <>
std::span<const Setting<DraggableSettings>> settings_of<DraggableSettings>();

/// Something that is dragged about: freely, along an axis, or from place to place of a grid.
///
/// Its two coordinates are bound to the app's cells both ways. A drag begins when the finger has come as far
/// as the threshold in any direction, and goes both ways at once.
class Draggable final : public PartOf<Draggable, DraggableSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  Draggable(std::string id, const Box& box, DraggableSettings&& settings, Context& context);

  void changed();

  /// How far it is from where it was put, dp.
  [[nodiscard]] Point offset() const { return {rails_[0].position(), rails_[1].position()}; }
  /// dp/s.
  [[nodiscard]] Point velocity() const { return {rails_[0].velocity(), rails_[1].velocity()}; }
  [[nodiscard]] bool pressed() const { return rails_[0].pressed(); }
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override;
  [[nodiscard]] Point moved() const override { return offset(); }
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void resized() override { bound(); }
  void cell_changed() override;

  [[nodiscard]] std::array<double, 2> saved() const { return {rails_[0].target(), rails_[1].target()}; }
  void restore(std::span<const double> saved);

 private:
  [[nodiscard]] RailPlan plan(Axis axis) const;
  [[nodiscard]] bool goes(Axis axis) const;
  void bound();

  std::array<Rail, 2> rails_;
  Drag drag_;
};

}  // namespace ubbo
