#include <fmt/format.h>

#include <algorithm>
#include <string_view>

#include "ubbo/io/replay/report.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::io {

std::vector<WhyLine> why_lines(const Replay& replay, std::string_view part) {
  std::vector<WhyLine> lines;
  std::size_t widest = 6;
  for (const Decision& decision : replay.decisions()) {
    if (!part.empty() && decision.part != part) continue;
    const std::string_view who = decision.part.empty() ? "stage" : decision.part.view();
    widest = std::max(widest, who.size());
    lines.push_back({fmt::format("{:3}. {:>9.1f} ms  ", lines.size() + 1, to_ms(decision.time)),
                     std::string(who), words::sentence(decision) + "."});
  }
  for (WhyLine& line : lines) line.who = fmt::format("{:<{}}  ", line.who, widest);
  return lines;
}

std::string why_text(const Replay& replay, std::string_view part) {
  std::string text;
  for (const WhyLine& line : why_lines(replay, part)) text += line.when + line.who + line.sentence + "\n";
  return text.empty() ? "no decisions\n" : text;
}

}  // namespace ubbo::io
