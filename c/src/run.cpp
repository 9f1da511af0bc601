#include <algorithm>
#include <array>

#include "held.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/text/base64.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/ubbo.h"

using namespace ubbo;
using c::give;
using c::guarded;
using c::Run;
using c::runs;
using c::scenes;

namespace {

void perform(Run& run, io::Action action) {
  io::Take one;
  one.file = "action";
  one.actions.push_back(action);
  const io::ReadyTake ready(one, run.run.scene());
  (void)ready.perform(0, run.run);
  action.before = run.take.samples.size();
  run.take.actions.push_back(std::move(action));
}

Size size_of(const Stage& stage) { return {stage.width(), stage.height()}; }

std::string text_of(Size size) { return io::plain(size.w) + "x" + io::plain(size.h); }

std::string words_of(const io::CellValue& value) {
  if (const auto* text = std::get_if<std::string>(&value)) return *text;
  if (const auto* texts = std::get_if<std::vector<std::string>>(&value)) {
    std::string all;
    for (const std::string& text : *texts) all += (all.empty() ? "" : "|") + text;
    return all;
  }
  return io::shown(value);
}

// The parts that are seen, from the lowest to the topmost: where those lie that are not makes no difference.
std::vector<const Part*> seen(const Stage& stage) {
  std::vector<const Part*> parts;
  for (const Part* part : stage.parts())
    if (part->visible()) parts.push_back(part);
  return parts;
}

// Whether two runs of one scene show the same.
bool same(Run& a, Run& b) {
  const auto mine = seen(a.run.stage());
  const auto theirs = seen(b.run.stage());
  const bool focus = a.run.stage().focused() != nullptr;
  if (focus != (b.run.stage().focused() != nullptr) ||
      a.run.stage().parts().size() != b.run.stage().parts().size())
    return false;
  const auto alike = [](const Part* one, const Part* other) {
    return one->id() == other->id() && one->box() == other->box() && one->enabled() == other->enabled();
  };
  if (!std::equal(mine.begin(), mine.end(), theirs.begin(), theirs.end(), alike)) return false;
  const auto& readings = a.all_readings();
  const auto& others = b.all_readings();
  return std::equal(readings.begin(), readings.end(), others.begin(), others.end(),
                    [](const auto& one, const auto& other) {
                      return one.name == other.name && one.value() == other.value();
                    });
}

// Brings a new run to where another one rests.
void bring(Run& run, Run& from) {
  Stage& stage = run.run.stage();
  const Stage& theirs = from.run.stage();
  run.take.notes.emplace_back("state", io::to_base64(theirs.save()));
  (void)stage.restore(theirs.save(), Micros{0});
  stage.advance(Micros{0});
  stage.journal().clear();  // what was restored is nothing that was decided in this run
  const auto act = [&](io::Action::Kind kind, const std::string& target, const std::string& value = {}) {
    perform(run, {.kind = kind, .target = target, .value = value});
  };
  using enum io::Action::Kind;
  const Size said{from.plan.scene().stage.width, from.plan.scene().stage.height};
  if (const Size now = size_of(theirs); !(now == said)) act(turn, "", text_of(now));
  std::vector<std::string> ids;  // a part that is removed takes others with it
  for (const Part* part : stage.parts()) ids.push_back(part->id());
  for (const std::string& id : ids) {
    const Part* part = stage.find(id);
    const Part* other = theirs.find(id);
    if (part == nullptr) continue;
    if (other == nullptr) {
      const auto& known = from.plan.scene().parts;
      if (std::any_of(known.begin(), known.end(), [&](const auto& one) { return one.id == id; }))
        act(remove, id);
      continue;
    }
    if (part->hidden() != other->hidden()) act(other->hidden() ? hide : show, id);
    if (part->enabled() != other->enabled()) act(other->enabled() ? enable : disable, id);
  }
  for (const auto& cell : from.run.cells()) {
    auto* mine = run.run.find_cell(cell.name);
    if (mine == nullptr || io::kind_of(mine->value()) != io::kind_of(cell.value()) ||
        mine->value() == cell.value())
      continue;
    act(put, cell.name, words_of(cell.value()));
  }
  if (const Part* focused = theirs.focused(); focused != nullptr && stage.find(focused->id()) != nullptr)
    act(focus, focused->id());
  stage.advance(Micros{0});
}

Run* live(ubbo_run number) {
  Run* run = runs().find(number);
  if (run == nullptr || run->replay == nullptr) return run;
  if (!run->played) return nullptr;
  // It goes on from where its take has come to.
  run->told = run->replay->decisions();
  run->last = std::max(run->last, run->run.stage().now());
  run->replay.reset();
  return run;
}

std::unique_ptr<Run> begun(ubbo_scene scene) {
  const io::Plan* plan = scenes().find(scene);
  if (plan == nullptr) return nullptr;
  auto made = std::make_unique<Run>(*plan);
  made->take.notes = {{"screen", text_of(size_of(made->run.stage()))}, {"scene", plan->scene().file}};
  return made;
}

}  // namespace

ubbo_run ubbo_run_begin(ubbo_scene scene) {
  return guarded(ubbo_run{0}, [&] {
    auto made = begun(scene);
    if (made == nullptr) return ubbo_run{0};
    made->run.stage().advance(Micros{0});
    return runs().keep(std::move(made));
  });
}

ubbo_run ubbo_run_resume(ubbo_scene scene, ubbo_run from, int exactly) {
  return guarded(ubbo_run{0}, [&] {
    Run* other = runs().find(from);
    if (other == nullptr || !other->run.stage().settled()) return ubbo_run{0};
    if (exactly != 0 && other->run.stage().due() != never) return ubbo_run{0};
    auto made = begun(scene);
    if (made == nullptr) return ubbo_run{0};
    bring(*made, *other);
    if (exactly != 0 && !same(*made, *other)) return ubbo_run{0};
    return runs().keep(std::move(made));
  });
}

ubbo_run ubbo_run_take(ubbo_scene scene, const char* take, const char* name) {
  return guarded(ubbo_run{0}, [&] {
    auto made = begun(scene);
    if (made == nullptr) return ubbo_run{0};
    made->take = io::parse_take(take, name);
    made->replay = std::make_unique<io::Replay>(made->run, made->take);
    return runs().keep(std::move(made));
  });
}

void ubbo_run_free(ubbo_run run) { runs().drop(run); }

int ubbo_touch(ubbo_run number, double time, int contact, int phase, double x, double y, int tool,
               double pressure, double size) {
  Run* run = live(number);
  if (run == nullptr || phase < 0 || phase > static_cast<int>(Phase::leave) || tool < 0 ||
      tool > static_cast<int>(Tool::mouse))
    return 0;
  return guarded(0, [&] {
    const Sample sample{.time = run->at(time),
                        .contact = contact,
                        .phase = static_cast<Phase>(phase),
                        .at = {x, y},
                        .pressure = pressure,
                        .tool = static_cast<Tool>(tool),
                        .size = size};
    run->take.samples.push_back(sample);
    return run->run.stage().touch(sample) ? 1 : 0;
  });
}

int ubbo_act(ubbo_run number, double time, const char* kind, const char* target, const char* value) {
  Run* run = live(number);
  if (run == nullptr) return 0;
  return guarded(0, [&] {
    const auto names = io::action_names();
    const auto found = std::find(names.begin(), names.end(), kind);
    if (found == names.end())
      throw io::InputError({.file = "action",
                            .found = "'" + std::string(kind) + "'",
                            .takes = "what takes say, such as call or key",
                            .nearest = std::string(io::nearest_name(kind, names))});
    perform(*run, {.time = run->at(time),
                   .kind = static_cast<io::Action::Kind>(found - names.begin()),
                   .target = target,
                   .value = value});
    return 1;
  });
}

void ubbo_advance(ubbo_run number, double time) {
  if (Run* run = live(number)) guarded(0, [&] { return run->run.stage().advance(run->at(time)), 0; });
}

void ubbo_play(ubbo_run number, double time) {
  Run* run = runs().find(number);
  if (run == nullptr || run->replay == nullptr) return;
  guarded(0, [&] {
    if (time < 0.0) {
      run->replay->finish();
      run->played = true;
    } else {
      run->replay->play_to(run->replay->begins() + run->at(time));
    }
    return 0;
  });
}

double ubbo_ends(ubbo_run number) {
  const Run* run = runs().find(number);
  return run == nullptr || run->replay == nullptr
             ? 0.0
             : static_cast<double>((run->replay->ends() - run->replay->begins()).count());
}

double ubbo_due(ubbo_run number) {
  const Run* run = runs().find(number);
  if (run == nullptr) return -1.0;
  const Micros due = run->run.stage().due();
  return due == never ? -1.0 : static_cast<double>(due.count());
}

int ubbo_settled(ubbo_run number) {
  const Run* run = runs().find(number);
  return run == nullptr || run->run.stage().settled() ? 1 : 0;
}

double ubbo_width(ubbo_run number) {
  const Run* run = runs().find(number);
  return run == nullptr ? 0.0 : run->run.stage().width();
}

double ubbo_height(ubbo_run number) {
  const Run* run = runs().find(number);
  return run == nullptr ? 0.0 : run->run.stage().height();
}

std::size_t ubbo_cursor(ubbo_run number, char* into, std::size_t room) {
  const Run* run = runs().find(number);
  if (run == nullptr) return 0;
  const Cursor cursor = run->run.stage().cursor();
  return give(cursor == Cursor::automatic ? "" : name_of(cursor), into, room);
}

std::size_t ubbo_take(ubbo_run number, char* into, std::size_t room) {
  const Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] { return give(io::write_take(run->take), into, room); });
}

std::size_t ubbo_cells(ubbo_run number, char* into, std::size_t room) {
  const Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] { return give(io::cells_json(run->run), into, room); });
}

std::size_t ubbo_outcome(ubbo_run number, char* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0},
                 [&] { return give(io::outcome_json(run->run, run->decisions()), into, room); });
}
