#include "ubbo/io/replay.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace ubbo::io {

Replay::Replay(SceneRun& run, const Take& take, ReplayOptions options)
    : run_(&run), take_(&take), options_(options) {
  if (!(options.fps >= 1.0 && options.fps <= 1000.0))
    throw std::invalid_argument(fmt::format("fps = {} is not taken; it takes 1 to 1000", options.fps));
  if (take.samples.empty()) return;
  begins_ = ends_ = take.samples.front().time;
  run.stage().advance(begins_);
}

Micros Replay::frame_time(double frame) const { return begins_ + from_ms(frame * 1e3 / options_.fps); }

// Frames in which nothing moves change nothing and are left out, so that a pause of hours costs nothing.
void Replay::frames_until(Micros time) {
  Stage& stage = run_->stage();
  while (stage.due() != never) {
    const Micros frame = frame_time(next_frame_);
    if (frame >= time) return;
    stage.advance(frame);
    ++frames_;
    next_frame_ += 1.0;
  }
  next_frame_ = std::max(next_frame_, std::floor(to_seconds(time - begins_) * options_.fps) + 1.0);
}

void Replay::collect() {
  Journal& journal = run_->stage().journal();
  for (const Decision& decision : journal.decisions()) {
    if (decisions_.size() < options_.most_decisions)
      decisions_.push_back(decision);
    else
      ++lost_;
  }
  journal.clear();
}

void Replay::play_to(Micros time) {
  Stage& stage = run_->stage();
  const auto& samples = take_->samples;
  for (; next_sample_ < samples.size() && samples[next_sample_].time <= time; ++next_sample_) {
    frames_until(samples[next_sample_].time);
    stage.touch(samples[next_sample_]);
    if (stage.journal().decisions().size() * 2 >= stage.journal().room()) collect();
  }
  frames_until(time);
  stage.advance(time);
  collect();
}

void Replay::finish() {
  if (take_->samples.empty()) return;
  Stage& stage = run_->stage();
  const Micros last = take_->samples.back().time;
  play_to(last);
  if (stage.open_contacts() != 0) {
    warnings_.push_back(fmt::format("the take ends at {} ms with {} contact(s) down; ended by a cancel",
                                    to_ms(last), stage.open_contacts()));
    stage.cancel_contacts();
  }
  ends_ = std::max(ends_, stage.now());
  const Micros limit = last + options_.settle_limit;
  for (Micros due = stage.due(); due != never; due = stage.due()) {
    if (due > limit) {
      warnings_.push_back(
          fmt::format("parts still move {} s after the last sample", to_seconds(options_.settle_limit)));
      break;
    }
    play_to(due);
    ends_ = std::max(ends_, due);
  }
  collect();
  if (lost_ + stage.journal().lost() != 0)
    warnings_.push_back(
        fmt::format("{} more decisions were made than are kept", lost_ + stage.journal().lost()));
}

}  // namespace ubbo::io
