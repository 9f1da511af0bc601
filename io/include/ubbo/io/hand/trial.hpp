#pragma once

#include <functional>
#include <string>
#include <string_view>
#include <vector>

#include "ubbo/io/hand/hand.hpp"
#include "ubbo/touch/feel.hpp"

namespace ubbo::io {

/// What gestures of one kind, made by a hand, were taken for.
struct TrialRow {
  std::string meant;
  std::vector<int> taken;  ///< by kind as in `trial_kinds`; the last entry counts everything else
  int count = 0;
  int right = 0;
};

/// The kinds a trial makes.
[[nodiscard]] const std::vector<std::string>& trial_kinds();

/// Makes `count` gestures of each kind with `hand`, differing in place, size, direction and seed, and takes
/// them by `feel`. A gesture is taken right when it alone was found, of the kind that was meant, the right
/// way round. `told` hears now and then which share is done.
[[nodiscard]] std::vector<TrialRow> run_trial(const HandModel& hand, const Feel& feel, int count,
                                              std::uint64_t seed = 1,
                                              const std::function<void(double)>& told = {});

/// The rows as a table: what was meant down, what it was taken for across, in per cent.
[[nodiscard]] std::string trial_table(const std::vector<TrialRow>& rows, bool markdown);

}  // namespace ubbo::io
