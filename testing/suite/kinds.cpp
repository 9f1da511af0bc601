// What holds for a part whatever it is: one suite over every kind that is registered, so that a new one gets
// it by its line in the list.
#include <set>

#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("whatever happens to a part of any kind, frames change nothing, and it rests where it may") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events();
      const bool right_to_left = *rc::gen::arbitrary<bool>();
      Alone without(kind, right_to_left);
      live_through(without, events, 0);
      for (const double fps : {24.0, 60.0, 240.0, 999.0}) {
        Alone alone(kind, right_to_left);
        live_through(alone, events, fps);
        RC_ASSERT(alone.outcome(true) == without.outcome(true));
      }
      RC_ASSERT(without.part->settled());
      RC_ASSERT(without.stage.open_contacts() == 0U);
      // The app may put a pane anywhere; a finger and a key may not.
      const bool put = kind.put_anywhere &&
                       std::any_of(events.begin(), events.end(), [](const Event& one) { return one.writes; });
      for (const ReadingInfo& reading : kind.readings) {
        const ReadingValue value = reading.now(*without.part);
        const auto* number = std::get_if<double>(&value);
        if (number == nullptr) continue;
        RC_ASSERT(std::isfinite(*number));
        std::vector<double> snap_points;
        if (reading.snap_points != nullptr && !put) reading.snap_points(*without.part, snap_points);
        double off = snap_points.empty() ? 0.0 : HUGE_VAL;
        for (const double rest : snap_points) off = std::min(off, std::fabs(rest - *number));
        RC_ASSERT(off <= 1e-9);
      }
      for (const Decision& decision : without.stage.journal().decisions())
        RC_ASSERT(decision.time >= Micros{0});
      for (const Decision& decision : without.stage.journal().decisions())
        for (const Fact& fact : decision.all_facts()) {
          RC_ASSERT(std::isfinite(fact.value + fact.limit));
          // What rests at one of several is at one that there is.
          if (decision.says(answers::at_rest) && fact.sense == Sense::counted && fact.of > 0)
            RC_ASSERT(fact.value >= 0.0 && fact.value <= fact.of - 1.0);
        }
    });
  });
}

TEST_CASE(
    "two parts of one kind on the same cells come to the same, whoever was touched, at any frame rate") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      // Some of what happens to the one happens to the other instead, or as well.
      auto events = any_events();
      const auto others = any_events();
      for (const Event& one : others)
        events.push_back({one.time,
                          [action = one.action](Alone& alone, Seen) {
                            std::swap(alone.part, alone.twin);
                            action(alone, Seen::plain);
                            std::swap(alone.part, alone.twin);
                          },
                          one.writes});
      std::stable_sort(events.begin(), events.end(),
                       [](const Event& a, const Event& b) { return a.time < b.time; });
      const auto outcome = [&](double fps) {
        Alone both(kind, false, true);
        live_through(both, events, fps);
        RC_ASSERT(both.part->settled() && both.twin->settled());
        if (!kind.own_state)
          RC_ASSERT(Alone::readings_of(*both.part, false) == Alone::readings_of(*both.twin, false));
        return both.outcome(true) + Alone::readings_of(*both.twin, true);
      };
      const std::string without = outcome(0);
      for (const double fps : {24.0, 240.0}) RC_ASSERT(outcome(fps) == without);
    });
  });
}

TEST_CASE("upright a part of any kind that can stand so does what it does lying") {
  each_kind([](const PartKind& kind) {
    if (kind.upright == Upright::none) return;
    const bool grows_upwards = kind.upright == Upright::upwards;
    PROPERTY(kind.name, [&] {
      const auto events = any_events(false);
      Alone lying_down(kind, false, false, Axis::horizontal);
      live_through(lying_down, events, 60);
      Alone standing(kind, false, false, Axis::vertical);
      live_through(standing, events, 60, grows_upwards ? Seen::upwards : Seen::downwards);
      RC_ASSERT(lying_down.outcome(false) == standing.outcome(false));
    });
  });
}

TEST_CASE("right-to-left a part of any kind does in the mirror what it does left-to-right") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events();
      Alone plain(kind, false);
      live_through(plain, events, 60);
      Alone mirrored(kind, true);
      live_through(mirrored, events, 60, Seen::mirrored);
      // Their cells hold places on the screen, or they turn one way whatever the reading direction.
      if (!kind.mirrors) return;
      RC_ASSERT(plain.outcome(false) == mirrored.outcome(false));
    });
  });
}

TEST_CASE("the keyboard reaches every place a part of any kind may rest at") {
  each_kind([](const PartKind& kind) {
    Alone alone(kind, false);
    if (alone.part->accessible().keys.empty()) return;
    for (std::size_t r = 0; r < kind.readings.size(); ++r) {
      const ReadingInfo& reading = kind.readings[r];
      std::vector<double> snap_points;
      if (reading.snap_points != nullptr) reading.snap_points(*alone.part, snap_points);
      if (snap_points.empty() || std::string_view(reading.unit) == "dp") continue;
      std::set<std::size_t> reached;
      Micros now = alone.stage.now() + ms(100);
      alone.stage.focus("part");
      const auto press = [&](Key key) {
        alone.stage.press(key, now);
        alone.stage.advance(now += ms(3000));
        const ReadingValue value = reading.now(*alone.part);
        for (std::size_t at = 0; at < snap_points.size(); ++at)
          if (std::fabs(snap_points[at] - std::get<double>(value)) < 1e-9) reached.insert(at);
      };
      // The space bar switches over: to yes, or to the other thumb, which the first must leave its room.
      for (int thumb = 0; thumb < 2; ++thumb) {
        for (const Key key : {Key::home, Key::right, Key::left, Key::right})
          for (std::size_t i = 0; i < snap_points.size() + 1; ++i) press(key);
        press(Key::space);
        press(Key::home);
        for (std::size_t i = 0; i < snap_points.size() + 1; ++i) press(Key::right);
        press(Key::space);
        press(Key::home);
        press(Key::space);
      }
      INFO(reading.name);
      CHECK(reached.size() == snap_points.size());
    }
  });
}

TEST_CASE("a part of any kind may go in the middle of a touch, twice over, and nothing is left of it") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events();
      const auto cut = static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(events.size())));
      Alone alone(kind, *rc::gen::arbitrary<bool>());
      alone.stage.advance(ms(0));
      for (std::size_t i = 0; i <= cut; ++i) events[i].action(alone, Seen::plain);
      alone.stage.remove(*alone.part);
      alone.part = nullptr;
      alone.cells.write(0.7, 0.3);
      const std::string cells = alone.cells.text();
      for (std::size_t i = cut + 1; i < events.size(); ++i) {
        // Fingers go on over the empty place.
        alone.stage.touch({.time = events[i].time, .contact = 1, .phase = Phase::move, .at = {100, 220}});
      }
      alone.stage.cancel_contacts();
      alone.stage.advance(events.back().time + ms(5000));
      RC_ASSERT(alone.stage.parts().empty());
      RC_ASSERT(alone.stage.settled());
      RC_ASSERT(alone.cells.text() == cells);
    });
  });
}

TEST_CASE("a contact that a part of any kind does not capture changes nothing of it") {
  each_kind([](const PartKind& kind) {
    for (const double first : {60.0, 120.0, 240.0})
      for (const double second : {40.0, 130.0, 250.0}) {
        Alone alone(kind, false);
        alone.stage.advance(ms(0));
        const auto touch = [&](int contact, Phase phase, Point at) {
          return alone.stage.touch({.time = ms(10), .contact = contact, .phase = phase, .at = at});
        };
        touch(1, Phase::down, {first, 224});
        const std::string before = alone.outcome(true);
        if (touch(2, Phase::down, {second, 224})) continue;
        touch(2, Phase::move, {second + 60, 226});
        touch(2, Phase::up, {second + 60, 226});
        INFO(kind.name << " at " << first << " and " << second);
        CHECK(alone.outcome(true) == before);
      }
  });
}

TEST_CASE("what a hand should feel of a part of any kind is told once, at its own time") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events(false);
      Alone alone(kind, *rc::gen::arbitrary<bool>());
      std::set<std::tuple<const Part*, MomentKind, Micros>> told;
      std::size_t times = 0;
      alone.stage.on_moment([&](const Moment& moment) {
        ++times;
        if (moment.time == alone.stage.now()) told.emplace(moment.part, moment.kind, moment.time);
      });
      for (const Event& event : events) event.action(alone, Seen::plain);
      alone.stage.cancel_contacts();
      alone.stage.advance(alone.stage.now() + ms(5000));
      RC_ASSERT(times == told.size());
    });
  });
}

TEST_CASE("the pieces of a part of any kind are sound, and held only while it is") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events(false);
      Alone alone(kind, *rc::gen::arbitrary<bool>());
      alone.stage.advance(ms(0));
      const auto flag = [&](std::string_view name) {
        for (const ReadingInfo& reading : kind.readings)
          if (name == reading.name && std::get<bool>(reading.now(*alone.part))) return true;
        return false;
      };
      for (const Event& event : events) {
        event.action(alone, Seen::plain);
        bool held = false;
        kind.pieces(*alone.part, [&](const Piece& piece) {
          const Box& box = piece.box;
          RC_ASSERT(std::isfinite(box.x + box.y + box.w + box.h + piece.turn));
          RC_ASSERT(box.w >= 0 && box.h >= 0);
          RC_ASSERT(piece.opacity >= 0 && piece.opacity <= 1 && piece.fraction >= 0 && piece.fraction <= 1);
          held = held || (piece.held && (piece.role == Role::surface || piece.role == Role::handle));
        });
        RC_ASSERT(!held || flag("pressed") || flag("dragging"));
        RC_ASSERT(!held || alone.stage.open_contacts() > 0);
      }
    });
  });
}

TEST_CASE(
    "right-to-left the pieces of a part of any kind are those of left-to-right in the mirror, near its box") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events();
      Alone plain(kind, false), mirrored(kind, true);
      live_through(plain, events, 0);
      live_through(mirrored, events, 0, Seen::mirrored);
      // As above; and the pieces of a zoom plane are drawn from its middle.
      if (!kind.mirrors) return;
      std::vector<Piece> one, other;
      kind.pieces(*plain.part, [&](const Piece& piece) { one.push_back(piece); });
      kind.pieces(*mirrored.part, [&](const Piece& piece) { other.push_back(piece); });
      RC_ASSERT(one.size() == other.size());
      const Box near{40 - 30, 200 - 40, 280 + 60, 48 + 70};
      for (std::size_t i = 0; i < one.size(); ++i) {
        const Box& a = one[i].box;
        const Box& b = other[i].box;
        RC_LOG() << kind.name << " piece " << i << " " << name_of(one[i].role) << ": " << a.x << " " << a.y
                 << " " << a.w << " x " << a.h << ", " << b.x << " " << b.y << " " << b.w << " x " << b.h
                 << "\n";
        RC_ASSERT(one[i].role == other[i].role);
        RC_ASSERT(std::string_view(one[i].name) == other[i].name);
        RC_ASSERT(std::fabs(360 - a.right() - b.x) < 1e-6);
        RC_ASSERT(std::fabs(a.y - b.y) + std::fabs(a.w - b.w) + std::fabs(a.h - b.h) < 1e-6);
        RC_ASSERT(std::fabs(one[i].turn + other[i].turn) < 1e-9);
        RC_ASSERT(one[i].on == other[i].on);
        RC_ASSERT(one[i].held == other[i].held);
        RC_ASSERT(std::fabs(one[i].opacity - other[i].opacity) +
                      std::fabs(one[i].fraction - other[i].fraction) <
                  1e-6);
        if (kind.reaches_out || plain.part->absent() || one[i].role == Role::backdrop) continue;
        RC_ASSERT(near.contains({a.x, a.y}));
        RC_ASSERT(near.contains({a.right(), a.bottom()}) || one[i].role == Role::surface);
      }
    });
  });
}

TEST_CASE("a tap on the place of a value chooses it, for every kind that has such places") {
  std::set<std::string_view> looked;
  each_kind([&](const PartKind& kind) {
    if (kind.place_of == nullptr) return;
    std::vector<double> all;
    for (const bool right_to_left : {false, true})
      for (const ReadingInfo& reading : kind.readings) {
        std::vector<double> snap_points;
        {
          Alone alone(kind, right_to_left);
          if (reading.snap_points != nullptr && std::string_view(reading.unit) != "dp")
            reading.snap_points(*alone.part, snap_points);
        }
        if (snap_points.empty()) continue;
        for (const double rest : snap_points) {
          Alone alone(kind, right_to_left);
          alone.stage.advance(ms(0));
          const auto at = kind.place_of(*alone.part, rest);
          REQUIRE(at);
          if (!alone.part->box().contains(*at)) continue;
          alone.stage.touch({.time = ms(10), .contact = 1, .phase = Phase::down, .at = *at});
          alone.stage.touch({.time = ms(60), .contact = 1, .phase = Phase::up, .at = *at});
          settle(alone.stage);
          bool there = false;
          for (const ReadingInfo& any : kind.readings)
            if (const ReadingValue value = any.now(*alone.part); std::holds_alternative<double>(value))
              there = there || std::fabs(std::get<double>(value) - rest) < 1e-9;
          INFO(reading.name << " " << rest);
          if (!kind.tap_toggles) CHECK(there);
          looked.insert(kind.name);
        }
        all.insert(all.end(), snap_points.begin(), snap_points.end());
      }
    if (all.empty()) return;
    Alone alone(kind, false);
    const auto [min, max] = std::minmax_element(all.begin(), all.end());
    for (const double outside : {*min - 0.6, *max + 1.0}) {
      INFO(kind.name << " " << outside);
      CHECK_FALSE(kind.place_of(*alone.part, outside));
    }
  });
  CHECK((looked.size() >= 5 || kinds_under_test().size() < 20));
}

namespace {

// A finger drags a part slowly, by steps, holds it still and lets go: what it read at each step, and what
// came of it.
struct SlowDrag {
  std::vector<double> read{};
  std::string outcome{};
};

SlowDrag drag_slowly(const PartKind& kind, bool right_to_left, Point each, int steps,
                     const ReadingInfo& reading) {
  Alone alone(kind, right_to_left);
  Stage& stage = alone.stage;
  if (OfferedActions(*alone.part).has("open")) stage.act(*alone.part, "open", ms(0));
  settle(stage);
  Point at = alone.part->box().centre();
  pieces_of(*alone.part, [&](const Piece& piece) {
    if (piece.role == Role::handle) at = piece.box.centre();
  });
  Micros now = stage.now() + ms(100);
  stage.touch({.time = now, .contact = 1, .phase = Phase::down, .at = at});
  SlowDrag made;
  for (int i = 0; i < steps; ++i) {
    stage.touch({.time = now += ms(10), .contact = 1, .phase = Phase::move, .at = at = at + each});
    const ReadingValue value = reading.now(*alone.part);
    made.read.push_back(std::get<double>(value));
  }
  stage.touch({.time = now + ms(600), .contact = 1, .phase = Phase::up, .at = at});
  settle(stage);
  made.outcome = alone.outcome(true);
  return made;
}

}  // namespace

TEST_CASE(
    "what becomes of a slow drag changes at the thresholds that readings tell, and nowhere beside them") {
  std::set<std::string_view> looked;
  each_kind([&](const PartKind& kind) {
    for (const bool right_to_left : {false, true})
      for (const ReadingInfo& reading : kind.readings) {
        std::vector<Threshold> thresholds;
        Alone fresh(kind, right_to_left);
        if (reading.thresholds != nullptr && std::string_view(reading.name) != "velocity")
          reading.thresholds(*fresh.part, thresholds);
        for (const Threshold& threshold : thresholds)
          for (const Point each : {Point{0.75, 0}, Point{-0.75, 0}, Point{0, 0.75}, Point{0, -0.75}}) {
            constexpr int most = 400;
            const auto let_go_after = [&](std::size_t steps) {
              return drag_slowly(kind, right_to_left, each, static_cast<int>(steps), reading).outcome;
            };
            const auto read = drag_slowly(kind, right_to_left, each, most, reading).read;
            const bool grows = read.back() > read.front();
            const auto short_of = [&](double value) {
              return grows ? value < threshold.value - 1e-9 : value > threshold.value + 1e-9;
            };
            const auto past = [&](double value) {
              return grows ? value > threshold.value + 1e-9 : value < threshold.value - 1e-9;
            };
            const auto over =
                static_cast<std::size_t>(std::find_if(read.begin(), read.end(), past) - read.begin());
            std::size_t before = 0;
            while (before < read.size() && short_of(read[before])) ++before;
            std::vector<double>
                places;  // a drag may go on by fewer than it could: it counts for the next one
            if (reading.snap_points != nullptr) reading.snap_points(*fresh.part, places);
            const auto [low, high] = std::minmax(read.front(), threshold.value);
            const bool far = std::any_of(places.begin(), places.end(), [low = low, high = high](double at) {
              return at > low && at < high;
            });
            if (far || before < 3 || over + 2 >= read.size() ||
                (threshold.way != 0 && (threshold.way > 0) != grows))
              continue;
            INFO(kind.name << " " << reading.name << " " << threshold.value << (grows ? " grows" : " shrinks")
                           << (right_to_left ? " right to left" : ""));
            CHECK(let_go_after(before) != let_go_after(over + 1));
            CHECK(let_go_after(before - 1) == let_go_after(before));
            CHECK(let_go_after(over + 1) == let_go_after(over + 2));
            looked.insert(kind.name);
          }
      }
  });
  CHECK((looked.size() >= 5 || kinds_under_test().size() < 20));
}

TEST_CASE("an action does what it is called, for every kind that has some") {
  each_kind([](const PartKind& kind) {
    for (const auto& [action, up] :
         {std::pair{"increase", true}, {"decrease", false}, {"next", true}, {"previous", false}}) {
      Alone alone(kind, false);
      if (!OfferedActions(*alone.part).has(action)) continue;
      alone.stage.advance(ms(0));
      // From somewhere in the middle.
      for (int i = 0; i < 2; ++i)
        alone.stage.act(*alone.part, up || std::string_view(action) == "decrease" ? "increase" : "next",
                        alone.stage.now() + ms(1));
      if (!up && std::string_view(action) == "previous")
        for (int i = 0; i < 2; ++i) alone.stage.act(*alone.part, "next", alone.stage.now() + ms(1));
      settle(alone.stage);
      const auto values = [&] {
        std::vector<double> all;
        for (const ReadingInfo& reading : kind.readings)
          if (reading.snap_points != nullptr && std::string_view(reading.unit) != "dp")
            all.push_back(std::get<double>(reading.now(*alone.part)));
        return all;
      };
      const auto before = values();
      CHECK(alone.stage.act(*alone.part, action, alone.stage.now() + ms(1)));
      settle(alone.stage);
      const auto after = values();
      INFO(kind.name << " " << action);
      bool moved = false;
      for (std::size_t i = 0; i < before.size(); ++i) {
        CHECK((up ? after[i] >= before[i] : after[i] <= before[i]));
        moved = moved || after[i] != before[i];
      }
      if (!before.empty()) CHECK(moved);
    }
  });
}

TEST_CASE("a part of any kind uses no key but those it tells of") {
  each_kind([](const PartKind& kind) {
    Alone alone(kind, false);
    const std::string keys(alone.part->accessible().keys);
    const auto tells = [&](Key key) {
      const bool arrow = key == Key::left || key == Key::right || key == Key::up || key == Key::down;
      const std::pair<Key, const char*> names[] = {
          {Key::page_up, "Page"}, {Key::page_down, "Page"}, {Key::home, "Home"},    {Key::end, "End"},
          {Key::space, "Space"},  {Key::enter, "Enter"},    {Key::escape, "Escape"}};
      for (const auto& [one, name] : names)
        if (one == key) return keys.find(name) != std::string::npos;
      const char* own = key == Key::left    ? "Left"
                        : key == Key::right ? "Right"
                        : key == Key::up    ? "Up"
                                            : "Down";
      return arrow && (keys.find("rrow") != std::string::npos || keys.find(own) != std::string::npos);
    };
    if (!alone.stage.focus("part")) return;
    Micros now = ms(10);
    for (const Key key : all_keys()) {
      if (key == Key::tab || key == Key::back_tab || key == Key::back) continue;
      INFO(kind.name << " " << name_of(key) << ", which tells of " << keys);
      CHECK((!alone.stage.press(key, now += ms(500)) || tells(key)));
    }
  });
}
