#include "ubbo/stage/stage.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

namespace {

// Parts and callbacks that keep sending each other about cannot hang a call: the rest happens at the next
// one.
constexpr int most_events_per_call = 10'000;
// A frame this far before what has happened is right, and what has happened was wrong.
constexpr Micros clock_slack = std::chrono::seconds(10);

constexpr std::array reduced_names{"full", "fade", "still"};
constexpr std::array keep_names{"first", "latest"};

StageSettings checked(StageSettings settings) {
  check_settings("stage", settings);
  check_feels({settings.feel, settings.stylus, settings.mouse});
  return settings;
}

}  // namespace

template <>
std::span<const Setting<Insets>> settings_of<Insets>() {
  using declare::number;
  constexpr double most = 100000.0;
  static const std::array table{
      number<&Insets::left>("safe_left", "dp", 0.0, most,
                            "what notch and system bars take of the screen at its left"),
      number<&Insets::top>("safe_top", "dp", 0.0, most, "the same at its top"),
      number<&Insets::right>("safe_right", "dp", 0.0, most, "the same at its right"),
      number<&Insets::bottom>("safe_bottom", "dp", 0.0, most, "the same at its bottom"),
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
        number<&S::journal>("journal", "decisions", 0.0, 10'000'000.0,
                            "how many decisions the journal has room for; 0: it is off"),
        declare::choice<&S::keep>("keep", keep_names, "which decisions a full journal keeps")};
    declare::add_inner<&S::safe>(made);
    return made;
  }();
  return table;
}

Stage::Stage(StageSettings settings) {
  settings = checked(settings);
  around_.feels = {settings.feel, settings.stylus, settings.mouse};
  around_.screen = {0.0, 0.0, settings.width, settings.height};
  around_.safe = settings.safe;
  around_.right_to_left = settings.right_to_left;
  around_.reduced_motion = settings.reduced_motion;
  around_.journal = Journal(static_cast<std::size_t>(settings.journal), settings.keep);
  around_.keeper = this;
  constexpr std::size_t most_waiting = 64;
  waiting_.reserve(most_waiting);
}

Stage::~Stage() = default;

// A call from outside, with all that it leads to. Whatever throws on the way, the stage is no longer busy
// after.
class Stage::Call {
 public:
  explicit Call(Stage& stage) : stage_(&stage) {
    stage.busy_ = true;
    stage.budget_ = most_events_per_call;
  }
  Call(const Call&) = delete;
  Call& operator=(const Call&) = delete;
  ~Call() {
    stage_->busy_ = false;
    stage_->around_.write = Write::travels;
    stage_->around_.now = std::max(stage_->frame_, stage_->happened_);
  }
  /// Lets everything happen that the call led to.
  void finish() {
    stage_->settle_event();
    stage_->run_until(stage_->around_.now);
    if (stage_->asked_frame_ > stage_->frame_) stage_->frame(stage_->asked_frame_);
  }

 private:
  Stage* stage_;
};

// The order of events.

void Stage::do_or_wait(std::function<void()> deed) {
  if (busy_) {
    wait({around_.now, Deed{std::move(deed)}});
    return;
  }
  Call call(*this);
  tell_time(std::max(frame_, happened_));
  deed();
  call.finish();
}

void Stage::wait(Waiting what) {
  auto place = waiting_.end();
  while (place != waiting_.begin() + static_cast<std::ptrdiff_t>(waiting_at_) && place[-1].time > what.time)
    --place;
  waiting_.insert(place, std::move(what));
}

Stage::Waiting Stage::take_waiting() {
  Waiting taken = std::move(waiting_[waiting_at_++]);
  if (waiting_at_ == waiting_.size()) {
    waiting_.clear();
    waiting_at_ = 0;
  }
  return taken;
}

void Stage::after(Part& part) {
  if (part.post_.gone) return;
  Part::Post& post = part.post_;
  due_list_.set(part, part.due());
  const bool settled = part.settled();
  if (settled != post.settled) {
    post.settled = settled;
    settled ? --unsettled_ : ++unsettled_;
  }
  if (!settled && !std::exchange(post.active, true)) active_.push_back(&part);
  if (!settled && part.shared_place() != nullptr) sharing(part);
}

void Stage::heard(Part& part) {
  Part::Post& post = part.post_;
  if (post.gone || part.doomed()) return;
  if (busy_) {
    post.write = around_.write;
    if (post.heard == Part::Post::Heard::soon) return;
    if (post.heard == Part::Post::Heard::later) std::erase(later_, &part);
    post.heard = Part::Post::Heard::soon;
    soon_.push_back(&part);
    return;
  }
  post.write = Write::travels;
  if (post.heard != Part::Post::Heard::no) return;
  const bool slept = settled();
  post.heard = Part::Post::Heard::later;
  later_.push_back(&part);
  if (slept) wake();
}

void Stage::wake() {
  if (std::exchange(woken_, true)) return;
  if (on_wake_) on_wake_();
}

void Stage::call(Part& part, std::function<void()> deed) {
  do_or_wait([this, handle = handle(part), deed = std::move(deed)] {
    Part* found = get(handle);
    if (found == nullptr || found->doomed()) return;
    before(*found);
    deed();
    after(*found);
  });
}

// What an event led to happens at its own time, before the next event.
void Stage::settle_event() {
  while ((soon_at_ < soon_.size() || (to_lay_ && !laying_)) && budget_ > 0) {
    --budget_;
    if (soon_at_ == soon_.size()) {
      lay_out();
      continue;
    }
    Part& part = *soon_[soon_at_++];
    if (soon_at_ == soon_.size()) {
      soon_.clear();
      soon_at_ = 0;
    }
    part.post_.heard = Part::Post::Heard::no;
    // Who is carried along does not come to rest by itself at the same moment.
    if (part.post_.write != Write::carried) before(part);
    around_.write = part.post_.write;
    part.heard();
    around_.write = Write::travels;
    after(part);
  }
  if (!doomed_.empty()) bury_doomed();
  bury();
}

void Stage::run_until(Micros until) {
  while (budget_ > 0) {
    const Micros due = due_list_.due();
    const Micros waits = something_waits() ? waiting_[waiting_at_].time : never;
    if (std::min(waits, due) > until || (waits == never && due == never)) return;
    --budget_;
    const Micros time = std::min(waits, due);
    if (!sharing_.empty()) {
      around_.now = std::max(happened_, time);
      share_places();
      // Who goes along with another is no longer due by itself.
      if (std::min(something_waits() ? waiting_[waiting_at_].time : never, due_list_.due()) != time) continue;
    }
    set_time(time);
    if (waits <= due) {
      perform(take_waiting());
    } else {
      Part& part = due_list_.first();
      part.advance(around_.now);
      after(part);
    }
    settle_event();
  }
  around_.journal.record(around_.now, {}, answers::callbacks_endless,
                         {Fact::plain("events", most_events_per_call, "")});
}

// Whoever looks at the place of what moves knows of it before anything happens, and goes along.
void Stage::share_places() {
  const bool newcomers = std::exchange(newcomers_, false);
  for (std::size_t i = 0; i < sharing_.size(); ++i) {
    Part& part = *sharing_[i];
    const void* cell = part.post_.settled ? nullptr : part.shared_place();
    if (cell == nullptr) {
      part.post_.shares = false;
      sharing_.erase(sharing_.begin() + static_cast<std::ptrdiff_t>(i--));
      continue;
    }
    part.tell_place();
    // Of two that move by themselves and share a cell the one added first leads, also where both stand alike
    // at this moment, so that the cell had nothing to say.
    for (std::size_t later = i + 1; newcomers && later < sharing_.size(); ++later)
      if (sharing_[later]->shared_place() == cell) carry(*sharing_[later]);
    settle_event();
  }
}

void Stage::carry(Part& part) {
  heard(part);
  part.post_.write = Write::carried;
}

void Stage::sharing(Part& part) {
  newcomers_ = true;
  if (std::exchange(part.post_.shares, true)) return;
  const auto place = std::find_if(sharing_.begin(), sharing_.end(),
                                  [&](const Part* other) { return other->post_.age > part.post_.age; });
  sharing_.insert(place, &part);
}

// The time has come to `time`: what was due happens, and then what was written while nothing did.
void Stage::tell_time(Micros time) {
  run_until(time);
  set_time(time);
  share_places();
  for (Part* part : later_) {
    part->post_.heard = Part::Post::Heard::soon;
    soon_.push_back(part);
  }
  later_.clear();
  woken_ = false;
  settle_event();
}

void Stage::perform(const Waiting& waiting) {
  if (const auto* sample = std::get_if<Sample>(&waiting.what)) take_sample(*sample);
  if (const auto* key = std::get_if<KeyPress>(&waiting.what)) take_key(key->key);
  if (const auto* deed = std::get_if<Deed>(&waiting.what)) {
    tell_places();
    deed->what();
  }
}

// When a call counts that came with this time of the app's.
Micros Stage::when(Micros told) const {
  const Micros earliest = busy_ ? around_.now : happened_;
  const bool usable = told >= -farthest_time && told <= farthest_time && !far_ahead(own(told));
  return usable ? std::max(own(told), earliest) : earliest;
}

bool Stage::touch(const Sample& sample) {
  Sample taken = sample;
  const bool has_time = timely(sample);
  if (has_time) taken.time = own(sample.time);
  if (busy_) {
    wait({has_time ? std::max(taken.time, around_.now) : around_.now, taken});
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
    around_.journal.record(
        around_.now, {}, answer_of(fault),
        {Fact::plain("contact", sample.contact, ""), Fact::plain("time", to_ms(told(time)), "ms"),
         Fact::plain("open", static_cast<double>(contacts_.open_count()), ""),
         Fact::below("ahead", to_seconds(time - std::max(frame_, happened_)), "s",
                     to_seconds(farthest_ahead))});
  };
  if (timely(sample) && far_ahead(sample.time)) {
    says(SampleFault::far_ahead);
    const Contact* open = contacts_.find(sample);
    if (open == nullptr || (sample.phase != Phase::up && sample.phase != Phase::cancel)) return false;
    Sample end = sample;
    end.time = open->last.time;
    return take_sample(end);
  }
  const Contacts::Admitted admitted = contacts_.admit(sample, around_.feels.of(sample.tool).smoothing);
  if (admitted.fault != SampleFault::none) says(admitted.fault);
  Contact* contact = admitted.contact;
  if (contact == nullptr) return false;
  Sample& sound = contact->seen;
  sound.time = around_.now;  // when it counts, if it came late
  const bool ends = sound.phase == Phase::up || sound.phase == Phase::cancel;
  // Whatever a callback throws, an end is an end.
  struct Close {
    Contacts* contacts;
    Contact* contact;
    ~Close() {
      if (contact != nullptr) contacts->close(*contact);
    }
  } close{&contacts_, ends ? contact : nullptr};
  if (sound.phase == Phase::down)
    routing_.offer(order_, *contact, sound);
  else
    routing_.deliver(*contact, sound);
  return routing_.owner(*contact) != nullptr;
}

void Stage::frame(Micros now) {
  frame_ = std::max(frame_, now);
  const Micros until = std::max(frame_, happened_);
  run_until(until);
  if (!later_.empty()) tell_time(until);
  around_.now = until;
  woken_ = false;
  // Cells that follow what moves; whoever looks at them goes along.
  for (std::size_t i = 0; i < active_.size(); ++i)
    if (Part& part = *active_[i]; !part.post_.settled && !part.post_.shares && part.shared_place() != nullptr)
      sharing(part);
  share_places();
  tell_places();
}

// All cells say where their parts are now: at a frame, and before the app does something, since what it
// writes is held against that.
void Stage::tell_places() {
  for (std::size_t i = 0; i < active_.size(); ++i) {
    Part& part = *active_[i];
    if (part.post_.settled) {
      part.post_.active = false;
      active_[i--] = active_.back();
      active_.pop_back();
      continue;
    }
    part.tell_place();
    settle_event();
  }
  settle_event();
}

void Stage::advance(Micros now) {
  if (now > farthest_time) return;
  Micros mine = own(now);
  if (busy_) {
    asked_frame_ = std::max(asked_frame_, mine);
    return;
  }
  Call call(*this);
  if (mine + clock_slack < happened_) {
    around_.journal.record(happened_, {}, answers::clock_went_back,
                           {Fact::plain("back", to_seconds(happened_ - mine), "s")});
    ahead_ += happened_ - mine;
    mine = happened_;
  }
  frame(mine);
  call.finish();
}

bool Stage::press(Key key, Micros time) {
  if (busy_) {
    wait({when(time), KeyPress{key}});
    return false;
  }
  Call call(*this);
  tell_time(when(time));
  const bool used = take_key(key);
  call.finish();
  return used;
}

bool Stage::take_key(Key key) {
  if (key == Key::tab || key == Key::back_tab) {
    move_focus(key == Key::tab);
    return focus_ != nullptr;
  }
  if (focused() != nullptr && key != Key::back) {
    before(*focus_);
    const bool used = focus_->press(key);
    after(*focus_);
    if (used) return true;
  }
  return (key == Key::back || key == Key::escape) && take_back();
}

bool Stage::take_back() {
  for (std::size_t i = order_.size(); i-- > 0;) {
    Part& part = *order_[i];
    if (!part.visible() || !part.enabled()) continue;
    before(part);
    const bool used = part.back();
    const bool blocks = part.modal();
    after(part);
    if (!used && !blocks) continue;
    part.decide(used ? answers::back_taken : answers::back_blocked);
    return used;
  }
  around_.journal.record(around_.now, {}, answers::back_nobody);
  return false;
}

bool Stage::act(Part& part, std::string action, Micros time) {
  bool could = false;
  const bool now = !busy_;
  at(time, [this, handle = handle(part), action = std::move(action), out = now ? &could : nullptr] {
    Part* found = get(handle);
    if (found == nullptr || !found->enabled() || found->doomed()) return;
    before(*found);
    const bool did = found->act(action);
    after(*found);
    if (out != nullptr) *out = did;
  });
  return could;
}

void Stage::at(Micros time, std::function<void()> deed) {
  if (busy_) {
    wait({when(time), Deed{std::move(deed)}});
    return;
  }
  Call call(*this);
  tell_time(when(time));
  tell_places();
  deed();
  call.finish();
}

void Stage::at_once(const std::function<void()>& writes) {
  const auto write = [&] {
    const Write before = std::exchange(around_.write, Write::at_once);
    writes();
    around_.write = before;
  };
  if (busy_) return write();
  Call call(*this);
  tell_time(std::max(frame_, happened_));
  write();
  call.finish();
}

void Stage::cancel_contacts() {
  do_or_wait([this] {
    while (const Contact* contact = contacts_.first_open()) {
      Sample sample = contact->last;
      sample.phase = Phase::cancel;
      sample.time = std::max(sample.time, around_.now);
      take_sample(sample);
    }
  });
}

void Stage::turn(Size size, const Insets& safe, Micros time) {
  StageSettings next{.width = size.w, .height = size.h, .safe = safe};
  check_settings("stage", next);
  at(time, [this, size, safe] {
    cancel_contacts();
    do_or_wait([this, size, safe] {
      around_.screen = {0.0, 0.0, size.w, size.h};
      around_.safe = safe;
      to_lay_ = true;
    });
  });
}

void Stage::set_safe_area(const Insets& safe, Micros time) {
  check_settings("stage", StageSettings{.safe = safe});
  at(time, [this, safe] {
    around_.safe = safe;
    to_lay_ = true;
  });
}

void Stage::set_right_to_left(bool right_to_left, Micros time) {
  at(time, [this, right_to_left] {
    if (around_.right_to_left == right_to_left) return;
    cancel_contacts();
    do_or_wait([this, right_to_left] {
      around_.right_to_left = right_to_left;
      for (std::size_t i = 0; i < order_.size(); ++i) {
        before(*order_[i]);
        order_[i]->resized();
        after(*order_[i]);
      }
    });
  });
}

void Stage::set_feel(const Feel& feel) {
  check_settings("feel", feel);
  around_.feels.finger = feel;
}

Micros Stage::due() const {
  Micros next = due_list_.due();
  if (!later_.empty()) next = std::min(next, std::max(frame_, happened_));
  if (something_waits()) next = std::min(next, waiting_[waiting_at_].time);
  return next == never ? never : told(next);
}

}  // namespace ubbo
