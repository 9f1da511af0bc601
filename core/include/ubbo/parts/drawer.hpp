#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/edge_panel.hpp"

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
class Drawer final : public EdgePanel {
 public:
  using Settings = DrawerSettings;

  [[nodiscard]] static const PartKind& described();
  /// "" or what is wrong: a setting out of its range, no edge, no way to close it.
  [[nodiscard]] static std::string fault(const std::string& id, const Box& box,
                                         const DrawerSettings& settings);

  /// Throws `std::invalid_argument` with the fault, if there is one.
  Drawer(std::string id, const Box& box, DrawerSettings settings, Surroundings& around);

  [[nodiscard]] const DrawerSettings& settings() const { return settings_; }
  void change(DrawerSettings settings);

  [[nodiscard]] const PartKind& kind() const override { return described(); }
  [[nodiscard]] Accessible accessible() const override;

 private:
  [[nodiscard]] Plan planned() const override;
  void went(Visit::State state) override;

  DrawerSettings settings_;
};

}  // namespace ubbo
