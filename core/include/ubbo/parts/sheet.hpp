#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/edge_panel.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// The settings of a sheet. Units, ranges and meanings stand in the settings table.
struct SheetSettings {
  std::string label{};
  Link<int> snap_point{};  ///< where it is or goes: 0 is closed, then 1, 2, … from the lowest snap point on;
                           ///< optional
  Link<bool> open{};  ///< whether it is open, both ways; optional
  Edge edge = Edge::bottom;
  std::vector<double> snap_points{};     ///< dp that it is out
  std::vector<double> snap_fractions{};  ///< more of them, as shares of the screen's length along its way
  double content = 0.0;  ///< one more: how long what lies in it is, as the app has measured it, dp; 0: none
  bool grip_only = false;
  double grip = 32.0;  ///< dp along its way, at its inner edge
  Overscroll::How overscroll_out = Overscroll::How::damped;
  Overscroll::How overscroll_in = Overscroll::How::damped;
  double overscroll_fraction = 0.4;
  double overscroll_reach = 48.0;  ///< dp
  Length commit_distance{};
  double dim = 0.4;
  bool dim_follows = true;
  Transition dim_transition = Timed{Curve::ease_out(), Micros{240'000}};
  bool drag_closes = true;
  bool backdrop_closes = true;
  bool back_closes = true;
  bool edge_swipe_opens = false;
  Transition transition = Spring::settling(Micros{320'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{120'000};
  std::function<void(EnterExit::State)>
      on_state{};                      ///< called when it starts to enter or leave, and when it has done so
  std::function<void(int)> on_rest{};  ///< told the snap point, each time it has chosen one
};

template <>
std::span<const Setting<SheetSettings>> settings_of<SheetSettings>();

/// A surface drawn out from an edge of the screen, over a dimmed page, which comes to rest at one of its snap
/// points.
///
/// A finger drags it by its grip, or anywhere; what a list in it cannot follow moves the sheet, and the other
/// way about. It is closed by a drag or flick past its lowest snap point, a tap on its backdrop, back and
/// Escape, or a call: each of the first three can be off. A grab stops it on its way; a call in mid-motion
/// goes on from where it is, with its velocity.
class Sheet final : public PartOf<Sheet, SheetSettings, EdgePanel> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const SheetSettings& settings, const Box& box, const Context& context);
  [[nodiscard]] static std::string misfit(const Box& box, const SheetSettings& settings);

  Sheet(std::string id, const Box& box, SheetSettings&& settings, Context& context);

  void changed();

  void present(Accessible& told) const override;

 private:
  [[nodiscard]] Plan planned() const override { return base_plan(settings_, layout_box(), context()); }
  void went(bool other) override;

  int told_ = 0;
};

}  // namespace ubbo
