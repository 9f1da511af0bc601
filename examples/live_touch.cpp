// A slider under a real touch panel: reads /dev/input/event* through libevdev and prints what becomes of each
// touch. Where there is no such device (or the one named is none), a made hand stands in. Usage: live_touch
// [DEVICE]
#include <fcntl.h>
#include <libevdev/libevdev.h>
#include <poll.h>
#include <unistd.h>

#include <array>
#include <chrono>
#include <cstdio>
#include <filesystem>
#include <string>
#include <thread>
#include <ubbo/io/hand/hand.hpp>
#include <ubbo/ubbo.hpp>

using namespace std::chrono_literals;

namespace {

constexpr double width = 360;
constexpr double height = 720;

struct App {
  App() {
    stage.add<ubbo::Slider>("frames", {.x = 40, .y = 200, .w = 280, .h = 48},
                            {.label = "frames of honey", .value = frames, .to = 10, .step = 1});
  }
  void print_decisions() {
    for (const ubbo::Decision& decision : stage.journal().decisions())
      std::printf("%8.1f ms  %s\n", ubbo::to_ms(decision.time), decision.answer->name);
    stage.journal().clear();
  }

  ubbo::Cell<double> frames{4};
  ubbo::Stage stage{{.width = width, .height = height, .feel = ubbo::feels::gloved, .journal = 1000}};
  ubbo::Watch watch = frames.watch([](double now) { std::printf("frames: %g\n", now); });
};

// A touch panel by protocol B, opened; null when there is none at `path`.
libevdev* open_panel(const std::string& path) {
  const int file = open(path.c_str(), O_RDONLY | O_NONBLOCK | O_CLOEXEC);
  if (file < 0) return nullptr;
  libevdev* panel = nullptr;
  if (libevdev_new_from_fd(file, &panel) == 0) {
    if (libevdev_has_event_code(panel, EV_ABS, ABS_MT_SLOT) != 0) return panel;
    libevdev_free(panel);
  }
  close(file);
  return nullptr;
}

libevdev* find_panel() {
  std::error_code none;
  for (const auto& entry : std::filesystem::directory_iterator("/dev/input", none))
    if (entry.path().filename().string().starts_with("event"))
      if (libevdev* panel = open_panel(entry.path())) return panel;
  return nullptr;
}

// One report of the panel has come whole: each slot that holds or held a contact becomes a sample.
void report(libevdev* panel, App& app, std::array<bool, 16>& down, ubbo::Micros time) {
  const auto fraction = [panel](unsigned axis, int value) {
    const double min = libevdev_get_abs_minimum(panel, axis);
    const double max = libevdev_get_abs_maximum(panel, axis);
    return max > min ? (value - min) / (max - min) : 0.0;
  };
  const int slots = std::min(libevdev_get_num_slots(panel), static_cast<int>(down.size()));
  for (int slot = 0; slot < slots; ++slot) {
    const auto at = static_cast<unsigned>(slot);
    const bool holds = libevdev_get_slot_value(panel, at, ABS_MT_TRACKING_ID) >= 0;
    if (!holds && !down[at]) continue;
    const ubbo::Phase phase = !holds ? ubbo::Phase::up : down[at] ? ubbo::Phase::move : ubbo::Phase::down;
    down[at] = holds;
    app.stage.touch(
        {.time = time,
         .contact = slot,
         .phase = phase,
         .at = {
             width * fraction(ABS_MT_POSITION_X, libevdev_get_slot_value(panel, at, ABS_MT_POSITION_X)),
             height * fraction(ABS_MT_POSITION_Y, libevdev_get_slot_value(panel, at, ABS_MT_POSITION_Y))}});
  }
}

int watch_panel(libevdev* panel) {
  std::printf("touch the upper third of %s; end with Ctrl-C\n", libevdev_get_name(panel));
  // Events and frames by one clock.
  libevdev_set_clock_id(panel, CLOCK_MONOTONIC);
  App app;
  std::array<bool, 16> down{};
  pollfd wait{libevdev_get_fd(panel), POLLIN, 0};
  while (true) {
    // At rest there is nothing to draw: sleep until the next touch.
    poll(&wait, 1, app.stage.settled() ? -1 : 8);
    if ((wait.revents & (POLLERR | POLLHUP)) != 0) return 1;
    input_event event{};
    unsigned flags = LIBEVDEV_READ_FLAG_NORMAL;
    for (int got = 0; (got = libevdev_next_event(panel, flags, &event)) >= 0;) {
      flags = got == LIBEVDEV_READ_STATUS_SYNC ? LIBEVDEV_READ_FLAG_SYNC : LIBEVDEV_READ_FLAG_NORMAL;
      if (event.type == EV_SYN && event.code == SYN_REPORT)
        report(panel, app, down, ubbo::Micros{event.input_event_sec * 1'000'000LL + event.input_event_usec});
    }
    app.stage.advance(
        std::chrono::duration_cast<ubbo::Micros>(std::chrono::steady_clock::now().time_since_epoch()));
    app.print_decisions();
    std::fflush(stdout);
  }
}

int stand_in() {
  std::printf("no touch device here: a made hand stands in\n");
  App app;
  ubbo::io::Hand hand(ubbo::io::find_hand("gloved"), 11);
  hand.press({154.8, 224}).wait(90ms).drag({86, 0}, 330ms).drag({-7, 0}, 130ms).wait(110ms).lift();
  const auto begin = std::chrono::steady_clock::now();
  for (const ubbo::Sample& sample : hand.take().samples) {
    std::this_thread::sleep_until(begin + sample.time);
    app.stage.touch(sample);
    app.stage.advance(sample.time);
    app.print_decisions();
  }
  while (!app.stage.settled()) {
    std::this_thread::sleep_for(16ms);
    app.stage.advance(std::chrono::duration_cast<ubbo::Micros>(std::chrono::steady_clock::now() - begin));
    app.print_decisions();
  }
  return 0;
}

}  // namespace

int main(int argc, char** argv) {
  libevdev* panel = argc > 1 ? open_panel(argv[1]) : find_panel();
  return panel != nullptr ? watch_panel(panel) : stand_in();
}
