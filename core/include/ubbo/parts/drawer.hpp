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
  bool edge_opens = true;
  bool drag_closes = true;
  bool backdrop_closes = true;
  bool back_closes = true;
  double commit = 0.0;
  double commit_distance = 0.0;  ///< dp
  double veil = 0.4;
  Passage passage = Spring::settling(Micros{280'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros carry{120'000};
  std::function<void(Visit::State)> on_visit{};  ///< told each time it sets out, arrives or is gone
};

template <>
std::span<const Setting<DrawerSettings>> settings_of<DrawerSettings>();

/// A surface beside the page that an edge swipe, a call or the app's value draws in, and a swipe, its
/// backdrop or back puts away again.
class Drawer final : public PartOf<Drawer, DrawerSettings, EdgePanel> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const DrawerSettings& settings, const Box& box,
                                      const Surroundings& around);
  [[nodiscard]] static std::string misfit(const Box& box, const DrawerSettings& settings);

  Drawer(std::string id, const Box& box, DrawerSettings&& settings, Surroundings& around);

  void changed();

  void present(Accessible& told) const override;

 private:
  [[nodiscard]] Plan planned() const override { return base_plan(settings_, laid(), around()); }
  void went(Visit::State state) override;
};

}  // namespace ubbo
