// The rows of a hive list come in one after another, each place by a spring and each opacity by a curve; then
// the film runs backwards. Prints what a renderer would draw.
#include <cstdio>
#include <string>
#include <ubbo/ubbo.hpp>
#include <vector>

using namespace std::chrono_literals;

int main() {
  const std::vector<std::string> rows{"Quarry", "Orchard", "Mill", "Ford"};
  ubbo::Timeline in;
  std::vector<ubbo::Timeline::Track> x;
  std::vector<ubbo::Timeline::Track> opacity;
  for (const std::string& row : rows) {
    x.push_back(in.add_track(row + ".x", 160.0));
    opacity.push_back(in.add_track(row + ".opacity", 0.0));
  }
  const auto delays = ubbo::Stagger::by_order(rows.size(), 60ms);
  in.cue(x, 0.0, ubbo::Spring::settling(420ms, 0.06), delays);
  in.cue(opacity, 1.0, ubbo::Timed{ubbo::Curve::ease_out(), 160ms}, delays, ubbo::Place::with());

  const auto draw = [&](ubbo::Micros now) {
    std::printf("%5.0f ms:", ubbo::to_ms(in.head(now)));
    for (std::size_t i = 0; i < rows.size(); ++i)
      std::printf("  %s %6.1f dp %3.0f %%", rows[i].c_str(), in.value(x[i], now),
                  100.0 * in.value(opacity[i], now));
    std::puts("");
  };
  ubbo::Micros now = 0ms;
  in.play(now);
  for (; !in.finished(now); now += 100ms) draw(now);
  in.set_speed(-2.0, now);  // out again, twice as fast
  for (; !in.finished(now); now += 100ms) draw(now);
  draw(now);
}
