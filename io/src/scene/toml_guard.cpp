#include "toml_guard.hpp"

#include <fmt/format.h>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

namespace {

class Guard {
 public:
  Guard(std::string_view text, const std::string& file) : text_(text), file_(file) {}

  void check() {
    if (text_.size() > largest_scene)
      refuse(fmt::format("{} bytes", text_.size()), "a scene of at most 1 MiB");
    while (at_ < text_.size()) look();
  }

 private:
  [[noreturn]] void refuse(std::string_view found, std::string_view takes) const {
    throw InputError({.file = file_,
                      .line = line_,
                      .column = at_ - line_begin_ + 1,
                      .found = std::string(found),
                      .takes = std::string(takes),
                      .fault = InputFault::syntax});
  }
  [[nodiscard]] bool here(std::string_view words) const { return text_.substr(at_).starts_with(words); }

  void step() {
    const auto c = static_cast<unsigned char>(text_[at_]);
    if ((c < 0x20 && c != '\t' && c != '\n' && c != '\r') || c == 0x7F)
      refuse(fmt::format("the control character {:#04x}", c), "TOML, where text holds it as \\u001b");
    ++at_;
    if (c != '\n') return;
    ++line_;
    line_begin_ = at_;
  }

  void skip_string() {
    const char quote = text_[at_];
    const std::string_view three = quote == '"' ? "\"\"\"" : "'''";
    const bool lines = here(three);
    const std::string_view end = lines ? three : three.substr(0, 1);
    for (std::size_t i = 0; i < end.size(); ++i) step();
    while (at_ < text_.size() && !here(end) && (lines || text_[at_] != '\n')) {
      if (quote == '"' && text_[at_] == '\\') step();
      if (at_ < text_.size()) step();
    }
    for (std::size_t i = 0; i < end.size() && at_ < text_.size(); ++i) step();
  }

  void look() {
    const char c = text_[at_];
    if (c == '"' || c == '\'') return skip_string();
    if (c == '#') {
      while (at_ < text_.size() && text_[at_] != '\n') step();
      return;
    }
    if (c == '.' && ++parts_ >= deepest_scene)
      refuse(fmt::format("a key of more than {} parts", deepest_scene), "fewer");
    if (c == '\n' || c == '=' || c == ',' || c == '[' || c == '{') parts_ = 0;
    if ((c == '[' || c == '{') && ++depth_ > deepest_scene)
      refuse(fmt::format("the {}th bracket in another", deepest_scene + 1), "fewer");
    if ((c == ']' || c == '}') && depth_ > 0) --depth_;
    const bool begins_line =
        text_.substr(line_begin_, at_ - line_begin_).find_first_not_of(" \t[") == std::string_view::npos;
    step();
    if (c != '[' || !begins_line) return;
    while (at_ < text_.size() && (text_[at_] == ' ' || text_[at_] == '\t')) step();
    if (depth_ <= 2 && at_ < text_.size() && text_[at_] == '#') refuse("'#'", "the name of a table");
  }

  std::string_view text_;
  const std::string& file_;
  std::size_t at_ = 0;
  std::size_t line_ = 1;
  std::size_t line_begin_ = 0;
  int depth_ = 0;
  int parts_ = 0;
};

}  // namespace

void guard_toml(std::string_view text, const std::string& file) { Guard(text, file).check(); }

}  // namespace ubbo::io
