#include "ubbo/io/reading.hpp"

#include <fmt/format.h>
#include <fmt/ranges.h>

#include <algorithm>

#include "ubbo/io/input_error.hpp"

namespace ubbo::io {

namespace {

constexpr std::size_t most_rests = 60;  // more lines than that are no help

class Collector {
 public:
  void add_part(const Part& part) {
    if (const auto* slider = dynamic_cast<const Slider*>(&part)) add_slider(*slider);
    if (const auto* pane = dynamic_cast<const Pane*>(&part)) add_pane(*pane);
    if (const auto* pad = dynamic_cast<const Pad*>(&part)) add_pad(*pad);
  }
  void add_cell(const std::string& name, const Cell<double>& cell) {
    all_.push_back(
        {.name = "cell." + name, .what = "cell." + name, .unit = "", .now = [&cell] { return cell.get(); }});
  }
  std::vector<Reading> take() { return std::move(all_); }

 private:
  void add(const Part& part, const char* what, const char* unit, std::function<double()> now,
           std::function<std::vector<double>()> rests = {}) {
    all_.push_back({part.id() + "." + what, what, unit, &part, std::move(now), std::move(rests)});
  }

  void add_slider(const Slider& slider) {
    const auto values = [&slider] {
      std::vector<double> rests;
      const SnapPoints& snaps = slider.snaps();
      for (std::size_t i = 0; i < snaps.size() && snaps.size() <= most_rests; ++i)
        rests.push_back(snaps.at(i));
      return rests;
    };
    const auto places = [&slider, values](Axis axis) {
      std::vector<double> rests;
      if (slider.settings().axis != axis) return rests;
      for (const double value : values()) rests.push_back(along(axis, slider.place_of(value)));
      return rests;
    };
    add(
        slider, "thumb.x", "dp", [&slider] { return slider.thumb().x; },
        [=] { return places(Axis::horizontal); });
    add(
        slider, "thumb.y", "dp", [&slider] { return slider.thumb().y; },
        [=] { return places(Axis::vertical); });
    add(
        slider, "position", "", [&slider] { return slider.position(); }, values);
    add(
        slider, "value", "", [&slider] { return slider.value(); }, values);
    add(
        slider, "target", "", [&slider] { return slider.target(); }, values);
    add(slider, "share", "", [&slider] { return slider.share(); });
    add(slider, "velocity", "per second", [&slider] { return slider.velocity(); });
    add(slider, "presence", "", [&slider] { return slider.thumb_presence(); });
  }

  void add_pane(const Pane& pane) {
    const auto rests = [&pane] { return pane.settings().rests; };
    add(
        pane, "offset", "dp", [&pane] { return pane.offset(); }, rests);
    add(
        pane, "shown", "dp", [&pane] { return pane.shown(); }, rests);
    add(
        pane, "target", "dp", [&pane] { return pane.target(); }, rests);
    add(pane, "presence", "", [&pane] { return pane.presence(); });
  }

  void add_pad(const Pad& pad) {
    add(pad, "scale", "", [&pad] { return pad.last().scale; });
    add(pad, "angle", "rad", [&pad] { return pad.last().angle; });
    add(pad, "pressed", "", [&pad] { return pad.pressed() ? 1.0 : 0.0; });
  }

  std::vector<Reading> all_;
};

}  // namespace

std::vector<Reading> readings_of(const SceneRun& run) {
  Collector collector;
  for (const auto& part : run.stage().parts()) collector.add_part(*part);
  for (const auto& [name, cell] : run.cells()) collector.add_cell(name, cell);
  return collector.take();
}

std::vector<Reading> find_readings(const SceneRun& run, const std::string& file, std::string_view name) {
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
                    .takes = fmt::format("{}", fmt::join(names, ", ")),
                    .nearest = nearest_name(name, known)});
}

}  // namespace ubbo::io
