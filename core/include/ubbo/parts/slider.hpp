#pragma once

#include <functional>
#include <string>

#include "ubbo/base/cell.hpp"
#include "ubbo/landing/landing.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part.hpp"
#include "ubbo/touch/drag.hpp"

namespace ubbo {

/// When the app's cell follows a slider: with the finger, or only once the thumb is at rest.
enum class Follow : std::uint8_t { finger, rest };

/// Where a drag of a slider may begin: on its thumb only, or anywhere on it.
enum class Grab : std::uint8_t { thumb, anywhere };

/// The settings of a slider. Units, ranges and meanings stand in the settings table.
struct SliderSettings {
  std::string label{};
  Link<double> value{};
  double from = 0.0;
  double to = 1.0;
  double step = 0.0;        ///< 0: continuous
  double large_step = 0.0;  ///< 0: a tenth of the range
  Axis axis = Axis::horizontal;
  Follow follow = Follow::finger;
  Grab grab = Grab::anywhere;
  bool tap_travels = true;
  double thumb = 28.0;     ///< dp
  double thickness = 6.0;  ///< dp
  Passage passage = Spring::settling(Micros{250'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros carry{0};
  std::function<void(double)> on_rest{};  ///< told the value each time the thumb comes to rest
};

template <>
std::span<const Setting<SliderSettings>> settings_of<SliderSettings>();

/// A slider: a thumb on a track that shows and changes one number of the app's.
///
/// One mover, in the value's own unit, is all it keeps; thumb, fill, share and label are readings of it.
/// While a finger drags, the finger has the thumb: a write by the app changes the cell but not the thumb, and
/// is where a cancelled drag goes back to. At any other time a write moves the thumb to the value written.
class Slider final : public Part {
 public:
  using Settings = SliderSettings;

  /// Throws `std::invalid_argument` for a setting out of its range, a range with `to` not above `from`, and a
  /// `value` that is not linked to a cell.
  Slider(std::string id, Box box, SliderSettings settings, Surroundings& around);

  [[nodiscard]] const SliderSettings& settings() const { return settings_; }

  /// Where the thumb stands now, in the value's unit, between steps while it travels.
  [[nodiscard]] double position() const { return clamp(mover_.value()); }
  /// What the thumb's place means: the position at rest, else the snap point nearest to it.
  [[nodiscard]] double value() const;
  /// Where the thumb is going, or stands.
  [[nodiscard]] double target() const { return mover_.target(); }
  /// The value's unit per second.
  [[nodiscard]] double velocity() const { return mover_.velocity(); }
  /// The position as a share of the range, 0 to 1.
  [[nodiscard]] double share() const;
  /// True while a drag is going on.
  [[nodiscard]] bool dragging() const { return drag_.dragging(); }
  /// True from down to end, so that a press can be shown at once.
  [[nodiscard]] bool pressed() const { return drag_.pressed() || drag_.dragging(); }
  /// Reading direction; a horizontal slider mirrors.
  [[nodiscard]] bool right_to_left() const { return around().right_to_left; }
  [[nodiscard]] const SnapPoints& snaps() const { return snaps_; }

  /// The middle of the thumb, dp.
  [[nodiscard]] Point thumb() const { return place_of(position()); }
  /// How visible thumb and fill are, 0 to 1: less than 1 only while a fade stands for the thumb's travel.
  [[nodiscard]] double thumb_presence() const { return mover_.presence(); }
  /// The whole track, dp.
  [[nodiscard]] Box track() const;
  /// The part of the track from `from` to the thumb, dp.
  [[nodiscard]] Box fill() const;
  /// Where the thumb's middle is when the slider stands at `value`, dp.
  [[nodiscard]] Point place_of(double value) const;
  /// Where the contact that holds the slider went down, dp. Needs `pressed()`.
  [[nodiscard]] Point press_place() const { return pressed_at_; }

  [[nodiscard]] bool settled() const override { return !mover_.moving() && !pressed(); }
  [[nodiscard]] Accessible accessible() const override;
  [[nodiscard]] Wish wish(const Sample& sample) const override;
  bool touch(const Contact& contact, const Sample& sample) override;
  bool press(Key key) override;
  [[nodiscard]] Micros due() const override { return mover_.due(); }
  void advance(Micros now) override;

 private:
  [[nodiscard]] double start_coordinate() const;  // of `from` along the axis
  [[nodiscard]] double dp_per_unit() const;       // negative where the value grows leftwards or upwards
  [[nodiscard]] double clamp(double value) const;
  [[nodiscard]] bool on_thumb(Point at) const;
  void begin(const Sample& sample);
  void follow_finger(const Contact& contact, const Sample& sample);
  void release(const Contact& contact, const Sample& sample);
  void let_go(const Contact& contact, const Sample& sample);
  void lift(const Contact& contact, const Sample& sample);
  void give_back();
  void go_back();
  void land(double place, double velocity);
  void choose(double target, double velocity);
  void go(double target, double velocity);
  void rest();
  void tell(double value);
  void app_wrote(double value);

  SliderSettings settings_;
  SnapPoints snaps_;
  Mover mover_;
  Drag drag_;
  int held_by_ = 0;
  bool may_drag_ = true;
  bool stopped_ = false;     // the press stopped a motion
  bool owes_cell_ = false;   // the cell has yet to hear of a place the user chose
  double grabbed_ = 0.0;     // the position when the drag began
  double cell_value_ = 0.0;  // what we last saw or wrote in the cell
  double return_to_ =
      0.0;  // where the thumb goes when the contact comes to nothing, and the cell's value then
  double return_cell_ = 0.0;
  Point pressed_at_{};
  Watch watch_;
};

}  // namespace ubbo
