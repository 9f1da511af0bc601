#pragma once

#include <cstdio>

#include "ubbo/testing/alone.hpp"

/// What a part does in moments that were chosen, as text that people read: what was done to it, what was
/// decided, what its cells and readings are some time after.
namespace ubbo::test {

inline std::string few_digits(double value) {
  char text[32];
  std::snprintf(text, sizeof text, "%.5g", std::fabs(value) < 1e-9 ? 0.0 : value);
  return text;
}

inline std::string read_out(const Part& part) {
  std::string text;
  for (const ReadingInfo& reading : part.kind().readings) {
    const ReadingValue value = reading.now(part);
    text += text.empty() ? "" : ", ";
    text += std::string(reading.name) + " ";
    if (const auto* number = std::get_if<double>(&value)) text += few_digits(*number);
    if (const auto* flag = std::get_if<bool>(&value)) text += *flag ? "yes" : "no";
    if (const auto* words = std::get_if<std::string>(&value)) text += "'" + *words + "'";
  }
  return text;
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
    action(alone);
    text_ += std::string("## ") + kind_->name + ": " + what + "\n";
    const std::string under_way = read_out(*alone.part);
    alone.stage.advance(alone.stage.now() + ms(30'000));
    for (const Decision& decision : alone.stage.journal().decisions()) {
      text_ += "  " + few_digits(to_ms(decision.time)) + " ms " + std::string(decision.part.view()) + ": " +
               decision.answer->name;
      for (const Fact& fact : decision.all_facts())
        text_ += std::string(", ") + fact.name + " " + few_digits(fact.value) + (fact.limited ? " of " : "") +
                 (fact.limited ? few_digits(fact.limit) : "");
      text_ += "\n";
    }
    const std::string after = read_out(*alone.part);
    if (under_way != after) text_ += "  first: " + under_way + "\n";
    text_ += "  then: " + after + "\n  cells: " + alone.cells.text() + "\n";
  }
  [[nodiscard]] const std::string& text() const { return text_; }

 private:
  const PartKind* kind_;
  std::string text_;
};

/// Down at `from`, so many moves by `step`, and the end; the first after 100 ms.
inline void pull(Alone& alone, Point from, Point step, int moves, double wait, Phase end) {
  Micros now = ms(100);
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
