// Any text is a scene, or refused by an error of ours.
#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/text/input_error.hpp"

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  try {
    ubbo::io::SceneRun run(ubbo::io::parse_scene({reinterpret_cast<const char*>(data), size}, "scene"));
    run.stage().advance(ubbo::Micros{16'000});
  } catch (const ubbo::io::InputError&) {
  }
  return 0;
}
