#include "ubbo/parts/pad.hpp"

namespace ubbo {

template <>
std::span<const Setting<PadSettings>> settings_of<PadSettings>() {
  using S = PadSettings;
  // The table of GestureSettings, reached through the pad's own struct.
  static const auto table = [] {
    std::vector<Setting<S>> made{
        detail::text<&S::label>("label", "what the area is called, for people and screen readers"),
        detail::cell<&S::taps>("taps_cell",
                               "a cell that gets the count of each row of taps; may be left out"),
    };
    detail::add_inner<&S::gestures>(made);
    return made;
  }();
  return table;
}

Pad::Pad(std::string id, Box box, PadSettings settings, Surroundings& around)
    : Part(std::move(id), box, around),
      settings_(std::move(settings)),
      gestures_(settings_.gestures, {.part = this->id(), .screen = around.screen, .journal = &around.journal},
                [this](const Gesture& news) {
                  last_ = news;
                  if (news.kind == GestureKind::tap && news.step == GestureStep::ended)
                    settings_.taps.set(news.count);
                  if (settings_.on_gesture) settings_.on_gesture(news);
                }) {}

Accessible Pad::accessible() const { return {.role = "button", .label = settings_.label, .keys = ""}; }

Wish Pad::wish(const Sample&) const {
  const Drags drags = settings_.gestures.drags;
  return {.horizontal = drags == Drags::horizontal || drags == Drags::both,
          .vertical = drags == Drags::vertical || drags == Drags::both};
}

bool Pad::touch(const Contact& contact, const Sample& sample) {
  gestures_.advance(around().now);
  gestures_.touch(contact, sample, around().feel_for(sample.tool));
  return true;
}

}  // namespace ubbo
