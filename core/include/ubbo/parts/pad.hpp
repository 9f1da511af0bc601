#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// The settings of a pad. Units, ranges and meanings stand in the settings table.
struct PadSettings {
  std::string label{};
  bool opaque = false;  ///< it hides what lies below it, such as a page; its label stands at its top
  GestureSettings gestures{};
  Link<int> taps{};                                  ///< optional: gets the count of each row of taps
  std::vector<double> marks{};                       ///< dp; x and y of each in turn, from its middle
  std::function<void(const Gesture&)> on_gesture{};  ///< told every piece of news
};

template <>
std::span<const Setting<PadSettings>> settings_of<PadSettings>();

/// An area that tells the app what its touches were taken for. Space and enter tap it.
class Pad final : public PartOf<Pad, PadSettings> {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static std::string misfit(const Box& box, const PadSettings& settings);

  Pad(std::string id, const Box& box, PadSettings&& settings, Context& context);

  void changed();
  /// True from down on until the press is withdrawn or ends, so that it can be shown at once.
  [[nodiscard]] bool pressed() const { return gestures_.pressed(); }
  /// The last gesture that was reported; how far it has come while it goes on.
  [[nodiscard]] const Gesture& last() const { return last_; }
  /// What two contacts last did to what lies on it: moved, scaled and turned as the last gesture says.
  [[nodiscard]] double scale() const { return last_.scale; }
  [[nodiscard]] double angle() const { return last_.angle; }
  /// Where a mark that the app put at `mark`, dp from the middle, is on the screen.
  [[nodiscard]] Point place_of(Point mark) const;

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample& sample) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;

 private:
  void report(const Gesture& news);

  Gesture last_{};
  Clocked<Gestures> gestures_;
};

}  // namespace ubbo
