#pragma once

#include "ubbo/check/check.hpp"

namespace ubbo::check {

/// The rules, in the order of `check_rules`.
enum RuleName : std::size_t {
  unreadable,
  unknown_key,
  former_key,
  wrong_value,
  refused,
  off_screen,
  under_cutout,
  covered,
  small_target,
  close_targets,
  no_name,
  unheard,
  never_shown,
  one_way,
  cut_exit,
  back_ignored,
  short_message,
  doubled_snap_point,
  lost_content,
  step_over_range,
  commit_out_of_reach,
  out_of_range,
  idle_cell,
  drag_above_tap,
  hold_below_tap,
  gap_above_hold,
  too_quick,
  too_slow,
  seconds_for_ms,
  share_for_dp,
  no_way_back,
  text_cut,
  alike_actions,
  low_contrast,
  hover_only,
  no_way_out,
  idle_silence,
};

}  // namespace ubbo::check
