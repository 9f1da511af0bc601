#include "ubbo/parts/sliding.hpp"

namespace ubbo {

double Sliding::fraction() const {
  const double way = rail_.plan().max - rail_.plan().min;
  return way > 0.0 ? (offset() - rail_.plan().min) / way : 0.0;
}

DragInterest Sliding::drag_interest(const Sample&) const {
  const Axis axis = rail_.plan().axis;
  return {.horizontal = axis == Axis::horizontal, .vertical = axis == Axis::vertical};
}

Point Sliding::drag_to(const Contact& contact, const Sample& sample) {
  return mine(contact) ? rail_.follow(contact, sample) : Point{};
}

void Sliding::move(const Contact& contact, const Sample& sample) {
  if (!(drag_to(contact, sample) == Point{})) overscroll();
}

void Sliding::lift(const Contact& contact, const Sample& sample) {
  if (mine(contact) && !rail_.lift(contact, sample)) pressed_only(contact, sample);
}

void Sliding::pressed_only(const Contact& contact, const Sample& sample) {
  rail_.explain_press(contact, sample);
  rail_.resume();
}

void Sliding::restore(std::span<const double> saved) {
  ask([this, place = saved[0]] { rail_.put(place); }, WhileHeld::waits);
}

void Sliding::let_go(const Contact& contact, LetGo how) {
  if (mine(contact)) rail_.let_go(how);
}

std::optional<double> scrolled_to(Key key, Axis axis, double sign, double page, double place, double min,
                                  double max) {
  constexpr double line = 48.0;  // dp; what an arrow scrolls
  const bool upright = axis == Axis::vertical;
  switch (key) {
    case Key::up:
    case Key::down:
      if (!upright) return {};
      return place + sign * (key == Key::up ? -line : line);
    case Key::left:
    case Key::right:
      if (upright) return {};
      return place + sign * (key == Key::left ? -line : line);
    case Key::page_up:
      return place - sign * page;
    case Key::page_down:
      return place + sign * page;
    case Key::home:
      return sign < 0.0 ? max : min;
    case Key::end:
      return sign < 0.0 ? min : max;
    default:
      return {};
  }
}

}  // namespace ubbo
