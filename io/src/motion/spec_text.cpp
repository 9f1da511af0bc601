#include <fmt/format.h>

#include "ubbo/io/motion/easing_css.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/motion/progress.hpp"

namespace ubbo::io {

std::string css_number(double value, int decimals) {
  std::string text = fmt::format("{:.{}f}", value, decimals);
  if (text.find('.') != std::string::npos) {
    while (text.back() == '0') text.pop_back();
    if (text.back() == '.') text.pop_back();
  }
  return text == "-0" ? "0" : text;
}

std::string spec_text(const Transition& transition) {
  std::string text;
  if (const auto* spring = std::get_if<Spring>(&transition.way)) {
    if (spring->ratio() > 1.0)
      text = fmt::format("spring(frequency {}, ratio {})", spring->frequency(), spring->ratio());
    else
      text = fmt::format("spring(settle {}ms, overshoot {}%)", css_number(to_ms(duration_of(*spring)), 3),
                         css_number(spring->overshoot() * 100.0, 6));
  } else if (const auto* coast = std::get_if<Coast>(&transition.way)) {
    text = fmt::format("coast(friction {})", coast->friction());
  } else {
    const auto& timed = std::get<Timed>(transition.way);
    text = fmt::format("{} {}ms", css_easing(timed.curve).text, css_number(to_ms(timed.duration), 3));
  }
  if (transition.delay != Micros{0})
    text += fmt::format(" after {}ms", css_number(to_ms(transition.delay), 3));
  if (transition.runs <= Transition::endless) text += " repeat endless";
  if (transition.runs > 1) text += fmt::format(" repeat {}", transition.runs);
  if (transition.alternate) text += " alternate";
  return text;
}

}  // namespace ubbo::io
