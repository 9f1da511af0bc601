#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <string_view>

namespace ubbo {

/// The name of a part, kept in place: 63 bytes at most, longer ones are cut. A journal that keeps names keeps
/// no pointers, so that its decisions outlive the parts they tell of.
class Name {
 public:
  static constexpr std::size_t longest = 63;

  constexpr Name() = default;
  constexpr Name(std::string_view text) : size_(static_cast<unsigned char>(std::min(text.size(), longest))) {
    std::copy_n(text.begin(), size_, text_.begin());
  }
  [[nodiscard]] constexpr std::string_view view() const { return {text_.data(), size_}; }
  constexpr operator std::string_view() const { return view(); }
  [[nodiscard]] constexpr bool empty() const { return size_ == 0; }
  friend constexpr bool operator==(const Name& a, const Name& b) { return a.view() == b.view(); }
  friend constexpr bool operator==(const Name& a, std::string_view b) { return a.view() == b; }

 private:
  std::array<char, longest> text_{};
  unsigned char size_ = 0;
};

}  // namespace ubbo
