#pragma once

// What answers claim, held against their own numbers, without the code that makes sentences.
#include <map>

#include "check.hpp"

namespace ubbo::test {

inline double fact(const Decision& decision, std::string_view name) {
  for (const Fact& one : decision.all_facts())
    if (name == one.name) return one.value;
  FAIL("no fact " << name << " in " << decision.answer->words);
  return 0.0;
}
inline double margin(const Decision& decision, std::string_view name) {
  for (const Fact& one : decision.all_facts())
    if (name == one.name) {
      REQUIRE(one.limited);
      return one.margin;
    }
  FAIL("no fact " << name);
  return 0.0;
}

using Claim = bool (*)(const Decision&);
inline const std::map<const Answer*, Claim>& claims() {
  using D = const Decision&;
  using namespace answers;
  static const std::map<const Answer*, Claim> table{
      {&too_many_contacts, [](D d) { return fact(d, "open") == static_cast<double>(Contacts::room); }},
      {&far_ahead, [](D d) { return margin(d, "ahead") < 0; }},
      {&drags, [](D d) { return margin(d, "travel") >= 0 && fact(d, "after") >= 0; }},
      {&drag_too_short, [](D d) { return margin(d, "travel") < 0; }},
      {&drag_across, [](D d) { return margin(d, "travel") < 0 && fact(d, "across") > fact(d, "travel"); }},
      {&drag_off_handle, [](D d) { return margin(d, "travel") >= 0 && margin(d, "from handle") < 0; }},
      {&drag_unwanted, [](D d) { return margin(d, "travel") >= 0; }},
      {&tap, [](D d) { return margin(d, "strayed") >= 0 && margin(d, "held") >= 0; }},
      {&tap_strayed, [](D d) { return margin(d, "strayed") < 0; }},
      {&tap_too_long, [](D d) { return margin(d, "held") < 0; }},
      {&again, [](D d) { return margin(d, "gap") >= 0 && margin(d, "apart") >= 0; }},
      {&again_too_late, [](D d) { return margin(d, "gap") <= 0; }},
      {&again_too_far, [](D d) { return margin(d, "apart") < 0; }},
      {&tap_at_once, [](D d) { return fact(d, "waited") == 0 && fact(d, "taps") == 1; }},
      {&row_at_once, [](D d) { return fact(d, "waited") == 0 && fact(d, "taps") > 1; }},
      {&tap_after_wait, [](D d) { return fact(d, "waited") >= 0 && fact(d, "taps") == 1; }},
      {&row_after_wait, [](D d) { return fact(d, "waited") >= 0 && fact(d, "taps") > 1; }},
      {&held, [](D d) { return margin(d, "held") >= 0 && margin(d, "strayed") >= 0; }},
      {&flick, [](D d) { return margin(d, "speed") >= 0 && margin(d, "rested") > 0; }},
      {&flick_too_slow, [](D d) { return margin(d, "speed") < 0; }},
      {&flick_rested, [](D d) { return margin(d, "rested") <= 0; }},
      {&axis_horizontal, [](D d) { return margin(d, "off axis") >= 0; }},
      {&axis_vertical, [](D d) { return margin(d, "off axis") >= 0; }},
      {&axis_free, [](D d) { return margin(d, "off axis") < 0; }},
      {&edge_swipe, [](D d) { return margin(d, "from the edge") >= 0; }},
      {&pair_pans, [](D d) { return margin(d, "pan") >= 0; }},
      {&pair_pinches, [](D d) { return margin(d, "pinch") >= 0; }},
      {&pair_rotates, [](D d) { return margin(d, "turn") >= 0; }},
      {&pair_ended, [](D d) { return fact(d, "scale") > 0; }},
      {&pair_too_little,
       [](D d) { return margin(d, "pan") < 0 && margin(d, "pinch") < 0 && margin(d, "turn") < 0; }},
      {&land_nearest, [](D d) { return margin(d, "distance") > 0 && fact(d, "aimed") == fact(d, "from"); }},
      {&land_nearest_aimed, [](D d) { return margin(d, "distance") > 0 && fact(d, "speed") != 0; }},
      {&land_tie, [](D d) { return margin(d, "distance") == 0; }},
      {&land_flicked,
       [](D d) {
         const double way = fact(d, "place") - fact(d, "from");
         return margin(d, "distance") < 0 && fact(d, "speed") != 0 && way != 0;
       }},
      {&land_committed, [](D d) { return margin(d, "moved") >= 0 && fact(d, "place") != fact(d, "from"); }},
      {&land_returns, [](D d) { return margin(d, "moved") < 0; }},
      {&land_limited, [](D d) { return fact(d, "place") != fact(d, "other") && fact(d, "most") >= 1; }},
      {&press_left, [](D d) { return margin(d, "away") < 0; }},
      {&rated, [](D d) { return fact(d, "meant") > 0 && fact(d, "meant") <= fact(d, "marks"); }},
      {&tab_chosen, [](D d) { return fact(d, "index") >= 1 && fact(d, "index") <= fact(d, "count"); }},
      {&thumb_low, [](D d) { return fact(d, "low") <= fact(d, "high"); }},
      {&thumb_high, [](D d) { return fact(d, "high") <= fact(d, "low"); }},
      {&low_by_way, [](D d) { return fact(d, "way") < 0; }},
      {&high_by_way, [](D d) { return fact(d, "way") > 0; }},
      {&swipe_opens, [](D d) { return fact(d, "place") > 0; }},
      {&swipe_commits, [](D d) { return margin(d, "from") >= 0; }},
      {&swipe_returns, [](D d) { return fact(d, "waited") > 0; }},
      {&plane_zooms, [](D d) { return fact(d, "zoom") > 0 && fact(d, "to zoom") > 0; }},
      {&dot_pressed, [](D d) { return fact(d, "page") >= 1 && fact(d, "page") <= fact(d, "count"); }},
      {&item_tapped, [](D d) { return fact(d, "item") >= 1 && fact(d, "away") >= 0; }},
      {&land_only, [](D d) { return fact(d, "distance") == std::fabs(fact(d, "aimed") - fact(d, "place")); }},
      {&land_free, [](D d) { return fact(d, "from") == fact(d, "place"); }},
      {&land_thrown, [](D d) { return fact(d, "from") != fact(d, "place") && fact(d, "speed") != 0; }},
      {&land_bound, [](D d) { return fact(d, "from") != fact(d, "place"); }},
      {&land_glides, [](D d) { return fact(d, "speed") != 0; }},
      {&land_glides_past,
       [](D d) {
         return std::fabs(fact(d, "aimed") - fact(d, "from")) >
                    std::fabs(fact(d, "place") - fact(d, "from")) &&
                fact(d, "after") >= 0;
       }},
      {&land_tapped,
       [](D d) { return fact(d, "distance") == std::fabs(fact(d, "place") - fact(d, "from")); }},
      {&lifted_moving, [](D d) { return margin(d, "rested") > 0 && std::fabs(fact(d, "velocity")) >= 0.5; }},
      {&lifted_resting, [](D d) { return margin(d, "rested") <= 0; }},
      {&lifted_still, [](D d) { return std::fabs(fact(d, "velocity")) < 0.5; }},
      {&goes_back, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&stays_cancelled, [](D d) { return fact(d, "from") == fact(d, "to"); }},
      {&write_moves, [](D d) { return fact(d, "written") == fact(d, "to"); }},
      {&write_limited, [](D d) { return fact(d, "written") != fact(d, "to"); }},
      {&bound_passes_on, [](D d) { return fact(d, "speed") != 0; }},
      {&bound_yields, [](D d) { return fact(d, "speed") != 0; }},
      {&bound_stops, [](D d) { return fact(d, "speed") != 0; }},
      {&key_moves, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&key_at_end, [](D d) { return fact(d, "from") == fact(d, "to"); }},
      {&owns, [](D d) { return margin(d, "inside by") >= 0 && fact(d, "rivals") == 0; }},
      {&owns_first, [](D d) { return margin(d, "inside by") >= 0 && fact(d, "rivals") > 0; }},
      {&owner_beside, [](D d) { return margin(d, "inside by") < 0 && fact(d, "outside by") > 0; }},
      {&toast_stands, [](D d) { return fact(d, "left") >= 0; }},
      {&toast_runs, [](D d) { return fact(d, "left") >= 0; }},
      {&toast_waits, [](D d) { return fact(d, "before") >= 1; }},
      {&owner_palm, [](D d) { return margin(d, "size") <= 0; }},
      {&owner_bezel, [](D d) { return margin(d, "from the edge") <= 0; }},
      {&contest_won, [](D d) { return margin(d, "along") >= 0 && fact(d, "rivals") > 0; }},
      {&contest_nobody, [](D d) { return margin(d, "along") >= 0; }},
      {&goes_on, [](D d) { return fact(d, "left over") > 0; }},
      {&goes_on_with_flick, [](D d) { return fact(d, "speed") > 0; }},
      {&clock_went_back, [](D d) { return fact(d, "back") > 10; }},
  };
  return table;
}

/// False when the answer claims what its numbers deny.
inline bool true_to_its_numbers(const Decision& decision) {
  const auto claim = claims().find(decision.answer);
  return claim == claims().end() || claim->second(decision);
}

}  // namespace ubbo::test
