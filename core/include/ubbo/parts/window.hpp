#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/visitor.hpp"

namespace ubbo {

/// The settings of a window. Units, ranges and meanings stand in the settings table.
struct WindowSettings {
  std::string label{};
  Link<bool> open{};  ///< whether it is open, both ways; optional
  Travel travel{.from_edge = Edge::bottom, .to_edge = Edge::bottom};
  Passage enter = Spring::settling(Micros{320'000}, 0.0);
  Passage exit = Spring::settling(Micros{240'000}, 0.0);
  InTurn inside{};  ///< how what lies in it comes
  PartReduced reduced_motion = PartReduced::as_screen;
  bool enters_at_first = false;
  bool touch_while_arriving = false;
  bool back_closes = false;
  std::function<void(Visit::State)> on_visit{};  ///< told each time it sets out, arrives or is gone
};

template <>
std::span<const Setting<WindowSettings>> settings_of<WindowSettings>();

/// A surface that comes from one side and goes to another, each by its own distance and passage. What lies
/// below it goes on taking contacts beside it.
class Window final : public PartOf<Window, WindowSettings, Visitor>, public BackTaker {
 public:
  [[nodiscard]] static const PartKind& described();
  Window(std::string id, const Box& box, WindowSettings&& settings, Surroundings& around);

  void changed();

  void present(Accessible& told) const override;
  bool touch(const Contact& contact, const Sample& sample) override;

  [[nodiscard]] bool wants_back() const override { return settings_.back_closes && is_open(); }
  void back_moves(double progress) override {
    if (settings_.back_closes) visit_.show_leaving(progress);
  }
  void back_cancelled() override { visit_.come_back(around().now); }
  void back() override { go(false); }

 private:
  [[nodiscard]] VisitPlan planned() const override;
  void went(Visit::State state) override;
  void take_settings();
};

}  // namespace ubbo
