// Any text is a hand script or refused.
#include "ubbo/io/hand/hand_script.hpp"
#include "ubbo/io/text/input_error.hpp"

using namespace ubbo;

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  io::Hand hand(io::find_hand("bare"), 1);
  try {
    io::perform(hand, {reinterpret_cast<const char*>(data), size}, {});
    if (hand.now() < std::chrono::minutes(2)) (void)hand.take();
  } catch (const io::InputError&) {
  }
  return 0;
}
