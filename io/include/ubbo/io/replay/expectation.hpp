#pragma once

#include <string>
#include <vector>

#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/take/take.hpp"

namespace ubbo::io {

/// What a take expected of the cells and did not get, a line each. A take expects by its note
/// `# expectation = frames = 7, other = 0.5`; values are held equal within 1e-9. An expectation that cannot
/// be read counts as unmet.
[[nodiscard]] std::vector<std::string> unmet_expectations(SceneRun& run, const Take& take);

}  // namespace ubbo::io
