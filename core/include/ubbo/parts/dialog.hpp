#pragma once

#include <algorithm>
#include <functional>
#include <string>

#include "ubbo/parts/entering_part.hpp"
#include "ubbo/parts/outside.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// The settings of a dialog. Units, ranges and meanings stand in the settings table.
struct DialogSettings {
  std::string label{};
  Link<bool> open{};  ///< whether it is open, both ways; optional
  Travel travel{.from_edge = Edge::bottom,
                .from_distance = 56.0,
                .from_opacity = 0.0,
                .to_edge = Edge::bottom,
                .to_distance = 24.0,
                .to_opacity = 0.0};
  Transitions enter = Spring::settling(Micros{300'000}, 0.0);
  Transitions exit = Spring::settling(Micros{220'000}, 0.0);
  StaggeredChildren children{};  ///< how what lies in it comes
  PartReduced reduced_motion = PartReduced::as_screen;
  bool enter_on_start = false;
  bool touch_while_entering = true;
  double dim = 0.35;  ///< how much of what lies below its backdrop hides, 0 to 1
  Transition dim_transition = Timed{Curve{}, Micros{180'000}};
  bool backdrop_closes = true;
  bool back_closes = true;
  bool button_closes = false;   ///< it has a button of its own that closes it
  double steps_back_by = 14.0;  ///< dp it goes up when a dialog opens on it
  double steps_back_to = 0.94;  ///< the scale it then has
  std::function<void(EnterExit::State)>
      on_state{};  ///< called when it starts to enter or leave, and when it has done so
};

template <>
std::span<const Setting<DialogSettings>> settings_of<DialogSettings>();

/// A surface that has to be dealt with before what lies below it: this takes no contact, no focus and no back
/// while the dialog is open.
///
/// It has a way out: a tap on its backdrop, back, a button of its own, or several; without any it is refused.
/// A dialog that opens on it makes it step back a little; one on that makes it step back further and fade, so
/// that at most one is seen behind the topmost and the screen gets no darker than by two backdrops. A dialog
/// that does not step back, such as a full one, does not fade either.
class Dialog final : public PartOf<Dialog, DialogSettings, EnteringPart>, public BackTaker {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const DialogSettings& settings);

  Dialog(std::string id, const Box& box, DialogSettings&& settings, Context& context);

  void changed();

  /// How much its backdrop hides now, 0 to 1.
  [[nodiscard]] double dim() const { return std::clamp(dim_.at(context().now).value, 0.0, 1.0) * seen(); }
  /// How many layers it has stepped back, 0 to 2.
  [[nodiscard]] double stepped_back() const { return behind_.at(context().now).value; }
  /// Where its own button is on the screen, if it has one.
  [[nodiscard]] std::optional<Box> button() const;

  [[nodiscard]] VisualState visual_state() const override;
  [[nodiscard]] bool takes(Point at) const override;
  void present(Accessible& told) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void update() override;

  [[nodiscard]] bool is_absent() const override { return EnteringPart::is_absent() && !dim_.moving(); }
  [[nodiscard]] bool is_modal() const override { return is_open(); }
  void covered(int layers) override;

  [[nodiscard]] bool wants_back() const override { return is_open(); }
  void back_moves(double progress) override {
    if (settings_.back_closes) enter_exit_.show_leaving(progress);
  }
  void back_cancelled() override { enter_exit_.come_back(context().now); }
  void back() override;

 private:
  [[nodiscard]] EnterExitPlan planned() const override;
  void went(EnterExit::State state) override;
  void take_settings();
  [[nodiscard]] bool inside(Point at) const;
  [[nodiscard]] bool steps_back() const {
    return settings_.steps_back_by > 0.0 || settings_.steps_back_to < 1.0;
  }
  /// How much of it is seen from behind others, 0 to 1.
  [[nodiscard]] double seen() const;

  Clocked<Mover> dim_{*this, 0.0, 1e-3};
  Clocked<Mover> behind_{*this, 0.0, 1e-3};
  Outside outside_;
};

}  // namespace ubbo
