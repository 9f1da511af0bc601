#include <ubbo/paint/save.hpp>

namespace {

bool works() { return ubbo::paint::text_width({.at = {}, .words = "a yard"}) > 10; }

}  // namespace

int main() { return works() ? 0 : 1; }
