#include "held.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/io/text/json.hpp"
#include "ubbo/ubbo.h"

namespace ubbo::c {

namespace {

io::Json& fault() {
  static thread_local io::Json now = io::Json::array();
  return now;
}

}  // namespace

const std::vector<Decision>& Run::decisions() {
  if (replay != nullptr) return replay->decisions();
  Journal& journal = run.stage().journal();
  told.insert(told.end(), journal.decisions().begin(), journal.decisions().end());
  journal.clear();
  return told;
}

const std::vector<io::Reading>& Run::all_readings() {
  if (!readings.empty()) return readings;
  readings = io::readings_of(run);
  // In the scene's order, whatever lies above what now; cells come last.
  std::unordered_map<std::string_view, std::size_t> place;
  for (const io::PartPlan& part : run.scene().parts) place.emplace(part.id, place.size());
  std::stable_sort(readings.begin(), readings.end(), [&](const io::Reading& a, const io::Reading& b) {
    const auto at = [&](const io::Reading& one) {
      return one.part == nullptr ? place.size() : place.at(one.part->id());
    };
    return at(a) < at(b);
  });
  return readings;
}

Micros Run::at(double time) {
  constexpr double most = 1e15;  // far beyond any run
  if (std::isfinite(time)) last = std::max(last, Micros{std::llround(std::clamp(time, 0.0, most))});
  return last;
}

Held<const io::Plan>& scenes() {
  static Held<const io::Plan> all;
  return all;
}

Held<Run>& runs() {
  static Held<Run> all;
  return all;
}

void set_fault(const io::InputError& error) {
  clear_fault();
  for (const io::InputError::Facts& one : error.all())
    fault().push_back({{"file", one.file},
                       {"line", one.line},
                       {"column", one.column},
                       {"found", one.found},
                       {"takes", one.takes},
                       {"nearest", one.nearest}});
}

void set_fault(const std::exception& error) { set_fault(io::InputError({.found = error.what()})); }

void clear_fault() { fault() = io::Json::array(); }

std::size_t give(std::string_view text, char* into, std::size_t room) {
  if (into != nullptr) std::copy_n(text.data(), std::min(room, text.size()), into);
  return text.size();
}

}  // namespace ubbo::c

std::size_t ubbo_fault(char* into, std::size_t room) {
  return ubbo::c::give(ubbo::io::json_text(ubbo::c::fault(), -1), into, room);
}
