#include "ubbo/io/hand/trial.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <array>
#include <cmath>
#include <functional>
#include <numbers>

#include "ubbo/io/take/take_info.hpp"

namespace ubbo::io {

namespace {

constexpr Box screen{0.0, 0.0, 360.0, 720.0};

// Even numbers from a seed of their own, so that what is meant does not hang on how the hand trembles.
class Chance {
 public:
  explicit Chance(std::uint64_t seed) : state_(seed * 6364136223846793005U + 1442695040888963407U) {}
  double in(double min, double max) {
    state_ = state_ * 6364136223846793005U + 1442695040888963407U;
    return min + (max - min) * static_cast<double>(state_ >> 11U) * 0x1p-53;
  }
  Point place() { return {in(70, 290), in(120, 600)}; }

 private:
  std::uint64_t state_;
};

using Meant = std::function<bool(const Gesture&)>;

struct Kind {
  const char* name;
  GestureKind kind;
  int count;
  Meant (*make)(Hand&, Chance&);
};

Meant any() {
  return [](const Gesture&) { return true; };
}

Meant towards(Side side) {
  return [side](const Gesture& g) { return g.side == side; };
}

constexpr std::array ways{Point{-1, 0}, Point{0, -1}, Point{1, 0}, Point{0, 1}};

Side any_side(Chance& chance) { return static_cast<Side>(static_cast<int>(chance.in(0, 3.999))); }

// Somewhere from which there is room to go, away from the edges.
Point start_for(Side side, Chance& chance) {
  const Point way = ways[static_cast<std::size_t>(side)];
  return Point{180, 360} - way * 100.0 + Point{chance.in(-30, 30), chance.in(-60, 60)};
}

const std::array kinds{
    Kind{"tap", GestureKind::tap, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           hand.tap(chance.place());
           return any();
         }},
    Kind{"double tap", GestureKind::tap, 2,
         [](Hand& hand, Chance& chance) -> Meant {
           hand.tap(chance.place(), 2);
           return any();
         }},
    Kind{"triple tap", GestureKind::tap, 3,
         [](Hand& hand, Chance& chance) -> Meant {
           hand.tap(chance.place(), 3);
           return any();
         }},
    Kind{"long press", GestureKind::long_press, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           hand.press(chance.place()).wait(from_ms(chance.in(800, 1500))).lift();
           return any();
         }},
    Kind{"drag", GestureKind::drag, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const Side side = any_side(chance);
           hand.press(start_for(side, chance)).wait(from_ms(chance.in(20, 120)));
           hand.drag(ways[static_cast<std::size_t>(side)] * chance.in(60, 180), from_ms(chance.in(250, 600)));
           hand.wait(from_ms(chance.in(70, 250))).lift();
           return towards(side);
         }},
    Kind{"hold and drag", GestureKind::hold_drag, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const Side side = any_side(chance);
           hand.press(start_for(side, chance)).wait(from_ms(chance.in(850, 1300)));
           hand.drag(ways[static_cast<std::size_t>(side)] * chance.in(60, 160), from_ms(chance.in(250, 600)));
           hand.wait(from_ms(chance.in(100, 250))).lift();
           return towards(side);
         }},
    Kind{"flick", GestureKind::flick, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const Side side = any_side(chance);
           hand.press(start_for(side, chance));
           hand.flick(ways[static_cast<std::size_t>(side)] * chance.in(70, 180), chance.in(450, 2500));
           return towards(side);
         }},
    Kind{"edge swipe", GestureKind::edge_swipe, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const bool left = chance.in(0, 1) < 0.5;
           const double depth = chance.in(1, 6);
           hand.press({left ? depth : screen.w - depth, chance.in(120, 600)});
           hand.drag({left ? chance.in(80, 200) : -chance.in(80, 200), chance.in(-15, 15)},
                     from_ms(chance.in(150, 400)));
           hand.lift();
           return towards(left ? Side::left : Side::right);
         }},
    Kind{"pan", GestureKind::pan, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const Side side = any_side(chance);
           const Point by = ways[static_cast<std::size_t>(side)] * chance.in(60, 140);
           const Point from{180, 360};
           const Point apart{chance.in(25, 45), chance.in(-10, 10)};
           const Micros over = from_ms(chance.in(300, 600));
           for (const int finger : {1, 2}) {
             hand.rewind(Micros{0}).finger(finger).press(finger == 1 ? from - apart : from + apart);
             hand.wait(from_ms(40)).drag(by, over).wait(from_ms(60)).lift();
           }
           return any();
         }},
    Kind{
        "pinch", GestureKind::pinch, 1,
        [](Hand& hand, Chance& chance) -> Meant {
          const double small = chance.in(60, 90);
          const double large = small + chance.in(70, 150);
          const bool out = chance.in(0, 1) < 0.5;
          hand.pinch({180, 360}, out ? small : large, out ? large : small, 0.0, from_ms(chance.in(300, 700)));
          return [out](const Gesture& g) { return (g.scale > 1.0) == out; };
        }},
    Kind{"rotate", GestureKind::rotate, 1,
         [](Hand& hand, Chance& chance) -> Meant {
           const double spread = chance.in(120, 200);
           const double sign = chance.in(0, 1) < 0.5 ? -1.0 : 1.0;
           hand.pinch({180, 360}, spread, spread, sign * chance.in(0.6, 1.6), from_ms(chance.in(300, 800)));
           return [sign](const Gesture& g) { return (g.angle > 0.0) == (sign > 0.0); };
         }},
};

std::size_t kind_of(const std::vector<Gesture>& found) {
  if (found.size() != 1) return kinds.size();
  for (std::size_t i = 0; i < kinds.size(); ++i)
    if (found[0].kind == kinds[i].kind && found[0].count == kinds[i].count) return i;
  return kinds.size();
}

}  // namespace

const std::vector<std::string>& trial_kinds() {
  static const std::vector<std::string> names = [] {
    std::vector<std::string> made;
    made.reserve(kinds.size());
    for (const Kind& kind : kinds) made.emplace_back(kind.name);
    return made;
  }();
  return names;
}

std::vector<TrialRow> run_trial(const HandModel& model, const Feel& feel, int count, std::uint64_t seed,
                                const std::function<void(double)>& told) {
  std::vector<TrialRow> rows;
  for (std::size_t k = 0; k < kinds.size(); ++k) {
    TrialRow row{.meant = kinds[k].name, .taken = std::vector<int>(kinds.size() + 1), .count = count};
    for (int i = 0; i < count; ++i) {
      if (told && i % 32 == 0)
        told((static_cast<double>(k) + static_cast<double>(i) / count) / static_cast<double>(kinds.size()));
      const std::uint64_t own = seed * 1'000'003U + k * 100'003U + static_cast<std::uint64_t>(i);
      Chance chance(own);
      Hand hand(model, own, i % 3 == 0 ? 60.0 : i % 3 == 1 ? 120.0 : 240.0);
      const Meant meant = kinds[k].make(hand, chance);
      const TakeInfo info = inspect(hand.take(), feel, screen);
      const std::size_t taken = kind_of(info.gestures);
      if (taken == k && meant(info.gestures[0])) {
        ++row.right;
        ++row.taken[k];
      } else {
        ++row.taken[taken == k ? kinds.size()
                               : taken];  // the right kind the wrong way round is something else
      }
    }
    rows.push_back(std::move(row));
  }
  return rows;
}

std::string trial_table(const std::vector<TrialRow>& rows, bool markdown) {
  const auto fraction = [](int part, int whole) {
    if (part == 0) return std::string(".");
    const double percent = 100.0 * part / std::max(whole, 1);
    return part == whole ? std::string("100") : fmt::format("{:.2f}", percent);
  };
  std::string text = markdown ? "| meant |" : fmt::format("{:<14}", "meant");
  for (const std::string& kind : trial_kinds())
    text += markdown ? fmt::format(" {} |", kind) : fmt::format("{:>8}", kind.substr(0, 7));
  text += markdown ? " else |\n|---|" : fmt::format("{:>8}\n", "else");
  if (markdown) {
    for (std::size_t i = 0; i <= trial_kinds().size(); ++i) text += "--:|";
    text += '\n';
  }
  for (const TrialRow& row : rows) {
    text += markdown ? fmt::format("| {} |", row.meant) : fmt::format("{:<14}", row.meant);
    for (const int taken : row.taken)
      text += markdown ? fmt::format(" {} |", fraction(taken, row.count))
                       : fmt::format("{:>8}", fraction(taken, row.count));
    text += '\n';
  }
  return text;
}

}  // namespace ubbo::io
