#include "ubbo/io/replay/replay.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>
#include <cmath>
#include <optional>
#include <stdexcept>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

std::optional<Key> key_of(std::string_view name) {
  for (const Key key : all_keys())
    if (name == name_of(key)) return key;
  return std::nullopt;
}

std::optional<Size> screen_in(const std::string& text) {
  const auto size = size_of(text);
  if (!size || !(size->w >= 1.0 && size->w <= 1e5) || !(size->h >= 1.0 && size->h <= 1e5))
    return std::nullopt;
  return size;
}

}  // namespace

Replay::Replay(SceneRun& run, const Take& take, ReplayOptions options)
    : run_(&run), take_(&take), options_(options) {
  if (!(options.fps >= 1.0 && options.fps <= 1000.0))
    throw std::invalid_argument(fmt::format("fps = {} is not taken; it takes 1 to 1000", options.fps));
  for (const Deed& deed : take.deeds) check_deed(deed);
  if (take.samples.empty() && take.deeds.empty()) return;
  begins_ = last_ = take.samples.empty() ? take.deeds.front().time : take.samples.front().time;
  if (!take.deeds.empty()) begins_ = std::min(begins_, take.deeds.front().time);
  if (!take.samples.empty()) last_ = take.samples.back().time;
  if (!take.deeds.empty()) last_ = std::max(last_, take.deeds.back().time);
  ends_ = begins_;
  run.stage().advance(begins_);
}

void Replay::check_deed(const Deed& deed) const {
  const auto refuse = [&](std::string found, std::string takes, std::string nearest = {}) {
    throw InputError({.file = take_->file.empty() ? "take" : take_->file,
                      .line = deed.line,
                      .column = 1,
                      .found = std::move(found),
                      .takes = std::move(takes),
                      .nearest = std::move(nearest)});
  };
  std::vector<std::string_view> known;
  switch (deed.kind) {
    case Deed::Kind::set:
    case Deed::Kind::put: {
      const SceneRun::Named* cell = run_->find_cell(deed.target);
      for (const auto& named : run_->cells()) known.emplace_back(named.name);
      if (cell == nullptr)
        refuse(fmt::format("no cell '{}'", deed.target),
               known.empty() ? "nothing: the scene has no cells" : fmt::format("{}", fmt::join(known, ", ")),
               nearest_name(deed.target, known));
      else if (!read_value(deed.value, cell->value()))
        refuse(fmt::format("{} = '{}'", deed.target, deed.value), what_value_takes(cell->value()));
      return;
    }
    case Deed::Kind::key:
      for (const Key key : all_keys()) known.emplace_back(name_of(key));
      if (!key_of(deed.target))
        refuse(fmt::format("key '{}'", deed.target), fmt::format("{}", fmt::join(known, ", ")),
               nearest_name(deed.target, known));
      return;
    case Deed::Kind::back:
      return;
    case Deed::Kind::turn:
      if (!screen_in(deed.value))
        refuse(fmt::format("turn to '{}'", deed.value), "WIDTHxHEIGHT in dp, such as 720x360");
      return;
    default:
      for (const Part* part : run_->stage().parts()) known.emplace_back(part->id());
      if (run_->stage().find(deed.target) == nullptr)
        refuse(fmt::format("no part '{}'", deed.target),
               known.empty() ? "nothing: the scene has no parts" : fmt::format("{}", fmt::join(known, ", ")),
               nearest_name(deed.target, known));
  }
}

void Replay::perform(const Deed& deed) {
  Stage& stage = run_->stage();
  Part* part = stage.find(deed.target);  // may have been removed by an earlier deed
  const auto write = [&] {
    SceneRun::Named* cell = run_->find_cell(deed.target);
    set_cell(cell->any(), *read_value(deed.value, cell->value()));
  };
  switch (deed.kind) {
    case Deed::Kind::set:
      return stage.at(deed.time, write);
    case Deed::Kind::put:
      return stage.at(deed.time, [&] { stage.at_once(write); });
    case Deed::Kind::key:
      stage.press(*key_of(deed.target), deed.time);
      return;
    case Deed::Kind::back:
      stage.back(deed.time);
      return;
    case Deed::Kind::turn:
      return stage.turn(*screen_in(deed.value), stage.safe_area(), deed.time);
    case Deed::Kind::focus:
      return stage.at(deed.time, [&] { stage.focus(deed.target); });
    case Deed::Kind::call:
      if (part != nullptr && !stage.act(*part, deed.value, deed.time))
        warnings_.push_back(fmt::format("at {} ms '{}' could not be asked to '{}'", to_ms(deed.time),
                                        deed.target, deed.value));
      return;
    default:
      break;
  }
  if (part == nullptr) return;
  stage.at(deed.time, [&] {
    if (deed.kind == Deed::Kind::show || deed.kind == Deed::Kind::hide)
      stage.show(*part, deed.kind == Deed::Kind::show);
    if (deed.kind == Deed::Kind::enable || deed.kind == Deed::Kind::disable)
      stage.enable(*part, deed.kind == Deed::Kind::enable);
    if (deed.kind == Deed::Kind::remove) stage.remove(*part);
  });
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
    if (decisions_.size() < options_.most_decisions)
      decisions_.push_back(decision);
    else
      ++lost_;
  }
  lost_ += journal.lost();
  journal.clear();
}

bool Replay::more(Micros until) const {
  const bool samples = next_sample_ < take_->samples.size() && take_->samples[next_sample_].time <= until;
  const bool deeds = next_deed_ < take_->deeds.size() && take_->deeds[next_deed_].time <= until;
  return samples || deeds;
}

void Replay::play_to(Micros time) {
  Stage& stage = run_->stage();
  while (more(time)) {
    const bool deed = next_deed_ < take_->deeds.size() && take_->deeds[next_deed_].before <= next_sample_;
    if (deed) {
      const Deed& next = take_->deeds[next_deed_++];
      frames_until(next.time);
      perform(next);
    } else {
      const Sample& next = take_->samples[next_sample_++];
      frames_until(next.time);
      stage.touch(next);
      constexpr std::size_t told_every = 1024;
      if (options_.told && next_sample_ % told_every == 0)
        options_.told(static_cast<double>(next_sample_) / static_cast<double>(take_->samples.size()));
    }
    if (stage.journal().size() * 2 >= stage.journal().room()) collect();
  }
  frames_until(time);
  stage.advance(time);
  collect();
}

void Replay::finish() {
  if (take_->samples.empty() && take_->deeds.empty()) return;
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
