// What <charconv> of an older standard library for WebAssembly has for whole numbers only, for doubles too:
// exact, by whole numbers as long as it takes, and far smaller than strtod and printf. Included before
// everything there (library.cmake).
#pragma once

#include <charconv>
#include <cmath>
#include <cstdint>
#include <cstring>
#include <system_error>
#include <version>

namespace ubbo::decimal {

/// A whole number of up to 5,120 bits: the longest here are 10^1100 and 770 digits shifted to beside it.
struct Whole {
  std::uint32_t words[160]{};
  int size = 0;

  void times_plus(std::uint32_t by, std::uint32_t more) {
    std::uint64_t carry = more;
    for (int i = 0; i < size; ++i) {
      carry += static_cast<std::uint64_t>(words[i]) * by;
      words[i] = static_cast<std::uint32_t>(carry);
      carry >>= 32U;
    }
    if (carry != 0) words[size++] = static_cast<std::uint32_t>(carry);
  }
  void times_ten_to(int power) {
    for (; power >= 9; power -= 9) times_plus(1'000'000'000, 0);
    for (; power > 0; --power) times_plus(10, 0);
  }
  void shift_left(int bits) {
    const int whole = bits / 32;
    if (size > 0 && whole > 0) {
      std::memmove(words + whole, words, sizeof *words * static_cast<std::size_t>(size));
      std::memset(words, 0, sizeof *words * static_cast<std::size_t>(whole));
      size += whole;
    }
    times_plus(1U << static_cast<unsigned>(bits % 32), 0);
  }
  void halve() {
    for (int i = 0; i < size; ++i) words[i] = (words[i] >> 1U) | (i + 1 < size ? words[i + 1] << 31U : 0U);
    if (size > 0 && words[size - 1] == 0) --size;
  }
  void minus(const Whole& other) {  // no larger than this
    std::int64_t borrow = 0;
    for (int i = 0; i < size; ++i) {
      borrow += static_cast<std::int64_t>(words[i]) - (i < other.size ? other.words[i] : 0U);
      words[i] = static_cast<std::uint32_t>(borrow);
      borrow >>= 32;
    }
    while (size > 0 && words[size - 1] == 0) --size;
  }
  [[nodiscard]] int bits() const {
    int top = 32;
    while (size > 0 && top > 0 && (words[size - 1] >> static_cast<unsigned>(top - 1)) == 0) --top;
    return size == 0 ? 0 : 32 * (size - 1) + top;
  }
  [[nodiscard]] int against(const Whole& other) const {  // below 0: less; above: more
    if (size != other.size) return size - other.size;
    for (int i = size - 1; i >= 0; --i)
      if (words[i] != other.words[i]) return words[i] < other.words[i] ? -1 : 1;
    return 0;
  }
};

inline Whole whole(std::uint64_t value) {
  Whole made;
  for (; value != 0; value >>= 32U) made.words[made.size++] = static_cast<std::uint32_t>(value);
  return made;
}

/// over / under, below 2^60, rounded to the nearest whole number; of two as near to the even one.
inline std::uint64_t rounded_ratio(Whole over, Whole under) {
  constexpr int bits = 60;
  std::uint64_t ratio = 0;
  under.shift_left(bits);
  for (int i = 0; i <= bits; ++i) {
    ratio <<= 1U;
    if (over.against(under) >= 0) {
      over.minus(under);
      ++ratio;
    }
    if (i < bits) under.halve();
  }
  over.shift_left(1);
  const int half = over.against(under);
  return ratio + (half > 0 || (half == 0 && ratio % 2 == 1) ? 1U : 0U);
}

/// The double nearest to number · 10^power; infinite when it is beyond all.
inline double nearest_double(const Whole& number, int power) {
  constexpr double exact_powers[]{1e0,  1e1,  1e2,  1e3,  1e4,  1e5,  1e6,  1e7,  1e8,  1e9,  1e10, 1e11,
                                  1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19, 1e20, 1e21, 1e22};
  if (number.bits() <= 53 && power >= -22 && power <= 22) {
    const double exact = number.words[1] * 4294967296.0 + number.words[0];
    return power < 0 ? exact / exact_powers[-power] : exact * exact_powers[power];
  }
  Whole over = number;
  Whole under = whole(1);
  if (power > 0)
    over.times_ten_to(power);
  else
    under.times_ten_to(-power);
  // As many bits as a double has, or fewer near its smallest.
  int exponent = over.bits() - under.bits() - 53;
  for (;; ++exponent) {
    if (exponent < -1074) exponent = -1074;
    Whole up = over;
    Whole down = under;
    if (exponent > 0)
      down.shift_left(exponent);
    else
      up.shift_left(-exponent);
    const std::uint64_t ratio = rounded_ratio(up, down);
    if (ratio < (std::uint64_t{1} << 53U)) return std::ldexp(static_cast<double>(ratio), exponent);
  }
}

inline bool is_digit(char c) { return c >= '0' && c <= '9'; }

inline std::from_chars_result read(const char* first, const char* last, double& value) {
  const char* at = first;
  const bool negative = at != last && *at == '-';
  if (negative) ++at;
  for (const char* name : {"infinity", "inf", "nan"}) {
    const auto length = static_cast<std::ptrdiff_t>(std::strlen(name));
    bool same = last - at >= length;
    for (std::ptrdiff_t i = 0; same && i < length; ++i) same = (at[i] | 0x20) == name[i];
    if (!same) continue;
    const double read = *name == 'n' ? NAN : HUGE_VAL;
    value = negative ? -read : read;
    return {at + length, std::errc{}};
  }
  constexpr int most_digits = 770;  // a further digit only tells whether there is more
  Whole number;
  int digits = 0;
  int power = 0;
  bool any = false;
  bool more = false;
  for (bool point = false; at != last && (is_digit(*at) || (*at == '.' && !point)); ++at) {
    if (*at == '.') {
      point = true;
      continue;
    }
    any = true;
    const auto digit = static_cast<std::uint32_t>(*at - '0');
    if (digits < most_digits) {
      number.times_plus(10, digit);
      if (number.size > 0) ++digits;
      if (point) --power;
    } else {
      more = more || digit != 0;
      if (!point) ++power;
    }
  }
  if (!any) return {first, std::errc::invalid_argument};
  if (more) {
    number.times_plus(10, 1);
    --power;
    ++digits;
  }
  if (at != last && (*at | 0x20) == 'e') {
    const char* exponent = at + 1;
    const bool down = exponent != last && *exponent == '-';
    if (exponent != last && (*exponent == '-' || *exponent == '+')) ++exponent;
    int said = 0;
    if (exponent != last && is_digit(*exponent)) {
      for (; exponent != last && is_digit(*exponent); ++exponent)
        if (said < 100'000) said = 10 * said + (*exponent - '0');
      power += down ? -said : said;
      at = exponent;
    }
  }
  const int magnitude = digits + power;  // below 10^that
  double read = 0.0;
  if (number.size > 0 && magnitude > 310) read = HUGE_VAL;
  if (number.size > 0 && magnitude <= 310 && magnitude >= -330) read = nearest_double(number, power);
  if (read == HUGE_VAL || (read == 0.0 && number.size > 0)) return {at, std::errc::result_out_of_range};
  value = negative ? -read : read;
  return {at, std::errc{}};
}

/// What is written, and how much of it there is.
struct Written {
  char text[64]{};
  std::size_t size = 0;

  void add(char c) { text[size++] = c; }
  void add_exponent(char letter, int value, int least_digits) {
    add(letter);
    add(value < 0 ? '-' : '+');
    if (value < 0) value = -value;
    for (int unit = 1000; unit > 0; unit /= 10)
      if (value >= unit || (unit == 10 && least_digits == 2) || unit == 1)
        add(static_cast<char>('0' + value / unit % 10));
  }
};

inline std::uint64_t bits_in(double value) {
  std::uint64_t bits = 0;
  std::memcpy(&bits, &value, sizeof bits);
  return bits;
}

inline bool add_sign_or_name(Written& made, double& value) {
  if (value != value) {
    for (const char c : {'n', 'a', 'n'}) made.add(c);
    return true;
  }
  if (bits_in(value) >> 63U != 0) {
    made.add('-');
    value = -value;
  }
  if (value - value == 0.0) return false;
  for (const char c : {'i', 'n', 'f'}) made.add(c);
  return true;
}

/// As printf's %.*g.
inline Written general(double value, int digits) {
  Written made;
  if (add_sign_or_name(made, value)) return made;
  if (value == 0.0) {
    made.add('0');
    return made;
  }
  int exponent = 0;
  const double fraction = std::frexp(value, &exponent);
  exponent -= 53;
  Whole over = whole(static_cast<std::uint64_t>(std::ldexp(fraction, 53)));
  Whole under = whole(1);
  if (exponent > 0)
    over.shift_left(exponent);
  else
    under.shift_left(-exponent);
  std::uint64_t limit = 1;
  for (int i = 0; i < digits; ++i) limit *= 10;
  // Its decimal exponent, which may at first be one too few.
  int power = static_cast<int>(std::floor((over.bits() - under.bits() - 1) * 0.30102999566398));
  std::uint64_t number = 0;
  for (;; ++power) {
    Whole up = over;
    Whole down = under;
    const int scale = power - (digits - 1);
    if (scale > 0)
      down.times_ten_to(scale);
    else
      up.times_ten_to(-scale);
    number = rounded_ratio(up, down);
    if (number < limit) break;
  }
  if (number < limit / 10) number *= 10, --power;  // not reached: the estimate is never too large
  char text[20]{};
  for (int i = digits - 1; i >= 0; --i, number /= 10) text[i] = static_cast<char>('0' + number % 10);
  int used = digits;
  while (used > 1 && text[used - 1] == '0') --used;
  const bool scientific = power < -4 || power >= digits;
  const int before = scientific ? 1 : power + 1;  // digits before the point
  if (before <= 0) {
    made.add('0');
    made.add('.');
    for (int i = before; i < 0; ++i) made.add('0');
  }
  for (int i = 0; i < used || i < before; ++i) {
    if (i > 0 && i == before) made.add('.');
    made.add(i < digits ? text[i] : '0');
  }
  if (scientific) made.add_exponent('e', power, 2);
  return made;
}

/// As the standard's hexadecimal form: a 1 before the point, or a 0 for the smallest numbers.
inline Written hexadecimal(double value) {
  Written made;
  if (add_sign_or_name(made, value)) return made;
  constexpr std::uint64_t below_point = (std::uint64_t{1} << 52U) - 1;
  const std::uint64_t bits = bits_in(value);
  const auto power = static_cast<int>(bits >> 52U);
  made.add(power == 0 ? '0' : '1');
  std::uint64_t rest = bits & below_point;
  if (rest != 0) made.add('.');
  for (; rest != 0; rest = (rest << 4U) & below_point) made.add("0123456789abcdef"[rest >> 48U]);
  made.add_exponent('p', value == 0.0 ? 0 : power == 0 ? -1022 : power - 1023, 1);
  return made;
}

/// The fewest digits, from 15 on, that read back.
inline Written shortest(double value) {
  for (int digits = 15; digits < 17; ++digits) {
    const Written made = general(value, digits);
    double back = 0.0;
    if (read(made.text, made.text + made.size, back).ec == std::errc{} && back == value) return made;
  }
  return general(value, 17);
}

inline std::to_chars_result put(char* first, char* last, const Written& made) {
  if (made.size > static_cast<std::size_t>(last - first)) return {last, std::errc::value_too_large};
  std::memcpy(first, made.text, made.size);
  return {first + made.size, std::errc{}};
}

}  // namespace ubbo::decimal

#if !defined(__cpp_lib_to_chars)

namespace std {

inline from_chars_result from_chars(const char* first, const char* last, double& value) {
  return ubbo::decimal::read(first, last, value);
}
inline to_chars_result to_chars(char* first, char* last, double value, chars_format, int digits) {
  return ubbo::decimal::put(first, last, ubbo::decimal::general(value, digits));
}
inline to_chars_result to_chars(char* first, char* last, double value) {
  return ubbo::decimal::put(first, last, ubbo::decimal::shortest(value));
}
inline to_chars_result to_chars(char* first, char* last, double value, chars_format format) {
  return ubbo::decimal::put(
      first, last,
      format == chars_format::hex ? ubbo::decimal::hexadecimal(value) : ubbo::decimal::shortest(value));
}
inline to_chars_result to_chars(char* first, char* last, float value) {
  return to_chars(first, last, static_cast<double>(value));
}

}  // namespace std

#endif
