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

// Far enough from where it came from it goes on; a flick decides for itself.
void commit(Landing& made, const SnapPoints& snaps, const Release& release) {
  const std::size_t from = snaps.nearest(release.origin);
  const double moved = made.aimed - snaps.at(from);
  const bool onwards = moved > 0.0;
  if (release.flick || moved == 0.0 || (onwards ? from + 1 >= snaps.size() : from == 0)) return;
  const std::size_t next = onwards ? from + 1 : from - 1;
  const double needed = release.commit_distance.in(std::fabs(snaps.at(next) - snaps.at(from)));
  // Beyond the next one, nearest is nearest.
  if (needed <= 0.0 || std::fabs(moved) >= std::fabs(snaps.at(next) - snaps.at(from))) return;
  made.moved = std::fabs(moved);
  made.commit = needed;
  made.index = made.moved >= needed ? next : from;
}

void limit(Landing& made, const SnapPoints& snaps, const Release& release) {
  if (release.max_per_flick < 1.0) return;
  const std::size_t from = snaps.nearest(release.origin);
  const auto max = static_cast<std::size_t>(std::min(release.max_per_flick, 1e9));
  const std::size_t min_index = from - std::min(from, max);
  const std::size_t max_index = std::min(from + max, snaps.size() - 1);
  const std::size_t wanted = made.index;
  made.index = std::clamp(wanted, min_index, max_index);
  if (made.index == wanted) return;
  made.limited = made.contested = true;
  made.commit = 0.0;
  made.other = snaps.at(wanted);
  made.other_distance = std::fabs(made.aimed - made.other);
}

}  // namespace

void add_thresholds(const SnapPoints& snaps, Length commit_distance, std::vector<Threshold>& out) {
  constexpr std::size_t max = 60;
  for (std::size_t i = 0; i + 1 < snaps.size() && snaps.size() <= max; ++i) {
    const double from = snaps.at(i);
    const double to = snaps.at(i + 1);
    const double needed = std::min(commit_distance.in(to - from), to - from);
    if (needed > 0.0)
      out.insert(out.end(), {Threshold{from + needed, 1}, Threshold{to - needed, -1}});
    else
      out.push_back({(from + to) / 2.0, 0});
  }
}

Landing choose_landing(const SnapPoints& snaps, const Release& release) {
  Landing made;
  // Where nothing was thrown it is aimed at where it was let go, also past a bound that yields.
  const double thrown = release.velocity * release.projection_time;
  made.aimed = thrown == 0.0 ? release.place : std::clamp(release.place + thrown, release.min, release.max);
  if (snaps.empty()) {
    made.place = std::clamp(made.aimed, release.min, release.max);
    return made;
  }
  const std::size_t nearest = snaps.nearest(made.aimed);
  made.index = nearest;
  if (release.flick && release.velocity != 0.0) {
    const std::size_t min = next_in_direction(snaps, release.place, release.velocity);
    made.index = release.velocity > 0.0 ? std::max(nearest, min) : std::min(nearest, min);
  }
  commit(made, snaps, release);
  limit(made, snaps, release);
  made.place = snaps.at(made.index);
  made.distance = std::fabs(made.aimed - made.place);
  if (made.limited || made.commit > 0.0) return made;
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
