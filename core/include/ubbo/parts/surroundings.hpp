#pragma once

#include <cstdint>
#include <functional>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/journal.hpp"
#include "ubbo/motion/passage.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/sample.hpp"

namespace ubbo {

class Part;

/// Keeps the order of events for the parts that stand in its surroundings: a stage.
class Keeper {
 public:
  Keeper() = default;
  Keeper(const Keeper&) = delete;
  Keeper& operator=(const Keeper&) = delete;

  /// A cell that `part` shows has changed: `Part::heard` is called when the present event is over, or,
  /// outside of any, when the keeper is next told the time.
  virtual void heard(Part& part) = 0;
  /// The app asked `part` to do something: `deed` is done now, or when the present event is over.
  virtual void call(Part& part, std::function<void()> deed) = 0;
  /// `part` came to its bound with `velocity` (dp/s) left: whoever could go on with its contact may take it.
  /// True when somebody did.
  virtual bool pass_on(Part& part, Point velocity) = 0;
  /// A layer sets out to open: it goes above the others of its container, and if it is modal the focus goes
  /// into it.
  virtual void opened(Part& layer) = 0;
  /// A layer sets out to close: the focus returns to where it was.
  virtual void closed(Part& layer) = 0;
  /// Shows or hides a part that lies in another, now or when the present event is over.
  virtual void show(Part& part, bool visible) = 0;

 protected:
  ~Keeper() = default;
};

/// How what a cell was set to shows on the part.
enum class Write : std::uint8_t {
  travels,  ///< by the part's passage
  at_once,  ///< without motion, as the app asked
  carried   ///< along with another part, which tells its place by the same cell
};

/// What a part is told of the world it stands in. A stage keeps it; without a stage the app does. It must
/// outlive the part.
struct Surroundings {
  Micros now{};  ///< the time at which things happen
  Feels feels{};
  Box screen{};                            ///< the whole screen, dp
  Insets safe{};                           ///< what notch and system bars take of it
  bool right_to_left = false;              ///< reading direction; horizontal parts mirror
  Reduced reduced_motion = Reduced::full;  ///< for people who asked for less motion
  Write write = Write::travels;            ///< how what a part hears shows
  Journal journal{};
  Keeper* keeper = nullptr;  ///< none: the part stands alone
};

}  // namespace ubbo
