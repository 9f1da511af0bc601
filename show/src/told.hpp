#pragma once

#include <functional>

namespace ubbo::show {

/// A listener for the part of a work from `from` to `to`, out of one for the whole; none out of none. The
/// whole's must outlive it.
[[nodiscard]] inline std::function<void(double)> told_part(const std::function<void(double)>& whole,
                                                           double from, double to) {
  if (!whole) return nullptr;
  return [&whole, from, to](double fraction) { whole(from + (to - from) * fraction); };
}

}  // namespace ubbo::show
