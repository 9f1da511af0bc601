#pragma once

#include <cmath>
#include <functional>
#include <utility>

#include "ubbo/base/cell.hpp"

namespace ubbo {

/// A cell of another kind, seen as the number that a rail moves along: a switch's yes or no as 0 and 1, a
/// page as its index. A change of either is one of the other at once, and equal values end the round.
///
/// The number is made by `read`; a number that is written back goes through `write`, which gets the cell's
/// value to change. Where several numbers mean one value, the number stays while it means what the cell says.
template <class T>
class Bridge {
 public:
  using Read = std::function<double(const T&)>;
  using Write = std::function<T(double, const T&)>;

  Bridge(Read read, Write write, Link<T> outer) : read_(std::move(read)), write_(std::move(write)) {
    link(std::move(outer));
    inner_ = number_.watch([this](double value) {
      if (outer_.linked() && std::isfinite(value)) outer_.set(write_(value, outer_.get()));
    });
  }
  Bridge(const Bridge&) = delete;
  Bridge& operator=(const Bridge&) = delete;

  /// Another cell, or none: then the number is only its own.
  void link(Link<T> outer) {
    outer_ = {};
    watch_.stop();
    if (!outer.linked()) return;
    number_.set(read_(outer.get()));
    outer_ = std::move(outer);
    watch_ = outer_.watch([this](const T& value) {
      if (!(write_(number_.get(), value) == value)) number_.set(read_(value));
    });
  }
  [[nodiscard]] Link<double> number() { return number_; }

 private:
  Read read_;
  Write write_;
  Cell<double> number_{0.0};
  Link<T> outer_;
  Watch inner_;
  Watch watch_;
};

}  // namespace ubbo
