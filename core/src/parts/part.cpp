#include "ubbo/parts/part.hpp"

namespace ubbo {

Box Part::box() const {
  Box here = box_ + moved();
  for (const Part* around = outer_; around != nullptr; around = around->outer_)
    here = here + around->carries();
  return here;
}

bool Part::takes(Point at) const {
  for (const Part* part = this; part != nullptr; part = part->outer_)
    if (!part->box().contains(at)) return false;
  return true;
}

}  // namespace ubbo
