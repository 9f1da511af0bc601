#pragma once

#include <array>
#include <cstdint>

namespace ubbo {

/// What a mouse's pointer is to look like over a piece, by CSS's names.
enum class Cursor : std::uint8_t {
  automatic,
  arrow,
  pointer,
  grab,
  grabbing,
  ew_resize,
  ns_resize,
  not_allowed
};

/// "auto", "default", "pointer", "grab", "grabbing", "ew-resize", "ns-resize", "not-allowed": what CSS calls
/// it.
inline constexpr std::array cursor_names{"auto",     "default",   "pointer",   "grab",
                                         "grabbing", "ew-resize", "ns-resize", "not-allowed"};
[[nodiscard]] inline const char* name_of(Cursor cursor) {
  return cursor_names[static_cast<std::size_t>(cursor)];
}

}  // namespace ubbo
