#pragma once

#include <array>
#include <functional>
#include <string>

#include "ubbo/motion/coast.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// The settings of a zoom plane. Units, ranges and meanings stand in the settings table.
struct ZoomPlaneSettings {
  std::string label{};
  Link<double> zoom{};   ///< how large its content is; 1: as large as the plane
  Link<double> turn{};   ///< degrees, clockwise
  Link<double> pan_x{};  ///< dp the content's middle is to the right of the plane's
  Link<double> pan_y{};
  double min = 1.0;
  double max = 4.0;
  double tap_zoom = 2.5;  ///< what a double tap zooms to; 0: it does nothing
  bool rotates = true;    ///< two fingers turn it
  double right_angle =
      12.0;  ///< degrees from a right angle within which it goes there; 0: it stays as it is turned
  double overscroll = 0.35;  ///< how much of the fingers' way shows past a limit, 0 to 1
  Transition transition = Spring::settling(Micros{280'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros half_life{180'000};        ///< the time in which its speed halves after the lift; 0: it stays
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
class ZoomPlane final : public PartOf<ZoomPlane, ZoomPlaneSettings>, public DragSurface {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const ZoomPlaneSettings& settings);

  ZoomPlane(std::string id, const Box& box, ZoomPlaneSettings&& settings, Context& context);

  void changed(const ZoomPlaneSettings& before);

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

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample&) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;
  void update() override;

  // At its end along an axis it leaves a drag to what lies around it; it takes none over.
  [[nodiscard]] bool can_go(Side side) const override;
  Point drag_to(const Contact& contact, const Sample& sample) override;
  void overscroll() override {}
  bool take_over(const Contact&, Point) override { return false; }
  void hand_over() override {}
  void left_behind() override {}
  bool take_momentum(Point) override { return false; }
  Point predict(Point) override { return {}; }

  /// What `zoom in` zooms by.
  static constexpr double zoom_step = 1.5;
  void zoom_by(double factor);
  /// All is seen, and upright.
  void turn_back();

  /// Zoom, turn, and how far its middle is to the right of the plane's and below it.
  [[nodiscard]] std::array<double, 4> saved() const;
  void restore(std::span<const double> saved);

 private:
  struct Pose {
    double zoom = 1.0;
    double turn = 0.0;
    Point pan{};
  };

  [[nodiscard]] double now_of(std::size_t which) const { return movers_[which].at(context().now).value; }
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
  [[nodiscard]] static std::array<const Link<double>*, 4> cells(const ZoomPlaneSettings& of);
  [[nodiscard]] std::array<const Link<double>*, 4> cells() const { return cells(settings_); }
  void tell_cells();
  void lead();
  [[nodiscard]] bool leads() const;
  void heed_leader();
  void take(const Contact& contact, const Sample& sample);
  void follow();
  // One of its cells; others that show it know of its place before anything happens.
  struct PlaceCell final : TimedMember {
    PlaceCell(ZoomPlane& plane, std::size_t which) : TimedMember(plane), plane_(&plane), which_(which) {}
    void add_timing(Timing& timing) const override {
      timing.tells = true;
      if (!plane_->watches_[which_].alone() && plane_->moving())
        timing.add({.shares = plane_->cells()[which_]->cell()});
    }
    void tell_place() override { plane_->tell_cells(); }
    ZoomPlane* plane_;
    std::size_t which_;
  };

  std::array<Watch, 4> watches_;
  std::array<double, 4> told_{};  // what each cell held when it was last looked at
  std::array<double, 4> said_{};  // where it was when it last said so
  using PoseMover = Clocked<Mover, true>;
  std::array<PoseMover, 4> movers_{PoseMover{*this, 1.0, 1e-3}, PoseMover{*this, 0.0, 0.02},
                                   PoseMover{*this, 0.0, 0.05}, PoseMover{*this, 0.0, 0.05}};
  Clocked<Gestures> gestures_;
  std::array<PlaceCell, 4> place_cells_{PlaceCell{*this, 0}, PlaceCell{*this, 1}, PlaceCell{*this, 2},
                                        PlaceCell{*this, 3}};
  Pose grabbed_{};
  bool carried_ = false;
  bool rested_ = true;
};

namespace questions {
inline constexpr Question plane{"zoom-plane.plane"};
}
namespace answers {
inline constexpr AnswerWith<Number<"zoom", "">, Number<"turn", "degrees">, Number<"to zoom", "">,
                            Number<"to turn", "degrees">>
    plane_lands{"zoom-plane.lands", &questions::plane, true};
inline constexpr AnswerWith<Number<"x", "dp">, Number<"y", "dp">, Number<"zoom", "">, Number<"to zoom", "">>
    plane_zooms{"zoom-plane.zooms", &questions::plane, true};
inline constexpr AnswerWith<Number<"zoom", "">> plane_rests{"zoom-plane.rests", &questions::plane, true};
inline constexpr std::array<const Answer*, 3> zoom_plane_answers{&plane_lands, &plane_zooms, &plane_rests};
}  // namespace answers

}  // namespace ubbo
