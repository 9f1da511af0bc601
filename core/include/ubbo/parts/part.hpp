#pragma once

#include <array>
#include <concepts>
#include <cstdint>
#include <functional>
#include <memory>
#include <string>
#include <utility>

#include "ubbo/enter_exit/visual_state.hpp"
#include "ubbo/parts/accessible.hpp"
#include "ubbo/parts/container.hpp"
#include "ubbo/parts/content.hpp"
#include "ubbo/parts/context.hpp"
#include "ubbo/parts/drag_surface.hpp"
#include "ubbo/parts/layer_part.hpp"
#include "ubbo/parts/placement.hpp"
#include "ubbo/parts/timed_member.hpp"
#include "ubbo/touch/contacts.hpp"
#include "ubbo/touch/gesture.hpp"

namespace ubbo {

struct PartKind;

/// The directions in which one part yields to another.
enum class YieldDirection : std::uint8_t { any, left, up, right, down };

/// How a part stands to the others that want the same contact.
struct ContactRules {
  std::string inside{};     ///< the part it lies in, which wants its contacts too; "": none
  std::string yields_to{};  ///< a part it leaves a contact to where that one can use it; "": none
  YieldDirection yield_direction =
      YieldDirection::any;  ///< only in this direction: a list yields to its sheet upwards
  bool observes = false;    ///< may capture each contact on it, also where another part owns that
};

/// What a part would do with a contact that goes down on it.
struct DragInterest {
  bool handle = false;      ///< a handle is under the contact: along the axes it follows nobody takes it away
  bool horizontal = false;  ///< it follows horizontal drags
  bool vertical = false;    ///< it follows vertical drags
  bool after_hold =
      false;  ///< where a part around it follows vertical drags too, only once it was held still

  [[nodiscard]] bool follows(Axis axis) const { return axis == Axis::horizontal ? horizontal : vertical; }
};

/// Why a part does not get the end of a contact that it had.
enum class LetGo : std::uint8_t {
  cancelled,  ///< by the system, or because the part was moved, hidden or removed
  lost        ///< another part won it
};

/// One component. It has a place on the screen, takes the contacts it has captured, and is told the time. The
/// caller of `capture`, `move`, `lift`, `let_go`, `press` or `cell_changed` has let time pass to
/// `context().now` before, so that everything of the part that was due has happened, and calls `update`
/// after. What it reads of itself is as it is at `context().now`.
///
/// What moves, and what it waits for, are members that register with it (`Rail`, `Clocked<Mover>`, `Alarm`):
/// when it is due and whether it is at rest follows from them. What few kinds need stands in interfaces of
/// its own: `Container`, `LayerPart`, `BackTaker`, `DragSurface`.
///
/// docs/own-part.md says how to make one.
class Part {
 public:
  /// `box` is where it stands at first, dp on the screen.
  Part(std::string id, const Box& box, Context& context);
  Part(const Part&) = delete;
  Part& operator=(const Part&) = delete;
  virtual ~Part() = default;

  // What a kind of part says of itself. Only what it needs is overridden.

  /// What it is, and all that scenes, readings, films, skins and reports know of it.
  [[nodiscard]] virtual const PartKind& kind() const = 0;
  /// Tells assistive technology its label, value and state. Its role, its keys, and whether it is disabled
  /// are there already.
  virtual void present(Accessible& /*told*/) const {}
  /// How far it is from where it was put, dp.
  [[nodiscard]] virtual Point moved() const { return {}; }
  /// How it shows with all that lies in it: for drawing. Its offset is what `moved` says. What is scaled or
  /// turned takes touches where it lies.
  [[nodiscard]] virtual VisualState visual_state() const { return {.offset = moved()}; }
  /// True when a contact that goes down at `at` is on it. What sticks out of the part it lies in is not seen
  /// and takes nothing.
  [[nodiscard]] virtual bool takes(Point at) const;
  /// What it would do with a contact that goes down as `sample`.
  [[nodiscard]] virtual DragInterest drag_interest(const Sample&) const { return {}; }
  /// A contact went down on it. True when the part captures it: then it gets its moves and its lift, or is
  /// told that it is let go, and gets nothing of any other.
  virtual bool capture(const Contact&, const Sample&) { return false; }
  /// A contact that it captured moved. While `contact.contested` it must not begin a drag.
  virtual void move(const Contact&, const Sample&) {}
  /// A contact that it captured was lifted, at a place it may not have been told of yet.
  virtual void lift(const Contact&, const Sample&) {}
  /// A contact that it captured was cancelled or lost.
  virtual void let_go(const Contact& /*contact*/, LetGo /*how*/) {}
  /// A key went down. True when the part used it.
  virtual bool press(Key) { return false; }
  /// A cell it shows has changed, by `context().write`. Also called when it is added.
  virtual void cell_changed() {}
  /// Its box was laid anew, or the reading direction changed; `layout_box()` is the box. A size that does not
  /// do must be lived with.
  virtual void resized() {}
  /// An event has reached it: a touch, a key, a call, a write, something of it that was due, a new box. It
  /// makes its state complete, which alarms run, what the app is to be told, from what its members are now.
  virtual void update() {}

  /// How it presents itself to assistive technology.
  [[nodiscard]] Accessible accessible() const;
  [[nodiscard]] const std::string& id() const { return id_; }
  [[nodiscard]] const Context& context() const { return *context_; }

  /// Judges touches of this part by a feel of its own from the next sample on, or by the stage's again. What
  /// is decided before it is known whose a contact is (palms, edges that swallow touches, smoothing) stays
  /// the stage's; a contest is decided by the feel of the part the contact went down on. Throws
  /// `std::invalid_argument`.
  void set_feels(const Feels& feels);
  void reset_feels() { own_feels_.reset(); }
  [[nodiscard]] bool has_own_feels() const { return own_feels_ != nullptr; }
  /// The feel by which `tool` is judged here.
  [[nodiscard]] const Feel& feel_for(Tool tool) const {
    return (own_feels_ ? *own_feels_ : context_->feels).of(tool);
  }

  /// By what a wheel scrolls and steps it.
  [[nodiscard]] const WheelFeel& wheel_feel() const {
    return (own_feels_ ? *own_feels_ : context_->feels).wheel;
  }

  /// What is shown of it beside its label.
  [[nodiscard]] const Content& content() const;
  void set_content(Content content);

  // Where it is.

  /// Where it is on the screen now: where it was put, carried along by what it lies in.
  [[nodiscard]] Box box() const;
  /// Where it was put, nothing carried.
  [[nodiscard]] const Box& layout_box() const { return layout_box_; }
  [[nodiscard]] const Placement& placement() const { return placement_; }
  /// The part it lies in, or null.
  [[nodiscard]] const Part* outer() const { return outer_; }
  [[nodiscard]] Part* outer() { return outer_; }
  /// How it stands to others.
  [[nodiscard]] const ContactRules& contact_rules() const { return contact_rules_; }
  /// False when it, or what it lies in, is hidden or absent: it takes nothing, has no focus, and is not
  /// drawn.
  [[nodiscard]] bool visible() const;
  /// False when nothing of it is to be drawn: it is not visible, or so far behind others that it cannot be
  /// seen.
  [[nodiscard]] bool in_sight() const;
  /// True when it, or what it lies in, is being removed and plays its way out: it answers nothing any more.
  [[nodiscard]] bool removing() const;
  /// True when it was hidden itself.
  [[nodiscard]] bool hidden() const { return post_.hidden; }
  /// False when it, or what it lies in, is disabled: it is there and answers nothing.
  [[nodiscard]] bool enabled() const;
  /// Called after its box was laid anew, such as when the screen turned; the app may place parts from here.
  void on_layout(std::function<void(const Box&)> call) { on_laid_ = std::move(call); }

  /// The box in which what lies in it is seen and takes contacts, dp on the screen.
  [[nodiscard]] Box window() const {
    return (container_ != nullptr ? container_->window() : std::nullopt).value_or(box());
  }
  /// How much it shows that a mouse or pen is over it, 0 to 1, eased in and out.
  [[nodiscard]] double hover() const;
  /// How much one piece of it shows that, by its key (see `PieceUnder`).
  [[nodiscard]] double hover(int piece, HoverShare share = HoverShare::shown) const;
  /// How visible it and what lies in it is, 0 to 1.
  [[nodiscard]] double opacity() const { return visual_state().opacity; }
  /// How far it carries one of the parts that lie in it from where that was put, dp.
  [[nodiscard]] Point carries_part(const Part& inner) const {
    return container_ != nullptr ? container_->carries(inner) : moved();
  }
  /// True where it gives each of the parts that lie in it a place of its own, or its own time to be seen.
  [[nodiscard]] bool places_children() const {
    return container_ != nullptr && container_->places_children();
  }
  /// How it shows one of the parts that lie in it, beside that offset: for drawing.
  [[nodiscard]] VisualState visual_state_of(const Part& inner) const {
    return container_ != nullptr ? container_->shows(inner) : VisualState{};
  }
  /// How one of the parts that lie in it is there by it.
  [[nodiscard]] ChildUse child_use_of(const Part& inner) const {
    return container_ != nullptr ? container_->child_use(inner) : ChildUse::used;
  }
  /// True when it is one that comes and goes over others.
  [[nodiscard]] bool is_layer() const { return layer_ != nullptr; }
  /// True while it is a layer that is here, or on its way.
  [[nodiscard]] bool open_layer() const { return layer_ != nullptr && layer_->is_open(); }
  /// True while it is a layer that is not on the screen.
  [[nodiscard]] bool absent() const { return layer_ != nullptr && layer_->is_absent(); }
  /// While it is absent: a contact that goes down at `at` is on it nevertheless, and may pull it in.
  [[nodiscard]] bool pulled_at(Point at) const { return layer_ != nullptr && layer_->pulls_in(at); }
  /// True while nothing that lies in it takes a contact.
  [[nodiscard]] bool shut() const { return layer_ != nullptr && layer_->is_shut(); }
  /// True while nothing below it, on the whole screen, takes contacts, the focus or back.
  [[nodiscard]] bool modal() const { return layer_ != nullptr && layer_->is_modal(); }
  /// It is a layer on its way out.
  [[nodiscard]] bool leaving() const { return layer_ != nullptr && layer_->is_leaving(); }
  /// True when a drag towards `side` would move it now.
  [[nodiscard]] bool can_go(Side side) const { return surface_ == nullptr || surface_->can_go(side); }

  // Time.

  /// What it does by itself, as it is now.
  [[nodiscard]] Timing timing() const {
    Timing all{.settled = !held()};
    for (const TimedMember* one = timed_; one != nullptr; one = one->next_) one->add_timing(all);
    return all;
  }
  /// True when nothing of it moves and it holds no contact.
  [[nodiscard]] bool settled() const { return timing().settled; }
  /// True while it is under way by itself and a contact that goes down inside it should stop it.
  [[nodiscard]] bool catches() const { return timing().catches; }
  /// When something next happens by itself; `never` when nothing does.
  [[nodiscard]] Micros due() const { return timing().due; }
  /// Lets time pass to `now`: what was due happens.
  void advance(Micros now) {
    for (TimedMember* one = timed_; one != nullptr; one = one->next_) one->advance(now);
  }
  /// True while a contact has it.
  [[nodiscard]] bool held() const { return post_.contacts > 0; }
  /// A write to its cells, or a call, waits for the lift.
  [[nodiscard]] bool asked() const {
    return post_.heard != Post::Heard::no || static_cast<bool>(post_.waits_for_lift);
  }

  /// Records a decision of this part's at the present time. For parts and what they are made of.
  template <class... Facts>
  void decide(const AnswerWith<Facts...>& answer, typename Facts::Given... values) const {
    static_assert(sizeof...(Facts) <= Decision::max_facts);
    if (log_.journal != nullptr) decide_facts(answer, {detail::fact_of(Facts::spec, values)...});
  }
  [[nodiscard]] const DecisionLog& log() const { return log_; }
  /// How what begins to move now is to travel, where the part's own setting is `own`: not at all where the
  /// app asked for it at once.
  [[nodiscard]] Reduced reduced(PartReduced own) const {
    return context_->write == Write::immediate ? Reduced::still : reduced_for(own, context_->reduced_motion);
  }
  /// Tells the app of a moment that a hand should feel, one of a kind at a time, whatever of the part has
  /// come to it. For parts and what they are made of.
  void moment(MomentKind kind) {
    if (context_->cause == Cause::wheel && kind == MomentKind::threshold_crossed) return;  // no hand is on it
    const auto bit = static_cast<std::uint8_t>(1U << static_cast<unsigned>(kind));
    if (std::exchange(post_.felt_at, context_->now) != context_->now) post_.felt = 0;
    if ((std::exchange(post_.felt, static_cast<std::uint8_t>(post_.felt | bit)) & bit) == 0)
      tell(context_->on_moment, Moment{kind, context_->now, this});
  }
  /// It gets nothing more of the contacts that it has captured. For parts and what they are made of.
  void forget_contacts() { post_.captured = 0; }
  /// A cell of the part has changed: leads to `cell_changed` when the present event is over, or after the
  /// lift. For watchers of its cells.
  void hear();

 protected:
  /// Calls the app's `call`, when the event is over and every part is complete.
  template <class... As, class... Bs>
  void tell(const std::function<void(As...)>& call, const Bs&... args) const {
    if (!call) return;
    if (context_->outbox != nullptr)
      context_->outbox->add(call, args...);
    else
      call(args...);
  }
  /// Other parts come before it, or no longer do: from `fades` on, drawing looks at its opacity.
  enum class Sight : std::uint8_t {
    clear,
    fades,  ///< nothing of it or in it is to be drawn while its opacity is 0
    behind  ///< nothing of it or in it is to be drawn
  };
  void set_sight(Sight sight) { sight_ = sight; }
  /// Whether a contact that goes down at `at` reaches it through what it lies in.
  [[nodiscard]] bool reached(Point at) const;
  /// Does what the app asks of the part, now or when the present event is over: for an `open()` of its own.
  void ask(std::function<void()> action, WhileHeld how = WhileHeld::immediate);
  /// A layer that was open is to go above the others again.
  void rise() { post_.rises = true; }

 private:
  void decide_facts(const Answer& answer, std::initializer_list<Fact> facts) const;

  friend class Stage;
  friend class Routing;
  friend class DueList;
  friend class Layers;
  friend class Layout;
  friend class CellNews;
  friend class TimedMember;

  // What a stage keeps of it.
  struct Post {
    std::size_t slot = 0;
    std::size_t heap_at = 0;  // its place among those with something due, from 1; 0: none
    Micros due = never;
    std::uint64_t age = 0;  // parts due at the same time go in the order in which they were added
    int contacts = 0;       // that it has
    int idle = 0;           // how often it was due and did nothing about it
    bool settled = true;
    bool active = false;  // is in the list of those that are not settled
    bool shares = false;  // is in the list of those that share their place
    bool open = false;    // as a layer
    bool rises = false;
    bool there = false;        // is on its stage
    bool heard_early = false;  // a cell changed while it was being made
    enum class Heard : std::uint8_t { no, soon, later, after_lift } heard = Heard::no;
    Write write = Write::travels;
    bool gone = false;  // removed, and still being told so
    bool hidden = false;
    bool disabled = false;
    bool doomed = false;         // is removed as soon as all in it that leaves has left
    std::uint8_t felt = 0;       // a bit for each kind of moment that was told of `felt_at`
    std::uint16_t captured = 0;  // a bit for each contact, by its slot
    Micros felt_at = never;
    std::function<void()> waits_for_lift{};
  };

  template <class P>
  friend std::unique_ptr<P> make_part(std::string id, const Box& box, typename P::Settings&& settings,
                                      Context& context);
  static const void* shared_by(const TimedMember& member) {
    Timing timing;
    member.add_timing(timing);
    return timing.shares;
  }
  template <class F>
  void each_shared_cell(F&& look) const {
    for (const TimedMember* one = timed_; one != nullptr; one = one->next_)
      if (const void* cell = shared_by(*one)) look(cell);
  }
  /// What of it moves by itself and tells its place by `cell` goes along with another part. True: something
  /// does.
  bool carry(const void* cell) {
    bool any = false;
    for (TimedMember* one = timed_; one != nullptr; one = one->next_)
      if (shared_by(*one) == cell) {
        one->carry(cell);
        any = true;
      }
    return any;
  }
  /// Cells that follow it say where it is.
  void tell_places() {
    for (TimedMember* one = timed_; one != nullptr; one = one->next_) one->tell_place();
  }

  std::string id_;
  DecisionLog log_;
  Box layout_box_;
  Placement placement_;
  Context* context_;
  ContactRules contact_rules_;
  Part* outer_ = nullptr;
  Part* first_ = nullptr;  // the part it yields to
  std::function<void(const Box&)> on_laid_;
  std::unique_ptr<const Feels> own_feels_;
  std::unique_ptr<const Content> content_;  // null: none
  TimedMember* timed_ = nullptr;            // its first
  Container* container_ = nullptr;
  LayerPart* layer_ = nullptr;
  BackTaker* back_taker_ = nullptr;
  DragSurface* surface_ = nullptr;
  Sight sight_ = Sight::clear;
  Post post_;
};

/// Makes a part of the class `P`, which may be a `Container`, `LayerPart`, `BackTaker` or `DragSurface`
/// besides. For stages, and for code that keeps parts without one.
template <class P>
std::unique_ptr<P> make_part(std::string id, const Box& box, typename P::Settings&& settings,
                             Context& context) {
  auto made = std::make_unique<P>(std::move(id), box, std::move(settings), context);
  Part& part = *made;
  if constexpr (std::derived_from<P, Container>) part.container_ = made.get();
  if constexpr (std::derived_from<P, LayerPart>) part.layer_ = made.get();
  if constexpr (std::derived_from<P, BackTaker>) part.back_taker_ = made.get();
  if constexpr (std::derived_from<P, DragSurface>) part.surface_ = made.get();
  return made;
}

/// A part of which nothing is seen or touched, for members that no other part has.
[[nodiscard]] std::unique_ptr<Part> unseen_part(Context& context);

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
[[nodiscard]] inline const char* name_of(Axis axis) { return axis_names[static_cast<std::size_t>(axis)]; }
/// What a `YieldDirection` is called.
inline constexpr std::array yield_direction_names{"any", "left", "up", "right", "down"};

namespace questions {
inline constexpr Question key{"part.key"};
inline constexpr Question asked_to{"part.asked-to"};
}  // namespace questions
namespace answers {
using Moved = AnswerWith<OwnNumber<"from">, OwnNumber<"to">>;
inline constexpr Moved key_moves{"part.key-moves", &questions::key, true};
inline constexpr Moved key_at_end{"part.key-at-end", &questions::key, false};
inline constexpr AnswerWith<> key_held{"part.key-held", &questions::key, false};
inline constexpr AnswerWith<> key_activates{"part.key-activates", &questions::key, true};
inline constexpr Moved wheel_moves{"part.wheel-moves", &questions::key, true};
inline constexpr Moved wheel_at_end{"part.wheel-at-end", &questions::key, false};
inline constexpr Moved call_moves{"part.call-moves", &questions::asked_to, true};
inline constexpr Moved call_at_end{"part.call-at-end", &questions::asked_to, false};
inline constexpr AnswerWith<> call_activates{"part.call-activates", &questions::asked_to, true};
}  // namespace answers

}  // namespace ubbo
