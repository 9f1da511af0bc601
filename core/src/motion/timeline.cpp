#include "ubbo/motion/timeline.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/settings.hpp"

namespace ubbo {

std::vector<Micros> Stagger::by_order(std::size_t count, Micros each, From from) {
  std::vector<Micros> delays;
  for (std::size_t i = 0; i < count; ++i) {
    const auto steps = static_cast<std::int64_t>(i);
    const auto last = static_cast<std::int64_t>(count) - 1;
    if (from == From::first) delays.push_back(each * steps);
    if (from == From::last) delays.push_back(each * (last - steps));
    // With an even count two stand in the centre, half a step from it.
    if (from == From::centre) delays.push_back(each * (std::abs(2 * steps - last) / 2));
  }
  return delays;
}

std::vector<Micros> Stagger::by_distance(std::span<const Point> places, Point origin, double speed) {
  if (!(speed > 0.0))
    refuse("stagger: speed = " + plain_number(speed) + " is not taken; it takes more than 0 dp/s");
  std::vector<Micros> delays;
  for (const Point& place : places) delays.push_back(from_seconds(length(place - origin) / speed));
  return delays;
}

Timeline::Track Timeline::add_track(std::string name, double value, double rest_floor) {
  if (find(name) != tracks_.size()) refuse("timeline: the track '" + name + "' is there already");
  tracks_.push_back({std::move(name), value, rest_floor, {}, {}});
  return tracks_.size() - 1;
}

Timeline::Track Timeline::find(std::string_view name) const {
  Track track = 0;
  while (track < tracks_.size() && tracks_[track].name != name) ++track;
  return track;
}

Micros Timeline::time_of(std::string_view label) const {
  for (const auto& [name, time] : labels_)
    if (name == label) return time;
  refuse("timeline: no label '" + std::string(label) + "'");
}

Micros Timeline::time_of(const Place& place) const {
  Micros base{0};
  if (place.to == Place::To::last_end) base = last_end_;
  if (place.to == Place::To::last_begin) base = last_begin_;
  if (place.to == Place::To::label) base = time_of(place.label);
  if (base == never) refuse("timeline: nothing can come after a cue that is repeated for ever");
  if (base + place.offset < Micros{0})
    refuse("timeline: " + plain_number(to_ms(base + place.offset)) + " ms is before the beginning");
  return base + place.offset;
}

void Timeline::label(std::string name, const Place& place) {
  for (const auto& [known, time] : labels_)
    if (known == name) refuse("timeline: the label '" + name + "' is there already");
  labels_.emplace_back(std::move(name), time_of(place));
}

void Timeline::cue(Track track, double target, const Transition& transition, const Place& place) {
  cue(std::span(&track, 1), target, transition, std::span<const Micros>(), place);
}

void Timeline::cue(std::span<const Track> tracks, double target, const Transition& transition,
                   std::span<const Micros> delays, const Place& place) {
  if (!delays.empty() && delays.size() != tracks.size())
    refuse("timeline: as many delays as tracks are needed");
  for (const Track track : tracks)
    if (track >= tracks_.size()) refuse("timeline: no such track");
  const Micros begins = time_of(place);
  Micros ends = begins;
  for (std::size_t i = 0; i < tracks.size(); ++i) {
    const Micros delay = transition.delay + (delays.empty() ? Micros{0} : delays[i]);
    if (begins + delay < Micros{0}) refuse("timeline: a delay before the beginning");
    add(tracks[i], target, transition, begins + delay);
    const Lane& lane = tracks_[tracks[i]];
    // Where it stands now among its track's cues.
    const auto placed = std::upper_bound(lane.cues.begin(), lane.cues.end(), begins + delay,
                                         [](Micros time, const Cue& cue) { return time < cue.begins; });
    ends = std::max(ends, lane.motions[static_cast<std::size_t>(placed - lane.cues.begin()) - 1].ends());
  }
  last_begin_ = begins;
  last_end_ = ends;
  measure();
}

void Timeline::add(Track track, double target, const Transition& transition, Micros begins) {
  Lane& lane = tracks_[track];
  const auto after = std::upper_bound(lane.cues.begin(), lane.cues.end(), begins,
                                      [](Micros time, const Cue& cue) { return time < cue.begins; });
  lane.cues.insert(after, {begins, target, transition});
  lay(lane);
}

// Each cue takes over what the one before it has come to.
void Timeline::lay(Lane& lane) const {
  lane.motions.clear();
  for (const Cue& cue : lane.cues) {
    const MotionState met =
        lane.motions.empty() ? MotionState{lane.start, 0.0} : lane.motions.back().at(cue.begins);
    lane.motions.emplace_back(Motion::Plan{.from = met.value,
                                           .velocity = met.velocity,
                                           .to = cue.target,
                                           .begins = cue.begins,
                                           .rest_floor = lane.floor,
                                           .reduced = reduced_},
                              cue.transition);
  }
}

void Timeline::measure() {
  length_ = Micros{0};
  for (const Lane& lane : tracks_)
    for (std::size_t i = 0; i < lane.motions.size(); ++i) {
      const Micros cut = i + 1 < lane.motions.size() ? lane.motions[i + 1].begins() : never;
      length_ = std::max(length_, std::min(lane.motions[i].ends(), cut));
    }
}

void Timeline::set_reduced(Reduced reduced) {
  reduced_ = reduced;
  for (Lane& lane : tracks_) lay(lane);
  measure();
}

const Motion* Timeline::motion(Track track, Micros time) const {
  const auto& motions = tracks_[track].motions;
  const auto after = std::upper_bound(motions.begin(), motions.end(), time,
                                      [](Micros t, const Motion& motion) { return t < motion.begins(); });
  return after == motions.begin() ? nullptr : &after[-1];
}

MotionState Timeline::at(Track track, Micros time) const {
  const Motion* found = motion(track, time);
  return found == nullptr ? MotionState{tracks_[track].start, 0.0} : found->at(time);
}

double Timeline::opacity(Track track, Micros time) const {
  const Motion* found = motion(track, time);
  return found == nullptr ? 1.0 : found->opacity(time);
}

void Timeline::set(Micros head, Micros now, bool playing) {
  anchor_head_ = std::clamp(head, Micros{0}, length_);
  anchor_now_ = now;
  playing_ = playing;
}

void Timeline::set_speed(double speed, Micros now) {
  if (!(std::fabs(speed) <= 1000.0))
    refuse("timeline: speed = " + plain_number(speed) + " is not taken; it takes -1000 to 1000");
  set(head(now), now, playing_);
  speed_ = speed;
}

Micros Timeline::head(Micros now) const {
  if (!playing_) return anchor_head_;
  const auto run = static_cast<double>((now - anchor_now_).count()) * speed_;
  if (std::fabs(run) > static_cast<double>(farthest_time.count())) return run < 0.0 ? Micros{0} : length_;
  return std::clamp(anchor_head_ + Micros{std::llround(run)}, Micros{0}, length_);
}

bool Timeline::finished(Micros now) const {
  return playing_ && (speed_ < 0.0 ? head(now) == Micros{0} : head(now) == length_);
}

}  // namespace ubbo
