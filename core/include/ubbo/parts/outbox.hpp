#pragma once

#include <array>
#include <cstddef>
#include <functional>
#include <new>
#include <string>
#include <tuple>
#include <type_traits>
#include <utility>
#include <vector>

namespace ubbo {

/// Calls of the app's callbacks that an event led to. They wait until every part the event reached is
/// complete and cells have been told, so that a callback finds all as it will stay, and one that throws
/// leaves all sound. Allocates only where more calls wait at a time, or longer texts, than ever before.
class Outbox {
 public:
  Outbox() { waiting_.reserve(usual_room); }

  /// `call`, which is not empty, is to be called with copies of these. It must stay where it is until then.
  /// Of texts there may be one.
  template <class... As, class... Bs>
  void add(const std::function<void(As...)>& call, const Bs&... args) {
    using Stored = std::tuple<Kept<Bs>...>;
    static_assert(sizeof(Stored) <= max_bytes && std::is_trivially_destructible_v<Stored>,
                  "a callback takes a few numbers, flags, pointers, and at most one text");
    if (end_ == waiting_.size()) waiting_.emplace_back();
    Waiting& one = waiting_[end_++];
    one.call = &call;
    (keep_text(one, args), ...);
    ::new (static_cast<void*>(one.bytes.data())) Stored(Kept<Bs>(kept(args))...);
    one.run = [](const Waiting& self) {
      const Stored stored = *std::launder(reinterpret_cast<const Stored*>(self.bytes.data()));
      std::apply(
          [&](const auto&... told) {
            (*static_cast<const std::function<void(As...)>*>(self.call))(given(self, told)...);
          },
          stored);
    };
  }
  [[nodiscard]] bool empty() const { return begin_ == end_; }
  /// Makes the call that has waited longest. Needs one.
  void call_next() {
    Waiting one = std::move(waiting_[begin_]);  // a callback may lead to more
    const std::size_t at = begin_++;
    if (begin_ == end_) begin_ = end_ = 0;
    struct Back {  // its text keeps its room
      std::vector<Waiting>* all;
      std::size_t at;
      Waiting* one;
      ~Back() {
        if (std::string& text = (*all)[at].text; text.capacity() < one->text.capacity()) text.swap(one->text);
      }
    } back{&waiting_, at, &one};
    one.run(one);
  }

 private:
  static constexpr std::size_t usual_room = 16;
  static constexpr std::size_t max_bytes = 128;
  struct Text {};  // the text of the call
  template <class B>
  using Kept = std::conditional_t<std::is_same_v<B, std::string>, Text, B>;

  struct Waiting {
    void (*run)(const Waiting&) = nullptr;
    const void* call = nullptr;
    alignas(std::max_align_t) std::array<std::byte, max_bytes> bytes{};
    std::string text{};
  };
  template <class B>
  static decltype(auto) kept(const B& arg) {
    if constexpr (std::is_same_v<B, std::string>)
      return Text{};
    else
      return (arg);
  }
  template <class B>
  static void keep_text(Waiting& one, const B& arg) {
    if constexpr (std::is_same_v<B, std::string>) one.text = arg;
  }
  template <class K>
  static decltype(auto) given(const Waiting& self, const K& told) {
    if constexpr (std::is_same_v<K, Text>)
      return (self.text);
    else
      return (told);
  }

  std::vector<Waiting> waiting_;
  std::size_t begin_ = 0;
  std::size_t end_ = 0;
};

}  // namespace ubbo
