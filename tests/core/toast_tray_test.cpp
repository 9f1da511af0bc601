// Toasts: once each, in order, for their time, whatever a finger does.
#include "ubbo/testing/check.hpp"

using namespace ubbo;
using namespace ubbo::test;

TEST_CASE("toasts are shown once each, in order, each for its time to the microsecond") {
  PROPERTY("any shows, dismissals and frames", [] {
    struct Shown {
      std::string words;
      Micros from, to;
      ToastEnd end;
    };
    const auto run = [](double fps, const std::vector<std::pair<double, int>>& calls) {
      std::vector<Shown> shown;
      Stage stage;
      auto& tray = stage.add<ToastTray>(
          "tray", {20, 640, 320, 48},
          {.time = ms(500),
           .enter = Timed{Curve{}, ms(100)},
           .exit = Timed{Curve{}, ms(80)},
           .on_show =
               [&](const std::string& words) {
                 shown.push_back({words, stage.now(), never, ToastEnd::time});
               },
           .on_end =
               [&](const std::string& words, ToastEnd end) {
                 RC_ASSERT(!shown.empty() && shown.back().words == words && shown.back().to == never);
                 shown.back().to = stage.now();
                 shown.back().end = end;
               }});
      double frame = 0;
      int count = 0;
      stage.advance(ms(0));
      for (const auto& [at, what] : calls) {
        for (; fps > 0 && frame < at; frame += 1000 / fps) stage.advance(ms(frame));
        stage.at(ms(at), [&, what = what] {
          if (what < 0)
            tray.show(std::to_string(++count));
          else
            tray.dismiss(what);
        });
      }
      for (; fps > 0 && frame < 60'000; frame += 1000 / fps) stage.advance(ms(frame));
      stage.advance(ms(60'000));
      RC_ASSERT(stage.settled());
      return shown;
    };
    std::vector<std::pair<double, int>> calls;
    double now = 5;
    const int rounds = *rc::gen::inRange(1, 12);
    for (int i = 0; i < rounds; ++i) {
      now += *rc::gen::element(0.0, 30.0, 333.0, 680.0, 2000.0);
      calls.emplace_back(now,
                         *rc::gen::weightedOneOf<int>({{3, rc::gen::just(-1)}, {1, rc::gen::inRange(1, 8)}}));
    }
    const auto shown = run(0, calls);
    int before = 0;
    Micros last{0};
    for (const Shown& one : shown) {
      RC_ASSERT(std::stoi(one.words) > before);
      before = std::stoi(one.words);
      RC_ASSERT(one.from >= last);
      last = one.to;
      if (one.end == ToastEnd::time) RC_ASSERT(one.to - one.from == ms(680));
    }
    for (const double fps : {24.0, 240.0}) {
      const auto again = run(fps, calls);
      RC_ASSERT(again.size() == shown.size());
      for (std::size_t i = 0; i < shown.size(); ++i)
        RC_ASSERT(again[i].words == shown[i].words && again[i].from == shown[i].from &&
                  again[i].to == shown[i].to);
    }
  });
}

TEST_CASE("a toast's time stands under a finger, it is swiped away, replaced or begun again") {
  Cell<std::string> message{"Inspection saved"};
  Cell<int> shows{0};
  std::vector<std::string> said;
  std::vector<ToastEnd> ends;
  Stage stage;
  auto& tray =
      stage.add<ToastTray>("tray", {20, 640, 320, 48},
                           {.message = message,
                            .trigger = shows,
                            .time = ms(1000),
                            .button = "Undo",
                            .enter = Timed{Curve{}, ms(0)},
                            .exit = Timed{Curve{}, ms(0)},
                            .on_show = [&](const std::string& words) { said.push_back(words); },
                            .on_end = [&](const std::string&, ToastEnd end) { ends.push_back(end); }});
  const auto touch = [&](double at, Phase phase, Point where) {
    stage.touch({.time = ms(at), .contact = 1, .phase = phase, .at = where});
  };
  stage.advance(ms(0));
  shows.set(1);
  shows.set(1);
  stage.advance(ms(10));
  message.set("read when shown, so this is too late");
  CHECK(tray.words() == "Inspection saved");
  touch(500, Phase::down, {100, 660});
  stage.advance(ms(5000));
  CHECK(tray.state() == EnterExit::State::present);
  touch(5010, Phase::up, {100, 660});
  stage.advance(ms(5010 + 509));
  CHECK(tray.state() == EnterExit::State::present);
  stage.advance(ms(5010 + 511));
  CHECK(tray.absent());
  // Swiped away.
  shows.set(2);
  stage.advance(ms(6000));
  for (int i = 0; i <= 10; ++i)
    touch(6100 + 8 * i, i == 0 ? Phase::down : Phase::move, {100.0 + 20 * i, 660});
  touch(6200, Phase::up, {300, 660});
  stage.advance(ms(8000));
  CHECK(tray.absent());
  // Its button.
  shows.set(3);
  stage.advance(ms(8100));
  touch(8200, Phase::down, tray.button()->centre());
  touch(8240, Phase::up, tray.button()->centre());
  CHECK(tray.absent());
  CHECK(ends == std::vector{ToastEnd::time, ToastEnd::swipe, ToastEnd::button});
  // What is shown already is replaced, or begun again.
  stage.change(tray, [](ToastTraySettings& s) { s.when_busy = WhenBusy::replace; });
  tray.show("first");
  tray.show("second");
  CHECK(tray.words() == "second");
  CHECK(ends.back() == ToastEnd::replaced);
  stage.change(tray, [](ToastTraySettings& s) { s.when_busy = WhenBusy::restart; });
  const Micros now = stage.now();
  stage.advance(now + ms(900));
  const ToastTray::Token old = tray.show("third");
  CHECK(tray.words() == "third");
  stage.advance(now + ms(1899));
  CHECK(tray.words() == "third");
  stage.advance(now + ms(1901));
  CHECK(tray.absent());
  tray.show("fourth");
  tray.dismiss(old);
  CHECK(tray.words() == "fourth");
  CHECK(said.back() == "fourth");
  CHECK(stage.focused() == nullptr);
}

TEST_CASE("a toast under a finger goes in the end, whatever happens to it meanwhile") {
  for (const WhenBusy another : {WhenBusy::queue, WhenBusy::replace, WhenBusy::restart})
    for (const char* what : {"show", "dismiss", "keyboard", "settings"}) {
      CAPTURE(static_cast<int>(another), what);
      Stage stage({.journal = 500});
      std::vector<std::string> ended;
      auto& tray = stage.add<ToastTray>(
          "t", {20, 620, 320, 60},
          {.time = ms(1000), .when_busy = another, .on_end = [&](const std::string& said, ToastEnd) {
             ended.push_back(said);
           }});
      stage.advance(ms(0));
      stage.at(ms(0), [&] { tray.show("one"); });
      stage.advance(ms(800));
      touch(stage, 900, Phase::down, {100, 650});
      if (what == std::string_view("show")) stage.at(ms(1000), [&] { tray.show("two"); });
      if (what == std::string_view("dismiss")) stage.at(ms(1000), [&] { tray.dismiss(); });
      if (what == std::string_view("keyboard")) stage.set_safe_area({.bottom = 200}, ms(1000));
      if (what == std::string_view("settings"))
        stage.change(tray, [](ToastTraySettings& s) { s.button = "Undo"; });
      stage.advance(ms(4000));
      touch(stage, 4000, Phase::up, {100, 650});
      settle(stage);
      CHECK(tray.absent());
      CHECK(ended.size() == (what == std::string_view("show") ? 2U : 1U));
      CHECK(ended.front() == "one");
      CHECK(stage.settled());
    }
}
