#pragma once

#include <cmath>
#include <functional>
#include <memory>
#include <utility>

#include "ubbo/base/cell.hpp"

namespace ubbo {

/// A connection to a cell that is seen as a number: one of a number as it is, one of another kind by two
/// functions, such as a switch's yes or no as 0 and 1, or a page as its index.
///
/// The number is made by `read`; one that is set goes through `write`, which gets the cell's value to change.
/// Where several numbers mean one value, the number stays while it means what the cell says.
class NumberLink {
 public:
  NumberLink() = default;
  NumberLink(Link<double> cell)
      : cell_(std::move(cell)) {}  // NOLINT(google-explicit-constructor): a number is one as it is
  template <class T>
  NumberLink(Link<T> cell, std::function<double(const T&)> read, std::function<T(double, const T&)> write) {
    if (cell.linked())
      other_ = std::make_shared<Other<T>>(std::move(cell), std::move(read), std::move(write));
  }

  [[nodiscard]] bool linked() const { return other_ != nullptr ? other_->linked() : cell_.linked(); }
  /// Which cell it is; null where `linked()` is false.
  [[nodiscard]] const void* cell() const { return other_ != nullptr ? other_->cell() : cell_.cell(); }
  /// Needs `linked()`.
  [[nodiscard]] double get() const { return other_ != nullptr ? other_->get() : cell_.get(); }
  /// Written by who watches it with `own`, who may or may not be told of it. Does nothing when the cell is
  /// gone.
  void set(double value, const Watch& own) const {
    if (other_ != nullptr)
      other_->set(value, own);
    else
      cell_.set(value, own);
  }
  /// Needs `linked()`.
  template <class F>
  Watch watch(F&& tell) const {
    return other_ != nullptr ? other_->watch(std::forward<F>(tell)) : cell_.watch(std::forward<F>(tell));
  }

 private:
  struct AnyOther {
    AnyOther() = default;
    AnyOther(const AnyOther&) = delete;
    AnyOther& operator=(const AnyOther&) = delete;
    virtual ~AnyOther() = default;
    [[nodiscard]] virtual bool linked() const = 0;
    [[nodiscard]] virtual const void* cell() const = 0;
    [[nodiscard]] virtual double get() = 0;
    virtual void set(double value, const Watch& own) = 0;
    virtual Watch watch(std::function<void(double)> tell) = 0;
  };
  template <class T>
  struct Other final : AnyOther {
    Other(Link<T> to, std::function<double(const T&)> by_read, std::function<T(double, const T&)> by_write)
        : link(std::move(to)),
          read(std::move(by_read)),
          write(std::move(by_write)),
          number(read(link.get())) {}
    [[nodiscard]] bool linked() const override { return link.linked(); }
    [[nodiscard]] const void* cell() const override { return link.cell(); }
    [[nodiscard]] double get() override {
      if (!(write(number, link.get()) == link.get())) number = read(link.get());
      return number;
    }
    void set(double value, const Watch& own) override {
      if (!link.linked() || !std::isfinite(value)) return;
      number = value;
      link.set(write(value, link.get()), own);
    }
    Watch watch(std::function<void(double)> tell) override {
      return link.watch([this, tell = std::move(tell)](const T& value) {
        number = get();
        // What no number means, such as an item past the last, is put right.
        if (T meant = write(number, value); !(meant == value)) link.set(std::move(meant));
        tell(number);
      });
    }
    Link<T> link;
    std::function<double(const T&)> read;
    std::function<T(double, const T&)> write;
    double number;
  };

  Link<double> cell_;
  std::shared_ptr<AnyOther> other_;
};

}  // namespace ubbo
