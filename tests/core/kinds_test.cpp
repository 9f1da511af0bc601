// What holds for a part whatever it is: one suite over every kind that is registered, so that a new one gets
// it by its line in the list.
#include <set>

#include "alone.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

void each_kind(const std::function<void(const PartKind&)>& look) {
  for (const PartKind* kind : shipped_kinds()) {
    INFO(kind->name);
    look(*kind);
  }
}

}  // namespace

TEST_CASE("whatever happens to a part of any kind, frames change nothing, and it rests where it may") {
  each_kind([](const PartKind& kind) {
    PROPERTY(kind.name, [&] {
      const auto events = any_events();
      const bool right_to_left = *rc::gen::arbitrary<bool>();
      Alone without(kind, right_to_left);
      live_through(without, events, 0);
      for (const double fps : {24.0, 60.0, 240.0}) {
        Alone alone(kind, right_to_left);
        live_through(alone, events, fps);
        RC_ASSERT(alone.outcome(true) == without.outcome(true));
      }
      RC_ASSERT(without.part->settled());
      RC_ASSERT(without.stage.open_contacts() == 0U);
      // The app may put a pane anywhere; a finger and a key may not.
      const bool put = kind.name == std::string_view("pane") &&
                       std::any_of(events.begin(), events.end(), [](const Event& one) { return one.writes; });
      for (const ReadingInfo& reading : kind.readings) {
        const ReadingValue value = reading.now(*without.part);
        const auto* number = std::get_if<double>(&value);
        if (number == nullptr) continue;
        RC_ASSERT(std::isfinite(*number));
        std::vector<double> rests;
        if (reading.rests != nullptr && !put) reading.rests(*without.part, rests);
        double off = rests.empty() ? 0.0 : HUGE_VAL;
        for (const double rest : rests) off = std::min(off, std::fabs(rest - *number));
        RC_ASSERT(off <= 1e-9);
      }
      for (const Decision& decision : without.stage.journal().decisions())
        for (const Fact& fact : decision.all_facts()) RC_ASSERT(std::isfinite(fact.value + fact.limit));
    });
  });
}

TEST_CASE(
    "two parts of one kind on the same cells come to the same, whoever was touched, at any frame rate") {
  each_kind([](const PartKind& kind) {
    if (kind.name == std::string_view("zoom-plane")) return;  // its four cells are for one plane: docs/parts
    PROPERTY(kind.name, [&] {
      // Some of what happens to the one happens to the other instead, or as well.
      auto events = any_events();
      const auto others = any_events();
      for (const Event& one : others)
        events.push_back({one.time,
                          [deed = one.deed](Alone& alone, bool) {
                            std::swap(alone.part, alone.twin);
                            deed(alone, false);
                            std::swap(alone.part, alone.twin);
                          },
                          one.writes});
      std::stable_sort(events.begin(), events.end(),
                       [](const Event& a, const Event& b) { return a.time < b.time; });
      const auto outcome = [&](double fps) {
        Alone both(kind, false, true);
        live_through(both, events, fps);
        RC_ASSERT(both.part->settled() && both.twin->settled());
        // What a touch alone is taken for, and cards in the hand, are each part's own. Of a low value written
        // beyond the high one each range slider shows as much as its own thumbs, under fingers, left room
        // for.
        const std::string_view name = kind.name;
        if (name != "range-slider" && name != "pad" && name != "swipe-row" && name != "card-deck" &&
            name != "tabs")
          RC_ASSERT(Alone::readings_of(*both.part, false) == Alone::readings_of(*both.twin, false));
        return both.outcome(true) + Alone::readings_of(*both.twin, true);
      };
      const std::string without = outcome(0);
      for (const double fps : {24.0, 240.0}) RC_ASSERT(outcome(fps) == without);
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
      live_through(mirrored, events, 60, true);
      // Their cells hold places on the screen.
      for (const char* on_screen : {"pane", "draggable", "zoom-plane"})
        if (kind.name == std::string_view(on_screen)) return;
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
      std::vector<double> rests;
      if (reading.rests != nullptr) reading.rests(*alone.part, rests);
      if (rests.empty() || std::string_view(reading.unit) == "dp") continue;
      std::set<std::size_t> reached;
      Micros now = alone.stage.now() + ms(100);
      alone.stage.focus("part");
      const auto press = [&](Key key) {
        alone.stage.press(key, now);
        alone.stage.advance(now += ms(3000));
        const ReadingValue value = reading.now(*alone.part);
        for (std::size_t at = 0; at < rests.size(); ++at)
          if (std::fabs(rests[at] - std::get<double>(value)) < 1e-9) reached.insert(at);
      };
      // The space bar switches over: to yes, or to the other thumb, which the first must leave its room.
      for (int thumb = 0; thumb < 2; ++thumb) {
        for (const Key key : {Key::home, Key::right, Key::left, Key::right})
          for (std::size_t i = 0; i < rests.size() + 1; ++i) press(key);
        press(Key::space);
        press(Key::home);
        for (std::size_t i = 0; i < rests.size() + 1; ++i) press(Key::right);
        press(Key::space);
        press(Key::home);
        press(Key::space);
      }
      INFO(reading.name);
      if (kind.name == std::string_view("button"))
        continue;  // it sinks under a finger only, or where it stays
      CHECK(reached.size() == rests.size());
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
      for (std::size_t i = 0; i <= cut; ++i) events[i].deed(alone, false);
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
