#pragma once

#include <optional>
#include <string>
#include <vector>

#include "ubbo/io/replay/replay.hpp"

namespace ubbo::io {

/// One thing that a take expects, by its note `expectation` (docs/formats/take.md):
///
///     # expectation = frames = 7, at 300 ms frames.position = 5.2 within 0.3, says frames "lifts at rest"
struct Expectation {
  std::string text;            ///< as the take has it
  std::optional<Micros> at{};  ///< since the replay begins; none: at the end
  std::string name{};          ///< of a cell or a reading, or of the part that says it ("": any)
  std::string value{};         ///< what that holds, or the words a decision's sentence or caption has in it
  double within = 1e-9;  ///< how far a number may be off; of the time, ms, where something is said `at` one
  bool says = false;
};

/// What a take expects. Throws `InputError` for what does not read.
[[nodiscard]] std::vector<Expectation> expectations_of(const Take& take);

/// Plays the whole replay and returns what was expected and did not come, a line each. `run` is the replay's.
/// Throws `InputError` for a name the scene does not know, or a value that is none.
[[nodiscard]] std::vector<std::string> play_and_check(SceneRun& run, Replay& replay,
                                                      const std::vector<Expectation>& expected);

/// What stands among a take's notes and means nothing here, a sentence each.
[[nodiscard]] std::vector<std::string> unknown_notes(const Take& take);

}  // namespace ubbo::io
