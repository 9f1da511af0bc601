// What every kind does, and what it shows and tells while it does: as it was when somebody last looked.
#include "approved.hpp"

#include <set>

#include "alone.hpp"
#include "crowd.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// One part, looked at as time goes on.
struct Watched {
  Watched(const PartKind& kind, bool right_to_left, std::optional<Axis> axis, bool inside = false)
      : alone(kind, right_to_left, false, axis, inside) {
    alone.stage.focus("part");
    look();
  }
  void look() { seen += alone.cells.text() + text_of(alone.stage, said); }
  // A deed at the present time, and what comes of it.
  void then(const std::function<void(Micros)>& deed) {
    deed(now);
    look();
    for (const double wait : {40.0, 110.0, 2850.0}) {
      alone.stage.advance(now += ms(wait));
      look();
    }
    approved.add(std::exchange(seen, {}));
  }
  void touch(int contact, Phase phase, Point at, double wait = 16) {
    alone.stage.touch({.time = now += ms(wait), .contact = contact, .phase = phase, .at = at});
  }
  Alone alone;
  Approved approved;
  std::string seen;
  std::size_t said = 0;
  Micros now = ms(10);
};

void live_through_all(Watched& it) {
  Stage& stage = it.alone.stage;
  const auto pull = [&](Point from, Point step, int moves, double wait, Phase end) {
    it.touch(1, Phase::down, from);
    for (int i = 1; i <= moves; ++i) it.touch(1, Phase::move, from + step * i, wait);
    it.look();
    it.touch(1, end, from + step * moves, wait);
  };
  for (const double x : {70.0, 110.0, 250.0, 300.0})
    it.then([&](Micros) { pull({x, 224}, {0, 0}, 0, 40, Phase::up); });
  for (const Point step : {Point{12, 0}, {-12, 1}, {1, -12}, {0, 12}})
    for (const double wait : {6.0, 30.0})
      for (const Phase end : {Phase::up, Phase::cancel})
        it.then([&](Micros) { pull({170, 224}, step, 8, wait, end); });
  it.then([&](Micros) { pull({170, 224}, {0, 0}, 1, 900, Phase::up); });  // held
  it.then([&](Micros) { pull({3, 224}, {12, 0}, 9, 12, Phase::up); });    // from the edge
  it.then([&](Micros) {  // a second one that comes, goes and comes again, and one that catches
    it.touch(1, Phase::down, {120, 224});
    it.touch(2, Phase::down, {240, 230});
    for (int i = 1; i <= 6; ++i) {
      it.touch(1, Phase::move, {120.0 - 6 * i, 224}, 4);
      it.touch(2, Phase::move, {240.0 + 6 * i, 230.0 + 3 * i}, 4);
    }
    it.look();
    it.touch(2, Phase::up, {276, 248});
    it.touch(1, Phase::move, {60, 224});
    it.touch(1, Phase::up, {60, 224});
    it.touch(1, Phase::down, {160, 224}, 60);
    it.touch(1, Phase::up, {160, 224}, 60);
  });
  for (const double wait : {24.0, 110.0})  // caught on its way: by a tap, a press, a cancel, a short way back
    for (int way = 0; way < 4; ++way)
      it.then([&](Micros) {
        const double held = way == 1 ? 800 : 60;
        const double step = way == 3 ? -9 : 0;
        pull({140, 224}, {14, 0}, 6, 8, Phase::up);
        it.touch(1, Phase::down, {170, 224}, wait);
        it.touch(1, Phase::move, {170 + step, 224}, held / 2);
        it.touch(1, way == 2 ? Phase::cancel : Phase::up, {170 + step, 224}, held / 2);
      });
  it.then([&](Micros) {  // a second one that only taps while the first holds
    it.touch(1, Phase::down, {120, 224});
    it.touch(2, Phase::down, {130, 230}, 40);
    it.touch(2, Phase::up, {130, 230}, 40);
    it.look();
    it.touch(1, Phase::up, {120, 224}, 40);
  });
  it.then([&](Micros now) {
    stage.at(now, [&] {
      for (auto& cell : it.alone.cells.numbers) cell.set(std::nan(""));
    });
  });
  for (const Key key : all_keys())
    for (int twice = 0; twice < 2; ++twice)
      it.then([&](Micros now) { it.seen += stage.press(key, now) ? "used" : "not used"; });
  for (const auto& names : {it.alone.part->accessible().actions, it.alone.part->kind().calls})
    for (const char* name : names)
      for (int twice = 0; twice < 2; ++twice)
        it.then([&](Micros now) { it.seen += stage.act(*it.alone.part, name, now) ? "did" : "did not"; });
  for (const double what : {0.1, 0.8, 0.35})
    it.then([&](Micros now) { stage.at(now, [&] { it.alone.cells.write(0.3, what); }); });
  it.then([&](Micros) { stage.at_once([&] { it.alone.cells.write(0.3, 0.6); }); });
  it.then([&](Micros now) {  // under a finger: what is written, placed, changed
    it.touch(1, Phase::down, {150, 224});
    for (int i = 1; i <= 4; ++i) it.touch(1, Phase::move, {150.0 + 10 * i, 224});
    stage.at(now + ms(80), [&] { it.alone.cells.write(0.7, 0.2); });
    it.touch(1, Phase::move, {200, 224});
    const bool stands = it.alone.part->laid().h > it.alone.part->laid().w;
    stage.place(*it.alone.part, Placement::of(stands ? Box{150, 210, 60, 300} : Box{30, 190, 300, 60}));
    it.touch(1, Phase::up, {210, 224});
    const AnySettings settings = it.alone.part->kind().settings_of(*it.alone.part);
    stage.change_to(*it.alone.part, settings.get());
  });
  for (const bool on : {false, true}) it.then([&](Micros) { stage.enable(*it.alone.part, on); });
  for (const bool on : {false, true}) it.then([&](Micros) { stage.show(*it.alone.part, on); });
  it.then([&](Micros now) { stage.turn({720, 360}, {.top = 20}, now); });
  it.then([&](Micros now) { stage.set_right_to_left(!stage.right_to_left(), now); });
  it.then([&](Micros) { pull({170, 224}, {12, 0}, 8, 8, Phase::up); });
  it.then([&](Micros) { stage.remove(*it.alone.part); });
}

}  // namespace

TEST_CASE("what each kind does, shows and tells is as it was approved") {
  for (const PartKind* kind : shipped_kinds())
    for (const bool right_to_left : {false, true})
      for (const bool upright : {false, true}) {
        const bool has_axis = find_setting(*kind, "axis") != kind->settings();
        if (upright && (!has_axis || right_to_left)) continue;
        Watched it(*kind, right_to_left, upright ? std::optional(Axis::vertical) : std::nullopt);
        live_through_all(it);
        std::string name = kind->name;
        it.approved.check("core", name + (upright ? " upright" : right_to_left ? " right-to-left" : ""));
      }
}

TEST_CASE("what each kind does in a pane, with which it shares the finger, is as it was approved") {
  for (const PartKind* kind : shipped_kinds()) {
    Watched it(*kind, false, {}, true);
    // There and back, further than both go; and a flick that is more than enough for one.
    for (const double first : {12.0, -12.0})
      for (const double wait : {6.0, 24.0})
        for (const int back : {0, 6, 14})
          it.then([&](Micros) {
            double x = 180;
            it.touch(1, Phase::down, {x, 224});
            for (int i = 0; i < 9; ++i) it.touch(1, Phase::move, {x += first, 224}, wait);
            it.look();
            for (int i = 0; i < back; ++i) it.touch(1, Phase::move, {x -= first, 224.0 + i % 3}, wait);
            it.look();
            it.touch(1, back == 6 ? Phase::cancel : Phase::up, {x, 224}, wait);
          });
    live_through_all(it);
    it.approved.check("core", std::string(kind->name) + " in a pane");
  }
}

TEST_CASE("what each setting of each kind does is as it was approved") {
  for (const PartKind* kind : shipped_kinds()) {
    Approved approved;
    std::size_t tried = 0;
    for (std::size_t i = 0; i < kind->settings(); ++i) {
      const SettingInfo& info = kind->setting(i);
      const Alone plain(*kind, false);
      const SettingValue value = kind->get(kind->settings_of(*plain.part).get(), i);
      std::set<double> others;
      std::vector<SettingValue> values;
      if (info.kind == SettingKind::flag) others = {1.0 - std::get<double>(value)};
      if (info.kind == SettingKind::passage)
        values = {Passage(Spring::settling(ms(500), 0.3)), Passage(Timed{Curve::ease_in_out(), ms(300)}),
                  Passage(Coast::half_life(ms(120)))};
      for (std::size_t choice = 0; info.kind == SettingKind::choice && choice < info.choices.size(); ++choice)
        others.insert(static_cast<double>(choice));
      if (info.kind == SettingKind::number || info.kind == SettingKind::time)
        for (const double other :
             {std::get<double>(value) * 2, std::get<double>(value) / 2, info.least, 0.3, 30.0})
          if (other >= info.least && other <= info.most) others.insert(other);
      values.insert(values.end(), others.begin(), others.end());
      for (const SettingValue& other : values) {
        Watched it(*kind, false, {});
        Stage& stage = it.alone.stage;
        // Its own cells, and all the rest as it was.
        const AnySettings own = kind->settings_of(*it.alone.part);
        kind->put(own.get(), i, other);
        if (!kind->fault("part", it.alone.part->laid(), own.get()).empty()) continue;
        ++tried;
        stage.at(it.now, [&] { it.alone.cells.write(0.3, 0.4); });
        stage.advance(it.now += ms(2000));
        stage.change_to(*it.alone.part, own.get());
        std::string all;
        for (const auto& [step, wait, end] : {std::tuple{0.0, 60.0, Phase::up},
                                              {14.0, 6.0, Phase::up},
                                              {-9.0, 30.0, Phase::up},
                                              {-14.0, 6.0, Phase::cancel}}) {
          it.touch(1, Phase::down, {200, 224});
          for (int move = 1; move <= 8; ++move) it.touch(1, Phase::move, {200 + step * move, 224}, wait);
          all += text_of(stage, it.said);
          it.touch(1, end, {200 + step * 8, 224}, wait);
          stage.advance(it.now += ms(90));
          all += text_of(stage, it.said);
          stage.advance(it.now += ms(3000));
        }
        for (const Key key : {Key::right, Key::page_up, Key::down, Key::escape})
          stage.press(key, it.now += ms(50));
        stage.advance(it.now += ms(100));
        approved.add(all + text_of(stage, it.said) + it.alone.cells.text());
      }
    }
    CHECK(tried >= kind->settings() / 4);
    approved.check("core", std::string(kind->name) + " settings");
  }
}

TEST_CASE("what a stage with many parts comes to is as it was approved") {
  Approved approved;
  for (unsigned seed = 1; seed <= 60; ++seed) {
    const auto happened = made_from(seed, [] { return happenings(true); });
    Crowd crowd({.right_to_left = seed % 3 == 0,
                 .reduced_motion = static_cast<Reduced>(seed % 7 < 3 ? seed % 3 : 0)});
    live_through(crowd, happened, 0);
    std::size_t said = 0;
    std::string all = text_of(crowd.stage, said);
    for (const auto* cell :
         {&crowd.brood, &crowd.stores, &crowd.height, &crowd.scrolled, &crowd.slid, &crowd.seen})
      all += rounded(cell->get());
    approved.add(all);
  }
  approved.check("core", "crowd");
}
