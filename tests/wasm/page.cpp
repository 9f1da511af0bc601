// What a page of the library does: a scene and a take are read, replayed, told and drawn.
#include <cstdio>
#include <string>

#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/skin/comb.hpp"
#include "ubbo/words/catalogue.hpp"

int main() {
  using namespace ubbo;
  const char* scene_text = R"(
title = "the hive list"
[cells]
frames = 4
[[part]]
kind = "slider"
id = "frames"
x = 40
y = 200
w = 280
h = 48
value = "frames"
to = 10
)";
  const char* take_text =
      "time_ms,contact,phase,x,y\n0,1,down,154,224\n90,1,move,210,224\n200,1,up,210,224\n";
  try {
    const io::Scene scene = io::parse_scene(scene_text, "page.scene.toml");
    const io::Take take = io::parse_take(take_text, "page.take.csv");
    io::SceneRun run(scene, 64);
    io::Replay replay(run, take);
    replay.finish();
    for (const Decision& decision : replay.decisions()) std::puts(words::sentence(decision).c_str());
    std::puts((std::to_string(skin::comb(run.stage()).size()) + " shapes").c_str());
    return replay.decisions().empty() ? 1 : 0;
  } catch (const io::InputError& error) {
    std::puts(error.what());
    return 2;
  }
}
