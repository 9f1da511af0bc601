#include "ubbo/io/replay/reading.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

ReadingValue as_reading(const CellValue& value) {
  if (const auto* flag = std::get_if<bool>(&value)) return *flag;
  if (const auto number = number_in(value)) return *number;
  return shown(value);
}

}  // namespace

double Reading::now() const {
  const ReadingValue read = value();
  if (const auto* number = std::get_if<double>(&read)) return *number;
  const auto* flag = std::get_if<bool>(&read);
  return flag != nullptr && *flag ? 1.0 : 0.0;
}

std::string shown(const ReadingValue& value) {
  if (const auto* number = std::get_if<double>(&value)) return plain(*number);
  if (const auto* flag = std::get_if<bool>(&value)) return *flag ? "yes" : "no";
  return std::get<std::string>(value);
}

std::vector<Reading> readings_of(SceneRun& run) {
  std::vector<Reading> all;
  for (const Part* part : run.stage().parts()) {
    for (const ReadingInfo& info : part->kind().readings) {
      Reading made{.name = part->id() + "." + info.name,
                   .what = info.name,
                   .unit = info.unit,
                   .part = part,
                   .usual = info.usual,
                   .value = [part, now = info.now] { return now(*part); }};
      if (info.snap_points != nullptr)
        made.snap_points = [part, snap_points = info.snap_points] {
          std::vector<double> places;
          snap_points(*part, places);
          return places;
        };
      if (info.thresholds != nullptr)
        made.thresholds = [part, thresholds = info.thresholds] {
          std::vector<Threshold> values;
          thresholds(*part, values);
          return values;
        };
      all.push_back(std::move(made));
    }
    // Of any kind: how much it shows that a mouse or pen is over it.
    all.push_back({.name = part->id() + ".hover", .what = "hover", .unit = "", .part = part, .value = [part] {
                     return part->hover();
                   }});
  }
  for (const auto& named : run.cells())
    all.push_back(
        {.name = "cell." + named.name, .what = "cell." + named.name, .unit = "", .value = [cell = &named] {
           return as_reading(cell->value());
         }});
  return all;
}

std::vector<Reading> find_readings(SceneRun& run, const std::string& file, std::string_view name) {
  std::vector<Reading> found;
  std::vector<std::string> names;
  for (Reading& reading : readings_of(run)) {
    names.push_back(reading.name);
    if (std::find(names.begin(), names.end(), reading.what) == names.end()) names.push_back(reading.what);
    if (reading.name == name || reading.what == name) found.push_back(std::move(reading));
  }
  if (!found.empty()) return found;
  const std::vector<std::string_view> known(names.begin(), names.end());
  throw InputError({.file = file,
                    .found = fmt::format("no reading '{}'", name),
                    .takes = names.empty() ? "nothing: the scene has no parts and no cells"
                                           : fmt::format("{}", fmt::join(names, ", ")),
                    .nearest = nearest_name(name, known)});
}

}  // namespace ubbo::io
