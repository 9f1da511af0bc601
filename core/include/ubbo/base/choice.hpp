#pragma once

#include <cstddef>
#include <memory>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace ubbo {

/// One of several named things: a page, a sort order. Copies share the names, so copying allocates nothing.
class Choice {
 public:
  /// Nothing to choose from.
  Choice() = default;
  /// The first of `names`, or the one at `index`; an index past the end is the last.
  explicit Choice(std::vector<std::string> names, std::size_t index = 0)
      : names_(std::make_shared<const std::vector<std::string>>(std::move(names))), index_(clamped(index)) {}

  [[nodiscard]] std::span<const std::string> names() const {
    return names_ ? std::span<const std::string>(*names_) : std::span<const std::string>();
  }
  /// The index of what is chosen; the number of names where nothing is.
  [[nodiscard]] std::size_t index() const { return any() ? index_ : names().size(); }
  /// False when none of the names is chosen.
  [[nodiscard]] bool any() const { return !none_ && !names().empty(); }
  /// The name of what is chosen; "" where nothing is.
  [[nodiscard]] std::string_view name() const {
    return any() ? std::string_view(names()[index_]) : std::string_view();
  }
  /// The same names with none of them chosen.
  [[nodiscard]] Choice with_none() const {
    Choice other = *this;
    other.none_ = true;
    return other;
  }
  /// The same names with another one chosen; past the end: the last.
  [[nodiscard]] Choice with(std::size_t index) const {
    Choice other = *this;
    other.index_ = clamped(index);
    other.none_ = false;
    return other;
  }
  /// The same names with the one called `name` chosen; unchanged when there is none.
  [[nodiscard]] Choice with(std::string_view name) const {
    for (std::size_t i = 0; i < names().size(); ++i)
      if (names()[i] == name) return with(i);
    return *this;
  }
  /// The same name of the same list.
  friend bool operator==(const Choice& a, const Choice& b) {
    return a.index() == b.index() &&
           (a.names_ == b.names_ || (a.names_ && b.names_ && *a.names_ == *b.names_));
  }

 private:
  [[nodiscard]] std::size_t clamped(std::size_t index) const {
    return names().empty() ? 0 : index < names().size() ? index : names().size() - 1;
  }

  std::shared_ptr<const std::vector<std::string>> names_{};
  std::size_t index_ = 0;
  bool none_ = false;
};

}  // namespace ubbo
