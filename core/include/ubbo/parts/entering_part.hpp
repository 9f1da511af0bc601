#pragma once

#include <functional>

#include "ubbo/enter_exit/enter_exit.hpp"
#include "ubbo/enter_exit/one_by_one.hpp"
#include "ubbo/parts/kind.hpp"

namespace ubbo {

/// An edge of the screen; leading and trailing follow the reading direction.
enum class Edge : std::uint8_t { none, left, top, right, bottom, leading, trailing };

/// What an edge is called.
inline constexpr std::array edge_names{"none", "left", "top", "right", "bottom", "leading", "trailing"};

/// The side on which an edge lies; nothing for none.
[[nodiscard]] std::optional<Side> side_at(Edge edge, bool right_to_left);

/// What a thing is just off before it comes and after it has gone: the screen, or what it lies in.
enum class Off : std::uint8_t { screen, container };

/// Where a thing comes from and where it goes, as directions and distances.
struct Travel {
  Edge from_edge = Edge::none;
  double from_distance = 0.0;  ///< dp; 0: from just off that edge
  double from_scale = 1.0;
  double from_turn = 0.0;  ///< degrees, clockwise
  double from_opacity = 1.0;
  Edge to_edge = Edge::none;
  double to_distance = 0.0;  ///< dp; 0: to just off that edge
  double to_scale = 1.0;
  double to_turn = 0.0;  ///< degrees, clockwise
  double to_opacity = 1.0;
  Off just_off = Off::screen;  ///< whose edges these are
};

template <>
std::span<const Setting<Travel>> settings_of<Travel>();

/// How the parts that lie in something enter with it.
struct StaggeredChildren {
  Micros stagger{0};  ///< each starts that long after the one before; 0: all are there from the first
  double stagger_distance = 24.0;  ///< dp each comes by, from the side the thing comes from, or from below
};

template <>
std::span<const Setting<StaggeredChildren>> settings_of<StaggeredChildren>();

/// The visual states of `travel` for `part`, as it is laid.
[[nodiscard]] EnterExitPlan enter_exit_of(const Travel& travel, const Transitions& enter,
                                          const Transitions& exit, const Part& part);

/// Where a part in `box` stands before, while and after it is there, by `plan`.
void enter_exit_places(const EnterExitPlan& plan, const Box& box, const StandTaker& out);

/// A part that enters and leaves: what panels, dialogs and toasts have in common.
///
/// While it is absent, it and what lies in it take no contact and no focus, and cost no time. It takes
/// contacts once it is present, or also while it enters. When a stage removes it, it leaves first.
class EnteringPart : public Part, public Container, public LayerPart {
 public:
  [[nodiscard]] EnterExit::State state() const { return enter_exit_.state(); }
  /// It is here, or on its way.
  [[nodiscard]] bool is_open() const override { return enter_exit_.open(); }
  /// Enters, from where it is; does nothing when it is present or entering.
  void open() { ask_open(true); }
  /// Leaves; does nothing when it is absent or leaving.
  void close() { ask_open(false); }
  void toggle();
  /// How it comes and goes.
  [[nodiscard]] EnterExitPlan ways() const { return planned(); }

  [[nodiscard]] VisualState visual_state() const override { return enter_exit_.visual_state(context().now); }
  [[nodiscard]] Point moved() const override { return visual_state().offset; }
  [[nodiscard]] bool takes(Point at) const override;
  void cell_changed() override;
  void resized() override;
  void update() override;

  [[nodiscard]] Point carries(const Part& inner) const override;
  [[nodiscard]] VisualState shows(const Part& inner) const override;
  [[nodiscard]] ChildUse child_use(const Part& inner) const override;
  void child_added(Part& inner) override { inside_.add(&inner, !enter_exit_.absent()); }
  void child_removed(Part& inner) override { inside_.remove(&inner); }

  [[nodiscard]] bool is_absent() const override { return enter_exit_.absent(); }
  [[nodiscard]] bool is_shut() const override;
  [[nodiscard]] bool is_leaving() const override { return enter_exit_.state() == EnterExit::State::leaving; }
  void leave() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {enter_exit_.open() ? 1.0 : 0.0}; }
  void restore(std::span<const double> saved) { ask_open(saved[0] != 0.0); }

 protected:
  EnteringPart(std::string id, const Box& box, Context& context);

  /// What comes of the settings: to be called by the maker and whenever these or the box change.
  void plan(EnterExitPlan plan, PartReduced reduced, bool while_entering,
            const StaggeredChildren& in_turn = {});
  /// Follows a cell that says whether it is open, or none. `enters`: where the cell says so from the first it
  /// comes in, else it is there at once.
  void follow(Link<bool> cell, bool enters);
  /// Makes its way in and out anew for the present box.
  [[nodiscard]] virtual EnterExitPlan planned() const = 0;
  /// Called when it starts to enter or leave, and when it has done so.
  virtual void went(EnterExit::State) {}
  bool go(bool open);
  [[nodiscard]] static const std::array<PartAction, 3>& described_actions();

  Clocked<EnterExit> enter_exit_{*this};

 private:
  void ask_open(bool open);

  Link<bool> cell_;
  Watch watch_;
  PartReduced reduced_ = PartReduced::as_screen;
  bool while_entering_ = false;
  StaggeredChildren in_turn_;
  Clocked<OneByOne> inside_{*this};
  EnterExit::State told_ = EnterExit::State::absent;
};

namespace questions {
inline constexpr Question state{"state.state"};
}
namespace answers {
inline constexpr AnswerWith<> state_entering{"state.entering", &questions::state, true};
inline constexpr AnswerWith<> state_present{"state.present", &questions::state, true};
inline constexpr AnswerWith<> state_leaving{"state.leaving", &questions::state, true};
inline constexpr AnswerWith<> state_absent{"state.absent", &questions::state, true};
inline constexpr AnswerWith<> state_open_already{"state.open-already", &questions::state, false};
inline constexpr AnswerWith<> state_closed_already{"state.closed-already", &questions::state, false};
inline constexpr std::array<const Answer*, 6> state_answers{&state_entering,     &state_present,
                                                            &state_leaving,      &state_absent,
                                                            &state_open_already, &state_closed_already};
}  // namespace answers

}  // namespace ubbo
