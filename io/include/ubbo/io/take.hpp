#pragma once

#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "ubbo/touch/sample.hpp"

namespace ubbo::io {

/// A recording of touches: samples sorted by time, and notes such as `screen`, `device`, `label`,
/// `expectation`.
struct Take {
  std::vector<std::pair<std::string, std::string>> notes;
  std::vector<Sample> samples;

  /// The note with this name, or "".
  [[nodiscard]] std::string note(std::string_view name) const;
};

/// Reads a take (docs/formats/take.md). `name` stands for the file in errors. Throws `InputError` for a line
/// that does not read, a number that is not finite, a time before the line above, and a take without samples.
/// About a million lines in a second.
[[nodiscard]] Take parse_take(std::string_view text, const std::string& name);
/// Reads a take from a file.
[[nodiscard]] Take read_take(const std::string& path);
/// The take as text; reading it gives the same samples back to the microsecond and the last bit.
[[nodiscard]] std::string write_take(const Take& take);

}  // namespace ubbo::io
