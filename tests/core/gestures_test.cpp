#include "ubbo/touch/gestures.hpp"

#include <map>

#include "streams.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// Gestures on a bare screen: contacts are followed and time passes as a stage would do it.
struct Screen {
  explicit Screen(GestureSettings settings = {}, Feel of = {})
      : feel(of), gestures(settings, {.journal = &journal, .part = {"screen"}}, [this](const Gesture& g) {
          news.push_back(g);
        }) {}

  void touch(const Sample& sample) {
    const auto admitted = contacts.admit(sample);
    if (admitted.contact == nullptr) return;
    pass(admitted.contact->seen.time);
    gestures.touch(*admitted.contact, admitted.contact->seen, feel, where);
    if (sample.phase == Phase::up || sample.phase == Phase::cancel) contacts.close(*admitted.contact);
  }
  void touch(double at_ms, Phase phase, Point at, int contact = 1) {
    touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = at});
  }
  Box where{0, 0, 360, 720};
  void pass(Micros now) {
    while (gestures.due() <= now) gestures.advance(gestures.due());
  }
  void tap(double at_ms, Point at) {
    touch(at_ms, Phase::down, at);
    touch(at_ms + 80, Phase::up, at);
  }
  // What was told for good, in words.
  [[nodiscard]] std::string told() const {
    std::string words;
    for (const Gesture& g : news)
      if (g.kind != GestureKind::press && g.step != GesturePhase::moved)
        words += std::string(words.empty() ? "" : ", ") + name_of(g.kind) +
                 (g.kind == GestureKind::tap ? " " + std::to_string(g.count) : "") + " " + name_of(g.step) +
                 " " + std::to_string(g.time.count() / 1000);
    return words;
  }
  [[nodiscard]] std::string answer(const Question& question) const {
    for (const Decision& d : journal.decisions())
      if (d.asks(question)) return d.answer->name;
    return "";
  }

  Feel feel;
  Journal journal{10'000};
  Contacts contacts;
  std::vector<Gesture> news;
  Gestures gestures;
};

}  // namespace

TEST_CASE("a finger that strayed just as far as a tap may holds, one that went further does not") {
  for (const double far : {20.0, 20.5}) {
    Screen pad({.long_press = true}, {.drag_threshold = 30, .tap_reach = 20});
    pad.touch(0, Phase::down, {100, 100});
    pad.touch(50, Phase::move, {100 + far, 100});
    pad.touch(2000, Phase::up, {100 + far, 100});
    CHECK((pad.told().find("long press") != std::string::npos) == (far == 20.0));
  }
}

TEST_CASE("taps in a row: told at once or held, and what the wait costs") {
  const Point at{100, 100};
  struct Case {
    ReportTap tell;
    double taps, second_at;
    Point second;
    const char* told;
    const char* why;
  };
  // The first tap lifts at 80 ms; the gap is 300 ms, the reach 36 dp.
  const Case cases[] = {
      {ReportTap::immediately, 2, 200, at, "tap 1 ended 80, tap 1 withdrawn 280, tap 2 ended 280",
       "gesture.again"},
      {ReportTap::after_wait, 2, 200, at, "tap 2 ended 280", "gesture.again"},
      {ReportTap::after_wait, 3, 200, at, "tap 2 ended 580", "gesture.again"},
      {ReportTap::after_wait, 2, 380, at, "tap 1 ended 380, tap 1 ended 760",
       "gesture.again-too-late"},  // the row closed at the very moment
      {ReportTap::immediately, 2, 500, at, "tap 1 ended 80, tap 1 ended 580", "gesture.again-too-late"},
      {ReportTap::immediately,
       2,
       200,
       {140, 100},
       "tap 1 ended 80, tap 1 ended 280",
       "gesture.again-too-far"},
      {ReportTap::after_wait,
       2,
       200,
       {140, 100},
       "tap 1 ended 200, tap 1 ended 580",
       "gesture.again-too-far"},
      {ReportTap::after_wait, 1, 200, at, "tap 1 ended 80, tap 1 ended 280", ""},
  };
  for (const Case& c : cases) {
    Screen screen({.taps = c.taps, .report_tap = c.tell});
    screen.tap(0, at);
    screen.tap(c.second_at, c.second);
    screen.pass(ms(5000));
    CAPTURE(c.second_at, c.taps, static_cast<int>(c.tell));
    CHECK(screen.told() == c.told);
    CHECK(screen.answer(questions::again) == c.why);
  }
  Screen held({.report_tap = ReportTap::after_wait});
  held.tap(0, at);
  held.pass(ms(5000));
  for (const Decision& d : held.journal.decisions())
    if (d.asks(questions::tap_reported)) CHECK(d.facts[0].value == 300);
}

TEST_CASE("presses, holds, drags, flicks, edges and axes") {
  using Steps = std::vector<std::tuple<double, Phase, Point>>;
  struct Case {
    const char* name;
    Steps steps;
    GestureSettings settings;
    const char* told;
  };
  constexpr auto down = Phase::down, move = Phase::move, up = Phase::up, cancel = Phase::cancel;
  const Case cases[] = {
      {"held too long for a tap", {{0, down, {9, 9}}, {420, up, {9, 9}}}, {}, ""},
      {"strayed too far for a tap",
       {{0, down, {99, 99}}, {50, move, {105, 106}}, {90, up, {108, 108}}},
       {.drags = Drags::none},
       ""},
      {"long press",
       {{0, down, {99, 99}}, {900, up, {99, 99}}},
       {},
       "long press began 450, long press ended 900"},
      {"none wanted", {{0, down, {99, 99}}, {900, up, {99, 99}}}, {.long_press = false}, ""},
      {"hold and drag",
       {{0, down, {99, 99}}, {600, move, {99, 150}}, {900, up, {99, 150}}},
       {},
       "long press began 450, long press withdrawn 600, hold and drag began 600, hold and drag ended 900"},
      {"drag",
       {{0, down, {99, 99}}, {50, move, {150, 99}}, {300, up, {150, 99}}},
       {},
       "drag began 50, drag ended 300"},
      {"flick",
       {{0, down, {99, 99}}, {20, move, {120, 99}}, {40, move, {150, 99}}, {60, up, {180, 99}}},
       {},
       "drag began 20, drag ended 60, flick ended 60"},
      {"from the edge",
       {{0, down, {5, 99}}, {50, move, {40, 99}}, {300, up, {40, 99}}},
       {},
       "edge swipe began 50, edge swipe ended 300"},
      {"towards the edge",
       {{0, down, {355, 99}}, {50, move, {359, 80}}, {300, up, {359, 80}}},
       {},
       "drag began 50, drag ended 300"},
      {"other axis only",
       {{0, down, {99, 99}}, {50, move, {99, 150}}, {300, up, {99, 150}}},
       {.drags = Drags::horizontal},
       ""},
      {"cancelled",
       {{0, down, {99, 99}}, {50, move, {150, 99}}, {70, cancel, {150, 99}}},
       {},
       "drag began 50, drag withdrawn 70"},
  };
  for (const Case& c : cases) {
    Screen screen(c.settings);
    for (const auto& [t, phase, at] : c.steps) screen.touch(t, phase, at);
    screen.pass(ms(9000));
    CAPTURE(c.name);
    CHECK(screen.told() == c.told);
    CHECK(screen.news.front().kind == GestureKind::press);
    CHECK_FALSE(screen.gestures.busy());
  }

  Screen locked;
  locked.touch(0, down, {100, 100});
  locked.touch(20, move, {120, 105});
  locked.touch(40, move, {140, 160});
  CHECK(locked.news.back().offset.y == 0.0);
  CHECK(locked.answer(questions::axis) == "gesture.axis-horizontal");
  Screen free({}, {.axis_lock_angle = 10});
  free.touch(0, down, {100, 100});
  free.touch(20, move, {120, 115});
  free.touch(40, move, {140, 160});
  CHECK(free.news.back().offset.y > 30);
  CHECK(free.answer(questions::axis) == "gesture.axis-free");
}

TEST_CASE("a swipe from an edge is called by that edge, on all four sides") {
  struct Case {
    Point from, by;
    Side side;
  };
  for (const Case& c : {Case{{3, 300}, {90, 0}, Side::left},
                        {{357, 300}, {-90, 0}, Side::right},
                        {{180, 3}, {0, 90}, Side::up},
                        {{180, 717}, {0, -90}, Side::down}}) {
    Screen screen({.edges = true});
    screen.touch(0, Phase::down, c.from);
    for (int i = 1; i <= 10; ++i) screen.touch(16 * i, Phase::move, c.from + c.by * (i / 10.0));
    screen.touch(400, Phase::up, c.from + c.by);
    REQUIRE(screen.news.back().kind == GestureKind::edge_swipe);
    CHECK(screen.news.back().side == c.side);
  }
}

TEST_CASE("an edge is where the screen has it, also one that does not begin at nothing") {
  const Box where{100, 50, 200, 300};
  for (const double off : {-1.0, 1.0}) {
    const double edge = feels::bare_finger.edge_width + off;
    for (const auto& [from, by] : {std::pair{Point{100 + edge, 200}, Point{60, 0}},
                                   {Point{300 - edge, 200}, Point{-60, 0}},
                                   {Point{200, 50 + edge}, Point{0, 60}},
                                   {Point{200, 350 - edge}, Point{0, -60}}}) {
      Screen screen({.edges = true});
      screen.where = where;
      for (int i = 0; i <= 10; ++i)
        screen.touch(16 * i,
                     i == 0    ? Phase::down
                     : i == 10 ? Phase::up
                               : Phase::move,
                     from + by * (i / 10.0));
      const bool swiped = std::any_of(screen.news.begin(), screen.news.end(),
                                      [](const Gesture& one) { return one.kind == GestureKind::edge_swipe; });
      CHECK(swiped == (off < 0));
    }
  }
}

TEST_CASE("two contacts pan, pinch and turn by what their places say") {
  PROPERTY("any movement of two fingers", [] {
    const Point centre{180, 360}, shift{*number(-60, 60), *number(-60, 60)};
    const double grown = *number(0.5, 2.5), turn = *number(-6, 6), half = 60;
    Screen screen;
    const auto place = [&](double fraction, double side) {
      const double reach = half * (1 + (grown - 1) * fraction), angle = turn * fraction;
      return centre + shift * fraction + Point{std::cos(angle), std::sin(angle)} * (reach * side);
    };
    screen.touch(0, Phase::down, place(0, -1), 1);
    screen.touch(5, Phase::down, place(0, 1), 2);
    Gesture began{};
    double share_began = -1;
    for (int i = 1; i <= 100; ++i) {
      screen.touch(10 * i, Phase::move, place(i / 100.0, -1), 1);
      screen.touch(10 * i, Phase::move, place(i / 100.0, 1), 2);
      if (share_began < 0 && screen.news.back().step == GesturePhase::began &&
          screen.news.back().kind >= GestureKind::pan) {
        began = screen.news.back();
        share_began = i / 100.0;
        RC_ASSERT(length(began.offset) == 0.0 && began.scale == 1.0 && began.angle == 0.0);
      }
    }
    RC_PRE(share_began > 0 && share_began < 0.9);
    const Gesture& last = screen.news.back();
    // Between the first finger's move and the second's the pair is a little off, so it began within one step.
    const double reach_then = 1 + (grown - 1) * share_began;
    RC_ASSERT(std::fabs(last.scale - grown / reach_then) < 0.06);
    RC_ASSERT(std::fabs(last.angle - turn * (1 - share_began)) < 0.08);
    RC_ASSERT(length(last.offset - shift * (1 - share_began)) < 4);
  });
}

TEST_CASE("whatever ten fingers do, what began ends once and nothing stays pressed") {
  PROPERTY("wild streams", [] {
    Screen screen({.taps = static_cast<double>(*rc::gen::inRange(1, 4)),
                   .report_tap = *rc::gen::element(ReportTap::immediately, ReportTap::after_wait),
                   .long_press = *rc::gen::arbitrary<bool>(),
                   .drags = *rc::gen::element(Drags::none, Drags::horizontal, Drags::both),
                   .two_contacts = *rc::gen::arbitrary<bool>()});
    auto stream = *wild_stream();
    std::stable_sort(stream.begin(), stream.end(), [](auto& a, auto& b) { return a.time < b.time; });
    std::erase_if(stream, [](const Sample& s) { return s.time < Micros{0} || s.time > ms(5000); });
    for (Sample sample : stream) {
      sample.contact %= 10;
      screen.touch(sample);
    }
    while (Contact* open = screen.contacts.first_open()) {
      Sample sample = open->last;
      sample.phase = Phase::cancel;
      screen.touch(sample);
    }
    screen.pass(never - Micros{1});
    RC_ASSERT_FALSE(screen.gestures.busy());
    RC_ASSERT_FALSE(screen.gestures.pressed());
    RC_ASSERT(screen.gestures.due() == never);
    std::map<GestureKind, int> open;
    for (const Gesture& g : screen.news) {
      if (g.kind == GestureKind::tap || g.kind == GestureKind::flick) continue;  // told at their end only
      if (g.step == GesturePhase::began)
        RC_ASSERT(++open[g.kind] == 1);
      else if (g.step == GesturePhase::moved)
        RC_ASSERT(open[g.kind] == 1);
      else
        RC_ASSERT(--open[g.kind] == 0);
    }
    for (const auto& [kind, count] : open) RC_ASSERT(count == 0);
  });
}

TEST_CASE("what one touch leaves behind does not colour the next") {
  const Point at{100, 100};
  {
    Screen screen({.taps = 2, .report_tap = ReportTap::after_wait});
    screen.tap(0, at);
    screen.touch(200, Phase::down, at);
    screen.pass(ms(2000));  // a hold, so the row of one is closed: it had waited
    CHECK(screen.told() == "tap 1 ended 650, long press began 650");
    CHECK(screen.answer(questions::tap_reported) == "gesture.tap-after-wait");
  }
  {
    Screen screen({.taps = 2});  // a miss is told of once
    screen.tap(0, at);
    screen.touch(600, Phase::down, at);
    for (int i = 1; i <= 9; ++i) screen.touch(600 + 10 * i, Phase::move, at + Point{10.0 * i, 0});
    screen.touch(700, Phase::up, at + Point{90, 0});
    screen.touch(800, Phase::down, at);
    std::size_t told = 0;
    for (const Decision& d : screen.journal.decisions())
      told += static_cast<std::size_t>(d.asks(questions::again));
    CHECK(told == 1);
  }
  {
    Screen screen;  // a tap after a drag is as good as one before it
    screen.touch(0, Phase::down, at);
    screen.touch(20, Phase::move, at + Point{80, 0});
    screen.touch(200, Phase::up, at + Point{80, 0});
    screen.tap(1000, at);
    screen.pass(ms(3000));
    CHECK_THAT(screen.told(), Catch::Contains("tap 1 ended"));
  }
  {
    Screen screen({.two_contacts = false});  // a second finger is nothing to who takes one
    screen.touch(0, Phase::down, at);
    screen.touch(10, Phase::down, at + Point{50, 0}, 2);
    screen.touch(40, Phase::up, at + Point{50, 0}, 2);
    screen.touch(80, Phase::up, at);
    screen.pass(ms(2000));
    CHECK_THAT(screen.told(), Catch::StartsWith("tap 1 ended"));
  }
  {
    Screen screen;  // a third finger does not make the pair anew
    screen.touch(0, Phase::down, at);
    screen.touch(5, Phase::down, at + Point{80, 0}, 2);
    screen.touch(10, Phase::down, at + Point{0, 300}, 3);
    for (int i = 1; i <= 10; ++i) screen.touch(10 + 10 * i, Phase::move, at + Point{80 + 10.0 * i, 0}, 2);
    REQUIRE(screen.news.back().kind == GestureKind::pinch);
    CHECK(screen.news.back().at.y == 100);
  }
}

TEST_CASE("the axis of a movement is that from where the finger went down, wherever that is") {
  for (const Point corner : {Point{300, 5}, Point{5, 5}, Point{355, 715}}) {
    Screen screen({}, {.drag_threshold = 8, .drag_threshold_vertical = 20});
    screen.touch(0, Phase::down, corner);
    for (int i = 1; i <= 15; ++i) screen.touch(10 * i, Phase::move, corner + Point{0, 1.0 * i});
    CHECK(screen.answer(questions::drag).empty());
    screen.touch(200, Phase::up, corner + Point{0, 15});
    // Past what a tap may stray, short of the threshold along its axis.
    const auto decisions = screen.journal.decisions();
    const auto shy = std::find_if(decisions.begin(), decisions.end(),
                                  [](const Decision& d) { return d.says(answers::drag_too_short); });
    REQUIRE(shy != decisions.end());
    CHECK(shy->all_facts()[0].limit == 20);
  }
}

TEST_CASE("a tap that missed a row is told the gap by which that closed, whatever taps now") {
  for (const double now : {0.15, 0.6}) {  // by another tool, in a hurry and at leisure
    Screen screen({.taps = 2});
    const Micros gap = screen.feel.multi_tap_gap;
    screen.tap(0, {100, 100});
    screen.pass(ms(80) + gap);
    screen.feel.multi_tap_gap = Micros{static_cast<std::int64_t>(now * 1e6)};
    screen.tap(80 + to_ms(gap) + 20, {100, 100});
    const auto& all = screen.journal.decisions();
    const auto said = std::find_if(all.begin(), all.end(),
                                   [](const Decision& d) { return d.says(answers::again_too_late); });
    REQUIRE(said != all.end());
    CHECK(said->facts[0].value == Approx(to_ms(gap) + 20));
    CHECK(said->facts[0].limit == Approx(to_ms(gap)));
  }
}
