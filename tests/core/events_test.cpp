// Every event has a time of its own, and what is called inside a callback waits for the end of the event.
#include <stdexcept>

#include "crowd.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("a write to a stage that slept begins when it is next told the time, and wakes the app") {
  HoneySlider app;
  int woken = 0;
  app.stage.on_wake([&] { ++woken; });
  Cell<double> stores{0};
  app.stage.add<Slider>("stores", {40, 300, 280, 48}, {.value = stores});
  app.stage.advance(ms(0));
  app.stage.advance(ms(96));
  REQUIRE(app.stage.settled());
  app.frames.set(9);
  app.frames.set(8);
  stores.set(1);  // of another part: it is awake already
  CHECK(woken == 1);
  CHECK_FALSE(app.stage.settled());
  app.stage.advance(ms(5000));
  CHECK(app.slider->position() == 4);  // it sets off now, not in the past
  app.stage.advance(ms(5050));
  CHECK((app.slider->position() > 4 && app.slider->position() < 8));
  app.settle();
  CHECK(app.slider->position() == 8);
  app.frames.set(2);
  CHECK(woken == 2);
  // As the app asks, at a time or without motion.
  app.stage.at(app.stage.now(), [&] { app.stage.immediately([&] { app.frames.set(1); }); });
  CHECK(app.slider->position() == 1);
  CHECK(app.stage.settled());
}

TEST_CASE(
    "two surfaces on one cell: a write on their way is heard, and who leads does not hang on the frames") {
  for (const double frame : {7.0, 16.0, 2000.0}) {
    Cell<double> height{0};
    Stage stage;
    auto& sheet = stage.add<Pane>("sheet", {0, 200, 360, 520}, {.offset = height, .min = -100, .max = 300});
    auto& shade = stage.add<Pane>("shade", {300, 0, 60, 60}, {.offset = height, .min = 0, .max = 300});
    const auto frames_to = [&](double end) {
      for (double t = to_ms(stage.now()) + frame; t < end; t += frame) stage.advance(ms(t));
      stage.advance(ms(end));
    };
    stage.advance(ms(0));
    height.set(300);
    stage.advance(ms(1));
    frames_to(100);
    CHECK((sheet.offset() > 0 && sheet.offset() < 300));
    CHECK(shade.offset() == sheet.offset());
    const double before = sheet.offset();
    height.set(50);
    stage.advance(ms(105));
    CHECK(sheet.offset() > before);  // it goes on up to the time from which it hears of that
    CHECK(sheet.target() == 50);
    frames_to(1000);
    CHECK(sheet.offset() == 50);
    CHECK(shade.offset() == 50);
    // A mere press holds a surface only against itself.
    stage.touch({.time = ms(1000), .contact = 1, .phase = Phase::down, .at = {100, 400}});
    stage.at(ms(1010), [&] { height.set(200); });
    frames_to(1100);
    CHECK(sheet.offset() == shade.offset());
    stage.touch({.time = ms(1100), .contact = 1, .phase = Phase::up, .at = {100, 400}});
    frames_to(3000);
    CHECK(height.get() == 200);
    CHECK(sheet.offset() == 200);
  }
}

TEST_CASE("a key counts when it was pressed, whatever the frames") {
  std::vector<Micros> rests;
  for (const double frame : {16.0, 33.0}) {
    HoneySlider app({.step = 1});
    app.stage.focus("frames");
    for (double t = 0; t < 77; t += frame) app.stage.advance(ms(t));
    app.stage.press(Key::right, ms(77));
    app.settle();
    rests.push_back(app.last(questions::rest)->time);
  }
  CHECK(rests[0] == rests[1]);
}

TEST_CASE("what moves for ever is neither at rest nor due, and is met where it is") {
  Cell<double> seen{0};
  Stage stage;
  auto& lamp = stage.add<Lamp>("lamp", {0, 0, 40, 40}, {.seen = seen});
  stage.advance(ms(0));
  CHECK_FALSE(stage.settled());
  CHECK(stage.due() == never);
  stage.advance(ms(100));
  stage.touch({.time = ms(250), .contact = 1, .phase = Phase::down, .at = {20, 20}});
  CHECK(seen.get() == lamp.brightness());
  const double then = seen.get();
  stage.advance(ms(300));
  CHECK(lamp.brightness() != then);
}

TEST_CASE("callbacks that write, limit and take back: cell and part agree after every event") {
  // On rest the app writes another place.
  HoneySlider app;
  app.stage.change(*app.slider, [&](SliderSettings& s) { s.on_rest = [&](double) { app.frames.set(0); }; });
  app.swipe(0, {154, 224}, {250, 224});
  app.settle();
  app.settle();
  CHECK(app.frames.get() == 0);
  CHECK(app.slider->position() == 0);

  // A watcher limits a pane at its release.
  Cell<double> scrolled{0};
  Stage stage;
  auto& list = stage.add<Pane>("list", {0, 0, 360, 720}, {.offset = scrolled, .min = -1000, .max = 0});
  const Watch limit = scrolled.watch([&](double v) { scrolled.set(std::max(v, -100.0)); });
  for (int i = 0; i <= 20; ++i)
    stage.touch({.time = ms(8 * i),
                 .contact = 1,
                 .phase = i == 0   ? Phase::down
                          : i < 20 ? Phase::move
                                   : Phase::up,
                 .at = {100, 600.0 - 15 * i}});
  settle(stage);
  CHECK(scrolled.get() == -100);
  CHECK(list.offset() == -100);
}

TEST_CASE("touch, press, cancel and changes of the stage inside callbacks wait, and nothing stays stuck") {
  Stage stage{{.journal = 1000}};
  Cell<double> value{0};
  auto& slider = stage.add<Slider>("s", {0, 300, 360, 40}, {.value = value});
  int calls = 0;
  stage.add<Pad>("pad", {0, 0, 360, 200}, {.on_gesture = [&](const Gesture& g) {
                   if (++calls > 50) return;
                   if (g.step == GesturePhase::withdrawn) {
                     stage.cancel_contacts();
                     stage.touch({.time = g.time, .contact = 9, .phase = Phase::down, .at = {100, 320}});
                     stage.touch({.time = g.time, .contact = 9, .phase = Phase::up, .at = {100, 320}});
                     CHECK_FALSE(stage.press(Key::tab, g.time));
                     stage.hide(slider);
                     stage.advance(g.time + ms(5000));
                   }
                 }});
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {100, 100}});
  stage.touch({.time = ms(20), .contact = 1, .phase = Phase::move, .at = {140, 100}});
  CHECK(calls < 10);
  CHECK(stage.open_contacts() == 0);
  CHECK(stage.now() == ms(5020));
  CHECK(stage.settled());
  CHECK(value.get() > 0.1);  // the tap from inside came before the hiding
  CHECK_FALSE(slider.visible());

  // Gestures on their own: withdrawn from inside their own news.
  Gestures* self = nullptr;
  int told = 0;
  Gestures alone({}, {}, [&](const Gesture&) {
    if (++told < 100) self->withdraw(ms(1));
  });
  self = &alone;
  Contacts contacts;
  const auto down = contacts.admit({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {9, 9}});
  alone.touch(*down.contact, down.contact->seen, {}, {});
  CHECK(told == 2);
  CHECK_FALSE(alone.pressed());
}

TEST_CASE("an app may fill its one sample anew in a callback that the sample itself led to") {
  Cell<double> frames{4}, other{4};
  Stage stage;
  Sample sample{.time = ms(0), .contact = 1, .phase = Phase::down, .at = {150, 224}};
  stage.add<Slider>("moves", {40, 100, 280, 48},
                    {.value = other, .to = 10, .on_rest = [&](double) {
                       sample = {.time = ms(1), .contact = 9, .phase = Phase::cancel, .at = {-9, -9}};
                     }});
  auto& slider = stage.add<Slider>("frames", {40, 200, 280, 48}, {.value = frames, .to = 10});
  stage.advance(ms(0));
  stage.at(ms(10), [&] { other.set(8); });
  sample.time = ms(5000);  // by then the other has come to rest, of which this call learns first
  CHECK(stage.touch(sample));
  CHECK(sample.contact == 9);
  CHECK(slider.pressed());
  CHECK(stage.now() == ms(5000));
}

TEST_CASE("a watcher that adds and removes parts, or throws, leaves the stage sound") {
  Stage stage;
  Cell<double> value{0};
  stage.add<Slider>("s", {0, 0, 360, 40}, {.value = value});
  int added = 0;
  const Watch adds = value.watch([&](double v) {
    for (int i = 0; i < 40; ++i) stage.add<Pad>("pad" + std::to_string(added++), {0, 200, 50, 50}, {});
    if (v > 0.5) stage.remove(*stage.find("s"));
  });
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {14, 20}});
  for (int i = 1; i < 30; ++i)
    stage.touch({.time = ms(8 * i), .contact = 1, .phase = Phase::move, .at = {14.0 + 10 * i, 20}});
  CHECK(stage.find("s") == nullptr);
  CHECK(stage.parts().size() == static_cast<std::size_t>(added));
  stage.touch({.time = ms(300), .contact = 1, .phase = Phase::up, .at = {300, 20}});
  settle(stage);
  CHECK(stage.settled());

  HoneySlider app;
  const Watch throws = app.frames.watch([](double v) {
    if (v > 8) throw std::runtime_error("no more than 8");
  });
  CHECK_THROWS_WITH(app.swipe(0, {154, 224}, {300, 224}), "no more than 8");
  CHECK_NOTHROW(app.touch(500, Phase::move, {154, 224}));
  CHECK_NOTHROW(app.touch(520, Phase::up, {154, 224}));
  app.settle();
  CHECK(app.stage.settled());
  CHECK(app.frames.get() == app.slider->value());
}

TEST_CASE("no sample's clock freezes the stage") {
  HoneySlider app;
  app.stage.advance(ms(0));
  app.stage.at(ms(0), [&] { app.frames.set(9); });
  app.stage.advance(ms(20));
  app.touch(5e9, Phase::down, {154, 224});  // 57 days ahead while the thumb moves: dropped
  CHECK(app.stage.open_contacts() == 0);
  const double before = app.slider->position();
  app.stage.advance(ms(60));
  CHECK(app.slider->position() > before);
  app.settle();
  CHECK(app.slider->position() == 9);
  // While nothing moves it could be true; the next frames show that it was not.
  app.touch(5e9, Phase::down, {154, 224});
  app.touch(5e9 + 50, Phase::up, {200, 224});
  double t = 30'000;
  app.stage.at(ms(t), [&] { app.frames.set(1); });
  for (int i = 0; i < 60; ++i) app.stage.advance(ms(t += 16));
  CHECK(app.slider->position() == 1);
}

TEST_CASE(
    "while something moves, a lift or cancel with a clock far ahead ends its contact, and a move does "
    "nothing") {
  for (const auto& [phase, left] : {std::pair{Phase::up, 0U}, {Phase::cancel, 0U}, {Phase::move, 1U}}) {
    HoneySlider app;
    Pad& pad = app.stage.add<Pad>("pad", {0, 400, 360, 100}, {});
    app.stage.at(ms(0), [&] { app.frames.set(9); });
    app.touch(20, Phase::down, {154, 450});
    app.stage.advance(ms(20));
    REQUIRE((pad.held() && !app.stage.settled()));
    app.touch(5e9, phase, {180, 450});
    CHECK(app.stage.open_contacts() == left);
    CHECK(app.stage.now() == ms(20));
  }
}

TEST_CASE("times as long as there are any do not overflow, and no velocity is infinite") {
  Mover mover(0);
  mover.send(5, Timed{Curve{}, never}, ms(0));
  mover.advance(ms(1e12));
  CHECK(std::isfinite(mover.value()));
  mover.send(5, Transition(Spring::settling(ms(100), 0), never), ms(0));
  mover.advance(farthest_time);
  CHECK(std::isfinite(mover.value()));
  // A curve that stands upright, then a spring; and what is no number at all.
  for (const double at : {0.0, 0.001, 299.999, 300.0}) {
    Mover upright(0);
    upright.send(300, Timed{Curve::family(Family::circ, Ease::out), ms(300)}, ms(0));
    upright.advance(ms(at));
    CHECK(std::isfinite(upright.velocity()));
    upright.send(0, Spring::settling(ms(200), 0.3), ms(at));
    for (int i = 1; i < 400; ++i) {
      upright.advance(ms(at + i));
      CHECK((std::isfinite(upright.value()) && std::fabs(upright.value()) < 1e6));
    }
    CHECK(upright.value() == 0);
  }
  Mover sound(3);
  sound.send(9, Spring::settling(ms(200), 0), ms(0), HUGE_VAL);
  sound.advance(ms(50));
  CHECK(std::isfinite(sound.value()));
  sound.put(std::nan(""));
  sound.send(std::nan(""), ms(60));
  sound.coast(Coast::half_life(ms(50)), ms(60), HUGE_VAL);
  sound.advance(ms(5000));
  CHECK(sound.value() == 9);
  Timeline timeline;
  const auto track = timeline.add_track("x", 0);
  timeline.cue(track, 1, Timed{Curve::family(Family::circ, Ease::in), ms(300)});
  timeline.cue(track, 0, Spring::settling(ms(300), 0.2), Place::with(Micros{299'999}));
  for (int i = 0; i < 900; ++i) CHECK(std::fabs(timeline.at(track, ms(i)).value) < 1e4);
  // A spring over a long way comes to rest as near as one over a short.
  Stage stage;
  Cell<double> height{0};
  auto& sheet = stage.add<Pane>("sheet", {0, 0, 360, 720}, {.offset = height, .min = 0, .max = 7000});
  stage.at(ms(0), [&] { height.set(7000); });
  stage.advance(stage.due() - Micros{1});
  CHECK(std::fabs(sheet.offset() - 7000) < 0.06);
}

TEST_CASE("a callback that throws keeps nobody from being told, and passes out of the call in the end") {
  Stage stage;
  Cell<double> value{0};
  int rests = 0, shown = 0;
  auto& tray =
      stage.add<ToastTray>("t", {20, 620, 320, 60}, {.time = ms(500), .on_show = [&](const std::string&) {
                                                       ++shown;
                                                       throw std::runtime_error("shown");
                                                     }});
  stage.add<Slider>("s", {40, 100, 280, 40}, {.value = value, .on_rest = [&](double) { ++rests; }});
  stage.advance(ms(0));
  CHECK_THROWS_WITH(tray.show("one"), "shown");
  for (const char* words : {"two", "three"}) CHECK_NOTHROW(tray.show(words));
  stage.at(ms(100), [&] { value.set(1); });
  for (int i = 0; i < 8; ++i) {
    try {
      stage.advance(ms(20'000));
    } catch (const std::runtime_error&) {
    }
  }
  CHECK(shown == 3);
  CHECK(rests == 1);
  CHECK(tray.absent());
  CHECK(stage.settled());
}

TEST_CASE("moments that a hand should feel are told once each, at their own time") {
  Stage stage;
  std::vector<std::pair<std::string, double>> felt;
  stage.on_moment([&](const Moment& moment) { felt.emplace_back(name_of(moment.kind), to_ms(moment.time)); });
  Cell<double> frames{4};
  stage.add<Slider>("s", {40, 200, 280, 48}, {.value = frames, .to = 10, .step = 1});
  stage.advance(ms(0));
  drag(stage, 0, {154, 224}, {154 + 8 + 2 * HoneySlider::dp_per_frame, 224}, 100);
  settle(stage);
  std::string names;
  for (const auto& [name, time] : felt) names += name + ", ";
  CHECK(names == "threshold crossed, step passed, step passed, snapped, ");
  felt.clear();
  drag(stage, 30'000, {204, 224}, {600, 224}, 100);
  settle(stage);
  CHECK(std::count_if(felt.begin(), felt.end(), [](const auto& one) { return one.first == "end reached"; }) ==
        1);
  // What is sent elsewhere on its way has not been let go there.
  Part& slider = *stage.find("s");
  const std::function<void(Micros)> ways[]{
      [&](Micros at) { stage.focus("s"), stage.press(Key::left, at); },
      [&](Micros at) { CHECK(stage.act(slider, "decrease", at)); },
      [&](Micros at) { stage.at(at, [&] { frames.set(2); }); },
      [&](Micros at) { stage.at(at, [&] { stage.immediately([&] { frames.set(3); }); }); }, [&](Micros) {}};
  for (double t = 60'000; const auto& way : ways) {
    stage.at(ms(t - 20'000), [&] { stage.immediately([&] { frames.set(8); }); });
    drag(stage, t, {204, 224}, {150, 224}, 100);
    felt.clear();
    REQUIRE_FALSE(stage.settled());
    way(ms(t + 220));
    settle(stage);
    stage.focus("s");
    stage.press(Key::right, ms(t + 10'000));
    settle(stage);
    CHECK(felt.size() == (&way == std::end(ways) - 1 ? 1 : 0));
    t += 60'000;
  }
}
