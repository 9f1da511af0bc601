#pragma once

#include <array>
#include <cstdint>
#include <string>
#include <string_view>

#include "ubbo/base/geometry.hpp"
#include "ubbo/base/journal.hpp"
#include "ubbo/landing/landing.hpp"
#include "ubbo/motion/passage.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/feel.hpp"
#include "ubbo/touch/gestures.hpp"

namespace ubbo {

/// What a part is told of the world it stands in. The stage keeps it; without a stage the app does. It must
/// outlive the part.
struct Surroundings {
  Micros now{};  ///< the time at which things happen
  Feel feel{};   ///< for fingers
  Feel stylus = feels::stylus;
  Feel mouse = feels::mouse;
  Box screen{};                            ///< the whole screen, dp
  bool right_to_left = false;              ///< reading direction; horizontal parts mirror
  Reduced reduced_motion = Reduced::full;  ///< for people who asked for less motion
  Journal journal{};

  /// The feel for what touches.
  [[nodiscard]] const Feel& feel_for(Tool tool) const {
    if (tool == Tool::stylus) return stylus;
    return tool == Tool::mouse ? mouse : feel;
  }
};

/// The keys parts know, as the WAI-ARIA practices name them.
enum class Key : std::uint8_t { left, right, up, down, page_up, page_down, home, end, tab, back_tab };

/// How a part presents itself to assistive technology, in WAI-ARIA terms (`role`, `aria-label`,
/// `aria-valuenow`, …).
struct Accessible {
  std::string_view role{};
  std::string_view label{};
  double value_now = 0.0;
  double value_min = 0.0;
  double value_max = 0.0;
  std::string_view orientation{};
  std::string_view keys{};  ///< the keys it answers, for help texts
};

/// How a part stands to the others that want the same contact.
struct Standing {
  std::string inside{};           ///< the part it lies in, which wants its contacts too; "": none
  std::string stands_back_for{};  ///< a part it leaves a contact to where that one can use it; "": none
  bool shares = false;            ///< sees every contact that goes down on it, whoever owns it
};

/// What a part would do with a contact that goes down on it.
struct Wish {
  bool at_once = false;     ///< it takes the contact at the down, before anyone can contest it
  bool horizontal = false;  ///< it follows horizontal drags
  bool vertical = false;    ///< it follows vertical drags
};

/// One component. It has a place on the screen, takes contacts it has captured, and lives in time that is
/// handed in.
class Part {
 public:
  Part(std::string id, Box box, Surroundings& around) : id_(std::move(id)), box_(box), around_(&around) {}
  Part(const Part&) = delete;
  Part& operator=(const Part&) = delete;
  virtual ~Part() = default;

  [[nodiscard]] const std::string& id() const { return id_; }
  /// Where it is on the screen now: where it was put, carried along by the panes it lies in.
  [[nodiscard]] Box box() const;
  /// The part it lies in, or null.
  [[nodiscard]] const Part* outer() const { return outer_; }
  /// How far it carries what lies in it, and itself, from where they were put; dp.
  [[nodiscard]] virtual Point carries() const { return {}; }
  [[nodiscard]] virtual Point moved() const { return {}; }
  /// How visible it and what lies in it is, 0 to 1: less than 1 only while a fade stands for its travel.
  [[nodiscard]] virtual double presence() const { return 1.0; }
  /// True when nothing moves and no contact is held.
  [[nodiscard]] virtual bool settled() const = 0;
  [[nodiscard]] virtual Accessible accessible() const = 0;

  /// True when the part would take a contact that goes down at `at`.
  /// What sticks out of the part it lies in is not seen and takes nothing.
  [[nodiscard]] virtual bool takes(Point at) const;
  /// How it stands to others; set by the stage.
  [[nodiscard]] const Standing& standing() const { return standing_; }
  void stand(Standing standing, const Part* outer) {
    standing_ = std::move(standing);
    outer_ = outer;
  }
  /// What it would do with a contact that goes down as `sample`.
  [[nodiscard]] virtual Wish wish(const Sample&) const { return {}; }
  /// True when a drag towards `side` would move it now; a list at its end says no.
  [[nodiscard]] virtual bool can_go(Side) const { return true; }
  /// The part of the last move that it could not follow, dp; what is left is offered to the parts around it.
  [[nodiscard]] virtual Point leftover() const { return {}; }
  /// Gets a contact in the middle of a drag; the drag counts from `anchor`, so that nothing jumps. False when
  /// it cannot.
  virtual bool take_over(const Contact&, Point /*anchor*/) { return false; }
  /// Gives a contact away in the middle of a drag, and stays where it is.
  virtual void hand_over() {}
  /// A sample of a contact. The part captures it by answering true to its down, and then gets all of it.
  virtual bool touch(const Contact& contact, const Sample& sample) = 0;
  /// A key went down. True when the part used it.
  virtual bool press(Key) { return false; }
  /// When something next happens by itself; `never` when nothing does.
  [[nodiscard]] virtual Micros due() const = 0;
  /// Lets time pass to `now`.
  virtual void advance(Micros now) = 0;

 protected:
  [[nodiscard]] Surroundings& around() const { return *around_; }
  void decide(const char* question, std::string_view answer, std::initializer_list<Fact> facts = {}) const {
    around_->journal.record(around_->now, id_, question, answer, facts);
  }

  /// Records how fast the contact was when it lifted along `axis`; returns that velocity in dp/s.
  double decide_speed(const Contact& contact, const Sample& sample, Axis axis) const;
  /// Records where the part comes to rest, in `unit`.
  void decide_landing(const Landing& landing, const char* unit) const;

 private:
  std::string id_;
  Box box_;
  Surroundings* around_;
  Standing standing_;
  const Part* outer_ = nullptr;
};

/// What a part's `reduced_motion` is called, in the order of `PartReduced`.
inline constexpr std::array part_reduced_names{"as-screen", "full", "fade", "still"};

/// Throws `std::invalid_argument` unless a part can be moved by `passage`: gone once, so that it comes to
/// rest.
void check_passage(const std::string& owner, const Passage& passage);

/// The questions parts and the stage decide, as they stand in the journal.
namespace questions {
inline constexpr const char* sound = "is the sample sound?";
inline constexpr const char* owner = "who gets the contact?";
inline constexpr const char* contest = "who wins the contact?";
inline constexpr const char* hand_over = "who goes on with the contact?";
inline constexpr const char* speed = "was it moving when it lifted?";
inline constexpr const char* landing = "where does it come to rest?";
inline constexpr const char* rest = "is it at rest?";
inline constexpr const char* cancelled = "what becomes of a cancelled contact?";
inline constexpr const char* app_write = "what does a write by the app do?";
inline constexpr const char* key = "what does the key do?";
}  // namespace questions

}  // namespace ubbo
