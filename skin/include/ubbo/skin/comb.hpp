#pragma once

#include <functional>
#include <map>
#include <string_view>

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

/// By day, and at dark.
inline constexpr CombColours day{};
inline constexpr CombColours dark{.paper = Colour::hex(0x1F1A26),
                                  .ink = Colour::hex(0xF7F1E3),
                                  .honey = Colour::hex(0xDE9F1F),
                                  .heather = Colour::hex(0xA98BC0),
                                  .moss = Colour::hex(0x8FB07F),
                                  .brick = Colour::hex(0xD9735C)};

/// How parts of one kind are drawn, where the roles of their pieces do not say enough.
using Look = std::function<Picture(const Part& part, const CombColours& colours)>;
/// Looks of their own, by the name of the kind.
using Looks = std::map<std::string_view, Look>;

/// A part, drawn by the roles of its pieces, in the stage's dp: surfaces are paper, tall ones with one cut
/// corner; tracks are pale, fills honey; handles and marks are six-sided, a flat handle is a grip of two
/// bars; what lies behind is moss on the leading and brick on the trailing side; what a finger has is
/// heather.
[[nodiscard]] Picture comb(const Part& part, const CombColours& colours = day);
/// The whole stage with all its parts that are not hidden, on paper; those of kinds in `looks` by their own
/// look.
[[nodiscard]] Picture comb(const Stage& stage, const CombColours& colours = day, const Looks& looks = {});

}  // namespace ubbo::skin
