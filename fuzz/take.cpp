// Any text is a take or refused; what is read is written and read again the same, and replayed.
#include <cstdlib>

#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/text/input_error.hpp"

using namespace ubbo;

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  static const io::Scene scene = io::parse_scene(
      "[cells]\nv = 0.5\nn = "
      "1\n[[part]]\nid='s'\nkind='slider'\nvalue='v'\nx=0\ny=0\nw=300\nh=40\n[[part]]\nid='p'\nkind='pad'\n"
      "taps_cell='n'\nx=0\ny=50\nw='50%'\nbottom=0\n",
      "scene");
  try {
    const io::Take take = io::parse_take({reinterpret_cast<const char*>(data), size}, "take");
    if (io::parse_take(io::write_take(take), "again").samples.size() != take.samples.size()) std::abort();
    io::SceneRun run(scene, 100);
    io::Replay replay(run, take, {.fps = 10, .settle_limit = Micros{1'000'000}});
    const Micros last = take.samples.empty() ? replay.begins() : take.samples.back().time;
    if (last - replay.begins() < std::chrono::minutes(5)) replay.finish();
  } catch (const io::InputError&) {
  }
  return 0;
}
