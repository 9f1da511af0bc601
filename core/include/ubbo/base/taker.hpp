#pragma once

#include <concepts>
#include <memory>
#include <type_traits>

namespace ubbo {

/// What is called with each of many things while a function hands them out, such as a lambda. It only refers
/// to it, so that making one never allocates; so never keep one longer than the call it was made for.
template <class T>
class Taker {
 public:
  template <class F>
  requires(std::invocable<F&, T> && !std::same_as<std::remove_cvref_t<F>, Taker>)
      Taker(F&& take)  // NOLINT(google-explicit-constructor,bugprone-forwarding-reference-overload)
      : it_(const_cast<void*>(static_cast<const void*>(std::addressof(take)))),
        call_([](void* it, T one) { (*static_cast<std::remove_reference_t<F>*>(it))(one); }) {}

  void operator()(T one) const { call_(it_, one); }

 private:
  void* it_;
  void (*call_)(void*, T);
};

}  // namespace ubbo
