#pragma once

// What answers claim, held against their own numbers, without the code that makes sentences.
#include <array>
#include <cmath>
#include <map>

#include "ubbo/testing/check.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::test {

inline double fact(const Decision& decision, std::string_view name) {
  for (const Fact& one : decision.all_facts())
    if (name == one.name) return one.value;
  FAIL("no fact " << name << " in " << decision.answer->name);
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

// The name of a fact, as a template takes it.
struct FactName {
  template <std::size_t n>
  constexpr FactName(const char (&name)[n]) {  // NOLINT(google-explicit-constructor): a name is one as it is
    std::copy_n(name, n, chars.begin());
  }
  std::array<char, 24> chars{};
};
template <FactName name>
bool is_finite(const Decision& decision) {
  return std::isfinite(fact(decision, name.chars.data()));
}
template <FactName name>
bool is_whole(const Decision& decision) {
  const double value = fact(decision, name.chars.data());
  return std::isfinite(value) && value == std::round(value);
}
inline bool one_of(const Decision& decision, std::string_view which, std::string_view count) {
  return fact(decision, which) >= 1 && fact(decision, which) <= fact(decision, count);
}

using Claim = bool (*)(const Decision&);
inline const std::map<const Answer*, Claim>& claims() {
  using D = const Decision&;
  using namespace answers;
  static const std::map<const Answer*, Claim> table{
      {&too_many_contacts, [](D d) { return fact(d, "open") == static_cast<double>(Contacts::room); }},
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
      {&land_coasts, [](D d) { return fact(d, "speed") != 0; }},
      {&land_coasts_past,
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
      {&toast_pauses, [](D d) { return fact(d, "left") >= 0; }},
      {&toast_goes_on, [](D d) { return fact(d, "left") >= 0; }},
      {&toast_waits, [](D d) { return fact(d, "before") >= 1; }},
      {&owner_palm, [](D d) { return margin(d, "size") <= 0; }},
      {&owner_bezel, [](D d) { return margin(d, "from the edge") <= 0; }},
      {&contest_won, [](D d) { return margin(d, "along") >= 0 && fact(d, "rivals") > 0; }},
      {&contest_nobody, [](D d) { return margin(d, "along") >= 0; }},
      {&goes_on, [](D d) { return fact(d, "distance") > 0; }},
      {&goes_on_with_flick, [](D d) { return fact(d, "speed") > 0; }},
      {&not_down, is_whole<"contact">},
      {&already_down, is_whole<"contact">},
      {&time_went_back, [](D d) { return fact(d, "time") < to_ms(d.time); }},
      {&not_finite, is_whole<"contact">},
      {&far_ahead, [](D d) { return fact(d, "ahead") > 0; }},
      {&land_tapped_free, is_finite<"place">},
      {&item_asked, [](D d) { return is_whole<"item">(d) && fact(d, "item") >= 1; }},
      {&dot_by_key, [](D d) { return one_of(d, "page", "count"); }},
      {&dot_by_wheel, [](D d) { return one_of(d, "page", "count"); }},
      {&dot_by_call, [](D d) { return one_of(d, "page", "count"); }},
      {&card_far, [](D d) { return margin(d, "far") >= 0; }},
      {&card_fast, [](D d) { return margin(d, "speed") >= 0; }},
      {&card_stays, [](D d) { return margin(d, "far") < 0; }},
      {&card_flicked_back, [](D d) { return margin(d, "far") >= 0 && fact(d, "speed") < 0; }},
      {&card_undone, [](D d) { return is_whole<"card">(d) && fact(d, "card") >= 1; }},
      {&plane_lands, [](D d) { return fact(d, "zoom") > 0 && fact(d, "to zoom") > 0; }},
      {&plane_rests, [](D d) { return fact(d, "zoom") > 0; }},
      {&at_rest, is_finite<"value">},
      {&write_is_there, is_finite<"to">},
      {&write_waits, is_finite<"written">},
      {&caught_stays, is_finite<"place">},
      {&caught_goes_on, [](D d) { return fact(d, "place") != fact(d, "to"); }},
      {&filled_to, [](D d) { return fact(d, "fraction") >= 0 && fact(d, "fraction") <= 1; }},
      {&call_moves, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&call_at_end, [](D d) { return fact(d, "from") == fact(d, "to"); }},
      {&swipe_timed_out, [](D d) { return fact(d, "waited") > 0; }},
      {&rated_none, [](D d) { return fact(d, "marks") >= 1; }},
      {&rating_goes_back, [](D d) { return fact(d, "meant") >= 0; }},
      {&tab_is_chosen, [](D d) { return one_of(d, "index", "count"); }},
      {&tab_by_key, [](D d) { return one_of(d, "index", "count"); }},
      {&tab_by_wheel, [](D d) { return one_of(d, "index", "count"); }},
      {&tab_by_call, [](D d) { return one_of(d, "index", "count"); }},
      {&underline_rests, [](D d) { return fact(d, "index") >= 1; }},
      {&toast_time_over, [](D d) { return fact(d, "time") > 0; }},
      {&swap_forward, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&swap_back, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&swap_done, [](D d) { return fact(d, "to") >= 1; }},
      {&page_forward, [](D d) { return fact(d, "from") < fact(d, "to"); }},
      {&page_back, [](D d) { return fact(d, "from") > fact(d, "to"); }},
      {&page_here, [](D d) { return fact(d, "to") >= 1; }},
      {&owner_pulled, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&owner_catches, [](D d) { return margin(d, "inside by") >= 0; }},
      {&owner_held, [](D d) { return margin(d, "inside by") >= 0; }},
      {&owner_disabled, [](D d) { return margin(d, "inside by") >= 0; }},
      {&owner_nobody, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&wheel_moves, [](D d) { return fact(d, "from") != fact(d, "to"); }},
      {&wheel_at_end, [](D d) { return fact(d, "from") == fact(d, "to"); }},
      {&wheel_scrolls, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&wheel_zooms, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&wheel_scrolls_around, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&wheel_nobody, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&wheel_steps, [](D d) { return margin(d, "turned") >= 0; }},
      {&wheel_too_little, [](D d) { return margin(d, "turned") < 0; }},
      {&wheel_stops, [](D d) { return fact(d, "left") > 0; }},
      {&wheel_rests, [](D d) { return margin(d, "rested") >= 0; }},
      {&hover_enters, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&hover_leaves, [](D d) { return is_finite<"x">(d) && is_finite<"y">(d); }},
      {&layout_restless, [](D d) { return fact(d, "rounds") >= 2; }},
      {&callbacks_endless, [](D d) { return fact(d, "events") > 100; }},
      {&due_again, [](D d) { return fact(d, "times") >= 2; }},
      {&clock_went_back, [](D d) { return fact(d, "back") > 10; }},
  };
  return table;
}

/// Whether its sentence tells a number, and so needs a claim; a part's own name is none.
inline bool tells_a_number(const Answer& answer) {
  const std::string sentence = words::Catalogue::english().of(answer).sentence;
  std::string_view rest = sentence;
  for (std::size_t at = rest.find('{'); at != std::string_view::npos; at = rest.find('{')) {
    rest.remove_prefix(at);
    if (!rest.starts_with("{part}")) return true;
    rest.remove_prefix(1);
  }
  return false;
}

/// False when the answer claims what its numbers deny, or nothing is known of what it claims.
inline bool true_to_its_numbers(const Decision& decision) {
  const auto claim = claims().find(decision.answer);
  return claim == claims().end() ? !tells_a_number(*decision.answer) : claim->second(decision);
}

}  // namespace ubbo::test
