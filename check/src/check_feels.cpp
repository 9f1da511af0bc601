#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "look.hpp"

namespace ubbo::check {

namespace {

void check_feel(Look& look, const Feel& feel, const std::string& of, io::FilePlace place) {
  const double threshold = std::min(feel.threshold(Axis::horizontal), feel.threshold(Axis::vertical));
  if (std::max(feel.threshold(Axis::horizontal), feel.threshold(Axis::vertical)) > feel.tap_reach)
    look.say(drag_above_tap, of, place,
             fmt::format("drag_threshold = {}, tap_reach = {}",
                         plain_number(std::max(threshold, feel.threshold(Axis::vertical))),
                         plain_number(feel.tap_reach)),
             "a drag threshold no larger than the tap reach");
  if (feel.hold_delay < feel.tap_time)
    look.say(hold_below_tap, of, place,
             fmt::format("hold_delay = {}, tap_time = {}", plain_number(to_ms(feel.hold_delay)),
                         plain_number(to_ms(feel.tap_time))),
             "a hold delay no shorter than the tap time");
  if (feel.multi_tap_gap > feel.hold_delay)
    look.say(gap_above_hold, of, place,
             fmt::format("multi_tap_gap = {}, hold_delay = {}", plain_number(to_ms(feel.multi_tap_gap)),
                         plain_number(to_ms(feel.hold_delay))),
             "a multi-tap gap no longer than the hold delay");
}

}  // namespace

void check_feels(Look& look) {
  check_feel(look, look.scene->stage.feel, "feel", look.scene->feel_place);
  for (const io::PartPlan& plan : look.scene->parts)
    if (plan.feels) check_feel(look, plan.feels->finger, plan.id, {plan.line, plan.column});
}

}  // namespace ubbo::check
