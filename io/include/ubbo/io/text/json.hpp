#pragma once

#include <cstddef>
#include <cstdint>
#include <initializer_list>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <variant>
#include <vector>

namespace ubbo::io {

/// A JSON value. Keys keep their order. Written in braces, pairs that each begin with a text are an object,
/// anything else is an array: `Json{{"at", 3}, {"of", {1, 2}}}`.
class Json {
  class Item;

 public:
  using Array = std::vector<Json>;
  using Object = std::vector<std::pair<std::string, Json>>;

  Json() = default;  ///< null
  Json(std::nullptr_t) {}
  template <class T>
  requires(std::is_arithmetic_v<T>) Json(T value) : value_(stored(value)) {}
  Json(std::string value) : value_(std::move(value)) {}
  Json(std::string_view value) : value_(std::string(value)) {}
  Json(const char* value) : value_(std::string(value)) {}
  template <class T>
  Json(const std::vector<T>& values) : Json(Value(Array(values.begin(), values.end()))) {}
  Json(Array values) : value_(std::move(values)) {}
  Json(std::initializer_list<Item> items);

  [[nodiscard]] static Json array() { return Json(Value(Array{})); }
  /// An array also where the items look like an object's.
  [[nodiscard]] static Json array(std::initializer_list<Item> items);
  [[nodiscard]] static Json object() { return Json(Value(Object{})); }

  [[nodiscard]] bool is_null() const { return holds<std::monostate>(); }
  [[nodiscard]] bool is_boolean() const { return holds<bool>(); }
  [[nodiscard]] bool is_number() const { return value_.index() >= 2 && value_.index() <= 4; }
  [[nodiscard]] bool is_string() const { return holds<std::string>(); }
  [[nodiscard]] bool is_array() const { return holds<Array>(); }
  [[nodiscard]] bool is_object() const { return holds<Object>(); }

  /// These throw std::bad_variant_access where the value is of another kind.
  [[nodiscard]] const std::string& text() const { return std::get<std::string>(value_); }
  [[nodiscard]] bool boolean() const { return std::get<bool>(value_); }
  [[nodiscard]] double number() const;
  [[nodiscard]] const Object& items() const { return std::get<Object>(value_); }

  /// How many an array or object holds; 0 of anything else.
  [[nodiscard]] std::size_t size() const;
  [[nodiscard]] bool empty() const { return size() == 0; }
  /// The values of an array; of anything else there are 0.
  [[nodiscard]] const Json* begin() const;
  [[nodiscard]] const Json* end() const;
  [[nodiscard]] const Json& operator[](std::size_t at) const { return std::get<Array>(value_).at(at); }
  [[nodiscard]] const Json& back() const { return std::get<Array>(value_).back(); }

  /// The value at `key` of an object; null where there is no such key, or this is no object. The time grows
  /// with the number of keys.
  [[nodiscard]] const Json* find(std::string_view key) const;
  [[nodiscard]] bool contains(std::string_view key) const { return find(key) != nullptr; }
  /// The value at `key`, or a null value where there is no such key.
  [[nodiscard]] const Json& at(std::string_view key) const;
  /// The value at `key`, added as null where there is no such key; null becomes an object.
  Json& operator[](std::string_view key);
  Json& operator[](const char* key) { return (*this)[std::string_view(key)]; }

  /// Adds to an array; null becomes one.
  void push_back(Json value);
  /// Adds to an object without looking whether `key` is there; null becomes an object.
  void append(std::string key, Json value);
  /// Takes over all of another object's keys.
  void update(const Json& other);

 private:
  using Value =
      std::variant<std::monostate, bool, std::int64_t, std::uint64_t, double, std::string, Array, Object>;

  explicit Json(Value value) : value_(std::move(value)) {}
  template <class T>
  [[nodiscard]] bool holds() const {
    return std::holds_alternative<T>(value_);
  }
  template <class T>
  static Value stored(T value) {
    if constexpr (std::is_same_v<T, bool>)
      return value;
    else if constexpr (std::is_floating_point_v<T>)
      return static_cast<double>(value);
    else if constexpr (std::is_signed_v<T>)
      return static_cast<std::int64_t>(value);
    else
      return static_cast<std::uint64_t>(value);
  }

  friend struct JsonWriter;

  Value value_{};
};

/// A value in braces, moved from there.
class Json::Item {
 public:
  template <class T>
  requires(std::is_constructible_v<Json, T>) Item(T&& value) : value_(std::forward<T>(value)) {}
  Item(std::initializer_list<Item> items) : value_(items) {}

 private:
  friend class Json;
  mutable Json value_;
};

/// How deep JSON may be nested.
inline constexpr int deepest_json = 64;

/// Reads `text`, the contents of `file` from `line` on. Of a key given twice the last value counts. Throws
/// `InputError` with line and column when it is no JSON, or nested deeper than `deepest_json`.
[[nodiscard]] Json read_json(std::string_view text, const std::string& file, std::size_t line = 1);

/// As text with two spaces a level and a new line at the end; in one line where `level` is below 0. Bytes
/// that are no UTF-8 become U+FFFD; a number that is not finite becomes null.
[[nodiscard]] std::string json_text(const Json& json, int level = 2);

}  // namespace ubbo::io
