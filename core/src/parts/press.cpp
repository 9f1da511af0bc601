#include "ubbo/parts/press.hpp"

#include <algorithm>
#include <cmath>
#include <utility>

namespace ubbo {

namespace {

double away_from(const Box& area, Point at) {
  const double x = std::max({area.x - at.x, at.x - area.right(), 0.0});
  const double y = std::max({area.y - at.y, at.y - area.bottom(), 0.0});
  return length({x, y});
}

}  // namespace

bool was_tap(const Part& part, const Contact& contact, const Sample& sample, double strayed) {
  const Feel& feel = part.feel_for(sample.tool);
  const double held = to_ms(sample.time - contact.down.time);
  const bool near = strayed <= feel.tap_reach;
  const bool brief = held <= to_ms(feel.tap_time);
  part.decide(!near   ? answers::tap_strayed
              : brief ? answers::tap
                      : answers::tap_too_long,
              {strayed, feel.tap_reach}, {held, to_ms(feel.tap_time)});
  return near && brief;
}

bool Press::down(const Sample& sample) {
  if (std::exchange(held_, true)) return false;
  over_ = true;
  at_ = sample.at;
  return true;
}

void Press::follow(const Part& part, const Sample& sample, const Box& area) {
  at_ = sample.at;
  over_ = away_from(area, sample.at) <= part.feel_for(sample.tool).tap_reach;
}

void Press::let_go(const Part& part, LetGo how) {
  if (std::exchange(held_, false) && how == LetGo::cancelled) part.decide(answers::press_cancelled);
}

bool Press::lift(const Part& part, const Sample& sample, const Box& area) {
  follow(part, sample, area);
  held_ = false;
  if (over_) return true;
  part.decide(answers::press_left, {away_from(area, sample.at), part.feel_for(sample.tool).tap_reach});
  return false;
}

}  // namespace ubbo
