#pragma once

#include <cstddef>
#include <cstdint>
#include <span>
#include <stdexcept>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

namespace ubbo::io {

/// What kind of fault an input file has.
enum class InputFault : std::uint8_t {
  wrong_value,  ///< of the wrong type, out of range, or a name of nothing
  syntax,       ///< the text is not in its format
  unknown_key,
  former_key,  ///< it has another name now
  refused      ///< a part does not take its settings or its place
};

/// What is wrong with an input file: where, what was found, what is taken, and the nearest known name if one
/// is near. `what()` reads `FILE:LINE:COLUMN: FOUND; takes TAKES; nearest known: NEAREST`.
class InputError : public std::runtime_error {
 public:
  struct Facts {
    std::string file{};
    std::size_t line = 0;    ///< from 1; 0 when the file as a whole is meant
    std::size_t column = 0;  ///< from 1, in bytes
    std::string found{};
    std::string takes{};
    std::string nearest{};
    InputFault fault = InputFault::wrong_value;
  };

  explicit InputError(Facts facts) : InputError(std::vector{std::move(facts)}) {}
  /// Several faults of one input, in the order of their places, a line each; of many the first twenty.
  explicit InputError(std::vector<Facts> all);
  /// The first.
  [[nodiscard]] const Facts& facts() const { return all_.front(); }
  [[nodiscard]] const std::vector<Facts>& all() const { return all_; }

 private:
  std::vector<Facts> all_;
};

/// What `word` is called now, where it is the former name of one that is known; else "".
[[nodiscard]] std::string_view new_name(std::string_view word, std::span<const std::string_view> known);

/// The known name nearest to `word` by edits (insert, drop, change, swap neighbours), or "" when none is
/// near: more than half of the word would have to change. Of a former name it is the present one.
[[nodiscard]] std::string nearest_name(std::string_view word, std::span<const std::string_view> known);

}  // namespace ubbo::io
