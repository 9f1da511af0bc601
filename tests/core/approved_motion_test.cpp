// Curves, springs and coasts: values, slopes and figures as they were when somebody last looked.
#include "approved.hpp"
#include "moments.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

std::vector<std::pair<std::string, Curve>> curves() {
  std::vector<std::pair<std::string, Curve>> all{
      {"ease", Curve::ease()},
      {"stops", Curve::stops({{0.0}, {0.3, 0.2}, {1.1}, {0.7, 0.6}, {1.0}})},
      {"through", Curve::through({{0, 0}, {0.3, 0.8}, {0.5, 0.6}, {1, 1}})},
      {"own", Curve::own([](double p) { return p * p * (3 - 2 * p); })},
      {"limited", Curve::family(Family::back, Ease::out).limited()},
      {"mirrored", Curve::ease_in().mirrored()},
      {"reversed", Curve::ease_in().reversed()}};
  for (const double x1 : {0.0, 0.2, 0.9, 1.0})
    for (const double x2 : {0.0, 0.5, 1.0})
      for (const double y : {-0.6, 0.0, 1.0, 1.7})
        all.emplace_back("bezier", Curve::cubic_bezier(x1, y, x2, 1 - y));
  for (const Jump jump : {Jump::start, Jump::end, Jump::none, Jump::both})
    all.emplace_back("steps", Curve::steps(3, jump));
  for (int family = 0; family < 10; ++family)
    for (const Ease ease : {Ease::in, Ease::out, Ease::in_out})
      all.emplace_back("family", Curve::family(static_cast<Family>(family), ease));
  return all;
}

std::vector<Transition::Way> ways() {
  std::vector<Transition::Way> all;
  for (const double ratio : {0.1, 0.6, 0.999999, 1.0, 1.000001, 1.5, 4.0})
    for (const double frequency : {4.0, 18.0}) all.emplace_back(Spring::natural(frequency, ratio));
  for (const double overshoot : {0.0, 0.05, 0.4}) all.emplace_back(Spring::settling(ms(320), overshoot));
  for (const double half : {40.0, 180.0}) all.emplace_back(Coast::half_life(ms(half)));
  for (const auto& [name, curve] : curves())
    if (name != "steps") all.emplace_back(Timed{curve, ms(240)});
  return all;
}

}  // namespace

TEST_CASE("what curves, motions and their figures come to is as it was approved") {
  std::string text;
  const auto add = [&](double number) { text += " " + few_digits(number); };
  for (const auto& [name, curve] : curves()) {
    text += name + ":";
    for (const double p : {-0.5, 1e-9, 0.1, 1.0 / 3, 0.5, 0.75, 0.9, 0.999, 1.0, 1.2})
      for (const double number : {curve.value(p), curve.value(p, true), curve.slope(p)}) add(number);
    text += "\n";
  }
  for (const Transition::Way& way : ways())
    for (const double velocity : {0.0, 900.0, -2500.0}) {
      const Motion motion({.from = 10.0, .velocity = velocity, .to = 130.0, .begins = ms(50)},
                          std::visit([](const auto& one) { return Transition(one, ms(30)); }, way));
      const MotionFigures figures = figures_of(motion);
      text += "from 10 to 130 at " + few_digits(velocity) + ":";
      for (const Micros time :
           {figures.duration, figures.settled, figures.peak_at, figures.half, figures.nine_tenths,
            motion.begins(), motion.ends(), duration_of(way, velocity)})
        text += " " + std::to_string(time.count());
      for (const double number : {figures.overshoot, figures.undershoot, figures.peak_speed}) add(number);
      const Curve progress = progress_of(way, velocity / 120.0);
      for (const double at : {80.0, 117.0, 200.0, 390.0, 700.0}) {
        const MotionState here = motion.at(ms(at));
        for (const double number :
             {here.value, here.velocity, motion.opacity(ms(at)), progress.value((at - 80) / 600)})
          add(number);
      }
      text += "\n";
    }
  approve("core", "motions", text);
}

TEST_CASE("a timeline has finished where its head has come to the end it runs to, and not while it stands") {
  Timeline timeline;
  const Timeline::Track rise = timeline.add_track("rise", 0);
  timeline.cue(rise, 100, Timed{Curve{}, ms(200)});
  CHECK_FALSE(timeline.finished(ms(0)));
  for (const bool backwards : {false, true}) {
    timeline.seek(backwards ? ms(200) : ms(0), ms(1000));
    timeline.set_speed(backwards ? -1 : 1, ms(1000));
    timeline.play(ms(1000));
    CHECK_FALSE(timeline.finished(ms(1000)));
    CHECK_FALSE(timeline.finished(ms(1199)));
    CHECK(timeline.finished(ms(1200)));
    timeline.pause(ms(1200));
    CHECK_FALSE(timeline.finished(ms(1300)));
  }
}
