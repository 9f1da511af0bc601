#include <ubbo/io/replay/replay.hpp>

namespace {

bool works() {
  const ubbo::io::Scene scene = ubbo::io::parse_scene("title = \"an empty yard\"", "here");
  const auto take = ubbo::io::parse_take("time_ms,contact,phase,x,y\n0,1,down,5,5\n40,1,up,5,5\n", "here");
  ubbo::io::SceneRun run(scene);
  ubbo::io::Replay replay(run, take);
  replay.finish();
  return run.stage().now() == std::chrono::milliseconds(40);
}

}  // namespace

int main() { return works() ? 0 : 1; }
