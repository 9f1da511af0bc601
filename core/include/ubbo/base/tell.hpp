#pragma once

#include <exception>
#include <utility>

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

/// What has changed and has watchers to tell. Inside `together` such things stand in a list until it ends.
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
    if (std::exchange(waits_, true)) return;
    *(last == nullptr ? &first : &last->next_) = this;
    last = this;
  }
  virtual void tell_all() = 0;

 private:
  friend class Together;

  static void forget(Telling& gone) {
    Telling* before = nullptr;
    for (Telling* at = first; at != &gone; at = at->next_) before = at;
    (before == nullptr ? first : before->next_) = gone.next_;
    if (last == &gone) last = before;
    gone.next_ = nullptr;
    gone.waits_ = false;
  }

  static inline thread_local int depth = 0;
  static inline thread_local Telling* first = nullptr;
  static inline thread_local Telling* last = nullptr;

  Telling* next_ = nullptr;
  bool waits_ = false;
};

/// Holds back what cells have to tell, until it is closed or gone.
class Together {
 public:
  Together() { ++Telling::depth; }
  Together(const Together&) = delete;
  Together& operator=(const Together&) = delete;
  ~Together() {
    // Something threw on the way here: what was changed is told all the same, and that error passes on.
    FirstError swallowed;
    if (open_) swallowed.keep([this] { close(); });
  }
  void close() {
    open_ = false;
    if (--Telling::depth > 0) return;
    FirstError error;
    while (Telling::first != nullptr) {
      Telling& next = *Telling::first;
      Telling::forget(next);
      error.keep([&next] { next.tell_all(); });
    }
    error.pass_on();
  }

 private:
  bool open_ = true;
};

}  // namespace ubbo::detail
