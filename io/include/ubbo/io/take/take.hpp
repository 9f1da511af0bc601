#pragma once

#include <span>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "ubbo/touch/sample.hpp"

namespace ubbo::io {

/// What the app or the phone did while a take was recorded.
struct Action {
  enum class Kind : std::uint8_t {
    set,      ///< the app writes `value` to the cell `target`
    put,      ///< the app writes `value` to the cell `target`, and it shows without motion
    key,      ///< the key `target` goes down
    back,     ///< the phone's back
    turn,     ///< the screen becomes `value`, such as 720x360
    focus,    ///< the part `target` gets the focus
    show,     ///< the part `target` is shown
    hide,     ///< … hidden
    enable,   ///< … enabled
    disable,  ///< … disabled
    remove,   ///< … removed
    call,     ///< the part `target` is asked to do `value`, such as open
    wheel     ///< a wheel or trackpad is turned (see `wheel_action`)
  };

  Micros time{};
  Kind kind = Kind::set;
  std::string target{};
  std::string value{};
  std::size_t before = 0;  ///< how many of the take's samples came before it
  std::size_t line = 0;    ///< where it stands in its file; 0: in none
};

/// "set", "put", …: what takes and hand scripts call an action.
[[nodiscard]] const char* name_of(Action::Kind kind);
/// All of them, in their order.
[[nodiscard]] std::span<const std::string_view> action_names();

/// A recording of touches: samples sorted by time, and notes such as `screen`, `device`, `label`,
/// `expectation`.
struct Take {
  std::string file{};  ///< where it was read from; for errors
  std::vector<std::pair<std::string, std::string>> notes{};
  std::vector<Sample> samples{};
  std::vector<Action> actions{};  ///< by time, and where it is the same, by `before`

  /// The note with this name, or "".
  [[nodiscard]] std::string note(std::string_view name) const;
};

/// Reads a take (docs/formats/take.md). `name` stands for the file in errors. Throws `InputError` for a line
/// that does not read, a number that is not finite, a time before the line above, and a take with neither
/// samples nor actions. About a million lines in a second.
[[nodiscard]] Take parse_take(std::string_view text, const std::string& name);
/// The take as text; reading it gives the same samples back to the microsecond and the last bit.
[[nodiscard]] std::string write_take(const Take& take);

}  // namespace ubbo::io
