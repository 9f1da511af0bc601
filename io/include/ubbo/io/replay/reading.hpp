#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "ubbo/io/scene/scene_run.hpp"

namespace ubbo::io {

/// Something of a scene at work that can be followed over time.
struct Reading {
  std::string name;                       ///< `frames.thumb.x`, `cell.frames`
  std::string what;                       ///< the part of the name that parts have in common: `thumb.x`
  std::string unit;                       ///< "" for the app's own
  const Part* part = nullptr;             ///< whose it is; null for a cell
  bool usual = false;                     ///< worth a line when nothing is asked for
  std::function<ReadingValue()> value{};  ///< reads it; good as long as the run
  std::function<std::vector<double>()> snap_points{};  ///< where it may come to rest, if that is known

  /// At which values it is decided what becomes of a drag when it is let go, if there are any.
  std::function<std::vector<Threshold>()> thresholds{};

  /// What it reads as a number: a flag is 0 or 1, a text is 0.
  [[nodiscard]] double now() const;
};

/// A reading's value for people.
[[nodiscard]] std::string shown(const ReadingValue& value);

/// All readings of a scene at work, parts in their order, then cells.
[[nodiscard]] std::vector<Reading> readings_of(SceneRun& run);

/// Those that `name` means: the one with this name, or that of each part which has it (`thumb.x`). Throws
/// `InputError` with the known names when there is none.
[[nodiscard]] std::vector<Reading> find_readings(SceneRun& run, const std::string& file,
                                                 std::string_view name);

}  // namespace ubbo::io
