#pragma once

#include <array>
#include <functional>
#include <string>

#include "ubbo/motion/coast.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// The settings of a zoom plane. Units, ranges and meanings stand in the settings table.
struct ZoomPlaneSettings {
  std::string label{};
  Link<double> zoom{};   ///< how large its content is; 1: as large as the plane
  Link<double> turn{};   ///< degrees, clockwise
  Link<double> pan_x{};  ///< dp the content's middle is to the right of the plane's
  Link<double> pan_y{};
  double least = 1.0;
  double most = 4.0;
  double tap_zoom = 2.5;  ///< what a double tap zooms to; 0: it does nothing
  bool turns = true;      ///< two fingers turn it
  double right_angle =
      12.0;            ///< degrees from a right angle within which it goes there; 0: it stays as it is turned
  double give = 0.35;  ///< how much of the fingers' way shows past a limit, 0 to 1
  Passage passage = Spring::settling(Micros{280'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros glide{180'000};            ///< the time in which its speed halves after the lift; 0: it stays
  std::function<void()> on_rest{};  ///< told each time it comes to rest
};

template <>
std::span<const Setting<ZoomPlaneSettings>> settings_of<ZoomPlaneSettings>();

/// A plane whose content two fingers zoom, turn and carry, and one finger moves; a double tap zooms to the
/// point that was tapped, and back.
///
/// The point under the fingers stays under them. Past its limits it yields by a share and comes back; near a
/// right angle it goes there. At rest the content leaves no gap at the plane's edge,
/// as long as it is no smaller than the plane and not turned.
class ZoomPlane final : public Part {
 public:
  using Settings = ZoomPlaneSettings;

  [[nodiscard]] static const PartKind& described();
  /// "" or what is wrong: a setting out of its range, `most` below `least`, a `tap_zoom` beyond them.
  [[nodiscard]] static std::string fault(const std::string& id, const Box& box,
                                         const ZoomPlaneSettings& settings);

  /// Throws `std::invalid_argument` with the fault, if there is one.
  ZoomPlane(std::string id, const Box& box, ZoomPlaneSettings settings, Surroundings& around);

  [[nodiscard]] const ZoomPlaneSettings& settings() const { return settings_; }
  void change(ZoomPlaneSettings settings);

  [[nodiscard]] double zoom() const { return now_of(0); }
  /// Degrees, clockwise.
  [[nodiscard]] double turn() const { return now_of(1); }
  /// dp the content's middle is from the plane's.
  [[nodiscard]] Point pan() const { return {now_of(2), now_of(3)}; }
  /// Where a point of the content is seen that lies `at` dp from its middle at zoom 1.
  [[nodiscard]] Point place_of(Point at) const;
  [[nodiscard]] bool pressed() const { return gestures_.busy(); }
  /// Fingers carry it.
  [[nodiscard]] bool carried() const { return carried_; }

  [[nodiscard]] const PartKind& kind() const override { return described(); }
  [[nodiscard]] bool settled() const override;
  [[nodiscard]] bool catches() const override { return moving(); }
  [[nodiscard]] Accessible accessible() const override;
  [[nodiscard]] Wish wish(const Sample&) const override;
  [[nodiscard]] bool can_go(Side side) const override;
  bool touch(const Contact& contact, const Sample& sample) override;
  bool press(Key key) override;
  bool act(std::string_view action) override;
  [[nodiscard]] Micros due() const override;
  void advance(Micros now) override;
  void heard() override;
  void tell_place() override;

 private:
  struct Pose {
    double zoom = 1.0;
    double turn = 0.0;
    Point pan{};
  };

  [[nodiscard]] double now_of(std::size_t which) const { return movers_[which].at(around().now).value; }
  [[nodiscard]] Pose pose() const { return {zoom(), turn(), pan()}; }
  [[nodiscard]] bool moving() const;
  [[nodiscard]] Point reach(double zoom) const;
  [[nodiscard]] Point inside(Point pan, double zoom) const;
  void news(const Gesture& gesture);
  void put(const Pose& pose);
  [[nodiscard]] Pose goal() const;
  void send(const Pose& pose);
  void zoom_to(double zoom, Point at);
  void settle(Point velocity);

  ZoomPlaneSettings settings_;
  std::array<Watch, 4> watches_;
  std::array<double, 4> told_{};
  std::array<Mover, 4> movers_{Mover{1.0, 1e-3}, Mover{0.0, 0.02}, Mover{0.0, 0.05}, Mover{0.0, 0.05}};
  Gestures gestures_;
  Pose grabbed_{};
  bool carried_ = false;
  bool rested_ = true;
};

namespace questions {
inline constexpr Question plane{"where does it come to rest?"};
}
namespace answers {
inline constexpr Answer plane_lands{
    &questions::plane, "within its limits", true,
    "let go at a zoom of {zoom}, turned by {turn}: it comes to rest at {to zoom} and "
    "{to turn}",
    "to zoom {to zoom}"};
inline constexpr Answer plane_zooms{&questions::plane, "at the zoom of a double tap", true,
                                    "a double tap at ({x.number}, {y.number}) zooms from {zoom} to {to zoom}",
                                    "zooms to {to zoom}"};
inline constexpr Answer plane_rests{&questions::plane, "it is at rest", true,
                                    "it is at rest at a zoom of {zoom}", "at rest, zoom {zoom}"};
inline constexpr std::array zoom_plane_answers{&plane_lands, &plane_zooms, &plane_rests};
}  // namespace answers

}  // namespace ubbo
