#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/entering_part.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// The settings of a panel. Units, ranges and meanings stand in the settings table.
struct PanelSettings {
  std::string label{};
  Link<bool> open{};  ///< whether it is open, both ways; optional
  Travel travel{.from_edge = Edge::bottom, .to_edge = Edge::bottom};
  Transitions enter = Spring::settling(Micros{320'000}, 0.0);
  Transitions exit = Spring::settling(Micros{240'000}, 0.0);
  StaggeredChildren children{};  ///< how what lies in it comes
  PartReduced reduced_motion = PartReduced::as_screen;
  bool enter_on_start = false;
  bool touch_while_entering = false;
  bool back_closes = false;
  std::function<void(EnterExit::State)>
      on_state{};  ///< called when it starts to enter or leave, and when it has done so
};

template <>
std::span<const Setting<PanelSettings>> settings_of<PanelSettings>();

/// A surface that comes from one side and goes to another, each by its own distance and transition. What lies
/// below it goes on taking contacts beside it.
class Panel final : public PartOf<Panel, PanelSettings, EnteringPart>, public BackTaker {
 public:
  [[nodiscard]] static const PartKind& described();
  Panel(std::string id, const Box& box, PanelSettings&& settings, Context& context);

  void changed();

  void present(Accessible& told) const override;
  bool capture(const Contact&, const Sample&) override { return true; }

  [[nodiscard]] bool wants_back() const override { return settings_.back_closes && is_open(); }
  void back_moves(double progress) override {
    if (settings_.back_closes) enter_exit_.show_leaving(progress);
  }
  void back_cancelled() override { enter_exit_.come_back(context().now); }
  void back() override { go(false); }

 private:
  [[nodiscard]] EnterExitPlan planned() const override;
  void went(EnterExit::State state) override;
  void take_settings();
};

}  // namespace ubbo
