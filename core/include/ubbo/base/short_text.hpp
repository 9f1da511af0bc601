#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <string>
#include <string_view>

namespace ubbo {

/// A text of up to 127 bytes, kept in place, so that it costs no memory; what is longer is cut.
class ShortText {
 public:
  static constexpr std::size_t longest = 127;

  constexpr ShortText() = default;
  constexpr ShortText(std::string_view text) { add(text); }  // NOLINT(google-explicit-constructor): a text
  constexpr ShortText(const char* text) { add(text); }       // NOLINT(google-explicit-constructor)
  ShortText(const std::string& text) { add(text); }          // NOLINT(google-explicit-constructor)
  /// These texts one after another.
  template <class... Texts>
  static constexpr ShortText of(const Texts&... texts) {
    ShortText all;
    (all.add(texts), ...);
    return all;
  }
  [[nodiscard]] constexpr std::string_view view() const { return {text_.data(), size_}; }
  constexpr operator std::string_view() const { return view(); }  // NOLINT(google-explicit-constructor)
  [[nodiscard]] constexpr bool empty() const { return size_ == 0; }
  friend constexpr bool operator==(const ShortText& a, std::string_view b) { return a.view() == b; }

 private:
  constexpr void add(std::string_view text) {
    const std::size_t room = std::min(text.size(), longest - size_);
    std::copy_n(text.begin(), room, text_.begin() + static_cast<std::ptrdiff_t>(size_));
    size_ += room;
  }

  std::array<char, longest> text_{};
  std::size_t size_ = 0;
};

}  // namespace ubbo
