#include "ubbo/io/take/take_info.hpp"

#include <fmt/format.h>

#include <array>
#include <cmath>
#include <map>
#include <numbers>

#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/touch/gestures.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

namespace {

double degrees(double radians) { return radians * 180.0 / std::numbers::pi; }

std::vector<ContactInfo> contacts_of(const Take& take) {
  std::vector<ContactInfo> list;
  std::map<std::pair<int, int>, std::pair<std::size_t, Sample>>
      open;  // by device and id: place in the list, last sample
  for (const Sample& sample : take.samples) {
    const std::pair key{sample.device, sample.contact};
    if (sample.phase == Phase::down && !open.contains(key)) {
      list.push_back({.id = sample.contact, .start = sample.time, .samples = 1, .net = {}, .ended = "open"});
      open[key] = {list.size() - 1, sample};
      continue;
    }
    const auto found = open.find(key);
    if (found == open.end()) continue;
    auto& [index, last] = found->second;
    ContactInfo& info = list[index];
    ++info.samples;
    info.path += length(sample.at - last.at);
    info.net = info.net + (sample.at - last.at);
    info.duration = sample.time - info.start;
    last = sample;
    if (sample.phase == Phase::move || sample.phase == Phase::down) continue;
    info.ended = name_of(sample.phase);
    open.erase(found);
  }
  return list;
}

std::vector<HoverInfo> hovers_of(const Take& take) {
  std::vector<HoverInfo> list;
  std::map<std::pair<int, Tool>, std::pair<std::size_t, Point>> open;  // its place in the list, where it was
  for (const Sample& sample : take.samples) {
    const std::pair key{sample.device, sample.tool};
    const auto found = open.find(key);
    const bool hovers = sample.phase == Phase::hover;
    if (found == open.end()) {
      if (!hovers) continue;
      list.push_back({.tool = sample.tool,
                      .device = sample.device,
                      .start = sample.time,
                      .samples = 1,
                      .ended = "open"});
      open[key] = {list.size() - 1, sample.at};
      continue;
    }
    HoverInfo& info = list[found->second.first];
    info.duration = sample.time - info.start;
    if (hovers) {
      ++info.samples;
      info.path += length(sample.at - found->second.second);
      found->second.second = sample.at;
    } else {
      info.ended = name_of(sample.phase);
      open.erase(found);
    }
  }
  return list;
}

std::vector<WheelInfo> wheels_of(const Take& take) {
  constexpr Micros apart{300'000};
  std::vector<WheelInfo> list;
  for (const Action& action : take.actions) {
    if (action.kind != Action::Kind::wheel) continue;
    const auto turn = wheel_turn(action);
    if (!turn) continue;
    const auto goes_on = [&](const WheelInfo& last) {
      return last.unit == turn->unit && last.zooms == turn->zooms &&
             turn->time - last.start - last.duration < apart;
    };
    if (list.empty() || !goes_on(list.back()))
      list.push_back({.start = turn->time, .at = turn->at, .unit = turn->unit, .zooms = turn->zooms});
    WheelInfo& info = list.back();
    ++info.turns;
    info.duration = turn->time - info.start;
    info.total = info.total + turn->by;
    info.scale *= turn->scale;
  }
  return list;
}

// "1 wheel", "3 wheels".
std::string counted(std::size_t count, const char* what) {
  return fmt::format("{} {}{}", count, what, count == 1 ? "" : "s");
}

}  // namespace

TakeInfo inspect(const Take& take, const Feel& feel, Box screen) {
  TakeInfo info;
  info.contacts = contacts_of(take);
  info.hovers = hovers_of(take);
  info.wheels = wheels_of(take);
  Journal journal(4096);
  std::vector<Gesture> news;
  // The longer row is told in place of the shorter one, so taps are read once no more can follow.
  Gestures gestures({.taps = 3, .report_tap = ReportTap::after_wait}, {.journal = &journal},
                    [&](const Gesture& g) {
                      if (g.step == GesturePhase::ended && g.kind != GestureKind::press) news.push_back(g);
                    });
  Contacts contacts;
  const auto collect = [&] {
    info.decisions.insert(info.decisions.end(), journal.decisions().begin(), journal.decisions().end());
    journal.clear();
  };
  for (const Sample& sample : take.samples) {
    const Contacts::Admitted admitted = contacts.admit(sample, feel.smoothing);
    if (admitted.contact == nullptr) continue;
    gestures.advance(admitted.contact->seen.time);
    gestures.touch(*admitted.contact, admitted.contact->seen, feel, screen);
    if (sample.phase == Phase::up || sample.phase == Phase::cancel) contacts.close(*admitted.contact);
    if (journal.decisions().size() * 2 > journal.room()) collect();
  }
  while (gestures.due() != never) gestures.advance(gestures.due());
  collect();
  for (const Gesture& gesture : news) {
    // A drag that turned out a flick is one gesture.
    if (gesture.kind == GestureKind::flick && !info.gestures.empty() &&
        info.gestures.back().time == gesture.time)
      info.gestures.pop_back();
    info.gestures.push_back(gesture);
  }
  return info;
}

std::string title(const Gesture& gesture) {
  static constexpr std::array rows{"tap", "double tap", "triple tap"};
  switch (gesture.kind) {
    case GestureKind::tap:
      return gesture.count <= 3 ? rows[static_cast<std::size_t>(gesture.count - 1)]
                                : fmt::format("{} taps", gesture.count);
    case GestureKind::flick:
    case GestureKind::drag:
    case GestureKind::hold_drag:
      return fmt::format("{} {}", name_of(gesture.kind), name_of(gesture.side));
    case GestureKind::edge_swipe:
      return fmt::format("edge swipe from {}", name_of(gesture.side));
    case GestureKind::pinch:
      return gesture.scale < 1.0 ? "pinch in" : "pinch out";
    case GestureKind::rotate:
      return fmt::format("rotate {:.0f} degrees", degrees(gesture.angle));
    default:
      return name_of(gesture.kind);
  }
}

std::string info_text(const TakeInfo& info, const char* unit) {
  std::string text =
      fmt::format("{}\n  {:>6} {:>10} {:>10} {:>8} {:>10} {:>10} {:>10}  ended\n",
                  counted(info.contacts.size(), "contact"), "id", "start ms", "lasts ms", "samples",
                  fmt::format("path {}", unit), fmt::format("dx {}", unit), fmt::format("dy {}", unit));
  for (const ContactInfo& c : info.contacts)
    text += fmt::format("  {:>6} {:>10.1f} {:>10.1f} {:>8} {:>10.1f} {:>10.1f} {:>10.1f}  {}\n", c.id,
                        to_ms(c.start), to_ms(c.duration), c.samples, c.path, c.net.x, c.net.y, c.ended);
  if (!info.hovers.empty())
    text += fmt::format("\n{} without touching\n", counted(info.hovers.size(), "pointer"));
  for (const HoverInfo& hover : info.hovers)
    text += fmt::format("  {:>8.1f} to {:>8.1f} ms  {:<22} {} samples, path {:.1f} {}, ended: {}\n",
                        to_ms(hover.start), to_ms(hover.start + hover.duration), name_of(hover.tool),
                        hover.samples, hover.path, unit, hover.ended);
  if (!info.wheels.empty())
    text += fmt::format("\n{}\n", counted(info.wheels.size(), "scroll") + " by wheel or trackpad");
  static constexpr std::array plurals{"dp", "lines", "pages", "notches"};
  for (const WheelInfo& wheel : info.wheels) {
    std::string way =
        fmt::format("{} right, {} down, {}", plain(wheel.total.x), plain(wheel.total.y),
                    wheel.unit == WheelUnit::dp ? unit : plurals[static_cast<std::size_t>(wheel.unit)]);
    if (wheel.zooms) way += ", zooms";
    if (wheel.scale != 1.0) way += ", scale " + plain(wheel.scale);
    text += fmt::format("  {:>8.1f} to {:>8.1f} ms  {:<22} at ({:.1f}, {:.1f}): {}\n", to_ms(wheel.start),
                        to_ms(wheel.start + wheel.duration), counted(wheel.turns, "turn"), wheel.at.x,
                        wheel.at.y, way);
  }
  text += fmt::format("\n{}\n", counted(info.gestures.size(), "gesture"));
  for (const Gesture& g : info.gestures)
    text += fmt::format("  {:>8.1f} to {:>8.1f} ms  {:<22} at ({:.1f}, {:.1f})\n", to_ms(g.began),
                        to_ms(g.time), title(g), g.at.x, g.at.y);
  if (!info.feel.empty()) text += fmt::format("\nby the feel {}\n", info.feel);
  if (!info.decisions.empty()) text += "\nwhy\n";
  for (const Decision& decision : info.decisions)
    text += fmt::format("  {:>8.1f} ms  {}\n", to_ms(decision.time), words::sentence(decision));
  return text;
}

std::string info_json(const TakeInfo& info) {
  Json root{{"feel", info.feel}, {"contacts", Json::array()}, {"gestures", Json::array()}};
  for (const ContactInfo& c : info.contacts)
    root["contacts"].push_back({{"id", c.id},
                                {"start_ms", to_ms(c.start)},
                                {"duration_ms", to_ms(c.duration)},
                                {"samples", c.samples},
                                {"path_dp", rounded(c.path)},
                                {"net_dx_dp", rounded(c.net.x)},
                                {"net_dy_dp", rounded(c.net.y)},
                                {"ended", c.ended}});
  root["hovers"] = Json::array();
  for (const HoverInfo& hover : info.hovers)
    root["hovers"].push_back({{"tool", name_of(hover.tool)},
                              {"device", hover.device},
                              {"start_ms", to_ms(hover.start)},
                              {"duration_ms", to_ms(hover.duration)},
                              {"samples", hover.samples},
                              {"path_dp", rounded(hover.path)},
                              {"ended", hover.ended}});
  root["wheels"] = Json::array();
  for (const WheelInfo& wheel : info.wheels)
    root["wheels"].push_back({{"start_ms", to_ms(wheel.start)},
                              {"duration_ms", to_ms(wheel.duration)},
                              {"turns", wheel.turns},
                              {"x", rounded(wheel.at.x)},
                              {"y", rounded(wheel.at.y)},
                              {"right", rounded(wheel.total.x)},
                              {"down", rounded(wheel.total.y)},
                              {"unit", name_of(wheel.unit)},
                              {"scale", rounded(wheel.scale)},
                              {"zooms", wheel.zooms}});
  for (const Gesture& g : info.gestures) {
    Json one{{"kind", name_of(g.kind)}, {"title", title(g)},    {"start_ms", to_ms(g.began)},
             {"end_ms", to_ms(g.time)}, {"x", rounded(g.at.x)}, {"y", rounded(g.at.y)}};
    if (g.kind == GestureKind::tap) one["count"] = g.count;
    if (g.kind != GestureKind::tap && g.kind != GestureKind::long_press) {
      one["dx_dp"] = rounded(g.offset.x);
      one["dy_dp"] = rounded(g.offset.y);
      one["speed_dp_s"] = rounded(length(g.velocity));
    }
    if (g.kind == GestureKind::pan || g.kind == GestureKind::pinch || g.kind == GestureKind::rotate) {
      one["scale"] = rounded(g.scale);
      one["angle_degrees"] = rounded(degrees(g.angle));
    }
    root["gestures"].push_back(std::move(one));
  }
  return json_text(root);
}

Box screen_of(const Take& take) {
  const Size size = size_of(take.note("screen")).value_or(Size{});
  if (size.w >= 1.0 && size.h >= 1.0 && size.w < 1e5 && size.h < 1e5) return {0.0, 0.0, size.w, size.h};
  return {};
}

}  // namespace ubbo::io
