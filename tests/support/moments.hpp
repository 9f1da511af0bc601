#pragma once

#include <cstdio>
#include <sstream>

#include "ubbo/testing/alone.hpp"

/// What a part does in moments that were chosen, as text that people read: what was done to it, what was
/// decided, what its cells and readings are some time after.
namespace ubbo::test {

inline std::string few_digits(double value) {
  char text[32];
  std::snprintf(text, sizeof text, "%.5g", std::fabs(value) < 1e-9 ? 0.0 : value);
  return text;
}

/// "position 2.5", "state 'open'".
inline std::string read_one(const Part& part, const ReadingInfo& reading) {
  const ReadingValue value = reading.now(part);
  std::string text = std::string(reading.name) + " ";
  if (const auto* number = std::get_if<double>(&value)) text += few_digits(*number);
  if (const auto* flag = std::get_if<bool>(&value)) text += *flag ? "yes" : "no";
  if (const auto* words = std::get_if<std::string>(&value)) text += "'" + *words + "'";
  return text;
}

inline std::string read_out(const Part& part) {
  std::string text;
  for (const ReadingInfo& reading : part.kind().readings)
    text += (text.empty() ? "" : ", ") + read_one(part, reading);
  return text;
}

/// ", travel 9 of 8, after 8".
inline std::string facts_of(const Decision& decision) {
  std::string text;
  for (const Fact& fact : decision.all_facts())
    text += std::string(", ") + fact.name + " " + few_digits(fact.value) +
            (fact.limited ? " of " + few_digits(fact.limit) : "");
  return text;
}

/// "handle 150 210 24 x 24, held": a piece with what is not usual of it.
inline std::string piece_out(const Piece& piece) {
  const auto box = [](const Box& b) {
    return few_digits(b.x) + " " + few_digits(b.y) + " " + few_digits(b.w) + " x " + few_digits(b.h);
  };
  std::string text =
      std::string(piece.name[0] == 0 ? name_of(piece.role) : piece.name) + " " + box(piece.box);
  for (const auto& [name, value, usual] : {std::tuple{"turn", piece.turn, 0.0},
                                           {"opacity", piece.opacity, 1.0},
                                           {"fraction", piece.fraction, 1.0},
                                           {"hover", piece.hover, 0.0}})
    if (value != usual) text += std::string(", ") + name + " " + few_digits(value);
  for (const auto& [name, is] : {std::pair{"on", piece.on},
                                 {"held", piece.held},
                                 {"notice", piece.notice},
                                 {"bare", piece.bare},
                                 {"failed", piece.failed}})
    if (is) text += std::string(", ") + name;
  if (piece.rank != Rank::plain) text += std::string(", ") + name_of(piece.rank);
  if (piece.clip) text += ", within " + box(*piece.clip);
  for (const std::string_view words : {piece.words, piece.detail, piece.glyph, piece.image})
    if (!words.empty()) text += ", '" + std::string(words) + "'";
  if (piece.item >= 0) text += ", of item " + std::to_string(piece.item);
  if (piece.cursor != Cursor::automatic) text += std::string(", cursor ") + name_of(piece.cursor);
  return text;
}

/// What of a part is seen, piece by piece.
inline std::string pieces_out(const Part& part) {
  std::string text;
  pieces_of(part, [&text](const Piece& piece) { text += "    " + piece_out(piece) + "\n"; });
  return text;
}

/// What assistive technology is told of a part.
inline std::string said_of(const Part& part) {
  const Accessible told = part.accessible();
  std::string text = std::string(told.role) + " '" + std::string(told.label) + "'";
  for (const auto& [name, value] :
       {std::pair{"now", told.value_now}, {"from", told.value_min}, {"to", told.value_max}})
    if (value) text += std::string(", ") + name + " " + few_digits(*value);
  if (!told.value_text.view().empty()) text += ", '" + std::string(told.value_text.view()) + "'";
  for (const auto& [name, value] : {std::pair{"checked", told.checked},
                                    {"pressed", told.pressed},
                                    {"expanded", told.expanded},
                                    {"selected", told.selected}})
    if (value) text += std::string(*value ? ", " : ", not ") + name;
  if (told.modal) text += ", modal";
  if (told.live != Live::off) text += told.live == Live::polite ? ", polite" : ", assertive";
  return text + (told.orientation.empty() ? "" : ", " + std::string(told.orientation));
}

/// One part of a kind, and one moment after another.
class Moments {
 public:
  explicit Moments(const PartKind& kind) : kind_(&kind) {}

  /// From afresh: `action` gets the part at 100 ms.
  void then(const char* what, const std::function<void(Alone&)>& action) {
    Alone alone(*kind_, false);
    alone.stage.advance(ms(0));
    alone.stage.focus("part");
    alone.stage.journal().clear();
    std::string felt;
    alone.stage.on_moment([&felt](const Moment& moment) {
      felt +=
          std::string(felt.empty() ? "" : ", ") + name_of(moment.kind) + " " + few_digits(to_ms(moment.time));
    });
    action(alone);
    text_ += std::string("## ") + kind_->name + ": " + what + "\n";
    const std::string under_way = read_out(*alone.part), seen = pieces_out(*alone.part);
    alone.stage.advance(alone.stage.now() + ms(30'000));
    for (const Decision& decision : alone.stage.journal().decisions())
      text_ += "  " + few_digits(to_ms(decision.time)) + " ms " + std::string(decision.part.view()) + ": " +
               decision.answer->name + facts_of(decision) + "\n";
    const std::string after = read_out(*alone.part);
    if (!felt.empty()) text_ += "  felt: " + felt + "\n";
    if (under_way != after) text_ += "  first: " + under_way + "\n";
    text_ += "  then: " + after + "\n  cells: " + alone.cells.text() + "\n";
    text_ += "  told: " + said_of(*alone.part) + "\n";
    text_ += only_in(seen, pieces_out(*alone.part));
  }
  /// What is seen of it, with content, and what that makes of its size.
  void as_it_stands() {
    Alone alone(*kind_, false);
    AnySettings settings = kind_->settings_of(*alone.part);
    if (const std::size_t label = find_setting(*kind_, "label"); label < kind_->settings())
      (void)kind_->put(settings, label, SettingValue{std::string("Hive 3")});
    alone.stage.change_to(*alone.part, settings);
    const Content content{.detail = "strong", .glyph = "hive", .image = "comb-{item}", .rank = Rank::main};
    alone.part->set_content(content);
    alone.stage.advance(ms(0));
    text_ += std::string("## ") + kind_->name + ": as it stands\n" + pieces_out(*alone.part);
    if (kind_->content_size == nullptr) return;
    const Size size =
        kind_->content_size(settings, content, [](std::string_view words, double font, bool bold) {
          return static_cast<double>(words.size()) * font * (bold ? 0.6 : 0.5);
        });
    text_ += "  content: " + few_digits(size.w) + " x " + few_digits(size.h) + " dp\n";
  }
  [[nodiscard]] const std::string& text() const { return text_; }

 private:
  // Those of the pieces that were seen first and are not as they are now.
  static std::string only_in(const std::string& first, const std::string& now) {
    std::istringstream lines(first);
    std::string text;
    for (std::string line; std::getline(lines, line);)
      if (("\n" + now).find("\n" + line + "\n") == std::string::npos) text += "  " + line.substr(2) + "\n";
    return text.empty() ? "" : "  seen first:\n" + text;
  }

  const PartKind* kind_;
  std::string text_;
};

/// Down at `from`, so many moves by `step`, and the end; the first at `begins` ms.
inline void pull(Alone& alone, Point from, Point step, int moves, double wait, Phase end,
                 double begins = 100) {
  Micros now = ms(begins);
  const auto touch = [&](Phase phase, int at) {
    alone.stage.touch({.time = now, .contact = 1, .phase = phase, .at = from + step * at});
    now += ms(wait);
  };
  touch(Phase::down, 0);
  for (int i = 1; i <= moves; ++i) touch(Phase::move, i);
  touch(end, moves);
}

inline std::string moments_of(const PartKind& kind) {
  Moments moments(kind);
  const Point middle{180, 224};
  moments.as_it_stands();
  moments.then("a tap to the right of its middle", [&](Alone& it) {
    pull(it, {240, 224}, {}, 0, 60, Phase::up);
  });
  moments.then("a drag to the right, then rest", [&](Alone& it) {
    pull(it, middle, {9, 0}, 8, 8, Phase::move);
    it.stage.touch({.time = ms(400), .contact = 1, .phase = Phase::up, .at = {252, 224}});
  });
  moments.then("a flick to the left", [&](Alone& it) { pull(it, middle, {-12, 0}, 6, 8, Phase::up); });
  moments.then("a flick up", [&](Alone& it) { pull(it, middle, {0, -12}, 6, 8, Phase::up); });
  moments.then("a drag that is cancelled", [&](Alone& it) { pull(it, middle, {9, 0}, 8, 8, Phase::cancel); });
  moments.then("a write, and a key half-way", [&](Alone& it) {
    it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.4); });
    it.stage.press(Key::right, ms(180));
  });
  moments.then("a write under a press", [&](Alone& it) {
    it.stage.touch({.time = ms(100), .contact = 1, .phase = Phase::down, .at = middle});
    it.stage.at(ms(150), [&] { it.cells.write(0.3, 0.4); });
    it.stage.touch({.time = ms(200), .contact = 1, .phase = Phase::up, .at = middle});
  });
  moments.then("a press on it on its way", [&](Alone& it) {
    it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.7); });
    it.stage.touch({.time = ms(180), .contact = 1, .phase = Phase::down, .at = middle});
    it.stage.touch({.time = ms(240), .contact = 1, .phase = Phase::up, .at = middle});
  });
  for (const PartAction& action : kind.actions)
    moments.then((std::string("asked to ") + action.name).c_str(), [&](Alone& it) {
      it.stage.at(ms(100), [&] { it.cells.write(0.3, 0.4); });
      it.stage.act(*it.part, action.name, ms(900));
    });
  moments.then("a mouse over it, a notch of its wheel, and a click", [&](Alone& it) {
    it.part->set_content(
        {.image = "comb-{item}",
         .hover = HoverContent{.words = "Comb {item}", .overlay = 0.5, .scale = 1.2, .distance = 0.4}});
    const auto mouse = [&](Phase phase, double at) {
      it.stage.touch({.time = ms(at), .contact = 1, .phase = phase, .at = {250, 224}, .tool = Tool::mouse});
    };
    mouse(Phase::hover, 100);
    it.stage.wheel({.time = ms(200), .at = {250, 224}, .by = {0, 1}, .unit = WheelUnit::notch});
    mouse(Phase::down, 900);
    mouse(Phase::up, 960);
    mouse(Phase::hover, 970);
    it.stage.advance(ms(1090));
  });
  if (kind.stands != nullptr)
    moments.then("opened, caught, dragged back, and back pressed", [&](Alone& it) {
      it.stage.act(*it.part, "open", ms(0));
      pull(it, middle, {0, 6}, 6, 16, Phase::up);
      it.stage.back(ms(600));
    });
  moments.then("written without motion",
               [&](Alone& it) { it.stage.immediately([&] { it.cells.write(0.3, 0.6); }); });
  return moments.text();
}

}  // namespace ubbo::test
