// A wheel or trackpad that scrolls, steps and zooms what is under the pointer.
#include "ubbo/stage/wheeling.hpp"

#include <algorithm>
#include <cmath>

#include "call.hpp"
#include "ubbo/base/maths.hpp"

namespace ubbo {

// What its contacts are.

void Wheeling::begin(Point at, bool zooms) {
  contacts_ = zooms ? 2 : 1;
  at_ = at;
  told_end = false;
  for (Mover& mover : way_) mover.put(0.0);
  tick_ = rests_ = never;
}

void Wheeling::turn(Point by, double factor, const Transition* transition, Micros now) {
  const std::array further{by.x, by.y, maths::log(factor)};
  for (std::size_t i = 0; i < way_.size(); ++i) {
    Mover& mover = way_[i];
    if (further[i] == 0.0) continue;
    mover.set_rest_floor(i == 2 ? 1e-4 : 0.05);
    if (transition == nullptr)
      mover.put(mover.target() + further[i]);
    else
      mover.send(mover.target() + further[i], *transition, now);
  }
  tick_ = moving() ? (now / apart + 1) * apart : never;
}

bool Wheeling::moving() const {
  return std::any_of(way_.begin(), way_.end(), [](const Mover& mover) { return mover.moving(); });
}

Micros Wheeling::due() const { return contacts_ == 0 ? never : std::min(tick_, moving() ? never : rests_); }

void Wheeling::advance(Micros now) {
  for (Mover& mover : way_) {
    while (mover.moving() && mover.due() <= now) mover.advance(mover.due());
    mover.advance(now);
  }
  tick_ = moving() ? (now / apart + 1) * apart : never;
}

double Wheeling::zoomed() const { return maths::exp(way_[2].value()); }

Sample Wheeling::sample(int contact, Phase phase, Micros now) const {
  const double spread = contacts_ == 2 ? (contact == 0 ? -half_spread : half_spread) * zoomed() : 0.0;
  return {.time = now,
          .contact = contacts_ == 2 ? contact + 1 : 0,
          .phase = phase,
          .at = at_ + moved() + Point{spread, 0.0},
          .tool = Tool::wheel,
          .device = device};
}

void Wheeling::give_up(Point left) {
  const std::array lost{left.x, left.y};
  for (std::size_t i = 0; i < lost.size(); ++i)
    if (lost[i] != 0.0) way_[i].put(way_[i].value() - lost[i]);
  if (!moving()) tick_ = never;
}

// What the stage makes of it.

namespace {

constexpr double most = 1e5;       // dp a contact is moved before another takes its place
constexpr double most_zoom = 8.0;  // and how far two are brought together
constexpr double most_steps = 100.0;

bool usable(const WheelTurn& turn) {
  return std::fabs(turn.at.x) <= Contacts::farthest && std::fabs(turn.at.y) <= Contacts::farthest &&
         std::fabs(turn.by.x) <= Contacts::farthest && std::fabs(turn.by.y) <= Contacts::farthest &&
         turn.scale >= 0.01 && turn.scale <= 100.0;
}

template <class F>
void each_around(Part* inner, F&& look) {
  for (Part* part = inner; part != nullptr; part = part->modal() ? nullptr : part->outer())
    if (part->enabled()) look(*part);
}

// A wheel that turns there along `axis` drags it.
bool scrolled_by(const Part& part, Axis axis, Point at) {
  return (part.kind().wheel == WheelUse::scrolls || part.kind().wheel == WheelUse::both) &&
         part.drag_interest({.at = at, .tool = Tool::wheel}).follows(axis);
}

}  // namespace

bool Stage::wheel(const WheelTurn& turn) {
  if (busy_) {
    events_.add({when(turn.time), EventQueue::Action{[this, turn] { take_wheel(turn); }}});
    return false;
  }
  Call call(*this);
  tell_time(when(turn.time));
  const bool used = take_wheel(turn);
  call.finish();
  return used;
}

bool Stage::take_wheel(WheelTurn turn) {
  const auto nobody = [&](const AnswerWith<>& why) {
    context_.journal.record(context_.now, {}, why);
    return false;
  };
  if (!usable(turn)) return nobody(answers::wheel_unusable);
  if (turn.phase == WheelPhase::momentum) {
    // What it scrolled goes on by its own speed.
    if (wheeling_.lifted) return nobody(answers::wheel_momentum);
  } else {
    wheeling_.lifted = false;
  }
  if (open_contacts() > 0) return nobody(answers::wheel_contact_down);
  const bool ends = turn.phase == WheelPhase::end;
  const bool zooms = turn.scale != 1.0 || turn.zooms;
  bool used = false;
  if (!(turn.by == Point{}) || turn.scale != 1.0) {
    const bool under_way = wheeling_.contacts() > 0 && wheeling_.zooms() == zooms;
    if (context_.now - wheeling_.last_turn >= context_.feels.wheel.rest) wheeling_.told_nobody = false;
    used = (!zooms && !under_way && take_steps(turn)) || scroll_or_zoom(turn, zooms);
  }
  wheeling_.last_turn = context_.now;
  if (!ends) return used;
  wheeling_.lifted = true;
  wheeling_.steps = nullptr;
  if (wheeling_.contacts() == 0) return used;
  context_.journal.record(context_.now, {}, answers::wheel_lifted);
  end_wheel(Phase::up);
  return true;
}

// A notch is a step, where the part under the pointer steps, and has the focus or lies in nothing that
// scrolls that way.
bool Stage::take_steps(const WheelTurn& turn) {
  Part* inner = routing_.under(order_.parts(), turn.at);
  const bool notches = turn.unit == WheelUnit::notch;
  Part* found = nullptr;
  each_around(inner, [&](Part& part) {
    if (found == nullptr &&
        (part.kind().wheel == WheelUse::steps || (part.kind().wheel == WheelUse::both && notches)))
      found = &part;
  });
  if (found == nullptr) return false;
  const Axis axis = std::fabs(turn.by.x) > std::fabs(turn.by.y) ? Axis::horizontal : Axis::vertical;
  if (focus_.part() != found && scrolls(found->outer(), axis, turn.at)) {
    if (wheeling_.contacts() == 0) found->decide(answers::wheel_scrolls_around, turn.at.x, turn.at.y);
    return false;
  }
  const WheelFeel& feel = found->wheel_feel();
  const double each = notches || turn.unit == WheelUnit::page ? 1.0
                      : turn.unit == WheelUnit::line          ? feel.line / feel.notch
                                                              : 1.0 / feel.step;
  if (wheeling_.steps != found || context_.now - wheeling_.last_turn >= feel.rest)
    wheeling_.part_of_step = {};
  wheeling_.steps = found;
  Point& part_of_step = wheeling_.part_of_step;
  double& turned = axis == Axis::horizontal ? part_of_step.x : part_of_step.y;
  const bool begins = turned == 0.0;
  turned =
      std::clamp(turned + (axis == Axis::horizontal ? turn.by.x : turn.by.y) * each, -most_steps, most_steps);
  const double said = std::fabs(turned);
  if (said < 1.0) {
    if (begins) found->decide(answers::wheel_too_little, {said, 1.0});  // once a step
    return true;
  }
  found->decide(answers::wheel_steps, {said, 1.0});
  const bool back = turned < 0.0;
  const bool mirrored = context_.right_to_left;
  const auto press = [&](Key key) {
    before(*found);
    context_.cause = Cause::wheel;
    const bool used = found->press(key);
    context_.cause = Cause::time;
    after(*found);
    return used;
  };
  const bool page = turn.unit == WheelUnit::page;
  for (int left = static_cast<int>(said); left > 0; --left) {
    turned += back ? 1.0 : -1.0;
    const bool to_right = axis == Axis::horizontal ? !back : back == mirrored;
    const Key sideways = to_right ? Key::right : Key::left;
    const Key down = page ? (back ? Key::page_up : Key::page_down) : back ? Key::up : Key::down;
    if (axis == Axis::horizontal ? press(sideways) || press(down) : press(down) || press(sideways)) continue;
    break;
  }
  return true;
}

bool Stage::scrolls(Part* inner, Axis axis, Point at) const {
  bool any = false;
  each_around(inner, [&](const Part& part) { any = any || scrolled_by(part, axis, at); });
  return any;
}

// How far what is under the pointer is to go, dp.
Point Stage::in_dp(const WheelTurn& turn, const Part* seen) const {
  const WheelFeel& feel = seen == nullptr ? context_.feels.wheel : seen->wheel_feel();
  const Box view = seen == nullptr ? context_.screen : seen->window();
  switch (turn.unit) {
    case WheelUnit::notch:
      return turn.by * feel.notch;
    case WheelUnit::line:
      return turn.by * feel.line;
    case WheelUnit::page:
      return {turn.by.x * view.w * feel.page, turn.by.y * view.h * feel.page};
    case WheelUnit::dp:
      break;
  }
  return turn.by;
}

bool Stage::scroll_or_zoom(const WheelTurn& turn, bool zooms) {
  Part* inner = routing_.under(order_.parts(), turn.at);
  const bool too_far =
      length(wheeling_.moved()) > most || (wheeling_.contacts() == 2 && wheeling_.zoomed() < 1.0 / most_zoom);
  const Contact* present =
      wheeling_.contacts() == 0 ? nullptr : contacts_.find(wheeling_.sample(0, Phase::move, {}));
  const bool lost =
      present != nullptr && routing_.owner(*present) == nullptr;  // such as when that was removed
  if (wheeling_.contacts() > 0 && (wheeling_.zooms() != zooms || too_far || lost)) end_wheel(Phase::up);
  const Axis axis = std::fabs(turn.by.x) > std::fabs(turn.by.y) ? Axis::horizontal : Axis::vertical;
  const Part* seen = nullptr;
  each_around(inner, [&](const Part& part) {
    if (seen == nullptr && (zooms ? part.kind().wheel_zooms : scrolled_by(part, axis, turn.at))) seen = &part;
  });
  const WheelFeel& feel = seen == nullptr ? context_.feels.wheel : seen->wheel_feel();
  const Point by = zooms ? Point{} : in_dp(turn, seen);
  const auto nobody = [&] {
    if (!std::exchange(wheeling_.told_nobody, true))
      context_.journal.record(context_.now, {}, answers::wheel_nobody, turn.at.x, turn.at.y);
    return false;
  };
  if (wheeling_.contacts() == 0) {
    if (seen == nullptr) return nobody();
    pointed_ = true;
    wheeling_.begin(turn.at, zooms);
    bool taken = true;
    for (int i = 0; i < static_cast<int>(wheeling_.contacts()); ++i)
      taken = take_sample(wheeling_.sample(i, Phase::down, context_.now)) && taken;
    if (!taken) {
      end_wheel(Phase::cancel);
      return nobody();
    }
    // What two contacts do together begins at their first move, and counts from there: the least there is.
    if (zooms) {
      Sample nudge = wheeling_.sample(1, Phase::move, context_.now);
      nudge.at.x += 1e-6;
      take_sample(nudge);
    }
    seen->decide(zooms ? answers::wheel_zooms : answers::wheel_scrolls, turn.at.x, turn.at.y);
  }
  const bool jumps = turn.unit == WheelUnit::dp || turn.phase != WheelPhase::none;
  double factor = turn.scale;
  if (turn.zooms) {
    const double notches = turn.unit == WheelUnit::notch || turn.unit == WheelUnit::page
                               ? turn.by.y
                               : in_dp(turn, seen).y / feel.notch;
    factor *= maths::exp(-notches * maths::log(feel.zoom));
  }
  wheeling_.turn(Point{} - by, factor, jumps ? nullptr : &feel.transition, context_.now);
  wheeling_.rests_after(feel.rest, context_.now);
  if (jumps) turn_on();
  return true;
}

// Its contacts are where it has them now; and when it has rested they lift.
void Stage::turn_on() {
  if (wheeling_.contacts() == 0) return;
  wheeling_.advance(context_.now);
  for (int i = 0; i < static_cast<int>(wheeling_.contacts()); ++i)
    take_sample(wheeling_.sample(i, Phase::move, context_.now));
  const Contact* contact =
      wheeling_.contacts() == 1 ? contacts_.find(wheeling_.sample(0, Phase::move, {})) : nullptr;
  if (contact != nullptr)
    if (const Point left = routing_.left_over(*contact); !(left == Point{})) {
      if (const Part* owner = routing_.owner(*contact);
          owner != nullptr && !std::exchange(wheeling_.told_end, true))
        owner->decide(answers::wheel_stops, length(left));
      wheeling_.give_up(left);
      take_sample(wheeling_.sample(0, Phase::move, context_.now));
    }
  if (wheeling_.contacts() == 0 || !wheeling_.rested(context_.now)) return;
  const double rested = to_ms(context_.now - wheeling_.last_turn);
  context_.journal.record(context_.now, {}, answers::wheel_rests, Held{rested, to_ms(wheeling_.rest())});
  end_wheel(Phase::up);
}

void Stage::end_wheel(Phase how) {
  const std::size_t contacts = wheeling_.contacts();
  for (int i = 0; i < static_cast<int>(contacts); ++i) take_sample(wheeling_.sample(i, how, context_.now));
  wheeling_.end();
}

}  // namespace ubbo
