// Any text is a motion in words or refused; what it says is finite, and says itself again.
#include <cmath>
#include <cstdlib>

#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/motion/mover.hpp"

using namespace ubbo;

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size > 2000) return 0;
  try {
    const Transition transition = io::read_transition({reinterpret_cast<const char*>(data), size});
    Mover mover(0);
    mover.send(100, transition, Micros{0});
    for (const int us : {0, 1, 16'000, 250'000, 4'000'000}) {
      mover.advance(Micros{us});
      if (!std::isfinite(mover.value()) || !std::isfinite(mover.velocity())) std::abort();
    }
    (void)io::read_transition(io::spec_text(transition));
  } catch (const io::SpecError&) {
  }
  return 0;
}
