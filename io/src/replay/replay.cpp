#include "ubbo/io/replay/replay.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <stdexcept>

namespace ubbo::io {

Replay::Replay(SceneRun& run, const ReadyTake& ready, ReplayOptions options)
    : run_(&run), take_(&ready), options_(std::move(options)) {
  if (!(options_.fps >= 1.0 && options_.fps <= 1000.0))
    throw std::invalid_argument(fmt::format("fps = {} is not taken; it takes 1 to 1000", options_.fps));
  const Take& take = ready.take();
  if (ready.empty()) return;
  begins_ = last_ = take.samples.empty() ? take.actions.front().time : take.samples.front().time;
  if (!take.actions.empty()) begins_ = std::min(begins_, take.actions.front().time);
  if (!take.samples.empty()) last_ = take.samples.back().time;
  if (!take.actions.empty()) last_ = std::max(last_, take.actions.back().time);
  ends_ = begins_;
  if (!ready.state().empty()) (void)run.stage().restore(ready.state(), begins_);  // checked by `ReadyTake`
  run.stage().advance(begins_);
  // What was restored is nothing that was decided in this take.
  if (!ready.state().empty()) run.stage().journal().clear();
}

void Replay::perform(std::size_t action) {
  if (take_->perform(action, *run_)) return;
  const Action& asked = take().actions[action];
  warnings_.push_back(
      fmt::format("at {} ms '{}' could not be asked to '{}'", to_ms(asked.time), asked.target, asked.value));
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
    if (stage.journal().size() * 2 >= stage.journal().room()) collect();
  }
  next_frame_ = std::max(next_frame_, std::floor(to_seconds(time - begins_) * options_.fps) + 1.0);
}

void Replay::collect() {
  Journal& journal = run_->stage().journal();
  for (const Decision& decision : journal.decisions()) {
    if (decisions_.size() < options_.max_decisions)
      decisions_.push_back(decision);
    else
      ++lost_;
  }
  lost_ += journal.lost();
  journal.clear();
}

bool Replay::more(Micros until) const {
  const bool samples = next_sample_ < take().samples.size() && take().samples[next_sample_].time <= until;
  const bool actions = next_action_ < take().actions.size() && take().actions[next_action_].time <= until;
  return samples || actions;
}

void Replay::play_to(Micros time) {
  Stage& stage = run_->stage();
  while (more(time)) {
    const bool action =
        next_action_ < take().actions.size() && take().actions[next_action_].before <= next_sample_;
    if (action) {
      frames_until(take().actions[next_action_].time);
      perform(next_action_++);
    } else {
      const Sample& next = take().samples[next_sample_++];
      frames_until(next.time);
      stage.touch(next);
      constexpr std::size_t told_every = 1024;
      if (options_.told && next_sample_ % told_every == 0)
        options_.told(static_cast<double>(next_sample_) / static_cast<double>(take().samples.size()));
    }
    if (stage.journal().size() * 2 >= stage.journal().room()) collect();
  }
  frames_until(time);
  stage.advance(time);
  collect();
}

void Replay::finish() {
  if (take_->empty()) return;
  Stage& stage = run_->stage();
  play_to(last_);
  if (stage.open_contacts() != 0) {
    warnings_.push_back(fmt::format("the take ends at {} ms with {} contact{} down; ended by a cancel",
                                    to_ms(last_), stage.open_contacts(),
                                    stage.open_contacts() == 1 ? "" : "s"));
    stage.cancel_contacts();
  }
  ends_ = std::max(ends_, stage.now());
  const Micros limit = last_ + options_.settle_limit;
  while (!stage.settled()) {
    const Micros due = stage.due();
    if (due > limit) {
      warnings_.push_back(due == never ? "a part moves for ever"
                                       : fmt::format("parts still move {} s after the last event",
                                                     to_seconds(options_.settle_limit)));
      break;
    }
    play_to(due);
    ends_ = std::max(ends_, due);
  }
  collect();
  if (lost_ != 0) warnings_.push_back(fmt::format("{} more decisions were made than are kept", lost_));
}

}  // namespace ubbo::io
