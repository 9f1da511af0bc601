#include "ubbo/touch/gestures.hpp"

#include <array>
#include <cmath>
#include <numbers>
#include <utility>

#include "ubbo/base/maths.hpp"

namespace ubbo {

namespace {

constexpr std::array tell_names{"immediately", "after-wait"};
constexpr std::array drags_names{"none", "horizontal", "vertical", "both"};

GestureKind gesture_of(PairKind kind) {
  if (kind == PairKind::pinch) return GestureKind::pinch;
  return kind == PairKind::rotate ? GestureKind::rotate : GestureKind::pan;
}

double degrees(double radians) { return radians * 180.0 / std::numbers::pi; }

}  // namespace

template <>
std::span<const Setting<GestureSettings>> settings_of<GestureSettings>() {
  using S = GestureSettings;
  static const std::array table{
      declare::number<&S::taps>("taps", "", 1.0, 9.0,
                                "the most taps that are counted as one row; 2: double taps"),
      declare::choice<&S::report_tap>(
          "report_tap", tell_names,
          "a tap that could become a double tap is reported at once, or held until it cannot"),
      declare::flag<&S::long_press>("long_press", "look for long presses, and drags after them"),
      declare::choice<&S::drags>("drags", drags_names,
                                 "which drags it follows; others only withdraw the press"),
      declare::flag<&S::two_contacts>("two_contacts", "look for pan, pinch and rotation by two contacts"),
      declare::flag<&S::edges>("edges", "look for swipes from the edges of the screen"),
  };
  return table;
}

Gestures::Gestures(GestureSettings settings, DecisionLog log, std::function<void(const Gesture&)> report)
    : settings_(settings), log_(log), report_(std::move(report)) {
  check_settings("gestures", settings_);
  constexpr std::size_t max_news = 32;
  news_.reserve(max_news);
}

void Gestures::say(GestureKind kind, GesturePhase step, Micros time) {
  now_.kind = kind;
  now_.step = step;
  now_.time = time;
  news_.push_back(now_);
}

// What a callback brings about is reported by the outermost call.
void Gestures::report() {
  if (reporting_) return;
  reporting_ = true;
  struct Done {
    Gestures* self;
    std::size_t next = 0;
    ~Done() {  // also when a callback throws: what it has not heard yet comes with the next news
      self->news_.erase(self->news_.begin(), self->news_.begin() + static_cast<std::ptrdiff_t>(next));
      self->reporting_ = false;
    }
  } done{this};
  while (done.next < news_.size()) {
    const Gesture news = news_[done.next++];
    if (report_) report_(news);
  }
}

Micros Gestures::due() const {
  Micros next = never;
  if (state_ == State::pressed && settings_.long_press && drag_.strayed() <= feel_.tap_reach)
    next = down_time_ + feel_.hold_delay;
  // While a contact is down the row waits for it to become a tap or not.
  if (row_ > 0 && state_ == State::idle) next = std::min(next, row_lifted_ + feel_.multi_tap_gap);
  return next;
}

void Gestures::advance(Micros now) {
  while (due() <= now) happen();
  report();
}

void Gestures::happen() {
  if (state_ == State::pressed) {
    const Micros time = down_time_ + feel_.hold_delay;
    log_.say(time, answers::held, {to_ms(feel_.hold_delay), to_ms(feel_.hold_delay)},
             {drag_.strayed(), feel_.tap_reach});
    if (row_ > 0) report_row(time, true);
    state_ = State::held;
    say(GestureKind::press, GesturePhase::withdrawn, time);
    say(GestureKind::long_press, GesturePhase::began, time);
    return;
  }
  row_closed_after_ = feel_.multi_tap_gap;
  report_row(row_lifted_ + row_closed_after_, true);
  row_seen_ = true;  // time closed it, and nothing else: a further tap can have missed it
}

void Gestures::touch(const Contact& contact, const Sample& sample, const Feel& feel, const Box& screen) {
  feel_ = feel;
  screen_ = screen;
  switch (sample.phase) {
    case Phase::down:
      ++contacts_;
      if (state_ == State::idle)
        down(contact, sample);
      else
        second_down(contact, sample);
      break;
    case Phase::move:
      move(contact, sample);
      break;
    case Phase::up:
      move(contact, sample);
      contacts_ = std::max(0, contacts_ - 1);
      lift(contact, sample);
      break;
    case Phase::cancel:
      contacts_ = std::max(0, contacts_ - 1);
      if (contact.slot == first_ || contact.slot == second_) abandon(sample.time);
      break;
    case Phase::hover:
    case Phase::leave:
      break;  // of no contact
  }
  if (contacts_ == 0) {
    state_ = State::idle;
    first_ = second_ = none;
  }
  report();
}

void Gestures::down(const Contact& contact, const Sample& sample) {
  state_ = State::pressed;
  first_ = contact.slot;
  second_ = none;
  first_at_ = sample.at;
  down_time_ = sample.time;
  drag_.press(sample.at);
  locked_ = false;
  // A row that has closed by itself is not joined any more, but one wants to know by how much it was missed.
  constexpr int worth_saying = 4;
  if (row_ > 0 || (row_seen_ && sample.time - row_lifted_ <= feel_.multi_tap_gap * worth_saying))
    join_row(sample);
  row_seen_ = false;
  now_ = {.began = sample.time, .at = sample.at, .count = row_ + 1};
  say(GestureKind::press, GesturePhase::began, sample.time);
}

void Gestures::join_row(const Sample& sample) {
  const double gap = to_ms(sample.time - row_lifted_);
  const double apart = length(sample.at - row_at_);
  // One that has closed did so by the feel of what tapped then, at the gap itself.
  const double longest = to_ms(row_ > 0 ? feel_.multi_tap_gap : row_closed_after_);
  const bool soon = row_ > 0 && gap <= longest;
  const bool near = apart <= feel_.multi_tap_reach;
  log_.say(sample.time,
           !soon  ? answers::again_too_late
           : near ? answers::again
                  : answers::again_too_far,
           {gap, longest}, {apart, feel_.multi_tap_reach}, std::max(row_, 1));
  if (row_ > 0 && (!soon || !near)) report_row(sample.time, true);
}

// Reports the row of taps if that is still to be done, and closes it.
void Gestures::report_row(Micros now, bool waited) {
  if (!row_reported_) {
    const Gesture kept = now_;
    const answers::TapReport& one = waited ? answers::tap_after_wait : answers::tap_at_once;
    const answers::TapReport& many = waited ? answers::row_after_wait : answers::row_at_once;
    log_.say(now, row_ == 1 ? one : many, to_ms(now - row_lifted_), row_);
    now_.count = row_;
    now_.at = row_at_;
    now_.began = row_began_;
    say(GestureKind::tap, GesturePhase::ended, now);
    now_ = kept;
  }
  row_seen_ = false;
  row_ = 0;
  row_reported_ = false;
}

void Gestures::second_down(const Contact& contact, const Sample& sample) {
  const bool ready = settings_.two_contacts && second_ == none && state_ != State::spent;
  if (!ready) return;
  abandon(sample.time);
  state_ = State::two;
  second_ = contact.slot;
  second_at_ = sample.at;
  pair_.press(first_at_, second_at_);
}

void Gestures::move_pair(const Sample& sample) {
  const bool began = pair_.move(first_at_, second_at_, feel_);
  now_.at = pair_.centre();
  if (began) {
    const answers::Pairs& does = pair_.kind() == PairKind::pan     ? answers::pair_pans
                                 : pair_.kind() == PairKind::pinch ? answers::pair_pinches
                                                                   : answers::pair_rotates;
    log_.say(sample.time, does, {length(pair_.offset()), feel_.drag_threshold},
             {std::fabs(pair_.spread_change()), feel_.pinch_threshold},
             {std::fabs(pair_.arc()), feel_.rotate_threshold});
    pair_.anchor();
    now_.began = down_time_;
  }
  if (pair_.kind() == PairKind::none) return;
  now_.offset = pair_.offset();
  now_.scale = pair_.scale();
  now_.angle = pair_.angle();
  say(gesture_of(pair_.kind()), began ? GesturePhase::began : GesturePhase::moved, sample.time);
}

void Gestures::move(const Contact& contact, const Sample& sample) {
  if (contact.slot == second_ && state_ == State::two) second_at_ = sample.at;
  if (contact.slot == first_) first_at_ = sample.at;
  if (state_ == State::two && (contact.slot == first_ || contact.slot == second_)) return move_pair(sample);
  if (contact.slot != first_ || state_ == State::spent || state_ == State::idle) return;
  const double threshold = feel_.threshold(feel_.main_axis(sample.at - contact.down.at));
  if (drag_.move(sample.at, contact.contested ? HUGE_VAL : threshold)) begin_drag(contact, sample);
  if (state_ != State::dragging) return;
  now_.at = sample.at;
  now_.offset = drag_.offset();
  if (locked_) (lock_ == Axis::horizontal ? now_.offset.y : now_.offset.x) = 0.0;
  if (sample.phase == Phase::move) say(drag_kind_, GesturePhase::moved, sample.time);
}

void Gestures::lock_axis(Point moved, const Sample& sample) {
  lock_ = std::fabs(moved.x) >= std::fabs(moved.y) ? Axis::horizontal : Axis::vertical;
  const double off_axis =
      degrees(maths::atan2(std::fabs(across(lock_, moved)), std::fabs(along(lock_, moved))));
  locked_ = feel_.axis_lock_angle > 0.0 && off_axis <= feel_.axis_lock_angle;
  const answers::AxisKept& keeps = feel_.axis_lock_angle <= 0.0 ? answers::axis_unlocked
                                   : !locked_                   ? answers::axis_free
                                   : lock_ == Axis::horizontal  ? answers::axis_horizontal
                                                                : answers::axis_vertical;
  log_.say(sample.time, keeps, {off_axis, feel_.axis_lock_angle});
}

bool Gestures::from_edge(const Contact& contact, const Sample& sample) {
  if (!settings_.edges || !(screen_.w > 0.0)) return false;
  const Point from = contact.down.at;
  // The edge opposite to the way it goes.
  const std::array depths{screen_.right() - from.x, screen_.bottom() - from.y, from.x - screen_.x,
                          from.y - screen_.y};
  const double depth = depths[static_cast<std::size_t>(now_.side)];
  if (depth > feel_.edge_width) return false;
  log_.say(sample.time, answers::edge_swipe, {depth, feel_.edge_width});
  return true;
}

void Gestures::begin_drag(const Contact& contact, const Sample& sample) {
  const Point moved = sample.at - contact.down.at;
  const Axis main = feel_.main_axis(moved);
  const Drags this_way = main == Axis::horizontal ? Drags::horizontal : Drags::vertical;
  const bool wanted = settings_.drags == Drags::both || settings_.drags == this_way;
  log_.say(sample.time, wanted ? answers::drags : answers::drag_unwanted,
           {drag_.travel(), feel_.threshold(main)}, to_ms(sample.time - contact.down.time));
  const bool held = state_ == State::held;
  if (wanted) lock_axis(moved, sample);
  if (row_ > 0) report_row(sample.time, true);
  say(held ? GestureKind::long_press : GestureKind::press, GesturePhase::withdrawn, sample.time);
  if (!wanted) {
    drag_.end();
    state_ = State::spent;
    return;
  }
  state_ = State::dragging;
  drag_kind_ = held ? GestureKind::hold_drag : GestureKind::drag;
  now_.side = side_of(moved);
  if (!held && from_edge(contact, sample)) {
    drag_kind_ = GestureKind::edge_swipe;
    now_.side = static_cast<Side>((static_cast<int>(now_.side) + 2) % 4);
  }
  say(drag_kind_, GesturePhase::began, sample.time);
}

void Gestures::lift(const Contact& contact, const Sample& sample) {
  if (state_ == State::two && (contact.slot == first_ || contact.slot == second_)) {
    end_pair(GesturePhase::ended, sample.time);
    return;
  }
  if (contact.slot != first_) return;
  switch (state_) {
    case State::pressed:
      tapped(contact, sample);
      break;
    case State::held:
      say(GestureKind::long_press, GesturePhase::ended, sample.time);
      break;
    case State::dragging:
      end_drag(contact, sample);
      break;
    case State::idle:
    case State::two:
    case State::spent:
      break;
  }
  state_ = contacts_ == 0 ? State::idle : State::spent;
}

void Gestures::end_drag(const Contact& contact, const Sample& sample) {
  const VelocityEstimate estimate = contact.history.estimate(contact.last.time, feel_.velocity_rules());
  const double speed = length(estimate.velocity);
  const bool fast = speed >= feel_.flick_speed && !estimate.stale && speed > 0.0;
  now_.velocity = estimate.velocity;
  if (drag_kind_ == GestureKind::drag)
    log_.say(sample.time,
             fast             ? answers::flick
             : estimate.stale ? answers::flick_rested
                              : answers::flick_too_slow,
             {speed, feel_.flick_speed}, {to_ms(estimate.rested), to_ms(feel_.staleness)},
             length(now_.offset), estimate.velocity.x, estimate.velocity.y);
  say(drag_kind_, GesturePhase::ended, sample.time);
  if (!fast || drag_kind_ != GestureKind::drag) return;
  now_.side = side_of(estimate.velocity);
  say(GestureKind::flick, GesturePhase::ended, sample.time);
}

void Gestures::tapped(const Contact& contact, const Sample& sample) {
  const double held = to_ms(sample.time - contact.down.time);
  const bool near = drag_.strayed() <= feel_.tap_reach;
  const bool brief = held <= to_ms(feel_.tap_time);
  log_.say(sample.time,
           !near   ? answers::tap_strayed
           : brief ? answers::tap
                   : answers::tap_too_long,
           {drag_.strayed(), feel_.tap_reach}, {held, to_ms(feel_.tap_time)});
  if (!near || !brief) {
    const double threshold = feel_.threshold(feel_.main_axis(sample.at - contact.down.at));
    if (!near && drag_.travel() < threshold)
      log_.say(sample.time, answers::drag_too_short, {drag_.travel(), threshold});
    if (row_ > 0) report_row(sample.time, true);
    say(GestureKind::press, GesturePhase::withdrawn, sample.time);
    return;
  }
  say(GestureKind::press, GesturePhase::ended, sample.time);
  if (row_ == 0) {
    row_at_ = contact.down.at;
    row_began_ = contact.down.time;
  } else if (row_reported_) {
    // It was reported with fewer taps; that is taken back for the longer row.
    now_.count = row_;
    say(GestureKind::tap, GesturePhase::withdrawn, sample.time);
  }
  ++row_;
  row_lifted_ = sample.time;
  row_reported_ = false;
  now_.count = row_;
  const bool full = row_ >= static_cast<int>(settings_.taps);
  if (full) {
    report_row(sample.time, false);
  } else if (settings_.report_tap == ReportTap::immediately) {
    log_.say(sample.time, row_ == 1 ? answers::tap_at_once : answers::row_at_once, 0.0, row_);
    say(GestureKind::tap, GesturePhase::ended, sample.time);
    row_reported_ = true;
  }
}

void Gestures::end_pair(GesturePhase step, Micros time) {
  if (step == GesturePhase::withdrawn) {
    log_.say(time, answers::pair_withdrawn);
  } else if (pair_.kind() == PairKind::none) {
    log_.say(time, answers::pair_too_little, {length(pair_.offset()), feel_.drag_threshold},
             {std::fabs(pair_.spread_change()), feel_.pinch_threshold},
             {std::fabs(pair_.arc()), feel_.rotate_threshold});
  } else {
    log_.say(time, answers::pair_ended, pair_.scale(), degrees(pair_.angle()), length(pair_.offset()));
  }
  if (pair_.kind() != PairKind::none) say(gesture_of(pair_.kind()), step, time);
  pair_.end();
  state_ = State::spent;
}

void Gestures::abandon(Micros now) {
  if (row_ > 0) report_row(now, true);
  switch (state_) {
    case State::pressed:
      say(GestureKind::press, GesturePhase::withdrawn, now);
      break;
    case State::held:
      say(GestureKind::long_press, GesturePhase::withdrawn, now);
      break;
    case State::dragging:
      say(drag_kind_, GesturePhase::withdrawn, now);
      break;
    case State::two:
      end_pair(GesturePhase::withdrawn, now);
      break;
    case State::idle:
    case State::spent:
      break;
  }
  drag_.end();
  state_ = State::spent;
}

void Gestures::withdraw_all(Micros now) {
  abandon(now);
  contacts_ = 0;
  state_ = State::idle;
  first_ = second_ = none;
}

void Gestures::withdraw(Micros now) {
  withdraw_all(now);
  report();
}

void Gestures::change(const GestureSettings& settings, Micros now) {
  check_settings("gestures", settings);
  withdraw_all(now);
  settings_ = settings;
  report();
}

}  // namespace ubbo
