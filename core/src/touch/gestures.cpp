#include "ubbo/touch/gestures.hpp"

#include <array>
#include <cmath>
#include <numbers>
#include <utility>

namespace ubbo {

namespace {

constexpr std::array tell_names{"at-once", "held"};
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
      detail::setting<&S::taps>("taps", "", 1.0, 9.0,
                                "the most taps that are counted as one row; 2: double taps"),
      detail::choice<&S::tell_tap>(
          "tell_tap", tell_names,
          "a tap that could become a double tap is told at once, or held until it cannot"),
      detail::flag<&S::long_press>("long_press", "look for long presses, and drags after them"),
      detail::choice<&S::drags>("drags", drags_names,
                                "which drags it follows; others only withdraw the press"),
      detail::flag<&S::two_contacts>("two_contacts", "look for pan, pinch and rotation by two contacts"),
      detail::flag<&S::edges>("edges", "look for swipes from the edges of the screen"),
  };
  return table;
}

Gestures::Gestures(GestureSettings settings, Place place, std::function<void(const Gesture&)> tell)
    : settings_(settings), place_(place), tell_(std::move(tell)) {
  check_settings("gestures", settings_);
}

void Gestures::decide(Micros time, const char* question, std::string_view answer,
                      std::initializer_list<Fact> facts) const {
  if (place_.journal != nullptr) place_.journal->record(time, place_.part, question, answer, facts);
}

void Gestures::say(GestureKind kind, GestureStep step, Micros time) {
  now_.kind = kind;
  now_.step = step;
  now_.time = time;
  if (tell_) tell_(now_);
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
  if (due() > now) return;
  if (state_ == State::pressed) {
    const Micros time = down_time_ + feel_.hold_delay;
    decide(time, questions::hold, "yes",
           {Fact::above("held", to_ms(feel_.hold_delay), "ms", to_ms(feel_.hold_delay)),
            Fact::below("strayed", drag_.strayed(), "dp", feel_.tap_reach)});
    if (row_ > 0) tell_row(time, true);
    state_ = State::held;
    say(GestureKind::press, GestureStep::withdrawn, time);
    say(GestureKind::long_press, GestureStep::began, time);
    return;
  }
  tell_row(row_lifted_ + feel_.multi_tap_gap, true);
}

void Gestures::touch(const Contact& contact, const Sample& sample, const Feel& feel) {
  feel_ = feel;
  switch (sample.phase) {
    case Phase::down:
      ++contacts_;
      if (state_ == State::idle)
        down(sample);
      else
        second_down(sample);
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
      if (contact.id == first_ || contact.id == second_) abandon(sample.time);
      break;
  }
  if (contacts_ == 0) {
    state_ = State::idle;
    first_ = second_ = none;
  }
}

void Gestures::down(const Sample& sample) {
  state_ = State::pressed;
  first_ = sample.contact;
  second_ = none;
  first_at_ = sample.at;
  down_time_ = sample.time;
  drag_.press(sample.at);
  locked_ = false;
  // A row that has closed by itself is not joined any more, but one wants to know by how much it was missed.
  constexpr int worth_telling = 4;
  if (row_ > 0 || (row_seen_ && sample.time - row_lifted_ <= feel_.multi_tap_gap * worth_telling))
    join_row(sample);
  row_seen_ = false;
  now_ = {.began = sample.time, .at = sample.at, .count = row_ + 1};
  say(GestureKind::press, GestureStep::began, sample.time);
}

void Gestures::join_row(const Sample& sample) {
  const double gap = to_ms(sample.time - row_lifted_);
  const double apart = length(sample.at - row_at_);
  const bool soon = row_ > 0 && gap <= to_ms(feel_.multi_tap_gap);  // closed rows close at the gap itself
  const bool near = apart <= feel_.multi_tap_reach;
  decide(
      sample.time, questions::again, soon ? (near ? "yes" : "no, too far") : "no, too late",
      {Fact::below("gap", gap, "ms", to_ms(feel_.multi_tap_gap)),
       Fact::below("apart", apart, "dp", feel_.multi_tap_reach), Fact::plain("taps", std::max(row_, 1), "")});
  if (row_ > 0 && (!soon || !near)) tell_row(sample.time, true);
}

// Tells the row of taps if that is still to be done, and closes it.
void Gestures::tell_row(Micros now, bool waited) {
  if (!row_told_) {
    const Gesture kept = now_;
    decide(now, questions::tap_told, waited ? "after a further tap was ruled out" : "at once",
           {Fact::plain("waited", to_ms(now - row_lifted_), "ms"), Fact::plain("taps", row_, "")});
    now_.count = row_;
    now_.at = row_at_;
    now_.began = row_began_;
    say(GestureKind::tap, GestureStep::ended, now);
    now_ = kept;
  }
  // A row that is full cannot be missed.
  row_seen_ = row_ < static_cast<int>(settings_.taps);
  row_ = 0;
  row_told_ = false;
}

void Gestures::second_down(const Sample& sample) {
  const bool ready = settings_.two_contacts && second_ == none && state_ != State::spent;
  if (!ready) return;
  abandon(sample.time);
  state_ = State::two;
  second_ = sample.contact;
  second_at_ = sample.at;
  pair_.press(first_at_, second_at_);
}

void Gestures::move(const Contact& contact, const Sample& sample) {
  if (contact.id == second_ && state_ == State::two) second_at_ = sample.at;
  if (contact.id == first_) first_at_ = sample.at;
  if (state_ == State::two && (contact.id == first_ || contact.id == second_)) {
    const bool began = pair_.move(first_at_, second_at_, feel_);
    now_.at = pair_.centre();
    if (began) {
      const GestureKind kind = gesture_of(pair_.kind());
      decide(sample.time, questions::pair, name_of(kind),
             {Fact::above("pan", length(pair_.offset()), "dp", feel_.drag_threshold),
              Fact::above("pinch", std::fabs(pair_.spread_change()), "dp", feel_.pinch_threshold),
              Fact::above("turn", std::fabs(pair_.arc()), "dp", feel_.rotate_threshold)});
      pair_.anchor();
      now_.began = down_time_;
    }
    if (pair_.kind() == PairKind::none) return;
    now_.offset = pair_.offset();
    now_.scale = pair_.scale();
    now_.angle = pair_.angle();
    say(gesture_of(pair_.kind()), began ? GestureStep::began : GestureStep::moved, sample.time);
    return;
  }
  if (contact.id != first_ || state_ == State::spent || state_ == State::idle) return;
  const Point moved = sample.at - contact.down.at;
  const Axis main = std::fabs(moved.x) >= std::fabs(moved.y) ? Axis::horizontal : Axis::vertical;
  if (drag_.move(sample.at, feel_.threshold(main))) begin_drag(contact, sample);
  if (state_ != State::dragging) return;
  now_.at = sample.at;
  now_.offset = drag_.offset();
  if (locked_) (lock_ == Axis::horizontal ? now_.offset.y : now_.offset.x) = 0.0;
  if (sample.phase == Phase::move) say(drag_kind_, GestureStep::moved, sample.time);
}

void Gestures::begin_drag(const Contact& contact, const Sample& sample) {
  const Point moved = sample.at - contact.down.at;
  const Axis main = std::fabs(moved.x) >= std::fabs(moved.y) ? Axis::horizontal : Axis::vertical;
  decide(sample.time, questions::drag, "yes",
         {Fact::above("travel", drag_.travel(), "dp", feel_.threshold(main)),
          Fact::plain("after", to_ms(sample.time - contact.down.time), "ms")});
  const double off_axis = degrees(std::atan2(std::fabs(across(main, moved)), std::fabs(along(main, moved))));
  locked_ = feel_.axis_lock_angle > 0.0 && off_axis <= feel_.axis_lock_angle;
  lock_ = main;
  decide(sample.time, questions::axis,
         !locked_                   ? "none"
         : main == Axis::horizontal ? "horizontal"
                                    : "vertical",
         {Fact::below("off axis", off_axis, "degrees", feel_.axis_lock_angle)});

  const bool held = state_ == State::held;
  if (row_ > 0) tell_row(sample.time, true);
  say(held ? GestureKind::long_press : GestureKind::press, GestureStep::withdrawn, sample.time);
  const Drags this_way = main == Axis::horizontal ? Drags::horizontal : Drags::vertical;
  if (settings_.drags != Drags::both && settings_.drags != this_way) {
    drag_.end();
    state_ = State::spent;
    return;
  }
  state_ = State::dragging;
  drag_kind_ = held ? GestureKind::hold_drag : GestureKind::drag;
  now_.side = side_of(moved);
  if (!held && settings_.edges && place_.screen.w > 0.0) {
    const Point from = contact.down.at;
    const Box& screen = place_.screen;
    // The edge opposite to the way it goes.
    const std::array depths{screen.right() - from.x, screen.bottom() - from.y, from.x - screen.x,
                            from.y - screen.y};
    const double depth = depths[static_cast<std::size_t>(now_.side)];
    if (depth <= feel_.edge_width) {
      drag_kind_ = GestureKind::edge_swipe;
      now_.side = static_cast<Side>((static_cast<int>(now_.side) + 2) % 4);
      decide(sample.time, questions::edge, "yes",
             {Fact::below("from the edge", depth, "dp", feel_.edge_width)});
    }
  }
  say(drag_kind_, GestureStep::began, sample.time);
}

void Gestures::lift(const Contact& contact, const Sample& sample) {
  if (state_ == State::two && (contact.id == first_ || contact.id == second_)) {
    end_pair(GestureStep::ended, sample.time);
    return;
  }
  if (contact.id != first_) return;
  switch (state_) {
    case State::pressed:
      tapped(contact, sample);
      break;
    case State::held:
      say(GestureKind::long_press, GestureStep::ended, sample.time);
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
  const VelocityEstimate estimate = contact.history.estimate(sample.time, feel_.velocity_rules());
  const double speed = length(estimate.velocity);
  const bool fast = speed >= feel_.flick_speed && !estimate.stale && speed > 0.0;
  decide(sample.time, questions::flick, fast ? "yes" : "no",
         {Fact::above("speed", speed, "dp/s", feel_.flick_speed),
          Fact::below("rested", to_ms(estimate.rested), "ms", to_ms(feel_.staleness))});
  now_.velocity = estimate.velocity;
  if (fast && drag_kind_ == GestureKind::drag) {
    say(GestureKind::drag, GestureStep::ended, sample.time);
    now_.side = side_of(estimate.velocity);
    say(GestureKind::flick, GestureStep::ended, sample.time);
    return;
  }
  say(drag_kind_, GestureStep::ended, sample.time);
}

void Gestures::tapped(const Contact& contact, const Sample& sample) {
  const double held = to_ms(sample.time - contact.down.time);
  const bool near = drag_.strayed() <= feel_.tap_reach;
  const bool brief = held <= to_ms(feel_.tap_time);
  decide(sample.time, questions::tap,
         !near   ? "no, it strayed"
         : brief ? "yes"
                 : "no, it was held too long",
         {Fact::below("strayed", drag_.strayed(), "dp", feel_.tap_reach),
          Fact::below("held", held, "ms", to_ms(feel_.tap_time))});
  if (!near || !brief) {
    if (row_ > 0) tell_row(sample.time, true);
    say(GestureKind::press, GestureStep::withdrawn, sample.time);
    return;
  }
  say(GestureKind::press, GestureStep::ended, sample.time);
  if (row_ == 0) {
    row_at_ = contact.down.at;
    row_began_ = contact.down.time;
  } else if (row_told_) {
    // It was told with fewer taps; that is taken back for the longer row.
    now_.count = row_;
    say(GestureKind::tap, GestureStep::withdrawn, sample.time);
  }
  ++row_;
  row_lifted_ = sample.time;
  row_told_ = false;
  now_.count = row_;
  const bool full = row_ >= static_cast<int>(settings_.taps);
  if (full) {
    tell_row(sample.time, false);
  } else if (settings_.tell_tap == TellTap::at_once) {
    decide(sample.time, questions::tap_told, "at once",
           {Fact::plain("waited", 0.0, "ms"), Fact::plain("taps", row_, "")});
    say(GestureKind::tap, GestureStep::ended, sample.time);
    row_told_ = true;
  }
}

void Gestures::end_pair(GestureStep step, Micros time) {
  if (pair_.kind() != PairKind::none) say(gesture_of(pair_.kind()), step, time);
  pair_.end();
  state_ = State::spent;
}

void Gestures::abandon(Micros now) {
  if (row_ > 0) tell_row(now, true);
  switch (state_) {
    case State::pressed:
      say(GestureKind::press, GestureStep::withdrawn, now);
      break;
    case State::held:
      say(GestureKind::long_press, GestureStep::withdrawn, now);
      break;
    case State::dragging:
      say(drag_kind_, GestureStep::withdrawn, now);
      break;
    case State::two:
      end_pair(GestureStep::withdrawn, now);
      break;
    case State::idle:
    case State::spent:
      break;
  }
  drag_.end();
  state_ = State::spent;
}

void Gestures::withdraw(Micros now) {
  abandon(now);
  contacts_ = 0;
  state_ = State::idle;
  first_ = second_ = none;
}

}  // namespace ubbo
