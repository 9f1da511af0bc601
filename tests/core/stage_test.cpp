#include <memory>

#include "streams.hpp"
#include "ubbo/testing/allocations.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a touch meets what moves where it is at that time, whatever frame came before or after") {
  // A sheet on its way up carries a pad; whether a finger hits the pad depends on the touch's time alone.
  const auto hit = [](std::vector<double> frames_ms) -> std::string {
    Cell<double> offset{0};
    Stage stage{{.journal = 100}};
    stage.add<Pane>("sheet", {0, 400, 360, 300},
                    {.offset = offset,
                     .min = -300,
                     .max = 0,
                     .moves = Moves::itself,
                     .transition = Timed{Curve{}, test::ms(300)}});
    stage.add<Pad>("note", {0, 100, 360, 40}, {}, {.inside = "sheet"});
    stage.advance(test::ms(0));
    stage.at(test::ms(0), [&] { offset.set(-300); });  // 1 dp a millisecond
    for (const double at : frames_ms) stage.advance(test::ms(at));
    stage.touch({.time = test::ms(150), .contact = 1, .phase = Phase::down, .at = {180, 370}});
    const Decision& got = stage.journal().decisions().back();
    REQUIRE(got.says(answers::owner_catches));  // the sheet is stopped under the finger
    return got.facts[3].value == 1 ? "note" : "beside it";
  };
  const std::string at_60 = hit({16, 33, 50, 66, 83, 100, 116, 133, 150});
  CHECK(at_60 == hit({}));
  CHECK(at_60 == hit({20}));
  CHECK(at_60 == hit({100, 149}));
  CHECK(at_60 == "note");
  CHECK(hit({100, 166}) == "note");  // a sample that came after a later frame
}

TEST_CASE("nothing is stuck and nothing throws, whatever comes in") {
  PROPERTY("wild streams between frames, writes and keys", [] {
    HoneySlider app(any_slider());
    for (const Sample& sample : *wild_stream()) {
      app.stage.touch(sample);
      switch (*rc::gen::inRange(0, 6)) {
        case 0:
          app.stage.advance(sample.time);
          break;
        case 1:
          app.frames.set(sample.at.x);
          break;
        case 2:
          app.stage.press(*rc::gen::element(Key::tab, Key::left, Key::end, Key::page_up), sample.time);
          break;
        default:
          break;
      }
    }
    app.stage.cancel_contacts();
    app.stage.advance(app.stage.now() + std::chrono::hours(1));
    RC_ASSERT(app.stage.settled());
    RC_ASSERT_FALSE(app.slider->pressed());
    RC_ASSERT(app.stage.open_contacts() == 0);
    RC_ASSERT(app.slider->position() >= 0.0 && app.slider->position() <= 10.0);
  });
}

TEST_CASE("touch and advance allocate nothing over 10,000 frames, journal on") {
  HoneySlider app({.step = 1, .transition = Spring::settling(ms(250), 0.2)});
  double heard = 0;
  const Watch watch = app.frames.watch([&](double v) { heard += v; });
  const std::size_t before = allocations();
  for (int frame = 0; frame < 10'000; ++frame) {
    const double t = frame * 16.0;
    const int phase = frame % 40;
    const Point at{100.0 + 5 * phase, 224};
    if (phase == 0)
      app.touch(t, Phase::down, at);
    else if (phase < 20)
      app.touch(t, Phase::move, at);
    else if (phase == 20)
      app.touch(t, Phase::up, at);
    else if (phase == 30)
      app.frames.set(3);
    app.stage.advance(ms(t + 8));
  }
  CHECK(allocations() == before);
  CHECK(heard > 0);
  CHECK(app.stage.journal().decisions().size() > 1000);
  CHECK(std::make_unique<int>(1) != nullptr);
  CHECK(allocations() > before);  // the counter counts
}

TEST_CASE("the topmost part gets the contact and keeps it: a second contact finds it taken") {
  HoneySlider app({.step = 1});
  Cell<double> other{0};
  auto& on_top = app.stage.add<Slider>("lid", {.x = 200, .y = 190, .w = 140, .h = 60}, {.value = other});
  app.touch(0, Phase::down, {210, 224});
  CHECK(on_top.pressed());
  CHECK_FALSE(app.slider->pressed());
  app.touch(10, Phase::move, {60, 500});
  CHECK(on_top.dragging());
  app.touch(20, Phase::down, {220, 224}, 2);  // the lid is taken, so what lies below gets it
  CHECK(app.slider->pressed());
  app.touch(30, Phase::down, {220, 224}, 3);
  CHECK(app.says(answers::owner_nobody));
  CHECK(app.stage.open_contacts() == 3);
}

TEST_CASE("a journal that is off keeps nothing, one that is full counts") {
  Journal off;
  off.record(ms(1), {"a"}, answers::at_rest, {7, "frames"});
  CHECK(off.decisions().empty());
  Journal one(1);
  one.record(ms(1), {"a"}, answers::at_rest, {7, "frames"});
  one.record(ms(2), {"a"}, answers::at_rest, {7, "frames"});
  CHECK(one.decisions().size() == 1);
  CHECK(one.lost() == 1);
}

TEST_CASE("a sample that comes after a later frame is good, at its own time") {
  HoneySlider early({.step = 1}), late({.step = 1});
  for (HoneySlider* app : {&early, &late}) {
    app->touch(0, Phase::down, {150, 224});
    if (app == &late) app->stage.advance(ms(16));
    app->touch(10, Phase::move, {200, 224});
    if (app == &late) app->stage.advance(ms(32));
    app->touch(20, Phase::up, {230, 224});
    app->settle();
  }
  CHECK(early.frames.get() == late.frames.get());
  CHECK(early.last(questions::rest)->time == late.last(questions::rest)->time);
}

TEST_CASE("what is due next is the earliest of all parts, whatever moves, stops and starts") {
  PROPERTY("many sliders, written at any times", [] {
    constexpr int many = 23;
    Stage stage({.width = 4000});
    std::vector<Cell<double>> cells(many);
    std::vector<Slider*> parts;
    for (int i = 0; i < many; ++i)
      parts.push_back(
          &stage.add<Slider>("s" + std::to_string(i), {150.0 * i, 0, 140, 40},
                             {.value = cells[static_cast<std::size_t>(i)],
                              .transition = Transition(Timed{Curve{}, ms(*rc::gen::inRange(20, 900))})}));
    Micros now{0};
    for (int round = 0; round < 30; ++round) {
      for (int writes = *rc::gen::inRange(0, 5); writes > 0; --writes)
        cells[static_cast<std::size_t>(*rc::gen::inRange(0, many))].set(*number(0, 1));
      stage.advance(now);
      Micros earliest = never;
      for (const Slider* part : parts) earliest = std::min(earliest, part->due());
      RC_ASSERT(stage.due() == earliest);
      RC_ASSERT(earliest == never || earliest > now);
      now = *rc::gen::arbitrary<bool>() && earliest != never ? earliest : now + ms(*rc::gen::inRange(1, 400));
    }
  });
}

TEST_CASE("what nobody used is not said to have been used") {
  Stage stage;
  Cell<double> value{0};
  Slider& slider = stage.add<Slider>("frames", {0, 0, 200, 40}, {.value = value});
  CHECK_FALSE(stage.back(ms(0)));
  CHECK_FALSE(stage.press(Key::escape, ms(1)));
  CHECK_FALSE(stage.act(slider, "open", ms(2)));
  CHECK(stage.act(slider, "increase", ms(3)));
}

TEST_CASE("an app's timers and movers run on the stage's clock, whatever the frames are") {
  for (const double fps : {0.0, 60.0}) {
    Stage stage;
    int woken = 0;
    stage.on_wake([&] { ++woken; });
    stage.advance(ms(0));
    std::vector<double> rang;
    stage.call_at(ms(300), [&] { rang.push_back(to_ms(stage.now())); });
    const TimerId never_rings = stage.call_after(ms(200), [&] { rang.push_back(-1); });
    stage.call_after(ms(100), [&] {
      rang.push_back(to_ms(stage.now()));
      stage.call_after(ms(50), [&] { rang.push_back(to_ms(stage.now())); });
    });
    CHECK(woken > 0);
    CHECK(stage.due() == ms(100));
    CHECK(stage.cancel(never_rings));
    CHECK_FALSE(stage.cancel(never_rings));
    {
      Clocked<Mover> lift(stage.own(), 0.0);
      stage.at(ms(10), [&] { lift.send(100, Timed{Curve{}, ms(1000)}, ms(10)); });
      CHECK_FALSE(stage.settled());
      for (double t = 10; fps > 0 && t < 900; t += 1000 / fps) stage.advance(ms(t));
      stage.advance(ms(900));
      CHECK(rang == std::vector<double>{100, 150, 300});
      CHECK_FALSE(stage.settled());
      stage.advance(ms(1010));
      CHECK(lift.value() == 100);
      CHECK(stage.settled());
    }
    // What is asked for while the stage is at work wakes nobody.
    stage.call_at(ms(1100), [&] {
      const int before = woken;
      stage.call_after(ms(50), [] {});
      CHECK(woken == before);
    });
    stage.advance(ms(1200));
    CHECK(stage.settled());
  }
}

TEST_CASE("of an app's movers any may go, in any order, and the others move on") {
  PROPERTY("three movers", [] {
    Stage stage;
    stage.advance(ms(0));
    std::vector<std::unique_ptr<Clocked<Mover>>> all;
    for (int i = 0; i < 3; ++i) all.push_back(std::make_unique<Clocked<Mover>>(stage.own(), 0.0));
    stage.at(ms(10), [&] {
      for (const auto& one : all) one->send(100, Timed{Curve{}, ms(100)}, ms(10));
    });
    all.erase(all.begin() + *rc::gen::inRange(0, 3));
    stage.advance(ms(60));
    for (const auto& one : all) RC_ASSERT(std::fabs(one->at(stage.now()).value - 50) < 1e-9);
    all.erase(all.begin() + *rc::gen::inRange(0, 2));
    all.push_back(std::make_unique<Clocked<Mover>>(stage.own(), 7.0));
    stage.at(ms(70), [] {});
    RC_ASSERT(stage.due() == ms(110));
    stage.advance(ms(120));
    RC_ASSERT(all.front()->value() == 100);
    RC_ASSERT(all.back()->value() == 7);
    all.clear();
    stage.at(ms(130), [] {});
    RC_ASSERT(stage.settled());
    RC_ASSERT(stage.due() == never);
  });
}

namespace {

// A part that is due at once, for ever.
struct RestlessSettings {};

class Restless final : public Part {
 public:
  using Settings = RestlessSettings;
  Restless(std::string id, const Box& box, RestlessSettings, Context& context)
      : Part(std::move(id), box, context) {}
  [[nodiscard]] const PartKind& kind() const override {
    static const PartKind kind{.name = "restless"};
    return kind;
  }
  bool capture(const Contact&, const Sample&) override { return true; }

 private:
  struct Always final : TimedMember {
    using TimedMember::TimedMember;
    void add_timing(Timing& timing) const override { timing.add({.due = ms(100)}); }
  } always_{*this};
};

}  // namespace

TEST_CASE("a part that is due again and again is named, and takes nobody else's time") {
  Stage stage({.journal = 100});
  Cell<double> value{0};
  stage.add<Restless>("restless", {0, 0, 100, 100}, {});
  auto& slider = stage.add<Slider>("s", {40, 200, 280, 48}, {.value = value});
  stage.advance(ms(0));
  value.set(1);
  stage.advance(ms(10));
  stage.advance(ms(5000));
  CHECK(slider.position() == 1);
  CHECK(stage.due() == never);
  std::size_t named = 0;
  for (const Decision& decision : stage.journal().decisions()) {
    named += decision.says(answers::due_again) && decision.part.view() == "restless" ? 1U : 0U;
    CHECK_FALSE(decision.says(answers::callbacks_endless));
  }
  CHECK(named == 1);
}
