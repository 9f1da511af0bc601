#pragma once

#include "ubbo/io/text/json.hpp"
#include "ubbo/parts/part.hpp"

namespace ubbo::io {

/// A number to six decimals, or null where it is none.
[[nodiscard]] Json number_or_null(double value);

/// What assistive technology is told of a part, and what that can be asked to do; what does not apply is left
/// out.
[[nodiscard]] Json accessible_json(const Part& part);

}  // namespace ubbo::io
