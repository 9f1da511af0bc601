#include "ubbo/parts/part.hpp"

#include <stdexcept>

namespace ubbo {

Box Part::box() const {
  Box here = box_ + moved();
  for (const Part* around = outer_; around != nullptr; around = around->outer_)
    here = here + around->carries();
  return here;
}

void check_passage(const std::string& owner, const Passage& passage) {
  if (passage.runs != 1)
    throw std::invalid_argument(
        owner + ": passage repeats; it takes one that is gone once, so that the part " + "comes to rest");
}

double Part::decide_speed(const Contact& contact, const Sample& sample, Axis axis) const {
  const Feel& feel = around().feel_for(sample.tool);
  const VelocityEstimate speed = contact.history.estimate(sample.time, feel.velocity_rules());
  const double velocity = along(axis, speed.velocity);
  decide(questions::speed, speed.stale ? "no, it rested" : "yes",
         {Fact::plain("velocity", velocity, "dp/s"),
          Fact::below("rested", to_ms(speed.rested), "ms", to_ms(feel.staleness)),
          Fact::plain("samples", static_cast<double>(speed.samples), "")});
  return velocity;
}

void Part::decide_landing(const Landing& landing, const char* unit) const {
  if (!landing.contested) {
    decide(questions::landing, "where it was let go", {Fact::plain("place", landing.place, unit)});
    return;
  }
  decide(questions::landing, "on the nearest snap point",
         {Fact::plain("place", landing.place, unit), Fact::plain("aimed", landing.aimed, unit),
          Fact::below("distance", landing.distance, unit, landing.other_distance),
          Fact::plain("other", landing.other, unit)});
}

bool Part::takes(Point at) const {
  for (const Part* part = this; part != nullptr; part = part->outer_)
    if (!part->box().contains(at)) return false;
  return true;
}

}  // namespace ubbo
