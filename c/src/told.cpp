#include <algorithm>
#include <array>
#include <cmath>
#include <utility>

#include "held.hpp"
#include "ubbo/io/replay/accessible_json.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/stage/seen_pieces.hpp"
#include "ubbo/ubbo.h"
#include "ubbo/words/catalogue.hpp"

using namespace ubbo;
using c::give;
using c::guarded;
using c::Run;
using c::runs;
using io::Json;

namespace {

Json box_json(const Box& box) { return {box.x, box.y, box.w, box.h}; }

Json part_json(const Part& part, bool focused) {
  const PartKind& kind = part.kind();
  Json made{{"id", part.id()},
            {"kind", kind.name},
            {"inside", part.contact_rules().inside},
            {"box", box_json(part.box())},
            {"modal", part.modal()},
            {"focused", focused},
            {"accessible", io::accessible_json(part)},
            {"pieces", Json::array()},
            {"stands", Json::array()},
            {"snap_points", Json::array()}};
  seen_pieces(part, [&](const Piece& piece) {
    made["pieces"].push_back({{"role", name_of(piece.role)},
                              {"name", piece.name},
                              {"words", piece.words},
                              {"box", box_json(piece.box)},
                              {"item", piece.item},
                              {"on", piece.on}});
  });
  if (kind.stands != nullptr)
    kind.stands(part, [&](const Stand& stand) {
      constexpr std::array names{"start", "open", "closed"};
      made["stands"].push_back(
          {{"as", names[static_cast<std::size_t>(stand.as)]}, {"box", box_json(stand.box)}});
    });
  if (kind.place_of != nullptr)
    for (const ReadingInfo& reading : kind.readings) {
      if (reading.snap_points == nullptr) continue;
      std::vector<double> values;
      reading.snap_points(part, values);
      for (const double value : values)
        if (const auto place = kind.place_of(part, value))
          made["snap_points"].push_back({{"value", value}, {"x", place->x}, {"y", place->y}});
      break;
    }
  return made;
}

}  // namespace

std::size_t ubbo_readings(ubbo_run number, char* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    Json list = Json::array();
    for (const io::Reading& reading : run->all_readings()) {
      Json made{{"name", reading.name},
                {"what", reading.what},
                {"unit", reading.unit},
                {"part", reading.part == nullptr ? "" : reading.part->id()},
                {"usual", reading.usual}};
      if (reading.snap_points) made["snap_points"] = reading.snap_points();
      if (reading.thresholds) {
        made["thresholds"] = Json::array();
        for (const Threshold& one : reading.thresholds())
          made["thresholds"].push_back({{"value", one.value}, {"way", one.way}});
      }
      list.push_back(std::move(made));
    }
    return give(io::json_text(list, -1), into, room);
  });
}

std::size_t ubbo_values(ubbo_run number, const std::uint32_t* which, std::size_t count, double* into,
                        std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    const auto& readings = run->all_readings();
    const std::size_t all = which == nullptr ? readings.size() : count;
    for (std::size_t i = 0; i < std::min(room, all); ++i) {
      const std::size_t place = which == nullptr ? i : which[i];
      into[i] = place < readings.size() ? readings[place].now() : 0.0;
    }
    return all;
  });
}

std::size_t ubbo_boxes(ubbo_run number, double* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    const auto& plans = run->run.scene().parts;
    // Whether a part has a handle does not change, and most have none.
    run->handles.resize(plans.size(), true);
    for (std::size_t i = 0; i < plans.size() && 4 * i + 4 <= room; ++i) {
      const Part* part = run->run.stage().find(plans[i].id);
      Box box{0.0, 0.0, -1.0, 0.0};
      if (part != nullptr && part->in_sight()) {
        box = part->box();
        if (run->handles[i]) {
          bool found = false;  // the first of several
          seen_pieces(*part, [&](const Piece& piece) {
            if (piece.role == Role::handle && !std::exchange(found, true)) box = piece.box;
          });
          run->handles[i] = found;
        }
      }
      const std::array numbers{box.x, box.y, box.w, box.h};
      std::copy(numbers.begin(), numbers.end(), into + 4 * i);
    }
    return 4 * plans.size();
  });
}

std::size_t ubbo_value_text(ubbo_run number, std::size_t reading, char* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    const auto& readings = run->all_readings();
    return reading < readings.size() ? give(io::shown(readings[reading].value()), into, room) : 0;
  });
}

std::size_t ubbo_decisions_count(ubbo_run number) {
  Run* run = runs().find(number);
  return run == nullptr ? 0 : run->decisions().size();
}

std::size_t ubbo_decisions(ubbo_run number, std::size_t first, char* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    Json list = Json::array();
    const auto& all = run->decisions();
    const Micros begins = run->replay != nullptr ? run->replay->begins() : Micros{0};
    for (std::size_t i = first; i < all.size(); ++i)
      list.push_back({{"time", (all[i].time - begins).count()},
                      {"part", all[i].part.view()},
                      {"name", all[i].answer->name},
                      {"question", all[i].answer->question->name},
                      {"yes", all[i].answer->yes},
                      {"sentence", words::sentence(all[i])},
                      {"caption", words::caption(all[i])}});
    return give(io::json_text(list, -1), into, room);
  });
}

std::size_t ubbo_hit_areas(ubbo_run number, double step, unsigned short* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr || !(step >= 0.5 && step <= 1000.0)) return 0;
  return guarded(std::size_t{0}, [&] {
    const Stage& stage = run->run.stage();
    std::vector<const Part*> known;
    for (const auto& plan : run->run.scene().parts) known.push_back(stage.find(plan.id));
    const auto across = static_cast<std::size_t>(std::ceil(stage.width() / step));
    const auto down = static_cast<std::size_t>(std::ceil(stage.height() / step));
    for (std::size_t i = 0; i < std::min(room, across * down); ++i) {
      const Part* part = stage.part_at(
          {(static_cast<double>(i % across) + 0.5) * step, (static_cast<double>(i / across) + 0.5) * step});
      const auto found = std::find(known.begin(), known.end(), part);
      into[i] = part == nullptr || found == known.end()
                    ? 0
                    : static_cast<unsigned short>(found - known.begin() + 1);
    }
    return across * down;
  });
}

std::size_t ubbo_parts(ubbo_run number, char* into, std::size_t room) {
  Run* run = runs().find(number);
  if (run == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    Json list = Json::array();
    const Stage& stage = run->run.stage();
    for (const Part* part : stage.parts())
      if (part->in_sight()) list.push_back(part_json(*part, stage.focused() == part));
    return give(io::json_text(list, -1), into, room);
  });
}
