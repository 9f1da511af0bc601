// What a swipe row is to scenes, films and whoever shows it: its settings, readings, pieces and actions.
#include <algorithm>
#include <array>
#include <cmath>
#include <optional>
#include <span>
#include <vector>

#include "ubbo/parts/swipe_row.hpp"

namespace ubbo {

template <>
std::span<const Setting<SwipeRowSettings>> settings_of<SwipeRowSettings>() {
  using declare::number;
  using S = SwipeRowSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the row is, for people and screen readers"),
      number<&S::leading>("leading", "dp", 0.0, 10000.0,
                          "how far it opens over the action at its leading side; 0: there is none"),
      number<&S::trailing>("trailing", "dp", 0.0, 10000.0,
                           "how far it opens over the action at its trailing side; 0: there is none"),
      number<&S::above>("above", "dp", 0.0, 10000.0,
                        "how far it slides down over the action above it; 0: there is none"),
      number<&S::below>("below", "dp", 0.0, 10000.0,
                        "how far it slides up over the action below it; 0: there is none"),
      declare::text<&S::leading_label>("leading_label",
                                       "the action at its leading side, such as \"Water\", for people and "
                                       "screen readers"),
      declare::text<&S::trailing_label>("trailing_label", "the action at its trailing side, in words"),
      declare::text<&S::above_label>("above_label", "the action above it, in words"),
      declare::text<&S::below_label>("below_label", "the action below it, in words"),
      declare::text<&S::leading_glyph>("leading_glyph", "the sign of the action at its leading side"),
      declare::text<&S::trailing_glyph>("trailing_glyph", "the sign of the action at its trailing side"),
      declare::text<&S::above_glyph>("above_glyph", "the sign of the action above it"),
      declare::text<&S::below_glyph>("below_glyph", "the sign of the action below it"),
      declare::choice<&S::leading_rank>("leading_rank", rank_names,
                                        "what the action at its leading side is to people"),
      declare::choice<&S::trailing_rank>("trailing_rank", rank_names,
                                         "what the action at its trailing side is to people"),
      declare::choice<&S::above_rank>("above_rank", rank_names, "what the action above it is to people"),
      declare::choice<&S::below_rank>("below_rank", rank_names, "what the action below it is to people"),
      declare::cell<&S::leading_presses>("leading_presses",
                                         "a cell that counts the presses of the action at its leading side; "
                                         "without one, what lies behind the row gets them; may be left out"),
      declare::cell<&S::trailing_presses>(
          "trailing_presses",
          "a cell that counts the presses of the action at its trailing side; "
          "may be left out"),
      declare::cell<&S::above_presses>(
          "above_presses", "a cell that counts the presses of the action above it; may be left out"),
      declare::cell<&S::below_presses>(
          "below_presses", "a cell that counts the presses of the action below it; may be left out"),
      declare::flag<&S::action_closes>("action_closes", "a press of an action closes the row"),
      declare::length<&S::open_distance>(
          "open_distance",
          "how far it must be dragged to open when it is let go: a length, or a share of the way to where it "
          "is open; 0: half-way"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far a long swipe must go to commit: a length, or a share of the row's own length; 0: none "
          "does"),
      number<&S::closes_after>("closes_after", "ms", 0.0, 600000.0,
                               "once open, it closes by itself after this time; 0: it stays open"),
      number<&S::timeout>("timeout", "ms", 0.0, 600000.0,
                          "once committed, it has failed when nothing came of it within this time; 0: never"),
      declare::cell<&S::open>(
          "open",
          "a cell with the id of the row that is open; those that share it are open one at "
          "a time; may be left out"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
      declare::choice<&S::overscroll>(
          "overscroll", overscroll_names,
          "how it yields when it is dragged past its furthest place on a side it opens to: not at all, by a "
          "share of the finger's way, or less and less"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes at most"),
  };
  return table;
}

namespace {

const SwipeRow& row_of(const Part& part) { return static_cast<const SwipeRow&>(part); }

template <Axis axis>
void row_thresholds(const Part& part, std::vector<Threshold>& out) {
  const auto& it = static_cast<const SwipeRow&>(part);
  const RailPlan& plan = it.rail(axis).plan();
  const std::size_t first = out.size();
  it.rail(axis).add_thresholds(out);
  const Box& box = it.layout_box();
  const double commit = it.settings().commit_distance.in(axis == Axis::horizontal ? box.w : box.h);
  if (commit > 0.0 && plan.max > 0.0) out.push_back({commit, 1});
  if (commit > 0.0 && plan.min < 0.0) out.push_back({-commit, -1});
  if (plan.dp_per_unit < 0.0)
    for (Threshold& one : std::span(out).subspan(first)) one = {-one.value, -one.way};
}
double offset_x(const SwipeRow& it) { return it.offset().x; }
double offset_y(const SwipeRow& it) { return it.offset().y; }
std::string state_name(const SwipeRow& it) { return name_of(it.state()); }
std::string side_name(const SwipeRow& it) { return it.side(); }

constexpr std::array swipe_row_readings{
    ReadingInfo{"offset.x", "dp", "how far it has slid to the right", &read<SwipeRow, &offset_x>, nullptr,
                true, &row_thresholds<Axis::horizontal>},
    ReadingInfo{"offset.y", "dp", "how far it has slid down", &read<SwipeRow, &offset_y>, nullptr, true,
                &row_thresholds<Axis::vertical>},
    ReadingInfo{"fraction", "", "how far it is open", &read<SwipeRow, &SwipeRow::fraction>},
    ReadingInfo{"side", "", "the side it is open over", &read<SwipeRow, &side_name>},
    ReadingInfo{"state", "", "closed, open, committed, troubled or removed", &read<SwipeRow, &state_name>},
    ReadingInfo{"room", "", "how much of its place is left", &read<SwipeRow, &SwipeRow::room>},
    ReadingInfo{"pressed", "", "a finger has it", &read<SwipeRow, &SwipeRow::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<SwipeRow, &SwipeRow::dragging>},
};

void swipe_row_pieces(const Part& part, const PieceTaker& out) {
  const SwipeRow& it = row_of(part);
  Box box = it.box();
  box.h *= std::clamp(it.room(), 0.0, 1.0);
  const Point offset = it.offset();
  std::optional<Box> clip;
  if (offset.y != 0.0) clip = it.place();
  if (offset != Point{}) {
    out({.role = Role::behind,
         .name = it.side(),
         .box = it.uncovered(),
         .words = it.side_label(),
         .clip = clip,
         .on = it.uncovered_side() % 2 == 0,
         .held = it.action_pressed(),
         .rank = it.side_rank(),
         .glyph = it.side_glyph(),
         .failed = it.state() == SwipeRow::State::failed,
         .cursor = it.has_action(it.uncovered_side()) ? Cursor::pointer : Cursor::automatic});
  }
  out({.role = Role::row, .box = box, .clip = clip, .held = it.dragging(), .cursor = Cursor::grab});
  if (it.room() > 0.5)
    out({.role = Role::label,
         .box = {box.x + 16.0, box.centre().y - 10.0, std::fmax(box.w - 32.0, 0.0), 20.0},
         .words = it.settings().label,
         .clip = clip});
}

template <int Side>
constexpr PartAction press_side(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<SwipeRow&>(part).press_action(Side); },
          [](const Part& part) { return row_of(part).has_action(Side); }};
}

template <int Side>
constexpr PartAction open_action(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<SwipeRow&>(part).open(Side); },
          [](const Part& part) { return row_of(part).can_open(Side); }};
}

constexpr std::array swipe_actions{
    open_action<0>("open leading", "opens over what lies at its leading side"),
    open_action<1>("open trailing", "opens over what lies at its trailing side"),
    open_action<2>("open above", "opens over what lies above it"),
    open_action<3>("open below", "opens over what lies below it"),
    press_side<0>("press leading", "presses the action at its leading side, open or not"),
    press_side<1>("press trailing", "presses the action at its trailing side"),
    press_side<2>("press above", "presses the action above it"),
    press_side<3>("press below", "presses the action below it"),
    PartAction{.name = "reset",
               .means = "goes back and is as it was",
               .run = &run_action<SwipeRow, &SwipeRow::reset>,
               .while_held = WhileHeld::cancels},
    PartAction{.name = "fail",
               .means = "what was committed has failed, and the row shows that",
               .run = &run_action<SwipeRow, &SwipeRow::fail>,
               .can = [](const Part& part) { return row_of(part).state() == SwipeRow::State::committed; },
               .while_held = WhileHeld::immediate,
               .offered = false},
    PartAction{.name = "remove",
               .means = "its place closes, and then it may be taken away",
               .run = &run_action<SwipeRow, &SwipeRow::remove>,
               .can = [](const Part& part) { return row_of(part).state() != SwipeRow::State::removed; },
               .while_held = WhileHeld::cancels,
               .offered = false}};

}  // namespace

const PartKind& SwipeRow::described() {
  static const PartKind kind = describe<SwipeRow>(
      {.name = "swipe-row",
       .means = "a row that slides aside over what lies behind it",
       .role = "group",
       .example = {.box = R"(0, 200, "100%", 72)",
                   .lines = "label = \"Heather\"\nleading = 96\nleading_label = \"Water\"\n",
                   .cells = ""},
       .readings = swipe_row_readings,
       .pieces = &swipe_row_pieces,
       .own_state = true,
       .reaches_out = true,
       .content_size =
           [](const AnySettings&, const Content& content, const TextWidth&) {
             return Size{0.0, content.detail.empty() ? 56.0 : 72.0};
           },
       .keys = "arrows, Enter, Space, Escape",
       .actions = swipe_actions,
       .answers = answers::swipe_row_answers});
  return kind;
}

}  // namespace ubbo
