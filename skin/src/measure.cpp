#include "ubbo/skin/measure.hpp"

#include <algorithm>

namespace ubbo::skin {

std::vector<std::string> wrapped(const std::string& words, double size, double room, const Measure& measure) {
  std::vector<std::string> lines{""};
  for (std::size_t at = 0; at < words.size();) {
    const std::size_t end = std::min(words.find(' ', at), words.size() - 1) + 1;
    const std::string piece = words.substr(at, end - at);
    if (!lines.back().empty() && measure({.at = {}, .words = lines.back() + piece, .size = size}) > room)
      lines.emplace_back();
    lines.back() += piece;
    at = end;
  }
  return lines;
}

}  // namespace ubbo::skin
