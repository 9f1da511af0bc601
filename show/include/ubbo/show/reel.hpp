#pragma once

#include <functional>

#include "ubbo/io/replay/replay.hpp"
#include "ubbo/show/film.hpp"

/// What to show of a run: which frames, trails, regions and traces. Films, graphs and pages draw it.
namespace ubbo::show {

/// How a reel is cut.
struct ReelOptions {
  std::size_t frames = 12;  ///< 2 to 100
  Micros every{0};  ///< the time between frames, up to 2,000 of them, in place of `frames`; 0: not used
  skin::CombColours colours = skin::day;
  skin::Looks looks{};
  std::function<void(double)> told{};  ///< hears now and then which share is done
};

/// Replays a take on a scene and cuts a film of it: a frame at the beginning, at the end, and at each
/// decision while they are not too many; the others fill the widest gaps. Shows the parts that were touched,
/// and the way of the fingers. Throws as reading and replaying do.
[[nodiscard]] FilmReel reel_of(const io::Scene& scene, const io::Take& take, const ReelOptions& options);

}  // namespace ubbo::show
