#pragma once

#include <functional>
#include <memory>
#include <string>
#include <vector>

#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/show/graph.hpp"

namespace ubbo::show {

/// A reading followed over a whole replay.
struct Trace {
  std::string name;
  std::string what;
  std::string unit;
  std::string part;                               ///< whose it is; "": a cell's
  std::vector<std::pair<double, double>> points;  ///< ms since the take began, value
  std::vector<double> snap_points{};              ///< where it may come to rest
  std::vector<Threshold> thresholds{};            ///< where it is decided what becomes of a drag
};

/// The way of one contact, with the parts that had it; or of a mouse or pen that touches nothing, with those
/// it was over.
struct Finger {
  std::vector<std::string> parts{};
  std::vector<Sample> way{};
  Tool tool = Tool::finger;
  bool hovers = false;
};

/// All that was followed of a run.
struct Traces {
  std::string title;
  std::string subtitle;
  std::vector<Trace> traces{};
  std::vector<Decision> decisions{};
  std::vector<Finger> fingers{};
  double length_ms = 0.0;
};

/// Replays a take on a scene and follows readings at so many even steps: those named, or without names where
/// parts are, as far as that changes. Throws `InputError` for a name that is none, and
/// `std::invalid_argument` when nothing moved and nothing was named. `told` hears now and then which share is
/// done.
[[nodiscard]] Traces follow(const io::Scene& scene, const io::Take& take, const std::vector<std::string>& of,
                            int steps, const std::function<void(double)>& told = {});

/// The traces as a graph, a panel for each reading that parts have in common, with snap points, decisions,
/// and beside a place the finger and its thresholds.
[[nodiscard]] Graph graph_of(const Traces& traces, const io::Scene& scene, const io::Take& take,
                             const skin::CombColours& colours);

}  // namespace ubbo::show
