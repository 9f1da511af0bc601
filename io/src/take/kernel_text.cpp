#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cctype>
#include <charconv>
#include <cmath>
#include <optional>
#include <string>
#include <string_view>

#include "kernel_protocol.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

using kernel::Event;
using kernel::Range;

constexpr std::string_view blanks = " \t\r";

bool whole_number(std::string_view text, int base, auto& value) {
  if (base == 16 && text.starts_with("0x")) text.remove_prefix(2);
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value, base);
  return error == std::errc{} && end == text.data() + text.size() && !text.empty();
}

// The events a contact is made of, for dumps that write names.
struct Named {
  std::string_view name;
  std::uint16_t number;
};
constexpr std::array type_names{Named{"EV_SYN", kernel::ev_syn}, Named{"EV_ABS", kernel::ev_abs},
                                Named{"EV_KEY", kernel::ev_key}, Named{"EV_REL", kernel::ev_rel}};
constexpr std::array code_names{Named{"SYN_REPORT", kernel::syn_report},
                                Named{"SYN_MT_REPORT", kernel::syn_mt_report},
                                Named{"SYN_DROPPED", kernel::syn_dropped},
                                Named{"ABS_MT_SLOT", kernel::mt_slot},
                                Named{"ABS_MT_POSITION_X", kernel::mt_x},
                                Named{"ABS_MT_TOUCH_MAJOR", kernel::mt_touch_major},
                                Named{"ABS_MT_POSITION_Y", kernel::mt_y},
                                Named{"ABS_MT_TOOL_TYPE", kernel::mt_tool_type},
                                Named{"ABS_MT_PRESSURE", kernel::mt_pressure},
                                Named{"ABS_MT_TRACKING_ID", kernel::mt_tracking_id},
                                Named{"REL_X", kernel::rel_x},
                                Named{"REL_Y", kernel::rel_y},
                                Named{"REL_WHEEL", kernel::rel_wheel},
                                Named{"REL_WHEEL_HI_RES", kernel::rel_wheel_hi_res},
                                Named{"REL_HWHEEL", kernel::rel_hwheel},
                                Named{"REL_HWHEEL_HI_RES", kernel::rel_hwheel_hi_res},
                                Named{"BTN_LEFT", kernel::btn_left}};

std::optional<std::uint16_t> number_named(const auto& names, std::string_view name) {
  for (const Named& named : names)
    if (name == named.name) return named.number;
  return {};
}

// Any other event the kernel has a name for: it counts for nothing here.
bool is_event_name(std::string_view word) {
  return word.find('_') != std::string_view::npos &&
         std::all_of(word.begin(), word.end(), [](unsigned char c) {
           return (c >= 'A' && c <= 'Z') || (c >= '0' && c <= '9') || c == '_';
         });
}
constexpr std::uint16_t other_event = 0xffff;

class TextReader {
 public:
  TextReader(std::string_view text, const std::string& name, const Mapping& mapping)
      : text_(text), protocol_(name, mapping) {
    if (mapping.range.x > 0.0) protocol_.ranges[0].max = mapping.range.x;
    if (mapping.range.y > 0.0) protocol_.ranges[1].max = mapping.range.y;
  }

  Take read() {
    for (std::size_t from = 0; from < text_.size();) {
      const std::size_t end = std::min(text_.find('\n', from), text_.size());
      ++line_;
      split(text_.substr(from, end - from));
      from = end + 1;
      if (count_ > 0) read_line();
    }
    // Nothing came of the file, so what was passed over as a description was none.
    if (!any_event_ && strange_line_ > 0) refuse_word(strange_line_, strange_);
    return protocol_.finish(line_);
  }

 private:
  void split(std::string_view line) {
    count_ = 0;
    for (std::size_t i = 0; i < line.size() && count_ < words_.size();) {
      const std::size_t first = line.find_first_not_of(blanks, i);
      if (first == std::string_view::npos) break;
      const std::size_t end = std::min(line.find_first_of(blanks, first), line.size());
      words_[count_++] = line.substr(first, end - first);
      i = end;
    }
  }

  void read_line() {
    const std::string_view first = words_[0];
    if (first.front() == '#') return describe();
    if (first == "E:") return event_line();
    if (first == "Event:") return tested();
    if (first.front() == '[') return dumped();
    if (first.starts_with("/dev/input/") && count_ >= 4)
      protocol_.refuse(line_, "an event without a time", "dumps with times: [sec.usec] before each event");
    if (first == "A:") return axis_line();
    // Who the device is, what it is for, and what it can send beside axes.
    if (first.size() == 2 && first[1] == ':' &&
        std::string_view("NIPBLS").find(first[0]) != std::string_view::npos)
      return;
    if (any_event_) refuse_word(line_, first);
    if (strange_line_ == 0) strange_line_ = line_, strange_ = first;
    describe();
  }

  [[noreturn]] void refuse_word(std::size_t line, std::string_view found) const {
    protocol_.refuse(
        line, fmt::format("'{}'", found.substr(0, 40)),
        "'E: sec.usec type code value' (type and code hexadecimal), 'Event: time …, type …, code …, "
        "value …', '[sec.usec] type code value', or lines that describe the panel before them");
  }
  [[noreturn]] void refuse_word(std::string_view found) const { refuse_word(line_, found); }

  void take(const Event& event) {
    any_event_ = true;
    protocol_.take(event, line_);
  }

  std::int64_t time_in(std::string_view word) const {
    std::int64_t seconds = 0;
    std::int64_t micros = 0;
    const std::size_t dot = word.find('.');
    const std::string_view fraction =
        dot == std::string_view::npos ? std::string_view{} : word.substr(dot + 1);
    if (!whole_number(word.substr(0, dot), 10, seconds) || fraction.size() != 6 ||
        !whole_number(fraction, 10, micros) || seconds < 0 || seconds > 1'000'000'000'000 || micros < 0)
      refuse_word(word);
    return seconds * 1'000'000 + micros;
  }

  // "E: 1.000000 0003 0039 5", with a comment behind it if need be.
  void event_line() {
    if (count_ < 5) refuse_word(words_[0]);
    if (count_ > 5 && words_[5].front() != '#') refuse_word(words_[5]);
    Event event{.micros = time_in(words_[1])};
    if (!whole_number(words_[2], 16, event.type)) refuse_word(words_[2]);
    if (!whole_number(words_[3], 16, event.code)) refuse_word(words_[3]);
    if (!whole_number(words_[4], 10, event.value)) refuse_word(words_[4]);
    take(event);
  }

  // "Event: time 1.000000, type 3 (EV_ABS), code 57 (ABS_MT_TRACKING_ID), value 5", or with the name of a SYN
  // event between dashes in place of type and code.
  void tested() {
    const auto after = [this](std::string_view key) {
      for (std::size_t i = 0; i + 1 < count_; ++i)
        if (words_[i] == key) return words_[i + 1].substr(0, words_[i + 1].find(','));
      return std::string_view{};
    };
    const std::string_view time = after("time");
    if (time.empty()) refuse_word(words_[0]);
    Event event{.micros = time_in(time)};
    const std::string_view type = after("type");
    if (type.empty()) {
      std::optional<std::uint16_t> code;
      for (std::size_t i = 0; i < count_; ++i)
        if (words_[i].starts_with("SYN_")) code = number_named(code_names, words_[i]).value_or(other_event);
      if (!code) refuse_word(words_[count_ - 1]);
      event.code = *code;
      return take(event);
    }
    if (!whole_number(type, 10, event.type)) refuse_word(type);
    if (!whole_number(after("code"), 10, event.code))
      refuse_word(after("code").empty() ? type : after("code"));
    const std::string_view value = after("value");
    // Testers write the values of some other events in hexadecimal.
    if (!whole_number(value, 10, event.value) && event.type == kernel::ev_abs)
      refuse_word(value.empty() ? words_[count_ - 1] : value);
    take(event);
  }

  // "[ 1.000000] /dev/input/event2: EV_ABS ABS_MT_TRACKING_ID 00000005", or numbers in place of the names;
  // the value is hexadecimal, 32 bits, two's complement. Of several devices the first that sends contacts
  // counts.
  void dumped() {
    std::size_t at = 0;
    std::string_view time = words_[at++].substr(1);
    if (time.empty() && at < count_) time = words_[at++];
    if (time.empty() || time.back() != ']') refuse_word(time.empty() ? words_[0] : time);
    Event event{.micros = time_in(time.substr(0, time.size() - 1))};
    std::string_view device;
    if (at < count_ && words_[at].starts_with('/')) device = words_[at++];
    if (count_ < at + 3) refuse_word(words_[count_ - 1]);
    event.type = dumped_number(type_names, words_[at]);
    event.code = dumped_number(code_names, words_[at + 1]);
    std::uint32_t bits = 0;
    if (whole_number(words_[at + 2], 16, bits))
      event.value = static_cast<std::int32_t>(bits);
    else if (event.type == kernel::ev_abs && event.code != other_event)
      refuse_word(words_[at + 2]);
    any_event_ = true;
    if (!device.empty()) {
      if (device_.empty() &&
          (event.type == kernel::ev_rel || (event.type == kernel::ev_abs && event.code >= kernel::mt_slot)))
        device_ = device;
      if (device != device_) return;
    }
    take(event);
  }

  template <class Names>
  std::uint16_t dumped_number(const Names& names, std::string_view word) const {
    std::uint16_t number = 0;
    if (const auto known = number_named(names, word)) return *known;
    if (is_event_name(word)) return other_event;
    if (word.size() != 4 || !whole_number(word, 16, number)) refuse_word(word);
    return number;
  }

  // "A: 35 0 4095 0 0 12": an axis with its code (hexadecimal), least, most, fuzz, flat, resolution. The last
  // may be left out.
  void axis_line() {
    if (count_ < 6 || count_ > 7)
      protocol_.refuse(line_, fmt::format("{} figures in a line A:", count_ - 1),
                       "'A: code least most fuzz flat resolution', the code hexadecimal");
    std::uint16_t code = 0;
    if (!whole_number(words_[1], 16, code)) refuse_word(words_[1]);
    std::array<std::int32_t, 5> figures{};
    for (std::size_t i = 2; i < count_; ++i)
      if (!whole_number(words_[i], 10, figures[i - 2])) refuse_word(words_[i]);
    Range* axis = axis_of(code);
    if (axis == nullptr) return;
    axis->min = figures[0];
    axis->max = figures[1];
    if (count_ == 7) axis->resolution = figures[4];
  }

  Range* axis_of(int code) {
    if (code == kernel::mt_x) return &protocol_.ranges[0];
    if (code == kernel::mt_y) return &protocol_.ranges[1];
    if (code == kernel::mt_pressure) return &protocol_.pressure_range;
    return nullptr;
  }

  // "ABS_MT_POSITION_X min 0 max 4095 resolution 12", in one line or several, with or without = : and commas;
  // the axis by its name, or by its number after "code" (decimal) or before a colon (four hexadecimal
  // digits).
  void describe() {
    for (std::size_t i = 0; i < count_; ++i) {
      std::string word(words_[i]);
      std::string value;
      std::transform(word.begin(), word.end(), word.begin(), [](unsigned char c) { return std::tolower(c); });
      std::erase_if(word,
                    [](char c) { return std::string_view("#(),;:").find(c) != std::string_view::npos; });
      if (const std::size_t equals = word.find('='); equals != std::string::npos) {
        value = word.substr(equals + 1);
        word.resize(equals);
      }
      int code = 0;
      if (word == "abs_mt_position_x")
        axis_ = axis_of(kernel::mt_x);
      else if (word == "abs_mt_position_y")
        axis_ = axis_of(kernel::mt_y);
      else if (word == "abs_mt_pressure")
        axis_ = axis_of(kernel::mt_pressure);
      else if (word.starts_with("abs_") || word.starts_with("btn_") || word.starts_with("key_"))
        axis_ = nullptr;
      else if (word.size() == 4 && i + 1 < count_ && words_[i + 1] == ":" && whole_number(word, 16, code))
        axis_ = axis_of(code);
      else if (word == "code" && i + 1 < count_)
        axis_ = whole_number(words_[i + 1], words_[i + 1].starts_with("0x") ? 16 : 10, code) ? axis_of(code)
                                                                                             : nullptr;
      std::optional<double> Range::*field = nullptr;
      if (word == "min" || word == "minimum") field = &Range::min;
      if (word == "max" || word == "maximum") field = &Range::max;
      if (word == "res" || word == "resolution") field = &Range::resolution;
      if (field == nullptr || axis_ == nullptr) continue;
      if (value.empty() && i + 1 < count_)
        value = std::string(words_[i + 1] == "=" && i + 2 < count_ ? words_[i + 2] : words_[i + 1]);
      while (!value.empty() && (value.back() == ',' || value.back() == ';' || value.back() == ')'))
        value.pop_back();
      const auto parsed = number_of(value);
      if (!parsed || !std::isfinite(*parsed))
        protocol_.refuse(line_, fmt::format("'{}' for {}", value, word), "a number");
      axis_->*field = *parsed;
    }
  }

  std::string_view text_;
  kernel::Protocol protocol_;
  std::size_t line_ = 0;
  std::array<std::string_view, 24> words_{};
  std::size_t count_ = 0;
  Range* axis_ = nullptr;
  bool any_event_ = false;
  std::size_t strange_line_ = 0;
  std::string_view strange_;
  std::string_view device_;
};

}  // namespace

Take parse_kernel_text(std::string_view text, const std::string& name, const Mapping& mapping) {
  return TextReader(text, name, mapping).read();
}

bool is_kernel_text(std::string_view text) {
  for (std::size_t from = 0; from < text.size();) {
    const std::string_view line = text.substr(from, text.find('\n', from) - from);
    const std::size_t first = std::min(line.find_first_not_of(blanks), line.size());
    const std::string_view words = line.substr(first);
    for (const std::string_view begin :
         {"E:", "Event:", "N:", "I:", "A:", "/dev/input/", "Input driver", "add device"})
      if (words.starts_with(begin)) return true;
    if (words.starts_with('[')) {
      const std::size_t digit = std::min(words.find_first_not_of(" \t", 1), words.size());
      return digit < words.size() && words[digit] >= '0' && words[digit] <= '9';
    }
    // A take's first line that is no note is its header.
    if (!words.empty() && words.front() != '#' && words.find("time_ms") == 0) return false;
    if (line.size() == text.size() - from) break;
    from += line.size() + 1;
  }
  return false;
}

}  // namespace ubbo::io
