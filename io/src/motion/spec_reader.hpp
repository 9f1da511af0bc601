#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "ubbo/base/time.hpp"

namespace ubbo::io::detail {

// The unit of a number in a spec.
enum class Unit { none, percent, ms, s, other };

struct Number {
  double value = 0.0;
  Unit unit = Unit::none;
  std::size_t at = 0;
  std::size_t end = 0;
};

// What a number may be: `least` to `most` in the plain unit (shares for per cents, ms for times).
struct Range {
  const char* name;
  double min;
  double max;
};

template <std::size_t N>
std::size_t index_of(const std::array<std::string_view, N>& names, std::string_view name) {
  return static_cast<std::size_t>(std::find(names.begin(), names.end(), name) - names.begin());
}

// Reads the words and numbers of a spec, and says what is wrong with them.
class SpecReader {
 protected:
  explicit SpecReader(std::string_view text) : text_(text) {}

  [[noreturn]] void refuse(std::size_t at, std::size_t length, std::string_view found,
                           std::string_view takes) const;
  [[noreturn]] void refuse_here(const std::string& takes);

  [[nodiscard]] bool done() const { return at_ >= text_.size(); }
  [[nodiscard]] bool at_function() const { return at_ < text_.size() && text_[at_] == '('; }
  // Passes over blanks and comments.
  void skip();
  // The next character if it is `c`.
  bool take(char c);
  void need(char c, const std::string& takes);
  // The word that comes next, in small letters; "" when none does.
  std::string peek_word();
  bool take_word(std::string_view word);
  // The index of the next word among `names`.
  template <std::size_t N>
  std::size_t need_name(const std::array<std::string_view, N>& names) {
    const std::string word = peek_word();
    const std::size_t index = index_of(names, word);
    if (index == N) refuse_name(word, names);
    at_ += word.size();
    return index;
  }

  // A number as CSS writes it, with its unit.
  std::optional<Number> take_number();
  [[nodiscard]] std::string found(const Number& number) const;
  // A number without unit.
  double plain(const Range& range);
  // A share: 0.25 or 25%.
  double fraction(const Range& range);
  Micros time(const Range& range);
  [[nodiscard]] Micros time(const Number& number, const Range& range) const;

  std::string_view text_;
  std::size_t at_ = 0;
  std::string in_;  // the function that is being read, for the example of a right one

  [[noreturn]] void refuse_name(std::string_view word, std::span<const std::string_view> names);

 private:
  [[nodiscard]] std::size_t word_length(std::size_t from) const;
  void check(const Number& number, double value, const Range& range, const char* unit) const;
};

}  // namespace ubbo::io::detail
