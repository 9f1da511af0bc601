#include "ubbo/io/text/input_error.hpp"

#include <algorithm>
#include <map>
#include <vector>

namespace ubbo::io {

namespace {

std::string message(const InputError::Facts& facts) {
  std::string text = facts.file;
  if (facts.line != 0) text += ":" + std::to_string(facts.line) + ":" + std::to_string(facts.column);
  text += ": " + facts.found;
  if (!facts.takes.empty()) text += "; takes " + facts.takes;
  if (!facts.nearest.empty()) text += "; nearest known: " + facts.nearest;
  return text;
}

std::string message(std::vector<InputError::Facts>& all) {
  // A map keeps the order of those at the same place, in far less code than a stable sort.
  std::multimap<std::pair<std::size_t, std::size_t>, InputError::Facts> by_place;
  for (InputError::Facts& one : all) by_place.emplace(std::pair(one.line, one.column), std::move(one));
  all.clear();
  for (auto& [place, one] : by_place) all.push_back(std::move(one));
  constexpr std::size_t max_told = 20;
  std::string text;
  for (std::size_t i = 0; i < std::min(all.size(), max_told); ++i)
    text += (i == 0 ? "" : "\n") + message(all[i]);
  if (all.size() > max_told) text += "\nand " + std::to_string(all.size() - max_told) + " more";
  return text;
}

// Optimal string alignment distance.
std::size_t edits(std::string_view a, std::string_view b) {
  std::vector<std::size_t> two_up(b.size() + 1);
  std::vector<std::size_t> up(b.size() + 1);
  std::vector<std::size_t> row(b.size() + 1);
  for (std::size_t j = 0; j <= b.size(); ++j) up[j] = j;
  for (std::size_t i = 1; i <= a.size(); ++i) {
    row[0] = i;
    for (std::size_t j = 1; j <= b.size(); ++j) {
      row[j] = std::min({up[j] + 1, row[j - 1] + 1, up[j - 1] + (a[i - 1] == b[j - 1] ? 0U : 1U)});
      if (i > 1 && j > 1 && a[i - 1] == b[j - 2] && a[i - 2] == b[j - 1])
        row[j] = std::min(row[j], two_up[j - 2] + 1);
    }
    two_up.swap(up);
    up.swap(row);
  }
  return up[b.size()];
}

}  // namespace

InputError::InputError(std::vector<Facts> all) : std::runtime_error(message(all)), all_(std::move(all)) {}

std::string nearest_name(std::string_view word, std::span<const std::string_view> known) {
  constexpr std::size_t longest = 64;
  if (word.size() > longest) return {};
  if (const std::string_view now = new_name(word, known); !now.empty()) return std::string(now);
  std::size_t best = word.size() / 2 + 1;
  std::string_view found;
  for (std::string_view name : known) {
    const std::size_t distance = edits(word, name);
    if (distance >= best) continue;
    best = distance;
    found = name;
  }
  return std::string(found);
}

}  // namespace ubbo::io
