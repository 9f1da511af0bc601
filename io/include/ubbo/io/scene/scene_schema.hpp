#pragma once

#include <string>

#include "ubbo/parts/kinds.hpp"

namespace ubbo::io {

/// A JSON Schema (draft 7) of scene files with parts of these kinds, for editors: names, types, ranges, and
/// what each key means. What only several keys together show, and names of cells and parts, it leaves to
/// `parse_scene`.
[[nodiscard]] std::string scene_schema(Kinds kinds = shipped_kinds());

}  // namespace ubbo::io
