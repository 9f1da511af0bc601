#include "ubbo/parts/part.hpp"

namespace ubbo {

Part::Part(std::string id, const Box& box, Surroundings& around)
    : id_(std::move(id)),
      voice_{&around.journal, std::string_view(id_)},
      laid_(box),
      placement_(Placement::of(box)),
      around_(&around) {}

void Part::set_feels(const Feels& feels) {
  check_feels(feels);
  own_feels_ = std::make_unique<const Feels>(feels);
}

Box Part::box() const {
  Box here = laid_ + moved();
  const Part* inner = this;
  for (const Part* around = outer_; around != nullptr; around = around->outer_) {
    here = here + around->carries_part(*inner);
    inner = around;
  }
  return here;
}

bool Part::visible() const {
  for (const Part* part = this; part != nullptr; part = part->outer_) {
    if (part->post_.hidden || part->post_.gone || part->away()) return false;
    if (part->outer_ != nullptr && part->outer_->presence_of(*part) == Presence::gone) return false;
  }
  return true;
}

bool Part::in_sight() const {
  for (const Part* part = this; part != nullptr; part = part->outer_)
    if (part->sight_ != Sight::clear && (part->sight_ == Sight::behind || part->opacity() <= 0.0))
      return false;
  return visible();
}

bool Part::doomed() const {
  const Part* part = this;
  while (part != nullptr && !part->post_.doomed) part = part->outer_;
  return part != nullptr;
}

bool Part::enabled() const {
  const Part* part = this;
  while (part != nullptr && !part->post_.disabled) part = part->outer_;
  return part == nullptr;
}

bool Part::takes(Point at) const {
  for (const Part* part = this; part != nullptr; part = part->outer_) {
    if (!part->box().contains(at) || (part != this && part->shut())) return false;
    if (part->outer_ != nullptr && part->outer_->presence_of(*part) != Presence::used) return false;
  }
  return true;
}

void Part::lose(const Contact& contact, const Sample& sample) {
  Sample lost = sample;
  lost.phase = Phase::cancel;
  touch(contact, lost);
}

void Part::hear() {
  if (around_->keeper != nullptr)
    around_->keeper->heard(*this);
  else
    heard();
}

void Part::ask(std::function<void()> deed) {
  if (around_->keeper != nullptr)
    around_->keeper->call(*this, std::move(deed));
  else
    deed();
}

std::string passage_fault(const Passage& passage) {
  return passage.runs == 1
             ? ""
             : "passage repeats; it takes one that is gone once, so that the part comes to rest";
}

}  // namespace ubbo
