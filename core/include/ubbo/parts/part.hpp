#pragma once

#include <array>
#include <cstdint>
#include <functional>
#include <memory>
#include <string>

#include "ubbo/parts/accessible.hpp"
#include "ubbo/parts/placement.hpp"
#include "ubbo/parts/surroundings.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/gesture.hpp"
#include "ubbo/visit/guise.hpp"

namespace ubbo {

struct PartKind;

/// The directions in which one part stands back for another.
enum class Towards : std::uint8_t { any, left, up, right, down };

/// How a part stands to the others that want the same contact.
struct Standing {
  std::string inside{};            ///< the part it lies in, which wants its contacts too; "": none
  std::string stands_back_for{};   ///< a part it leaves a contact to where that one can use it; "": none
  Towards towards = Towards::any;  ///< only in this direction: a list stands back for its sheet upwards
  bool shares = false;             ///< sees every contact that goes down on it, whoever owns it
};

/// How a part is there by what holds it.
enum class Presence : std::uint8_t { gone, seen, used };

/// What a part would do with a contact that goes down on it.
struct Wish {
  bool handle = false;      ///< a handle is under the contact: along the axes it follows nobody takes it away
  bool horizontal = false;  ///< it follows horizontal drags
  bool vertical = false;    ///< it follows vertical drags

  [[nodiscard]] bool follows(Axis axis) const { return axis == Axis::horizontal ? horizontal : vertical; }
};

/// One component. It has a place on the screen, takes contacts it has captured, and lives in time that is
/// handed in: whoever calls `touch`, `press`, `heard` or `advance` has let time pass to `around().now`
/// before, so that everything of the part that was due has happened. What it reads of itself is as it is at
/// `around().now`.
///
/// docs/own-part.md says how to make one.
class Part {
 public:
  /// `box` is where it stands at first, dp on the screen.
  Part(std::string id, const Box& box, Surroundings& around);
  Part(const Part&) = delete;
  Part& operator=(const Part&) = delete;
  virtual ~Part() = default;

  /// What it is, and all that scenes, readings, films, skins and reports know of it.
  [[nodiscard]] virtual const PartKind& kind() const = 0;
  [[nodiscard]] const std::string& id() const { return id_; }
  [[nodiscard]] const Surroundings& around() const { return *around_; }

  /// Judges touches of this part by a feel of its own from the next sample on, or by the stage's again. What
  /// is decided before it is known whose a contact is (palms, edges that swallow touches, smoothing) stays
  /// the stage's; a contest is decided by the feel of the part the contact went down on. Throws
  /// `std::invalid_argument`.
  void set_feels(const Feels& feels);
  void reset_feels() { own_feels_.reset(); }
  [[nodiscard]] bool has_own_feels() const { return own_feels_ != nullptr; }
  /// The feel by which `tool` is judged here.
  [[nodiscard]] const Feel& feel_for(Tool tool) const {
    return (own_feels_ ? *own_feels_ : around_->feels).of(tool);
  }

  // Where it is.

  /// Where it is on the screen now: where it was put, carried along by the panes it lies in.
  [[nodiscard]] Box box() const;
  /// Where it was put, nothing carried.
  [[nodiscard]] const Box& laid() const { return laid_; }
  [[nodiscard]] const Placement& placement() const { return placement_; }
  /// The part it lies in, or null.
  [[nodiscard]] const Part* outer() const { return outer_; }
  [[nodiscard]] Part* outer() { return outer_; }
  /// How it stands to others.
  [[nodiscard]] const Standing& standing() const { return standing_; }
  /// False when it, or what it lies in, is hidden or away: it takes nothing, has no focus, and is not drawn.
  [[nodiscard]] bool visible() const;
  /// False when nothing of it is to be drawn: it is not visible, or so far behind others that it cannot be
  /// seen.
  [[nodiscard]] bool in_sight() const;
  /// True when it, or what it lies in, is being removed and plays its way out: it answers nothing any more.
  [[nodiscard]] bool doomed() const;
  /// True when it was hidden itself.
  [[nodiscard]] bool hidden() const { return post_.hidden; }
  /// False when it, or what it lies in, is disabled: it is there and answers nothing.
  [[nodiscard]] bool enabled() const;
  /// Called after its box was laid anew, such as when the screen turned; the app may place parts from here.
  void on_laid(std::function<void(const Box&)> call) { on_laid_ = std::move(call); }

  /// How far it carries what lies in it, and itself, from where they were put; dp.
  [[nodiscard]] virtual Point carries() const { return {}; }
  /// The same for one of the parts that lie in it.
  [[nodiscard]] virtual Point carries_part(const Part& /*inner*/) const { return carries(); }
  [[nodiscard]] virtual Point moved() const { return {}; }
  /// How visible it and what lies in it is, 0 to 1: less than 1 only while a fade stands for its travel.
  [[nodiscard]] virtual double opacity() const { return 1.0; }
  /// How it shows with all that lies in it, beside its offset, which `moved` and `carries` tell: for drawing.
  /// What is scaled or turned takes touches where it lies.
  [[nodiscard]] virtual Guise guise() const { return {}; }
  /// Its box was laid anew; `laid()` is the new one. A size that does not do must be lived with.
  virtual void resized() {}

  // Coming and going.

  /// True while it is not on the screen, with all that lies in it.
  [[nodiscard]] virtual bool away() const { return false; }
  /// True while nothing that lies in it takes a contact, such as before it has come.
  [[nodiscard]] virtual bool shut() const { return false; }
  /// While it is away: a contact that goes down at `at` is on it nevertheless, and may pull it in.
  [[nodiscard]] virtual bool pulled_at(Point /*at*/) const { return false; }
  /// How one of the parts that lie in it is there by it: not at all, to be seen, or to be used.
  [[nodiscard]] virtual Presence presence_of(const Part& /*inner*/) const { return Presence::used; }
  /// How it shows one of the parts that lie in it, beside its offset, which `carries_part` tells: for
  /// drawing.
  [[nodiscard]] virtual Guise guise_of(const Part& /*inner*/) const { return {}; }
  /// True while nothing below it, on the whole screen, takes contacts, the focus or back.
  [[nodiscard]] virtual bool modal() const { return false; }
  /// It is to be taken away: it sets out, if it has a way out.
  virtual void leave() {}
  /// It is on its way out: what holds it waits for that.
  [[nodiscard]] virtual bool leaving() const { return false; }
  /// So many layers have opened above it, up to 4; for those that step back.
  virtual void covered(int /*layers*/) {}

  // What lies in it. These are told of parts that lie in it itself, not deeper.

  /// A part was added in it.
  virtual void gained(Part& /*inner*/) {}
  /// A part in it is being removed.
  virtual void lost(Part& /*inner*/) {}
  /// A part in it was shown or hidden.
  virtual void shown_inside(Part& /*inner*/, bool /*visible*/) {}
  /// A part in it was laid out anew.
  virtual void laid_inside(Part& /*inner*/) {}

  // What it is up to.

  /// True when nothing of it moves and it holds no contact.
  [[nodiscard]] virtual bool settled() const = 0;
  /// True while it is under way by itself and a contact that goes down inside it should stop it.
  [[nodiscard]] virtual bool catches() const { return false; }
  [[nodiscard]] virtual Accessible accessible() const = 0;

  // Contacts.

  /// True when a contact that goes down at `at` is on it. What sticks out of the part it lies in is not seen
  /// and takes nothing.
  [[nodiscard]] virtual bool takes(Point at) const;
  /// What it would do with a contact that goes down as `sample`.
  [[nodiscard]] virtual Wish wish(const Sample&) const { return {}; }
  /// True when a drag towards `side` would move it now; a list at its end says no.
  [[nodiscard]] virtual bool can_go(Side) const { return true; }
  /// A sample of a contact. The part captures it by answering true to its down, and then gets all of it, to
  /// its up or cancel; what it answers later counts for nothing. While `contact.contested` it must not begin
  /// a drag.
  virtual bool touch(const Contact& contact, const Sample& sample) = 0;
  /// Another part won the contact: the press came to nothing, and nobody cancelled anything.
  virtual void lose(const Contact& contact, const Sample& sample);
  /// The part of the last move that it could not follow, dp; what is left is offered to the parts around it.
  [[nodiscard]] virtual Point leftover() const { return {}; }
  /// Nobody else takes what was left over: its bound may yield.
  virtual void strain() {}
  /// Gets a contact in the middle of a drag; the drag counts from `anchor`, so that nothing jumps. False when
  /// it cannot.
  virtual bool take_over(const Contact&, Point /*anchor*/) { return false; }
  /// Gives a contact away in the middle of a drag, and stays where it is.
  virtual void hand_over() {}
  /// A contact that it had a part in has ended with another part.
  virtual void left_behind(const Contact&) {}
  /// Gets what is left of a flick, dp/s, from a part that is at its bound. False when it cannot go on with
  /// it.
  virtual bool take_momentum(Point) { return false; }
  /// Shows itself ahead by as much of `ahead` (dp) as it can, since the contact will be there when the screen
  /// is lit; returns what it cannot show. Decides nothing.
  virtual Point foresee(Point ahead) { return ahead; }

  // Keys and calls.

  /// A key went down. True when the part used it.
  virtual bool press(Key) { return false; }
  /// The phone's back. True when the part used it.
  virtual bool back() { return false; }
  /// Does one of the actions it tells assistive technology of, or its kind's calls. True when it could.
  virtual bool act(std::string_view /*action*/) { return false; }

  // Time and cells.

  /// When something next happens by itself; `never` when nothing does.
  [[nodiscard]] virtual Micros due() const = 0;
  /// Lets time pass to `now`.
  virtual void advance(Micros now) = 0;
  /// A cell it shows has changed, by `around().write`.
  virtual void heard() {}
  /// Tells its place to a cell that follows it while it moves.
  virtual void tell_place() {}
  /// The cell it tells its place to, while it moves and others watch that: these must know before anything
  /// happens. Else null.
  [[nodiscard]] virtual const void* shared_place() const { return nullptr; }

  /// Records a decision of this part's at the present time. For parts and what they are made of.
  void decide(const Answer& answer, std::initializer_list<Fact> facts = {}) const {
    voice_.say(around_->now, answer, facts);
  }
  [[nodiscard]] const Voice& voice() const { return voice_; }
  /// While it lives, what the part writes to its cells carries other parts along, without motion of their
  /// own.
  class Carrying {
   public:
    explicit Carrying(const Part& part) : around_(part.around_), before_(part.around_->write) {
      around_->write = Write::carried;
    }
    Carrying(const Carrying&) = delete;
    Carrying& operator=(const Carrying&) = delete;
    ~Carrying() { around_->write = before_; }

   private:
    Surroundings* around_;
    Write before_;
  };
  /// A cell of the part has changed: leads to `heard` when the present event is over. For watchers of its
  /// cells.
  void hear();

 protected:
  /// Other parts come before it, or no longer do: from `fades` on, whoever draws looks at its opacity.
  enum class Sight : std::uint8_t {
    clear,
    fades,  ///< nothing of it or in it is to be drawn while its opacity is 0
    behind  ///< nothing of it or in it is to be drawn
  };
  void set_sight(Sight sight) { sight_ = sight; }
  /// Does what the app asks of the part, now or when the present event is over: for an `open()` of its own.
  void ask(std::function<void()> deed);

 private:
  friend class Stage;
  friend class Routing;
  friend class DueList;

  // What a stage keeps of it.
  struct Post {
    std::size_t slot = 0;
    std::size_t heap_at = 0;  // its place among those with something due, from 1; 0: none
    Micros due = never;
    std::uint64_t age = 0;  // parts due at the same time go in the order in which they were added
    bool settled = true;
    bool active = false;  // is in the list of those that are not settled
    bool shares = false;  // is in the list of those that share their place
    enum class Heard : std::uint8_t { no, soon, later } heard = Heard::no;
    Write write = Write::travels;
    bool gone = false;  // removed, and still being told so
    bool hidden = false;
    bool disabled = false;
    bool doomed = false;  // is removed as soon as all in it that leaves has left
  };

  std::string id_;
  Voice voice_;
  Box laid_;
  Placement placement_;
  Surroundings* around_;
  Standing standing_;
  Part* outer_ = nullptr;
  Part* first_ = nullptr;  // the part it stands back for
  std::function<void(const Box&)> on_laid_;
  std::unique_ptr<const Feels> own_feels_;
  Sight sight_ = Sight::clear;
  Post post_;
};

/// Whether `inner` is `outer`, or lies in it at any depth.
[[nodiscard]] inline bool lies_in(const Part& inner, const Part& outer) {
  const Part* at = &inner;
  while (at != nullptr && at != &outer) at = at->outer();
  return at != nullptr;
}

/// What a part's `reduced_motion` is called, in the order of `PartReduced`.
inline constexpr std::array part_reduced_names{"as-screen", "full", "fade", "still"};
/// What an axis is called.
inline constexpr std::array axis_names{"horizontal", "vertical"};
/// What `Standing::towards` is called.
inline constexpr std::array towards_names{"any", "left", "up", "right", "down"};

/// "" when a part can be moved by `passage`: gone once, so that it comes to rest; else what is wrong with it.
[[nodiscard]] std::string passage_fault(const Passage& passage);

namespace questions {
inline constexpr Question key{"what does the key do?"};
}
namespace answers {
inline constexpr Answer key_moves{&questions::key, "moves it", true, "a key sends it from {from} to {to}",
                                  "key: to {to}"};
inline constexpr Answer key_at_end{&questions::key, "nothing, it is there", false,
                                   "a key does nothing: it stands at {from} already, as far as it goes",
                                   "key: at its end"};
inline constexpr Answer key_held{&questions::key, "nothing, a finger has it", false,
                                 "a key does nothing: a finger has it", "key: held"};
inline constexpr Answer key_activates{&questions::key, "activates it", true, "a key activates it",
                                      "key: activated"};
inline constexpr std::array key_answers{&key_moves, &key_at_end, &key_held, &key_activates};
}  // namespace answers

}  // namespace ubbo
