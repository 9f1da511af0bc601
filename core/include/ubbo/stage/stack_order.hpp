#pragma once

#include <cstddef>
#include <vector>

namespace ubbo {

class Part;

/// The parts of a stage from the lowest to the topmost. All that lies in a part stands above it in one run
/// with it, so that a part below another has all that lies in it below that, too.
class StackOrder {
 public:
  /// Puts a part in: above the others of its container, but below those of them that are open layers, unless
  /// it is one itself. O(parts above its place).
  void add(Part& part);
  /// Above all others of its container, with all that lies in it; or below them. O(parts).
  void raise(Part& part) { move(part, true); }
  void lower(Part& part) { move(part, false); }
  template <class F>
  void remove_if(F&& gone) {
    std::erase_if(parts_, gone);
  }

  [[nodiscard]] const std::vector<Part*>& parts() const { return parts_; }
  [[nodiscard]] std::size_t size() const { return parts_.size(); }
  [[nodiscard]] Part& operator[](std::size_t i) const { return *parts_[i]; }
  /// Where it stands, from the lowest; `size()` where it is none of these. O(parts).
  [[nodiscard]] std::size_t place_of(const Part* part) const;

 private:
  void move(Part& part, bool up);

  std::vector<Part*> parts_;
};

}  // namespace ubbo
