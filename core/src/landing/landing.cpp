#include "ubbo/landing/landing.hpp"

#include <algorithm>
#include <cmath>

namespace ubbo {

namespace {

// The snap point that a flick reaches at least: the next one beyond `place` in its direction.
std::size_t next_in_direction(const SnapPoints& snaps, double place, double velocity) {
  std::size_t index = snaps.nearest(place);
  if (velocity > 0.0) {
    if (snaps.at(index) <= place && index + 1 < snaps.size()) ++index;
  } else if (snaps.at(index) >= place && index > 0) {
    --index;
  }
  return index;
}

}  // namespace

Landing choose_landing(const SnapPoints& snaps, const Release& release) {
  Landing made;
  // Where nothing was thrown it is aimed at where it was let go, also past a bound that yields.
  const double thrown = release.velocity * release.carry;
  made.aimed =
      thrown == 0.0 ? release.place : std::clamp(release.place + thrown, release.least, release.most);
  if (snaps.empty()) {
    made.place = std::clamp(made.aimed, release.least, release.most);
    return made;
  }
  const std::size_t nearest = snaps.nearest(made.aimed);
  made.index = nearest;
  if (release.flick && release.velocity != 0.0) {
    const std::size_t least = next_in_direction(snaps, release.place, release.velocity);
    made.index = release.velocity > 0.0 ? std::max(nearest, least) : std::min(nearest, least);
  }
  made.place = snaps.at(made.index);
  made.distance = std::fabs(made.aimed - made.place);
  if (made.index != nearest) {
    made.flicked = made.contested = true;
    made.other = snaps.at(nearest);
    made.other_distance = std::fabs(made.aimed - made.other);
    return made;
  }
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
