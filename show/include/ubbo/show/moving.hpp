#pragma once

#include "ubbo/show/film.hpp"

namespace ubbo::show {

/// One page of a moving picture: the part of the screen that the reel shows, with the finger, and below it
/// the reasons that have fallen up to the frame at `index`, the newest in full ink.
[[nodiscard]] skin::Picture moving_page(const FilmReel& reel, std::size_t index, double width, double height,
                                        const skin::Measure& measure,
                                        const skin::CombColours& colours = skin::day);

}  // namespace ubbo::show
