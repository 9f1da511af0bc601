#pragma once

#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>
#include <map>

#include "check.hpp"

/// What was looked at once and found right: a line of digests for each thing, in an `approved.txt` beside the
/// tests. Whatever else tests say, a change of what parts do, show or tell is seen by it. One that is meant
/// is taken with `UBBO_APPROVE=1`, after a look at what it reaches: pictures, films, what `why` says.
namespace ubbo::test {

inline std::string rounded(double value) {
  char text[32];
  std::snprintf(text, sizeof text, "%.7g ", std::fabs(value) < 1e-9 ? 0.0 : value);
  return text;
}
inline std::string text_of(const Box& box) {
  return rounded(box.x) + rounded(box.y) + rounded(box.w) + rounded(box.h);
}
inline std::string text_of(const Guise& guise) {
  std::string text;
  for (std::size_t i = 0; i < trait_count; ++i) text += rounded(trait(guise, static_cast<Trait>(i)));
  return text;
}

/// All that an app, a skin or a screen reader can learn of a part.
inline std::string text_of(const Part& part) {
  std::string text = part.id() + " " + text_of(part.box()) + text_of(part.guise()) + rounded(part.opacity());
  for (const bool is : {part.visible(), part.in_sight(), part.enabled(), part.settled(), part.catches(),
                        part.modal(), part.shut(), part.away()})
    text += is ? "1" : "0";
  if (const Part* outer = part.outer())
    text += text_of(outer->guise_of(part)) + std::to_string(static_cast<int>(outer->presence_of(part)));
  for (const ReadingInfo& reading : part.kind().readings) {
    const ReadingValue value = reading.now(part);
    text += reading.name + std::string(reading.unit) + (reading.usual ? "!" : "");
    if (const auto* number = std::get_if<double>(&value)) text += rounded(*number);
    if (const auto* flag = std::get_if<bool>(&value)) text += *flag ? "yes " : "no ";
    if (const auto* words = std::get_if<std::string>(&value)) text += *words + " ";
  }
  part.kind().pieces(part, [&](const Piece& piece) {
    text += std::string(name_of(piece.role)) + piece.name + std::string(piece.words) + text_of(piece.box) +
            rounded(piece.turn) + rounded(piece.opacity) + rounded(piece.share);
    for (const bool is : {piece.on, piece.held, piece.notice, piece.bare}) text += is ? "1" : "0";
  });
  const Accessible told = part.accessible();
  text += std::string(told.label) + told.value_text + std::string(told.keys);
  for (const auto& number : {told.value_now, told.value_min, told.value_max})
    text += rounded(number.value_or(-1.0));
  for (const char* action : told.actions) text += action;
  if (part.kind().place_of != nullptr)
    for (const double value : {-1.0, 0.0, 0.5, 1.0, 2.25, 4.0, 9.0})
      if (const auto at = part.kind().place_of(part, value)) text += rounded(at->x) + rounded(at->y);
  if (part.kind().stands != nullptr)
    part.kind().stands(part, [&](const Stand& stand) { text += stand.name + text_of(stand.box); });
  const Box box = part.box();
  for (const double share : {-0.1, 0.02, 0.5, 0.9}) {
    const Sample sample{.at = {box.x + share * box.w, box.y + share * box.h}};
    const Wish wish = part.wish(sample);
    for (const bool is : {part.takes(sample.at), wish.handle, wish.horizontal, wish.vertical})
      text += is ? "1" : "0";
  }
  for (const Side side : {Side::left, Side::up, Side::right, Side::down})
    text += part.can_go(side) ? "1" : "0";
  return text + "\n";
}

/// The same of all parts of a stage, and what was decided since `said` decisions.
inline std::string text_of(const Stage& stage, std::size_t& said) {
  std::string text = std::to_string(stage.settled()) + (stage.focused() ? stage.focused()->id() : "") +
                     std::to_string(stage.due().count()) + "\n";
  for (const Part* part : stage.parts()) text += text_of(*part);
  const auto& decisions = stage.journal().decisions();
  for (; said < decisions.size(); ++said) {
    const Decision& one = decisions[said];
    text += std::to_string(one.time.count()) + std::string(one.part.view()) + one.answer->words;
    for (const Fact& fact : one.all_facts())
      text += fact.name + rounded(fact.value) + rounded(fact.margin) + fact.unit;
  }
  return text;
}

/// A line of digests that comes to be as a test goes along.
class Approved {
 public:
  void add(const std::string& text) {
    std::uint32_t hash = 2166136261U;  // FNV-1a
    for (const char c : text) hash = (hash ^ static_cast<unsigned char>(c)) * 16777619U;
    char digest[8];
    std::snprintf(digest, sizeof digest, " %04x", (hash ^ (hash >> 16U)) & 0xffffU);
    line_ += digest;
    texts_.push_back(text);
  }
  /// Holds it against the line of this name in tests/FOLDER/approved.txt.
  void check(const std::string& folder, const std::string& name) const {
    const std::filesystem::path file =
        std::filesystem::path(UBBO_SOURCE_DIR "/tests") / folder / "approved.txt";
    std::map<std::string, std::string> lines;
    std::ifstream in(file);
    for (std::string line; std::getline(in, line);)
      if (const std::size_t at = line.find(':'); at != std::string::npos)
        lines[line.substr(0, at)] = line.substr(at + 1);
    std::string& line = lines[name];
    if (std::getenv("UBBO_APPROVE") != nullptr && line != line_) {
      line = line_;
      std::ofstream out(file);
      for (const auto& [of, digests] : lines) out << of << ":" << digests << "\n";
    }
    CHECK(!line_.empty());
    if (line == line_) return;
    const auto first =
        std::mismatch(line_.begin(), line_.end(), line.begin(), line.end()).first - line_.begin();
    const auto step = std::min(static_cast<std::size_t>(first / 5), texts_.size() - 1);
    FAIL_CHECK(name << " is no longer as approved, from step " << step << " of " << texts_.size() << " on:\n"
                    << texts_[step].substr(0, 1500));
  }

 private:
  std::string line_;
  std::vector<std::string> texts_;
};

/// What a generator makes from this number, whatever the run's own seed is.
template <class F>
auto made_from(unsigned seed, F&& make) {
  return rc::gen::exec(std::forward<F>(make))(rc::Random(seed), 60).value();
}

}  // namespace ubbo::test
