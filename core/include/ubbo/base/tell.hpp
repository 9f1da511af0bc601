#pragma once

#include <cstdint>
#include <exception>
#include <utility>

namespace ubbo {

/// How what a cell was set to shows on the parts that show it.
enum class Write : std::uint8_t {
  travels,    ///< by the part's transition
  immediate,  ///< without motion, as the app asked
  carried     ///< along with another part, which tells its place by the same cell
};

}  // namespace ubbo

/// How cells tell their watchers; nothing here is for apps.
namespace ubbo::detail {

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

/// The first exception of several calls, passed on when all are done.
class FirstError {
 public:
  template <class F>
  void keep(F&& call) {
#ifdef __cpp_exceptions
    try {
      call();
    } catch (...) {
      if (!first_) first_ = std::current_exception();
    }
#else
    call();
#endif
  }
  void pass_on() {
#ifdef __cpp_exceptions
    if (first_) std::rethrow_exception(std::exchange(first_, nullptr));
#endif
  }

 private:
#ifdef __cpp_exceptions
  std::exception_ptr first_{};
#endif
};

/// What has changed and has watchers to tell. Inside a `batch` such things stand in a list until it ends.
class Telling {
 public:
  Telling() = default;
  Telling(const Telling&) = delete;
  Telling& operator=(const Telling&) = delete;
  virtual ~Telling() {
    if (waits_) forget(*this);
  }

 protected:
  void tell_now_or_later() {
    if (depth == 0) return tell_all();
    how_ = how;
    if (std::exchange(waits_, true)) return;
    *(last == nullptr ? &first : &last->next_) = this;
    last = this;
  }
  virtual void tell_all() = 0;

 private:
  friend class Batch;
  friend class Writing;

  static void forget(Telling& gone) {
    Telling* before = nullptr;
    for (Telling* at = first; at != &gone; at = at->next_) before = at;
    (before == nullptr ? first : before->next_) = gone.next_;
    if (last == &gone) last = before;
    gone.next_ = nullptr;
    gone.waits_ = false;
  }

  static inline thread_local int depth = 0;
  static inline thread_local Write how = Write::travels;
  static inline thread_local Telling* first = nullptr;
  static inline thread_local Telling* last = nullptr;

  Telling* next_ = nullptr;
  bool waits_ = false;
  Write how_ = Write::travels;  // of the change that waits to be told
};

/// While it lives, what is written to cells shows on the parts that show them as it says.
class Writing {
 public:
  explicit Writing(Write how) : before_(std::exchange(Telling::how, how)) {}
  Writing(const Writing&) = delete;
  Writing& operator=(const Writing&) = delete;
  ~Writing() { Telling::how = before_; }
  /// How what is told now was written.
  [[nodiscard]] static Write now() { return Telling::how; }

 private:
  Write before_;
};

/// Holds back what cells have to tell, until it is closed or gone.
class Batch {
 public:
  Batch() { begin(); }
  Batch(const Batch&) = delete;
  Batch& operator=(const Batch&) = delete;
  ~Batch() {
    // Something threw on the way here: what was changed is told all the same, and that error passes on.
    FirstError swallowed;
    if (open_) swallowed.keep([this] { close(); });
  }
  void close() {
    open_ = false;
    end();
  }

  /// Like an object of this class, for callers that cannot have one: each `begin` needs its `end`, which
  /// tells.
  static void begin() { ++Telling::depth; }
  /// Ends when nothing has changed that waits to be told, and returns true; otherwise does nothing and
  /// returns false.
  static bool end_untold() {
    if (Telling::first != nullptr) return false;
    --Telling::depth;
    return true;
  }
  static void end() {
    if (--Telling::depth > 0 || Telling::first == nullptr) return;
    FirstError error;
    while (Telling::first != nullptr) {
      Telling& next = *Telling::first;
      Telling::forget(next);
      const Writing writing(next.how_);
      error.keep([&next] { next.tell_all(); });
    }
    error.pass_on();
  }

 private:
  bool open_ = true;
};

}  // namespace ubbo::detail
