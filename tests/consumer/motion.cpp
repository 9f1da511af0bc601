#include <ubbo/io/motion/motion_spec.hpp>

namespace {

bool works() {
  return std::holds_alternative<ubbo::Spring>(ubbo::io::read_transition("spring(settle 300ms)").way);
}

}  // namespace

int main() { return works() ? 0 : 1; }
