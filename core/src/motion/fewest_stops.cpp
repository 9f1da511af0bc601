#include "ubbo/motion/fewest_stops.hpp"

#include <algorithm>
#include <cmath>

#include "ubbo/base/settings.hpp"

// A line y = a·x + b stays within the gates [low, high] at the places x of a tube if and only if for each
// pair of places i < j
//
//     (low_j - high_i) / (x_j - x_i)  <=  a  <=  (high_j - low_i) / (x_j - x_i)
//
// (for a given a some b satisfies all gates if it satisfies them by pairs). The lines of a link reach up to
// the gate at which the largest lower bound passes the smallest upper bound. If the gate is missed for being
// too high, the line that comes nearest is that of the smallest upper bound, which rests on a low point p and
// is stopped by a high point q behind it; every line that goes on must cross this one behind q. So the next
// link is kept below the tube's top from q on, and above the tube's bottom and the crossed line from there
// on. The same turned upside down for a gate missed for being too low.

namespace ubbo {

namespace {

struct Gate {
  double x;
  double low;
  double high;
};

struct Line {
  double slope;
  double at_0;
  [[nodiscard]] double at(double x) const { return at_0 + slope * x; }
};

struct Corner {
  double x;
  double y;
};

// The lines that pass all gates so far.
class Fan {
 public:
  // Takes one more gate, or says that no line passes it: +1 when it lies too high, -1 when too low.
  int take(const Gate& gate) {
    double steepest = steepest_;
    double flattest = flattest_;
    Corner steep_to = steep_to_;
    Corner flat_to = flat_to_;
    for (const Corner& low : lows_) {
      if (low.x >= gate.x) continue;
      const double slope = (gate.high - low.y) / (gate.x - low.x);
      if (slope >= steepest) continue;
      steepest = slope;
      steep_to = {gate.x, gate.high};
    }
    for (const Corner& high : highs_) {
      if (high.x >= gate.x) continue;
      const double slope = (gate.low - high.y) / (gate.x - high.x);
      if (slope <= flattest) continue;
      flattest = slope;
      flat_to = {gate.x, gate.low};
    }
    if (flattest > steepest_ + 1e-12) return 1;
    if (steepest < flattest_ - 1e-12) return -1;
    steepest_ = steepest;
    flattest_ = flattest;
    steep_to_ = steep_to;
    flat_to_ = flat_to;
    lows_.push_back({gate.x, gate.low});
    highs_.push_back({gate.x, gate.high});
    return 0;
  }
  void keep_above(Corner corner) { lows_.push_back(corner); }
  void keep_below(Corner corner) { highs_.push_back(corner); }

  // The steepest or flattest line, and the place where it was stopped.
  [[nodiscard]] std::pair<Line, Corner> extreme(int side) const {
    const double slope = side > 0 ? steepest_ : flattest_;
    const Corner stop = side > 0 ? steep_to_ : flat_to_;
    return {Line{slope, stop.y - slope * stop.x}, stop};
  }
  [[nodiscard]] Line any() const {
    const double slope = std::isinf(steepest_) || std::isinf(flattest_) ? 0.0 : 0.5 * (steepest_ + flattest_);
    double min = -HUGE_VAL;
    double max = HUGE_VAL;
    for (const Corner& low : lows_) min = std::max(min, low.y - slope * low.x);
    for (const Corner& high : highs_) max = std::min(max, high.y - slope * high.x);
    return {slope, 0.5 * (min + max)};
  }

 private:
  std::vector<Corner> lows_;
  std::vector<Corner> highs_;
  double steepest_ = HUGE_VAL;
  double flattest_ = -HUGE_VAL;
  Corner steep_to_{};
  Corner flat_to_{};
};

std::vector<Corner> shortest_way(const std::vector<Gate>& tube) {
  std::vector<Corner> corners{{tube.front().x, tube.front().low}};
  Fan fan;
  Line last{};
  bool first = true;
  const auto add_line = [&](const Line& line) {
    if (!first) {
      const double x = (line.at_0 - last.at_0) / (last.slope - line.slope);
      corners.push_back({x, line.at(x)});
    }
    first = false;
    last = line;
  };
  for (std::size_t j = 0; j < tube.size(); ++j) {
    const int missed = fan.take(tube[j]);
    if (missed == 0) continue;
    const auto [line, stop] = fan.extreme(missed);
    add_line(line);
    // The next line crosses this one between the stop and the gate before the missed one.
    const double end = tube[j - 1].x;
    Fan next;
    for (std::size_t i = 0; i < j; ++i) {
      if (tube[i].x < stop.x) continue;
      if (missed > 0)
        next.keep_below({tube[i].x, tube[i].high});
      else
        next.keep_above({tube[i].x, tube[i].low});
    }
    if (missed > 0)
      next.keep_above({end, line.at(end)});
    else
      next.keep_below({end, line.at(end)});
    fan = std::move(next);
    fan.take(tube[j]);
  }
  add_line(fan.any());
  corners.push_back({tube.back().x, tube.back().low});
  return corners;
}

// Where the curve is looked at: evenly, and closer about corners and jumps, down to a millionth.
void add_places(const Curve& curve, double from, double to, double seen, int depth,
                std::vector<double>& places_at) {
  const double a = curve.value(from);
  const double b = curve.value(to);
  double off = 0.0;
  for (const double fraction : {0.25, 0.5, 0.75})
    off = std::max(off, std::fabs(curve.value(from + fraction * (to - from)) - (a + fraction * (b - a))));
  constexpr std::size_t max_places = 20'000;
  if (depth == 0 || !(off > seen) || places_at.size() > max_places) {
    places_at.push_back(to);
    return;
  }
  const double middle = 0.5 * (from + to);
  add_places(curve, from, middle, seen, depth - 1, places_at);
  add_places(curve, middle, to, seen, depth - 1, places_at);
}

double largest_error(const Curve& curve, const std::vector<double>& places_at,
                     const std::vector<Stops::Point>& points) {
  std::vector<CurveStop> stops;
  stops.reserve(points.size());
  for (const Stops::Point& point : points) stops.push_back({point.value, point.at});
  const Stops lines(stops);
  double worst = 0.0;
  for (std::size_t i = 0; i < places_at.size(); ++i) {
    worst = std::max(worst, std::fabs(lines.value(places_at[i]) - curve.value(places_at[i])));
    if (i == 0) continue;
    const double between = 0.5 * (places_at[i - 1] + places_at[i]);
    worst = std::max(worst, std::fabs(lines.value(between) - curve.value(between)));
  }
  return worst;
}

}  // namespace

FittedStops fewest_stops(const Curve& curve, double max_error) {
  if (!(max_error >= 1e-4 && max_error <= 1.0))
    refuse("fewest stops: error = " + plain_number(max_error) + " is not taken; it takes 0.0001 to 1");
  std::vector<double> places_at{0.0};
  constexpr int cells = 4000;
  constexpr int deepest = 8;
  const double unseen = 0.01 * max_error;  // what may hide between two places
  for (int i = 0; i < cells; ++i)
    add_places(curve, static_cast<double>(i) / cells, static_cast<double>(i + 1) / cells, unseen, deepest,
               places_at);
  FittedStops best{{}, HUGE_VAL};
  // Rounding costs a little where it is steep: more decimals are tried first, then a narrower tube.
  constexpr int narrower = 25;
  for (int attempt = 0; attempt < narrower; ++attempt) {
    const double within = max_error * (1.0 - 0.02 * attempt) - unseen - 1e-5;
    std::vector<Gate> tube;
    for (const double x : places_at) {
      const double y = curve.value(x);
      const double room = x == 0.0 || x == 1.0 ? 0.0 : within;
      tube.push_back({x, y - room, y + room});
    }
    const std::vector<Corner> corners = shortest_way(tube);
    for (const double per_unit : {1e5, 1e6, 1e7}) {
      FittedStops fitted;
      for (const Corner& corner : corners)
        fitted.points.push_back(
            {std::round(corner.x * per_unit) / per_unit, std::round(corner.y * 1e5) / 1e5});
      fitted.error = largest_error(curve, places_at, fitted.points) + unseen;
      if (fitted.error < best.error) best = std::move(fitted);
      if (best.error <= max_error) return best;
    }
  }
  return best;
}

}  // namespace ubbo
