#include "streams.hpp"
#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// The list stands scrolled by 100 dp, so the row put at y = 400 is seen at 300.
// A sheet that sinks by 300 dp; in it a list of 400 dp more than fits; in that a row that slides open by 90
// dp; on the row a pad for taps, which leaves drags alone.
struct Hives {
  explicit Hives(StageSettings on = {}, ContactRules row_stands = {.inside = "list"})
      : stage(with_journal(on)) {
    sheet = &stage.add<Pane>("sheet", {0, 100, 360, 620},
                             {.offset = height, .min = 0, .max = 300, .snap_points = {0, 300}});
    list = &stage.add<Pane>("list", {0, 50, 360, 570},
                            {.offset = scrolled, .min = -400, .max = 0, .half_life = ms(0)},
                            {.inside = "sheet"});
    row = &stage.add<Pane>(
        "row", {0, 250, 360, 80},
        {.offset = slid, .min = -90, .max = 90, .axis = Axis::horizontal, .snap_points = {-90, 0, 90}},
        row_stands);
    pad = &stage.add<Pad>("name", {0, 0, 200, 80}, {.gestures = {.drags = Drags::none}, .taps = taps},
                          {.inside = "row"});
  }
  void touch(double at_ms, Phase phase, Point at, int contact = 1) {
    stage.touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = at});
  }
  void drag(Point from, Point to, int steps = 20) {
    const double t = to_ms(stage.now()) + 10;
    touch(t, Phase::down, from);
    for (int i = 1; i <= steps; ++i)
      touch(t + 8 * i, Phase::move, from + (to - from) * (static_cast<double>(i) / steps));
    touch(t + 8 * steps + 200, Phase::up, to);
  }
  void settle() { ubbo::test::settle(stage); }
  [[nodiscard]] std::string answers(const Question& question) const {
    std::string words;
    for (const Decision& d : stage.journal().decisions())
      if (d.asks(question))
        words += (words.empty() ? "" : ", ") + std::string(d.part) + ": " + d.answer->name;
    return words;
  }
  static StageSettings with_journal(StageSettings settings) {
    settings.journal = 10'000;
    return settings;
  }

  Cell<double> height{0}, scrolled{-100}, slid{0};
  Cell<int> taps{0};
  Stage stage;
  Pane *sheet = nullptr, *list = nullptr, *row = nullptr;
  Pad* pad = nullptr;
};

// Sees what goes down on it and writes it down, one contact at a time; told to, it drops that.
struct WitnessSettings {};

class Witness final : public Part {
 public:
  using Settings = WitnessSettings;
  Witness(std::string id, const Box& box, WitnessSettings, Context& context)
      : Part(std::move(id), box, context) {}
  [[nodiscard]] const PartKind& kind() const override {
    static const PartKind kind{.name = "witness"};
    return kind;
  }
  bool capture(const Contact& contact, const Sample&) override {
    saw += "down " + std::to_string(contact.id) + ", ";
    return !std::exchange(has, true);
  }
  void move(const Contact& contact, const Sample&) override {
    saw += "move " + std::to_string(contact.id) + ", ";
    if (drops) forget_contacts();
  }
  void lift(const Contact& contact, const Sample&) override {
    saw += "lift " + std::to_string(contact.id) + ", ";
    has = false;
  }
  void let_go(const Contact& contact, LetGo) override {
    saw += "let go " + std::to_string(contact.id) + ", ";
    has = false;
  }

  std::string saw;
  bool has = false;
  bool drops = false;
};

}  // namespace

TEST_CASE("row, list and sheet want one finger: axis and boundary decide, the journal says why") {
  {
    Hives app;
    app.drag({100, 340}, {190, 345});
    app.settle();
    CHECK(app.slid.get() == 90);
    CHECK(app.scrolled.get() == -100);
    CHECK(app.answers(questions::contest) ==
          "name: routing.contest-axis, list: routing.contest-axis, sheet: routing.contest-axis, row: "
          "routing.contest-won");
  }
  {
    Hives app;
    app.drag({100, 340}, {110, 290});
    CHECK(app.scrolled.get() == Approx(-142));  // 50 dp less the threshold
    CHECK(app.slid.get() == 0);
    CHECK(app.height.get() == 0);
    CHECK(app.pad->last().step == GesturePhase::withdrawn);
  }
  {
    Hives app;
    app.scrolled.set(0);
    app.settle();
    app.drag({100, 340}, {100, 440});
    app.settle();
    CHECK(app.scrolled.get() == 0);
    CHECK(app.height.get() == 0);  // 92 dp of 300 fall back
    CHECK_THAT(app.answers(questions::contest),
               Catch::Contains("list: routing.contest-end") && Catch::EndsWith("sheet: routing.contest-won"));
  }
  {
    Hives app;
    app.touch(0, Phase::down, {100, 340});
    CHECK(app.pad->pressed());  // shown at once
    app.touch(80, Phase::up, {101, 341});
    app.settle();
    CHECK(app.taps.get() == 1);
    CHECK(app.answers(questions::contest).empty());
  }
}

TEST_CASE("a list at its end hands the finger to the sheet and takes it back, without a jump") {
  Hives app;
  app.touch(0, Phase::down, {300, 200});
  const auto sum = [&] { return app.list->offset() + app.sheet->offset(); };
  Point finger{300, 200};
  double before = sum();
  double t = 0;
  const auto go = [&](double by, int steps) {
    for (int i = 0; i < steps; ++i) {
      finger.y += by / steps;
      app.touch(t += 8, Phase::move, finger);
      // The finger's way goes whole into the one or the other; only the threshold is left out at the
      // beginning.
      CHECK(std::fabs(sum() - before) <= std::fabs(by) / steps + 1e-6);
      before = sum();
    }
  };
  go(250, 50);  // 8 threshold, 100 to the list's end, 142 for the sheet
  CHECK(app.list->offset() == 0);
  CHECK(app.sheet->offset() == Approx(142));
  go(-200, 40);  // 142 back, and 58 for the list
  CHECK(app.sheet->offset() == 0);
  CHECK(app.list->offset() == Approx(-58));
  CHECK(app.answers(questions::hand_over) == "sheet: routing.goes-on, list: routing.goes-on");
  app.touch(t + 200, Phase::up, finger);
  app.settle();
  CHECK(app.stage.settled());
  CHECK(app.list->offset() == Approx(-58));

  // All at once, within one sample, it comes to the same.
  Hives sudden;
  sudden.touch(0, Phase::down, {300, 200});
  sudden.touch(8, Phase::move, {300, 450});
  CHECK(sudden.sheet->offset() == Approx(142));
}

TEST_CASE("however the finger goes, list and sheet together move no further than it does") {
  PROPERTY("a list in a sheet", [] {
    Hives app;
    Point finger{300, 200};
    app.touch(0, Phase::down, finger);
    double before = app.list->offset() + app.sheet->offset();
    for (int i = 1; i <= 60; ++i) {
      const double step = *number(-60, 60);
      finger.y += step;
      app.touch(8 * i, Phase::move, finger);
      const double now = app.list->offset() + app.sheet->offset();
      RC_ASSERT(std::fabs(now - before) <= std::fabs(step) + 1e-6);
      before = now;
      // The sheet only leaves its place while the list is at its end.
      RC_ASSERT(app.sheet->offset() < 1e-6 || app.list->offset() > -1e-6);
      RC_ASSERT_FALSE(app.sheet->dragging() && app.list->dragging());
    }
  });
}

TEST_CASE("a part can stand back, or share") {
  Hives polite(
      {}, {.inside = "list", .yields_to = "sheet"});  // the sheet does not move sideways, so nothing changes
  polite.drag({100, 340}, {190, 345});
  polite.settle();
  CHECK(polite.slid.get() == 90);

  Cell<double> outer{0}, inner{0};
  Stage stage{{.journal = 100}};
  stage.add<Pane>("yard", {0, 0, 360, 720}, {.offset = outer, .min = -200, .max = 200});
  stage.add<Pane>("marker", {100, 100, 100, 100}, {.offset = inner, .min = -200, .max = 200},
                  {.inside = "yard", .yields_to = "yard"});
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 150}});
  stage.touch({.time = ms(9), .contact = 1, .phase = Phase::move, .at = {150, 180}});
  CHECK(outer.get() == Approx(22));
  CHECK(inner.get() == 0);

  Stage plan{{.journal = 100}};
  int pinched = 0;
  plan.add<Pad>("zoom", {0, 0, 360, 720},
                {.gestures = {.drags = Drags::none},
                 .on_gesture = [&](const Gesture& g) { pinched += g.kind == GestureKind::pinch; }},
                {.observes = true});
  auto& panned = plan.add<Pane>("pan", {0, 0, 360, 720}, {.min = -200, .max = 200, .axis = Axis::horizontal},
                                {.inside = "zoom"});
  for (int i = 0; i <= 10; ++i)
    for (const int contact : {1, 2})
      plan.touch({.time = ms(8 * i),
                  .contact = contact,
                  .phase = i == 0 ? Phase::down : Phase::move,
                  .at = {contact == 1 ? 100.0 : 250.0 + 8 * i, 300.0}});
  CHECK(pinched > 3);
  CHECK(panned.offset() == 0.0);
  CHECK_THROWS_WITH(plan.add<Pad>("x", {0, 0, 9, 9}, {}, {.inside = "paan"}), Catch::Contains("'paan'"));
}

TEST_CASE("a part gets all of a contact that it captured, and nothing of one that it did not") {
  // Alone it owns its contact; behind a button that owns it, it only observes.
  const bool observes = GENERATE(false, true);
  Stage stage;
  auto& witness = stage.add<Witness>("witness", {0, 0, 360, 200}, {}, {.observes = true});
  if (observes) stage.add<Button>("button", {0, 0, 360, 200}, {}, {.inside = "witness"});
  const auto touch = [&](Phase phase, int contact, double x) {
    stage.touch({.time = ms(1), .contact = contact, .phase = phase, .at = {x, 100}});
  };
  touch(Phase::down, 1, 100);
  touch(Phase::down, 2, 200);
  touch(Phase::move, 2, 201);
  touch(Phase::move, 1, 101);
  touch(Phase::up, 2, 201);
  touch(Phase::cancel, 1, 101);
  CHECK(witness.saw == "down 1, down 2, move 1, let go 1, ");
  witness.saw.clear();
  witness.drops = true;
  touch(Phase::down, 3, 100);
  touch(Phase::move, 3, 101);
  touch(Phase::move, 3, 102);
  touch(Phase::up, 3, 102);
  CHECK(witness.saw == "down 3, move 3, ");
  CHECK(stage.open_contacts() == 0);
  CHECK(stage.settled());
}

TEST_CASE("palms, the bezel, two devices, ten fingers, losing the screen") {
  Hives app({.feel = {.palm_size = 100, .bezel = 5}});
  app.stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {100, 340}, .size = 140});
  CHECK_FALSE(app.pad->pressed());
  app.touch(1, Phase::down, {2, 340}, 2);
  CHECK_FALSE(app.pad->pressed());
  CHECK(app.answers(questions::owner) == ": routing.owner-palm, : routing.owner-bezel");
  CHECK(app.stage.open_contacts() == 2);
  app.stage.touch({.time = ms(2), .contact = 1, .phase = Phase::down, .at = {100, 340}, .device = 7});
  CHECK(app.pad->pressed());  // contact 1 of another device is another contact
  for (int contact = 10; contact < 20; ++contact)
    app.touch(3, Phase::down, {300, 200 + 3.0 * contact}, contact);
  CHECK(app.stage.open_contacts() == 13);
  app.stage.cancel_contacts();
  app.settle();
  CHECK(app.stage.settled());
  CHECK_FALSE(app.pad->pressed());

  Hives palm({.feel = {.palm_size = 100}});
  for (int i = 0; i <= 10; ++i)
    palm.stage.touch({.time = ms(8 * i),
                      .contact = 1,
                      .phase = i == 0 ? Phase::down : Phase::move,
                      .at = {100, 340 - 20.0 * i},
                      .size = 140});
  CHECK(palm.stage.journal().size() == 1);  // nobody has it, and nobody contends for it
  CHECK(palm.list->offset() == -100);
  for (const auto& [x, taken] : {std::pair{5.0, false}, {5.001, true}}) {  // the bezel's own edge is bezel
    Hives edge({.feel = {.bezel = 5}});
    edge.touch(0, Phase::down, {x, 700});
    CHECK((edge.answers(questions::owner) == ": routing.owner-bezel") != taken);
  }

  Stage tools{{.feel = feels::gloved, .stylus = feels::stylus}};
  Cell<double> at{0};
  auto& pane = tools.add<Pane>("plan", {0, 0, 360, 720}, {.offset = at, .min = 0, .max = 100});
  tools.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {9, 9}, .tool = Tool::stylus});
  tools.touch({.time = ms(9), .contact = 1, .phase = Phase::move, .at = {9, 19}, .tool = Tool::stylus});
  CHECK(pane.offset() == Approx(6));
}

TEST_CASE(
    "a part is judged by a feel of its own, and a contest by that of the part the finger went down on") {
  const auto travel_at_drag = [](double own, double list_own) {
    Hives app({.feel = {.drag_threshold = 8}});
    if (own > 0) app.row->set_feels({.finger = {.drag_threshold = own}});
    if (list_own > 0) app.list->set_feels({.finger = {.drag_threshold = list_own}});
    app.pad->set_feels({.finger = {.drag_threshold = 90}});  // it follows no drags
    app.touch(0, Phase::down, {300, 320});
    for (int i = 1; i <= 60; ++i) {
      app.touch(8 * i, Phase::move, {300 - 1.0 * i, 320});
      if (app.row->offset() != 0) return i - 1;
    }
    return 0;
  };
  CHECK(travel_at_drag(0, 0) == 8);
  CHECK(travel_at_drag(0, 30) == 8);
  CHECK(travel_at_drag(25, 0) == 25);
  CHECK(travel_at_drag(25, 3) == 25);
  CHECK(travel_at_drag(3, 30) == 3);

  Hives app;
  app.row->set_feels({.finger = {.drag_threshold = 25}});
  app.row->reset_feels();
  CHECK_FALSE(app.row->has_own_feels());
  CHECK_THROWS_AS(app.row->set_feels({.mouse = {.staleness = ms(-1)}}), std::invalid_argument);
  CHECK(app.row->feel_for(Tool::mouse).staleness == feels::mouse.staleness);
}

TEST_CASE(
    "who is left alone with a finger has nobody to contend with, what another finger holds is not taken "
    "over") {
  Hives app;
  app.touch(0, Phase::down, {180, 600});
  app.stage.at(ms(5), [&] { app.stage.remove(*app.list); });
  for (int i = 1; i <= 5; ++i) app.touch(5 + 8 * i, Phase::move, {180, 600 + 10.0 * i});
  CHECK(app.answers(questions::contest) == "sheet: routing.contest-won");
  const auto decisions = app.stage.journal().decisions();
  const auto won = std::find_if(decisions.begin(), decisions.end(),
                                [](const Decision& d) { return d.says(answers::contest_won); });
  REQUIRE(won != decisions.end());
  CHECK(won->all_facts().back().value == 1);  // the list wanted it too, when it went down
  CHECK(app.sheet->offset() > 0);

  Cell<double> height{100}, scrolled{0};
  Stage stage;
  auto& sheet = stage.add<Pane>("sheet", {0, 0, 360, 720}, {.offset = height, .min = 0, .max = 500});
  auto& list = stage.add<Pane>("list", {0, 360, 360, 360}, {.offset = scrolled, .min = -500, .max = 0},
                               {.inside = "sheet"});
  const auto move = [&](int contact, double at_ms, Phase phase, double y) {
    stage.touch({.time = ms(at_ms), .contact = contact, .phase = phase, .at = {180, y}});
  };
  move(1, 0, Phase::down, 150);
  move(1, 10, Phase::move, 158);
  const double held = sheet.offset();
  move(2, 20, Phase::down, 600);
  for (int i = 1; i <= 10; ++i) move(2, 20 + 8 * i, Phase::move, 600 + 8.0 * i);  // the list is at its start
  CHECK(sheet.offset() == held);
  CHECK(list.offset() == 0);
  move(1, 200, Phase::move, 178);
  CHECK(sheet.offset() == Approx(held + 20));
}

TEST_CASE("ten fingers on nested parts allocate nothing") {
  Hives app;
  const std::size_t before = allocations();
  for (int frame = 0; frame < 2000; ++frame) {
    const int step = frame % 40;
    const Phase phase = step == 0 ? Phase::down : step == 39 ? Phase::up : Phase::move;
    for (int finger = 0; finger < 10; ++finger)
      app.touch(8.0 * frame, phase, {30.0 * finger + 2 * step, 160.0 + 30 * finger + step}, finger);
    app.stage.advance(ms(8.0 * frame + 4));
  }
  CHECK(allocations() == before);
  CHECK(app.stage.journal().decisions().size() > 500);
}

TEST_CASE("at any time at most one part drags with a contact, and nothing is left held") {
  PROPERTY("wild and sound streams on nested parts", [] {
    Hives app;
    std::vector<Sample> stream = *rc::gen::arbitrary<bool>() ? *wild_stream() : gestures();
    for (Sample& sample : stream) {
      sample.at.y += 100;
      app.stage.touch(sample);
      if (*rc::gen::inRange(0, 4) == 0) app.stage.advance(sample.time);
      // One finger can drag one pane; each pane can only be dragged by one finger.
      const auto dragging = static_cast<std::size_t>(app.sheet->dragging()) +
                            static_cast<std::size_t>(app.list->dragging()) +
                            static_cast<std::size_t>(app.row->dragging());
      RC_ASSERT(dragging <= app.stage.open_contacts());
    }
    app.stage.cancel_contacts();
    app.settle();
    app.settle();
    RC_ASSERT(app.stage.settled());
    RC_ASSERT_FALSE(app.pad->pressed());
    RC_ASSERT_FALSE(app.sheet->dragging() || app.list->dragging() || app.row->dragging());
    for (const Pane* pane : {app.sheet, app.list, app.row})
      RC_ASSERT(pane->offset() >= pane->settings().min && pane->offset() <= pane->settings().max);
  });
}
