
#include "commands.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/io/take/recording.hpp"
#include "ubbo/skin/lettering.hpp"

namespace ubbo::tool {

void OnScene::add_to(Verb verb) {
  verb.add_option("SCENE", path, "scene file (*.scene.toml)").required();
  verb.add_option(
          "--set", changes,
          "change the scene for this run: PART.SETTING=VALUE, feel.drag_threshold=8, screen.width=411, "
          "cells.NAME=VALUE; may be given again")
      .again();
}

io::Scene scene_at(const std::string& path, Kinds kinds) {
  return io::parse_scene(file::read(path), path, kinds, {}, skin::inter_width);
}

io::Take take_at(const std::string& path) { return io::parse_take(file::read(path), path); }

io::Take read_take_on(const io::Scene& scene, const std::string& path) {
  return io::parse_recording(file::read(path), path, {.screen = {scene.stage.width, scene.stage.height}});
}

}  // namespace ubbo::tool
