#include <ubbo/io/scene/scene.hpp>
#include <ubbo/paint/save.hpp>

int main() {
  const ubbo::io::Scene scene = ubbo::io::parse_scene("title = \"an empty yard\"", "here");
  return scene.parts.empty() && ubbo::paint::text_width({.at = {}, .words = scene.title}) > 10 ? 0 : 1;
}
