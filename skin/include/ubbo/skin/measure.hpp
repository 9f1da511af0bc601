#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/skin/picture.hpp"

namespace ubbo::skin {

/// How wide a text comes out where it is drawn, in the picture's unit; its place does not matter. Renderers
/// have one: `paint::text_width`, a canvas' `measureText`.
using Measure = std::function<double(const Text&)>;

/// `words` in lines no wider than `room`, broken at blanks; a word that is wider has a line of its own.
[[nodiscard]] std::vector<std::string> wrapped(const std::string& words, double size, double room,
                                               const Measure& measure);

}  // namespace ubbo::skin
