#pragma once

#include <optional>
#include <string_view>

#include "ubbo/io/take/take.hpp"
#include "ubbo/touch/wheel.hpp"

namespace ubbo::io {

/// A turn of a wheel as an action of a take: its target is where the pointer is, such as `180 300`; its value
/// how far it was turned, such as `0 3 notch`, `0 -12.5 dp change`, `0 -1 notch zoom` or `0 0 dp scale 1.04`.
[[nodiscard]] Action wheel_action(const WheelTurn& turn);
/// The turn that such an action says; nothing where it does not read.
[[nodiscard]] std::optional<WheelTurn> wheel_turn(const Action& action);
/// What `wheel_turn` reads, for errors.
inline constexpr std::string_view wheel_action_takes =
    "a place and a way, such as 180 300 and 0 3 notch: right, down, and dp, line, page or notch; then, where "
    "it "
    "has them, begin, change, end or momentum; zoom; scale and a factor from 0.01 to 100";

}  // namespace ubbo::io
