#pragma once

#include <cstdint>
#include <functional>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/journal.hpp"
#include "ubbo/base/tell.hpp"
#include "ubbo/motion/transition.hpp"
#include "ubbo/parts/moment.hpp"
#include "ubbo/parts/outbox.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/sample.hpp"

namespace ubbo {

class Part;
class Hover;

/// When something counts that the app asks of a part while a finger holds that.
enum class WhileHeld : std::uint8_t {
  waits,     ///< it waits for the lift; of several the last one counts
  cancels,   ///< the contact is cancelled, and it counts at once
  immediate  ///< it does not move the part, and counts at once
};

/// What an event is: what led to whatever a part decides in it.
enum class Cause : std::uint8_t { time, finger, wheel, key, call, write };

/// Keeps the order of events for the parts that stand in its surroundings: a stage.
class PartOwner {
 public:
  PartOwner() = default;
  PartOwner(const PartOwner&) = delete;
  PartOwner& operator=(const PartOwner&) = delete;

  /// A cell that `part` shows has changed: `Part::cell_changed` is called when the present event is over, or,
  /// outside of any, when the stage is next told the time; while a finger holds the part, after the lift.
  virtual void heard(Part& part) = 0;
  /// The app asked `part` to do something: `action` is done now, or when the present event is over.
  virtual void call(Part& part, WhileHeld how, std::function<void()> action) = 0;
  /// `part` reached its bound with `velocity` (dp/s) left: offers it to the parts its contact could go on
  /// with. Returns true when one took it.
  virtual bool pass_on(Part& part, Point velocity) = 0;
  /// Shows or hides a part that lies in another, now or when the present event is over.
  virtual void show(Part& part, bool visible) = 0;
  /// `part` gives its place in its container up, or takes it again.
  virtual void closing(Part& part, const Transition& transition, bool closes) = 0;

 protected:
  ~PartOwner() = default;
};

/// What a part is told of the world it stands in. A stage keeps it; without a stage the app does. It must
/// outlive the part.
struct Context {
  Micros now{};  ///< the time at which things happen
  Feels feels{};
  Box screen{};                            ///< the whole screen, dp
  Insets safe{};                           ///< what notch and system bars take of it
  bool right_to_left = false;              ///< reading direction; horizontal parts mirror
  Reduced reduced_motion = Reduced::full;  ///< for people who asked for less motion
  Cause cause = Cause::time;               ///< what led to what happens now
  Write write = Write::travels;            ///< how what changed a part's cell shows
  Journal journal{};
  PartOwner* part_owner = nullptr;                 ///< none: the part stands alone
  std::function<void(const Moment&)> on_moment{};  ///< told what a hand should feel, once each
  Outbox* outbox = nullptr;      ///< where calls of the app wait; none: they are made at once
  const Hover* hover = nullptr;  ///< which part a pointer is over; none: no pointers are told of
};

}  // namespace ubbo
