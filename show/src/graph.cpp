#include "ubbo/show/graph.hpp"

namespace ubbo::show {

std::vector<Colour> line_colours(const skin::CombColours& colours) {
  return {colours.heather,
          colours.honey,
          colours.moss,
          colours.brick,
          colours.ink,
          mix(colours.honey, colours.brick, 0.55),
          mix(colours.heather, colours.moss, 0.6),
          mix(colours.ink, colours.paper, 0.45)};
}

}  // namespace ubbo::show
