#include "ubbo/parts/hover.hpp"

#include <algorithm>

#include "ubbo/parts/kind.hpp"

namespace ubbo {

namespace {

// Nothing to be seen or touched: what the easing belongs to.
class HoverClock final : public Part {
 public:
  explicit HoverClock(Context& context) : Part("", {}, context) {}
  [[nodiscard]] const PartKind& kind() const override {
    static const PartKind kind{.name = "hover"};
    return kind;
  }
  bool touch(const Contact&, const Sample&) override { return false; }
};

// How a part answers a pointer that comes over it: seen at once, and no flicker where one only passes.
Transition easing() { return Timed{Curve::ease_out(), Micros{140'000}}; }

bool same_pointer(const Sample& a, const Sample& b) { return a.device == b.device && a.tool == b.tool; }

}  // namespace

void Hover::point(const Sample& sample) {
  if (clock_ == nullptr) {
    clock_ = std::make_unique<HoverClock>(*context_);
    for (Shown& one : shown_) one.mover = std::make_unique<Clocked<Mover>>(*clock_, 0.0, 1e-3);
  }
  pointing_ = true;
  pointer_ = sample;
}

void Hover::leave(const Sample& sample) {
  if (same_pointer(sample, pointer_)) pointing_ = false;
}

void Hover::follow(const Sample& sample) {
  if (pointing_ && same_pointer(sample, pointer_)) pointer_.at = sample.at;
}

void Hover::move_to(Part* part, Micros now) {
  if (clock_ == nullptr) return;
  const auto of = [this](const Part* sought) {
    return std::find_if(shown_.begin(), shown_.end(), [&](const Shown& one) { return one.part == sought; });
  };
  const Transition way = easing();
  if (const auto left = of(part_); part_ != nullptr && left != shown_.end()) {
    left->mover->set_reduced(context_->reduced_motion == Reduced::still ? Reduced::still : Reduced::full);
    left->mover->send(0.0, way, now);
  }
  part_ = part;
  if (part == nullptr) return;
  auto found = of(part);
  if (found == shown_.end()) {
    found = std::min_element(shown_.begin(), shown_.end(), [&](const Shown& a, const Shown& b) {
      return (a.part == nullptr ? -1.0 : a.mover->at(now).value) <
             (b.part == nullptr ? -1.0 : b.mover->at(now).value);
    });
    found->part = part;
    found->mover->put(0.0);
  }
  found->mover->set_reduced(context_->reduced_motion == Reduced::still ? Reduced::still : Reduced::full);
  found->mover->send(1.0, way, now);
}

double Hover::share_of(const Part& part) const {
  for (const Shown& one : shown_)
    if (one.part == &part) return one.mover->at(context_->now).value;
  return 0.0;
}

void Hover::forget(const Part& part) {
  if (part_ == &part) part_ = nullptr;
  for (Shown& one : shown_)
    if (one.part == &part) one.part = nullptr;
}

}  // namespace ubbo
