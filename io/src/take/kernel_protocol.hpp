#pragma once

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <cstdint>
#include <optional>
#include <string>
#include <utility>

#include "ubbo/io/take/recording.hpp"
#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io::kernel {

/// The kernel's own numbers (linux/input-event-codes.h), written out so that takes read the same everywhere.
enum : std::uint16_t {
  ev_syn = 0,
  ev_key = 1,
  ev_rel = 2,
  ev_abs = 3,
  rel_x = 0x00,
  rel_y = 0x01,
  rel_hwheel = 0x06,
  rel_wheel = 0x08,
  rel_wheel_hi_res = 0x0b,
  rel_hwheel_hi_res = 0x0c,
  btn_left = 0x110,
  syn_report = 0,
  syn_mt_report = 2,
  syn_dropped = 3,
  mt_slot = 0x2f,
  mt_touch_major = 0x30,
  mt_x = 0x35,
  mt_y = 0x36,
  mt_tool_type = 0x37,
  mt_tracking_id = 0x39,
  mt_pressure = 0x3a
};

/// One event as it was sent.
struct Event {
  std::int64_t micros = 0;
  std::uint16_t type = 0;
  std::uint16_t code = 0;
  std::int32_t value = 0;
};

/// What a panel says of one of its axes.
struct Range {
  std::optional<double> min, max, resolution;
};

/// Follows the protocol from event to event and turns each report into samples.
class Protocol {
 public:
  Protocol(const std::string& name, const Mapping& mapping) : name_(name), mapping_(mapping) {}

  std::array<Range, 2> ranges;  // of x and y
  Range pressure_range;

  [[noreturn]] void refuse(std::size_t line, std::string_view found, std::string_view takes) const {
    throw InputError({name_, line, 1, std::string(found), std::string(takes), {}});
  }

  void take(const Event& event, std::size_t line) {
    if (!started_) begin_ = latest_ = event.micros;
    started_ = true;
    if (event.micros < latest_)
      refuse(line, fmt::format("a time {} us before the line above", latest_ - event.micros),
             "times that do not decrease");
    latest_ = event.micros;
    if (event.type == ev_syn && event.code == syn_mt_report)
      refuse(line, "a SYN_MT_REPORT event, so this is the multi-touch protocol A",
             "protocol B, in which ABS_MT_SLOT and ABS_MT_TRACKING_ID tell contacts apart");
    if (event.type == ev_syn && event.code == syn_dropped) drop();
    if (event.type == ev_syn && event.code == syn_report) report(line);
    if (event.type == ev_abs && !dropping_) absolute(event, line);
    if ((event.type == ev_rel || event.type == ev_key) && !dropping_) mouse(event);
  }

  Take finish(std::size_t line) {
    if (take_.samples.empty() && take_.actions.empty())
      refuse(line, "no contact",
             "events of a mouse, or of type 3 with ABS_MT_TRACKING_ID and ABS_MT_POSITION_X and _Y");
    return std::move(take_);
  }

 private:
  struct Slot {
    int id = -1;        // the tracking id now; -1: no contact
    int shown_id = -1;  // the one samples were made for
    double x = 0.0, y = 0.0, pressure = -1.0, size = 0.0;
    bool changed = false, placed_x = false, placed_y = false, pen = false, cut = false;
  };

  void absolute(const Event& event, std::size_t line) {
    if (event.code == mt_slot) {
      if (event.value < 0 || event.value >= static_cast<int>(slots_.size()))
        refuse(line, fmt::format("slot {}", event.value), fmt::format("slots 0 to {}", slots_.size() - 1));
      slot_ = static_cast<std::size_t>(event.value);
      return;
    }
    Slot& slot = slots_[slot_];
    switch (event.code) {
      case mt_tracking_id:
        if (event.value < -1) refuse(line, fmt::format("tracking id {}", event.value), "-1 or more");
        // One contact may end and the next begin within one report.
        if (slot.shown_id >= 0 && slot.id != event.value) slot.cut = true;
        slot.id = event.value;
        break;
      case mt_x:
        slot.x = event.value, slot.placed_x = true;
        break;
      case mt_y:
        slot.y = event.value, slot.placed_y = true;
        break;
      case mt_pressure:
        slot.pressure = event.value;
        break;
      case mt_touch_major:
        slot.size = event.value;
        break;
      case mt_tool_type:
        slot.pen = event.value == 1;
        break;
      default:
        return;
    }
    slot.changed = true;
  }

  // A mouse tells how far it has moved, and a wheel how far it has turned, in 120ths of a notch where the
  // kernel is new enough, and then in whole ones besides.
  void mouse(const Event& event) {
    constexpr double notch = 120.0;
    const auto value = static_cast<double>(event.value);
    if (event.type == ev_key) {
      if (event.code == btn_left && event.value < 2) mouse_.button = event.value == 1;
      return;
    }
    switch (event.code) {
      case rel_x:
        mouse_.moved.x += value;
        break;
      case rel_y:
        mouse_.moved.y += value;
        break;
      case rel_wheel:
        mouse_.notches.y -= value;
        break;
      case rel_hwheel:
        mouse_.notches.x += value;
        break;
      case rel_wheel_hi_res:
        mouse_.fine.y -= value / notch;
        break;
      case rel_hwheel_hi_res:
        mouse_.fine.x += value / notch;
        break;
      default:
        break;
    }
  }

  // One count of a mouse is taken as a dp; it begins in the middle of the screen, and stays on it.
  void report_mouse(std::size_t line) {
    Mouse& mouse = mouse_;
    const Point turned = mouse.fine == Point{} ? mouse.notches : mouse.fine;
    if (mouse.moved == Point{} && turned == Point{} && mouse.button == mouse.down) return;
    if (!(mapping_.screen.x > 0.0 && mapping_.screen.y > 0.0))
      refuse(line, "a mouse, which tells no places", "a screen size (--screen WxH) on which it moves");
    const Micros time{latest_ - begin_};
    if (!mouse.at) mouse.at = Point{mapping_.screen.x / 2, mapping_.screen.y / 2};
    const Point to = *mouse.at + mouse.moved;
    const bool moves = !(std::exchange(mouse.moved, Point{}) == Point{});
    mouse.at = Point{std::clamp(to.x, 0.0, mapping_.screen.x), std::clamp(to.y, 0.0, mapping_.screen.y)};
    const auto says = [&](Phase phase) {
      take_.samples.push_back(
          {.time = time, .contact = 0, .phase = phase, .at = *mouse.at, .tool = Tool::mouse});
    };
    if (moves) says(mouse.down ? Phase::move : Phase::hover);
    if (mouse.button != mouse.down) says(mouse.button ? Phase::down : Phase::up);
    mouse.down = mouse.button;
    mouse.notches = mouse.fine = {};
    if (turned == Point{}) return;
    Action action = wheel_action({.time = time, .at = *mouse.at, .by = turned, .unit = WheelUnit::notch});
    action.before = take_.samples.size();
    take_.actions.push_back(std::move(action));
  }

  void report(std::size_t line) {
    if (!dropping_) report_mouse(line);
    dropping_ = false;
    for (Slot& slot : slots_) {
      if (!slot.changed) continue;
      slot.changed = false;
      if (slot.cut) end(slot, Phase::up);
      slot.cut = false;
      if (slot.id < 0) continue;
      if (!slot.placed_x || !slot.placed_y)
        refuse(line, fmt::format("contact {} without a place", slot.id),
               "ABS_MT_POSITION_X and _Y before its first report");
      const Phase phase = slot.shown_id < 0 ? Phase::down : Phase::move;
      slot.shown_id = slot.id;
      add(slot, phase, line);
    }
  }

  // The kernel's buffer ran over: what was down is not known any more.
  void drop() {
    dropping_ = true;
    for (Slot& slot : slots_) {
      end(slot, Phase::cancel);
      slot.id = -1;
      slot.changed = slot.cut = false;
    }
  }

  void end(Slot& slot, Phase phase) {
    if (slot.shown_id < 0) return;
    Sample sample = last_of(slot.shown_id);
    sample.time = Micros{latest_ - begin_};
    sample.phase = phase;
    sample.pressure = 0.0;
    take_.samples.push_back(sample);
    slot.shown_id = -1;
  }

  Sample last_of(int id) const {
    const auto found = std::find_if(take_.samples.rbegin(), take_.samples.rend(),
                                    [id](const Sample& sample) { return sample.contact == id; });
    return *found;
  }

  double mapped(std::size_t axis, double value, std::size_t line) const {
    if (mapping_.raw_units) return value;
    const Range& range = ranges[axis];
    const double whole = axis == 0 ? mapping_.screen.x : mapping_.screen.y;
    const double min = range.min.value_or(0.0);
    if (whole > 0.0 && range.max && *range.max > min) return (value - min) / (*range.max - min) * whole;
    constexpr double dp_per_mm = 160.0 / 25.4;
    if (whole <= 0.0 && range.resolution && *range.resolution > 0.0)
      return (value - min) / *range.resolution * dp_per_mm;
    refuse(line, fmt::format("no way from panel units to dp along {}", axis == 0 ? "x" : "y"),
           whole > 0.0
               ? "the axis's least and most value (in lines that describe the panel, or --range)"
               : "a screen size (--screen WxH) with the axis's min and max, its resolution, or --raw-units");
  }

  void add(const Slot& slot, Phase phase, std::size_t line) {
    Sample sample{.time = Micros{latest_ - begin_}, .contact = slot.id, .phase = phase};
    sample.at = {mapped(0, slot.x, line), mapped(1, slot.y, line)};
    sample.tool = slot.pen ? Tool::stylus : Tool::finger;
    if (slot.pressure >= 0.0 && pressure_range.max && *pressure_range.max > 0.0)
      sample.pressure = std::clamp(slot.pressure / *pressure_range.max, 0.0, 1.0);
    if (slot.size > 0.0) sample.size = mapped(0, slot.size + ranges[0].min.value_or(0.0), line);
    if (!(std::fabs(sample.at.x) <= Contacts::farthest && std::fabs(sample.at.y) <= Contacts::farthest))
      refuse(line, fmt::format("a contact at ({}, {})", sample.at.x, sample.at.y), "places within a million");
    take_.samples.push_back(sample);
  }

  struct Mouse {
    std::optional<Point> at{};
    Point moved{}, notches{}, fine{};  // since the last report
    bool button = false, down = false;
  };

  const std::string& name_;
  const Mapping& mapping_;
  bool started_ = false;
  bool dropping_ = false;
  std::int64_t begin_ = 0;
  std::int64_t latest_ = 0;
  std::size_t slot_ = 0;
  std::array<Slot, 64> slots_{};
  Mouse mouse_{};
  Take take_;
};

}  // namespace ubbo::io::kernel
