#include "ubbo/io/hand/hand_script.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>
#include <vector>

#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"

namespace ubbo::io {

namespace {

struct Word {
  std::string_view text;
  std::size_t line = 1;
  std::size_t column = 1;
};

bool is_separator(std::string_view text) { return text == "," || text == ";" || text == "then"; }

// Words, with `,` `;` `{` `}` `(` `)` and line ends (as `;`) as words of their own.
std::vector<Word> words_of(std::string_view script) {
  std::vector<Word> words;
  std::size_t line = 1;
  std::size_t line_start = 0;
  for (std::size_t i = 0; i < script.size();) {
    const char c = script[i];
    const std::size_t column = i - line_start + 1;
    if (c == '\n') {
      words.push_back({";", line, column});
      ++line;
      line_start = ++i;
    } else if (c == ' ' || c == '\t' || c == '\r') {
      ++i;
    } else if (std::string_view(",;{}()").find(c) != std::string_view::npos) {
      words.push_back({script.substr(i++, 1), line, column});
    } else if (c == '"' && script.find('"', i + 1) < script.find('\n', i)) {
      const std::size_t end = script.find('"', i + 1);
      words.push_back({script.substr(i + 1, end - i - 1), line, column});
      i = end + 1;
    } else {
      const std::size_t end = std::min(script.find_first_of(" \t\r\n,;{}()", i), script.size());
      const std::string_view text = script.substr(i, end - i);
      if (text != "the" && text != "a") words.push_back({text, line, column});
      i = end;
    }
  }
  words.push_back({"", line, script.size() - line_start + 1});
  return words;
}

constexpr std::array actions{
    std::string_view{"press"},   std::string_view{"move"},   std::string_view{"drag"},
    std::string_view{"flick"},   std::string_view{"wait"},   std::string_view{"hold"},
    std::string_view{"lift"},    std::string_view{"cancel"}, std::string_view{"tap"},
    std::string_view{"double"},  std::string_view{"triple"}, std::string_view{"pinch"},
    std::string_view{"rotate"},  std::string_view{"finger"}, std::string_view{"repeat"},
    std::string_view{"set"},     std::string_view{"put"},    std::string_view{"key"},
    std::string_view{"back"},    std::string_view{"turn"},   std::string_view{"focus"},
    std::string_view{"show"},    std::string_view{"hide"},   std::string_view{"enable"},
    std::string_view{"disable"}, std::string_view{"remove"}, std::string_view{"call"},
    std::string_view{"open"},    std::string_view{"close"},  std::string_view{"hover"},
    std::string_view{"leave"},   std::string_view{"wheel"}};
constexpr std::array directions{std::string_view{"left"}, std::string_view{"up"}, std::string_view{"right"},
                                std::string_view{"down"}};

class Performer {
 public:
  Performer(Hand& hand, std::string_view script, const PlaceFinder& find)
      : hand_(&hand), find_(&find), words_(words_of(script)) {}

  void run() {
    steps(0);
    if (!peek().empty()) refuse("a step");
    if (done_ == 0) refuse(fmt::format("at least one step, beginning with {}", fmt::join(actions, ", ")));
  }

 private:
  [[nodiscard]] std::string_view peek() const { return words_[at_].text; }
  std::string_view take() { return words_[at_ + 1 < words_.size() ? at_++ : at_].text; }
  bool accept(std::string_view text) {
    if (peek() != text) return false;
    take();
    return true;
  }

  [[noreturn]] void refuse(std::string_view takes, std::string_view nearest = {}) const {
    refuse(at_, takes, nearest);
  }
  [[noreturn]] void refuse(std::size_t word, std::string_view takes, std::string_view nearest = {}) const {
    const Word& w = words_[word];
    throw InputError({"hand script", w.line, w.column,
                      w.text.empty() ? "the end" : fmt::format("'{}'", w.text), std::string(takes),
                      std::string(nearest)});
  }

  // A number with a unit that may stand apart ("90 dp", "90dp") or be left out.
  double quantity(const std::string& what, std::string_view unit, double min, double max) {
    const std::size_t first = at_;
    const std::string_view text = take();
    const auto [value, used] = number_at(text);
    const std::string_view rest = text.substr(used);
    if (used == 0 || !(value >= min && value <= max))
      refuse(first, fmt::format("{}: a number from {} to {} {}", what, min, max, unit));
    if (!rest.empty() && rest != unit) refuse(first, fmt::format("{} in {}", what, unit));
    if (rest.empty()) accept(unit);
    return value;
  }

  Micros time() {
    // Seconds are taken too: "1.5 s", "2s".
    const std::string_view text = peek();
    const bool seconds = (text.ends_with('s') && !text.ends_with("ms") && text.size() > 1) ||
                         (at_ + 1 < words_.size() && words_[at_ + 1].text == "s");
    return seconds ? from_seconds(quantity("a time", "s", 0.0, 600.0))
                   : from_ms(quantity("a time", "ms", 0.0, 600'000.0));
  }

  Point direction() {
    const std::size_t first = at_;
    const std::string_view text = take();
    constexpr std::array ways{Point{-1, 0}, Point{0, -1}, Point{1, 0}, Point{0, 1}};
    for (std::size_t i = 0; i < directions.size(); ++i)
      if (text == directions[i]) return ways[i];
    refuse(first, fmt::format("{}", fmt::join(directions, ", ")), nearest_name(text, directions));
  }

  Point place() {
    const std::size_t first = at_;
    if (accept("(")) {
      const double x = quantity("x", "dp", -1e6, 1e6);
      if (!accept(",")) refuse("a comma between x and y");
      const double y = quantity("y", "dp", -1e6, 1e6);
      if (!accept(")")) refuse("a closing bracket");
      return {x, y};
    }
    const std::string_view text = take();
    const std::size_t dot = text.find('.');
    const std::string_view part = text.substr(0, dot);
    const std::string_view point = dot == std::string_view::npos ? std::string_view{} : text.substr(dot + 1);
    if (!text.empty() && *find_)
      if (const auto found = (*find_)(part, point)) return *found;
    refuse(first, *find_ ? "a place: (x, y) in dp, a part's id, PART.PIECE such as frames.thumb, PART.left, "
                           "right, top, bottom, "
                           "or PART.VALUE, such as frames.9"
                         : "a place: (x, y) in dp; parts have places when a scene is given");
  }

  // "over 200 ms" or "at 400 dp/s"; a drag without either goes at a walking pace of 400 dp/s.
  Micros timing(double way) {
    constexpr double pace = 400.0;
    if (accept("over")) return time();
    const double speed = accept("at") ? quantity("a speed", "dp/s", 1.0, 100'000.0) : pace;
    return from_seconds(way / speed);
  }

  void action() {
    if (++done_ > max_actions) refuse(fmt::format("at most {} actions, repeats counted", max_actions));
  }

  void must_be_down(std::size_t word, bool wanted) {
    if (hand_->down() == wanted) return;
    refuse(word, wanted ? "a finger that is down: press first" : "a finger that is up: lift first");
  }

  void steps(int depth) {
    while (true) {
      while (is_separator(peek())) take();
      if (peek().empty() || peek() == "}") return;
      step(depth);
      if (!peek().empty() && peek() != "}" && !is_separator(peek()))
        refuse("a comma, a semicolon, 'then' or 'while'");
    }
  }

  void step(int depth) {
    const Micros begin = hand_->now();
    action(depth);
    Micros end = hand_->now();
    // What stands behind "while" begins when the step began.
    while (accept("while")) {
      hand_->rewind(begin);
      action(depth);
      end = std::max(end, hand_->now());
    }
    hand_->rewind(end);
  }

  void action(int depth) {
    const std::size_t first = at_;
    const std::string_view verb = take();
    action();
    if (verb == "finger") {
      hand_->finger(static_cast<int>(quantity("which finger", "", 1, 10)));
      action(depth);
    } else if (verb == "press") {
      must_be_down(first, false);
      hand_->press(place());
    } else if (verb == "move") {
      must_be_down(first, true);
      if (!accept("to")) refuse("'to' and a place");
      const Point to = place();
      hand_->move_to(to, timing(length(to - hand_->at())));
    } else if (verb == "drag") {
      must_be_down(first, true);
      const Point by = way();
      hand_->drag(by, timing(length(by)));
    } else if (verb == "flick") {
      const Point by = way();
      if (accept("from")) {
        must_be_down(first, false);
        hand_->press(place());
      }
      must_be_down(first, true);
      hand_->flick(by, accept("at") ? quantity("a speed", "dp/s", 1.0, 100'000.0) : 900.0);
    } else if (verb == "wait" || verb == "hold") {
      hand_->wait(time());
    } else if (verb == "lift" || verb == "cancel") {
      must_be_down(first, true);
      verb == "lift" ? hand_->lift() : hand_->cancel();
    } else if (verb == "tap") {
      tap(first, 1);
    } else if (verb == "double" || verb == "triple") {
      if (!accept("tap")) refuse("'tap'");
      tap(first, verb == "double" ? 2 : 3);
    } else if (verb == "pinch") {
      must_be_down(first, false);
      const bool out = accept("out");
      if (!out && !accept("in")) refuse("'in' or 'out'");
      const double by = quantity("how far", "dp", 0.0, 10'000.0);
      const Point centre = at_place();
      const double min = 60.0;
      hand_->pinch(centre, out ? min : min + by, out ? min + by : min, 0.0, timing(by));
    } else if (verb == "rotate") {
      must_be_down(first, false);
      const double angle = quantity("an angle", "degrees", -720.0, 720.0) * std::numbers::pi / 180.0;
      const Point centre = at_place();
      const double spread = 140.0;
      hand_->pinch(centre, spread, spread, angle, timing(std::fabs(angle) * spread / 2.0));
    } else if (verb == "hover") {
      if (!accept("to")) refuse("'to' and a place");
      const Point to = place();
      hand_->hover_to(to, timing(length(to - hand_->hovering().value_or(to))));
    } else if (verb == "leave") {
      if (!hand_->hovering()) refuse(first, "a mouse that is over the screen: hover to a place first");
      hand_->leave();
    } else if (verb == "wheel") {
      wheel(first);
    } else if (verb == "repeat") {
      repeat(depth);
    } else if (!app_action(verb)) {
      refuse(first, fmt::format("{}", fmt::join(actions, ", ")), nearest_name(verb, actions));
    }
  }

  // A name or a value; in quotes where it holds blanks.
  std::string name(const char* takes) {
    if (peek().empty() || is_separator(peek()) || peek() == "}") refuse(takes);
    return std::string(take());
  }

  // What the app or the phone does. False: it is no such word.
  bool app_action(std::string_view verb) {
    if (verb == "open" || verb == "close") {
      const std::string action(verb);
      hand_->action({.kind = Action::Kind::call, .target = name("a part"), .value = action});
      return true;
    }
    const auto names = action_names();
    const auto found = std::find(names.begin(), names.end(), verb);
    if (found == names.end()) return false;
    Action action{.kind = static_cast<Action::Kind>(found - names.begin())};
    switch (action.kind) {
      case Action::Kind::back:
        break;
      case Action::Kind::turn:
        accept("to");
        action.value = name("WIDTHxHEIGHT in dp, such as 720x360");
        break;
      case Action::Kind::set:
      case Action::Kind::put:
      case Action::Kind::call:
        action.target = name(action.kind == Action::Kind::call ? "a part" : "a cell");
        accept("to");
        action.value =
            name(action.kind == Action::Kind::call ? "what it is asked to do, such as open" : "a value");
        break;
      default:
        action.target = name(action.kind == Action::Kind::key ? "a key, such as right" : "a part");
    }
    hand_->action(std::move(action));
    return true;
  }

  // "wheel down 3", "wheel up 40 dp over 200 ms at list", "wheel zoom in 2", "wheel pinch 1.5 over 300 ms".
  void wheel(std::size_t first) {
    constexpr std::array units{std::string_view{"dp"}, std::string_view{"lines"}, std::string_view{"pages"},
                               std::string_view{"notches"}};
    WheelTurn turn{.unit = WheelUnit::notch};
    double amount = 1.0;
    const auto how_far = [&] {
      amount = quantity("how far", "", 0.0, 100'000.0);
      const auto unit = std::find(units.begin(), units.end(), peek());
      if (unit == units.end()) return;
      turn.unit = static_cast<WheelUnit>(unit - units.begin());
      take();
    };
    if (accept("zoom")) {
      const bool out = accept("out");
      if (!out && !accept("in")) refuse("'in' or 'out'");
      turn.zooms = true;
      how_far();
      turn.by = {0.0, out ? amount : -amount};
    } else if (accept("pinch")) {
      turn.unit = WheelUnit::dp;
      turn.scale = quantity("a factor", "", 0.01, 100.0);
    } else {
      const Point towards = direction();
      how_far();
      turn.by = towards * amount;
    }
    Micros over{0};
    bool placed = false;
    while (true) {
      if (accept("over"))
        over = time();
      else if (!placed && peek() == "at") {
        turn.at = at_place();
        placed = true;
      } else {
        break;
      }
    }
    if (!placed) {
      if (!hand_->hovering())
        refuse(first, "'at' and a place, or a mouse that is over the screen: hover to a place first");
      turn.at = *hand_->hovering();
    }
    hand_->wheel(turn, over);
  }

  Point at_place() {
    if (!accept("at")) refuse("'at' and a place");
    return place();
  }

  Point way() {
    const Point towards = direction();
    return towards * quantity("how far", "dp", 0.0, 100'000.0);
  }

  void tap(std::size_t first, int times) {
    must_be_down(first, false);
    const Point at = place();
    if (times == 1 && !peek().empty() && std::isdigit(static_cast<unsigned char>(peek().front())) != 0) {
      times = static_cast<int>(quantity("how many", "times", 1, 1000));
      done_ += times;
    }
    hand_->tap(at, times);
  }

  void repeat(int depth) {
    constexpr int deepest = 8;
    if (depth >= deepest) refuse(fmt::format("repeats within each other {} deep at most", deepest));
    const int times = static_cast<int>(quantity("how many", "times", 1, max_actions));
    if (!accept("{")) refuse("'{', steps, '}'");
    const std::size_t body = at_;
    for (int i = 0; i < times; ++i) {
      at_ = body;
      const int before = done_;
      steps(depth + 1);
      if (done_ == before) action();  // a round that does nothing counts, or it could go on for ever
    }
    if (!accept("}")) refuse("'}'");
  }

  Hand* hand_;
  const PlaceFinder* find_;
  std::vector<Word> words_;
  std::size_t at_ = 0;
  int done_ = 0;
};

// The middle of the piece that is called so, or has this role.
std::optional<Point> piece_of(const Part& part, std::string_view name) {
  std::optional<Point> found;
  pieces_of(part, [&](const Piece& piece) {
    const std::string_view called = *piece.name != '\0' ? piece.name : name_of(piece.role);
    if (!found && called == name && piece.role != Role::label) found = piece.box.centre();
  });
  return found;
}

// "thumb" alone, where only one part has such a piece.
std::optional<Point> only_piece(const Stage& stage, std::string_view name) {
  std::optional<Point> only;
  for (const Part* part : stage.parts()) {
    bool named = false;
    pieces_of(*part, [&](const Piece& piece) { named = named || piece.name == name; });
    if (!named) continue;
    if (only) return std::nullopt;
    only = piece_of(*part, name);
  }
  return only;
}

}  // namespace

PlaceFinder places_of(const SceneRun& run) {
  return [&run](std::string_view id, std::string_view point) -> std::optional<Point> {
    const Part* part = run.stage().find(id);
    if (part == nullptr) return point.empty() ? only_piece(run.stage(), id) : std::nullopt;
    const Box& box = part->box();
    // A little inside, so that a hand that scatters still lands on it.
    const double in_x = std::min(24.0, box.w / 4);
    const double in_y = std::min(24.0, box.h / 4);
    if (point.empty() || point == "centre") return box.centre();
    if (point == "left") return Point{box.x + in_x, box.centre().y};
    if (point == "right") return Point{box.right() - in_x, box.centre().y};
    if (point == "top") return Point{box.centre().x, box.y + in_y};
    if (point == "bottom") return Point{box.centre().x, box.bottom() - in_y};
    if (const auto piece = piece_of(*part, point)) return piece;
    const auto value = number_of(point);
    if (!value || part->kind().place_of == nullptr) return std::nullopt;
    return part->kind().place_of(*part, *value);
  };
}

void perform(Hand& hand, std::string_view script, const PlaceFinder& find) {
  Performer(hand, script, find).run();
}

}  // namespace ubbo::io
