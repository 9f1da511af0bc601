#include <ubbo/show/places.hpp>

namespace {

bool works() {
  const auto wide = [](const ubbo::skin::Text& text) { return 6.0 * static_cast<double>(text.words.size()); };
  const auto scene = ubbo::io::parse_scene("title = \"an empty yard\"", "here");
  return !ubbo::show::places(ubbo::show::places_of(scene), 400, 400, wide).empty();
}

}  // namespace

int main() { return works() ? 0 : 1; }
