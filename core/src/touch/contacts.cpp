#include "ubbo/touch/contacts.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

bool ends(Phase phase) { return phase == Phase::up || phase == Phase::cancel; }

}  // namespace

bool usable(const Sample& sample) {
  // Written so that NaN fails every comparison.
  return std::fabs(sample.at.x) <= Contacts::farthest && std::fabs(sample.at.y) <= Contacts::farthest &&
         timely(sample);
}

const answers::BadSample& answer_of(SampleFault fault) {
  using namespace answers;
  constexpr std::array of{&not_down,   &already_down,      &time_went_back,
                          &not_finite, &too_many_contacts, &far_ahead};
  return *of.at(static_cast<std::size_t>(fault) - 1);
}

Contact* Contacts::find(const Sample& sample) {
  if (open_count_ == 0) return nullptr;
  for (Contact& c : slots_)
    if (c.open && c.id == sample.contact && c.device == sample.device) return &c;
  return nullptr;
}

Contact* Contacts::first_open() {
  for (Contact& c : slots_)
    if (c.open) return &c;
  return nullptr;
}

Contacts::Admitted Contacts::admit(const Sample& sample, Micros lag) {
  if (sample.phase == Phase::hover || sample.phase == Phase::leave) return {};  // no contact
  Contact* contact = find(sample);
  if (sample.phase == Phase::down) {
    if (!usable(sample)) return {nullptr, SampleFault::not_finite};
    if (contact != nullptr) return {nullptr, SampleFault::already_down};
    auto* slot = std::find_if(slots_.begin(), slots_.end(), [](const Contact& c) { return !c.open; });
    if (slot == slots_.end()) return {nullptr, SampleFault::too_many_contacts};
    slot->id = sample.contact;
    slot->device = sample.device;
    slot->slot = static_cast<int>(slot - slots_.begin());
    slot->down = slot->last = slot->seen = sample;
    slot->smoother.start(sample.time, sample.at);
    slot->history.clear();
    slot->history.add(sample.time, sample.at);
    slot->contested = false;
    slot->open = true;
    ++open_count_;
    return {slot, SampleFault::none};
  }

  if (contact == nullptr) return {nullptr, SampleFault::not_down};
  SampleFault fault = SampleFault::none;
  if (!usable(sample))
    fault = SampleFault::not_finite;
  else if (sample.time < contact->last.time)
    fault = SampleFault::time_went_back;
  if (fault != SampleFault::none && !ends(sample.phase)) return {nullptr, fault};
  Sample& last = contact->last;
  const Point place_before = last.at;
  const Micros time_before = last.time;
  last = sample;
  if (fault != SampleFault::none) {
    last.at = place_before;
    // A good time counts even where the place is none, or what fell due before it would depend on the frames.
    if (!timely(sample) || sample.time < time_before) last.time = time_before;
  }
  // A lift that only repeats the last place says nothing new about the speed.
  if (last.phase == Phase::move || last.at != place_before) contact->history.add(last.time, last.at);
  contact->seen = last;
  if (lag > Micros{0}) contact->seen.at = contact->smoother.next(last.time, last.at, lag);
  return {contact, fault};
}

void Contacts::close(Contact& contact) {
  if (!contact.open) return;
  contact.open = false;
  --open_count_;
}

}  // namespace ubbo
