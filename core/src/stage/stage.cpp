#include "ubbo/stage/stage.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "call.hpp"

namespace ubbo {

namespace {

// A frame this far before what has happened is right, and what has happened was wrong.
constexpr Micros clock_slack = std::chrono::seconds(10);

constexpr std::array reduced_names{"full", "fade", "still"};
constexpr std::array keep_names{"first", "latest"};

StageSettings checked(StageSettings settings) {
  check_settings("stage", settings);
  check_feels({settings.feel, settings.stylus, settings.mouse, settings.wheel});
  return settings;
}

}  // namespace

template <>
std::span<const Setting<Insets>> settings_of<Insets>() {
  using declare::number;
  constexpr double max = 100000.0;
  static const std::array table{
      number<&Insets::left>("left", "dp", 0.0, max,
                            "what notch and system bars take of the screen at its left"),
      number<&Insets::top>("top", "dp", 0.0, max, "what notch and system bars take of the screen at its top"),
      number<&Insets::right>("right", "dp", 0.0, max,
                             "what notch and system bars take of the screen at its right"),
      number<&Insets::bottom>("bottom", "dp", 0.0, max,
                              "what notch and system bars take of the screen at its bottom"),
  };
  return table;
}

template <>
std::span<const Setting<StageSettings>> settings_of<StageSettings>() {
  using S = StageSettings;
  using declare::number;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        number<&S::width>("width", "dp", 1.0, 100000.0, "width of the screen"),
        number<&S::height>("height", "dp", 1.0, 100000.0, "height of the screen"),
        declare::flag<&S::right_to_left>("right_to_left", "reading direction; horizontal parts mirror"),
        declare::choice<&S::reduced_motion>("reduced_motion", reduced_names,
                                            "what becomes of travel for people who asked for less motion"),
        declare::transition<&S::hover_transition>("hover_transition",
                                                  "how what is hovered shows it, in and out"),
        number<&S::journal>("journal", "decisions", 0.0, 10'000'000.0,
                            "how many decisions the journal has room for; 0: it is off"),
        declare::choice<&S::keep>("keep", keep_names, "which decisions a full journal keeps")};
    declare::add_inner<&S::safe>(made, "safe");
    return made;
  }();
  return table;
}

Stage::Stage(StageSettings settings) {
  settings = checked(settings);
  context_.feels = {settings.feel, settings.stylus, settings.mouse, settings.wheel};
  context_.screen = {0.0, 0.0, settings.width, settings.height};
  context_.safe = settings.safe;
  context_.right_to_left = settings.right_to_left;
  context_.reduced_motion = settings.reduced_motion;
  context_.journal = Journal(static_cast<std::size_t>(settings.journal), settings.keep);
  context_.part_owner = this;
  context_.outbox = &outbox_;
  context_.hover = &hover_;
  hover_.set_transition(settings.hover_transition);
  constexpr std::size_t max_waiting = 64;
  events_.reserve(max_waiting);
}

Stage::~Stage() = default;

// When a call counts that came with this time of the app's.
Micros Stage::when(Micros told) const {
  const Micros earliest = busy_ ? context_.now : happened_;
  const bool usable = told >= -farthest_time && told <= farthest_time && !far_ahead(own(told));
  return usable ? std::max(own(told), earliest) : earliest;
}

bool Stage::touch(const Sample& sample) {
  Sample taken = sample;  // what comes first may call back, and the app fill its own sample anew
  const bool has_time = timely(sample);
  if (has_time && ahead_ != Micros{0}) taken.time = own(sample.time);
  if (busy_) {
    events_.add({has_time ? std::max(taken.time, context_.now) : context_.now, taken});
    return false;
  }
  Call call(*this);
  tell_time(has_time && !far_ahead(taken.time) ? std::max(taken.time, happened_) : happened_);
  const bool owned = take_sample(taken);
  call.finish();
  return owned;
}

// At the present time.
bool Stage::take_sample(const Sample& sample) {
  const auto says = [&](SampleFault fault) {
    const Micros time = std::clamp(sample.time, -farthest_time, farthest_time);
    context_.journal.record(context_.now, {}, answer_of(fault), sample.contact, to_ms(told(time)),
                            static_cast<double>(contacts_.open_count()), to_seconds(farthest_ahead));
  };
  if (timely(sample) && far_ahead(sample.time)) {
    says(SampleFault::far_ahead);
    const Contact* open = contacts_.find(sample);
    if (open == nullptr || (sample.phase != Phase::up && sample.phase != Phase::cancel)) return false;
    Sample end = sample;
    end.time = open->last.time;
    return take_sample(end);
  }
  if (sample.phase == Phase::hover || sample.phase == Phase::leave) {
    if (usable(sample)) return take_hover(sample);
    says(SampleFault::not_finite);
    return false;
  }
  // A finger takes what a wheel scrolled.
  if (sample.phase == Phase::down && sample.tool != Tool::wheel && wheeling_.contacts() > 0)
    end_wheel(Phase::up);
  const Contacts::Admitted admitted = contacts_.admit(sample, context_.feels.of(sample.tool).smoothing);
  if (admitted.fault != SampleFault::none) says(admitted.fault);
  Contact* contact = admitted.contact;
  if (contact == nullptr) return false;
  Sample& sound = contact->seen;
  sound.time = context_.now;  // when it counts, if it came late
  if (sound.tool != Tool::wheel) hover_.follow(sound);
  const bool ends = sound.phase == Phase::up || sound.phase == Phase::cancel;
  // Whatever a callback throws, an end is an end.
  struct Close {
    Contacts* contacts;
    Contact* contact;
    ~Close() {
      if (contact != nullptr) contacts->close(*contact);
    }
  } close{&contacts_, ends ? contact : nullptr};
  const bool by_wheel = sound.tool == Tool::wheel;
  context_.cause = by_wheel ? Cause::wheel : Cause::finger;
  if (sound.phase == Phase::down && !by_wheel) keys_used_ = false;
  if (sound.phase == Phase::down)
    routing_.offer(order_.parts(), *contact, sound);
  else
    routing_.deliver(*contact, sound);
  context_.cause = Cause::time;
  return routing_.owner(*contact) != nullptr;
}

void Stage::advance(Micros now) {
  if (now > farthest_time) return;
  Micros mine = own(now);
  if (mine >= happened_ && nothing_until(mine)) {
    context_.now = frame_ = std::max(frame_, mine);
    woken_ = false;
    return;
  }
  if (busy_) {
    asked_frame_ = std::max(asked_frame_, mine);
    return;
  }
  Call call(*this);
  if (mine + clock_slack < happened_) {
    context_.journal.record(happened_, {}, answers::clock_went_back, to_seconds(happened_ - mine));
    ahead_ += happened_ - mine;
    mine = happened_;
  }
  frame(mine);
  call.finish();
}

bool Stage::press(Key key, Micros time) {
  if (busy_) {
    events_.add({when(time), EventQueue::KeyPress{key}});
    return false;
  }
  Call call(*this);
  tell_time(when(time));
  const bool used = take_key(key);
  call.finish();
  return used;
}

bool Stage::take_key(Key key) {
  keys_used_ = keys_used_ || key != Key::back;
  if (key == Key::tab || key == Key::back_tab) {
    focus_.move(key == Key::tab, layers_.lowest_in_use(), modal() != nullptr);
    return focus_.given() != nullptr;
  }
  if (Part* part = focus_.part(); part != nullptr && key != Key::back) {
    before(*part);
    context_.cause = Cause::key;
    const bool used = part->press(key);
    context_.cause = Cause::time;
    after(*part);
    if (used) return true;
  }
  return (key == Key::back || key == Key::escape) && take_back();
}

// The topmost part that back is for; null where nobody wants it, or a layer keeps it from whoever does.
Part* Stage::wants_back(bool& blocked) {
  for (std::size_t i = order_.size(); i-- > 0;) {
    Part& part = order_[i];
    if (!part.visible() || !part.enabled() || part.removing()) continue;
    if (part.back_taker_ != nullptr && part.back_taker_->wants_back()) return &part;
    blocked = part.modal();
    if (!blocked) continue;
    part.decide(answers::back_blocked);
    return nullptr;
  }
  return nullptr;
}

bool Stage::take_back() {
  bool blocked = false;
  Part* part = wants_back(blocked);
  if (part == nullptr) {
    if (!blocked) context_.journal.record(context_.now, {}, answers::back_nobody);
    return false;
  }
  routing_.cancel(*part, context_.now);
  before(*part);
  part->back_taker_->back();
  after(*part);
  part->decide(answers::back_taken);
  return true;
}

Part* Stage::followed_back() {
  Part* part = get(back_part_);
  return part != nullptr && !part->removing() ? part : nullptr;
}

bool Stage::back_begins(Micros time) {
  bool follows = false;
  const bool now = !busy_;
  at(time, [this, out = now ? &follows : nullptr] {
    bool blocked = false;
    Part* part = wants_back(blocked);
    back_part_ = part == nullptr ? Handle{} : handle(*part);
    if (part == nullptr) return;
    routing_.cancel(*part, context_.now);
    part->decide(answers::back_begins);
    if (out != nullptr) *out = true;
  });
  return follows;
}

void Stage::back_moves(double progress, Micros time) {
  at(time, [this, progress] {
    Part* part = followed_back();
    if (part == nullptr || !std::isfinite(progress) || !part->back_taker_->wants_back()) return;
    before(*part);
    part->back_taker_->back_moves(std::clamp(progress, 0.0, 1.0));
    after(*part);
  });
}

void Stage::back_cancelled(Micros time) {
  at(time, [this] {
    Part* part = followed_back();
    back_part_ = {};
    if (part == nullptr) return;
    part->decide(answers::back_given_up);
    before(*part);
    part->back_taker_->back_cancelled();
    after(*part);
  });
}

bool Stage::back_finished(Micros time) {
  bool used = false;
  const bool now = !busy_;
  at(time, [this, out = now ? &used : nullptr] {
    Part* part = followed_back();
    back_part_ = {};
    if (part == nullptr || !part->back_taker_->wants_back()) return;
    before(*part);
    part->back_taker_->back();
    after(*part);
    part->decide(answers::back_taken);
    if (out != nullptr) *out = true;
  });
  return used;
}

bool Stage::act(Part& part, const PartAction& action, Micros time) {
  bool could = false;
  const bool now = !busy_;
  at(time, [this, handle = handle(part), &action, out = now ? &could : nullptr] {
    Part* found = get(handle);
    if (found == nullptr || !found->enabled() || found->removing()) return;
    if (!action.can(*found)) return;
    if (out != nullptr) *out = true;
    call(*found, action.while_held, [found, &action] { action.run(*found); });
  });
  return could;
}

void Stage::at(Micros time, std::function<void()> action) {
  if (busy_) {
    events_.add({when(time), EventQueue::Action{std::move(action), true}});
    return;
  }
  Call call(*this);
  tell_time(when(time));
  tell_places();
  error_.keep([&] { action(); });
  look_at_own();
  call.finish();
}

TimerId Stage::call_at(Micros time, std::function<void()> action) {
  const auto timer = static_cast<TimerId>(++last_timer_);
  const bool slept = !busy_ && settled();
  events_.add({std::max(own(std::min(time, farthest_time)), busy_ ? context_.now : happened_),
               EventQueue::Action{std::move(action), true, timer}});
  if (slept) wake();
  return timer;
}

Part& Stage::own() {
  if (own_ == nullptr) own_ = unseen_part(context_);
  return *own_;
}

void Stage::immediately(const std::function<void()>& writes) {
  const auto write = [&] {
    const detail::Writing writing(Write::immediate);
    writes();
  };
  if (busy_) return write();
  Call call(*this);
  tell_time(std::max(frame_, happened_));
  error_.keep(write);
  call.finish();
}

void Stage::cancel_contacts() {
  do_or_wait([this] {
    while (const Contact* contact = contacts_.first_open()) {
      wheeling_.forget(contact->last);
      Sample sample = contact->last;
      sample.phase = Phase::cancel;
      sample.time = std::max(sample.time, context_.now);
      take_sample(sample);
    }
  });
}

void Stage::set_screen(Size size, const Insets& safe, Micros time) {
  StageSettings next{.width = size.w, .height = size.h, .safe = safe};
  check_settings("stage", next);
  at(time, [this, size, safe] {
    cancel_contacts();
    do_or_wait([this, size, safe] {
      context_.screen = {0.0, 0.0, size.w, size.h};
      context_.safe = safe;
      layout_.ask();
    });
  });
}

void Stage::set_safe_area(const Insets& safe, Micros time) {
  check_settings("stage", StageSettings{.safe = safe});
  at(time, [this, safe] {
    context_.safe = safe;
    layout_.ask();
  });
}

void Stage::set_right_to_left(bool right_to_left, Micros time) {
  at(time, [this, right_to_left] {
    if (context_.right_to_left == right_to_left) return;
    cancel_contacts();
    do_or_wait([this, right_to_left] {
      context_.right_to_left = right_to_left;
      for (std::size_t i = 0; i < order_.size(); ++i) {
        before(order_[i]);
        order_[i].resized();
        after(order_[i]);
      }
    });
  });
}

void Stage::set_feel(const Feel& feel) {
  check_settings("feel", feel);
  context_.feels.finger = feel;
}

Micros Stage::due() const {
  Micros next = own_due();
  if (news_.any_later()) next = std::min(next, std::max(frame_, happened_));
  return next == never ? never : told(next);
}

bool Stage::focus(std::string_view id) {
  Part* part = find(id);
  if (part != nullptr && (!Focus::can_have(*part) || order_.place_of(part) < layers_.lowest_in_use()))
    part = nullptr;
  focus_.give(part);
  return id.empty() || part != nullptr;
}

}  // namespace ubbo
