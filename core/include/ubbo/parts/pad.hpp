#pragma once

#include "ubbo/parts/part.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// The settings of a pad. Units, ranges and meanings stand in the settings table.
struct PadSettings {
  std::string label{};
  GestureSettings gestures{};
  Link<double> taps{};                               ///< optional: gets the count of each row of taps
  std::function<void(const Gesture&)> on_gesture{};  ///< told every piece of news
};

template <>
std::span<const Setting<PadSettings>> settings_of<PadSettings>();

/// An area that tells the app what its touches were taken for.
class Pad final : public Part {
 public:
  using Settings = PadSettings;

  Pad(std::string id, Box box, PadSettings settings, Surroundings& around);

  [[nodiscard]] const PadSettings& settings() const { return settings_; }
  /// True from down on until the press is withdrawn or ends, so that it can be shown at once.
  [[nodiscard]] bool pressed() const { return gestures_.pressed(); }
  /// The last gesture that was told; how far it has come while it goes on.
  [[nodiscard]] const Gesture& last() const { return last_; }

  [[nodiscard]] bool settled() const override { return !gestures_.busy() && gestures_.due() == never; }
  [[nodiscard]] Accessible accessible() const override;
  [[nodiscard]] Wish wish(const Sample& sample) const override;
  bool touch(const Contact& contact, const Sample& sample) override;
  [[nodiscard]] Micros due() const override { return gestures_.due(); }
  void advance(Micros now) override { gestures_.advance(now); }

 private:
  PadSettings settings_;
  Gesture last_{};
  Gestures gestures_;
};

}  // namespace ubbo
