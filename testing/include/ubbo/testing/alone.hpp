#pragma once

#include <deque>
#include <functional>
#include <string>
#include <utility>
#include <vector>

#include "ubbo/testing/check.hpp"

/// One part of any kind on a stage of its own, linked to cells of the kinds it takes, and what may happen to
/// it.
namespace ubbo::test {

/// A kind of part that the suite is to try.
struct KindUnderTest {
  const PartKind* kind;
  /// What its defaults do not say: where there is something to move, there is somewhere to go; and no tie
  /// that only rounding decides, such as a commit at a whole number of the steps fingers take.
  std::vector<std::pair<const char*, SettingValue>> given{};
};

/// The kinds to try. The suite declares it; the program that runs the suite defines it.
const std::vector<KindUnderTest>& kinds_under_test();

inline void each_kind(const std::function<void(const PartKind&)>& look) {
  for (const KindUnderTest& one : kinds_under_test()) {
    INFO(one.kind->name);
    look(*one.kind);
  }
}

// A cell for each setting that takes one, of the kind it takes.
struct Cells {
  std::deque<Cell<double>> numbers;
  std::deque<Cell<int>> wholes;
  std::deque<Cell<bool>> flags;
  std::deque<Cell<Choice>> choices;
  std::deque<Cell<std::string>> texts;
  std::deque<Cell<std::vector<std::string>>> lists;

  AnyCell add(CellKind kind) {
    switch (kind) {
      case CellKind::number:
        return &numbers.emplace_back(0.0);
      case CellKind::whole:
        return &wholes.emplace_back(0);
      case CellKind::flag:
        return &flags.emplace_back(false);
      case CellKind::choice:
        return &choices.emplace_back(Choice({"Brood", "Stores", "Pests"}));
      case CellKind::text:
        return &texts.emplace_back("");
      default:
        return &lists.emplace_back();
    }
  }
  // One of them gets another value, picked by a share of what there is.
  void write(double which, double what) {
    batch([&] {
      for (auto& cell : numbers) cell.set(which < 0.5 ? what * 14 - 2 : std::round(what * 10));
      for (auto& cell : wholes) cell.set(static_cast<int>(what * 12) - 2);
      for (auto& cell : flags) cell.set(what < 0.5);
      for (auto& cell : choices) cell.set(cell.get().with(static_cast<std::size_t>(what * 4)));
    });
  }
  [[nodiscard]] std::string text() const {
    std::string all;
    for (const auto& cell : numbers) all += std::to_string(cell.get()) + " ";
    for (const auto& cell : wholes) all += std::to_string(cell.get()) + " ";
    for (const auto& cell : flags) all += cell.get() ? "yes " : "no ";
    for (const auto& cell : choices) all += std::string(cell.get().name()) + " ";
    return all;
  }
};

// What happens may be seen as it is, in the mirror, or turned: so that what went to the right goes up or
// down.
enum class Seen : std::uint8_t { plain, mirrored, upwards, downwards };

inline constexpr Box lying{40, 200, 280, 48};
inline constexpr Box upright{156, 220, 48, 280};

inline Point seen(Point at, Seen how) {
  const double on = at.x - lying.x;
  if (how == Seen::mirrored) return {360 - at.x, at.y};
  if (how == Seen::upwards) return {upright.x + at.y - lying.y, upright.bottom() - on};
  if (how == Seen::downwards) return {upright.x + at.y - lying.y, upright.y + on};
  return at;
}

inline Key seen(Key key, Seen how) {
  constexpr std::array keys{Key::left, Key::right, Key::up, Key::down};
  constexpr std::array<std::array<int, 4>, 4> to{{{0, 1, 2, 3}, {1, 0, 2, 3}, {3, 2, 1, 0}, {2, 3, 0, 1}}};
  const auto found = std::find(keys.begin(), keys.end(), key);
  if (found == keys.end()) return key;
  return keys[static_cast<std::size_t>(
      to[static_cast<std::size_t>(how)][static_cast<std::size_t>(found - keys.begin())])];
}

struct Alone {
  /// `begins`: what its cells hold from the first, as `Cells::write` does. `inside`: a pane around it that
  /// moves to either side, on a stage that smooths and predicts. `bare`: without cells that may be left out.
  /// `change`: gives it other settings.
  Alone(const PartKind& of, bool right_to_left, bool with_twin = false, std::optional<Axis> axis = {},
        bool inside = false, double begins = -1.0, bool bare = false,
        const std::function<void(AnySettings&)>& change = {})
      : stage({.feel = {.smoothing = inside ? ms(8) : ms(0), .prediction = inside ? ms(20) : ms(0)},
               .right_to_left = right_to_left,
               .journal = 20'000}) {
    if (inside)
      stage.add<Pane>("outer", {0, 100, 360, 500},
                      {.min = -30, .max = 30, .axis = Axis::horizontal, .snap_points = {-30, 0, 30}});
    AnySettings settings = of.fresh();
    for (std::size_t i = 0; i < of.settings(); ++i)
      if (of.setting(i).kind == SettingKind::cell && (!bare || of.setting(i).needed))
        (void)of.put(settings, i, cells.add(of.setting(i).cell_kind));
    for (const KindUnderTest& one : kinds_under_test())
      if (one.kind == &of)
        for (const auto& [setting, value] : one.given) {
          INFO(setting);
          REQUIRE(find_setting(of, setting) < of.settings());
          (void)of.put(settings, find_setting(of, setting), value);
        }
    if (axis) (void)of.put(settings, find_setting(of, "axis"), static_cast<double>(*axis));
    if (change) change(settings);
    if (begins >= 0.0) {
      cells.write(0.7, begins);
      for (auto& cell : cells.texts) cell.set("part");
    }
    const Box box = axis == Axis::vertical ? upright : lying;
    const Point corner = inside ? Point{0, -100} : Point{};
    part = &stage.add(of, "part", Placement::of(box + corner), settings, {.inside = inside ? "outer" : ""});
    if (with_twin) twin = &stage.add(of, "twin", Placement::of(box + Point{0, 200}), settings);
  }
  // Cells and readings, but those of places on the screen where `mirrored`.
  [[nodiscard]] std::string outcome(bool with_places) const {
    return cells.text() + readings_of(*part, with_places);
  }
  [[nodiscard]] static std::string readings_of(const Part& of, bool with_places) {
    std::string all;
    for (const ReadingInfo& reading : of.kind().readings) {
      if (!with_places && std::string_view(reading.unit) == "dp") continue;
      const ReadingValue value = reading.now(of);
      if (const auto* number = std::get_if<double>(&value))
        all += std::to_string(std::fabs(*number) < 1e-9 ? 0.0 : *number) + " ";
      if (const auto* flag = std::get_if<bool>(&value)) all += *flag ? "yes " : "no ";
    }
    return all;
  }

  Cells cells;
  Stage stage;
  Part* part = nullptr;
  Part* twin = nullptr;  // on the same cells, 200 dp below
};

struct Event {
  Micros time{};
  std::function<void(Alone&, Seen)> action;
  bool writes = false;
};

// A mouse over the part, and what it turns: a wheel that means up and down whichever way a part lies.
inline void add_mouse(std::vector<Event>& events, Micros& now) {
  const Point at{*number(30, 330), *number(190, 260)};
  const bool wheel = *rc::gen::inRange(0, 3) != 0;
  const int device = *rc::gen::inRange(0, 2);
  const Tool tool = *rc::gen::weightedElement<Tool>({{3, Tool::mouse}, {1, Tool::stylus}});
  events.push_back(
      {now, [now, at, device, tool, leaves = *rc::gen::inRange(0, 3) == 0](Alone& alone, Seen how) {
         for (const Phase phase : {Phase::hover, Phase::leave})
           if (phase == Phase::hover || leaves)
             alone.stage.touch(
                 {.time = now, .phase = phase, .at = seen(at, how), .tool = tool, .device = device});
       }});
  if (!wheel) return;
  WheelTurn turn{.at = at,
                 .unit = *rc::gen::element(WheelUnit::dp, WheelUnit::notch, WheelUnit::line, WheelUnit::page),
                 .zooms = *rc::gen::inRange(0, 4) == 0};
  const bool few = turn.unit != WheelUnit::dp;
  const Point by{*rc::gen::element(-40.0, -7.0, 0.0, 12.0, 50.0),
                 *rc::gen::element(-50.0, -9.0, 0.0, 8.0, 40.0)};
  turn.by = by * (few ? 1.0 / 20 : 1.0);
  for (int i = 0, turns = *rc::gen::inRange(1, 6); i < turns; ++i) {
    turn.time = now;
    turn.phase = *rc::gen::element(WheelPhase::none, WheelPhase::none, WheelPhase::change, WheelPhase::end);
    events.push_back({now, [turn](Alone& alone, Seen how) {
                        WheelTurn made = turn;
                        made.at = seen(turn.at, how);
                        if (how == Seen::mirrored) made.by.x = -made.by.x;
                        alone.stage.wheel(made);
                      }});
    now += ms(*rc::gen::element(4, 16, 90, 400));
  }
}

// A few seconds of fingers, keys, calls, writes and, where `mouse`, a mouse and its wheel.
inline std::vector<Event> any_events(bool mouse = true) {
  std::vector<Event> events;
  Micros now = ms(10);
  const int rounds = *rc::gen::inRange(1, 7);
  for (int round = 0; round < rounds; ++round) {
    now += ms(*rc::gen::element(5, 60, 400, 1500));
    switch (*rc::gen::inRange(0, mouse ? 7 : 6)) {
      case 0: {
        const Key key = *rc::gen::element(Key::left, Key::right, Key::up, Key::down, Key::home, Key::end,
                                          Key::space, Key::page_up);
        events.push_back({now, [now, key](Alone& alone, Seen how) {
                            alone.stage.focus("part");
                            alone.stage.press(seen(key, how), now);
                          }});
        break;
      }
      case 1: {
        const double which = *number(0, 1), what = *number(0, 1);
        events.push_back({now,
                          [now, which, what](Alone& alone, Seen) {
                            alone.stage.at(now, [&] { alone.cells.write(which, what); });
                          },
                          true});
        break;
      }
      case 2: {
        const auto which = static_cast<std::size_t>(*rc::gen::inRange(0, 4));
        // What is offered is what can be done by then.
        events.push_back({now, [now](Alone& alone, Seen) { alone.stage.advance(now); }});
        events.push_back({now, [now, which](Alone& alone, Seen how) {
                            const bool mirrored = how == Seen::mirrored;
                            const OfferedActions actions(*alone.part);
                            if (actions.empty()) return;
                            std::string action = actions[which % actions.size()].name;
                            const std::size_t left = action.find("left");
                            const std::size_t right = action.find("right");
                            if (mirrored && left != std::string::npos) action.replace(left, 4, "right");
                            if (mirrored && right != std::string::npos) action.replace(right, 5, "left");
                            alone.stage.act(*alone.part, action, now);
                          }});
        break;
      }
      case 6:
        add_mouse(events, now);
        break;
      default: {
        const int contact = *rc::gen::inRange(1, 3);
        const int device = *rc::gen::weightedElement<int>({{4, 0}, {1, 1}});  // each numbers its own contacts
        Point at{*number(30, 330), *number(205, 243)};
        // No sum of these is a threshold of anything: on a tie rounding would decide.
        const Point step{*rc::gen::element(-14.1, -6.3, 0.0, 6.3, 14.1), *rc::gen::element(-3.0, 0.0, 1.0)};
        const int moves = *rc::gen::inRange(0, 14);
        const auto touch = [&](Phase phase) {
          const Sample sample{.time = now, .contact = contact, .phase = phase, .at = at, .device = device};
          events.push_back({now, [sample](Alone& alone, Seen how) {
                              Sample turned = sample;
                              turned.at = seen(sample.at, how);
                              alone.stage.touch(turned);
                            }});
        };
        touch(Phase::down);
        for (int i = 0; i < moves; ++i) {
          now += ms(8);
          at = at + step;
          touch(Phase::move);
        }
        now += ms(*rc::gen::element(4, 8, 120));
        touch(*rc::gen::weightedElement<Phase>({{8, Phase::up}, {1, Phase::cancel}}));
        break;
      }
    }
  }
  return events;
}

inline void live_through(Alone& alone, const std::vector<Event>& events, double fps, Seen how = Seen::plain) {
  const Micros last = events.back().time + ms(9000);
  Micros frame{0};
  std::size_t next = 0;
  if (fps == 0) alone.stage.advance(ms(0));
  while (fps > 0 && frame <= last) {
    for (; next < events.size() && events[next].time <= frame; ++next) events[next].action(alone, how);
    alone.stage.advance(frame);
    frame += from_seconds(1 / fps);
  }
  for (; next < events.size(); ++next) events[next].action(alone, how);
  alone.stage.advance(last);
}

}  // namespace ubbo::test
