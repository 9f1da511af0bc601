#include <tuple>

#include "streams.hpp"
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("what a slider and a pane are made of: words to two decimals, labels inside their part") {
  Cell<double> value{3.14159}, offset{0};
  Stage stage;
  auto& slider = stage.add<Slider>("slider", {20, 100, 320, 40}, {.value = value, .to = 10});
  auto& pane = stage.add<Pane>("pane", {20, 300, 320, 200}, {.label = "hives", .offset = offset});
  const auto words = [](const Part& part, Role role) {
    std::vector<std::pair<std::string, Box>> found;
    pieces_of(part, [&](const Piece& piece) {
      if (piece.role == role && !piece.words.empty()) found.emplace_back(piece.words, piece.box);
    });
    return found;
  };
  for (const auto& [number, shown] :
       {std::pair{3.14159, "3.14"}, {2.0, "2"}, {9.999, "10"}, {0.125, "0.13"}}) {
    stage.immediately([&, to = number] { value.set(to); });
    stage.advance(stage.now() + ms(1));
    REQUIRE(words(slider, Role::handle).size() == 1);
    CHECK(words(slider, Role::handle)[0].first == shown);
  }
  const auto label = words(pane, Role::label);
  REQUIRE(label.size() == 1);
  CHECK(label[0].second.x >= 20);
  CHECK(label[0].second.right() <= 340);
}

TEST_CASE("from finger to cell: a drag, its decisions, and where it lands") {
  HoneySlider app({.step = 1});
  REQUIRE(app.slider->thumb() == Point{154.8, 224});
  app.swipe(0, {150, 220}, {150 + 73.52, 220});
  // 73.52 dp less the threshold of 8 are 2.6 frames: 6.6.
  CHECK(app.slider->position() == Approx(6.6));
  CHECK(app.frames.get() == 7);
  CHECK_FALSE(app.stage.settled());
  app.settle();
  CHECK(app.slider->position() == 7.0);
  CHECK(app.slider->thumb().x == Approx(54 + 7 * 25.2));
  CHECK(app.slider->fill().w == Approx(7 * 25.2));
  CHECK(app.slider->fraction() == 0.7);
  CHECK(app.slider->accessible().value_now == 7);
  CHECK(app.stage.settled());

  const Decision* drag = app.last(questions::drag);
  REQUIRE(drag != nullptr);
  CHECK(drag->time == ms(20));
  CHECK(drag->facts[0].value == Approx(14.704));
  CHECK(drag->facts[0].limit == 8);
  CHECK(drag->facts[0].margin == Approx(6.704));
  const Decision* landing = app.last(questions::landing);
  REQUIRE(landing != nullptr);
  CHECK(landing->says(answers::land_nearest));
  CHECK(landing->facts[0].value == Approx(6.6));
  CHECK(landing->facts[1].value == 7);
  CHECK(landing->facts[3].margin == Approx(0.2));
  CHECK(app.last(questions::rest)->time > ms(200));
  CHECK(app.last(questions::rest)->time <= ms(200) + ms(250));
}

TEST_CASE("the thumb never moves further than the finger, and never leaves its track") {
  PROPERTY("any touches", [] {
    SliderSettings settings = any_slider();
    HoneySlider app(
        settings, {.feel = {.drag_threshold = *number(0, 40)}, .right_to_left = *rc::gen::arbitrary<bool>()});
    Point finger{};
    for (const Sample& sample : gestures()) {
      app.stage.advance(sample.time);
      const bool held = app.slider->pressed();
      const Point before = app.slider->thumb();
      app.stage.touch(sample);
      if (held && sample.phase == Phase::move)
        RC_ASSERT(length(app.slider->thumb() - before) <= length(sample.at - finger) + 1e-9);
      // Nothing but a move displaces it at once, save for the last twentieth of a dp into its place.
      if (sample.phase != Phase::move && (app.slider->due() != never || sample.phase == Phase::down))
        RC_ASSERT(length(app.slider->thumb() - before) < 0.051);
      finger = sample.at;
      RC_ASSERT(app.slider->position() >= 0.0 && app.slider->position() <= 10.0);
    }
    app.settle();
    RC_ASSERT(app.stage.settled());
    // What the app wrote between two steps means the nearest.
    const SnapPoints& snaps = app.slider->snaps();
    const double written = app.frames.get();
    RC_ASSERT((snaps.empty() ? written : snaps.at(snaps.nearest(written))) == app.slider->value());
    RC_ASSERT(app.slider->position() == app.slider->target());
  });
}

TEST_CASE("right-to-left is the mirror image") {
  PROPERTY("mirrored touches give the same values", [] {
    SliderSettings settings = any_slider();
    settings.axis = Axis::horizontal;
    HoneySlider plain(settings), mirrored(settings, {.right_to_left = true});
    for (Sample sample : gestures()) {
      plain.stage.touch(sample);
      sample.at.x = 360 - sample.at.x;
      mirrored.stage.touch(sample);
      RC_ASSERT(std::fabs(plain.slider->position() - mirrored.slider->position()) < 1e-6);
    }
    RC_ASSERT(std::fabs(plain.slider->thumb().x - (360 - mirrored.slider->thumb().x)) < 1e-4);
  });
}

TEST_CASE("a tap on the track travels there: on the thumb, or when it is turned off, it does not") {
  HoneySlider app({.step = 1});
  app.tap(0, {54 + 25.2 * 8.9, 230});
  CHECK(app.frames.get() == 9);
  CHECK(app.slider->position() == 4.0);
  app.settle();
  CHECK(app.slider->position() == 9.0);
  app.tap(30'000, app.slider->thumb() + Point{10, 5});
  app.settle();
  CHECK(app.frames.get() == 9);
  app.tap(40'000, app.slider->thumb() - Point{24, 0});  // the last place that still is the thumb's
  app.settle();
  CHECK(app.frames.get() == 9);
  // A press that strays past the tap reach across the track is neither tap nor drag.
  app.swipe(60'000, {100, 210}, {102, 246});
  CHECK(app.says(answers::tap_strayed));
  CHECK(app.frames.get() == 9);

  HoneySlider fixed({.step = 1, .grab = Grab::thumb, .tap_moves = false});
  fixed.tap(0, {290, 224});
  fixed.swipe(1000, {290, 224}, {200, 224});
  CHECK(fixed.frames.get() == 4);
  fixed.swipe(2000, {150, 224}, {250, 224});
  CHECK(fixed.frames.get() == 8);
}

TEST_CASE("a press beside the thumb that goes just as far as a drag says that it was not on the thumb") {
  HoneySlider app({.grab = Grab::thumb, .tap_moves = false});
  const double far = app.stage.feel().drag_threshold;
  app.swipe(0, {290, 224}, {290 - far, 224}, 2000);
  CHECK(app.says(answers::drag_off_handle));
  app.swipe(5000, {290, 224}, {290 - far + 0.01, 224}, 2000);
  CHECK(app.says(answers::drag_too_short));
}

TEST_CASE("the cell follows the finger, or hears of the place only when the thumb is at rest") {
  for (const UpdateWhen update_when : {UpdateWhen::dragging, UpdateWhen::at_rest}) {
    HoneySlider app({.step = 1, .update_when = update_when});
    std::vector<double> heard;
    const Watch watch = app.frames.watch([&](double v) { heard.push_back(v); });
    app.swipe(0, {150, 224}, {230, 224});
    app.settle();
    CHECK(heard ==
          (update_when == UpdateWhen::dragging ? std::vector<double>{5, 6, 7} : std::vector<double>{7}));
    heard.clear();
    app.touch(30'000, Phase::down, {230, 224});
    app.touch(30'010, Phase::move, {130, 224});
    app.touch(30'020, Phase::cancel, {130, 224});
    app.settle();
    CHECK(app.slider->position() == 7.0);
    CHECK(heard == (update_when == UpdateWhen::dragging ? std::vector<double>{3, 7} : std::vector<double>{}));
  }
}

TEST_CASE("the app's writes: at rest, out of range, no number, and during a drag") {
  HoneySlider app({.step = 1});
  app.frames.set(2);
  CHECK_FALSE(app.stage.settled());
  CHECK(app.slider->target() == 4.0);  // it happens when the stage is told the time
  app.stage.advance(ms(0));
  CHECK(app.slider->target() == 2.0);
  CHECK(app.slider->position() == 4.0);
  app.settle();
  CHECK(app.slider->position() == 2.0);
  app.frames.set(14);
  app.settle();
  CHECK(app.slider->position() == 10.0);
  CHECK(app.frames.get() == 14);  // the cell is the app's
  app.frames.set(std::nan(""));
  app.settle();
  CHECK(app.slider->position() == 10.0);
  app.frames.set(3.7);  // between steps: the part shows the nearest, the cell is the app's
  app.settle();
  CHECK(app.slider->value() == 4);
  CHECK(app.frames.get() == 3.7);

  // The finger keeps the thumb; the write waits for the lift, and counts as the last that was asked.
  for (const Phase end : {Phase::up, Phase::cancel}) {
    app.frames.set(4);
    app.settle();
    const double t = to_ms(app.stage.now());
    app.touch(t, Phase::down, {150, 224});
    app.touch(t + 10, Phase::move, {200, 224});
    const double held = app.slider->position();
    app.frames.set(1);
    app.stage.advance(ms(t + 11));
    CHECK(app.slider->position() == held);
    CHECK(app.says(answers::write_waits));
    app.touch(t + 200, end, {200, 224});
    app.settle();
    CHECK(app.slider->position() == 1.0);
    CHECK(app.frames.get() == app.slider->position());
  }

  // A watcher of the app's that will not have more than 5.
  const Watch limit = app.frames.watch([&](double v) { app.frames.set(std::min(v, 5.0)); });
  app.tap(to_ms(app.stage.now()), {300, 224});
  app.settle();
  CHECK(app.frames.get() == 5);
  CHECK(app.slider->position() == 5.0);
}

TEST_CASE("a grab stops the thumb under the finger: a press that comes to nothing lets it go on") {
  HoneySlider app({.step = 1});
  app.stage.advance(ms(0));
  app.frames.set(10);
  app.stage.advance(ms(0));
  app.stage.advance(ms(60));
  const double under_way = app.slider->position();
  REQUIRE(under_way > 4.0);
  REQUIRE(under_way < 10.0);
  app.touch(60, Phase::down, app.slider->thumb());
  app.stage.advance(ms(500));
  CHECK(app.slider->position() == under_way);
  app.touch(600, Phase::up, app.slider->thumb());
  app.settle();
  CHECK(app.slider->position() == 10.0);
}

TEST_CASE("keys, as the ARIA slider practice names them") {
  struct Case {
    Key key;
    double left_to_right, right_to_left;
  };
  for (const Case c : {Case{Key::right, 5, 3},
                       {Key::left, 3, 5},
                       {Key::up, 5, 5},
                       {Key::down, 3, 3},
                       {Key::page_up, 6, 6},
                       {Key::page_down, 2, 2},
                       {Key::home, 0, 0},
                       {Key::end, 10, 10}}) {
    for (const bool mirrored : {false, true}) {
      HoneySlider app({.step = 1, .large_step = 2}, {.right_to_left = mirrored});
      CHECK_FALSE(app.stage.press(c.key, ms(0)));  // nothing has the focus yet
      CHECK(app.stage.press(Key::tab, ms(0)));
      CHECK(app.stage.press(c.key, ms(1)));
      app.settle();
      CHECK(app.frames.get() == (mirrored ? c.right_to_left : c.left_to_right));
    }
  }
  HoneySlider app({.step = 1});
  CHECK(app.stage.focus("frames"));
  for (int i = 0; i < 30; ++i) app.stage.press(Key::right, ms(i));
  CHECK(app.frames.get() == 10);
  CHECK_FALSE(app.stage.press(Key::tab, ms(40)));  // past the last part the focus leaves
  CHECK(app.stage.focused() == nullptr);
  CHECK_FALSE(app.stage.focus("fraames"));
}

TEST_CASE("upright, it grows upwards: a throw counts when it is set to") {
  Cell<double> depth{0};
  Stage stage;
  auto& slider =
      stage.add<Slider>("depth", {.x = 0, .y = 100, .w = 40, .h = 228},
                        {.value = depth, .to = 100, .axis = Axis::vertical, .projection_time = ms(100)});
  CHECK(slider.place_of(0) == Point{20, 314});
  CHECK(slider.place_of(100) == Point{20, 114});
  stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = {20, 314}});
  for (int i = 1; i <= 10; ++i)
    stage.touch({.time = ms(10 * i), .contact = 1, .phase = Phase::move, .at = {20, 314 - 4.8 * i}});
  stage.touch({.time = ms(100), .contact = 1, .phase = Phase::up, .at = {20, 266}});
  // 40 dp past the threshold are 20; 480 dp/s for 100 ms are 24 more.
  CHECK(depth.get() == Approx(44));
  CHECK(slider.accessible().orientation == "vertical");
}

TEST_CASE("bad settings are refused with what they take") {
  Cell<double> value{0};
  Stage stage;
  const Box box{.w = 200, .h = 40};
  CHECK_THROWS_WITH(stage.add<Slider>("a", box, {}), Catch::Contains("'a'") && Catch::Contains("not linked"));
  CHECK_THROWS_WITH(stage.add<Slider>("a", box, {.value = value, .step = -1}), Catch::Contains("step = -1"));
  CHECK_THROWS_WITH(stage.add<Slider>("a", box, {.value = value, .from = 1}),
                    Catch::Contains("more than from = 1"));
  CHECK_THROWS_WITH(stage.add<Slider>("a", {.w = 20, .h = 20}, {.value = value}), Catch::Contains("no room"));
  CHECK_THROWS_WITH(stage.add<Slider>("", box, {.value = value}), Catch::Contains("id"));
  stage.add<Slider>("a", box, {.value = value});
  CHECK_THROWS_WITH(stage.add<Slider>("a", box, {.value = value}), Catch::Contains("already"));
  CHECK(stage.parts().size() == 1);
}

TEST_CASE("less motion: by the stage or by the part, and a finger is followed all the same") {
  struct Case {
    Reduced stage;
    PartReduced part;
    Reduced counts;
  };
  for (const Case& c : {Case{Reduced::fade, PartReduced::as_screen, Reduced::fade},
                        {Reduced::still, PartReduced::as_screen, Reduced::still},
                        {Reduced::full, PartReduced::fade, Reduced::fade},
                        {Reduced::still, PartReduced::full, Reduced::full}}) {
    HoneySlider app({.step = 1, .transition = Spring::settling(ms(900), 0.3), .reduced_motion = c.part},
                    {.reduced_motion = c.stage});
    app.stage.advance(ms(0));
    app.frames.set(9);
    app.stage.advance(ms(0));
    app.stage.advance(ms(50));
    CAPTURE(static_cast<int>(c.stage), static_cast<int>(c.part));
    switch (c.counts) {
      case Reduced::full:
        CHECK((app.slider->position() > 4 && app.slider->thumb_opacity() == 1.0));
        break;
      case Reduced::fade:
        CHECK((app.slider->position() == 4 && app.slider->thumb_opacity() == Approx(0.5)));
        app.stage.advance(ms(150));
        CHECK((app.slider->position() == 9 && app.slider->thumb_opacity() == Approx(0.5)));
        break;
      case Reduced::still:
        CHECK((app.slider->position() == 9 && app.slider->settled()));
    }
    app.settle();
    CHECK(app.slider->position() == 9);
    CHECK(app.slider->thumb_opacity() == 1.0);
    const double now = to_ms(app.stage.now());
    app.touch(now, Phase::down, app.slider->thumb());
    app.touch(now + 10, Phase::move, app.slider->thumb() - Point{60, 0});
    app.touch(now + 20, Phase::move, app.slider->thumb() - Point{60, 0});
    CHECK(app.slider->position() < 8);
    CHECK(app.slider->thumb_opacity() == 1.0);
  }
  // The switch turned while the app runs counts from the next motion on.
  HoneySlider app({.step = 1, .transition = Spring::settling(ms(900), 0.3)});
  app.stage.set_reduced_motion(Reduced::still);
  app.frames.set(9);
  app.stage.advance(ms(0));
  CHECK(app.slider->position() == 9);
}

TEST_CASE("any transition moves a thumb, one that never rests is refused") {
  for (const Transition& way :
       {Transition(Timed{Curve::family(Family::bounce, Ease::out), ms(300)}),
        Transition(Coast::half_life(ms(50))), Transition(Spring::natural(20, 0.4), ms(60))}) {
    HoneySlider app({.step = 1, .transition = way});
    app.stage.advance(ms(0));
    app.frames.set(9);
    app.stage.advance(ms(0));
    CHECK_FALSE(app.slider->settled());
    const Micros due = app.stage.due();
    CHECK(due < ms(2000));
    app.settle();
    CHECK(app.slider->position() == 9);
    CHECK(app.last(questions::rest)->time <= ms(2000));
  }
  CHECK_THROWS_WITH(HoneySlider({.transition = Transition(Timed{Curve{}, ms(90)}).repeated(2)}),
                    Catch::Contains("slider 'frames'") && Catch::Contains("gone once"));
}

TEST_CASE("while the end of the track hides its spring, the thumb stands still and has no velocity") {
  Cell<double> value{5};
  Stage stage;
  auto& slider =
      stage.add<Slider>("frames", {40, 100, 280, 48},
                        {.value = value, .to = 10, .transition = Spring::settling(Micros{400'000}, 0.4)});
  stage.at(ms(10), [&] { value.set(10); });
  int still = 0;
  for (int t = 11; !slider.settled(); ++t) {
    stage.advance(ms(t));
    CAPTURE(t);
    if (slider.position() == 10) CHECK(slider.velocity() == 0);
    still += slider.position() == 10 && !slider.settled() ? 1 : 0;
    if (slider.position() != 10 && !slider.settled()) CHECK(slider.velocity() != 0);
  }
  CHECK(still > 30);
}

TEST_CASE("while a finger has it, its value stands clear of the finger") {
  for (const bool upright : {false, true}) {
    Cell<double> frames{4};
    Stage stage;
    const Box box = upright ? Box{200, 100, 48, 300} : Box{40, 300, 280, 48};
    auto& slider = stage.add<Slider>("frames", box,
                                     {.value = frames,
                                      .to = 10,
                                      .step = 1,
                                      .axis = upright ? Axis::vertical : Axis::horizontal,
                                      .value_bubble = true});
    const auto note = [&] {
      std::optional<Box> found;
      pieces_of(slider, [&](const Piece& piece) {
        if (piece.name == std::string_view("note")) found = piece.box;
        if (piece.role == Role::handle) CHECK(piece.words.empty() == slider.pressed());
        if (piece.role == Role::value) CHECK(piece.words == plain_number(slider.value()));
      });
      return found;
    };
    CHECK_FALSE(note());
    Point at = slider.thumb();
    stage.touch({.time = ms(0), .contact = 1, .phase = Phase::down, .at = at});
    for (int i = 1; i <= 10; ++i) {
      at = at + (upright ? Point{0, -9} : Point{9, 0});
      stage.touch({.time = ms(16 * i), .contact = 1, .phase = Phase::move, .at = at});
      REQUIRE(note());
      const Point off = note()->centre() - slider.thumb();
      CHECK(along(slider.settings().axis, off) == 0);
      CHECK(across(slider.settings().axis, off) < -34);  // a finger's half
    }
    stage.touch({.time = ms(300), .contact = 1, .phase = Phase::up, .at = at});
    CHECK_FALSE(note());
  }
}

TEST_CASE("the page keys go by large_step, or a tenth of the range, two steps at least") {
  for (const auto& [to, large, by] : {std::tuple{100.0, 0.0, 10.0}, {4.0, 0.0, 2.0}, {100.0, 25.0, 25.0}}) {
    Cell<double> value{0};
    Stage stage;
    stage.add<Slider>("slider", {0, 0, 300, 48}, {.value = value, .to = to, .step = 1, .large_step = large});
    stage.advance(ms(0));
    REQUIRE(stage.focus("slider"));
    CHECK(stage.press(Key::page_up, ms(10)));
    stage.advance(ms(2000));
    CHECK(value.get() == by);
  }
}

TEST_CASE(
    "off its thumb a slider in what scrolls along it follows a finger only where it may be grabbed "
    "anywhere") {
  for (const Grab grab : {Grab::anywhere, Grab::thumb}) {
    Cell<double> frames{0}, scrolled{0};
    Stage stage;
    stage.add<List>("hives", {0, 100, 360, 80}, {.offset = scrolled, .axis = Axis::horizontal});
    stage.add<Slider>("frames", {0, 0, 360, 80}, {.value = frames, .to = 10, .grab = grab},
                      {.inside = "hives"});
    stage.add<Button>("save", {0, 0, 360, 80}, {}, {.inside = "hives"});
    stage.advance(ms(0));
    touch(stage, 100, Phase::down, {200, 140});
    for (int i = 1; i <= 5; ++i) touch(stage, 100 + 20 * i, Phase::move, {200.0 - 20 * i, 140});
    CHECK((scrolled.get() < -50) == (grab == Grab::thumb));
    for (int i = 1; i <= 9; ++i) touch(stage, 200 + 20 * i, Phase::move, {100.0 + 20 * i, 140});
    CHECK((frames.get() > 0) == (grab == Grab::anywhere));
  }
}
