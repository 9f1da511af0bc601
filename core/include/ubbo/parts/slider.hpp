#pragma once

#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"
#include "ubbo/parts/slider_track.hpp"

namespace ubbo {

/// When the app's cell follows a slider: with the finger, or only once the thumb is at rest.
enum class UpdateWhen : std::uint8_t { dragging, at_rest };

/// Where a drag of a slider may begin: on its thumb only, or anywhere on it.
enum class Grab : std::uint8_t { thumb, anywhere };

/// The settings of a slider. Units, ranges and meanings stand in the settings table.
struct SliderSettings {
  std::string label{};
  Link<double> value{};
  double from = 0.0;
  double to = 1.0;
  double step = 0.0;        ///< 0: continuous
  double large_step = 0.0;  ///< 0: a tenth of the range, two steps at least
  Axis axis = Axis::horizontal;
  UpdateWhen update_when = UpdateWhen::dragging;
  Grab grab = Grab::anywhere;
  bool tap_moves = true;
  bool value_bubble =
      false;               ///< while a finger has it, its value stands beside the thumb, clear of the finger
  double thumb = 28.0;     ///< dp
  double thickness = 6.0;  ///< dp
  Transition transition = Spring::settling(Micros{250'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{0};
  std::function<void(double)> on_rest{};  ///< told the value each time the thumb comes to rest
};

template <>
std::span<const Setting<SliderSettings>> settings_of<SliderSettings>();

/// A slider: a thumb on a track that shows and changes one number of the app's.
///
/// One rail, in the value's own unit, is all it keeps; thumb, fill, share and label are readings of it. A
/// write moves the thumb to the value written, or the step nearest to it; while a finger has the thumb it
/// waits for the lift, unless the finger has chosen another value since.
class Slider final : public PartOf<Slider, SliderSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const SliderSettings& settings);

  Slider(std::string id, const Box& box, SliderSettings&& settings, Context& context);

  void changed();

  /// Where the thumb stands now, in the value's unit, between steps while it travels.
  [[nodiscard]] double position() const { return rail_.position(); }
  /// What the thumb's place means: the step nearest to it, or without steps the position.
  [[nodiscard]] double value() const;
  /// Where the thumb is going, or stands.
  [[nodiscard]] double target() const { return rail_.target(); }
  /// The value's unit per second.
  [[nodiscard]] double velocity() const { return rail_.velocity(); }
  /// The position as a share of the range, 0 to 1.
  [[nodiscard]] double fraction() const;
  /// True while a drag is going on.
  [[nodiscard]] bool dragging() const { return rail_.dragging(); }
  /// True from down to end, so that a press can be shown at once.
  [[nodiscard]] bool pressed() const { return rail_.pressed(); }
  /// Reading direction; a horizontal slider mirrors.
  [[nodiscard]] bool right_to_left() const { return context().right_to_left; }
  [[nodiscard]] const SnapPoints& snaps() const { return rail_.plan().snap_points; }

  /// The middle of the thumb, dp.
  [[nodiscard]] Point thumb() const { return place_of(position()); }
  /// How visible thumb and fill are, 0 to 1: less than 1 only while a fade stands for the thumb's travel.
  [[nodiscard]] double thumb_opacity() const { return rail_.opacity(); }
  /// The whole track, dp.
  [[nodiscard]] Box track() const { return way().bar(); }
  /// The part of the track from `from` to the thumb, dp.
  [[nodiscard]] Box fill() const { return way().between(settings_.from, position()); }
  /// Where the thumb's middle is when the slider stands at `value`, dp.
  [[nodiscard]] Point place_of(double value) const { return way().place_of(value); }
  /// Where the contact that holds the slider went down, dp. Needs `pressed()`.
  [[nodiscard]] Point press_place() const { return rail_.press_place(); }

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample& sample) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override { rail_.cell_changed(); }
  void resized() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {target()}; }
  void restore(std::span<const double> saved) { settings_.value.set(saved[0]); }

 private:
  [[nodiscard]] SliderTrack way() const { return slider_track(box(), settings_, context().right_to_left); }
  [[nodiscard]] double off_thumb(Point at) const { return way().apart(at, thumb()); }
  [[nodiscard]] RailPlan plan() const;
  void listen();

  Rail rail_;
};

}  // namespace ubbo
