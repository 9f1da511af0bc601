// What the app asks of a part at awkward moments, the same for every kind: while a finger holds it, in the
// middle of a motion, with callbacks that throw; and that the clock always moves on.
#include <stdexcept>

#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

void touch(Alone& alone, double at_ms, Phase phase, Point at, int contact = 1) {
  alone.stage.touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = at});
}

// A second of the events, then all rests.
void rest(Alone& alone) {
  alone.stage.cancel_contacts();
  alone.stage.advance(alone.stage.now() + ms(60'000));
}

}  // namespace

TEST_CASE("a press that comes to nothing, and a write under it, come to what the write alone comes to") {
  each_kind([](const PartKind& kind) {
    CHECK(rc::check(kind.name, [&] {
      const double which = *number(0, 1), what = *number(0, 1);
      const double x = *rc::gen::element(60.0, 120.0, 180.0, 290.0);
      const int way = *rc::gen::inRange(0, 3);
      const double before = *rc::gen::element(-1.0, 0.2, 0.9);
      const auto begin = [&](Alone& alone) {
        alone.stage.advance(ms(0));
        if (before >= 0) alone.stage.at(ms(0), [&] { alone.cells.write(which, before); });
      };
      Alone plain(kind, false, false, {}, true);
      begin(plain);
      plain.stage.at(ms(2100), [&] { plain.cells.write(which, what); });
      rest(plain);
      Alone pressed(kind, false, false, {}, true);
      begin(pressed);
      touch(pressed, 2000, Phase::down, {x, 224});
      pressed.stage.at(ms(2100), [&] { pressed.cells.write(which, what); });
      if (way == 0) pressed.stage.at(ms(2200), [&] { pressed.stage.cancel_contacts(); });
      // Moved across what it follows, so that nobody drags, and cancelled.
      const bool across = !pressed.part->drag_interest({.at = {x, 224}}).vertical;
      for (int i = 1; way == 1 && across && i < 5; ++i)
        touch(pressed, 2100 + 10 * i, Phase::move, {x, 224.0 + 20 * i});
      if (way == 2) pressed.stage.show(*pressed.part, false);
      rest(pressed);
      if (way == 2) pressed.stage.show(*pressed.part, true);
      RC_ASSERT(pressed.cells.text() == plain.cells.text());
      RC_ASSERT(Alone::readings_of(*pressed.part, false) == Alone::readings_of(*plain.part, false));
    }));
  });
}

TEST_CASE(
    "a part of any kind that begins somewhere is there: adding it says nothing, tells nothing, moves "
    "nothing") {
  each_kind([](const PartKind& kind) {
    for (const double what : {-1.0, 0.1, 0.45, 0.9}) {
      Alone alone(kind, false, false, {}, false, what);
      CAPTURE(what);
      for (const Decision& decision : alone.stage.journal().decisions())
        CHECK(decision.answer->name == std::string());
      const std::string first = Alone::readings_of(*alone.part, true);
      alone.stage.advance(ms(0));
      alone.stage.advance(ms(5000));
      CHECK(Alone::readings_of(*alone.part, true) == first);
      CHECK(alone.stage.settled());
      for (const Decision& decision : alone.stage.journal().decisions()) CHECK(decision.time >= ms(0));
    }
  });
}

TEST_CASE("other settings that are the same change nothing, whenever they come") {
  each_kind([](const PartKind& kind) {
    CHECK(rc::check(kind.name, [&] {
      const auto events = any_events();
      const Micros when = ms(*number(0, 3000));
      Alone plain(kind, false), changed(kind, false);
      live_through(plain, events, 0);
      auto with_change = events;
      with_change.push_back({when, [&](Alone& alone, Seen) {
                               alone.stage.at(when, [&] {
                                 const AnySettings own = kind.settings_of(*alone.part);
                                 alone.stage.change_to(*alone.part, own);
                               });
                             }});
      std::stable_sort(with_change.begin(), with_change.end(),
                       [](const Event& a, const Event& b) { return a.time < b.time; });
      live_through(changed, with_change, 0);
      RC_ASSERT(changed.outcome(true) == plain.outcome(true));
    }));
  });
}

TEST_CASE("a part that is linked to other cells hears and tells none of those it had, for every kind") {
  each_kind([](const PartKind& kind) {
    CHECK(rc::check(kind.name, [&] {
      const auto events = any_events();
      Cells others;
      Alone it(kind, false);
      it.stage.advance(ms(0));
      AnySettings settings = kind.settings_of(*it.part);
      for (std::size_t i = 0; i < kind.settings(); ++i)
        if (kind.setting(i).kind == SettingKind::cell)
          (void)kind.put(settings, i, others.add(kind.setting(i).cell_kind));
      it.stage.change_to(*it.part, settings);
      settle(it.stage);
      std::swap(it.cells, others);  // those it has now are what the events write to
      const std::string before = it.outcome(true);
      others.write(*number(0, 1), *number(0, 1));
      for (auto& cell : others.texts) cell.set("Frames are out");
      const std::string old = others.text();
      settle(it.stage);
      RC_ASSERT(it.outcome(true) == before);
      for (const Event& event : events) event.action(it, Seen::plain);
      settle(it.stage);
      RC_ASSERT(others.text() == old);
    }));
  });
}

TEST_CASE("when something is due the clock moves on, for every kind, and a minute later all is at rest") {
  each_kind([](const PartKind& kind) {
    CHECK(rc::check(kind.name, [&] {
      const auto events = any_events();
      Alone alone(kind, *rc::gen::arbitrary<bool>(), true, {}, *rc::gen::arbitrary<bool>());
      alone.stage.advance(ms(0));
      const auto run_to = [&](Micros until) {
        for (int i = 0; alone.stage.due() <= until; ++i) {
          const Micros due = alone.stage.due();
          alone.stage.advance(due);
          RC_ASSERT(alone.stage.due() > due);
          RC_ASSERT(i < 10'000);
        }
      };
      for (const Event& event : events) {
        run_to(event.time);
        event.action(alone, Seen::plain);
      }
      alone.stage.cancel_contacts();
      run_to(events.back().time + ms(60'000));
      alone.stage.advance(events.back().time + ms(60'000));
      RC_ASSERT(alone.stage.settled());
      for (const Part* part : alone.stage.parts()) RC_ASSERT(!part->held());
      for (const Decision& decision : alone.stage.journal().decisions())
        RC_ASSERT(!decision.asks(questions::idle) && !decision.asks(questions::endless));
    }));
  });
}

TEST_CASE("whoever watches a cell and throws leaves every kind sound") {
  each_kind([](const PartKind& kind) {
    CHECK(rc::check(kind.name, [&] {
      const auto events = any_events();
      const int each = *rc::gen::inRange(1, 4);
      Alone plain(kind, false), watched(kind, false);
      live_through(plain, events, 0);
      int told = 0;
      std::vector<Watch> watches;
      const auto throws = [&](const auto&) {
        if (++told % each == 0) throw std::runtime_error("not now");
      };
      for (auto& cell : watched.cells.numbers) watches.push_back(cell.watch(throws));
      for (auto& cell : watched.cells.wholes) watches.push_back(cell.watch(throws));
      for (auto& cell : watched.cells.flags) watches.push_back(cell.watch(throws));
      for (auto& cell : watched.cells.choices) watches.push_back(cell.watch(throws));
      for (auto& cell : watched.cells.texts) watches.push_back(cell.watch(throws));
      auto guarded = events;
      for (Event& event : guarded)
        event.action = [action = event.action](Alone& alone, Seen how) {
          try {
            action(alone, how);
          } catch (const std::runtime_error&) {
          }
        };
      watched.stage.advance(ms(0));
      for (const Event& event : guarded) event.action(watched, Seen::plain);
      const Micros last = events.back().time + ms(9000);
      for (int i = 0; i < 200 && watched.stage.now() < last; ++i) {
        try {
          watched.stage.advance(last);
        } catch (const std::runtime_error&) {
        }
      }
      RC_ASSERT(watched.outcome(true) == plain.outcome(true));
      RC_ASSERT(watched.stage.settled());
    }));
  });
}

TEST_CASE("touches, keys, frames and reads of any kind allocate nothing") {
  each_kind([](const PartKind& kind) {
    Alone alone(kind, false);
    alone.stage.advance(ms(0));
    alone.stage.focus("part");
    double now = 100;
    const auto round = [&] {
      for (const Point step : {Point{12, 0}, {-12, 0}, {0, 9}, {0, -9}, {0, 0}})
        for (const Phase end : {Phase::up, Phase::cancel}) {
          touch(alone, now, Phase::down, {180, 224});
          for (int i = 1; i <= 8; ++i) touch(alone, now += 8, Phase::move, Point{180, 224} + step * i);
          touch(alone, now += 8, end, Point{180, 224} + step * 8);
          for (int frame = 0; frame < 60; ++frame) alone.stage.advance(ms(now += 16));
        }
      for (const Key key : all_keys()) {
        alone.stage.press(key, ms(now += 30));
        alone.stage.advance(ms(now += 500));
      }
      for (const Side side : {Side::left, Side::up, Side::right, Side::down})
        static_cast<void>(alone.part->can_go(side));
      static_cast<void>(alone.part->box());
      static_cast<void>(alone.part->visual_state());
    };
    round();  // what is reserved as it is first needed
    const std::size_t before = allocations();
    round();
    CHECK(allocations() - before == 0);
  });
}
