#include "ubbo/stage/stage.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <stdexcept>

namespace ubbo {

namespace {

// Parts that keep sending each other about cannot hang a call: the rest happens at the next one.
constexpr int most_events_per_call = 10'000;
constexpr std::array reduced_names{"full", "fade", "still"};

StageSettings checked(StageSettings settings) {
  check_settings("stage", settings);
  check_settings("feel", settings.feel);
  check_settings("feel.stylus", settings.stylus);
  check_settings("feel.mouse", settings.mouse);
  return settings;
}

}  // namespace

template <>
std::span<const Setting<StageSettings>> settings_of<StageSettings>() {
  using detail::setting;
  using S = StageSettings;
  static const std::array table{
      setting<&S::width>("width", "dp", 1.0, 100000.0, "width of the screen"),
      setting<&S::height>("height", "dp", 1.0, 100000.0, "height of the screen"),
      detail::flag<&S::right_to_left>("right_to_left", "reading direction; horizontal parts mirror"),
      detail::choice<&S::reduced_motion>("reduced_motion", reduced_names,
                                         "what becomes of travel for people who asked for less motion"),
      setting<&S::journal>("journal", "decisions", 0.0, 10'000'000.0,
                           "how many decisions the journal has room for; 0: it is off"),
  };
  return table;
}

Stage::Stage(StageSettings settings) {
  settings = checked(settings);
  around_.feel = settings.feel;
  around_.stylus = settings.stylus;
  around_.mouse = settings.mouse;
  around_.screen = {0.0, 0.0, settings.width, settings.height};
  around_.right_to_left = settings.right_to_left;
  around_.reduced_motion = settings.reduced_motion;
  around_.journal = Journal(static_cast<std::size_t>(settings.journal));
}

void Stage::check_place(const std::string& id, const Box& box, const Standing& standing) {
  if (id.empty()) throw std::invalid_argument("a part needs an id that is not empty");
  if (find(id) != nullptr)
    throw std::invalid_argument("part '" + id + "': there is a part with this id already");
  for (const double number : {box.x, box.y, box.w, box.h})
    if (!(std::fabs(number) <= Contacts::farthest))
      throw std::invalid_argument("part '" + id + "': its box holds " + plain_number(number) +
                                  "; it takes -1000000 to 1000000 dp");
  if (!(box.w > 0.0 && box.h > 0.0))
    throw std::invalid_argument("part '" + id + "': w = " + plain_number(box.w) +
                                ", h = " + plain_number(box.h) + " is no size; both take more than 0 dp");
  must_know(id, standing.inside, "inside");
  must_know(id, standing.stands_back_for, "stands_back_for");
}

void Stage::must_know(const std::string& id, const std::string& other, const char* relation) {
  if (!other.empty() && find(other) == nullptr)
    throw std::invalid_argument("part '" + id + "': " + relation + " = '" + other +
                                "' is not taken; it takes a part that was added before");
}

void Stage::adopt(std::unique_ptr<Part> part) { parts_.push_back(std::move(part)); }

Part* Stage::find(std::string_view id) {
  const auto found =
      std::find_if(parts_.begin(), parts_.end(), [id](const auto& part) { return part->id() == id; });
  return found == parts_.end() ? nullptr : found->get();
}

bool Stage::run_due(Micros until) {
  for (int events = 0; events < most_events_per_call; ++events) {
    Part* next = nullptr;
    Micros when = never;
    for (const auto& part : parts_) {
      if (part->due() >= when) continue;
      when = part->due();
      next = part.get();
    }
    if (next == nullptr || when > until) return next != nullptr;
    around_.now = happened_ = std::max(happened_, when);
    next->advance(around_.now);
  }
  return true;
}

bool Stage::touch(const Sample& sample) {
  const Contacts::Admitted admitted = contacts_.admit(sample);
  Contact* contact = admitted.contact;
  // What was due before this sample comes first, even before a bad one, or the order would depend on the
  // frames.
  const bool timely = admitted.sample.time >= -farthest_time && admitted.sample.time <= farthest_time;
  const Micros time = timely ? std::max(admitted.sample.time, happened_) : happened_;
  const bool more = run_due(time);
  if (admitted.fault != SampleFault::none)
    around_.journal.record(
        time, {}, questions::sound, name_of(admitted.fault),
        {Fact::plain("contact", sample.contact, ""), Fact::plain("time", to_ms(sample.time), "ms"),
         Fact::plain("x", sample.at.x, "dp"), Fact::plain("y", sample.at.y, "dp")});
  if (contact == nullptr) return false;
  around_.now = happened_ = time;
  // What moves is where it is at this time, not where the last frame showed it; a frame may have come after
  // it.
  if (more)
    for (const auto& part : parts_)
      if (part->due() != never) part->advance(time);
  Sample sound = admitted.sample;
  const Micros smoothing = around_.feel_for(sound.tool).smoothing;
  if (sample.phase == Phase::down)
    contact->smoother.start(sound.time, sound.at);
  else if (smoothing > Micros{0})
    sound.at = contact->smoother.next(sound.time, sound.at, smoothing);
  if (sample.phase == Phase::down)
    routing_.offer(parts_, *contact, sound);
  else
    routing_.deliver(parts_, *contact, sound);
  const bool owned = contact->owner != Contact::nobody;
  if (sample.phase == Phase::up || sample.phase == Phase::cancel) contacts_.close(*contact);
  return owned;
}

void Stage::advance(Micros now) {
  if (now > farthest_time) return;
  // Even a time that has passed lets happen what has become due since.
  frame_ = std::max(frame_, now);
  run_due(frame_);
  around_.now = std::max(frame_, happened_);
  for (const auto& part : parts_)
    if (!part->settled()) part->advance(around_.now);
}

void Stage::cancel_contacts() {
  while (const Contact* contact = contacts_.first_open()) {
    Sample sample = contact->last;
    sample.phase = Phase::cancel;
    sample.time = std::max(sample.time, around_.now);
    touch(sample);
  }
}

bool Stage::focus(std::string_view id) {
  focus_ = static_cast<std::size_t>(-1);
  if (id.empty()) return true;
  for (std::size_t i = 0; i < parts_.size(); ++i)
    if (parts_[i]->id() == id) focus_ = i;
  return focus_ < parts_.size();
}

bool Stage::press(Key key) {
  happened_ = std::max(happened_, around_.now);
  if (key != Key::tab && key != Key::back_tab) return focus_ < parts_.size() && parts_[focus_]->press(key);
  const std::size_t last = parts_.size() - 1;
  if (parts_.empty()) return false;
  // Past the last part the focus leaves the stage, so that the app's own order goes on.
  if (focus_ >= parts_.size())
    focus_ = key == Key::tab ? 0 : last;
  else if (key == Key::tab)
    focus_ = focus_ == last ? parts_.size() : focus_ + 1;
  else
    focus_ = focus_ == 0 ? parts_.size() : focus_ - 1;
  return focus_ < parts_.size();
}

Micros Stage::due() const {
  Micros next = never;
  for (const auto& part : parts_) next = std::min(next, part->due());
  return next;
}

bool Stage::settled() const {
  return contacts_.open_count() == 0 &&
         std::all_of(parts_.begin(), parts_.end(), [](const auto& part) { return part->settled(); });
}

}  // namespace ubbo
