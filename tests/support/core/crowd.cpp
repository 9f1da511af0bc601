#include "crowd.hpp"

#include <array>
#include <cmath>
#include <cstdio>

template <>
std::span<const ubbo::Setting<ubbo::test::LampSettings>> ubbo::settings_of<ubbo::test::LampSettings>() {
  static const std::array table{
      declare::cell<&test::LampSettings::seen>("seen",
                                               "the cell that gets how bright it was when it was touched"),
      declare::flag<&test::LampSettings::wants_back>("wants_back", "back goes to it")};
  return table;
}

namespace ubbo::test {

const PartKind& Lamp::described() {
  static constexpr std::array readings{
      ReadingInfo{"brightness", "", "how bright it is", &read<Lamp, &Lamp::brightness>}};
  static const PartKind kind = describe<Lamp>({.name = "lamp",
                                               .means = "a lamp that blinks",
                                               .role = "img",
                                               .readings = readings,
                                               .pieces = [](const Part&, const PieceTaker&) {}});
  return kind;
}

Crowd::Crowd(StageSettings on)
    : stage([&] {
        on.journal = 3000;
        return on;
      }()) {
  const Transition swings = Spring::settling(ms(600), 0.2);
  stage.add<Slider>("brood", {20, 20, 320, 40},
                    {.value = brood, .to = 10, .update_when = UpdateWhen::at_rest, .transition = swings});
  stage.add<Slider>("twin", {20, 70, 320, 40}, {.value = brood, .to = 12, .step = 0.5, .transition = swings});
  stage.add<Slider>("stores", {20, 120, 320, 40},
                    {.value = stores, .transition = Timed{Curve::family(Family::circ, Ease::out), ms(300)}});
  auto& sheet = stage.add<Pane>("sheet", {.x = 0, .y = 200, .right = 0, .bottom = 0},
                                {.offset = height,
                                 .min = -100,
                                 .max = 300,
                                 .moves = Moves::itself,
                                 .snap_points = {-100, 0, 300},
                                 .overscroll_max = Overscroll::How::damped});
  stage.add<Pane>("list", {.x = 0, .y = 40, .w = Length::of(1.0), .bottom = 0},
                  {.offset = scrolled, .min = -600, .max = 0, .overscroll_min = Overscroll::How::linear},
                  {.inside = "sheet", .yields_to = "sheet", .yield_direction = YieldDirection::up});
  stage.add<Pane>("row", {0, 60, 360, 80},
                  {.offset = slid,
                   .says = Says::rest,
                   .min = -90,
                   .max = 90,
                   .axis = Axis::horizontal,
                   .snap_points = {-90, 0, 90},
                   .transition = Coast::half_life(ms(80))},
                  {.inside = "list"});
  stage.add<Pad>("name", {0, 0, 200, 80},
                 {.gestures = {.report_tap = ReportTap::after_wait, .drags = Drags::none}, .taps = taps},
                 {.inside = "row"});
  stage.add<Pane>("shade", {300, 0, 60, 60},
                  {.offset = height, .min = 0, .max = 300});  // goes with the sheet
  stage.add<Lamp>("lamp", {0, 660, 60, 60}, {.seen = seen});
  // A row of taps sends the sheet away; a sheet that comes to rest moves the stores, and so on.
  watches.push_back(taps.watch([this](int count) {
    if (count == 2) height.set(300);
  }));
  watches.push_back(brood.watch([this](double value) {
    if (value > 9.0) brood.set(9.0);
  }));
  stage.change(sheet, [this](PaneSettings& settings) {
    settings.on_rest = [this](double place) { stores.set(place >= 300 ? 1.0 : 0.1); };
  });
}

std::string Crowd::outcome() {
  std::string text;
  char line[200];
  for (const Decision& decision : stage.journal().decisions()) {
    std::snprintf(line, sizeof line, "%lld %s %s", static_cast<long long>(decision.time.count()),
                  std::string(decision.part.view()).c_str(), decision.answer->name);
    text += line;
    for (const Fact& fact : decision.all_facts()) {
      std::snprintf(line, sizeof line, " %s=%a/%a", fact.name, fact.value, fact.limit);
      text += line;
    }
    text += "\n";
  }
  for (const double value : {brood.get(), stores.get(), height.get(), scrolled.get(), slid.get(), seen.get(),
                             static_cast<double>(taps.get())}) {
    std::snprintf(line, sizeof line, "%a ", value);
    text += line;
  }
  for (const Part* part : stage.parts())
    for (const ReadingInfo& reading : part->kind().readings) {
      const ReadingValue value = reading.now(*part);
      if (const auto* number = std::get_if<double>(&value)) {
        std::snprintf(line, sizeof line, "%s.%s=%a ", part->id().c_str(), reading.name, *number);
        text += line;
      }
    }
  return text;
}

bool Crowd::sound() {
  for (const Part* part : stage.parts()) {
    for (const ReadingInfo& reading : part->kind().readings) {
      const ReadingValue value = reading.now(*part);
      if (const auto* number = std::get_if<double>(&value); number != nullptr && !std::isfinite(*number))
        return false;
    }
    const Box box = part->box();
    if (!std::isfinite(box.x + box.y + box.w + box.h)) return false;
  }
  return true;
}

namespace {

Happening touch_at(Sample sample) {
  return {sample.time, "touch", [sample](Crowd& crowd) { crowd.stage.touch(sample); }};
}

// A finger's whole touch from `time` on.
void add_gesture(std::vector<Happening>& all, Micros time, int contact, int device, bool bad) {
  Point at{*number(0, 360), *number(0, 720)};
  const Tool tool = *rc::gen::weightedElement<Tool>({{6, Tool::finger}, {1, Tool::stylus}, {1, Tool::mouse}});
  const auto sample = [&](Phase phase) {
    Sample made{.time = time, .contact = contact, .phase = phase, .at = at, .tool = tool, .device = device};
    if (bad && *rc::gen::inRange(0, 30) == 0) made.at.x = std::nan("");
    if (bad && *rc::gen::inRange(0, 40) == 0) made.phase = Phase::down;
    all.push_back(touch_at(made));
  };
  sample(Phase::down);
  const int moves = *rc::gen::inRange(0, 20);
  const double pace = *number(0, 30);
  const Point drift{*number(-1, 1) * pace, *number(-1, 1) * pace};
  for (int i = 0; i < moves; ++i) {
    time += Micros{*rc::gen::inRange(1, 30'000)};
    at = at + drift + Point{*number(-1, 1) * pace * 0.3, *number(-1, 1) * pace * 0.3};
    sample(Phase::move);
  }
  time += Micros{*rc::gen::inRange(0, 150'000)};
  sample(*rc::gen::weightedElement<Phase>({{6, Phase::up}, {1, Phase::cancel}}));
}

// A mouse that goes over the screen, and its wheel.
void add_mouse(std::vector<Happening>& all, Micros time) {
  Point at{*number(0, 360), *number(0, 720)};
  for (int i = 0, moves = *rc::gen::inRange(1, 10); i < moves; ++i) {
    at = at + Point{*number(-60, 60), *number(-90, 90)};
    const Phase phase = *rc::gen::weightedElement<Phase>({{8, Phase::hover}, {1, Phase::leave}});
    all.push_back(touch_at({.time = time, .phase = phase, .at = at, .tool = Tool::mouse}));
    if (*rc::gen::arbitrary<bool>()) {
      WheelTurn turn{.time = time,
                     .at = at,
                     .by = {*number(-30, 30), *number(-60, 60)},
                     .phase = *rc::gen::element(WheelPhase::none, WheelPhase::begin, WheelPhase::end,
                                                WheelPhase::momentum)};
      if (*rc::gen::arbitrary<bool>()) {
        turn.unit = WheelUnit::notch;
        turn.by = turn.by * (1.0 / 20);
      }
      all.push_back({time, "wheel", [turn](Crowd& crowd) { crowd.stage.wheel(turn); }});
    }
    time += Micros{*rc::gen::inRange(1, 300'000)};
  }
}

Happening any_action(Micros time) {
  const double a = *number(0, 1);
  const auto action = [&](const char* name, auto what) {
    return Happening{time, name, [time, what](Crowd& crowd) { crowd.stage.at(time, [&] { what(crowd); }); }};
  };
  const auto named = [](const char* id, auto what) {
    return [id, what](Crowd& crowd) {
      if (Part* part = crowd.stage.find(id)) what(crowd.stage, *part);
    };
  };
  switch (*rc::gen::inRange(0, 14)) {
    case 0:
      return action("write brood", [a](Crowd& crowd) { crowd.brood.set(a * 12); });
    case 1:
      return action("write height", [a](Crowd& crowd) { crowd.height.set(-150 + a * 500); });
    case 2:
      return action("write stores and slid", [a](Crowd& crowd) {
        batch([&] {
          crowd.stores.set(a);
          crowd.slid.set(100 - 200 * a);
        });
      });
    case 3:
      return action("put", [a](Crowd& crowd) { crowd.stage.immediately([&] { crowd.brood.set(a * 10); }); });
    case 4:
      return {time, "tab", [time](Crowd& crowd) { crowd.stage.press(Key::tab, time); }};
    case 5: {
      const Key key =
          *rc::gen::element(Key::right, Key::left, Key::page_up, Key::home, Key::enter, Key::back);
      return {time, "key", [time, key](Crowd& crowd) { crowd.stage.press(key, time); }};
    }
    case 6:
      return action("remove twin", named("twin", [](Stage& stage, Part& part) { stage.remove(part); }));
    case 7:
      return action("hide", named("row", [a](Stage& stage, Part& part) { stage.show(part, a > 0.4); }));
    case 8:
      return action("disable", named("list", [a](Stage& stage, Part& part) { stage.enable(part, a > 0.4); }));
    case 9:
      return {time, "turn", [time, a](Crowd& crowd) {
                crowd.stage.set_screen(a < 0.5 ? Size{360, 720} : Size{720, 360}, {}, time);
              }};
    case 10:
      return action("raise", named("brood", [](Stage& stage, Part& part) { stage.raise(part); }));
    case 11:
      return action("change", named("stores", [a](Stage& stage, Part& part) {
                      stage.change(static_cast<Slider&>(part),
                                   [a](SliderSettings& s) { s.step = a < 0.5 ? 0.0 : 0.25; });
                    }));
    case 12:
      return action("place", named("sheet", [a](Stage& stage, Part& part) {
                      stage.place(part, {.x = 0, .y = 150 + 100 * a, .right = 0, .bottom = 0});
                    }));
    default:
      return action("cancel", [](Crowd& crowd) { crowd.stage.cancel_contacts(); });
  }
}

}  // namespace

std::vector<Happening> happenings(bool bad) {
  std::vector<Happening> all;
  const int touches = *rc::gen::inRange(0, 6);
  Micros time{};
  for (int i = 0; i < touches; ++i) {
    time += Micros{*rc::gen::inRange(0, 700'000)};
    const int contact =
        *rc::gen::inRange(1, 4);  // one after the other, so that every compiler makes the same
    const int device = *rc::gen::inRange(0, 2);
    add_gesture(all, time, contact, device, bad);
  }
  if (*rc::gen::inRange(0, 3) == 0) add_mouse(all, Micros{*rc::gen::inRange(0, 1'500'000)});
  const int actions = *rc::gen::inRange(0, 8);
  for (int i = 0; i < actions; ++i) all.push_back(any_action(Micros{*rc::gen::inRange(0, 4'000'000)}));
  std::stable_sort(all.begin(), all.end(), [](const auto& a, const auto& b) { return a.time < b.time; });
  return all;
}

void live_through(Crowd& crowd, const std::vector<Happening>& all, double fps) {
  Stage& stage = crowd.stage;
  stage.advance(ms(0));
  double frame = 1;
  const auto frames_until = [&](Micros time) {
    for (; fps > 0.0 && from_ms(frame * 1e3 / fps) < time; frame += 1)
      stage.advance(from_ms(frame * 1e3 / fps));
  };
  for (const Happening& one : all) {
    frames_until(one.time);
    one.action(crowd);
  }
  const Micros last = all.empty() ? ms(0) : all.back().time;
  stage.at(last, [&] { stage.cancel_contacts(); });
  frames_until(last + ms(10'000));
  stage.advance(last + ms(10'000));
}

}  // namespace ubbo::test
