#include "ubbo/io/check/check.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <set>
#include <utility>

#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/stage/seen_pieces.hpp"

namespace ubbo::io {

namespace {

// What fingers hit, and what people see as a motion and do not wait for: docs/formats/scene.md.
constexpr double min_target = 44.0;  // dp
constexpr double min_gap = 8.0;      // dp
constexpr double quickest = 125.0;   // ms
constexpr double slowest = 800.0;    // ms

enum RuleName : std::size_t {
  unreadable,
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
  no_way_out,
  idle_silence,
};

constexpr std::array rules{
    Rule{"unreadable",
         "the scene says what its format or a part refuses, such as a dialog without a way out"},
    Rule{"off-screen",
         "a part leaves the screen, or what it lies in: part of it can neither be seen nor touched"},
    Rule{"under-cutout", "a part lies under the notch or a system bar, where touches and content are lost"},
    Rule{"covered", "a part covers another's middle: what is meant for the lower one goes to the upper"},
    Rule{"small-target", "a target is under 44 dp: fingers miss it, gloved ones more often"},
    Rule{"close-targets", "small targets lie closer than 8 dp: fingers hit the wrong one"},
    Rule{"no-name", "a part has no label: screen readers have nothing to say"},
    Rule{"unheard",
         "a part that holds a value is linked to no cell: it looks right, and the app never hears of it"},
    Rule{"never-shown", "a layer that no cell, edge or take opens: it is made and never seen"},
    Rule{"one-way",
         "a layer comes by a motion and goes without one, or the other way about: it looks broken"},
    Rule{"cut-exit", "what lies in a layer takes longer to go than the layer: its exit is cut"},
    Rule{"back-ignored",
         "a layer keeps all below it from touches and is not closed by back: people feel locked in"},
    Rule{"short-message", "a message is gone before it can be read"},
    Rule{"doubled-snap-point", "two snap points lie on each other: one of them is never meant"},
    Rule{"lost-content",
         "a choice has more or fewer names than there are contents: one of them shows nothing"},
    Rule{"step-over-range", "a step is larger than the range: only the ends can be reached"},
    Rule{"commit-out-of-reach", "a swipe commits where a finger hardly comes, or before it has opened"},
    Rule{"out-of-range", "a cell begins where its part cannot be: the part shows something else"},
    Rule{"idle-cell", "no part reads or writes a cell"},
    Rule{"drag-above-tap", "the drag threshold is above the tap reach: between the two a touch is neither"},
    Rule{"hold-below-tap", "the hold delay is below the tap time: a slow tap is a long press as well"},
    Rule{"gap-above-hold", "the multi-tap gap is above the hold delay: a hold could still be a second tap"},
    Rule{"too-quick", "a motion takes less than an eighth of a second: it is not seen as a motion"},
    Rule{"too-slow", "a motion takes more than 0.8 s: people wait for it"},
    Rule{"seconds-for-ms", "a time in ms is so small that seconds were meant"},
    Rule{"share-for-dp", "a length in dp is so small that a share was meant"},
    Rule{"no-way-back",
         "a destructive action without a question before it or an undo after it: one slip, and it is gone"},
    Rule{"text-cut", "a text is wider than its box: the end of it is not read"},
    Rule{"alike-actions",
         "two actions of a row differ by colour alone: who does not see it takes the wrong one"},
    Rule{"low-contrast", "a text is so faint that its contrast is below 4.5 to 1 (WCAG AA)"},
    Rule{"no-way-out", "a layer is open from the beginning, and nothing on the screen can close it"},
    Rule{"idle-silence", "a silence that silences nothing"},
};

std::string ms(double value) { return plain_number(value) + " ms"; }
std::string dp(double value) { return plain_number(value) + " dp"; }

bool any_of(std::string_view text, std::initializer_list<std::string_view> all) {
  return std::find(all.begin(), all.end(), text) != all.end();
}

// A part of the scene, with what it comes to.
struct Looked {
  const PartPlan* plan;
  const Part* part;
  bool layer;   // it comes and goes
  bool target;  // people touch it, or reach it by keys
  Box box;      // where it stands when it is here
};

class Checker {
 public:
  // `partial`: parts were left out that could not be read, so that nothing is said of what is not there.
  Checker(const Scene& scene, const TextWidth& measure, bool partial)
      : scene_(&scene), measure_(&measure), partial_(partial), run_(scene) {
    run_.stage().advance(Micros{0});
    for (const PartPlan& plan : scene.parts) {
      const Part& part = *run_.stage().find(plan.id);
      const bool layer = part.absent() || part.modal();
      const Accessible access = part.accessible();
      const bool target = !layer && !plan.disabled && (!access.keys.empty() || !OfferedActions(part).empty());
      Box box = part.layout_box();
      const Part* inner = &part;
      for (const Part* outer = part.outer(); outer != nullptr; inner = std::exchange(outer, outer->outer()))
        if (!outer->absent()) box = box + outer->carries_part(*inner);
      parts_.push_back({&plan, &part, layer, target, box});
    }
  }

  std::vector<Finding> findings() {
    for (const Looked& one : parts_) {
      places(one);
      settings(one);
      layers(one);
      texts(one);
      actions(one);
    }
    pairs();
    cells();
    feel(scene_->stage.feel, "feel", scene_->feel_place);
    for (const PartPlan& plan : scene_->parts)
      if (plan.feels) feel(plan.feels->finger, plan.id, {plan.line, plan.column});
    silence();
    std::stable_sort(found_.begin(), found_.end(), [](const Finding& a, const Finding& b) {
      return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
    });
    return std::move(found_);
  }

 private:
  void say(RuleName rule, const std::string& of, FilePlace place, std::string found, std::string remedy) {
    const bool of_absence = rule == unheard || rule == never_shown || rule == lost_content ||
                            rule == idle_cell || rule == no_way_back || rule == no_way_out ||
                            rule == idle_silence;
    if (partial_ && of_absence) return;
    found_.push_back({&rules[rule], of, place, std::move(found), std::move(remedy), {}});
  }
  void say(RuleName rule, const Looked& one, const char* setting, std::string found, std::string remedy) {
    const auto place = one.plan->places.find(setting);
    say(rule, one.plan->id,
        place == one.plan->places.end() ? FilePlace{one.plan->line, one.plan->column} : place->second,
        std::move(found), std::move(remedy));
  }

  // A setting of the part, by its name; what it holds otherwise, nothing.
  static std::optional<SettingValue> value(const Looked& one, std::string_view name) {
    const std::size_t at = find_setting(*one.plan->kind, name);
    if (at == one.plan->kind->settings()) return {};
    return one.plan->kind->get(one.plan->settings, at);
  }
  static std::optional<double> number(const Looked& one, std::string_view name) {
    const auto found = value(one, name);
    if (!found || !std::holds_alternative<double>(*found)) return {};
    return std::get<double>(*found);
  }
  static bool linked(const Looked& one, std::string_view name) {
    return one.plan->cells.contains(std::string(name));
  }

  // Where it stands.

  void places(const Looked& one) {
    const Box screen{0.0, 0.0, run_.stage().width(), run_.stage().height()};
    const Part* outer = one.part->outer();
    const Box whole = outer == nullptr ? screen : outer->layout_box();
    const Box& box = one.part->layout_box();
    // What scrolls holds more than is seen.
    const bool scrolls = outer != nullptr && !outer->kind().readings.empty() &&
                         outer->drag_interest({}).follows(Axis::vertical);
    const double out = std::max({whole.x - box.x, whole.y - box.y, box.right() - whole.right(),
                                 scrolls ? -1.0 : box.bottom() - whole.bottom()});
    if (out > 0.5 && !(scrolls && outer->drag_interest({}).follows(Axis::horizontal)))
      say(off_screen, one, "x",
          fmt::format("{} leaves {} by {}", one.plan->id, outer == nullptr ? "the screen" : outer->id(),
                      dp(out)),
          "move it in, make it smaller, or place it by its distances from the edges");
    if (outer == nullptr && one.target) {
      const Box safe = inner(screen, scene_->stage.safe);
      const double under = std::max(
          {safe.x - box.x, safe.y - box.y, box.right() - safe.right(), box.bottom() - safe.bottom()});
      if (under > 0.5 && out <= 0.5 && !one.part->drag_interest({}).follows(Axis::vertical))
        say(under_cutout, one, "y",
            fmt::format("{} lies {} under what notch or system bars take", one.plan->id, dp(under)),
            "in_safe_area = true places it by the safe area");
    }
    if (!one.target) return;
    const double min = std::min(box.w, box.h);
    if (min < min_target)
      say(small_target, one, box.w < box.h ? "w" : "h",
          fmt::format("{} is {} by {}", one.plan->id, dp(box.w), dp(box.h)),
          "make it 44 dp at least, each way");
  }

  // What it lies in carries it to a place of its own, or shows it at its own time.
  static bool carried(const Looked& one) {
    return one.part->outer() != nullptr && one.part->outer()->places_children();
  }

  void pairs() {
    for (std::size_t a = 0; a < parts_.size(); ++a)
      for (std::size_t b = a + 1; b < parts_.size(); ++b) {
        const Looked& low = parts_[a];
        const Looked& high = parts_[b];
        if (low.part->outer() != high.part->outer() || low.layer || high.layer || low.plan->hidden ||
            high.plan->hidden)
          continue;
        if (carried(low) || carried(high)) continue;  // what holds them places them
        if (!low.target || high.part->contact_rules().observes) continue;
        if (high.box.contains(low.box.centre()))
          say(covered, high, "x", fmt::format("{} covers the middle of {}", high.plan->id, low.plan->id),
              fmt::format("move one of them, or let {} lie in {}", high.plan->id, low.plan->id));
        const auto small = [](const Box& box) { return box.w < 160.0 && box.h < 160.0; };
        if (!high.target || !small(low.box) || !small(high.box)) continue;
        const double across = std::max(low.box.x - high.box.right(), high.box.x - low.box.right());
        const double down = std::max(low.box.y - high.box.bottom(), high.box.y - low.box.bottom());
        const double gap = std::max(across, down);
        if (gap >= 0.0 && gap < min_gap)
          say(close_targets, high, "x",
              fmt::format("{} and {} are {} apart", low.plan->id, high.plan->id, dp(gap)),
              "leave 8 dp between them at least");
      }
  }

  // What stands in it, as it is before anybody touches it.
  void texts(const Looked& one) {
    bool cut = false;
    bool faint = false;
    seen_pieces(*one.part, [&](const Piece& piece) {
      if (piece.words.empty() || piece.box.w <= 0.0) return;
      const double size = std::min(0.7 * piece.box.h, 20.0);
      const double wide = *measure_ ? (*measure_)(piece.words, size, true) : 0.0;
      if (!std::exchange(cut, cut || wide > piece.box.w) && wide > piece.box.w)
        say(text_cut, one, "label",
            fmt::format("'{}' is {} wide at {} high, and there is room for {}", piece.words,
                        dp(std::round(wide)), dp(std::round(size)), dp(std::round(piece.box.w))),
            "say it in fewer words, or make the part wider");
      // Ink on paper has 14 to 1; less solid than this it falls below 4.5.
      constexpr double faintest = 0.6;
      if (!std::exchange(faint, faint || piece.opacity < faintest) && piece.opacity > 0.0 &&
          piece.opacity < faintest && common(piece.box, one.part->box()) == piece.box)
        say(low_contrast, one, "label",
            fmt::format("'{}' is shown at {} of its strength", piece.words, plain_number(piece.opacity)),
            "show it at 0.6 at least, or not at all");
    });
  }

  // Whether people can take it back: a question before it, or a message with a button after it.
  bool can_be_taken_back(const Looked& one) const {
    for (const Part* outer = one.part->outer(); outer != nullptr; outer = outer->outer())
      if (outer->is_layer() && outer->modal()) return true;  // it answers a question
    const auto opens = one.plan->cells.find("opens");
    return std::any_of(parts_.begin(), parts_.end(), [&](const Looked& other) {
      if (!other.plan->kind->over_others) return false;
      const auto cell = other.plan->cells.find("open");
      if (opens != one.plan->cells.end() && cell != other.plan->cells.end() && cell->second == opens->second)
        return true;
      const auto button = value(other, "button");
      return button && std::holds_alternative<std::string>(*button) &&
             !std::get<std::string>(*button).empty();
    });
  }

  void actions(const Looked& one) {
    std::vector<std::string> seen;
    bool destroys = one.plan->content.rank == Rank::destructive && one.target;
    std::string name = one.plan->id;
    for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
      const std::string_view setting = one.plan->kind->setting(i).name;
      if (!setting.ends_with("_rank")) continue;
      const std::string side(setting.substr(0, setting.size() - std::string_view("_rank").size()));
      if (number(one, side).value_or(0.0) <= 0.0) continue;
      const auto text = [&](const char* of) { return std::get<std::string>(*value(one, side + of)); };
      if (number(one, setting) == static_cast<double>(Rank::destructive)) {
        destroys = true;
        name = fmt::format("{} of {}", side, one.plan->id);
      }
      const std::string what = text("_label") + "|" + text("_glyph");
      if (std::find(seen.begin(), seen.end(), what) != seen.end())
        say(alike_actions, one, "leading_label",
            fmt::format("two actions of {} are both called '{}'", one.plan->id, text("_label")),
            "give each a label or a glyph of its own");
      seen.push_back(what);
    }
    if (destroys && !can_be_taken_back(one))
      say(no_way_back, one, "rank",
          fmt::format("{} is destructive, and nothing asks before or undoes it after", name),
          "link opens to a dialog's cell, or add a toast tray with a button such as \"Undo\"");
  }

  // What its settings say.

  void settings(const Looked& one) {
    const Accessible access = one.part->accessible();
    const bool names_itself =
        !one.layer && std::any_of(parts_.begin(), parts_.end(), [&](const Looked& inside) {
          return inside.part != one.part && lies_in(*inside.part, *one.part) &&
                 !inside.part->accessible().label.empty();
        });
    if ((one.target || one.layer) && access.label.empty() && !names_itself && value(one, "label"))
      say(no_name, one, "label", fmt::format("{} has no label", one.plan->id), "say in label what it is");
    // What has places to rest at has a value.
    const auto readings = one.plan->kind->readings;
    const bool holds_value = !any_of(one.plan->kind->role, {"group", "list"}) &&
                             std::any_of(readings.begin(), readings.end(), [](const ReadingInfo& reading) {
                               return reading.snap_points != nullptr;
                             });
    bool takes_cell = false;
    for (std::size_t i = 0; i < one.plan->kind->settings(); ++i)
      takes_cell = takes_cell || one.plan->kind->setting(i).kind == SettingKind::cell;
    if (one.target && holds_value && takes_cell && one.plan->cells.empty())
      say(unheard, one, "kind", fmt::format("{} is linked to no cell", one.plan->id),
          "link it to a cell of the app");
    numbers(one);
    contents(one);
    for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
      const SettingInfo& info = one.plan->kind->setting(i);
      if (!one.plan->places.contains(info.name)) continue;  // defaults are no fault of the scene's
      const SettingValue value = one.plan->kind->get(one.plan->settings, i);
      if (const auto* transition = std::get_if<Transition>(&value)) times(one, info.name, *transition);
      const auto* number = std::get_if<double>(&value);
      if (number == nullptr) continue;
      if (info.kind == SettingKind::time && *number > 0.0 && *number < 10.0)
        say(seconds_for_ms, one, info.name,
            fmt::format("{} = {} are {}", info.name, plain_number(*number), ms(*number)),
            fmt::format("for {} s write {}", plain_number(*number), plain_number(*number * 1000.0)));
      if (info.kind == SettingKind::number && info.unit == std::string_view("dp") && *number > 0.0 &&
          *number < 1.0 && info.max > 100.0)
        say(share_for_dp, one, info.name,
            fmt::format("{} = {} are {}", info.name, plain_number(*number), dp(*number)),
            "write the length in dp");
    }
    const Placement& at = one.plan->placement;
    for (const auto& [name, length] : {std::pair{"w", at.w}, {"h", at.h}})
      if (length && length->fraction == 0.0 && length->dp > 0.0 && length->dp <= 1.0)
        say(share_for_dp, one, name,
            fmt::format("{} = {} is {}", name, plain_number(length->dp), dp(length->dp)),
            fmt::format("for a share of the container write \"{}%\"", plain_number(length->dp * 100.0)));
  }

  // What shows one of the parts in it has a name for each.
  void contents(const Looked& one) {
    for (const auto& [setting, cell] : one.plan->cells) {
      const CellValue* held = begins(cell);
      const auto* choice = held == nullptr ? nullptr : std::get_if<Choice>(held);
      if (setting != "selected" || choice == nullptr || !one.part->places_children()) continue;
      const auto inside =
          static_cast<std::size_t>(std::count_if(parts_.begin(), parts_.end(), [&](const Looked& other) {
            return other.part->outer() == one.part;
          }));
      if (inside != choice->names().size())
        say(lost_content, one, "selected",
            fmt::format("{} has {} parts in it, and {} names {}", one.plan->id, inside, cell,
                        choice->names().size()),
            "give each content a name, and each name a content");
    }
  }

  void numbers(const Looked& one) {
    const auto from = number(one, "from");
    const auto to = number(one, "to");
    const auto step = number(one, "step");
    if (from && to && step && *step > std::fabs(*to - *from))
      say(step_over_range, one, "step",
          fmt::format("step = {} on a range of {}", plain_number(*step),
                      plain_number(std::fabs(*to - *from))),
          "take a smaller step, or a wider range");
    for (const char* name : {"snap_points", "snap_fractions"})
      if (const auto snap_points = value(one, name);
          snap_points && std::holds_alternative<std::vector<double>>(*snap_points)) {
        std::vector<double> sorted = std::get<std::vector<double>>(*snap_points);
        std::sort(sorted.begin(), sorted.end());
        if (const auto twice = std::adjacent_find(sorted.begin(), sorted.end(),
                                                  [](double a, double b) { return b - a < 1e-9; });
            twice != sorted.end())
          say(doubled_snap_point, one, name, fmt::format("{} holds {} twice", name, plain_number(*twice)),
              "leave one of them out");
      }
    if (const auto commits = number(one, "commit_fraction"); commits && *commits > 0.0) {
      constexpr double reach = 0.85;  // of the way across: a finger begins somewhere, and stays on the screen
      const double opens =
          std::max(number(one, "leading").value_or(0.0), number(one, "trailing").value_or(0.0));
      const double at = *commits * one.part->layout_box().w;
      if (*commits > reach)
        say(commit_out_of_reach, one, "commit_fraction",
            fmt::format("a long swipe commits at {} of {}", dp(at), dp(one.part->layout_box().w)),
            "let it commit at 0.85 of the way at most");
      else if (at <= opens)
        say(commit_out_of_reach, one, "commit_fraction",
            fmt::format("a long swipe commits at {}, and it opens at {}", dp(at), dp(opens)),
            "let it commit further than it opens");
    }
  }

  static double length_of(const Transition& transition) {
    const Motion motion({.from = 0.0, .to = 100.0, .rest_floor = 0.05}, transition);
    return to_ms(motion.ends());
  }

  void times(const Looked& one, const char* name, const Transition& transition) {
    const double lasts = length_of(transition);
    if (lasts > 0.0 && lasts < quickest)
      say(too_quick, one, name, fmt::format("{} takes {} for 100 dp", name, ms(std::round(lasts))),
          "give it 125 ms at least");
    if (lasts > slowest)
      say(too_slow, one, name, fmt::format("{} takes {} for 100 dp", name, ms(std::round(lasts))),
          "give it 800 ms at most");
  }

  // Coming and going.

  // A part that is open from the first can be closed by itself, or by another that shares its cell.
  void way_to_close(const Looked& one) {
    if (!one.part->is_layer() || !one.part->open_layer()) return;
    for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
      const std::string_view name = one.plan->kind->setting(i).name;
      if (name.ends_with("_closes") && number(one, name) == 1.0) return;
    }
    for (const Looked& other : parts_)
      for (const auto& [setting, cell] : other.plan->cells)
        if (&other != &one && std::any_of(one.plan->cells.begin(), one.plan->cells.end(),
                                          [&name = cell](const auto& own) { return own.second == name; }))
          return;
    say(no_way_out, one, "open",
        fmt::format("{} is open from the beginning, and nothing closes it", one.plan->id),
        "link a button's opens to its cell, or let back or a tap beside it close it");
  }

  void layers(const Looked& one) {
    way_to_close(one);
    if (!one.layer) return;
    const bool opened = !one.plan->cells.empty() || number(one, "edge_swipe_opens").value_or(0.0) == 1.0;
    if (!opened && one.part->absent())
      say(never_shown, one, "kind", fmt::format("nothing in the scene opens {}", one.plan->id),
          "link it to a cell, and something that writes it");
    if (one.part->accessible().modal && number(one, "back_closes") == 0.0)
      say(back_ignored, one, "back_closes",
          fmt::format("{} keeps all below it, and back does not close it", one.plan->id),
          "back_closes = true, unless it must not be left");
    if (const auto time = number(one, "time");
        time && any_of(one.plan->kind->role, {"status"}) && *time >= 10.0 && *time < 1000.0)
      say(short_message, one, "time", fmt::format("{} shows a message for {}", one.plan->id, ms(*time)),
          "give it a second at least, and a third of one for each word");
    const auto enters = moves(one, "travel.from_edge", "travel.from_scale", "travel.from_opacity");
    const auto exits = moves(one, "travel.to_edge", "travel.to_scale", "travel.to_opacity");
    if (enters && exits && *enters != *exits)
      say(one_way, one, *enters ? "travel.to_edge" : "travel.from_edge",
          fmt::format(
              "{} {}", one.plan->id,
              *enters ? "comes by a motion and is gone at once" : "is there at once and goes by a motion"),
          *enters ? "say where it goes: travel.to_edge, to_scale or to_opacity"
                  : "say where it comes from: travel.from_edge, from_scale or from_opacity");
    for (const Looked& inside : parts_) {
      if (&inside == &one || !lies_in(*inside.part, *one.part)) continue;
      const auto own = way_out(inside);
      const auto holder = way_out(one);
      if (own && holder && *own > *holder + 0.5)
        say(cut_exit, inside, "exit",
            fmt::format("{} takes {} to go, and {}, in which it lies, {}", inside.plan->id,
                        ms(std::round(*own)), one.plan->id, ms(std::round(*holder))),
            fmt::format("make it quicker, or let it lie outside of {}", one.plan->id));
    }
  }

  static std::optional<double> way_out(const Looked& one) {
    const auto exit = value(one, "exit");
    if (!exit || !std::holds_alternative<Transition>(*exit)) return {};
    return length_of(std::get<Transition>(*exit));
  }

  // Whether it moves, grows or fades; nothing where its kind does not tell.
  static std::optional<bool> moves(const Looked& one, const char* edge, const char* scale,
                                   const char* opacity) {
    const auto at = number(one, edge);
    if (!at) return {};
    return *at != 0.0 || number(one, scale) != 1.0 || number(one, opacity) != 1.0;
  }

  // Cells.

  void cells() {
    std::set<std::string> used;
    for (const PartPlan& plan : scene_->parts)
      for (const auto& [setting, cell] : plan.cells) used.insert(cell);
    for (const auto& [name, value] : scene_->cells) {
      const auto where = scene_->cell_places.find(name);
      if (!used.contains(name))
        say(idle_cell, name, where == scene_->cell_places.end() ? FilePlace{} : where->second,
            fmt::format("no part is linked to {}", name), "link it, or take it out");
    }
    for (const Looked& one : parts_)
      for (const auto& [setting, cell] : one.plan->cells) range(one, setting, cell);
  }

  // The least and the most that a cell may hold for its part, where the part's settings say so.
  static std::optional<std::pair<double, double>> range_of(const Looked& one, std::string_view setting) {
    const auto pair = [&](const char* min, const char* max) -> std::optional<std::pair<double, double>> {
      const auto from = number(one, min);
      const auto to = number(one, max);
      if (!from || !to) return {};
      return std::pair(std::min(*from, *to), std::max(*from, *to));
    };
    if (any_of(setting, {"value", "low", "high"})) return pair("from", "to");
    if (any_of(setting, {"offset"}) && !number(one, "count")) return pair("min", "max");
    if (any_of(setting, {"selected"}))
      if (const auto count = number(one, "count")) return std::pair(0.0, std::max(*count - 1.0, 0.0));
    if (any_of(setting, {"snap_point"}))
      if (const auto snap_points = value(one, "snap_points");
          snap_points && std::holds_alternative<std::vector<double>>(*snap_points))
        return std::pair(
            0.0, std::max(1.0, static_cast<double>(std::get<std::vector<double>>(*snap_points).size())));
    return {};
  }

  // What a cell holds at first; null: there is none of this name.
  [[nodiscard]] const CellValue* begins(const std::string& cell) const {
    const auto found = std::find_if(scene_->cells.begin(), scene_->cells.end(),
                                    [&](const auto& other) { return other.first == cell; });
    return found == scene_->cells.end() ? nullptr : &found->second;
  }

  void range(const Looked& one, const std::string& setting, const std::string& cell) {
    const CellValue* held = this->begins(cell);
    if (held == nullptr) return;
    double begins = 0.0;
    if (const auto* real = std::get_if<double>(held))
      begins = *real;
    else if (const auto* whole = std::get_if<int>(held))
      begins = *whole;
    else
      return;
    const auto takes = range_of(one, setting);
    if (!takes || (begins >= takes->first && begins <= takes->second)) return;
    const auto where = scene_->cell_places.find(cell);
    say(out_of_range, cell, where == scene_->cell_places.end() ? FilePlace{} : where->second,
        fmt::format("{} begins at {}, and {} takes {} to {}", cell, plain_number(begins), one.plan->id,
                    plain_number(takes->first), plain_number(takes->second)),
        "begin within the part's range");
  }

  void feel(const Feel& feel, const std::string& of, FilePlace place) {
    const double threshold = std::min(feel.threshold(Axis::horizontal), feel.threshold(Axis::vertical));
    if (std::max(feel.threshold(Axis::horizontal), feel.threshold(Axis::vertical)) > feel.tap_reach)
      say(drag_above_tap, of, place,
          fmt::format("drag_threshold = {}, tap_reach = {}",
                      plain_number(std::max(threshold, feel.threshold(Axis::vertical))),
                      plain_number(feel.tap_reach)),
          "a drag threshold no larger than the tap reach");
    if (feel.hold_delay < feel.tap_time)
      say(hold_below_tap, of, place,
          fmt::format("hold_delay = {}, tap_time = {}", plain_number(to_ms(feel.hold_delay)),
                      plain_number(to_ms(feel.tap_time))),
          "a hold delay no shorter than the tap time");
    if (feel.multi_tap_gap > feel.hold_delay)
      say(gap_above_hold, of, place,
          fmt::format("multi_tap_gap = {}, hold_delay = {}", plain_number(to_ms(feel.multi_tap_gap)),
                      plain_number(to_ms(feel.hold_delay))),
          "a multi-tap gap no longer than the hold delay");
  }

  void silence() {
    for (const Silence& silence : scene_->silences) {
      const bool known = std::any_of(rules.begin(), rules.end(),
                                     [&](const Rule& rule) { return silence.rule == rule.name; });
      bool used = false;
      for (Finding& finding : found_) {
        if (silence.rule != finding.rule->name || (!silence.of.empty() && silence.of != finding.of)) continue;
        finding.silenced = silence.reason;
        used = true;
      }
      if (used) continue;
      std::vector<std::string_view> names;
      for (const Rule& rule : rules) names.emplace_back(rule.name);
      const std::string nearest = known ? "" : nearest_name(silence.rule, names);
      say(idle_silence, silence.of, silence.place,
          known ? fmt::format("nothing here breaks {}{}{}", silence.rule, silence.of.empty() ? "" : " of ",
                              silence.of)
                : fmt::format("'{}' is no rule{}", silence.rule,
                              nearest.empty() ? "" : "; did you mean " + nearest + "?"),
          "take it out");
    }
  }

  const Scene* scene_;
  const TextWidth* measure_;
  bool partial_;
  SceneRun run_;
  std::vector<Looked> parts_;
  std::vector<Finding> found_;
};

}  // namespace

std::span<const Rule> check_rules() { return rules; }

std::vector<Finding> check_scene(const Scene& scene, const TextWidth& measure) {
  return Checker(scene, measure, false).findings();
}

std::vector<Finding> check_text(std::string_view text, const std::string& name, Kinds kinds,
                                std::span<const std::string> changes, const TextWidth& measure) {
  const SceneRead read = read_scene(text, name, kinds, changes, measure);
  std::vector<Finding> findings;
  for (const InputError::Facts& one : read.wrong) {
    std::string found = one.found;
    std::string remedy = one.takes.empty() ? "" : "write " + one.takes;
    // What a part refuses says both at once.
    for (const std::string_view both : {"; it takes ", "; it needs "})
      if (const auto at = found.find(both); remedy.empty() && at != std::string::npos) {
        remedy = "give it " + found.substr(at + both.size());
        found.resize(at);
      }
    if (remedy.empty()) remedy = "see what `ubbo parts KIND` says it takes, and change that";
    if (!one.nearest.empty()) remedy += "; perhaps " + one.nearest + " was meant";
    findings.push_back({.rule = &rules[unreadable],
                        .place = {one.line, one.column},
                        .found = std::move(found),
                        .remedy = std::move(remedy)});
  }
  if (!read.scene.parts.empty() || read.wrong.empty()) {
    std::vector<Finding> more = Checker(read.scene, measure, !read.wrong.empty()).findings();
    findings.insert(findings.end(), std::make_move_iterator(more.begin()),
                    std::make_move_iterator(more.end()));
  }
  std::stable_sort(findings.begin(), findings.end(), [](const Finding& a, const Finding& b) {
    return std::pair(a.place.line, a.place.column) < std::pair(b.place.line, b.place.column);
  });
  return findings;
}

}  // namespace ubbo::io
