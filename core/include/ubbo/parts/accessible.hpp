#pragma once

#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <string_view>

#include "ubbo/base/short_text.hpp"

namespace ubbo {

/// The keys parts know, as the WAI-ARIA practices name them. `back` is the phone's back key or gesture.
enum class Key : std::uint8_t {
  left,
  right,
  up,
  down,
  page_up,
  page_down,
  home,
  end,
  tab,
  back_tab,
  space,
  enter,
  escape,
  back
};

/// "left", "page-up", …: what takes and hand scripts call a key.
[[nodiscard]] const char* name_of(Key key);
/// All keys, in their order.
[[nodiscard]] std::span<const Key> all_keys();

/// How urgently a change is read out.
enum class Live : std::uint8_t { off, polite, assertive };

/// How a part presents itself to assistive technology, in WAI-ARIA terms (`role`, `aria-label`,
/// `aria-valuenow`, …). A state that does not apply is empty.
struct Accessible {
  std::string_view role{};
  std::string_view label{};
  std::optional<double> value_now{};
  std::optional<double> value_min{};
  std::optional<double> value_max{};
  ShortText value_text{};  ///< what to read instead of the number; "": the number
  std::string_view orientation{};
  std::optional<bool> checked{};
  std::optional<bool> pressed{};
  std::optional<bool> expanded{};
  std::optional<bool> selected{};
  bool disabled = false;
  bool modal = false;
  Live live = Live::off;
  std::string_view keys{};  ///< the keys it answers, for help texts; "": it takes no focus
};

}  // namespace ubbo
