#pragma once

#include <array>
#include <functional>
#include <string>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/rail.hpp"
#include "ubbo/parts/slider_track.hpp"

namespace ubbo {

/// What happens where one thumb of a range slider meets the other.
enum class Meet : std::uint8_t {
  stops,  ///< it comes no further
  pushes  ///< it takes the other along
};

/// The settings of a range slider. Units, ranges and meanings stand in the settings table.
struct RangeSliderSettings {
  std::string label{};
  Link<double> low{};
  Link<double> high{};
  double from = 0.0;
  double to = 1.0;
  double step = 0.0;     ///< 0: continuous
  double min_gap = 0.0;  ///< the thumbs come no nearer to each other, in the values' unit
  Meet meet = Meet::stops;
  Axis axis = Axis::horizontal;
  double thumb = 28.0;     ///< dp
  double thickness = 6.0;  ///< dp
  Transition transition = Spring::settling(Micros{250'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{0};
  std::function<void(double, double)> on_rest{};  ///< told both each time a thumb comes to rest
};

template <>
std::span<const Setting<RangeSliderSettings>> settings_of<RangeSliderSettings>();

/// Two thumbs on a track, for a number and a larger one.
///
/// The thumb that is nearer to the finger is grabbed; where they lie together, the one that can go where the
/// finger goes. Two fingers may have one each. Of what the app writes, `high` counts as it is and `low` as
/// far as that leaves it room.
class RangeSlider final : public PartOf<RangeSlider, RangeSliderSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const RangeSliderSettings& settings);

  RangeSlider(std::string id, const Box& box, RangeSliderSettings&& settings, Context& context);

  void changed();

  /// Where a thumb stands: 0 the low one, 1 the high one.
  [[nodiscard]] double position(int which) const { return rails_[index(which)].position(); }
  [[nodiscard]] double low() const { return position(0); }
  [[nodiscard]] double high() const { return position(1); }
  [[nodiscard]] double target(int which) const { return rails_[index(which)].target(); }
  [[nodiscard]] Point thumb(int which) const { return place_of(position(which)); }
  [[nodiscard]] Point place_of(double value) const { return way().place_of(value); }
  [[nodiscard]] Box track() const { return way().bar(); }
  [[nodiscard]] Box fill() const { return way().between(low(), high()); }
  [[nodiscard]] bool pressed(int which) const { return rails_[index(which)].pressed(); }
  [[nodiscard]] bool dragging() const { return rails_[0].dragging() || rails_[1].dragging(); }
  [[nodiscard]] const SnapPoints& snaps() const { return rails_[0].plan().snap_points; }
  /// Presses a key for one of the thumbs.
  void step(int which, Key key);

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override {
    const bool upright = settings_.axis == Axis::vertical;
    return {.handle = true, .horizontal = !upright, .vertical = upright};
  }
  void resized() override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;

  [[nodiscard]] std::array<double, 2> saved() const { return {target(0), target(1)}; }
  void restore(std::span<const double> saved) {
    settings_.low.set(saved[0]);
    settings_.high.set(saved[1]);
  }

 private:
  static constexpr int none = -1;

  static std::size_t index(int which) { return which == 0 ? 0 : 1; }
  [[nodiscard]] RailPlan plan() const;
  [[nodiscard]] SliderTrack way() const { return slider_track(box(), settings_, context().right_to_left); }
  [[nodiscard]] int nearer(Point at) const;
  [[nodiscard]] int held_by(const Contact& contact) const;
  void bound(double low, double high);
  void grab(int which, const Contact& contact);
  int thumb_of(const Contact& contact, const Sample& sample);
  void move(int which, const Contact& contact, const Sample& sample);
  void lift(int which, const Contact& contact, const Sample& sample);

  std::array<Rail, 2> rails_;
  std::array<double, 2> before_{};  // where they stood, or went, when a finger came
  int undecided_ = none;            // a contact that may mean either
  int chosen_ = 1;                  // the thumb that keys move
};

namespace questions {
inline constexpr Question thumb{"range-slider.thumb"};
}
namespace answers {
using Thumb = AnswerWith<Number<"low", "dp">, Number<"high", "dp">>;
using ThumbByWay = AnswerWith<Number<"way", "dp">>;
inline constexpr Thumb thumb_low{"range-slider.thumb-low", &questions::thumb, true};
inline constexpr Thumb thumb_high{"range-slider.thumb-high", &questions::thumb, true};
inline constexpr ThumbByWay low_by_way{"range-slider.low-by-way", &questions::thumb, true};
inline constexpr ThumbByWay high_by_way{"range-slider.high-by-way", &questions::thumb, true};
inline constexpr std::array<const Answer*, 4> range_slider_answers{&thumb_low, &thumb_high, &low_by_way,
                                                                   &high_by_way};
}  // namespace answers

}  // namespace ubbo
