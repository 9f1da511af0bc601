#pragma once

#include <functional>
#include <map>
#include <string_view>

#include "ubbo/skin/lettering.hpp"
#include "ubbo/skin/picture.hpp"
#include "ubbo/stage/stage.hpp"

namespace ubbo::skin {

/// The colours of the comb skin, each with its role.
struct CombColours {
  Colour paper = Colour::hex(0xF5EFDF);    ///< what everything lies on
  Colour raised = Colour::hex(0xFDF9EF);   ///< rows, cards, sheets, buttons: what lies on paper
  Colour ink = Colour::hex(0x2A2331);      ///< text and outlines
  Colour honey = Colour::hex(0xDE9F1F);    ///< what is filled, chosen, or meant to be done
  Colour heather = Colour::hex(0x76558F);  ///< the finger and what it holds, the focus
  Colour moss = Colour::hex(0x4B6A40);     ///< the main action behind a row; places to rest
  Colour brick = Colour::hex(0xB4472F);    ///< what takes something away, went wrong, or limits
  Colour bright = Colour::hex(0xFFFBF2);   ///< text on heather, moss and brick
  Colour dark = Colour::hex(0x2A2331);     ///< text on honey
  Colour shade = Colour::hex(0x2A2331);    ///< what dims the rest
};

/// By day, and at dark.
inline constexpr CombColours day{};
inline constexpr CombColours dark{.paper = Colour::hex(0x1F1A26),
                                  .raised = Colour::hex(0x2E2739),
                                  .ink = Colour::hex(0xF5EFDF),
                                  .honey = Colour::hex(0xE2A83A),
                                  .heather = Colour::hex(0xB497CA),
                                  .moss = Colour::hex(0x96B786),
                                  .brick = Colour::hex(0xE28A6E),
                                  .bright = Colour::hex(0x221C29),
                                  .dark = Colour::hex(0x221C29),
                                  .shade = Colour::hex(0x0C0910)};

/// How parts of one kind are drawn, where the roles of their pieces do not say enough.
using Look = std::function<Picture(const Part& part, const CombColours& colours)>;
/// Looks of their own, by the name of the kind.
using Looks = std::map<std::string_view, Look>;

/// A part, drawn by the roles of its pieces, in the stage's dp. Cards and sheets are raised paper, tall ones
/// with one cut corner; rows lie flat, with a line below; buttons have a cut corner and show their rank: the
/// main one honey, a destructive one edged in brick. Tracks and thumbs are six-sided. A message is paper with
/// a heather edge. What a finger holds is heather. Text stays in its box: it is cut with "…".
[[nodiscard]] Picture comb(const Part& part, const CombColours& colours = day,
                           const Lettering& lettering = {});
/// The whole stage with all its parts that are not hidden, on paper, with a ring around what has the focus of
/// the keyboard; those of kinds in `looks` by their own look.
[[nodiscard]] Picture comb(const Stage& stage, const CombColours& colours = day, const Looks& looks = {},
                           const Lettering& lettering = {});

}  // namespace ubbo::skin
