#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/base/choice.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/sliding.hpp"

namespace ubbo {

/// What a pane moves: itself with all that lies in it, or only what lies in it.
enum class Moves : std::uint8_t { itself, content };

/// What a pane's cell says: where it is, or where it will come to rest.
enum class Says : std::uint8_t { place, rest };

/// The settings of a pane. Units, ranges and meanings stand in the settings table.
struct PaneSettings {
  std::string label{};
  Link<double> offset{};      ///< where it is, dp; optional: a pane without one starts at 0 within its bounds
  Link<Choice> snap_point{};  ///< the snap point it is at or goes to, by name, from the lowest on;
                              ///< optional; only told where `offset` is linked
  Says says = Says::place;
  double min = 0.0;  ///< dp
  double max = 0.0;  ///< dp
  Axis axis = Axis::vertical;
  Moves moves = Moves::content;
  std::vector<double> snap_points{};  ///< dp; empty: it rests wherever it is let go
  Transition transition = Spring::settling(Micros{300'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{120'000};
  Micros half_life{150'000};
  bool hurries = false;
  Overscroll::How overscroll_min = Overscroll::How::none;
  Overscroll::How overscroll_max = Overscroll::How::none;
  double overscroll_fraction = 0.4;
  double overscroll_reach = 72.0;         ///< dp
  std::function<void(double)> on_rest{};  ///< told the offset each time it comes to rest
};

template <>
std::span<const Setting<PaneSettings>> settings_of<PaneSettings>();

/// A surface that follows the finger along one axis between two bounds: the ground of lists, rows and sheets.
///
/// What it cannot follow at a bound is offered to the parts it lies in, or that lie in it, within the same
/// touch: a list at its end moves the sheet around it, and takes the finger back when the sheet is at its own
/// end. What is left of a flick passes on in the same way. Touched on its way, it stays where it is caught.
/// When its snap points change and are as many as before, such as when they are measured anew, it stays with
/// the one it stands on or goes to, wherever that is now.
class Pane final : public PartOf<Pane, PaneSettings, Sliding>, public Container {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const PaneSettings& settings, const Box&, const Context&) {
    return {plan(settings), settings.offset};
  }
  [[nodiscard]] static std::string misfit(const Box& box, const PaneSettings& settings);

  Pane(std::string id, const Box& box, PaneSettings&& settings, Context& context);

  void changed();

  void present(Accessible& told) const override;
  [[nodiscard]] Point moved() const override {
    return settings_.moves == Moves::itself ? carried() : Point{};
  }
  bool press(Key key) override;
  void cell_changed() override;
  void update() override;

  [[nodiscard]] Point carries(const Part& /*inner*/) const override { return carried(); }

 private:
  [[nodiscard]] Point carried() const { return way_along(settings_.axis, shown()); }
  void follow();
  [[nodiscard]] static RailPlan plan(const PaneSettings& settings);

  Watch watch_;
  std::optional<std::size_t> said_{};  // the rest that its cell was last told
  bool carried_ = false;               // the last that it heard of was another part that carries it along
};

}  // namespace ubbo
