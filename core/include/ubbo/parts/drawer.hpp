#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/edge_panel.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// The settings of a drawer. Units, ranges and meanings stand in the settings table.
struct DrawerSettings {
  std::string label{};
  Link<bool> open{};  ///< whether it is open, both ways; optional
  Edge edge = Edge::leading;
  bool edge_swipe_opens = true;
  bool drag_closes = true;
  bool backdrop_closes = true;
  bool back_closes = true;
  Length commit_distance{};
  double dim = 0.4;
  bool dim_follows = true;
  Transition dim_transition = Timed{Curve::ease_out(), Micros{240'000}};
  Transition transition = Spring::settling(Micros{280'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{120'000};
  std::function<void(EnterExit::State)>
      on_state{};  ///< called when it starts to enter or leave, and when it has done so
};

template <>
std::span<const Setting<DrawerSettings>> settings_of<DrawerSettings>();

/// A surface beside the page that an edge swipe, a call or the app's value draws in, and a swipe, its
/// backdrop or back closes again.
class Drawer final : public PartOf<Drawer, DrawerSettings, EdgePanel> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const DrawerSettings& settings, const Box& box, const Context& context);
  [[nodiscard]] static std::string misfit(const Box& box, const DrawerSettings& settings);

  Drawer(std::string id, const Box& box, DrawerSettings&& settings, Context& context);

  void changed();

  void present(Accessible& told) const override;

 private:
  [[nodiscard]] Plan planned() const override { return base_plan(settings_, layout_box(), context()); }
  void went(bool other) override;
};

}  // namespace ubbo
