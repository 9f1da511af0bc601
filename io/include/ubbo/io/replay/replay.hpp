#pragma once

#include <functional>
#include <memory>
#include <string>
#include <utility>
#include <vector>

#include "ubbo/io/replay/ready_take.hpp"

namespace ubbo::io {

/// How a take is replayed.
struct ReplayOptions {
  double fps = 60.0;                    ///< frames a second, 1 to 1000; outcomes do not depend on it
  std::size_t max_decisions = 100'000;  ///< further ones are counted, not kept
  Micros settle_limit{3'600'000'000};   ///< how long parts may go on moving after the last sample
  std::function<void(double)> told{};   ///< hears now and then which share of the take is played
};

/// Plays a take on a scene, all of it or up to moments of one's choosing: its touches, and what the app and
/// the phone did meanwhile, each at its own time.
///
/// Frames come at a fixed rate from the first sample on; a sample at a frame's own time comes before it. A
/// contact still down at the end of the take is ended by a cancel, and a warning says so.
class Replay {
 public:
  /// Both must outlive the replay. Throws `std::invalid_argument` for a frame rate out of its range.
  Replay(SceneRun& run, const ReadyTake& take, ReplayOptions options = {});
  /// Replays a take that is used only once. Throws as `ReadyTake` does, too.
  Replay(SceneRun& run, const Take& take, ReplayOptions options = {})
      : Replay(run, std::make_unique<const ReadyTake>(take, run.scene()), std::move(options)) {}

  /// Plays all samples and frames up to and including `time`, and shows the scene at that very time.
  void play_to(Micros time);
  /// Plays to the end of the take, then until everything is at rest.
  void finish();

  [[nodiscard]] const Take& take() const { return take_->take(); }
  [[nodiscard]] Micros begins() const { return begins_; }
  /// When the last sample came or the last motion ended, whichever was later. Known once finished.
  [[nodiscard]] Micros ends() const { return ends_; }
  [[nodiscard]] std::size_t frames() const { return frames_; }
  [[nodiscard]] const std::vector<Decision>& decisions() const { return decisions_; }
  /// What the user should know of the replay, a sentence each.
  [[nodiscard]] const std::vector<std::string>& warnings() const { return warnings_; }

 private:
  Replay(SceneRun& run, std::unique_ptr<const ReadyTake> take, ReplayOptions options)
      : Replay(run, *take, std::move(options)) {
    own_ = std::move(take);
  }
  void frames_until(Micros time);
  void collect();
  void perform(std::size_t action);
  [[nodiscard]] bool more(Micros until) const;
  [[nodiscard]] Micros frame_time(double frame) const;

  SceneRun* run_;
  std::unique_ptr<const ReadyTake> own_;
  const ReadyTake* take_;
  ReplayOptions options_;
  Micros begins_{};
  Micros ends_{};
  std::size_t next_sample_ = 0;
  std::size_t next_action_ = 0;
  Micros last_{};
  double next_frame_ = 1.0;
  std::size_t frames_ = 0;
  std::size_t lost_ = 0;
  std::vector<Decision> decisions_;
  std::vector<std::string> warnings_;
};

}  // namespace ubbo::io
