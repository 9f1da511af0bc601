#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <cstring>
#include <optional>
#include <string>

#include "ubbo/io/take/recording.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io {

namespace {

// The kernel's own numbers (linux/input-event-codes.h), written out so that takes read the same everywhere.
enum : std::uint16_t {
  ev_syn = 0,
  ev_abs = 3,
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

struct Event {
  std::int64_t micros = 0;
  std::uint16_t type = 0;
  std::uint16_t code = 0;
  std::int32_t value = 0;
};

struct Range {
  std::optional<double> least, most, resolution;
};

// Follows the protocol from event to event and turns each report into samples.
class Protocol {
 public:
  Protocol(const std::string& name, const Mapping& mapping) : name_(name), mapping_(mapping) {}

  std::array<Range, 2> ranges;  // of x and y
  Range pressure_range;

  [[noreturn]] void refuse(std::size_t line, std::string found, std::string takes) const {
    throw InputError({name_, line, 1, std::move(found), std::move(takes), {}});
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
  }

  Take finish(std::size_t line) {
    if (take_.samples.empty())
      refuse(line, "no contact", "events of type 3 with ABS_MT_TRACKING_ID and ABS_MT_POSITION_X and _Y");
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

  void report(std::size_t line) {
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
    const double least = range.least.value_or(0.0);
    if (whole > 0.0 && range.most && *range.most > least)
      return (value - least) / (*range.most - least) * whole;
    constexpr double dp_per_mm = 160.0 / 25.4;
    if (whole <= 0.0 && range.resolution && *range.resolution > 0.0)
      return (value - least) / *range.resolution * dp_per_mm;
    refuse(line, fmt::format("no way from panel units to dp along {}", axis == 0 ? "x" : "y"),
           whole > 0.0
               ? "the axis's declared min and max (in a # line, or --range for raw records)"
               : "a screen size (--screen WxH) with the axis's min and max, its resolution, or --raw-units");
  }

  void add(const Slot& slot, Phase phase, std::size_t line) {
    Sample sample{.time = Micros{latest_ - begin_}, .contact = slot.id, .phase = phase};
    sample.at = {mapped(0, slot.x, line), mapped(1, slot.y, line)};
    sample.tool = slot.pen ? Tool::stylus : Tool::finger;
    if (slot.pressure >= 0.0 && pressure_range.most && *pressure_range.most > 0.0)
      sample.pressure = std::clamp(slot.pressure / *pressure_range.most, 0.0, 1.0);
    if (slot.size > 0.0) sample.size = mapped(0, slot.size + ranges[0].least.value_or(0.0), line);
    if (!(std::fabs(sample.at.x) <= Contacts::farthest && std::fabs(sample.at.y) <= Contacts::farthest))
      refuse(line, fmt::format("a contact at ({}, {})", sample.at.x, sample.at.y), "places within a million");
    take_.samples.push_back(sample);
  }

  const std::string& name_;
  const Mapping& mapping_;
  bool started_ = false;
  bool dropping_ = false;
  std::int64_t begin_ = 0;
  std::int64_t latest_ = 0;
  std::size_t slot_ = 0;
  std::array<Slot, 64> slots_{};
  Take take_;
};

bool number(std::string_view text, int base, auto& value) {
  if (base == 16 && text.starts_with("0x")) text.remove_prefix(2);
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value, base);
  return error == std::errc{} && end == text.data() + text.size() && !text.empty();
}

class TextReader {
 public:
  TextReader(std::string_view text, const std::string& name, const Mapping& mapping)
      : text_(text), protocol_(name, mapping) {}

  Take read() {
    for (std::size_t from = 0; from < text_.size();) {
      const std::size_t end = std::min(text_.find('\n', from), text_.size());
      ++line_;
      split(text_.substr(from, end - from));
      from = end + 1;
      if (count_ == 0) continue;
      if (words_[0].front() == '#')
        declaration();
      else
        event();
    }
    return protocol_.finish(line_);
  }

 private:
  void split(std::string_view line) {
    count_ = 0;
    for (std::size_t i = 0; i < line.size() && count_ < words_.size();) {
      const std::size_t first = line.find_first_not_of(" \t\r", i);
      if (first == std::string_view::npos) break;
      const std::size_t end = std::min(line.find_first_of(" \t\r", first), line.size());
      words_[count_++] = line.substr(first, end - first);
      i = end;
    }
  }

  void event() {
    const auto refuse = [this](std::string_view found) {
      protocol_.refuse(
          line_, fmt::format("'{}'", found.substr(0, 40)),
          "'E: sec.usec type code value' (type and code hexadecimal), or a line that begins with #");
    };
    if (words_[0] != "E:" || count_ < 5) refuse(words_[0]);
    if (count_ > 5 && words_[5].front() != '#') refuse(words_[5]);
    Event event;
    std::int64_t seconds = 0;
    std::int64_t micros = 0;
    const std::size_t dot = words_[1].find('.');
    const std::string_view fraction =
        dot == std::string_view::npos ? std::string_view{} : words_[1].substr(dot + 1);
    if (!number(words_[1].substr(0, dot), 10, seconds) || fraction.size() != 6 ||
        !number(fraction, 10, micros) || seconds < 0 || seconds > 1'000'000'000'000 || micros < 0)
      refuse(words_[1]);
    event.micros = seconds * 1'000'000 + micros;
    if (!number(words_[2], 16, event.type)) refuse(words_[2]);
    if (!number(words_[3], 16, event.code)) refuse(words_[3]);
    if (!number(words_[4], 10, event.value)) refuse(words_[4]);
    protocol_.take(event, line_);
  }

  // "# ABS_MT_POSITION_X min 0 max 4095 resolution 12", in one line or several, with or without = and :.
  void declaration() {
    for (std::size_t i = 0; i < count_; ++i) {
      std::string word(words_[i]);
      std::string value;
      std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return std::tolower(c); });
      word.erase(
          std::remove_if(word.begin(), word.end(),
                         [](char c) { return std::string_view("#(),;:").find(c) != std::string_view::npos; }),
          word.end());
      if (const std::size_t equals = word.find('='); equals != std::string::npos) {
        value = word.substr(equals + 1);
        word.resize(equals);
      }
      if (word == "abs_mt_position_x")
        axis_ = &protocol_.ranges[0];
      else if (word == "abs_mt_position_y")
        axis_ = &protocol_.ranges[1];
      else if (word == "abs_mt_pressure")
        axis_ = &protocol_.pressure_range;
      else if (word.starts_with("abs_") || word.starts_with("btn_") || word.starts_with("key_"))
        axis_ = nullptr;
      if (word == "code" && i + 1 < count_) by_code(words_[i + 1]);
      std::optional<double> Range::*field = nullptr;
      if (word == "min" || word == "minimum") field = &Range::least;
      if (word == "max" || word == "maximum") field = &Range::most;
      if (word == "res" || word == "resolution") field = &Range::resolution;
      if (field == nullptr || axis_ == nullptr) continue;
      if (value.empty() && i + 1 < count_)
        value = std::string(words_[i + 1] == "=" && i + 2 < count_ ? words_[i + 2] : words_[i + 1]);
      while (!value.empty() && (value.back() == ',' || value.back() == ';' || value.back() == ')'))
        value.pop_back();
      double parsed = 0.0;
      const auto [end, error] = std::from_chars(value.data(), value.data() + value.size(), parsed);
      if (error != std::errc{} || end != value.data() + value.size() || !std::isfinite(parsed))
        protocol_.refuse(line_, fmt::format("'{}' for {}", value, word), "a number");
      axis_->*field = parsed;
    }
  }

  void by_code(std::string_view word) {
    int code = 0;
    axis_ = nullptr;
    if (!number(word, word.starts_with("0x") ? 16 : 10, code)) return;
    if (code == mt_x) axis_ = &protocol_.ranges[0];
    if (code == mt_y) axis_ = &protocol_.ranges[1];
    if (code == mt_pressure) axis_ = &protocol_.pressure_range;
  }

  std::string_view text_;
  Protocol protocol_;
  std::size_t line_ = 0;
  std::array<std::string_view, 24> words_{};
  std::size_t count_ = 0;
  Range* axis_ = nullptr;
};

}  // namespace

Take parse_kernel_text(std::string_view text, const std::string& name, const Mapping& mapping) {
  return TextReader(text, name, mapping).read();
}

Take parse_kernel_raw(std::string_view bytes, const std::string& name, const Mapping& mapping, Point range) {
  constexpr std::size_t size = 24;
  Protocol protocol(name, mapping);
  if (range.x > 0.0) protocol.ranges[0].most = range.x;
  if (range.y > 0.0) protocol.ranges[1].most = range.y;
  const std::size_t count = bytes.size() / size;
  for (std::size_t i = 0; i < count; ++i) {
    const char* at = bytes.data() + i * size;
    std::int64_t seconds = 0;
    std::int64_t micros = 0;
    Event event;
    std::memcpy(&seconds, at, 8);
    std::memcpy(&micros, at + 8, 8);
    std::memcpy(&event.type, at + 16, 2);
    std::memcpy(&event.code, at + 18, 2);
    std::memcpy(&event.value, at + 20, 4);
    if (seconds < 0 || seconds > 1'000'000'000'000 || micros < 0 || micros >= 1'000'000)
      protocol.refuse(i + 1, "a time that is none", "64-bit struct input_event records");
    event.micros = seconds * 1'000'000 + micros;
    protocol.take(event, i + 1);
  }
  if (bytes.size() % size != 0)
    protocol.refuse(count + 1,
                    fmt::format("{} bytes at the end that are no whole event", bytes.size() % size),
                    "records of 24 bytes");
  return protocol.finish(count);
}

}  // namespace ubbo::io
