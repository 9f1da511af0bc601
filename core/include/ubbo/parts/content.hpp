#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <optional>
#include <string>
#include <string_view>

#include "ubbo/parts/hover_content.hpp"

namespace ubbo {

/// What an action is to people: one among others, the one that is meant to be done here, or one that takes
/// something away.
enum class Rank : std::uint8_t { plain, main, destructive };

inline constexpr std::array rank_names{"plain", "main", "destructive"};
/// "plain", "main", "destructive".
[[nodiscard]] inline const char* name_of(Rank rank) { return rank_names[static_cast<std::size_t>(rank)]; }

/// What is shown of a part beside its label. Glyphs and images are names that a skin knows what to do with.
struct Content {
  std::string detail{};  ///< a second line, such as "strong, 3 days ago"
  std::string glyph{};   ///< a small sign beside the label, such as "hive"
  std::string image{};   ///< a picture that fills it; "{item}": the number of each of its items, from 1
  Rank rank = Rank::plain;
  std::optional<HoverContent> hover{};  ///< what comes over it under a mouse or pen

  [[nodiscard]] bool empty() const {
    return detail.empty() && glyph.empty() && image.empty() && rank == Rank::plain && !hover;
  }
};

/// How wide a line of text is where it is drawn, dp, at a font size in dp.
using TextWidth = std::function<double(std::string_view words, double size, bool bold)>;

}  // namespace ubbo
