#pragma once

#include <cmath>
#include <concepts>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <type_traits>
#include <utility>
#include <vector>

#include "ubbo/base/choice.hpp"
#include "ubbo/base/tell.hpp"

namespace ubbo {

/// Keeps a watcher registered for as long as it lives. It may outlive its cell, and may be dropped inside a
/// notification, its own included.
class [[nodiscard]] Watch {
 public:
  Watch() = default;
  explicit Watch(std::unique_ptr<detail::WatchNode> node) : node_(std::move(node)) {}
  /// Ends the watch now.
  void stop() { node_.reset(); }
  /// True when nobody else watches the same cell.
  [[nodiscard]] bool alone() const { return node_ != nullptr && node_->after->after == node_.get(); }

 private:
  std::unique_ptr<detail::WatchNode> node_;
};

template <class T>
class Link;
template <class T>
class Derived;

/// The kinds of value a cell of a scene can hold.
enum class CellKind : std::uint8_t { number, whole, flag, choice, text, texts };

/// A value with one owner. Parts and the app reach it through a `Link`; it can be neither copied nor moved,
/// so a private copy cannot be handed on by mistake. A stage and its cells belong to one thread.
///
/// Watchers are told after a change, in the order in which they came. A watcher may set the cell again: that
/// change is told in a further round. Rounds end after `max_rounds`, so that two watchers that never agree
/// cannot hang the app; `cut_short` then counts it. Setting an equal value tells nobody. A watcher that
/// throws keeps nobody else from being told: the first exception passes on once all have been.
template <class T>
class Cell : private detail::Telling {
 public:
  static constexpr int max_rounds = 64;

  Cell() : Cell(T{}) {}
  explicit Cell(T value) : value_(kept(std::move(value))), self_(std::make_shared<Cell*>(this)) {}
  Cell(const Cell&) = delete;
  Cell& operator=(const Cell&) = delete;
  ~Cell() override {
    *self_ = nullptr;
    while (ring_.after != &ring_) ring_.after->leave();
  }

  [[nodiscard]] const T& get() const { return value_; }

  /// Changes the value and tells every watcher, or, inside `batch`, once that ends. Allocates nothing
  /// beyond what copying `T` needs.
  void set(T value) {
    if (same(value, value_)) return;
    value_ = kept(std::move(value));
    ++version_;
    if (!telling_) tell_now_or_later();
  }

  /// Like `set`, for a caller that watches the cell with `own` and need not be told: when nobody else
  /// watches, nothing more happens.
  void set(T value, const Watch& own) {
    if (same(value, value_)) return;
    const bool all_told = told_ == version_ && !telling_;
    value_ = kept(std::move(value));
    ++version_;
    if (all_told && own.alone())
      told_ = version_;
    else if (!telling_)
      tell_now_or_later();
  }

  /// Calls `tell` after each change from now on, until the returned watch or the cell is gone.
  Watch watch(std::function<void(const T&)> tell) {
    auto watcher = std::make_unique<Watcher>(std::move(tell), version_);
    watcher->join(ring_, &cursor_);
    return Watch{std::move(watcher)};
  }

  /// How many changes were not told, because watchers kept contradicting each other.
  [[nodiscard]] std::size_t cut_short() const { return cut_short_; }

 private:
  friend class Link<T>;

  struct Watcher final : detail::WatchNode {
    Watcher(std::function<void(const T&)> call, std::uint64_t version)
        : tell(std::make_shared<const std::function<void(const T&)>>(std::move(call))), born(version) {}
    std::shared_ptr<const std::function<void(const T&)>> tell;
    std::uint64_t born;
  };

  // There is one zero: a -0 would be another text for the same value.
  static T kept(T value) {
    if constexpr (std::is_floating_point_v<T>)
      return value + T{0};
    else
      return value;
  }
  static bool same(const T& a, const T& b) {
    if constexpr (std::is_floating_point_v<T>) {
      if (std::isnan(a) && std::isnan(b)) return true;  // one NaN is as good as another
    }
    return a == b;
  }

  void tell_all() override {
    const std::shared_ptr<Cell*> self = self_;  // a watcher may end the cell
    detail::FirstError error;
    telling_ = true;
    for (int round = 0; told_ != version_; ++round) {
      if (round == max_rounds) {
        ++cut_short_;
        told_ = version_;
        break;
      }
      told_ = version_;
      for (cursor_ = ring_.after; cursor_ != &ring_;) {
        auto* watcher = static_cast<Watcher*>(cursor_);
        cursor_ = cursor_->after;
        if (watcher->born >= version_) continue;
        const auto tell = watcher->tell;  // it may be dropped while it is being told
        error.keep([&] { (*tell)(value_); });
        if (*self == nullptr) return error.pass_on();
      }
    }
    telling_ = false;
    error.pass_on();
  }

  T value_;
  detail::WatchNode ring_;
  detail::WatchNode* cursor_ = nullptr;
  std::uint64_t version_ = 1;
  std::uint64_t told_ = 1;
  std::size_t cut_short_ = 0;
  bool telling_ = false;
  const void* led_by_ = nullptr;
  std::shared_ptr<Cell*> self_;
};

namespace detail {

template <class U>
inline constexpr bool is_cell = false;
template <class T>
inline constexpr bool is_cell<Cell<T>> = true;
template <class U>
inline constexpr bool is_derived = false;
template <class T>
inline constexpr bool is_derived<Derived<T>> = true;

/// What a `Link<T>` cannot be made from: anything but a cell that lives elsewhere.
template <class U, class T>
concept NoCell = !std::same_as<std::remove_cvref_t<U>, Link<T>> && !is_cell<std::remove_reference_t<U>> &&
                 !is_derived<std::remove_cvref_t<U>>;
template <class U, class T>
concept CellOfAnotherKind = !std::same_as<U, T>;

}  // namespace detail

/// A two-way connection to a cell. It can only be made from a cell that lives elsewhere: handing it a plain
/// value does not compile, since a part with a private copy looks right and the app never hears of it.
template <class T>
class Link {
 public:
  Link() = default;
  Link(Cell<T>& cell)
      : cell_(cell.self_) {}  // NOLINT(google-explicit-constructor): `.value = cell` is the point
  template <detail::NoCell<T> U>
  Link(U&&) = delete;  // NOLINT(bugprone-forwarding-reference-overload): the concept leaves copies alone
  template <detail::CellOfAnotherKind<T> U>
  Link(Cell<U>&) {
    static_assert(
        std::same_as<U, T>,
        "this setting is linked to a cell of another kind than it shows: a number takes Cell<double>, a "
        "whole number Cell<int>, yes or no Cell<bool>, a choice Cell<ubbo::Choice>, a text "
        "Cell<std::string>, a list of texts Cell<std::vector<std::string>>");
  }
  template <class U>
  Link(const Derived<U>&) {
    static_assert(
        !std::same_as<U, U>,
        "a derived cell is worked out from others and cannot be changed by a part: link the part to the "
        "cell that the app owns");
  }

  /// False before a cell is given and after that cell is gone.
  [[nodiscard]] bool linked() const { return cell_ != nullptr && *cell_ != nullptr; }
  /// Which cell it is; null where `linked()` is false.
  [[nodiscard]] const Cell<T>* cell() const { return cell_ == nullptr ? nullptr : *cell_; }
  /// The cell's value. Needs `linked()`.
  [[nodiscard]] const T& get() const { return (*cell_)->get(); }
  /// Changes the cell; does nothing when it is gone.
  void set(T value) const {
    if (linked()) (*cell_)->set(std::move(value));
  }
  void set(T value, const Watch& own) const {
    if (linked()) (*cell_)->set(std::move(value), own);
  }
  /// From now on `who` moves what the cell tells: the part that moved it before stops and follows.
  void lead(const void* who) const {
    if (linked()) (*cell_)->led_by_ = who;
  }
  [[nodiscard]] bool led_by(const void* who) const { return linked() && (*cell_)->led_by_ == who; }
  /// Watches the cell. Needs `linked()`.
  template <class F>
  Watch watch(F&& tell) const {
    return (*cell_)->watch(std::forward<F>(tell));
  }

 private:
  std::shared_ptr<Cell<T>*> cell_;
};

/// A value worked out from others: `Derived<double> share([](double n) { return n / 10; }, frames)`. It is
/// computed again after each change of a source, or once after several made in a `batch`; its watchers are
/// told when it differs. Keeps its last value when a source is gone.
template <class T>
class Derived {
 public:
  /// `compute` gets the sources' values in their order; sources are cells and other derived cells.
  template <class F, class... Source>
  explicit Derived(F compute, Source&... sources) : cell_(T(compute(sources.get()...))) {
    compute_ = [compute = std::move(compute), ... links = link_to(sources)]() mutable -> const T* {
      static thread_local T made;
      if (!(links.linked() && ...)) return nullptr;
      made = T(compute(links.get()...));
      return &made;
    };
    (watches_.push_back(sources.watch([this](const auto&) {
      if (const T* made = compute_()) cell_.set(*made);
    })),
     ...);
  }
  Derived(const Derived&) = delete;
  Derived& operator=(const Derived&) = delete;

  [[nodiscard]] const T& get() const { return cell_.get(); }
  Watch watch(std::function<void(const T&)> tell) { return cell_.watch(std::move(tell)); }

 private:
  template <class U>
  friend class Derived;
  template <class U>
  static Link<U> link_to(Cell<U>& cell) {
    return cell;
  }
  template <class U>
  static Link<U> link_to(Derived<U>& derived) {
    return derived.cell_;
  }

  Cell<T> cell_;
  std::function<const T*()> compute_;
  std::vector<Watch> watches_;
};

/// Makes several changes as one: the watchers of all cells that `changes` sets are told when it ends, each
/// once. May be nested; the outermost counts.
template <class F>
void batch(F&& changes) {
  detail::Batch open;
  std::forward<F>(changes)();
  open.close();
}

}  // namespace ubbo
