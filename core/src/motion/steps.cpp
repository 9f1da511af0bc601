#include "ubbo/motion/steps.hpp"

#include <cmath>
#include <string>

#include "ubbo/base/refuse.hpp"

namespace ubbo {

Steps::Steps(int count, Jump jump) : count_(count), jump_(jump) {
  const int min = jump == Jump::none ? 2 : 1;
  if (count < min || count > 1'000'000)
    refuse("steps: count = " + std::to_string(count) + " is not taken; it takes " + std::to_string(min) +
           " to 1000000");
}

// The standard's own algorithm, line by line.
double Steps::value(double p, bool before) const {
  const double reached = p * count_;
  double step = std::floor(reached);
  if (jump_ == Jump::start || jump_ == Jump::both) step += 1.0;
  if (before && reached == std::floor(reached)) step -= 1.0;
  if (p >= 0.0 && step < 0.0) step = 0.0;
  double jumps = count_;
  if (jump_ == Jump::none) jumps -= 1.0;
  if (jump_ == Jump::both) jumps += 1.0;
  if (p <= 1.0 && step > jumps) step = jumps;
  return step / jumps;
}

}  // namespace ubbo
