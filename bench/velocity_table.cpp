// How far velocities, smoothed and predicted places are off, on made motion with sensor noise. Prints tables;
// takes no arguments.
#include <cmath>
#include <cstdio>
#include <random>
#include <ubbo/ubbo.hpp>

using namespace ubbo;

namespace {

struct Motion {
  double speed;         // dp/s at the lift
  double acceleration;  // dp/s²
  [[nodiscard]] double place(double before_lift) const {
    return -speed * before_lift + acceleration * before_lift * before_lift / 2;
  }
};

constexpr double noise = 0.5;  // dp
constexpr double rate = 120.0;
constexpr int runs = 4000;

// The samples of a motion up to its lift, with noise.
template <class Each>
void samples(const Motion& motion, std::mt19937& random, Each&& each) {
  std::normal_distribution<double> error(0.0, noise);
  for (int k = 24; k >= 0; --k)
    each(from_seconds(1.0 - k / rate), Point{motion.place(k / rate) + error(random), error(random)},
         motion.place(k / rate));
}

void velocities() {
  std::printf(
      "Error of the velocity at the lift, in %% of it; %g dp noise at %g Hz, %d runs, window %g ms\n\n",
      noise, rate, runs, to_ms(VelocityRules{}.window));
  std::printf("%10s %14s %10s %10s %10s\n", "dp/s", "dp/s^2", "mean", "rms", "worst 5 %");
  for (const double speed : {200.0, 500.0, 1000.0, 2000.0, 4000.0})
    for (const double fraction : {0.0, 1.0, -1.0, 5.0}) {
      // Accelerated by its own speed within a second, or within 200 ms.
      const Motion motion{speed, fraction * speed};
      std::mt19937 random(7);
      std::vector<double> errors;
      for (int run = 0; run < runs; ++run) {
        VelocityTracker tracker;
        samples(motion, random, [&](Micros t, Point at, double) { tracker.add(t, at); });
        errors.push_back(100 * (tracker.estimate(from_seconds(1.0), {}).velocity.x / speed - 1));
      }
      double mean = 0, square = 0;
      for (const double e : errors) mean += e / runs, square += e * e / runs;
      std::sort(errors.begin(), errors.end(), [](double a, double b) { return std::fabs(a) < std::fabs(b); });
      std::printf("%10g %14g %9.2f%% %9.2f%% %9.2f%%\n", speed, motion.acceleration, mean, std::sqrt(square),
                  std::fabs(errors[static_cast<std::size_t>(runs * 0.95)]));
    }
  VelocityTracker rested;
  for (int k = 0; k <= 10; ++k) rested.add(from_ms(8.0 * k), {8.0 * k, 0});
  std::printf("\nafter 60 ms of rest: %g dp/s\n", rested.estimate(from_ms(140), {}).velocity.x);
}

void filters() {
  std::printf(
      "\nPlaces, 1000 dp/s, %g dp noise at %g Hz: rms distance from the true place, mean lag behind it\n\n",
      noise, rate);
  std::printf("%14s %14s %10s %10s\n", "smoothing ms", "prediction ms", "rms dp", "lag ms");
  const Motion motion{1000, 0};
  for (const double lag : {0.0, 4.0, 8.0, 16.0})
    for (const double ahead : {0.0, 8.0, 16.0}) {
      std::mt19937 random(7);
      double square = 0, mean = 0;
      int count = 0;
      for (int run = 0; run < runs; ++run) {
        VelocityTracker tracker;
        Smoother smoother;
        int k = 0;
        samples(motion, random, [&](Micros t, Point at, double) {
          if (k++ == 0) smoother.start(t, at);
          const Point seen = lag > 0 ? smoother.next(t, at, from_ms(lag)) : at;
          tracker.add(t, seen);
          if (k < 15) return;
          const double off = predict(tracker, seen, t, from_ms(ahead), {}).x -
                             motion.place(1.0 - to_seconds(t) - ahead / 1e3);
          square += off * off;
          mean += off;
          ++count;
        });
      }
      std::printf("%14g %14g %10.2f %10.2f\n", lag, ahead, std::sqrt(square / count),
                  -mean / count / motion.speed * 1e3);
    }
}

}  // namespace

int main() {
  velocities();
  filters();
}
