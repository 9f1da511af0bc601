#pragma once

#include <cstdint>
#include <cstring>

namespace ubbo {

/// A double's bits, and back; `std::bit_cast` where a platform's library does not have it yet.
inline std::uint64_t bits_of(double x) {
  std::uint64_t bits = 0;
  std::memcpy(&bits, &x, sizeof bits);
  return bits;
}

inline double from_bits(std::uint64_t bits) {
  double x = 0.0;
  std::memcpy(&x, &bits, sizeof x);
  return x;
}

}  // namespace ubbo
