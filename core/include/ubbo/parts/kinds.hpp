#pragma once

#include <array>

#include "ubbo/parts/button.hpp"
#include "ubbo/parts/card_deck.hpp"
#include "ubbo/parts/carousel.hpp"
#include "ubbo/parts/dialog.hpp"
#include "ubbo/parts/draggable.hpp"
#include "ubbo/parts/drawer.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/parts/list.hpp"
#include "ubbo/parts/pad.hpp"
#include "ubbo/parts/page_dots.hpp"
#include "ubbo/parts/page_host.hpp"
#include "ubbo/parts/pane.hpp"
#include "ubbo/parts/panel.hpp"
#include "ubbo/parts/progress_bar.hpp"
#include "ubbo/parts/range_slider.hpp"
#include "ubbo/parts/rating.hpp"
#include "ubbo/parts/sheet.hpp"
#include "ubbo/parts/slider.hpp"
#include "ubbo/parts/swap.hpp"
#include "ubbo/parts/swipe_row.hpp"
#include "ubbo/parts/switch.hpp"
#include "ubbo/parts/tabs.hpp"
#include "ubbo/parts/toast_tray.hpp"
#include "ubbo/parts/zoom_plane.hpp"

namespace ubbo {

/// The kinds of part that Ubbo ships: the one place that lists them. An app hands its own list to the scene
/// reader and the tool.
[[nodiscard]] inline Kinds shipped_kinds() {
  static const std::array kinds{
      &Slider::described(),    &RangeSlider::described(), &Switch::described(),    &Button::described(),
      &Rating::described(),    &Tabs::described(),        &PageDots::described(),  &Carousel::described(),
      &SwipeRow::described(),  &CardDeck::described(),    &Draggable::described(), &ZoomPlane::described(),
      &Pane::described(),      &List::described(),        &Pad::described(),       &ProgressBar::described(),
      &Sheet::described(),     &Drawer::described(),      &Dialog::described(),    &Panel::described(),
      &ToastTray::described(), &Swap::described(),        &PageHost::described()};
  return kinds;
}

}  // namespace ubbo
