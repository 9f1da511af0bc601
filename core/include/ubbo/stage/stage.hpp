#pragma once

#include <concepts>
#include <memory>
#include <string>
#include <string_view>
#include <type_traits>
#include <utility>
#include <vector>

#include "ubbo/parts/part.hpp"
#include "ubbo/stage/routing.hpp"

namespace ubbo {

/// What a stage is made with.
struct StageSettings {
  double width = 360.0;   ///< dp
  double height = 720.0;  ///< dp
  Feel feel{};            ///< for fingers
  Feel stylus = feels::stylus;
  Feel mouse = feels::mouse;
  bool right_to_left = false;
  Reduced reduced_motion = Reduced::full;
  double journal = 0.0;  ///< room for decisions; 0: the journal is off
};

template <>
std::span<const Setting<StageSettings>> settings_of<StageSettings>();

/// A scene at run time: routes touches and keys to parts and tells them the time.
///
/// Things that happen by themselves (a thumb coming to rest) happen at their own exact microsecond, whichever
/// frame or touch comes after, and in the order of those times. So outcomes never depend on the frame rate.
/// `touch`, `advance`, `press` and reads allocate nothing once the parts are added, throw nothing and take no
/// lock, unless the app's own watchers do.
class Stage {
 public:
  /// Throws `std::invalid_argument` for a setting out of its range.
  explicit Stage(StageSettings settings = {});
  Stage(const Stage&) = delete;  // parts know where they stand
  Stage& operator=(const Stage&) = delete;

  /// Adds a part on top of those before it: `stage.add<Slider>("frames", {.x = 40, …}, {.from = 0, …})`.
  /// Throws `std::invalid_argument` when the id is taken or empty, the box is no box, or the part refuses its
  /// settings. The reference stays good for the stage's life.
  template <std::derived_from<Part> P>
  P& add(std::string id, Box box, typename P::Settings settings, Standing standing = {}) {
    check_place(id, box, standing);
    auto part = std::make_unique<P>(std::move(id), box, std::move(settings), around_);
    const Part* outer = find(standing.inside);
    part->stand(std::move(standing), outer);
    P& added = *part;
    adopt(std::move(part));
    return added;
  }

  /// Takes one sample from the platform. A bad one is dropped or mended, and recorded. A sample older than
  /// the last `advance` is good, as long as it is not older than the last thing that happened. Returns true
  /// when a part has the contact, so that the app need not offer it elsewhere.
  bool touch(const Sample& sample);
  /// Lets time pass to `now`; call it once a frame. A time before the last one changes nothing.
  void advance(Micros now);
  /// A key went down at the stage's present time. Tab and back-tab move the focus; other keys go to the part
  /// that has it. Returns true when the key was used.
  bool press(Key key);
  /// What becomes of travel, from the next motion on; what people set on their phone.
  void set_reduced_motion(Reduced reduced) { around_.reduced_motion = reduced; }
  /// Ends every open contact by a cancel, as when the app loses the screen.
  void cancel_contacts();

  /// Gives the keyboard focus to a part, or to none with "". Returns false when there is no such part.
  bool focus(std::string_view id);
  /// The part that has the focus, or null.
  [[nodiscard]] const Part* focused() const {
    return focus_ < parts_.size() ? parts_[focus_].get() : nullptr;
  }

  /// True when nothing moves and no contact is down, so that frames may stop until the next touch or write.
  [[nodiscard]] bool settled() const;
  /// How many contacts are down.
  [[nodiscard]] std::size_t open_contacts() const { return contacts_.open_count(); }
  /// When something next happens by itself; `never` when nothing does before the next touch, key or write.
  [[nodiscard]] Micros due() const;
  [[nodiscard]] Micros now() const { return around_.now; }
  [[nodiscard]] double width() const { return around_.screen.w; }
  [[nodiscard]] double height() const { return around_.screen.h; }
  [[nodiscard]] const Feel& feel() const { return around_.feel; }
  [[nodiscard]] bool right_to_left() const { return around_.right_to_left; }
  [[nodiscard]] Journal& journal() { return around_.journal; }
  [[nodiscard]] const Journal& journal() const { return around_.journal; }
  /// The parts from the lowest to the topmost.
  [[nodiscard]] const std::vector<std::unique_ptr<Part>>& parts() const { return parts_; }
  /// The part with this id, or null.
  [[nodiscard]] Part* find(std::string_view id);

 private:
  void check_place(const std::string& id, const Box& box, const Standing& standing);
  void must_know(const std::string& id, const std::string& other, const char* relation);
  void adopt(std::unique_ptr<Part> part);
  bool run_due(Micros until);  // true when more is due later

  Surroundings around_;
  Routing routing_{around_};
  std::vector<std::unique_ptr<Part>> parts_;
  Contacts contacts_;
  std::size_t focus_ = static_cast<std::size_t>(-1);
  Micros happened_ = -farthest_time;  // the time of the last thing that happened
  Micros frame_ = -farthest_time;     // the last time `advance` was given
};

}  // namespace ubbo
