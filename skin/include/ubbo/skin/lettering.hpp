#pragma once

#include <string>
#include <string_view>
#include <vector>

#include "ubbo/base/geometry.hpp"
#include "ubbo/parts/content.hpp"
#include "ubbo/skin/measure.hpp"
#include "ubbo/skin/picture.hpp"

namespace ubbo::skin {

/// The type scale of the comb skin, dp.
inline constexpr double title_size = 20.0;
inline constexpr double row_size = 16.0;
inline constexpr double line_size = 14.0;
inline constexpr double caption_size = 12.0;

/// From the highest letter of a line to the lowest, of the font's size.
inline constexpr double line_height = 1.22;

/// How wide a line comes out in Inter, dp, from the font's own advance widths without kerning: at least 94%
/// of how wide it is drawn. A letter that is not in the table counts as a wide one. Fits `TextWidth`.
[[nodiscard]] double inter_width(std::string_view words, double size, bool bold);

/// How the skin sets type.
struct Lettering {
  TextWidth measure = inter_width;  ///< of one line, where it is drawn
  double scale = 1.0;               ///< what the phone's user set: 1 to 3; what has no room grows less
};

/// `words`, or as many of them as fit into `room` dp with "…" behind; "" where not even that fits.
[[nodiscard]] std::string cut_to(std::string_view words, double size, bool bold, double room,
                                 const TextWidth& measure);

/// How large a line of `size` may be set in a box `height` dp high.
[[nodiscard]] double fitting_size(double size, double height, double scale);

/// How far from the top of a line as high as its box its baseline stands, for a font of `size`.
[[nodiscard]] double baseline_in(double height, double size);

}  // namespace ubbo::skin
