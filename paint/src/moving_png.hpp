#pragma once

#include <cairo.h>

#include <cstdint>
#include <string>
#include <vector>

#include "ubbo/base/time.hpp"

namespace ubbo::paint {

/// An animated PNG, frame by frame: of each only the box in which it differs from the one before is kept. As
/// the third edition of the PNG specification of the W3C describes it.
class MovingPng {
 public:
  MovingPng(int width, int height, std::size_t frames);

  /// An image of the whole size, with 32 bits a pixel, which stays for `time`.
  void add(cairo_surface_t* image, Micros time);
  [[nodiscard]] std::string bytes() &&;

 private:
  void add_chunk(const char* name, const std::string& data);

  int width_;
  int height_;
  std::size_t frames_;
  std::uint32_t chunks_ = 0;  // of the animation so far
  std::vector<std::uint32_t> before_{};
  std::string made_{};
};

}  // namespace ubbo::paint
