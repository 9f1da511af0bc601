// What <charconv> of an older standard library for WebAssembly has for whole numbers only, for doubles too.
// Included before everything there (library.cmake); such a platform has no locales, so strtod and snprintf
// always use a point.
#pragma once

#include <charconv>
#include <version>

#if !defined(__cpp_lib_to_chars)

#include <cstdio>
#include <cstdlib>
#include <cstring>
#include <string>
#include <system_error>

namespace std {

inline from_chars_result from_chars(const char* first, const char* last, double& value) {
  // What strtod takes besides: blanks and a plus before the number, and hexadecimal numbers.
  const char* digits = first != last && *first == '-' ? first + 1 : first;
  const bool starts =
      digits != last && ((*digits >= '0' && *digits <= '9') || *digits == '.' || *digits == 'i' ||
                         *digits == 'I' || *digits == 'n' || *digits == 'N');
  if (!starts) return {first, errc::invalid_argument};
  const bool hexadecimal = last - digits > 1 && digits[0] == '0' && (digits[1] == 'x' || digits[1] == 'X');
  const string text(first, hexadecimal ? digits + 1 : last);
  char* end = nullptr;
  const double read = strtod(text.c_str(), &end);
  if (end == text.c_str()) return {first, errc::invalid_argument};
  const char* stop = first + (end - text.c_str());
  const bool finite = read - read == 0.0;
  if (!finite && *digits != 'i' && *digits != 'I' && *digits != 'n' && *digits != 'N')
    return {stop, errc::result_out_of_range};
  value = read;
  return {stop, errc{}};
}

inline to_chars_result to_chars(char* first, char* last, double value, chars_format, int digits) {
  char text[64];
  const auto length = static_cast<size_t>(snprintf(text, sizeof text, "%.*g", digits, value));
  if (length > static_cast<size_t>(last - first)) return {last, errc::value_too_large};
  memcpy(first, text, length);
  return {first + length, errc{}};
}

inline to_chars_result to_chars(char* first, char* last, double value) {  // the fewest digits that read back
  for (int digits = 15; digits < 17; ++digits) {
    const to_chars_result made = to_chars(first, last, value, chars_format::general, digits);
    double back = 0.0;
    if (made.ec == errc{} && from_chars(first, made.ptr, back).ec == errc{} && back == value) return made;
  }
  return to_chars(first, last, value, chars_format::general, 17);
}

inline to_chars_result to_chars(char* first, char* last, double value, chars_format format) {
  if (format != chars_format::hex) return to_chars(first, last, value);
  char text[64];
  const auto length = static_cast<size_t>(snprintf(text, sizeof text, "%a", value));
  const size_t sign = text[0] == '-' ? 1 : 0;  // hexadecimal numbers stand there without their 0x
  if (length - 2 > static_cast<size_t>(last - first)) return {last, errc::value_too_large};
  memcpy(first, text, sign);
  memcpy(first + sign, text + sign + 2, length - sign - 2);
  return {first + length - 2, errc{}};
}

inline to_chars_result to_chars(char* first, char* last, float value) {
  return to_chars(first, last, static_cast<double>(value));
}

}  // namespace std

#endif
