#pragma once

#include <algorithm>
#include <concepts>
#include <functional>
#include <memory>
#include <string>
#include <string_view>
#include <unordered_map>
#include <utility>
#include <vector>

#include "ubbo/parts/hover.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/stage/cell_news.hpp"
#include "ubbo/stage/due_list.hpp"
#include "ubbo/stage/event_queue.hpp"
#include "ubbo/stage/focus.hpp"
#include "ubbo/stage/layers.hpp"
#include "ubbo/stage/layout.hpp"
#include "ubbo/stage/routing.hpp"
#include "ubbo/stage/seen_pieces.hpp"
#include "ubbo/stage/stack_order.hpp"
#include "ubbo/stage/wheeling.hpp"

namespace ubbo {

/// What a stage is made with.
struct StageSettings {
  double width = 360.0;   ///< dp
  double height = 720.0;  ///< dp
  Feel feel{};            ///< for fingers
  Feel stylus = feels::stylus;
  Feel mouse = feels::mouse;
  WheelFeel wheel{};
  Insets safe{};  ///< dp that notch and system bars take
  bool right_to_left = false;
  Reduced reduced_motion = Reduced::full;
  Transition hover_transition = Timed{Curve::ease_out(), Micros{140'000}};
  double journal = 0.0;     ///< room for decisions; 0: the journal is off
  Keep keep = Keep::first;  ///< which of them a full journal keeps
};

template <>
std::span<const Setting<Insets>> settings_of<Insets>();
template <>
std::span<const Setting<StageSettings>> settings_of<StageSettings>();

/// A part of a stage, by a name that no later part takes over when it is gone.
struct Handle {
  std::size_t slot = static_cast<std::size_t>(-1);
  std::size_t generation = 0;

  friend bool operator==(const Handle&, const Handle&) = default;
};

/// A scene at run time: routes touches and keys to parts and tells them the time.
///
/// *Events.* A touch, a key, a call, a write to a cell, something that comes due: each happens at a time of
/// its own, one after another in order of their times, whatever frames come between; so outcomes never depend
/// on the frame rate. Within each event the order is the same: the parts it reaches make their own state
/// complete; then cells are told, and the parts that show them follow; then the app's callbacks run; then
/// parts are laid out; then happens what callbacks asked for, as events of their own at the same time. A
/// write to a cell, outside of any event, happens when the stage is next told the time, by `advance`,
/// `touch`, `press` or `at`.
///
/// *Under a finger.* What the app asks of a part that a finger holds, by a write or a call that moves it,
/// waits for the lift, and of several the last one counts. Removing, resetting and back cancel the contact
/// and count at once. Other settings leave what is under the finger alone.
///
/// *Cost.* `touch`, `press`, `advance` and reads allocate nothing once the parts are added, and take no lock.
/// A frame costs what comes due in it, and one call for each part that moves; a part at rest costs nothing. A
/// stage, its parts and its cells belong to one thread.
///
/// *Exceptions.* What changes the stage throws `std::invalid_argument` for what is not taken, and then
/// changes nothing. Nothing else throws but the app's own callbacks: whatever they throw, all that the event
/// leads to happens, the other callbacks are called, and the first exception passes out of the call in the
/// end.
class Stage final : private PartOwner, private Routing::Timekeeper {
 public:
  /// Throws `std::invalid_argument` for a setting out of its range.
  explicit Stage(StageSettings settings = {});
  Stage(const Stage&) = delete;  // parts know where they stand
  Stage& operator=(const Stage&) = delete;
  ~Stage();

  // Parts. Each of these may be called at any time, also in callbacks and while a finger is down: a part that
  // is removed, moved, hidden or disabled under a finger has its contact cancelled.

  /// "" or why a part cannot be added so: the id is taken, empty or longer than 63 bytes, the placement is
  /// none, or `contact_rules` name a part that is not there.
  [[nodiscard]] std::string fault(std::string_view id, const Placement& placement,
                                  const ContactRules& contact_rules) const;
  /// Adds a part on top of those before it: `stage.add<P>("frames", {.x = 40, …}, {.from = 0, …})`.
  /// Throws `std::invalid_argument` with the fault, or when the part refuses its settings. The reference
  /// stays good until the part is removed.
  template <std::derived_from<Part> P>
  P& add(std::string id, const Placement& placement, typename P::Settings settings,
         ContactRules contact_rules = {}) {
    const Box box = begin_add(id, placement, contact_rules);
    auto part = make_part<P>(std::move(id), box, std::move(settings), context_);
    P& added = *part;
    finish_add(std::move(part), placement, std::move(contact_rules));
    return added;
  }
  /// Adds a part in a box of its container, dp.
  template <std::derived_from<Part> P, std::same_as<Box> B>
  P& add(std::string id, const B& box, typename P::Settings settings, ContactRules contact_rules = {}) {
    return add<P>(std::move(id), Placement::of(box), std::move(settings), std::move(contact_rules));
  }
  /// Adds a part of any kind; `settings` must be of that kind, or it throws.
  Part& add(const PartKind& kind, std::string id, const Placement& placement, AnySettings settings,
            ContactRules contact_rules = {});
  /// Takes a part away, with all that lies in it. What is open in it and has a way out leaves first, and it
  /// is gone when that has. References to it are good until then, and until the present event is over.
  void remove(Part& part);
  /// Puts it elsewhere, or at another size; what lies in it is laid out again. Throws
  /// `std::invalid_argument`.
  void place(Part& part, const Placement& placement);
  /// Above all other parts of its container, with all that lies in it; or below them.
  void raise(Part& part);
  void lower(Part& part);
  /// A part that is hidden takes nothing, has no focus and is not drawn; nor has what lies in it.
  void show(Part& part, bool visible = true) override;
  void hide(Part& part) { show(part, false); }
  /// A part that is disabled is there and answers nothing; nor does what lies in it.
  void enable(Part& part, bool enabled = true);
  void disable(Part& part) { enable(part, false); }
  /// Changes settings with the checks of adding: `stage.change(slider, [](auto& s) { s.step = 2; })`. Throws
  /// `std::invalid_argument` and changes nothing when the part refuses them.
  template <std::derived_from<Part> P, class Edit>
  void change(P& part, Edit&& edit) {
    typename P::Settings next = part.settings();
    std::forward<Edit>(edit)(next);
    change_to(part, AnySettings(std::move(next)));
  }
  /// Changes a part of any kind; `settings` must be of that kind, or it throws.
  void change_to(Part& part, AnySettings settings);

  /// The part with this id, or null. O(1).
  [[nodiscard]] Part* find(std::string_view id) const;
  [[nodiscard]] Handle handle(const Part& part) const;
  /// The part of a handle, or null when it is gone.
  [[nodiscard]] Part* get(Handle handle) const;
  /// The parts from the lowest to the topmost.
  [[nodiscard]] const std::vector<Part*>& parts() const { return order_.parts(); }

  /// The part that a finger going down at `at` now would be offered to first, as parts stand: the topmost
  /// that is enabled and takes contacts there, unless something before it keeps them off; one that is under
  /// way and catches it; a drawer that is away and may be pulled in there. Null: none. O(parts).
  [[nodiscard]] const Part* part_at(Point at) const { return routing_.offered(order_.parts(), at); }
  /// Hands out the pieces of all parts in sight as they are drawn, from the lowest to the topmost, with where
  /// they are on the screen, how visible, and what clips them: `stage.draw([](const Part&, const Piece&
  /// piece) { … })`. With any renderer that is all there is to do.
  template <class F>
  void draw(F&& out) const {
    for (const Part* part : parts()) seen_pieces(*part, [&](const Piece& piece) { out(*part, piece); });
  }

  // Events.

  /// Takes one sample from the platform. A bad one is dropped or mended, and recorded. A sample older than
  /// the last `advance` is good, as long as it is not older than the last thing that happened. Returns true
  /// when a part has the contact, so that the app need not offer it elsewhere; inside a callback false.
  bool touch(const Sample& sample);
  /// Takes one report of a wheel or trackpad. What is under the pointer follows as if a finger dragged it
  /// (lists, panes, sheets, carousels, zoom planes), hands over at its end, and lands when the wheel rests;
  /// or takes a step for each notch (sliders, ratings, tabs, dots, carousels), where it has the focus or
  /// nothing around it scrolls that way. Returns true when something follows; inside a callback false.
  bool wheel(const WheelTurn& turn);
  /// Lets time pass to `now`; call it once a frame. A time before the last one changes nothing; one that lies
  /// over ten seconds before what has happened shows that some sample's clock was wrong, and goes on from
  /// there.
  void advance(Micros now);
  /// A key goes down at `time`. Tab and back-tab move the focus; escape and back go as `back`; other keys go
  /// to the part that has the focus. Returns true when the key was used; inside a callback false.
  bool press(Key key, Micros time);
  /// The phone's back at `time`: the topmost part that wants it gets it. Returns as `press`.
  bool back(Micros time) { return press(Key::back, time); }
  /// The phone's back as a gesture that begins, goes on and ends: the topmost part that wants back shows what
  /// that would do as far as the gesture has come, 0 to 1. False: nobody wants it. In a callback false, and
  /// done when the event is over.
  bool back_begins(Micros time);
  void back_moves(double progress, Micros time);
  /// It was given up: the part goes back to where it was.
  void back_cancelled(Micros time);
  /// It was finished: as `back`, from where the gesture has come. False when the part does not want it any
  /// more.
  bool back_finished(Micros time);
  /// Has a part do an action or call at `time`. Returns true when it could; inside a callback false.
  bool act(Part& part, const PartAction& action, Micros time);
  /// Does an action by its name; false when the part has none of that name.
  bool act(Part& part, std::string_view action, Micros time) {
    const PartAction* found = find_action(part.kind(), action);
    return found != nullptr && act(part, *found, time);
  }
  /// Runs `action` as one event at `time`: writes, calls and changes in it all happen then.
  void at(Micros time, std::function<void()> action);
  /// Runs `action` as one event when the stage's time has come to `time`, whatever the frames are; at once
  /// where it has. `cancel` takes it back.
  TimerId call_at(Micros time, std::function<void()> action);
  /// Runs `action` as one event when `wait` has passed from the stage's present time.
  TimerId call_after(Micros wait, std::function<void()> action) {
    return call_at(now() + wait, std::move(action));
  }
  /// Takes back a `call_at` or `call_after`. Returns false when it has happened already.
  bool cancel(TimerId timer) { return events_.cancel(timer); }
  /// What movers, rails and alarms of the app's own register with, to run on the stage's clock:
  /// `ubbo::Clocked<ubbo::Mover> lift{stage.own(), 0.0}`. Until they rest the stage is not settled. Send them
  /// within `at`. They must go before the stage does.
  [[nodiscard]] Part& own();
  /// Runs `writes`: what it writes to cells and asks of parts shows at once, without motion.
  void immediately(const std::function<void()>& writes);
  /// What people expect to find again when the system has ended the app in the meantime, as bytes: where
  /// lists and panels stand, what is set, chosen and open, of all parts that have an id. O(parts).
  [[nodiscard]] std::vector<std::uint8_t> save() const;
  /// Restores what `save` returned, at `time` and without motion: parts and their cells have it by the end of
  /// the event, or after the lift where a finger holds one. Parts that there are no longer, or that are of
  /// another kind now, are passed over; others keep what they have. Returns "", or what is wrong with the
  /// bytes; then nothing is changed. Call it when the screen is built.
  std::string restore(std::span<const std::uint8_t> saved, Micros time);
  /// "" or what is wrong with bytes that are to be what `save` returned.
  [[nodiscard]] static std::string saved_fault(std::span<const std::uint8_t> saved);
  /// Ends every open contact by a cancel, as when the app loses the screen.
  void cancel_contacts();

  /// The screen has another size and safe area from `time` on: contacts are cancelled, and parts laid out
  /// again. Throws `std::invalid_argument` for a size out of its range.
  void set_screen(Size size, const Insets& safe, Micros time);
  /// Another safe area from `time` on, such as when the keyboard comes up or goes: what keeps clear of it is
  /// laid out again, and fingers keep what they have. Throws `std::invalid_argument`.
  void set_safe_area(const Insets& safe, Micros time);
  /// Another reading direction from `time` on: contacts are cancelled, and parts laid out again.
  void set_right_to_left(bool right_to_left, Micros time);
  /// How much motion there is, from the next motion on, as people set it on their phone.
  void set_reduced_motion(Reduced reduced) { context_.reduced_motion = reduced; }
  /// Other touch thresholds, from the next sample on. Throws `std::invalid_argument`.
  void set_feel(const Feel& feel);

  /// Gives the keyboard focus to a part, or to none with "". Returns false when there is no such part, or
  /// none that can use it.
  bool focus(std::string_view id);
  /// The topmost part that keeps all below it from contacts, the focus and back; or null.
  [[nodiscard]] const Part* modal() const { return layers_.modal(); }
  /// The part that has the focus, or null. One that is not in use for a while, such as on a page that another
  /// covers, has it again when it is.
  [[nodiscard]] const Part* focused() const { return focus_.part(); }
  /// The part that a mouse or pen is over without touching, or null: the topmost that would take a press
  /// there; none while a contact is down, behind a modal layer, or by a finger. It changes at the very
  /// microsecond at which a part moves in or away under a pointer that rests.
  [[nodiscard]] const Part* hovered() const { return hover_.over().part; }
  /// What a mouse's pointer is to look like now: what the piece that it holds or is over hints at. O(parts).
  [[nodiscard]] Cursor cursor() const;
  /// Whether to draw a focus ring: keys were used since a contact last went down.
  [[nodiscard]] bool shows_focus() const { return keys_used_ && focused() != nullptr; }

  /// Called when a stage that was settled no longer is, other than by a touch, a wheel or `advance`: start
  /// the frame loop.
  void on_wake(std::function<void()> call) { on_wake_ = std::move(call); }
  /// Told each moment that a hand should feel or an ear hear, once, when the event that led to it is over.
  void on_moment(std::function<void(const Moment&)> call) { context_.on_moment = std::move(call); }
  /// True when nothing moves, no contact is down and no write waits, so that frames may stop until the next
  /// event.
  [[nodiscard]] bool settled() const {
    return unsettled_ == 0 && contacts_.open_count() == 0 && !news_.any_later() && events_.empty();
  }
  /// How many contacts are down.
  [[nodiscard]] std::size_t open_contacts() const { return contacts_.open_count() - wheeling_.contacts(); }
  /// When something next happens by itself; `never` when nothing does before the next event. What moves for
  /// ever is never due.
  [[nodiscard]] Micros due() const;
  [[nodiscard]] Micros now() const { return told(context_.now); }
  [[nodiscard]] double width() const { return context_.screen.w; }
  [[nodiscard]] double height() const { return context_.screen.h; }
  [[nodiscard]] const Insets& safe_area() const { return context_.safe; }
  [[nodiscard]] const Feel& feel() const { return context_.feels.finger; }
  [[nodiscard]] bool right_to_left() const { return context_.right_to_left; }
  [[nodiscard]] Journal& journal() { return context_.journal; }
  [[nodiscard]] const Journal& journal() const { return context_.journal; }

 private:
  class Call;
  // Parts and callbacks that keep sending each other about cannot hang a call: the rest happens at the next
  // one.
  static constexpr int max_events_per_call = 10'000;
  // A part that is due again and again at the same time, so often, gets no more time until something happens
  // to it.
  static constexpr int max_idle = 8;

  void heard(Part& part) override;
  void call(Part& part, WhileHeld how, std::function<void()> action) override;
  bool pass_on(Part& part, Point velocity) override { return routing_.pass_flick(part, velocity); }
  void closing(Part& part, const Transition& transition, bool closes) override;
  // Parts work between these, and what they write to cells is held back until all are complete.
  void before(Part& part) override {
    begin_work();
    part.post_.idle = 0;
    part.advance(context_.now);
  }
  void after(Part& part) override;
  void begin_work() {
    if (!std::exchange(working_, true)) detail::Batch::begin();
  }
  void tell_cells();

  // The app's clock and the stage's own differ once one of them has been found wrong.
  [[nodiscard]] Micros own(Micros told) const {
    return std::clamp(told, -farthest_time, farthest_time) + ahead_;
  }
  [[nodiscard]] Micros told(Micros own) const { return own - ahead_; }

  [[nodiscard]] Box begin_add(const std::string& id, const Placement& placement,
                              const ContactRules& contact_rules);
  void finish_add(std::unique_ptr<Part> part, const Placement& placement, ContactRules contact_rules);
  void do_remove(Part& part);
  template <class F>
  void tell_container(Part& part, F&& news);
  void bury_doomed();
  void bury();
  void let_go_of(Part& part);
  void lay_out();

  void do_or_wait(std::function<void()> action, bool by_app = false);
  // What follows has nothing to do at most samples and frames; then it costs a comparison.
  void share_places() {
    if (news_.any_sharing()) share_all_places();
  }
  void share_all_places();
  void tell_places();
  void tell_time(Micros time);
  void run_until(Micros until) {
    if (const Micros next = next_due(); budget_ <= 0 || (next <= until && next != never)) run_due(until);
  }
  void run_due(Micros until);
  void run_part(Part& part);
  [[nodiscard]] Micros next_due() const {
    const Micros own = own_due();
    return pointed_ ? std::min(own, hover_look_) : own;
  }
  // What the app is told is due: not when the stage only looks again where things move.
  [[nodiscard]] Micros own_due() const {
    const Micros due = std::min(events_.due(), due_list_.due());
    return pointed_ ? std::min({due, hover_due_, wheeling_.due()}) : due;
  }
  void set_time(Micros time) { context_.now = happened_ = std::max(happened_, time); }
  void perform(EventQueue::Event event);
  [[nodiscard]] bool unfinished() const {
    return working_ || news_.any_soon() || layers_.any_changed() || layout_.asked() || !outbox_.empty() ||
           !doomed_.empty() || !graves_.empty();
  }
  void settle_event() {
    if (working_ && detail::Batch::end_untold()) working_ = false;
    if (unfinished()) settle_all();
  }
  // Nothing moves, waits or is due until then: a frame costs a look at these.
  [[nodiscard]] bool nothing_until(Micros until) const {
    return !busy_ && active_.empty() && next_due() > until && !news_.any_later() && !news_.any_sharing() &&
           asked_frame_ <= frame_ && !unfinished();
  }
  void settle_all();
  bool take_sample(const Sample& sample);
  // A sample further ahead of everything else than this, while something moves, is no sample of now.
  static constexpr Micros farthest_ahead = std::chrono::hours(1);
  [[nodiscard]] bool far_ahead(Micros time) const {
    return time - std::max(frame_, happened_) > farthest_ahead && frame_ > -farthest_time && !settled();
  }
  [[nodiscard]] Micros when(Micros told) const;
  bool take_hover(const Sample& sample);
  void look_at_hover() {
    if (pointed_) look_under_pointer();
  }
  void look_under_pointer();
  void look_ahead_of_hover();
  [[nodiscard]] Hover::Over under_pointer() const;
  bool take_wheel(WheelTurn turn);
  bool take_steps(const WheelTurn& turn);
  bool scroll_or_zoom(const WheelTurn& turn, bool zooms);
  [[nodiscard]] bool scrolls(Part* inner, Axis axis, Point at) const;
  [[nodiscard]] Point in_dp(const WheelTurn& turn, const Part* seen) const;
  void turn_on();
  void end_wheel(Phase how);
  bool take_key(Key key);
  bool take_back();
  [[nodiscard]] Part* wants_back(bool& blocked);
  Part* followed_back();
  void frame(Micros now);
  void wake();

  void look_at_own() {
    if (own_ != nullptr) after(*own_);
  }

  Context context_;
  Outbox outbox_;
  std::unique_ptr<Part> own_;  // what the app's own members belong to
  Routing routing_{context_, *this};
  struct Slot {
    std::unique_ptr<Part> part;
    std::size_t generation = 0;
  };
  std::vector<Slot> slots_;
  std::vector<std::size_t> free_slots_;
  std::unordered_map<std::string_view, Part*> by_id_;
  StackOrder order_;
  Focus focus_{order_};
  bool keys_used_ = false;
  Layers layers_{order_, focus_, routing_, *this};
  Layout layout_{order_, context_, *this};
  Hover hover_{context_};
  Wheeling wheeling_;
  bool pointed_ = false;       // a pointer that touches nothing, or a wheel, has been here
  Micros hover_look_ = never;  // when what is under the pointer is looked at again
  Micros hover_due_ = never;   // when another part may be under the pointer, as things move
  bool eventful_ = false;      // something has happened in this call
  std::vector<Part*> graves_;  // removed in this event
  std::vector<Part*> doomed_;  // are removed when what leaves in them has left
  DueList due_list_;
  EventQueue events_;
  CellNews news_;
  std::vector<Part*> active_;  // move and tell a place, and some that have settled since
  std::size_t unsettled_ = 0;
  std::uint64_t next_age_ = 0;
  std::uint64_t last_timer_ = 0;
  Contacts contacts_;
  Handle back_part_{};  // follows a back gesture
  std::function<void()> on_wake_;
  detail::FirstError error_;             // of the app's callbacks, in this call
  Micros happened_ = -farthest_time;     // the time of the last thing that happened
  Micros frame_ = -farthest_time;        // the last time `advance` was given
  Micros asked_frame_ = -farthest_time;  // by an `advance` inside a callback
  Micros ahead_{0};                      // how much the stage's own time is ahead of the app's
  int budget_ = 0;                       // how many more events this call may run
  bool busy_ = false;
  bool working_ = false;  // parts are at work, and cells have yet to be told
  bool woken_ = false;
};

namespace questions {
inline constexpr Question back{"stage.back"};
inline constexpr Question layout{"stage.layout"};
inline constexpr Question endless{"stage.endless"};
inline constexpr Question clock{"stage.clock"};
inline constexpr Question asked{"stage.asked"};
inline constexpr Question idle{"stage.idle"};
}  // namespace questions
namespace answers {
inline constexpr AnswerWith<> back_taken{"stage.back-taken", &questions::back, true};
inline constexpr AnswerWith<> back_begins{"stage.back-begins", &questions::back, true};
inline constexpr AnswerWith<> back_given_up{"stage.back-given-up", &questions::back, false};
inline constexpr AnswerWith<> back_blocked{"stage.back-blocked", &questions::back, false};
inline constexpr AnswerWith<> back_nobody{"stage.back-nobody", &questions::back, false};
inline constexpr AnswerWith<Number<"rounds", "">> layout_restless{"stage.layout-restless", &questions::layout,
                                                                  false};
inline constexpr AnswerWith<Number<"events", "">> callbacks_endless{"stage.callbacks-endless",
                                                                    &questions::endless, false};
inline constexpr AnswerWith<Number<"back", "s">> clock_went_back{"stage.clock-went-back", &questions::clock,
                                                                 false};
inline constexpr AnswerWith<> asked_waits{"stage.asked-waits", &questions::asked, true};
inline constexpr AnswerWith<Number<"times", "">> due_again{"stage.due-again", &questions::idle, false};
}  // namespace answers

}  // namespace ubbo
