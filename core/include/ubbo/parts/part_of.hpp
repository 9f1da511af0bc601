#pragma once

#include <algorithm>
#include <string>
#include <utility>

#include "ubbo/parts/kind.hpp"

namespace ubbo {

namespace detail {

// They come before whatever is made from them.
template <class P, class S>
class Settled {
 protected:
  Settled(const std::string& id, const Box& box, S&& settings) : settings_(std::move(settings)) {
    if (const std::string fault = P::fault(id, box, settings_); !fault.empty()) refuse(fault);
  }
  S settings_;
};

}  // namespace detail

/// A part of the class `P`, with settings `S` and all that follows from these. `P` says what is particular to
/// it: `described()`; `changed()`, or `changed(before)`, which is called when `settings()` are others; and
/// `misfit` where its table of settings does not say all. `Base` is what it is besides a part: `Sliding` and
/// its kind also want what `P::base_plan(settings, box, around)` makes of the settings.
template <class P, class S, class Base = Part>
class PartOf : private detail::Settled<P, S>, public Base {
 public:
  using Settings = S;

  /// "" or what is wrong: a setting out of the range its table says, a cell missing that it needs, a motion
  /// that repeats, or what `P::misfit` says.
  [[nodiscard]] static std::string fault(const std::string& id, const Box& box, const S& settings) {
    std::string wrong = settings_fault(settings);
    if (wrong.empty()) wrong = P::misfit(box, settings);
    return wrong.empty() ? wrong : P::described().fault_of(id, wrong);
  }
  /// "" or which of the settings do not go together, or not with the box.
  [[nodiscard]] static std::string misfit(const Box&, const S&) { return {}; }

  /// Throws `std::invalid_argument` with the fault, if there is one.
  PartOf(std::string id, const Box& box, S&& settings,
         Context& context) requires(!requires { typename Base::Plan; })
      : detail::Settled<P, S>(id, box, std::move(settings)), Base(std::move(id), box, context) {}
  PartOf(std::string id, const Box& box, S&& settings, Context& context) requires requires {
    typename Base::Plan;
  } : detail::Settled<P, S>(id, box, std::move(settings)),
      Base(std::move(id), box, context, P::base_plan(settings_, box, context)) {
  }

  [[nodiscard]] const S& settings() const { return settings_; }
  /// Takes other settings, which must be without fault. Through a stage: `Stage::change`.
  void change(S&& settings) {
    P& part = static_cast<P&>(*this);
    if constexpr (requires { part.changed(settings); }) {
      std::swap(settings_, settings);
      part.changed(settings);
    } else {
      settings_ = std::move(settings);
      part.changed();
    }
  }

  [[nodiscard]] const PartKind& kind() const override { return P::described(); }

 protected:
  using detail::Settled<P, S>::settings_;
};

}  // namespace ubbo
