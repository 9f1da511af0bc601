#include <ubbo/io/scene/scene.hpp>

namespace {

bool works() { return ubbo::io::parse_scene("title = \"an empty yard\"", "here").title == "an empty yard"; }

}  // namespace

int main() { return works() ? 0 : 1; }
