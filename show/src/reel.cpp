#include "ubbo/show/reel.hpp"

#include <algorithm>
#include <cctype>
#include <map>
#include <set>
#include <utility>

#include "told.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/take/wheel_action.hpp"
#include "ubbo/io/text/harmless.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::show {

namespace {

// Stretches of a run in which something moves or a contact is down, one after another.
using Spans = std::vector<std::pair<Micros, Micros>>;

Spans moving_spans(const io::Scene& scene, const io::Take& take, Micros begins, Micros ends) {
  constexpr std::int64_t max_steps = 3000;
  const Micros step = std::max(Micros{16'667}, (ends - begins) / max_steps);
  io::SceneRun run(scene);
  io::Replay replay(run, take);
  Spans spans;
  bool rests = true;
  for (Micros at = begins; at <= ends; at += step) {
    replay.play_to(at);
    const bool rested = std::exchange(rests, run.stage().settled());
    if (rests && rested) continue;
    const Micros from = std::max(at - step, begins);
    if (!spans.empty() && spans.back().second >= from)
      spans.back().second = at;
    else
      spans.emplace_back(from, at);
  }
  return spans;
}

// How much of the time from `from` to `to` is in the spans, and when the half of it is over.
std::pair<Micros, Micros> moving_between(const Spans& spans, Micros from, Micros to) {
  const auto within = [&](const auto& span) {
    return std::max(Micros{0}, std::min(span.second, to) - std::max(span.first, from));
  };
  Micros sum{0};
  for (const auto& span : spans) sum += within(span);
  Micros left = sum / 2;
  for (const auto& span : spans) {
    if (within(span) > left) return {sum, std::max(span.first, from) + left};
    left -= within(span);
  }
  return {sum, from + (to - from) / 2};
}

// The first and the last moment, those of decisions, and more where most goes on: not where all is at rest.
std::vector<Micros> frame_times(const io::Replay& replay, const Spans& spans, std::size_t count) {
  std::set<Micros> times{replay.begins(), replay.ends()};
  std::vector<Micros> decided;
  for (const Decision& decision : replay.decisions()) decided.push_back(decision.time);
  decided.erase(std::unique(decided.begin(), decided.end()), decided.end());
  const std::size_t step = decided.size() / count + 1;
  for (std::size_t i = 0; i < decided.size() && times.size() < count; i += step) times.insert(decided[i]);
  const bool any_moves = moving_between(spans, replay.begins(), replay.ends()).first > Micros{0};
  const Spans whole{{replay.begins(), replay.ends()}};
  while (times.size() < count) {
    std::pair<Micros, Micros> widest{};  // how much goes on in it, and its middle
    for (auto next = std::next(times.begin()); next != times.end(); ++next)
      widest = std::max(widest, moving_between(any_moves ? spans : whole, *std::prev(next), *next));
    if (widest.first < Micros{2}) break;
    times.insert(widest.second);
  }
  return {times.begin(), times.end()};
}

std::vector<Micros> even_times(const io::Replay& replay, Micros every) {
  constexpr std::size_t max = 2000;
  std::vector<Micros> times;
  for (Micros at = replay.begins(); at < replay.ends() && times.size() < max; at += every)
    times.push_back(at);
  times.push_back(replay.ends());
  return times;
}

// One trail a contact, with where it went down and by which tool.
struct Trail {
  std::vector<TrailPoint> points;
  Tool tool = Tool::finger;
};

std::vector<Trail> trails_of(const io::Take& take) {
  constexpr std::size_t max_points = 4000;  // more would not be seen
  const std::size_t step = take.samples.size() / max_points + 1;
  std::vector<Trail> trails;
  std::map<std::pair<int, int>, std::size_t> open;  // by device and contact
  std::size_t seen = 0;
  for (const Sample& sample : take.samples) {
    const std::pair contact{sample.device, sample.contact};
    const bool ends = sample.phase == Phase::up || sample.phase == Phase::cancel;
    if (sample.phase == Phase::down) {
      open[contact] = trails.size();
      trails.push_back({{}, sample.tool});
    } else if (!open.contains(contact) || (!ends && seen++ % step != 0)) {
      continue;
    }
    trails[open[contact]].points.push_back({sample.time, sample.at, !ends});
    if (ends) open.erase(contact);
  }
  return trails;
}

void grow(Box& box, const Box& by) {
  if (box.w <= 0.0) {
    box = by;
    return;
  }
  const double right = std::max(box.right(), by.right());
  const double bottom = std::max(box.bottom(), by.bottom());
  box.x = std::min(box.x, by.x);
  box.y = std::min(box.y, by.y);
  box.w = right - box.x;
  box.h = bottom - box.y;
}

// The parts that had something to do: those that decided anything but to keep out.
std::set<std::string_view> busy_parts(const io::Replay& replay) {
  std::set<std::string_view> busy;
  for (const Decision& decision : replay.decisions())
    if (!decision.part.empty() && !decision.asks(questions::contest)) busy.insert(decision.part.view());
  for (const Decision& decision : replay.decisions())
    if (decision.says(answers::contest_won)) busy.insert(decision.part.view());
  return busy;
}

// What is seen of a part: all its pieces that are more than a ground.
Box extent_of(const Part& part) {
  Box whole;
  pieces_of(part, [&](const Piece& piece) {
    if (!piece.bare && piece.box.w > 0.0 && piece.box.h > 0.0) grow(whole, piece.box);
  });
  for (const Part* outer = part.outer(); outer != nullptr; outer = outer->outer())
    whole = common(whole, outer->window());
  return whole;
}

// The upper and lower edge cut nothing in two that can be seen whole or not at all. What lies above or below
// what is needed is left out, as far as that allows; what lies beside it is taken in, as a whole if it is a
// small thing of its own, else its words and marks.
Box without_scraps(Box region, const Box& needed, const Stage& stage) {
  constexpr double clear = 2.0;
  constexpr double most = 1.5;  // times as high as it was
  const double highest = most * region.h;
  std::set<const Part*> holders;
  for (const Part* part : stage.parts()) holders.insert(part->outer());
  const auto beside = [&](const Box& box) { return box.y < needed.bottom() && box.bottom() > needed.y; };
  // False where it is too large to be taken in.
  const auto heed = [&](const Box& box) {
    if (box.w <= 0.0 || box.h <= 0.0 || box.right() <= region.x || box.x >= region.right()) return true;
    if (beside(box)) {
      const double top = std::min(region.y, box.y - clear);
      const double bottom = std::max(region.bottom(), box.bottom() + clear);
      if (bottom - top > highest) return false;
      region = {region.x, top, region.w, bottom - top};
    } else if (box.y < region.bottom() && box.bottom() > region.bottom()) {
      region.h = std::max(needed.bottom(), box.y - clear) - region.y;
    } else if (box.y < region.y && box.bottom() > region.y) {
      const double from = std::min(needed.y, box.bottom() + clear);
      region.h += region.y - from;
      region.y = from;
    }
    return true;
  };
  for (const Part* part : stage.parts()) {
    if (!part->in_sight()) continue;
    const Box whole = extent_of(*part);
    const bool holds_others = holders.contains(part) && beside(whole);
    if (!holds_others && heed(whole)) continue;
    pieces_of(*part, [&](const Piece& piece) {
      if (!piece.words.empty() || piece.role == Role::mark) heed(piece.box);
    });
  }
  return region;
}

// What of the screen is worth showing: the parts that were touched, with their labels, and the way of the
// finger.
Box region_of(const Stage& before, const Stage& after, const std::set<std::string_view>& busy,
              const io::Take& take) {
  constexpr double edge = 14.0;
  constexpr double finger = 18.0;
  Box region;
  for (const Stage* stage : {&before, &after})
    for (const Part* part : stage->parts()) {
      const bool comes = part->absent() && !part->hidden();  // at some moment in between it is where it lies
      if ((!busy.empty() && !busy.contains(part->id())) || (!part->visible() && !comes)) continue;
      const auto frame = [&](const Box& box) {
        grow(region, {box.x - edge, box.y - edge, box.w + 2 * edge, box.h + 2 * edge});
      };
      frame(comes ? part->layout_box() : part->box());
      if (!comes)
        pieces_of(*part, [&](const Piece& piece) {
          const bool beside = piece.role == Role::label || piece.role == Role::value;
          if (beside && !piece.words.empty()) frame(piece.box);
        });
    }
  const Box screen{0, 0, before.width(), before.height()};
  if (region.w <= 0.0) return screen;
  const Box needed{region.x + edge, region.y + edge, region.w - 2 * edge, region.h - 2 * edge};
  for (const Sample& sample : take.samples)
    if (screen.contains(sample.at))
      grow(region, {sample.at.x - finger, sample.at.y - finger, 2 * finger, 2 * finger});
  region = common(region, screen);
  return common(without_scraps(region, common(needed, screen), before), screen);
}

// The thresholds that applied to a contact: along the axes that the parts it went down on follow, of its
// tool's feel.
FilmThreshold threshold_of(const Stage& stage, const Sample& down, std::string_view owner) {
  FilmThreshold made;
  if (stage.find(owner) == nullptr) return made;
  const Feel& feel = stage.find(owner)->feel_for(down.tool);
  for (const Part* part = stage.find(owner); part != nullptr; part = part->outer()) {
    const DragInterest drag_interest = part->drag_interest(down);
    if (drag_interest.horizontal) made.x = feel.threshold(Axis::horizontal);
    if (drag_interest.vertical) made.y = feel.threshold(Axis::vertical);
  }
  // A label above stays clear of its lines.
  pieces_of(*stage.find(owner), [&](const Piece& piece) {
    const Box& box = piece.box;
    if (piece.role == Role::label && !piece.words.empty() && box.bottom() <= down.at.y)
      made.up = std::clamp(down.at.y - box.bottom() - 1.0, 0.0, made.up);
  });
  return made;
}

std::string_view owner_at(const io::Replay& replay, Micros time) {
  const auto& decisions = replay.decisions();  // in order of time
  auto at = std::lower_bound(decisions.begin(), decisions.end(), time,
                             [](const Decision& one, Micros sought) { return one.time < sought; });
  for (; at != decisions.end() && at->time == time; ++at)
    if (at->asks(questions::owner) && at->answer->yes) return at->part.view();
  return {};
}

// Nothing is seen beside the screen.
skin::Picture on_screen(skin::Picture scene, const Stage& stage) {
  skin::Group seen{
      .shapes = {std::make_move_iterator(scene.begin() + 1), std::make_move_iterator(scene.end())},
      .clip = Box{0.0, 0.0, stage.width(), stage.height()}};
  scene.erase(scene.begin() + 1, scene.end());  // its ground stays
  scene.emplace_back(std::move(seen));
  return scene;
}

FilmFrame frame_at(const io::SceneRun& run, const io::Replay& replay, Micros after, Micros time,
                   const ReelOptions& options) {
  FilmFrame frame{.time = time,
                  .scene = on_screen(skin::comb(run.stage(), options.colours, options.looks), run.stage()),
                  .captions = {},
                  .presses = {},
                  .ghosts = {}};
  const Decision* before = nullptr;
  for (const Decision& decision : replay.decisions())
    if (decision.time > after && decision.time <= time) {
      // Where something stays it is at rest, which need not be said twice.
      const bool said = before != nullptr && decision.says(answers::at_rest) &&
                        before->time == decision.time && before->part.view() == decision.part.view();
      before = &decision;
      if (said) continue;
      if (std::string words = words::caption(decision); !words.empty()) {
        frame.captions.push_back(std::move(words));
        std::string reason = words::sentence(decision);
        if (!reason.empty())
          reason[0] = static_cast<char>(std::toupper(static_cast<unsigned char>(reason[0])));
        frame.reasons.push_back(reason + ".");
      }
    }
  return frame;
}

// How a thing that comes and goes is shown now.
FilmGhost ghost_of(const Part& part) {
  const Box box = part.box();
  const Point middle = box.centre();
  const double scale = part.visual_state().scale;
  return {{middle.x - box.w * scale / 2, middle.y - box.h * scale / 2, box.w * scale, box.h * scale},
          part.opacity()};
}

// Plays on to `time` and keeps what is seen on the way of those that come and go, evenly in time, so
// that the distance from one to the next shows how fast they are.
std::vector<FilmGhost> play_to(io::Replay& replay, const io::SceneRun& run, Micros from, Micros time) {
  constexpr Micros apart{40'000};
  constexpr std::size_t max = 40;  // the latest of a longer way
  std::vector<FilmGhost> ghosts;
  std::map<const Part*, Box> last;
  const auto steps = (time - from) / apart;
  const auto first = std::max<std::int64_t>(1, steps - static_cast<std::int64_t>(max) + 1);
  for (std::int64_t i = first; i <= steps; ++i) {
    replay.play_to(from + i * apart);
    for (const Part* part : run.stage().parts()) {
      if (part->kind().stands == nullptr || !part->in_sight()) continue;
      const FilmGhost ghost = ghost_of(*part);
      const Box before = std::exchange(last[part], ghost.box);
      if (!part->settled() && !(ghost.box == before)) ghosts.push_back(ghost);
    }
  }
  replay.play_to(time);
  return ghosts;
}

void add_snap_places(FilmReel& reel, const Stage& stage, const std::set<std::string_view>& busy) {
  constexpr std::size_t max_marks = 60;
  for (const Part* part : stage.parts()) {
    const PartKind& kind = part->kind();
    if (!busy.contains(part->id()) || kind.place_of == nullptr) continue;
    bool handle = false;  // without one nothing comes to rest there
    pieces_of(*part, [&](const Piece& piece) { handle = handle || piece.role == Role::handle; });
    if (!handle) continue;
    std::vector<double> snap_points;
    for (const ReadingInfo& reading : kind.readings)
      if (reading.snap_points != nullptr && *reading.unit == '\0') reading.snap_points(*part, snap_points);
    std::sort(snap_points.begin(), snap_points.end());
    snap_points.erase(std::unique(snap_points.begin(), snap_points.end()), snap_points.end());
    if (snap_points.size() > max_marks) continue;
    for (const double rest : snap_points)
      if (const auto place = kind.place_of(*part, rest)) reel.snap_places.push_back(*place);
  }
}

}  // namespace

FilmReel reel_of(const io::Scene& scene, const io::Take& take, const ReelOptions& options) {
  constexpr std::size_t journal_room = 4096;
  io::SceneRun rehearsal(scene, journal_room);
  io::Replay whole(rehearsal, take, {.told = told_part(options.told, 0.0, 0.5)});
  whole.finish();
  const io::SceneRun fresh(scene);
  const std::set<std::string_view> busy = busy_parts(whole);

  FilmReel reel;
  reel.title = scene.title.empty() ? std::string(io::file_name(scene.file)) : scene.title;
  const std::string label = take.note("label");
  reel.subtitle = label.empty() ? std::string(io::file_name(take.file)) : label;
  reel.begins = whole.begins();
  reel.ends = whole.ends();
  reel.region = region_of(fresh.stage(), rehearsal.stage(), busy, take);
  for (const Decision& decision : whole.decisions()) reel.decided.push_back(decision.time);
  add_snap_places(reel, fresh.stage(), busy);

  const std::vector<Trail> trails = trails_of(take);
  for (const Sample& sample : take.samples)
    if (sample.phase == Phase::hover || sample.phase == Phase::leave)
      reel.hovers.push_back({sample.time, sample.at, sample.phase == Phase::hover});
  for (const io::Action& action : take.actions)
    if (action.kind == io::Action::Kind::wheel)
      if (const auto turn = io::wheel_turn(action)) {
        const bool zooms = turn->zooms || turn->scale != 1.0;
        reel.turns.push_back(
            {turn->time, turn->at, turn->scale == 1.0 ? turn->by : Point{0.0, 1.0 - turn->scale}, zooms});
      }
  std::vector<FilmPress> presses;
  for (const Trail& trail : trails) {
    reel.trails.push_back(trail.points);
    const TrailPoint& first = trail.points.front();
    const Sample down{.time = first.time, .at = first.at, .tool = trail.tool};
    presses.push_back({first.at, threshold_of(fresh.stage(), down, owner_at(whole, first.time))});
  }

  const Spans spans = moving_spans(scene, take, whole.begins(), whole.ends());

  io::SceneRun run(scene);
  io::Replay replay(run, take, {.told = told_part(options.told, 0.5, 1.0)});
  Micros after = whole.begins() - Micros{1};
  const auto times = options.every > Micros{0} ? even_times(whole, options.every)
                                               : frame_times(whole, spans, options.frames);
  for (const Micros time : times) {
    auto ghosts = play_to(replay, run, std::max(after, whole.begins()), time);
    reel.frames.push_back(frame_at(run, whole, after, time, options));
    reel.frames.back().ghosts = std::move(ghosts);
    for (std::size_t i = 0; i < trails.size(); ++i) {
      const auto& points = trails[i].points;
      if (points.front().time <= time && (points.back().down || points.back().time > time))
        reel.frames.back().presses.push_back(presses[i]);
    }
    after = time;
  }
  return reel;
}

}  // namespace ubbo::show
