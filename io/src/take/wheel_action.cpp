#include "ubbo/io/take/wheel_action.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "ubbo/io/text/number.hpp"
#include "ubbo/touch/contacts.hpp"

namespace ubbo::io {

namespace {

class Words {
 public:
  explicit Words(std::string_view text) : left_(text) {}
  std::string_view next() {
    const std::size_t from = std::min(left_.find_first_not_of(' '), left_.size());
    const std::size_t end = std::min(left_.find(' ', from), left_.size());
    const std::string_view word = left_.substr(from, end - from);
    left_ = left_.substr(end);
    return word;
  }
  std::optional<double> number(double min, double max) {
    const auto value = number_of(next());
    return value && *value >= min && *value <= max ? value : std::nullopt;
  }

 private:
  std::string_view left_;
};

template <class E, class Names>
std::optional<E> chosen(std::string_view word, const Names& names) {
  const auto found = std::find(names.begin(), names.end(), word);
  if (found == names.end()) return std::nullopt;
  return static_cast<E>(found - names.begin());
}

}  // namespace

Action wheel_action(const WheelTurn& turn) {
  std::string value = fmt::format("{} {} {}", turn.by.x, turn.by.y, name_of(turn.unit));
  if (turn.phase != WheelPhase::none) value += fmt::format(" {}", name_of(turn.phase));
  if (turn.zooms) value += " zoom";
  if (turn.scale != 1.0) value += fmt::format(" scale {}", turn.scale);
  return {.time = turn.time,
          .kind = Action::Kind::wheel,
          .target = fmt::format("{} {}", turn.at.x, turn.at.y),
          .value = std::move(value)};
}

std::optional<WheelTurn> wheel_turn(const Action& action) {
  constexpr double far = Contacts::farthest;
  WheelTurn turn{.time = action.time};
  Words place(action.target);
  Words way(action.value);
  const auto x = place.number(-far, far);
  const auto y = place.number(-far, far);
  const auto right = way.number(-far, far);
  const auto down = way.number(-far, far);
  const auto unit = chosen<WheelUnit>(way.next(), wheel_unit_names);
  if (!x || !y || !place.next().empty() || !right || !down || !unit) return std::nullopt;
  turn.at = {*x, *y};
  turn.by = {*right, *down};
  turn.unit = *unit;
  std::string_view word = way.next();
  if (const auto phase = chosen<WheelPhase>(word, wheel_phase_names)) {
    turn.phase = *phase;
    word = way.next();
  }
  if (word == "zoom") {
    turn.zooms = true;
    word = way.next();
  }
  if (word == "scale") {
    const auto scale = way.number(0.01, 100.0);
    if (!scale) return std::nullopt;
    turn.scale = *scale;
    word = way.next();
  }
  return word.empty() ? std::optional(turn) : std::nullopt;
}

}  // namespace ubbo::io
