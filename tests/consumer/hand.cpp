#include <ubbo/io/hand/hand.hpp>

namespace {

bool works() {
  ubbo::io::Hand hand(ubbo::io::find_hand("gloved"), 11);
  hand.press({40, 40}).lift();
  return !hand.take().samples.empty();
}

}  // namespace

int main() { return works() ? 0 : 1; }
