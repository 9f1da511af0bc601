#pragma once

#include <span>
#include <string>
#include <string_view>
#include <vector>

#include "ubbo/io/replay/replay.hpp"

namespace ubbo::io {

/// What a finished replay came to, as one JSON object: `cells` (name to final value), `parts` (id to state),
/// `decisions`, `warnings`, and the times. The layout is in docs/formats/replay-json.md.
[[nodiscard]] std::string replay_json(const SceneRun& run, const Replay& replay,
                                      const std::vector<std::string>& unmet = {});

/// `cells` of that alone, as one object in one line.
[[nodiscard]] std::string cells_json(const SceneRun& run);

/// `cells`, `parts` and `decisions` of that: what a scene at work has come to, replayed or not.
[[nodiscard]] std::string outcome_json(const SceneRun& run, std::span<const Decision> decisions);

/// A report for people: what was replayed, the final cells, and the state of each part; a few lines.
[[nodiscard]] std::string replay_text(const SceneRun& run, const Replay& replay);

/// The values of the cells that are no longer as `scene`, which is being run, has them, in one line; "" when
/// all are.
[[nodiscard]] std::string changed_cells(const Scene& scene, const SceneRun& run);

/// A decision for people, in columns as wide as the widest of its run needs.
struct WhyLine {
  std::string when;  ///< its number and its time
  std::string who;   ///< the part, or "stage"
  std::string sentence;
};
/// The decisions in the order of their times; only those of `part` unless it is empty.
[[nodiscard]] std::vector<WhyLine> why_lines(const Replay& replay, std::string_view part);
/// The decisions as text, one line each.
[[nodiscard]] std::string why_text(const Replay& replay, std::string_view part);

/// The same decisions as JSON: `{"decisions": […]}` as in `replay_json`.
[[nodiscard]] std::string why_json(const Replay& replay, std::string_view part);

/// Throws `InputError` unless `part` is empty or the id of a part of the scene in `file`.
void demand_part(SceneRun& run, const std::string& file, std::string_view part);

}  // namespace ubbo::io
