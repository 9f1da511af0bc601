#pragma once

#include <cstddef>
#include <cstdint>

namespace ubbo {

/// How people say a number that is a place: code says -96 dp and item 0, people say 96 dp to the left and
/// item 1.
enum class Sense : std::uint8_t {
  plain,
  rightwards,  ///< dp from where the part was put; above 0 to the right
  leftwards,
  downwards,
  upwards,
  scrolled,  ///< dp by which content has been moved; below 0 it has gone on from its start
  counted,   ///< of things in a row, from 0
  switched   ///< 0 is off, 1 is on
};

/// One number a decision was made from.
struct Fact {
  const char* name = "";
  double value = 0.0;
  const char* unit = "";  ///< "dp", "dp/s", "ms", or "" for a bare number
  double limit = 0.0;     ///< what the value was held against, where `limited`
  double margin =
      0.0;  ///< how far the value lies on the passing side of the limit; negative: it failed by that
  bool limited = false;
  Sense sense = Sense::plain;
  int of = 0;  ///< for a place that is counted: how many there are; 0: not known
};

/// What a fact's value is held against.
enum class Limit : std::uint8_t {
  none,
  at_least,  ///< it passes when it is at or above its limit
  at_most    ///< it passes when it is at or below its limit
};

/// One fact that an answer is always given with.
struct FactSpec {
  const char* name;
  const char* unit;  ///< null: the part's own unit, which is given with the value
  Limit limit;
};

/// A value and the limit it was held against.
struct Held {
  double value;
  double limit;
};

/// A value in the unit of the part that decides, such as "frames".
struct Amount {
  double value;
  const char* unit;
  Sense sense = Sense::plain;
  int of = 0;  ///< for a place that is counted: how many there are; 0: not known
};

/// A value in the unit of the part that decides, and the limit it was held against.
struct HeldAmount {
  double value;
  double limit;
  const char* unit;
};

namespace detail {

/// A string literal as a template argument.
template <std::size_t size>
struct Literal {
  // NOLINTNEXTLINE(google-explicit-constructor): a literal stands for itself
  constexpr Literal(const char (&literal)[size]) {
    for (std::size_t i = 0; i < size; ++i) text[i] = literal[i];
  }
  char text[size]{};
};

constexpr Fact fact_of(const FactSpec& spec, double value) { return {spec.name, value, spec.unit}; }
constexpr Fact fact_of(const FactSpec& spec, const Amount& value) {
  return {.name = spec.name, .value = value.value, .unit = value.unit, .sense = value.sense, .of = value.of};
}
constexpr Fact fact_of(const FactSpec& spec, const HeldAmount& held) {
  const double over = held.value - held.limit;
  return {spec.name, held.value, held.unit, held.limit, spec.limit == Limit::at_least ? over : -over, true};
}
constexpr Fact fact_of(const FactSpec& spec, const Held& held) {
  return fact_of(spec, HeldAmount{held.value, held.limit, spec.unit});
}

}  // namespace detail

/// The kinds of facts, by which an answer declares what it is given with: `AnswerWith<AtLeast<"travel",
/// "dp">, Number<"after", "ms">>`. `Given` is what the caller passes for one.
///
/// A number without a limit. Its unit is "" for a bare number, such as a count.
template <detail::Literal name, detail::Literal unit>
struct Number {
  using Given = double;
  static constexpr FactSpec spec{name.text, unit.text, Limit::none};
};
/// A number that passes when it is at or above its limit.
template <detail::Literal name, detail::Literal unit>
struct AtLeast {
  using Given = Held;
  static constexpr FactSpec spec{name.text, unit.text, Limit::at_least};
};
/// A number that passes when it is at or below its limit.
template <detail::Literal name, detail::Literal unit>
struct AtMost {
  using Given = Held;
  static constexpr FactSpec spec{name.text, unit.text, Limit::at_most};
};
/// Like `Number`, in the unit of the part that decides.
template <detail::Literal name>
struct OwnNumber {
  using Given = Amount;
  static constexpr FactSpec spec{name.text, nullptr, Limit::none};
};
/// Like `AtLeast`, in the unit of the part that decides.
template <detail::Literal name>
struct OwnAtLeast {
  using Given = HeldAmount;
  static constexpr FactSpec spec{name.text, nullptr, Limit::at_least};
};
/// Like `AtMost`, in the unit of the part that decides.
template <detail::Literal name>
struct OwnAtMost {
  using Given = HeldAmount;
  static constexpr FactSpec spec{name.text, nullptr, Limit::at_most};
};

}  // namespace ubbo
