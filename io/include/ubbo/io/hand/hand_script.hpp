#pragma once

#include <functional>
#include <optional>
#include <string>
#include <string_view>

#include "ubbo/io/hand/hand.hpp"
#include "ubbo/io/scene/scene_run.hpp"

namespace ubbo::io {

/// Finds a place by a part's id and a point of it ("" for its centre, "thumb", "left", "9", …); empty when
/// there is none.
using PlaceFinder = std::function<std::optional<Point>(std::string_view part, std::string_view point)>;

/// The places of a scene: each part's `centre`, `left`, `right`, `top`, `bottom`, a slider's `thumb`, and a
/// slider's values by number. "thumb" alone is that of the only slider.
[[nodiscard]] PlaceFinder places_of(const SceneRun& run);

/// Lets `hand` do what `script` says (docs/formats/hand-script.md), such as "press the thumb, drag right 90
/// dp over 200 ms, lift". Throws `InputError` with line and column of the word that does not fit, what was
/// found and what is taken; the file is called "hand script". A script that makes more than `max_actions`
/// single actions is refused.
void perform(Hand& hand, std::string_view script, const PlaceFinder& find);

/// The most single actions a script may come to, repeats counted.
inline constexpr int max_actions = 100'000;

}  // namespace ubbo::io
