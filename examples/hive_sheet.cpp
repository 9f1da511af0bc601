// A sheet over a list, with a dialog on it and toasts: one file an app can start from. It prints what its
// layers tell; a finger is played on it, where an app hands in the platform's touches and draws each frame.
#include <cstdio>
#include <string>
#include <ubbo/ubbo.hpp>

using namespace std::chrono_literals;
using ubbo::Box;
using ubbo::Micros;

namespace {

struct HiveSheet {
  // What the app owns: all that shows it changes with it.
  ubbo::Cell<int> stands{0};  // the sheet's rest: 0 closed, 1 low, 2 half, 3 full
  ubbo::Cell<bool> asks{false};
  ubbo::Cell<std::string> says{""};

  ubbo::Stage stage{{.width = 360, .height = 720, .feel = ubbo::feels::gloved, .safe = {.top = 28}}};
  ubbo::ToastTray* toasts = nullptr;

  HiveSheet() {
    // A thousand hives, of which only those near the screen are parts.
    stage.add<ubbo::List>("hives", {0, 100, 360, 620},
                          {.label = "hives",
                           .count = 1000,
                           .item_size = 76,
                           .gap = 8,
                           .on_near = [this](std::size_t, ubbo::Part* spare) -> ubbo::Part& {
                             return spare != nullptr ? *spare : new_row();
                           }});
    stage.add<ubbo::Sheet>(
        "hive", {0, 120, 360, 600},
        {.label = "Ridge",
         .snap_point = stands,
         .snap_points = {176, 360, 600},
         .on_state = [](ubbo::EnterExit::State state) { std::printf("sheet: %s\n", name_of(state)); }});
    stage.add<ubbo::List>(
        "notes", {16, 176, 328, 424}, {.label = "Note", .count = 24, .gap = 8},
        {.inside = "hive", .yields_to = "hive", .yield_direction = ubbo::YieldDirection::up});
    stage.add<ubbo::Button>("close-hive", {16, 112, 160, 48}, {.label = "Close this hive", .down = asks},
                            {.inside = "hive"});
    stage.add<ubbo::Dialog>("ask", {30, 270, 300, 190}, {.label = "Close this hive?", .open = asks});
    stage.add<ubbo::Button>("yes", {20, 118, 124, 48}, {.label = "Close it", .on_press = [this] { close(); }},
                            {.inside = "ask"});
    toasts = &stage.add<ubbo::ToastTray>(
        "toasts", {20, 648, 320, 52},
        {.message = says,
         .time = 3s,
         .button = "Undo",
         .on_show = [](const std::string& words) { std::printf("toast: %s\n", words.c_str()); },
         .on_button = [this] { stands.set(2); }});
  }
  ubbo::Part& new_row() {
    return stage.add<ubbo::SwipeRow>("row" + std::to_string(rows++), {0, 0, 360, 76},
                                     {.label = "hive", .leading = 96, .trailing = 96}, {.inside = "hives"});
  }
  void close() {
    asks.set(false);
    stands.set(0);
    says.set("Ridge is closed");
    toasts->show();
  }
  void tap(Micros at, ubbo::Point where) {
    stage.touch({.time = at, .contact = 1, .phase = ubbo::Phase::down, .at = where});
    stage.touch({.time = at + 60ms, .contact = 1, .phase = ubbo::Phase::up, .at = where});
  }

  int rows = 0;
};

}  // namespace

int main() {
  HiveSheet app;
  app.stage.advance(0ms);
  app.stands.set(2);  // half out
  auto until = [&, now = 0ms](std::chrono::milliseconds end) mutable {
    for (; now < end; now += 16ms) app.stage.advance(now);  // draw here
  };
  until(800ms);
  app.tap(800ms, {96, 496});  // "Close this hive"
  until(1600ms);
  app.tap(1600ms, {112, 412});  // "Close it"
  until(2600ms);
  std::printf("%d rows made for 1000 hives; sheet %s, dialog %s\n", app.rows,
              app.stands.get() > 0 ? "out" : "away", app.asks.get() ? "open" : "closed");
  return app.stands.get() == 0 && !app.asks.get() && app.toasts->words() == "Ridge is closed" ? 0 : 1;
}
