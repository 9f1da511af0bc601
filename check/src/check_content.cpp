#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "look.hpp"
#include "ubbo/stage/seen_pieces.hpp"

namespace ubbo::check {

namespace {

// What stands in it, as it is before anybody touches it.
void texts(Look& look, const Looked& one) {
  bool cut = false;
  bool faint = false;
  seen_pieces(*one.part, [&](const Piece& piece) {
    if (piece.words.empty() || piece.box.w <= 0.0) return;
    const double size = std::min(0.7 * piece.box.h, 20.0);
    const double wide = *look.measure ? (*look.measure)(piece.words, size, true) : 0.0;
    if (!std::exchange(cut, cut || wide > piece.box.w) && wide > piece.box.w)
      look.say(text_cut, one, "label",
               fmt::format("'{}' is {} wide at {} high, and there is room for {}", piece.words,
                           dp(std::round(wide)), dp(std::round(size)), dp(std::round(piece.box.w))),
               "say it in fewer words, or make the part wider");
    // Ink on paper has 14 to 1; less solid than this it falls below 4.5.
    constexpr double faintest = 0.6;
    if (!std::exchange(faint, faint || piece.opacity < faintest) && piece.opacity > 0.0 &&
        piece.opacity < faintest && common(piece.box, one.part->box()) == piece.box)
      look.say(low_contrast, one, "label",
               fmt::format("'{}' is shown at {} of its strength", piece.words, plain_number(piece.opacity)),
               "show it at 0.6 at least, or not at all");
  });
}

// Whether people can take it back: a question before it, or a message with a button after it.
bool can_be_taken_back(const Look& look, const Looked& one) {
  for (const Part* outer = one.part->outer(); outer != nullptr; outer = outer->outer())
    if (outer->is_layer() && outer->modal()) return true;  // it answers a question
  const auto opens = one.plan->cells.find("opens");
  return std::any_of(look.parts.begin(), look.parts.end(), [&](const Looked& other) {
    if (!other.plan->kind->over_others) return false;
    const auto cell = other.plan->cells.find("open");
    if (opens != one.plan->cells.end() && cell != other.plan->cells.end() && cell->second == opens->second)
      return true;
    const auto button = value(other, "button");
    return button && std::holds_alternative<std::string>(*button) && !std::get<std::string>(*button).empty();
  });
}

void actions(Look& look, const Looked& one) {
  std::vector<std::string> seen;
  bool destroys = one.plan->content.rank == Rank::destructive && one.target;
  std::string name = one.plan->id;
  for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
    const std::string_view setting = one.plan->kind->setting(i).name;
    if (!setting.ends_with("_rank")) continue;
    const std::string side(setting.substr(0, setting.size() - std::string_view("_rank").size()));
    if (number(one, side).value_or(0.0) <= 0.0) continue;
    const auto text = [&](const char* of) { return std::get<std::string>(*value(one, side + of)); };
    if (number(one, setting) == static_cast<double>(Rank::destructive)) {
      destroys = true;
      name = fmt::format("{} of {}", side, one.plan->id);
    }
    const std::string what = text("_label") + "|" + text("_glyph");
    if (std::find(seen.begin(), seen.end(), what) != seen.end())
      look.say(alike_actions, one, "leading_label",
               fmt::format("two actions of {} are both called '{}'", one.plan->id, text("_label")),
               "give each a label or a glyph of its own");
    seen.push_back(what);
  }
  if (destroys && !can_be_taken_back(look, one))
    look.say(no_way_back, one, "rank",
             fmt::format("{} is destructive, and nothing asks before or undoes it after", name),
             "link opens to a dialog's cell, or add a toast tray with a button such as \"Undo\"");
}

// What stands over it under a mouse only, and is not said in it.
void captions(Look& look, const Looked& one) {
  const auto& hover = one.plan->content.hover;
  if (!hover || hover->words.empty()) return;
  std::string words = hover->words;
  if (const std::size_t item = words.find("{item}"); item != std::string::npos) words.erase(item);
  while (!words.empty() && words.back() == ' ') words.pop_back();
  bool said = one.plan->content.detail.find(words) != std::string::npos;
  pieces_of(*one.part,
            [&](const Piece& piece) { said = said || piece.words.find(words) != std::string_view::npos; });
  if (said) return;
  look.say(hover_only, one, "hover",
           fmt::format("'{}' comes over {} only under a mouse or pen", words, one.plan->id),
           "say it in its label, detail or titles too");
}

}  // namespace

void check_content(Look& look) {
  for (const Looked& one : look.parts) {
    texts(look, one);
    actions(look, one);
    captions(look, one);
  }
}

}  // namespace ubbo::check
