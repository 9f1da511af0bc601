#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <map>

#include "ubbo/io/take/recording.hpp"
#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/harmless.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io {

namespace {

constexpr double latest = 1e13;  // ms

class PointerReader {
 public:
  PointerReader(std::string_view text, const std::string& name) : text_(text), name_(name) {}

  Take read() {
    for (std::size_t from = 0; from < text_.size();) {
      const std::size_t end = std::min(text_.find('\n', from), text_.size());
      const std::string_view line = text_.substr(from, end - from);
      from = end + 1;
      ++line_;
      if (line.find_first_not_of(" \t\r") == std::string_view::npos) continue;
      const Json event = read_json(line, name_, line_);
      if (!event.is_object()) refuse("a line that is no JSON object", "one pointer event a line");
      read_event(event);
    }
    if (take_.samples.empty() && take_.actions.empty()) refuse("no contact", "at least one pointerdown");
    Micros begin = never;
    if (!take_.samples.empty()) begin = take_.samples.front().time;
    if (!take_.actions.empty()) begin = std::min(begin, take_.actions.front().time);
    for (Sample& sample : take_.samples) sample.time -= begin;
    for (Action& action : take_.actions) action.time -= begin;
    return std::move(take_);
  }

 private:
  [[noreturn]] void refuse(std::string_view found, std::string_view takes,
                           std::string_view nearest = {}) const {
    throw InputError({name_, line_, 1, std::string(found), std::string(takes), std::string(nearest)});
  }

  double number(const Json& event, const char* key, double standard, double min, double max) const {
    const Json* found = event.find(key);
    if (found == nullptr && std::isfinite(standard)) return standard;
    if (found == nullptr)
      refuse(fmt::format("an event without {}", key), "type, pointerId, clientX, clientY, timeStamp");
    if (!found->is_number() || !(found->number() >= min && found->number() <= max))
      refuse(fmt::format("{} {}", key, harmless(json_text(*found, -1)).substr(0, 40)),
             fmt::format("a number from {} to {}", min, max));
    return found->number();
  }

  void read_event(const Json& event) {
    const Json* type = event.find("type");
    if (type == nullptr || !type->is_string())
      refuse("an event without a type", "pointerdown, pointermove, pointerup, pointercancel, …");
    const std::string& name = type->text();
    if (name == "wheel") return add_wheel(event);
    if (!name.starts_with("pointer"))
      refuse(fmt::format("type '{}'", name.substr(0, 40)), "the types of Pointer Events, or wheel");
    Phase phase = Phase::move;
    if (name == "pointerdown")
      phase = Phase::down;
    else if (name == "pointerup")
      phase = Phase::up;
    else if (name == "pointercancel")
      phase = Phase::cancel;
    else if (name == "pointerleave")
      phase = Phase::leave;
    else if (name != "pointermove" && name != "pointerrawupdate")
      return;  // enter, over, out, capture

    // The last of the coalesced events stands for the event itself.
    for (const char* key : {"coalescedEvents", "coalesced"}) {
      const Json* list = event.find(key);
      if (list == nullptr) continue;
      if (!list->is_array()) refuse(fmt::format("{} that is no list", key), "a list of events");
      for (const Json& one : *list) {
        if (!one.is_object()) refuse("a coalesced event that is no object", "an event");
        add(one, event, phase);
      }
      constexpr double none = std::numeric_limits<double>::quiet_NaN();
      if (!list->empty() && number(list->back(), "timeStamp", none, 0.0, latest) ==
                                number(event, "timeStamp", none, 0.0, latest))
        return;
    }
    add(event, event, phase);
  }

  // Browsers tell neither phases nor pinches: a pinch on a trackpad comes as a wheel with the control key
  // down.
  void add_wheel(const Json& event) {
    constexpr double none = std::numeric_limits<double>::quiet_NaN();
    constexpr double far = Contacts::farthest;
    WheelTurn turn;
    turn.time = from_ms(number(event, "timeStamp", none, 0.0, latest));
    turn.at = {number(event, "clientX", none, -far, far), number(event, "clientY", none, -far, far)};
    turn.by = {number(event, "deltaX", 0.0, -far, far), number(event, "deltaY", 0.0, -far, far)};
    constexpr std::array modes{WheelUnit::dp, WheelUnit::line, WheelUnit::page};
    turn.unit = modes.at(static_cast<std::size_t>(number(event, "deltaMode", 0.0, 0.0, 2.0)));
    turn.zooms = event.at("ctrlKey").is_boolean() && event.at("ctrlKey").boolean();
    // A wheel's notch is 120 of these, whatever it scrolls by; of a trackpad they are three times its way.
    constexpr double notch = 120.0;
    constexpr double fine = -3.0;
    const Point whole{number(event, "wheelDeltaX", 0.0, -far, far),
                      number(event, "wheelDeltaY", 0.0, -far, far)};
    if (turn.unit != WheelUnit::page && !(whole == Point{}) && !(whole == turn.by * fine) &&
        std::fmod(whole.x, notch) == 0.0 && std::fmod(whole.y, notch) == 0.0) {
      turn.by = Point{} - whole * (1.0 / notch);
      turn.unit = WheelUnit::notch;
    }
    in_order(turn.time);
    Action action = wheel_action(turn);
    action.before = take_.samples.size();
    action.line = line_;
    take_.actions.push_back(std::move(action));
  }

  void in_order(Micros time) {
    if (time < last_)
      refuse(fmt::format("timeStamp {} after {}", to_ms(time), to_ms(last_)), "times that do not decrease");
    last_ = time;
  }

  void add(const Json& event, const Json& whole, Phase phase) {
    constexpr double none = std::numeric_limits<double>::quiet_NaN();
    Sample sample;
    sample.phase = phase;
    sample.time = from_ms(number(event, "timeStamp", none, 0.0, latest));
    sample.contact = static_cast<int>(
        number(event.contains("pointerId") ? event : whole, "pointerId", none, -2147483648.0, 2147483647.0));
    const double unsaid = phase == Phase::leave ? 0.0 : none;  // where it left from tells nothing
    sample.at = {number(event, "clientX", unsaid, -Contacts::farthest, Contacts::farthest),
                 number(event, "clientY", unsaid, -Contacts::farthest, Contacts::farthest)};
    sample.pressure = number(event, "pressure", 0.5, 0.0, 1.0);
    sample.size = number(event, "width", 0.0, 0.0, 10'000.0);
    const std::string kind = whole.at("pointerType").is_string() ? whole.at("pointerType").text() : "touch";
    sample.tool = kind == "pen" ? Tool::stylus : kind == "mouse" ? Tool::mouse : Tool::finger;
    if (sample.size == 1.0) sample.size = 0.0;  // what a device that cannot tell reports
    in_order(sample.time);
    // Without a contact only a mouse or pen is over the screen; a finger has just lifted.
    if (phase == Phase::down)
      down_[sample.contact] = true;
    else if (!down_[sample.contact] &&
             (sample.tool == Tool::finger || (phase != Phase::move && phase != Phase::leave)))
      return;
    else if (!down_[sample.contact])
      sample.phase = phase == Phase::move ? Phase::hover : Phase::leave;
    else if (phase == Phase::leave)
      return;  // it has a contact, and goes on
    if (phase == Phase::up || phase == Phase::cancel) down_[sample.contact] = false;
    take_.samples.push_back(sample);
  }

  std::string_view text_;
  const std::string& name_;
  std::size_t line_ = 0;
  std::map<int, bool> down_;
  Micros last_ = Micros::min();
  Take take_;
};

}  // namespace

Take parse_pointer_events(std::string_view text, const std::string& name) {
  return PointerReader(text, name).read();
}

}  // namespace ubbo::io
