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
};

inline void tap_at(Alone& alone, Point at, double begins, int contact) {
  for (const auto& [phase, when] : {std::pair{Phase::down, begins}, {Phase::up, begins + 60}})
    alone.stage.touch({.time = ms(when), .contact = contact, .phase = phase, .at = at});
}

inline void opened(Alone& alone) {
  for (const char* action : {"open", "show"}) alone.stage.act(*alone.part, action, ms(100));
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
       opened(it), pull(it, middle_of(it), {0, 12}, 5, 8, Phase::up, 1500);
     }},
    {"opened, then dragged down and out to the left",
     [](Alone& it) {
       opened(it);
       pull(it, middle_of(it), {0, 30}, 2, 30, Phase::move, 1500);
       pull(it, middle_of(it), {-30, 0}, 3, 30, Phase::move, 2500);
     },
     true},
    {"opened, then dragged up and out to the right",
     [](Alone& it) {
       opened(it);
       pull(it, middle_of(it), {0, -30}, 4, 30, Phase::up, 1500);
       pull(it, middle_of(it), {30, 0}, 3, 30, Phase::move, 2500);
     },
     true},
    {"drag from the left edge",
     [](Alone& it) {
       pull(it, {2, 224}, {14, 0}, 8, 16, Phase::up);
     }},
    {"drag from the bottom edge",
     [](Alone& it) {
       pull(it, {180, 719}, {0, -14}, 8, 16, Phase::up);
     }},
    {"drag far right, held",
     [](Alone& it) {
       pull(it, {90, 224}, {30, 0}, 7, 30, Phase::move);
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

/// What came of a stop: what was decided and felt, and what is read at its end and half a minute later.
inline std::set<std::string> came_of(const PartKind& kind, const std::function<void(AnySettings&)>& change,
                                     const TourStop& stop, bool with_facts = false) {
  Alone alone(kind, false);
  AnySettings settings = kind.settings_of(*alone.part);
  change(settings);
  alone.stage.change_to(*alone.part, settings);
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
  };
  stop.action(alone);
  read("first ");
  all.insert("first cells " + alone.cells.text());
  // What is seen, but not each of many marks alike, and of what lies in it no more than its surface.
  for (const Part* part : alone.stage.parts()) {
    std::istringstream seen(stop.looks ? pieces_out(*part) : "");
    for (std::string line; std::getline(seen, line);)
      if (part == alone.part ? !line.starts_with("    mark") : line.starts_with("    surface"))
        all.insert("seen " + (part == alone.part ? line.substr(4) : part->id() + line.substr(11)));
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

inline CameOf tour(const PartKind& kind, const std::function<void(AnySettings&)>& change,
                   bool with_facts = false) {
  CameOf all;
  for (const TourStop& stop : tour_stops) all.push_back(came_of(kind, change, stop, with_facts));
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

inline std::string what_settings_change(const PartKind& kind) {
  const auto no_change = [](AnySettings&) {};
  const CameOf usual = tour(kind, no_change);
  const auto untouched = came_of(kind, no_change, {"", [](Alone& it) { it.stage.advance(ms(190)); }, true});
  std::string text = std::string("## ") + kind.name + "\n" + tells_of(kind) + "as it is" +
                     what_differs(CameOf(std::size(tour_stops), untouched), tour(kind, no_change, true));
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
    for (const double other : others(setting, *now)) {
      const auto change = [&](AnySettings& settings) { (void)kind.put(settings, i, SettingValue{other}); };
      AnySettings settings = kind.settings_of(*alone.part);
      change(settings);
      const bool refused = !kind.fault("part", alone.part->box(), settings).empty();
      text += std::string(setting.name) + " = " +
              (setting.kind == SettingKind::choice ? setting.choices[static_cast<std::size_t>(other)]
                                                   : few_digits(other)) +
              (refused ? ": refused\n" : what_differs(usual, tour(kind, change)));
    }
  }
  return text;
}

}  // namespace ubbo::test
