#pragma once

#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "ubbo/base/geometry.hpp"
#include "ubbo/motion/motion.hpp"

namespace ubbo {

/// When a cue begins.
struct Place {
  enum class To : std::uint8_t { last_end, last_begin, start, label };

  To to = To::last_end;
  Micros offset{0};
  std::string label{};

  /// When the cue before it has ended, and `gap` later.
  static Place after(Micros gap = Micros{0}) { return {To::last_end, gap, {}}; }
  /// Together with the cue before it, `offset` later.
  static Place with(Micros offset = Micros{0}) { return {To::last_begin, offset, {}}; }
  /// At a time of the timeline.
  static Place at(Micros time) { return {To::start, time, {}}; }
  /// `offset` after a labelled time.
  static Place at(std::string label, Micros offset = Micros{0}) {
    return {To::label, offset, std::move(label)};
  }
};

/// Delays for a group that sets off one after another.
struct Stagger {
  enum class From : std::uint8_t { first, last, centre };

  /// `count` delays, `each` apart, from one end, or from the centre outwards.
  static std::vector<Micros> by_order(std::size_t count, Micros each, From from = From::first);
  /// A delay for each place: its distance from `origin` at `speed` (dp/s, above zero). Throws
  /// `std::invalid_argument`.
  static std::vector<Micros> by_distance(std::span<const Point> places, Point origin, double speed);
};

/// Many motions laid out in time: tracks (a number each: an offset, an opacity) with cues that send them to a
/// target by a transition.
///
/// What a track is at a time is worked out from its cues alone, so seeking to a time and playing up to it
/// give the same values, to the bit. A cue that begins while an earlier one of its track still moves takes
/// over value and velocity, as a mover does. Laying out allocates; reading and playing do not.
class Timeline {
 public:
  using Track = std::size_t;

  /// Adds a track that stands at `value` until its first cue. Names are for finding and for exports; throws
  /// `std::invalid_argument` for one that is taken.
  Track add_track(std::string name, double value, double rest_floor = 0.0);
  /// Sends `track` to `target` by `transition`; a delay of the transition comes on top of the place. Throws
  /// `std::invalid_argument` for a label that is not known, a track that is none, or a time before zero.
  void cue(Track track, double target, const Transition& transition, const Place& place = Place::after());
  /// One cue each for `tracks`, begun `delays` (as many) after the place; together they count as one cue for
  /// what comes after or with them.
  void cue(std::span<const Track> tracks, double target, const Transition& transition,
           std::span<const Micros> delays, const Place& place = Place::after());
  /// Names a time. Throws as `cue` does, and for a name that is taken.
  void label(std::string name, const Place& place = Place::after());
  /// Travel becomes a fade, or nothing, in all cues so far and to come.
  void set_reduced(Reduced reduced);

  /// When the last cue has come to rest; `never` with an endless one.
  [[nodiscard]] Micros length() const { return length_; }
  [[nodiscard]] std::size_t tracks() const { return tracks_.size(); }
  [[nodiscard]] const std::string& name(Track track) const { return tracks_[track].name; }
  /// The track with this name, or `tracks()`.
  [[nodiscard]] Track find(std::string_view name) const;
  /// A labelled time. Throws `std::invalid_argument` when there is none of the name.
  [[nodiscard]] Micros time_of(std::string_view label) const;

  /// What a track is at a time of the timeline. O(log cues).
  [[nodiscard]] MotionState at(Track track, Micros time) const;
  [[nodiscard]] double opacity(Track track, Micros time) const;

  // Playing. The head is a time of the timeline, kept within 0 and its length.

  /// Lets the head run, from `now` on.
  void play(Micros now) { set(head(now), now, true); }
  void pause(Micros now) { set(head(now), now, false); }
  /// Puts the head at `time`; it goes on as it did.
  void seek(Micros time, Micros now) { set(time, now, playing_); }
  void seek(std::string_view label, Micros now) { seek(time_of(label), now); }
  /// How fast the head runs: 0.1 a tenth as fast, negative backwards. Throws `std::invalid_argument` unless
  /// within ±1000.
  void set_speed(double speed, Micros now);
  [[nodiscard]] double speed() const { return speed_; }
  [[nodiscard]] bool playing() const { return playing_; }
  [[nodiscard]] Micros head(Micros now) const;
  /// True when the head has come to the end it runs to.
  [[nodiscard]] bool finished(Micros now) const;
  /// What a track is when the head is where it is at `now`.
  [[nodiscard]] double value(Track track, Micros now) const { return at(track, head(now)).value; }

 private:
  struct Cue {
    Micros begins;
    double target;
    Transition transition;
  };
  struct Lane {
    std::string name;
    double start;
    double floor;
    std::vector<Cue> cues;
    std::vector<Motion> motions;
  };
  [[nodiscard]] Micros time_of(const Place& place) const;
  void add(Track track, double target, const Transition& transition, Micros begins);
  void lay(Lane& lane) const;
  void measure();
  void set(Micros head, Micros now, bool playing);
  [[nodiscard]] const Motion* motion(Track track, Micros time) const;

  std::vector<Lane> tracks_;
  std::vector<std::pair<std::string, Micros>> labels_;
  Reduced reduced_ = Reduced::full;
  Micros last_begin_{0};
  Micros last_end_{0};
  Micros length_{0};
  Micros anchor_head_{0};
  Micros anchor_now_{0};
  double speed_ = 1.0;
  bool playing_ = false;
};

}  // namespace ubbo
