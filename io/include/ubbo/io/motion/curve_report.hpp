#pragma once

#include <string>
#include <vector>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/motion/figures.hpp"

namespace ubbo::io {

/// Motions to be looked at, and between what.
struct CurveOrder {
  std::vector<MotionSpec> specs;
  double from = 0.0;
  double to = 1.0;  ///< other than `from`
  /// The value's unit per second: what springs start with; a coast goes as far as it takes it.
  double velocity = 0.0;
  int samples = 20;          ///< even steps
  std::vector<double> at{};  ///< where to look instead: share of the time for curves, seconds for others
  std::vector<Micros> at_times{};  ///< or at these times
};

/// One moment of a motion.
struct CurveSample {
  double t = 0.0;  ///< share of the time for curves, seconds for springs and coasts
  double value = 0.0;
  double slope = 0.0;  ///< per share of time for curves, per second for others
};

/// Makes `from` and `to` differ and gives each curve without a time `duration`. Throws
/// `std::invalid_argument`.
[[nodiscard]] CurveOrder checked(CurveOrder order, Micros duration);

/// One run of a spec as a motion from `from` to `to` that begins at 0.
[[nodiscard]] Motion motion_of(const CurveOrder& order, const MotionSpec& spec);

/// The curve, spring or coast itself at even steps, or at the times asked for: not the mover's last step onto
/// its target.
[[nodiscard]] std::vector<CurveSample> samples_of(const CurveOrder& order, const MotionSpec& spec);

/// A table of the figures one compares.
[[nodiscard]] std::string curves_text(const CurveOrder& order);
/// The samples of each spec, a line a moment, columns parted by blanks.
[[nodiscard]] std::string samples_text(const CurveOrder& order);
/// `{"curves":[{"spec","duration_ms","figures":{…},"samples":[{"t","value","slope"}]}]}`; what is infinite is
/// null.
[[nodiscard]] std::string curves_json(const CurveOrder& order);

}  // namespace ubbo::io
