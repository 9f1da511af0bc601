#include "ubbo/skin/lettering.hpp"

#include <algorithm>
#include <array>
#include <cstdint>

namespace ubbo::skin {

namespace {

// Advance widths of Inter's letters from " " to "~", in thousandths of the font's size: measured as they are
// laid out by Pango, regular and semibold.
constexpr std::array<std::uint16_t, 95> regular{
    281, 278, 403, 631, 638, 812, 639, 222, 362, 362, 500, 659, 280, 460, 276, 357, 625, 464, 605,
    636, 642, 608, 624, 571, 616, 624, 276, 280, 659, 659, 659, 507, 936, 676, 651, 727, 719, 598,
    587, 743, 740, 264, 543, 652, 562, 889, 753, 761, 635, 761, 639, 638, 642, 741, 676, 949, 642,
    665, 625, 362, 357, 362, 469, 452, 497, 564, 621, 558, 621, 582, 361, 609, 591, 237, 237, 544,
    237, 869, 585, 597, 609, 609, 372, 523, 364, 581, 557, 812, 540, 557, 541, 362, 327, 362, 659};
constexpr std::array<std::uint16_t, 95> semibold{
    248, 309, 396, 643, 649, 844, 663, 213, 393, 393, 543, 673, 295, 466, 290, 379, 667, 481,  621,
    652, 666, 632, 648, 587, 646, 648, 290, 295, 673, 673, 673, 544, 999, 724, 657, 744, 724,  608,
    586, 755, 744, 275, 561, 677, 566, 906, 741, 775, 643, 776, 651, 649, 660, 734, 724, 1007, 690,
    705, 653, 393, 379, 393, 481, 468, 497, 575, 630, 577, 630, 593, 377, 625, 613, 261, 261,  569,
    261, 898, 610, 608, 625, 625, 397, 549, 380, 608, 576, 837, 562, 576, 562, 393, 358, 393,  673};
constexpr double latin = 660.0;  // letters of two bytes, such as é
constexpr double wide = 1000.0;  // all others, and the ellipsis
constexpr std::string_view ellipsis = "\u2026";

bool continues(char c) { return (static_cast<unsigned char>(c) & 0xC0U) == 0x80U; }

}  // namespace

double inter_width(std::string_view words, double size, bool bold) {
  const auto& table = bold ? semibold : regular;
  double sum = 0.0;
  for (const char c : words) {
    const auto byte = static_cast<unsigned char>(c);
    if (byte >= 0x20 && byte < 0x7F)
      sum += table[byte - 0x20U];
    else if (byte >= 0xC0)
      sum += byte < 0xE0 ? latin : wide;
  }
  return sum * size / 1000.0;
}

std::string cut_to(std::string_view words, double size, bool bold, double room, const TextWidth& measure) {
  if (measure(words, size, bold) <= room) return std::string(words);
  // The longest beginning that fits, by halving; a letter is not cut in two.
  std::size_t fits = 0;
  std::size_t too_long = words.size();
  const auto whole_letters = [&](std::size_t length) {
    while (length > 0 && length < words.size() && continues(words[length])) --length;
    return length;
  };
  const auto made = [&](std::size_t length) {
    std::string_view kept = words.substr(0, whole_letters(length));
    while (kept.ends_with(' ') || kept.ends_with(',')) kept.remove_suffix(1);
    return std::string(kept) + std::string(ellipsis);
  };
  while (too_long - fits > 1) {
    const std::size_t middle = fits + (too_long - fits) / 2;
    (measure(made(middle), size, bold) <= room ? fits : too_long) = middle;
  }
  // A letter with an ellipsis says little; none says nothing.
  return whole_letters(fits) < 2 ? std::string() : made(fits);
}

double fitting_size(double size, double height, double scale) {
  return std::min(size * scale, std::max(size * std::min(scale, 1.0), height / line_height));
}

double baseline_in(double height, double size) { return height / 2 + 0.36 * size; }

}  // namespace ubbo::skin
