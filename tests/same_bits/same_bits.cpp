// Replays each of the demo's takes on its scene and prints one line for it: digests of the bits of every
// number that is read on the way, of all decisions, of the pictures and of the report. The same bytes come
// out of every build, on every processor (./dev bits).
#include <cstdint>
#include <cstdio>
#include <cstring>
#include <string>

#include "demo_files.hpp"
#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/skin/comb.hpp"

namespace {

using namespace ubbo;

// FNV-1a over 64-bit words.
class Digest {
 public:
  void add(double number) {
    std::uint64_t bits = 0;
    std::memcpy(&bits, &number, sizeof bits);
    add_bits(bits);
  }
  void add(std::string_view text) {
    for (const char c : text) add_bits(static_cast<unsigned char>(c));
    add_bits(text.size());
  }
  void add(Point p) { add(p.x), add(p.y); }
  void add(const skin::Ink& ink) {
    for (const auto& colour : {ink.fill, ink.stroke})
      if (colour) add(colour->red), add(colour->green), add(colour->blue), add(colour->alpha);
    add(ink.width);
  }
  void add(const skin::Picture& picture) {
    for (const skin::Shape& shape : picture) {
      if (const auto* path = std::get_if<skin::Path>(&shape)) {
        for (const Point p : path->points) add(p);
        add(path->ink);
      } else if (const auto* disc = std::get_if<skin::Disc>(&shape)) {
        add(disc->centre), add(disc->radius), add(disc->ink);
      } else if (const auto* text = std::get_if<skin::Text>(&shape)) {
        add(text->at), add(std::string_view(text->words)), add(text->size);
      } else if (const auto* image = std::get_if<skin::Image>(&shape)) {
        add(Point{image->box.x, image->box.y}), add(Point{image->box.w, image->box.h});
        add(std::string_view(image->name));
      } else if (const auto* group = std::get_if<skin::Group>(&shape)) {
        add(group->move), add(group->scale), add(group->opacity), add(group->turn), add(group->shapes);
      }
    }
  }
  [[nodiscard]] unsigned long long value() const { return value_; }

 private:
  void add_bits(std::uint64_t bits) { value_ = (value_ ^ bits) * 0x100000001b3U; }
  std::uint64_t value_ = 0xcbf29ce484222325U;
};

std::string_view text_of(std::string_view name) {
  for (const demo::File& file : demo::files())
    if (file.name == name) return file.text;
  return {};
}

void replay(const demo::File& file) {
  const io::Take take = io::parse_take(file.text, std::string(file.name));
  const std::string scene_name = take.note("scene");
  const io::Scene scene = io::parse_scene(text_of(scene_name), scene_name);
  io::SceneRun run(scene, 4096);
  io::Replay replay(run, take);
  Digest numbers;
  Digest pictures;
  Digest decisions;
  unsigned long long read = 0;
  const auto look = [&](bool drawn) {
    for (const io::Reading& reading : io::readings_of(run)) numbers.add(reading.now()), ++read;
    if (drawn) pictures.add(skin::comb(run.stage()));
  };
  const Micros last = take.samples.empty() ? take.actions.back().time : take.samples.back().time;
  int moment = 0;
  for (Micros at = replay.begins(); at < last + Micros{1'200'000}; at += Micros{7'001}) {
    replay.play_to(at);
    look(moment++ % 8 == 0);
  }
  replay.finish();
  look(true);
  for (const Decision& decision : replay.decisions())
    for (const Fact& fact : decision.all_facts()) decisions.add(fact.value), decisions.add(fact.margin);
  Digest report;
  report.add(std::string_view(io::replay_json(run, replay)));
  std::printf("%-44s %8llu numbers %016llx decisions %016llx pictures %016llx report %016llx\n",
              std::string(file.name).c_str(), read, numbers.value(), decisions.value(), pictures.value(),
              report.value());
}

}  // namespace

int main() {
  for (const demo::File& file : demo::files())
    if (file.name.ends_with(".take.csv")) replay(file);
}
