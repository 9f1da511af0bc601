#pragma once

#include <cmath>
#include <concepts>
#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <type_traits>
#include <utility>

namespace ubbo {

namespace detail {

/// A place in a cell's ring of watchers; unlinks itself. The ring's own head is one of these.
struct WatchNode {
  WatchNode* before = this;
  WatchNode* after = this;
  WatchNode** cursor = nullptr;  // the owning cell's place in a walk over the ring, moved on when we leave

  WatchNode() = default;
  WatchNode(const WatchNode&) = delete;
  WatchNode& operator=(const WatchNode&) = delete;
  virtual ~WatchNode() { leave(); }

  void join(WatchNode& head, WatchNode** walk) {
    before = head.before;
    after = &head;
    before->after = this;
    head.before = this;
    cursor = walk;
  }
  void leave() {
    if (cursor != nullptr && *cursor == this) *cursor = after;
    before->after = after;
    after->before = before;
    before = after = this;
    cursor = nullptr;
  }
};

/// What a `Link` cannot be made from.
template <class U, class Link, class Cell>
concept NeitherLinkNorCell = !std::same_as<std::remove_cvref_t<U>, Link> && !std::same_as<U, Cell&>;

}  // namespace detail

/// Keeps a watcher registered for as long as it lives. It may outlive its cell, and may be dropped inside a
/// notification, its own included.
class [[nodiscard]] Watch {
 public:
  Watch() = default;
  explicit Watch(std::unique_ptr<detail::WatchNode> node) : node_(std::move(node)) {}
  /// Ends the watch now.
  void stop() { node_.reset(); }

 private:
  std::unique_ptr<detail::WatchNode> node_;
};

template <class T>
class Link;

/// A value with one owner. Parts and the app reach it through a `Link`; it can be neither copied nor moved,
/// so a private copy cannot be handed on by mistake.
///
/// Watchers are told after a change, in the order in which they came. A watcher may set the cell again: that
/// change is told in a further round. Rounds end after `most_rounds`, so that two watchers that never agree
/// cannot hang the app; `cut_short` then counts it. Setting an equal value tells nobody.
template <class T>
class Cell {
 public:
  static constexpr int most_rounds = 64;

  Cell() : Cell(T{}) {}
  explicit Cell(T value) : value_(std::move(value)), self_(std::make_shared<Cell*>(this)) {}
  Cell(const Cell&) = delete;
  Cell& operator=(const Cell&) = delete;
  ~Cell() {
    *self_ = nullptr;
    while (ring_.after != &ring_) ring_.after->leave();
  }

  [[nodiscard]] const T& get() const { return value_; }

  /// Changes the value and tells every watcher. Allocates nothing beyond what copying `T` needs.
  void set(T value) {
    if (same(value, value_)) return;
    value_ = std::move(value);
    ++version_;
    if (telling_) return;
    telling_ = true;
    for (int round = 0; told_ != version_; ++round) {
      if (round == most_rounds) {
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
        (*tell)(value_);
      }
    }
    telling_ = false;
  }

  /// Calls `tell` after each change from now on, until the returned watch or the cell is gone.
  Watch watch(std::function<void(const T&)> tell) {
    auto watcher = std::make_unique<Watcher>(std::move(tell), version_);
    watcher->join(ring_, &cursor_);
    return Watch{std::move(watcher)};
  }

  /// How many changes were left untold since watchers kept contradicting each other.
  [[nodiscard]] std::size_t cut_short() const { return cut_short_; }

 private:
  friend class Link<T>;

  struct Watcher final : detail::WatchNode {
    Watcher(std::function<void(const T&)> call, std::uint64_t version)
        : tell(std::make_shared<const std::function<void(const T&)>>(std::move(call))), born(version) {}
    std::shared_ptr<const std::function<void(const T&)>> tell;
    std::uint64_t born;
  };

  static bool same(const T& a, const T& b) {
    if constexpr (std::is_floating_point_v<T>) {
      if (std::isnan(a) && std::isnan(b)) return true;  // one NaN is as good as another
    }
    return a == b;
  }

  T value_;
  detail::WatchNode ring_;
  detail::WatchNode* cursor_ = nullptr;
  std::uint64_t version_ = 1;
  std::uint64_t told_ = 1;
  std::size_t cut_short_ = 0;
  bool telling_ = false;
  std::shared_ptr<Cell*> self_;
};

/// A two-way connection to a cell. It can only be made from a cell that lives elsewhere: handing it a plain
/// value does not compile, since a part with a private copy looks right and the app never hears of it.
template <class T>
class Link {
 public:
  Link() = default;
  Link(Cell<T>& cell)
      : cell_(cell.self_) {}  // NOLINT(google-explicit-constructor): `.value = cell` is the point
  template <detail::NeitherLinkNorCell<Link, Cell<T>> U>
  Link(U&&) = delete;  // NOLINT(bugprone-forwarding-reference-overload): the concept leaves copies alone

  /// False before a cell is given and after that cell is gone.
  [[nodiscard]] bool linked() const { return cell_ != nullptr && *cell_ != nullptr; }
  /// The cell's value. Needs `linked()`.
  [[nodiscard]] const T& get() const { return (*cell_)->get(); }
  /// Changes the cell; does nothing when it is gone.
  void set(T value) const {
    if (linked()) (*cell_)->set(std::move(value));
  }
  /// Watches the cell. Needs `linked()`.
  Watch watch(std::function<void(const T&)> tell) const { return (*cell_)->watch(std::move(tell)); }

 private:
  std::shared_ptr<Cell<T>*> cell_;
};

}  // namespace ubbo
