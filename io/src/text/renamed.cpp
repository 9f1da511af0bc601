// What settings, kinds and readings were called before.
#include <algorithm>
#include <array>
#include <utility>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

using Renamed = std::pair<std::string_view, std::string_view>;

constexpr std::array renamed_names{
    Renamed{"another", "when_busy"},
    Renamed{"at_most", "max_per_flick"},
    Renamed{"back_goes_back", "system_back"},
    Renamed{"carry", "projection_time"},
    Renamed{"chosen", "selected"},
    Renamed{"commit", "commit_distance"},
    Renamed{"commit_fraction", "commit_distance"},
    Renamed{"commits_at", "commit_distance"},
    Renamed{"each_after", "stagger"},
    Renamed{"each_from", "stagger_distance"},
    Renamed{"edge_goes_back", "edge_swipe_back"},
    Renamed{"edge_opens", "edge_swipe_opens"},
    Renamed{"enters_at_first", "enter_on_start"},
    Renamed{"far", "commit_distance"},
    Renamed{"far_distance", "commit_distance"},
    Renamed{"far_rate", "parallax"},
    Renamed{"follow", "update_when"},
    Renamed{"give", "overscroll"},
    Renamed{"give_end", "overscroll_end"},
    Renamed{"give_in", "overscroll_in"},
    Renamed{"give_least", "overscroll_min"},
    Renamed{"give_most", "overscroll_max"},
    Renamed{"give_out", "overscroll_out"},
    Renamed{"give_reach", "overscroll_reach"},
    Renamed{"give_share", "overscroll_fraction"},
    Renamed{"give_start", "overscroll_start"},
    Renamed{"glide", "half_life"},
    Renamed{"glide", "size_transition"},
    Renamed{"index", "selected"},
    Renamed{"index", "selected_index"},
    Renamed{"least", "min"},
    Renamed{"least_gap", "min_gap"},
    Renamed{"most", "max"},
    Renamed{"open_fraction", "open_distance"},
    Renamed{"opens_at", "open_distance"},
    Renamed{"overscroll_share", "overscroll_fraction"},
    Renamed{"page", "position"},
    Renamed{"page", "selected"},
    Renamed{"passage", "transition"},
    Renamed{"patience", "timeout"},
    Renamed{"per_view", "visible_items"},
    Renamed{"per_view_wide", "visible_items_wide"},
    Renamed{"rest", "snap_point"},
    Renamed{"rest_shares", "snap_fractions"},
    Renamed{"rests", "snap_points"},
    Renamed{"returns_after", "closes_after"},
    Renamed{"share", "fraction"},
    Renamed{"shares", "observes"},
    Renamed{"shows", "trigger"},
    Renamed{"shows", "selected"},
    Renamed{"stands", "snap_point"},
    Renamed{"stands_back_for", "yields_to"},
    Renamed{"stands_back_towards", "yield_direction"},
    Renamed{"tap_travels", "tap_moves"},
    Renamed{"tell_tap", "report_tap"},
    Renamed{"top", "selected"},
    Renamed{"touch_while_arriving", "touch_while_entering"},
    Renamed{"turns", "rotates"},
    Renamed{"turns", "order"},
    Renamed{"value_follows", "value_bubble"},
    Renamed{"veil", "dim"},
    Renamed{"veil_passage", "dim_transition"},
    Renamed{"visit", "state"},
    Renamed{"window", "visible_dots"},
    Renamed{"wide", "wide_from"},
    Renamed{"window", "panel"},
};

}  // namespace

std::string_view new_name(std::string_view word, std::span<const std::string_view> known) {
  for (const auto& [before, now] : renamed_names)
    if (word == before && std::find(known.begin(), known.end(), now) != known.end()) return now;
  return {};
}

}  // namespace ubbo::io
