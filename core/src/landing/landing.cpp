#include "ubbo/landing/landing.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

Landing choose_landing(const SnapPoints& snaps, double place, double velocity, double carry, double least,
                       double most) {
  Landing made;
  made.aimed = std::clamp(place + velocity * carry, least, most);
  if (snaps.empty()) {
    made.place = made.aimed;
    return made;
  }
  made.index = snaps.nearest(made.aimed);
  made.place = snaps.at(made.index);
  made.distance = std::fabs(made.aimed - made.place);
  for (const std::size_t other : {made.index - 1, made.index + 1}) {
    if (other >= snaps.size()) continue;  // also catches index 0 - 1
    const double distance = std::fabs(made.aimed - snaps.at(other));
    if (made.contested && distance >= made.other_distance) continue;
    made.contested = true;
    made.other = snaps.at(other);
    made.other_distance = distance;
  }
  return made;
}

}  // namespace ubbo
