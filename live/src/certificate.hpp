#pragma once

#include <string>
#include <vector>

namespace ubbo::live {

/// A certificate and its key as PEM.
struct Certificate {
  std::string chain;
  std::string key;
};

/// One for these names and addresses that signs itself, good for thirty days. Throws `std::runtime_error`.
[[nodiscard]] Certificate make_certificate(const std::vector<std::string>& names);

}  // namespace ubbo::live
