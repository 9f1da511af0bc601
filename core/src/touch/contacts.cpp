#include "ubbo/touch/contacts.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

bool usable(const Sample& sample) {
  // Written so that NaN fails every comparison.
  return std::fabs(sample.at.x) <= Contacts::farthest && std::fabs(sample.at.y) <= Contacts::farthest &&
         sample.time >= -farthest_time && sample.time <= farthest_time;
}

bool ends(Phase phase) { return phase == Phase::up || phase == Phase::cancel; }

}  // namespace

const char* name_of(SampleFault fault) {
  switch (fault) {
    case SampleFault::none:
      return "sound";
    case SampleFault::not_down:
      return "the contact is not down";
    case SampleFault::already_down:
      return "the contact is down already";
    case SampleFault::time_went_back:
      return "the time went back";
    case SampleFault::not_finite:
      return "not a usable number";
    case SampleFault::too_many_contacts:
      return "too many contacts";
  }
  return "";
}

Contact* Contacts::find(const Sample& sample) {
  if (open_count_ == 0) return nullptr;
  auto* found = std::find_if(slots_.begin(), slots_.end(), [&](const Contact& c) {
    return c.open && c.id == sample.contact && c.device == sample.device;
  });
  return found == slots_.end() ? nullptr : found;
}

Contact* Contacts::first_open() {
  auto* found = std::find_if(slots_.begin(), slots_.end(), [](const Contact& c) { return c.open; });
  return found == slots_.end() ? nullptr : found;
}

Contacts::Admitted Contacts::admit(const Sample& sample) {
  Contact* contact = find(sample);
  if (sample.phase == Phase::down) {
    if (!usable(sample)) return {nullptr, sample, SampleFault::not_finite};
    if (contact != nullptr) return {nullptr, sample, SampleFault::already_down};
    auto* slot = std::find_if(slots_.begin(), slots_.end(), [](const Contact& c) { return !c.open; });
    if (slot == slots_.end()) return {nullptr, sample, SampleFault::too_many_contacts};
    slot->id = sample.contact;
    slot->device = sample.device;
    slot->slot = static_cast<int>(slot - slots_.begin());
    slot->down = slot->last = sample;
    slot->history.clear();
    slot->history.add(sample.time, sample.at);
    slot->owner = Contact::nobody;
    slot->open = true;
    ++open_count_;
    return {slot, sample, SampleFault::none};
  }

  if (contact == nullptr) return {nullptr, sample, SampleFault::not_down};
  SampleFault fault = SampleFault::none;
  if (!usable(sample))
    fault = SampleFault::not_finite;
  else if (sample.time < contact->last.time)
    fault = SampleFault::time_went_back;
  Sample taken = sample;
  if (fault != SampleFault::none) {
    if (!ends(sample.phase)) return {nullptr, sample, fault};
    taken.at = contact->last.at;
    // A good time counts even where the place is none, or what fell due before it would depend on the frames.
    const bool timely = sample.time >= contact->last.time && sample.time <= farthest_time;
    if (!timely) taken.time = contact->last.time;
  }
  // A lift that only repeats the last place says nothing new about the speed.
  if (taken.phase == Phase::move || taken.at != contact->last.at) contact->history.add(taken.time, taken.at);
  contact->last = taken;
  return {contact, taken, fault};
}

void Contacts::close(Contact& contact) {
  if (!contact.open) return;
  contact.open = false;
  --open_count_;
}

}  // namespace ubbo
