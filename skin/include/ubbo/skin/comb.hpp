#pragma once

#include "ubbo/parts/pad.hpp"
#include "ubbo/parts/pane.hpp"
#include "ubbo/parts/slider.hpp"
#include "ubbo/skin/picture.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::skin {

/// The colours of the comb skin, each with its role.
struct CombColours {
  Colour paper = Colour::hex(0xF7F1E3);    ///< what everything lies on
  Colour ink = Colour::hex(0x2A2331);      ///< text and outlines
  Colour honey = Colour::hex(0xDE9F1F);    ///< what is filled or chosen
  Colour heather = Colour::hex(0x76558F);  ///< the finger and what it holds
  Colour moss = Colour::hex(0x5F7F52);     ///< places to rest
  Colour brick = Colour::hex(0xB4472F);    ///< limits and warnings
};

/// By day, and at dusk.
inline constexpr CombColours day{};
inline constexpr CombColours dusk{.paper = Colour::hex(0x1F1A26),
                                  .ink = Colour::hex(0xF7F1E3),
                                  .honey = Colour::hex(0xDE9F1F),
                                  .heather = Colour::hex(0xA98BC0),
                                  .moss = Colour::hex(0x8FB07F),
                                  .brick = Colour::hex(0xD9735C)};

/// A slider: track with a mark for each snap point (while they are not too dense), fill, six-sided thumb with
/// the value in it, and its label above. In the stage's dp.
[[nodiscard]] Picture comb(const Slider& slider, const CombColours& colours = day);
/// A pane that moves itself: a sheet of paper with one cut corner; what it uncovers when it slides aside is
/// moss on the leading and brick on the trailing side. One that moves its content draws only its label.
[[nodiscard]] Picture comb(const Pane& pane, const CombColours& colours = day);
/// A pad: its label, a heather frame while it is pressed, and what it last took its touches for; a pair of
/// contacts turns and scales a small comb.
[[nodiscard]] Picture comb(const Pad& pad, const CombColours& colours = day);
/// The whole stage with all its parts, on paper.
[[nodiscard]] Picture comb(const Stage& stage, const CombColours& colours = day);

}  // namespace ubbo::skin
