#include "crowd.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

StageSettings any_stage() {
  StageSettings on{.feel = *rc::gen::element(feels::bare_finger, feels::gloved)};
  on.feel.smoothing = ms(*rc::gen::element(0, 0, 16));
  on.feel.prediction = ms(*rc::gen::element(0, 0, 20));
  on.feel.drag_threshold_vertical = *rc::gen::element(0.0, 0.0, 20.0);
  on.right_to_left = *rc::gen::arbitrary<bool>();
  on.reduced_motion =
      *rc::gen::weightedElement<Reduced>({{5, Reduced::full}, {1, Reduced::fade}, {1, Reduced::still}});
  return on;
}

}  // namespace

TEST_CASE("whatever happens to a crowd that shares cells, frames change nothing") {
  PROPERTY("touches of two devices, keys, writes, removals, turns, endless motion, smoothing", [] {
    const StageSettings on = any_stage();
    const auto all = happenings(*rc::gen::arbitrary<bool>());
    Crowd without(on);
    live_through(without, all, 0);
    const std::string expected = without.outcome();
    RC_ASSERT(expected.size() > 100);
    for (const double fps : {24.0, 240.0}) {
      Crowd crowd(on);
      live_through(crowd, all, fps);
      const std::string outcome = crowd.outcome();
      if (outcome != expected) {  // the first line that differs says most
        const auto at = std::mismatch(outcome.begin(), outcome.end(), expected.begin(), expected.end()).first;
        const auto from = outcome.rfind('\n', static_cast<std::size_t>(at - outcome.begin())) + 1;
        for (const Happening& one : all) RC_LOG() << to_ms(one.time) << " ms " << one.name << "\n";
        RC_LOG() << fps << " fps: " << outcome.substr(from, 400)
                 << "\nwithout: " << expected.substr(from, 400);
      }
      RC_ASSERT(outcome == expected);
    }
  });
}

TEST_CASE(
    "at any moment numbers are numbers, the journal is in order, and cells agree with what shows them") {
  PROPERTY("a crowd looked at after everything that happens", [] {
    Crowd crowd(any_stage());
    const auto all = happenings(true);
    crowd.stage.advance(ms(0));
    for (const Happening& one : all) {
      crowd.stage.advance(one.time - ms(*rc::gen::inRange(0, 30)));
      RC_ASSERT(crowd.sound());
      one.action(crowd);
      RC_ASSERT(crowd.sound());
      const auto* sheet = static_cast<const Pane*>(crowd.stage.find("sheet"));
      if (sheet->settled()) RC_ASSERT(crowd.height.get() == sheet->offset());
    }
    crowd.stage.cancel_contacts();
    crowd.stage.advance(crowd.stage.now() + ms(20'000));
    const auto decisions = crowd.stage.journal().decisions();
    RC_ASSERT(std::is_sorted(decisions.begin(), decisions.end(),
                             [](const Decision& a, const Decision& b) { return a.time < b.time; }));
    for (const Decision& decision : decisions)
      for (const Fact& fact : decision.all_facts())
        RC_ASSERT(std::isfinite(fact.value + fact.limit + fact.margin));
    RC_ASSERT(crowd.stage.open_contacts() == 0u);
    for (const Part* part : crowd.stage.parts())
      if (part->id() != "lamp") RC_ASSERT(part->settled());
  });
}

TEST_CASE(
    "what follows a place that moves is where that is, at any frame rate, and cells keep the last of it") {
  std::vector<std::string> outcomes;
  for (const double fps : {0.0, 24.0, 240.0}) {
    Stage stage({.journal = 1000});
    Cell<double> position{0}, fraction{0}, x{0}, y{0};
    Cell<int> index{0};
    Cell<bool> open{true};
    stage.add<Carousel>("photos", {0, 0, 360, 200}, {.selected = index, .position = position, .count = 9});
    stage.add<Slider>("follows", {40, 220, 280, 40}, {.value = position, .to = 8});
    auto& window = stage.add<Panel>("w", {0, 300, 360, 300}, {.open = open});
    stage.add<Draggable>("marker", {40, 100, 44, 44}, {.offset_x = x, .offset_y = y}, {.inside = "w"});
    stage.add<Slider>("across", {40, 640, 280, 40}, {.value = x, .to = 200});
    stage.advance(ms(0));
    const auto frames_to = [&](double until) {
      for (double t = to_ms(stage.now()) + 1000 / fps; fps > 0 && t < until; t += 1000 / fps)
        stage.advance(ms(t));
    };
    stage.at(ms(0), [&] { index.set(6); });
    frames_to(100);
    stage.at(ms(100), [&] {
      x.set(150);
      y.set(120);
    });
    frames_to(160);
    stage.at(ms(160), [&] { x.set(150); });  // again, while it moves there
    frames_to(170);
    stage.press(Key::tab, ms(170));
    stage.remove(window);
    frames_to(2000);
    stage.advance(ms(2000));
    std::string outcome;
    for (const Cell<double>* cell : {&position, &x, &y}) outcome += std::to_string(cell->get()) + " ";
    for (const Decision& decision : stage.journal().decisions()) {
      outcome +=
          std::string(decision.part.view()) + decision.answer->name + std::to_string(decision.time.count());
      for (const Fact& fact : decision.all_facts()) outcome += " " + std::to_string(fact.value);
    }
    outcomes.push_back(outcome);
  }
  CHECK(outcomes[1] == outcomes[0]);
  CHECK(outcomes[2] == outcomes[0]);
}
