// The decimal numbers of platforms whose library has none, against the standard library's own.
#include <array>
#include <bit>
#include <charconv>
#include <cstdio>
#include <limits>
#include <random>
#include <string>

#include "../../cmake/charconv_for_double.hpp"
#include "ubbo/testing/check.hpp"

namespace {

std::string text_of(const ubbo::decimal::Written& made) { return {made.text, made.size}; }

void same_reading(const std::string& text) {
  CAPTURE(text);
  double ours = 7.0;
  double theirs = 7.0;
  const auto by_us = ubbo::decimal::read(text.data(), text.data() + text.size(), ours);
  const auto by_them = std::from_chars(text.data(), text.data() + text.size(), theirs);
  CHECK(by_us.ec == by_them.ec);
  if (by_them.ec != std::errc::invalid_argument) CHECK(by_us.ptr - text.data() == by_them.ptr - text.data());
  CHECK(std::bit_cast<std::uint64_t>(ours) == std::bit_cast<std::uint64_t>(theirs));
}

void same_writing(double value) {
  std::array<char, 64> room{};
  for (int digits = 1; digits <= 17; ++digits) {
    const int size = std::snprintf(room.data(), room.size(), "%.*g", digits, value);
    CHECK(text_of(ubbo::decimal::general(value, digits)) ==
          std::string(room.data(), static_cast<std::size_t>(size)));
  }
  double back = 0.0;
  const std::string shortest = text_of(ubbo::decimal::shortest(value));
  std::from_chars(shortest.data(), shortest.data() + shortest.size(), back);
  CHECK((back == value || value != value));
  const auto hex = std::to_chars(room.data(), room.data() + room.size(), value, std::chars_format::hex);
  CHECK(text_of(ubbo::decimal::hexadecimal(value)) == std::string(room.data(), hex.ptr));
}

}  // namespace

TEST_CASE("the decimal numbers of platforms without any are exact, written and read") {
  std::mt19937_64 random(2026);
  for (int i = 0; i < 3000; ++i) {
    const auto any = std::bit_cast<double>(random());
    const double usual = std::round((static_cast<double>(random() % 2'000'000) - 1e6) * 100.0) / 1e4;
    for (const double value : {any, usual}) {
      if (value != value) continue;
      same_writing(value);
      std::array<char, 64> room{};
      const int size =
          std::snprintf(room.data(), room.size(), "%.*g", static_cast<int>(random() % 20), value);
      same_reading(std::string(room.data(), static_cast<std::size_t>(size)));
    }
  }
  using Limits = std::numeric_limits<double>;
  for (const double value :
       {0.0, -0.0, Limits::min(), Limits::max(), Limits::denorm_min(), Limits::infinity(),
        -Limits::infinity(), 0.1, 9.5, 0.5, 1.5, 2.5, 1e22, 1e23, 999999.5, 0.00001})
    same_writing(value);
  // A number half-way between two doubles, and a digit far behind that says which way.
  const std::string half = "9007199254740993";
  for (const char* text : {"",
                           "-",
                           ".",
                           "e5",
                           "-.5",
                           "5.",
                           "1e",
                           "1e+",
                           "1e5x",
                           "1.5.5",
                           "0x10",
                           "+1",
                           " 1",
                           "1e400",
                           "-1e400",
                           "1e-400",
                           "4.9e-324",
                           "2.4e-324",
                           "2.5e-324",
                           "1.7976931348623157e308",
                           "1.7976931348623159e308",
                           "inf",
                           "-inf",
                           "INFINITY",
                           "nan",
                           "0e999999999999",
                           "1e-99999999999",
                           "00000000000000000000001.50",
                           "0.000000e3"})
    same_reading(text);
  same_reading(half);
  same_reading(half + "." + std::string(900, '0'));
  same_reading(half + "." + std::string(900, '0') + "1");
  same_reading("0." + std::string(400, '0') + "1" + std::string(400, '7') + "e401");
}
