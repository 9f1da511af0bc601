#include "ubbo/io/text/json.hpp"

#include <algorithm>
#include <nlohmann/json.hpp>
#include <numeric>
#include <stdexcept>

#include "ubbo/io/text/harmless.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

[[noreturn]] void refuse(std::string_view text, std::size_t at, const std::string& file,
                         std::size_t first_line, std::string found, std::string takes) {
  const std::string_view before = text.substr(0, at);
  const auto lines = static_cast<std::size_t>(std::count(before.begin(), before.end(), '\n'));
  const std::size_t line_begin = lines == 0 ? 0 : before.rfind('\n') + 1;
  throw InputError({.file = file,
                    .line = first_line + lines,
                    .column = at - line_begin + 1,
                    .found = std::move(found),
                    .takes = std::move(takes)});
}

// Where it is nested too deep, or npos: whoever walks through what was read does so by recursion.
std::size_t too_deep(std::string_view text) {
  int depth = 0;
  bool inside = false;  // of a string
  for (std::size_t i = 0; i < text.size(); ++i) {
    const char c = text[i];
    if (inside && c == '\\')
      ++i;
    else if (c == '"')
      inside = !inside;
    else if (!inside && (c == '[' || c == '{') && ++depth > deepest_json)
      return i;
    else if (!inside && (c == ']' || c == '}'))
      --depth;
  }
  return std::string_view::npos;
}

using Library = nlohmann::json;

// What the library reads becomes values of ours, without a tree of its own between.
class Builder : public nlohmann::json_sax<Library> {
 public:
  bool null() override { return add(nullptr); }
  bool boolean(bool value) override { return add(value); }
  bool number_integer(number_integer_t value) override { return add(value); }
  bool number_unsigned(number_unsigned_t value) override { return add(value); }
  bool number_float(number_float_t value, const string_t& /*as written*/) override { return add(value); }
  bool string(string_t& value) override { return add(std::move(value)); }
  bool binary(binary_t& /*never in text*/) override { return false; }
  bool start_object(std::size_t /*elements*/) override { return open(Json::object()); }
  bool key(string_t& value) override {
    open_.back().key = std::move(value);
    return true;
  }
  bool end_object() override { return close(); }
  bool start_array(std::size_t /*elements*/) override { return open(Json::array()); }
  bool end_array() override { return close(); }
  bool parse_error(std::size_t /*position*/, const std::string& /*token*/,
                   const nlohmann::detail::exception& error) override {
    const auto* wrong = error.id / 100 == 1 ? static_cast<const Library::parse_error*>(&error) : nullptr;
    wrong_at_ = wrong == nullptr ? 0 : wrong->byte;
    return false;
  }

  [[nodiscard]] Json take() { return std::move(made_); }
  [[nodiscard]] std::size_t wrong_at() const { return wrong_at_; }  // from 1; 0: not known

 private:
  struct Open {
    Json value;
    std::string key{};
  };

  bool add(Json value) {
    if (open_.empty())
      made_ = std::move(value);
    else if (open_.back().value.is_array())
      open_.back().value.push_back(std::move(value));
    else
      open_.back().value.append(std::move(open_.back().key), std::move(value));
    return true;
  }
  bool open(Json value) {
    open_.push_back({std::move(value)});
    return true;
  }
  bool close() {
    Json done = std::move(open_.back().value);
    open_.pop_back();
    return add(done.is_object() ? once_each(std::move(done)) : std::move(done));
  }

  // Of a key given twice the last value, at the place of the first.
  static Json once_each(Json object) {
    const Json::Object& all = object.items();
    std::vector<std::size_t> order(all.size());
    std::iota(order.begin(), order.end(), std::size_t{0});
    std::stable_sort(order.begin(), order.end(),
                     [&](std::size_t a, std::size_t b) { return all[a].first < all[b].first; });
    const auto same = [&](std::size_t a, std::size_t b) { return all[a].first == all[b].first; };
    if (std::adjacent_find(order.begin(), order.end(), same) == order.end()) return object;
    std::vector<std::size_t> last(all.size(), all.size());  // where the value of the first of a key is
    for (std::size_t i = 0, first = 0; i < order.size(); ++i) {
      if (i == 0 || !same(order[i - 1], order[i])) first = order[i];
      last[first] = order[i];
    }
    Json made = Json::object();
    for (std::size_t i = 0; i < all.size(); ++i)
      if (last[i] < all.size()) made.append(all[i].first, all[last[i]].second);
    return made;
  }

  Json made_;
  std::vector<Open> open_;
  std::size_t wrong_at_ = 0;
};

std::string leaf_text(const Library& leaf) {
  return leaf.dump(-1, ' ', false, Library::error_handler_t::replace);
}

}  // namespace

Json::Json(std::initializer_list<Item> items) {
  const bool pairs = std::all_of(items.begin(), items.end(), [](const Item& item) {
    const Json& one = item.value_;
    return one.is_array() && one.size() == 2 && one[0].is_string();
  });
  if (!pairs) {
    *this = array(items);
    return;
  }
  *this = object();
  for (const Item& item : items) {
    Array& pair = std::get<Array>(item.value_.value_);
    append(std::move(std::get<std::string>(pair[0].value_)), std::move(pair[1]));
  }
}

Json Json::array(std::initializer_list<Item> items) {
  Array all;
  all.reserve(items.size());
  for (const Item& item : items) all.push_back(std::move(item.value_));
  return Json(Value(std::move(all)));
}

double Json::number() const {
  if (const auto* whole = std::get_if<std::int64_t>(&value_)) return static_cast<double>(*whole);
  if (const auto* whole = std::get_if<std::uint64_t>(&value_)) return static_cast<double>(*whole);
  return std::get<double>(value_);
}

std::size_t Json::size() const {
  if (const auto* all = std::get_if<Array>(&value_)) return all->size();
  if (const auto* all = std::get_if<Object>(&value_)) return all->size();
  return 0;
}

const Json* Json::begin() const { return is_array() ? std::get<Array>(value_).data() : nullptr; }
const Json* Json::end() const { return is_array() ? begin() + size() : nullptr; }

const Json* Json::find(std::string_view key) const {
  const auto* all = std::get_if<Object>(&value_);
  if (all == nullptr) return nullptr;
  const auto found =
      std::find_if(all->begin(), all->end(), [&](const auto& one) { return one.first == key; });
  return found == all->end() ? nullptr : &found->second;
}

const Json& Json::at(std::string_view key) const {
  static const Json null;
  const Json* found = find(key);
  return found == nullptr ? null : *found;
}

Json& Json::operator[](std::string_view key) {
  if (const Json* found = find(key)) return const_cast<Json&>(*found);  // NOLINT: of an object of ours
  append(std::string(key), nullptr);
  return std::get<Object>(value_).back().second;
}

void Json::push_back(Json value) {
  if (is_null()) *this = array();
  std::get<Array>(value_).push_back(std::move(value));
}

void Json::append(std::string key, Json value) {
  if (is_null()) *this = object();
  std::get<Object>(value_).emplace_back(std::move(key), std::move(value));
}

void Json::update(const Json& other) {
  for (const auto& [key, value] : other.items()) (*this)[key] = value;
}

Json read_json(std::string_view text, const std::string& file, std::size_t line) {
  if (const std::size_t at = too_deep(text); at != std::string_view::npos)
    refuse(text, at, file, line, "the " + std::to_string(deepest_json + 1) + "th level",
           "JSON nested at most " + std::to_string(deepest_json) + " levels deep");
  const auto refuse_at = [&](std::size_t byte) {  // from 1
    const std::size_t at = byte == 0 ? 0 : std::min(byte - 1, text.size());
    refuse(text, at, file, line, at >= text.size() ? "the end" : "'" + harmless(text.substr(at, 1)) + "'",
           "JSON");
  };
  Builder builder;
  if (!Library::sax_parse(text, &builder)) refuse_at(builder.wrong_at());
  return builder.take();
}

namespace {

void add_line(std::string& text, int level, int depth) {
  if (level < 0) return;
  text += '\n';
  text.append(static_cast<std::size_t>(level * depth), ' ');
}

}  // namespace

// The library writes numbers and texts; between them there are only brackets and commas.
struct JsonWriter {
  int level;
  std::string text{};

  void add(const Json& json, int depth) {
    std::visit([&](const auto& value) { add_value(value, depth); }, json.value_);
  }

 private:
  void add_value(std::monostate /*null*/, int /*depth*/) { text += "null"; }
  template <class T>
  void add_value(const T& leaf, int /*depth*/) {
    text += leaf_text(Library(leaf));
  }
  void add_value(const Json::Array& all, int depth) {
    add_all('[', all, ']', depth, [&](const Json& one) { add(one, depth + 1); });
  }
  void add_value(const Json::Object& all, int depth) {
    add_all('{', all, '}', depth, [&](const auto& one) {
      text += leaf_text(Library(one.first));
      text += level < 0 ? ":" : ": ";
      add(one.second, depth + 1);
    });
  }
  template <class All, class Add>
  void add_all(char open, const All& all, char close, int depth, const Add& add_one) {
    text += open;
    for (std::size_t i = 0; i < all.size(); ++i) {
      if (i > 0) text += ',';
      add_line(text, level, depth + 1);
      add_one(all[i]);
    }
    if (!all.empty()) add_line(text, level, depth);
    text += close;
  }
};

std::string json_text(const Json& json, int level) {
  JsonWriter writer{level};
  writer.add(json, 0);
  return std::move(writer.text) + (level < 0 ? "" : "\n");
}

}  // namespace ubbo::io
