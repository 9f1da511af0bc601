#pragma once

#include "ubbo/tool/run.hpp"

namespace ubbo::tool {

/// Adds the command `live`, for `Extras::add_live`.
void add_live(Verb app, int& exit, const Kit& kit);

}  // namespace ubbo::tool
