#include "ubbo/io/hand/hand.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>
#include <stdexcept>

#include "ubbo/base/maths.hpp"
#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

// splitmix64: a small generator whose numbers are the same on every machine, as the standard's distributions
// are not.
std::uint64_t next(std::uint64_t& state) {
  std::uint64_t z = (state += 0x9E3779B97F4A7C15U);
  z = (z ^ (z >> 30U)) * 0xBF58476D1CE4E5B9U;
  z = (z ^ (z >> 27U)) * 0x94D049BB133111EBU;
  return z ^ (z >> 31U);
}

double unit(std::uint64_t& state) { return static_cast<double>(next(state) >> 11U) * 0x1p-53; }

double bell(std::uint64_t& state) {  // Box and Muller
  const double r = std::sqrt(-2.0 * maths::log(1.0 - unit(state)));
  return r * maths::cos(2.0 * std::numbers::pi * unit(state));
}

double minimum_jerk(double u) { return u * u * u * (10.0 + u * (-15.0 + 6.0 * u)); }

}  // namespace

std::span<const HandModel> shipped_hands() {
  static constexpr std::array hands{
      HandModel{.name = "steady"},
      HandModel{.name = "bare",
                .tremor = 0.3,
                .tremor_hz = 9.5,
                .scatter = 3.0,
                .roll = 1.2,
                .bow = 0.03,
                .noise = 0.2,
                .quantum = 0.1,
                .slowness = 1.0,
                .tap = 90.0,
                .tap_spread = 18.0,
                .gap = 130.0,
                .gap_spread = 28.0,
                .size = 50.0},
      HandModel{.name = "gloved",
                .tremor = 0.7,
                .tremor_hz = 8.5,
                .scatter = 6.0,
                .roll = 2.4,
                .bow = 0.06,
                .noise = 0.35,
                .quantum = 0.25,
                .slowness = 1.3,
                .tap = 150.0,
                .tap_spread = 30.0,
                .gap = 200.0,
                .gap_spread = 40.0,
                .size = 70.0},
      HandModel{.name = "shaky",
                .tremor = 2.2,
                .tremor_hz = 5.0,
                .scatter = 8.0,
                .roll = 2.5,
                .bow = 0.08,
                .noise = 0.3,
                .quantum = 0.1,
                .slowness = 1.5,
                .tap = 180.0,
                .tap_spread = 55.0,
                .gap = 230.0,
                .gap_spread = 70.0,
                .size = 50.0},
  };
  return hands;
}

const HandModel& find_hand(std::string_view name) {
  std::vector<std::string_view> known;
  for (const HandModel& hand : shipped_hands()) {
    if (name == hand.name) return hand;
    known.emplace_back(hand.name);
  }
  const std::string nearest = nearest_name(name, known);
  throw std::invalid_argument(fmt::format("no hand '{}'; takes {}{}", name, fmt::join(known, ", "),
                                          nearest.empty() ? "" : "; nearest known: " + nearest));
}

Hand::Hand(const HandModel& model, std::uint64_t seed, double rate)
    : model_(model), seed_(seed), state_(seed), rate_(rate) {
  if (!(rate >= 10.0 && rate <= 2000.0))
    throw std::invalid_argument(
        fmt::format("rate = {} is not taken; it takes 10 to 2000 samples a second", rate));
}

double Hand::uniform() { return unit(state_); }
double Hand::normal() { return bell(state_); }

Micros Hand::about(double ms, double spread) {
  // A hand has a shortest time, and no endless one.
  return from_ms(std::clamp(ms + spread * normal(), ms * 0.4, ms * 2.5));
}

Hand& Hand::finger(int number) {
  if (number < 1 || number > static_cast<int>(tracks_.size()))
    throw std::invalid_argument(
        fmt::format("finger {} is not taken; it takes 1 to {}", number, tracks_.size()));
  active_ = static_cast<std::size_t>(number - 1);
  return *this;
}

Hand& Hand::press(Point at) {
  Track& track = tracks_[active_];
  if (track.down) return *this;
  track.down = true;
  track.at = at;
  Contact contact{.down = now_, .up = now_, .at = at, .scatter = {}, .roll = {}, .strokes = {}};
  contact.scatter = Point{normal(), normal()} * model_.scatter;
  const double way = 2.0 * std::numbers::pi * uniform();
  contact.roll = turned({model_.roll * uniform(), 0.0}, way);
  for (double& phase : contact.phases) phase = 2.0 * std::numbers::pi * uniform();
  track.contacts.push_back(std::move(contact));
  return *this;
}

Hand& Hand::stroke(Point to, Micros over, bool half) {
  Track& track = tracks_[active_];
  if (!track.down) return *this;
  const Point way = to - track.at;
  const double aside = model_.bow * (2.0 * uniform() - 1.0);
  track.contacts.back().strokes.push_back(
      {now_, now_ + over, track.at, to, Point{-way.y, way.x} * aside, half});
  track.at = to;
  now_ += over;
  return *this;
}

Hand& Hand::move_to(Point at, Micros over) {
  return stroke(at, from_seconds(to_seconds(over) * model_.slowness), false);
}

Hand& Hand::drag(Point by, Micros over) { return move_to(tracks_[active_].at + by, over); }

Hand& Hand::flick(Point by, double speed) {
  // The first half of a minimum-jerk path of twice the length ends at its peak, 1.875 lengths in its own
  // time.
  const double seconds = 1.875 * length(by) / std::max(speed, 1.0);
  stroke(tracks_[active_].at + by, from_seconds(seconds), true);
  return lift();
}

Hand& Hand::wait(Micros time) {
  now_ += time;
  return *this;
}

void Hand::end(bool cancelled) {
  Track& track = tracks_[active_];
  if (!track.down) return;
  track.down = false;
  Contact& contact = track.contacts.back();
  contact.up = now_;
  contact.ended = true;
  contact.cancelled = cancelled;
}

Hand& Hand::lift() {
  end(false);
  return *this;
}

Hand& Hand::cancel() {
  end(true);
  return *this;
}

Hand& Hand::tap(Point at, int times) {
  for (int i = 0; i < times; ++i) {
    if (i > 0) wait(about(model_.gap, model_.gap_spread));
    press(at);
    wait(about(model_.tap, model_.tap_spread));
    lift();
  }
  return *this;
}

Hand& Hand::pinch(Point centre, double from, double to, double angle, Micros over) {
  const std::size_t first = active_;
  const std::size_t second = (active_ + 1) % tracks_.size();
  const Micros lasts = from_seconds(to_seconds(over) * model_.slowness);
  const auto ends_at = [&](double fraction, double side) {
    const double reach = (from + (to - from) * fraction) / 2.0 * side;
    const double turn = angle * fraction;
    return centre + turned({reach, 0.0}, turn);
  };
  const Micros begin = now_;
  for (const std::size_t finger : {first, second}) {
    const double side = finger == first ? -1.0 : 1.0;
    active_ = finger;
    now_ =
        begin + (finger == first ? Micros{0} : from_ms(12.0 * uniform() * (model_.noise > 0.0 ? 1.0 : 0.0)));
    press(ends_at(0.0, side));
    now_ = begin + from_ms(40.0);
    // A turn is a chain of short chords, so that the fingers go around and not across.
    constexpr int chords = 24;
    double done = 0.0;
    for (int i = 1; i <= chords; ++i) {
      const double fraction = minimum_jerk(static_cast<double>(i) / chords);
      tracks_[active_].contacts.back().strokes.push_back({now_ + lasts * (i - 1) / chords,
                                                          now_ + lasts * i / chords,
                                                          ends_at(done, side),
                                                          ends_at(fraction, side),
                                                          {},
                                                          false});
      done = fraction;
    }
    now_ += lasts;
    tracks_[active_].at = ends_at(1.0, side);
    wait(from_ms(30.0));
    lift();
  }
  active_ = first;
  return *this;
}

Hand& Hand::hover_to(Point at, Micros over) {
  const Point from = hovering_.value_or(at);
  if (!hovering_) over = Micros{0};
  hovers_.push_back({now_, now_ + over, from, at, {}, false});
  hovering_ = at;
  now_ += over;
  return *this;
}

Hand& Hand::leave() {
  if (!hovering_) return *this;
  leaves_.emplace_back(now_, *hovering_);
  hovering_.reset();
  return *this;
}

Hand& Hand::action(Action action) {
  action.time = now_;
  done_.push_back(std::move(action));
  return *this;
}

Hand& Hand::wheel(WheelTurn turn, Micros over) {
  constexpr Micros gap{60'000};
  const auto says = [&](Point by, double scale, WheelPhase phase) {
    WheelTurn one = turn;
    one.by = by;
    one.scale = scale;
    one.phase = phase;
    action(wheel_action(one));
  };
  const double far = std::fmax(std::fabs(turn.by.x), std::fabs(turn.by.y));
  if (over > Micros{0}) {
    const auto frames = static_cast<int>(std::fmax(1.0, std::ceil(to_seconds(over) * rate_)));
    double before = 0.0;
    for (int i = 1; i <= frames; ++i) {
      const double done = minimum_jerk(static_cast<double>(i) / frames);
      now_ += Micros{over.count() / frames};
      says(turn.by * (done - before), maths::exp(maths::log(turn.scale) * (done - before)),
           i == 1 ? WheelPhase::begin : WheelPhase::change);
      before = done;
    }
    says({}, 1.0, WheelPhase::end);
  } else if (turn.unit == WheelUnit::notch && far > 1.0) {
    for (double left = far; left > 0.0; left -= 1.0) {
      says(turn.by * (std::fmin(left, 1.0) / far), 1.0, WheelPhase::none);
      if (left > 1.0) now_ += gap;
    }
  } else {
    says(turn.by, turn.scale, WheelPhase::none);
  }
  return *this;
}

Hand& Hand::rewind(Micros time) {
  now_ = time;
  return *this;
}

Point Hand::place(const Contact& contact, Micros time) const {
  Point at = contact.at;
  for (const Stroke& stroke : contact.strokes) {
    if (time < stroke.begins) break;
    if (time >= stroke.ends) {
      at = stroke.to;
      continue;
    }
    const double u = to_seconds(time - stroke.begins) / to_seconds(stroke.ends - stroke.begins);
    const double fraction = stroke.half ? 2.0 * minimum_jerk(u / 2.0) : minimum_jerk(u);
    // The bend grows and fades with the way, and leaves the end where it was meant to be.
    at = stroke.from + (stroke.to - stroke.from) * fraction +
         stroke.bend * (4.0 * fraction * (1.0 - fraction));
    break;
  }
  return at;
}

Take Hand::take() const {
  Take made;
  made.notes = {{"hand", fmt::format("{}, seed {}, {} Hz, made not recorded", model_.name, seed_, rate_)}};
  std::uint64_t noise = seed_ ^ 0xA5A5A5A5A5A5A5A5U;
  const auto frame = [&](Micros time) {  // the sensor's first frame at or after a time
    return std::ceil(to_seconds(time) * rate_ - 1e-6);
  };
  const auto time_of = [&](double number) { return from_ms(number * 1e3 / rate_); };
  for (std::size_t finger = 0; finger < tracks_.size(); ++finger) {
    for (const Contact& contact : tracks_[finger].contacts) {
      const Micros ends = contact.ended ? contact.up : std::max(now_, contact.down);
      const double first = frame(contact.down);
      const double last = std::max(frame(ends), first + 1.0);
      Point shown{};
      for (double k = first; k <= last; k += 1.0) {
        const Micros time = time_of(k);
        const double age = to_seconds(std::max(Micros{0}, time - contact.down));
        const double settled = std::min(age / 0.06, 1.0);  // the tip is pressed flat within some 60 ms
        Point at = place(contact, std::min(time, ends)) + contact.scatter + contact.roll * settled;
        const double w = 2.0 * std::numbers::pi * model_.tremor_hz * age;
        at = at + Point{maths::sin(w + contact.phases[0]) + 0.5 * maths::sin(1.31 * w + contact.phases[1]),
                        maths::sin(0.93 * w + contact.phases[2]) +
                            0.5 * maths::sin(1.24 * w + contact.phases[3])} *
                      (model_.tremor * settled * 0.67);
        at = at + Point{bell(noise), bell(noise)} * model_.noise;
        if (model_.quantum > 0.0)
          at = {std::round(at.x / model_.quantum) * model_.quantum,
                std::round(at.y / model_.quantum) * model_.quantum};
        const bool is_first = k == first;
        const bool is_last = k == last && contact.ended;
        if (!is_last) shown = at;  // the lift repeats the last place the sensor saw
        const Phase phase = is_first            ? Phase::down
                            : !is_last          ? Phase::move
                            : contact.cancelled ? Phase::cancel
                                                : Phase::up;
        made.samples.push_back({.time = time,
                                .contact = static_cast<int>(finger) + 1,
                                .phase = phase,
                                .at = {std::round(shown.x * 1e4) / 1e4, std::round(shown.y * 1e4) / 1e4},
                                .pressure = is_last ? 0.0 : std::round((0.4 + 0.3 * settled) * 100.0) / 100.0,
                                .size = model_.size});
      }
    }
  }
  // A mouse tells of itself while it moves, and once when it has come.
  const auto over = [&](Micros time, Point at, Phase phase) {
    made.samples.push_back({.time = time,
                            .phase = phase,
                            .at = {std::round(at.x * 1e4) / 1e4, std::round(at.y * 1e4) / 1e4},
                            .pressure = 0.0,
                            .tool = Tool::mouse});
  };
  for (const Stroke& way : hovers_) {
    const double last = frame(way.ends);
    for (double k = frame(way.begins); k <= last; k += 1.0) {
      const Micros lasts = way.ends - way.begins;
      const double u = lasts > Micros{0} ? to_seconds(time_of(k) - way.begins) / to_seconds(lasts) : 1.0;
      over(time_of(k), way.from + (way.to - way.from) * minimum_jerk(std::min(u, 1.0)), Phase::hover);
    }
  }
  for (const auto& [time, at] : leaves_) over(time_of(frame(time)), at, Phase::leave);
  std::stable_sort(made.samples.begin(), made.samples.end(),
                   [](const Sample& a, const Sample& b) { return a.time < b.time; });
  made.actions = done_;
  std::stable_sort(made.actions.begin(), made.actions.end(),
                   [](const Action& a, const Action& b) { return a.time < b.time; });
  for (Action& action : made.actions)
    action.before = static_cast<std::size_t>(
        std::upper_bound(made.samples.begin(), made.samples.end(), action.time,
                         [](Micros time, const Sample& sample) { return time < sample.time; }) -
        made.samples.begin());
  return made;
}

}  // namespace ubbo::io
