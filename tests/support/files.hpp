#pragma once

#include <string>

#include "ubbo/file/read.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/take/take.hpp"

namespace ubbo::test {

inline const std::string demo = UBBO_SOURCE_DIR "/demo/";

inline io::Scene scene_at(const std::string& path) { return io::parse_scene(file::read(path), path); }
inline io::Take take_at(const std::string& path) { return io::parse_take(file::read(path), path); }

}  // namespace ubbo::test
