#pragma once

#include <algorithm>
#include <iterator>
#include <set>

#include "moments.hpp"

/// What each setting of a part changes: a few things are done to it as it is, and again with one setting at
/// another value, and what differs is told.
namespace ubbo::test {

struct TourStop {
  const char* name;
  void (*action)(Alone&);
  bool looks = false;  // what is seen of it too
  bool asks = false;   // then each thing it can be asked, and the same the other way about
};

inline void tap_at(Alone& alone, Point at, double begins, int contact) {
  for (const auto& [phase, when] : {std::pair{Phase::down, begins}, {Phase::up, begins + 60}})
    alone.stage.touch({.time = ms(when), .contact = contact, .phase = phase, .at = at});
}

inline void opened(Alone& alone, double until = 100) {
  for (const char* action : {"open", "show"}) alone.stage.act(*alone.part, action, ms(100));
  alone.stage.advance(ms(until));
}

/// The middle of what a finger takes hold of.
inline Point middle_of(const Alone& alone) {
  Box found = alone.part->box();
  pieces_of(*alone.part, [&found](const Piece& piece) {
    if (piece.role == Role::surface || piece.role == Role::row || piece.role == Role::handle)
      found = piece.box;
  });
  return found.centre();
}

inline constexpr TourStop tour_stops[]{
    {"tap",
     [](Alone& it) {
       tap_at(it, {250, 224}, 100, 1);
     }},
    {"two taps",
     [](Alone& it) {
       tap_at(it, {250, 224}, 100, 1);
       tap_at(it, {250, 224}, 260, 2);
     }},
    {"long press",
     [](Alone& it) {
       pull(it, {250, 224}, {}, 1, 900, Phase::up);
     }},
    {"slow drag right",
     [](Alone& it) {
       pull(it, {90, 224}, {9, 0}, 7, 60, Phase::up);
     }},
    {"flick left",
     [](Alone& it) {
       pull(it, {200, 224}, {-14, 0}, 5, 8, Phase::up);
     }},
    {"drag far left, held",
     [](Alone& it) {
       pull(it, {250, 224}, {-30, 0}, 6, 30, Phase::move);
     }},
    {"drag up, held",
     [](Alone& it) {
       pull(it, {180, 224}, {0, -20}, 5, 30, Phase::move);
     }},
    {"opened", [](Alone& it) { opened(it), it.stage.advance(ms(190)); }, true},
    {"opened, then a tap beside it, then back",
     [](Alone& it) {
       opened(it);
       tap_at(it, {180, 120}, 1500, 1);
       it.stage.advance(ms(1700));
       it.stage.back(ms(4000));
       it.stage.advance(ms(4100));
     }},
    {"opened, then back", [](Alone& it) { opened(it), it.stage.back(ms(1500)), it.stage.advance(ms(1600)); }},
    {"opened, then flicked down",
     [](Alone& it) {
       opened(it, 600), pull(it, middle_of(it), {0, 12}, 5, 8, Phase::up, 650);
     }},
    {"opened, then dragged down and out to the left",
     [](Alone& it) {
       opened(it, 600);
       pull(it, middle_of(it), {0, 30}, 2, 30, Phase::up, 620);
       pull(it, middle_of(it), {-30, 0}, 3, 30, Phase::move, 800);
     },
     true},
    {"opened, then dragged up and out to the right",
     [](Alone& it) {
       opened(it, 600);
       pull(it, middle_of(it), {0, -30}, 4, 30, Phase::up, 620);
       pull(it, middle_of(it), {30, 0}, 3, 30, Phase::move, 860);
     },
     true},
    {"drag from the left edge",
     [](Alone& it) {
       pull(it, {2, 224}, {14, 0}, 8, 16, Phase::up);
     },
     true},
    {"drag from the bottom edge",
     [](Alone& it) {
       pull(it, {180, 719}, {0, -14}, 8, 16, Phase::up);
     }},
    {"drag far right, held",
     [](Alone& it) {
       pull(it, {90, 212}, {30, 0}, 7, 30, Phase::move);
     },
     true},
    {"drag down, held",
     [](Alone& it) {
       pull(it, {180, 224}, {0, 20}, 6, 30, Phase::move);
     },
     true},
    {"flick right",
     [](Alone& it) {
       pull(it, {140, 224}, {14, 0}, 6, 8, Phase::up);
     }},
    {"pinch with a turn, held",
     [](Alone& it) {
       for (int i = 0; i <= 6; ++i)
         for (const int contact : {1, 2})
           it.stage.touch(
               {.time = ms(100 + 30 * i),
                .contact = contact,
                .phase = i == 0 ? Phase::down : Phase::move,
                .at = Point{180, 224} + Point{100.0 - 14 * i, 3.0 * i} * (contact == 1 ? 1.0 : -1.0)});
     },
     true},
    {"two taps, then a flick left",
     [](Alone& it) {
       tap_at(it, {250, 224}, 100, 1);
       tap_at(it, {250, 224}, 260, 2);
       pull(it, {200, 224}, {-14, 0}, 5, 8, Phase::up, 2000);
     }},
    {"flick left, then caught and dragged back",
     [](Alone& it) {
       pull(it, {250, 224}, {-14, 0}, 8, 8, Phase::up);
       pull(it, {150, 224}, {9, 0}, 4, 20, Phase::up, 210);
     }},
    {"drag far right, let go, then a key at once",
     [](Alone& it) {
       pull(it, {90, 224}, {30, 0}, 7, 30, Phase::up);
       it.stage.press(Key::left, ms(350));
       it.stage.advance(ms(370));
     },
     true},
    {"drag left, hidden meanwhile",
     [](Alone& it) {
       pull(it, {250, 224}, {-20, 0}, 4, 20, Phase::move);
       for (const bool shown : {false, true}) it.stage.show(*it.part, shown);
     }},
    {"a write under a drag",
     [](Alone& it) {
       pull(it, {200, 224}, {-20, 0}, 4, 20, Phase::move);
       it.stage.at(ms(300), [&] { it.cells.write(0.3, 0.43); });
       it.stage.touch({.time = ms(500), .contact = 1, .phase = Phase::up, .at = {120, 224}});
     }},
    {"a write, and another",
     [](Alone& it) {
       const auto write = [&it](double at, double what, const char* text) {
         it.stage.at(ms(at), [&] {
           it.cells.write(0.3, what);
           for (auto& cell : it.cells.texts) cell.set(text);
         });
       };
       write(100, 0.43, "Frames are out");
       write(400, 0.61, "Hive 3 is closed");
       it.stage.advance(ms(490));
     },
     true},
    {"a write, then a drag from its left edge, then the phone's back half-way",
     [](Alone& it) {
       it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.43); });
       pull(it, {42, 224}, {14, 0}, 5, 16, Phase::cancel, 1500);
       it.stage.back_begins(ms(3000));
       it.stage.back_moves(0.5, ms(3100));
     },
     true},
    {"opened, then Escape twice",
     [](Alone& it) {
       opened(it, 900);
       for (const double when : {1500.0, 1550.0}) it.stage.press(Key::escape, ms(when));
     }},
    {"opened, and touched on its way", [](Alone& it) { opened(it, 180), tap_at(it, middle_of(it), 180, 1); }},
    {"opened, then flicked left",
     [](Alone& it) {
       opened(it, 600), pull(it, middle_of(it), {-14, 0}, 6, 8, Phase::up, 650);
     }},
    {"opened, then dragged in a little",
     [](Alone& it) {
       opened(it, 600), pull(it, middle_of(it) + Point{0, 14}, {0, 4}, 5, 60, Phase::up, 620);
     }},
    {"each thing it can be asked, one after another", [](Alone&) {}, true, true},
    {"opened, and looked at as it goes again", [](Alone& it) { opened(it, 1150); }, true},
    {"a write of less than there is",
     [](Alone& it) {
       it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.05); });
       it.stage.advance(ms(190));
     },
     true},
    {"a write of what comes last",
     [](Alone& it) {
       it.stage.at(ms(100), [&] { it.cells.write(0.7, 0.6); });
       it.stage.advance(ms(190));
     }},
    {"a write, then a flick from its left edge",
     [](Alone& it) {
       it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.43); });
       pull(it, {42, 224}, {14, 0}, 4, 8, Phase::up, 1500);
     }},
    {"at its end, dragged on to the left, then up",
     [](Alone& it) {
       it.stage.press(Key::end, ms(100));
       pull(it, {250, 224}, {-20, 0}, 5, 30, Phase::up, 1500);
       pull(it, {180, 224}, {0, -20}, 5, 30, Phase::move, 3000);
     },
     true},
    {"at its beginning, dragged back to the right, then down",
     [](Alone& it) {
       it.stage.press(Key::home, ms(100));
       pull(it, {90, 224}, {20, 0}, 5, 30, Phase::up, 1500);
       pull(it, {180, 224}, {0, 20}, 5, 30, Phase::move, 3000);
     },
     true},
    {"turned by 18 degrees by two fingers, and lifted",
     [](Alone& it) {
       for (int i = 0; i <= 7; ++i)
         for (const int contact : {1, 2})
           it.stage.touch(
               {.time = ms(100 + 30 * i),
                .contact = contact,
                .phase = i == 0   ? Phase::down
                         : i == 7 ? Phase::up
                                  : Phase::move,
                .at = Point{180, 224} + turned(Point{60, 0}, std::min(i, 6) * std::numbers::pi / 60) *
                                            (contact == 1 ? 1.0 : -1.0)});
     }},
    {"keys",
     [](Alone& it) {
       for (const auto& [key, when] :
            {std::pair{Key::right, 100.0}, {Key::page_up, 500.0}, {Key::right, 560.0}})
         it.stage.press(key, ms(when));
     }},
    {"a notch of the wheel",
     [](Alone& it) {
       it.stage.wheel({.time = ms(100), .at = {250, 224}, .by = {0, 1}, .unit = WheelUnit::notch});
       it.stage.advance(ms(190));
     }},
};

/// A setting that changes something only beside others, where its cells say something from the first, or
/// where it has no cell but those it needs.
struct Beside {
  std::string_view kind;
  std::string_view setting;
  std::vector<std::pair<const char*, SettingValue>> others;
  double begins = -1.0;
  bool bare = false;
};

/// What `kind` needs so that its setting `name` can change anything; null: nothing.
inline const Beside* beside(const PartKind& kind, std::string_view name) {
  constexpr double yes = 1, no = 0, linear = 1, damped = 2;
  const Length nowhere{};
  static const std::vector<Beside> all{
      {"carousel", "half_life", {{"coasts", yes}}},
      {"carousel", "overscroll_fraction", {{"overscroll_start", linear}, {"overscroll_end", linear}}},
      {"carousel", "projection_time", {{"max_per_flick", 0.0}}},
      {"carousel", "visible_items_wide", {{"wide_from", 1.0}}},
      {"carousel", "wide_from", {{"visible_items_wide", 1.0}}},
      {"dialog", "children.stagger_distance", {{"children.stagger", 40.0}}},
      {"dialog", "enter_on_start", {}, 0.3},
      {"list", "overscroll_fraction", {{"overscroll_start", linear}, {"overscroll_end", linear}}},
      {"pane", "axis", {{"moves", 0.0}}},
      {"pane", "half_life", {{"snap_points", std::vector<double>{}}}, -1.0, true},
      {"pane", "overscroll_fraction", {{"overscroll_min", linear}, {"overscroll_max", linear}}},
      {"pane", "overscroll_reach", {{"overscroll_min", damped}, {"overscroll_max", damped}}},
      {"panel", "children.stagger_distance", {{"children.stagger", 40.0}}},
      {"panel", "enter_on_start", {}, 0.3},
      {"progress-bar", "round", {{"unknown", yes}}},
      {"sheet", "content", {{"snap_points", std::vector{20.0}}}},
      {"sheet", "grip", {{"grip_only", yes}}},
      {"sheet", "grip_only", {{"grip", 8.0}}},
      {"sheet", "overscroll_fraction", {{"overscroll_out", linear}}},
      {"sheet", "overscroll_in", {{"drag_closes", no}}},
      {"swipe-row", "overscroll", {{"commit_distance", nowhere}}},
      {"swipe-row", "overscroll_fraction", {{"commit_distance", nowhere}, {"overscroll", linear}}},
      {"swipe-row", "overscroll_reach", {{"commit_distance", nowhere}}},
      {"swipe-row", "above_rank", {{"above", 20.0}, {"leading", 0.0}, {"trailing", 0.0}}},
      {"swipe-row", "below_rank", {{"below", 20.0}, {"leading", 0.0}, {"trailing", 0.0}}},
      {"tabs", "reduced_motion", {}, -1.0, true},
  };
  const auto found = std::find_if(all.begin(), all.end(), [&](const Beside& one) {
    return one.kind == kind.name && one.setting == name;
  });
  return found == all.end() ? nullptr : &*found;
}

using ChangeSettings = std::function<void(AnySettings&)>;

/// What came of a stop: what was decided and felt, what is read at its end, soon after, and half a minute
/// later.
inline std::set<std::string> came_of(const PartKind& kind, const ChangeSettings& change, const TourStop& stop,
                                     const Beside* beside = nullptr, bool with_facts = false) {
  const double begins = beside == nullptr ? -1.0 : beside->begins;
  const ChangeSettings none;
  Alone alone(kind, false, false, {}, false, begins, beside != nullptr && beside->bare,
              begins < 0.0 ? none : change);
  if (begins < 0.0) {
    AnySettings settings = kind.settings_of(*alone.part);
    change(settings);
    alone.stage.change_to(*alone.part, settings);
  }
  for (const char* child : {"first", "second", "third"})
    if (dynamic_cast<Container*>(alone.part) != nullptr)
      alone.stage.add<Pad>(child, {0, 0, 200, 120}, {.gestures = {.drags = Drags::none}}, {.inside = "part"});
  alone.stage.advance(ms(0));
  alone.stage.focus("part");
  std::set<std::string> all;
  alone.stage.on_moment([&all](const Moment& moment) {
    all.insert(std::string(name_of(moment.kind)) + " " + few_digits(to_ms(moment.time)) + " ms");
  });
  const auto read = [&](const char* when) {
    for (const ReadingInfo& reading : kind.readings) all.insert(when + read_one(*alone.part, reading));
    for (const PartAction& action : kind.actions)
      if (!action.can(*alone.part)) all.insert(std::string(when) + "cannot " + action.name);
  };
  stop.action(alone);
  std::vector<const char*> asked;
  if (stop.asks)
    for (const PartAction& action : kind.actions) asked.push_back(action.name);
  for (std::size_t i = asked.size(); i-- > 0;) asked.push_back(asked[i]);
  for (const char* action : asked) {
    alone.stage.act(*alone.part, action, alone.stage.now() + ms(100));
    alone.stage.advance(alone.stage.now() + ms(240));
    read((action + std::string(" ")).c_str());
  }
  read("first ");
  all.insert("first cells " + alone.cells.text());
  if (stop.looks) all.insert("told " + said_of(*alone.part));
  // What is seen, but not each of many marks alike, and of what lies in it no more than its surface.
  int marks = 0;
  if (stop.looks)
    alone.stage.draw([&](const Part& part, const Piece& piece) {
      marks += static_cast<int>(piece.role == Role::mark);
      if (&part == alone.part ? piece.role != Role::mark || marks < 3 : piece.role == Role::surface)
        all.insert("seen " + (&part == alone.part ? "" : part.id() + " ") + piece_out(piece));
    });
  if (alone.stage.open_contacts() == 0 && !stop.looks && !alone.stage.settled()) {
    alone.stage.advance(alone.stage.now() + ms(120));
    read("soon ");
  }
  alone.stage.cancel_contacts();
  alone.stage.advance(alone.stage.now() + ms(30'000));
  read("then ");
  for (const Decision& decision : alone.stage.journal().decisions())
    all.insert(decision.answer->name + (with_facts ? facts_of(decision) : ""));
  all.insert("then cells " + alone.cells.text());
  return all;
}

/// Other values of a setting that are worth a look: none of it and twice as much; the other of two, each of
/// several.
inline std::vector<double> others(const SettingInfo& setting, double now) {
  std::vector<double> all;
  if (setting.kind == SettingKind::choice || setting.kind == SettingKind::flag)
    for (double other = 0; other <= setting.max; ++other) all.push_back(other);
  else if (setting.kind == SettingKind::number || setting.kind == SettingKind::time)
    all = {std::max(0.0, setting.min), std::min(setting.max, now == 0.0 ? 40.0 : std::round(2 * now))};
  std::erase(all, now);
  return all;
}

using CameOf = std::vector<std::set<std::string>>;  // of each stop

inline CameOf tour(const PartKind& kind, const ChangeSettings& change, const Beside* beside = nullptr,
                   bool with_facts = false) {
  CameOf all;
  for (const TourStop& stop : tour_stops) all.push_back(came_of(kind, change, stop, beside, with_facts));
  return all;
}

/// What is in `after` and was not before, and which decisions no more; stops at which that is the same in one
/// line.
inline std::string what_differs(const CameOf& before, const CameOf& after) {
  std::vector<std::pair<std::string, std::string>> all;  // at which stops, what
  for (std::size_t stop = 0; stop < std::size(tour_stops); ++stop) {
    std::string line;
    for (const std::string& one : after[stop])
      if (!before[stop].contains(one)) line += (line.empty() ? "" : ", ") + one;
    for (const std::string& one : before[stop])  // what is read has another value now
      if (one.find(' ') == std::string::npos && !after[stop].contains(one))
        line += (line.empty() ? "no " : ", no ") + one;
    const auto same =
        std::find_if(all.begin(), all.end(), [&](const auto& one) { return one.second == line; });
    if (same != all.end())
      same->first += std::string("; ") + tour_stops[stop].name;
    else if (!line.empty())
      all.emplace_back(tour_stops[stop].name, line);
  }
  std::string text;
  for (const auto& [stops, what] : all) text += "  " + stops + ": " + what + "\n";
  return text.empty() ? ": nothing\n" : "\n" + text;
}

/// What a kind tells of itself beside its settings and how its parts behave.
inline std::string tells_of(const PartKind& kind) {
  std::string text = std::string("is a ") + kind.role;
  for (const auto& [name, is] : {std::pair{"mirrors", kind.mirrors},
                                 {"own state", kind.own_state},
                                 {"put anywhere", kind.put_anywhere},
                                 {"reaches out", kind.reaches_out},
                                 {"a wheel zooms it", kind.wheel_zooms},
                                 {"a tap toggles it", kind.tap_toggles},
                                 {"over others", kind.over_others}})
    if (is) text += std::string(", ") + name;
  text += ", upright " + std::to_string(static_cast<int>(kind.upright)) + ", wheel " +
          std::to_string(static_cast<int>(kind.wheel)) + ", frame " + few_digits(kind.frame.top) +
          ", margin " + few_digits(kind.margin.top) + ", usually " + few_digits(kind.usual_size.w) + " x " +
          few_digits(kind.usual_size.h) + "\n  reads";
  for (const ReadingInfo& reading : kind.readings)
    text += std::string(" ") + reading.name + (reading.usual ? "*" : "") +
            (reading.snap_points != nullptr ? "." : "");
  text += "\n  does";
  for (const PartAction& action : kind.actions)
    text += std::string(" '") + action.name + (action.offered ? "'" : "', not offered") +
            (action.while_held == WhileHeld::waits ? "" : ", at once");
  return text + "\n";
}

inline std::string what_settings_change(const PartKind& kind, std::vector<std::string>& without_effect) {
  const ChangeSettings no_change = [](AnySettings&) {};
  const CameOf usual = tour(kind, no_change);
  const auto untouched =
      came_of(kind, no_change, {"", [](Alone& it) { it.stage.advance(ms(190)); }}, nullptr, true);
  std::string text =
      std::string("## ") + kind.name + "\n" + tells_of(kind) + "as it is" +
      what_differs(CameOf(std::size(tour_stops), untouched), tour(kind, no_change, nullptr, true));
  Alone alone(kind, false);
  std::vector<Threshold> thresholds;
  for (const ReadingInfo& reading : kind.readings)
    if (reading.thresholds != nullptr) reading.thresholds(*alone.part, thresholds);
  if (!thresholds.empty()) text += "decided at";
  for (const Threshold& one : thresholds)
    text += " " + few_digits(one.value) + (one.way == 0 ? "" : one.way > 0 ? " on" : " back");
  if (!thresholds.empty()) text += "\n";
  for (std::size_t i = 0; i < kind.settings(); ++i) {
    const SettingInfo& setting = kind.setting(i);
    const SettingValue value = kind.get(kind.settings_of(*alone.part), i);
    const auto* now = std::get_if<double>(&value);
    if (now == nullptr) continue;
    const Beside* needs = beside(kind, setting.name);
    const ChangeSettings prepare = [&](AnySettings& settings) {
      if (needs != nullptr)
        for (const auto& [other, what] : needs->others) {
          REQUIRE(find_setting(kind, other) < kind.settings());
          (void)kind.put(settings, find_setting(kind, other), what);
        }
    };
    const CameOf before = needs == nullptr ? usual : tour(kind, prepare, needs);
    bool any = false;
    for (const double other : others(setting, *now)) {
      const ChangeSettings change = [&](AnySettings& settings) {
        prepare(settings);
        (void)kind.put(settings, i, SettingValue{other});
      };
      AnySettings settings = kind.settings_of(*alone.part);
      change(settings);
      const bool refused = !kind.fault("part", alone.part->box(), settings).empty();
      const std::string came = refused ? ": refused\n" : what_differs(before, tour(kind, change, needs));
      any = any || came != ": nothing\n";
      text += std::string(setting.name) + " = " +
              (setting.kind == SettingKind::choice ? setting.choices[static_cast<std::size_t>(other)]
                                                   : few_digits(other)) +
              came;
    }
    if (!any) without_effect.push_back(std::string(kind.name) + " " + setting.name);
  }
  return text;
}

}  // namespace ubbo::test
