#pragma once

#include <functional>

#include "ubbo/parts/kind.hpp"
#include "ubbo/visit/one_by_one.hpp"
#include "ubbo/visit/visit.hpp"

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

/// How the parts that lie in a thing come with it, when it comes from away.
struct InTurn {
  Micros each_after{0};     ///< each sets out so long after the one before; 0: all are in it from the first
  double each_from = 24.0;  ///< dp each comes by, from the side the thing comes from, or from below
};

template <>
std::span<const Setting<InTurn>> settings_of<InTurn>();

/// The guises of `travel` for `part`, as it is laid.
[[nodiscard]] VisitPlan visit_of(const Travel& travel, const Passage& enter, const Passage& exit,
                                 const Part& part);

/// The places of a visit by `plan` of a part that lies in `box`.
void visit_stands(const VisitPlan& plan, const Box& box, const StandTaker& out);

/// A part that comes and goes: what windows, dialogs and toasts have in common.
///
/// While it is away it takes no contact, no focus and no time, and nor does what lies in it. It takes
/// contacts when it is here, or also while it arrives. What a stage removes leaves first.
class Visitor : public Part, public Container, public LayerPart {
 public:
  [[nodiscard]] Visit::State state() const { return visit_.state(); }
  /// It is here, or on its way.
  [[nodiscard]] bool is_open() const override { return visit_.open(); }
  /// Sets out for here, from where it is; does nothing when it is here or on its way.
  void open() { ask_open(true); }
  /// Sets out to be gone; likewise.
  void close() { ask_open(false); }
  void toggle();
  /// How it comes and goes.
  [[nodiscard]] VisitPlan ways() const { return planned(); }

  [[nodiscard]] Guise guise() const override { return visit_.guise(around().now); }
  [[nodiscard]] Point moved() const override { return guise().offset; }
  [[nodiscard]] bool takes(Point at) const override;
  void cell_changed() override;
  void resized() override;
  void update() override;

  [[nodiscard]] Point carries(const Part& inner) const override;
  [[nodiscard]] Guise shows(const Part& inner) const override;
  [[nodiscard]] Presence presence(const Part& inner) const override;
  void child_added(Part& inner) override { inside_.add(&inner, !visit_.away()); }
  void child_removed(Part& inner) override { inside_.remove(&inner); }

  [[nodiscard]] bool is_away() const override { return visit_.away(); }
  [[nodiscard]] bool is_shut() const override;
  [[nodiscard]] bool is_leaving() const override { return visit_.state() == Visit::State::leaving; }
  void leave() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {visit_.open() ? 1.0 : 0.0}; }
  void restore(std::span<const double> saved) { ask_open(saved[0] != 0.0); }

 protected:
  Visitor(std::string id, const Box& box, Surroundings& around);

  /// What comes of the settings: to be called by the maker and whenever these or the box change.
  void plan(VisitPlan plan, PartReduced reduced, bool while_arriving, const InTurn& in_turn = {});
  /// Follows a cell that says whether it is open, or none. `enters`: where the cell says so from the first it
  /// comes in, else it is there at once.
  void follow(Link<bool> cell, bool enters);
  /// The visit made anew for the present box.
  [[nodiscard]] virtual VisitPlan planned() const = 0;
  /// It has set out, arrived or gone.
  virtual void went(Visit::State) {}
  bool go(bool open);
  [[nodiscard]] static const std::array<PartAction, 3>& described_actions();

  Clocked<Visit> visit_{*this};

 private:
  void ask_open(bool open);

  Link<bool> cell_;
  Watch watch_;
  PartReduced reduced_ = PartReduced::as_screen;
  bool while_arriving_ = false;
  InTurn in_turn_;
  Clocked<OneByOne> inside_{*this};
  Visit::State told_ = Visit::State::away;
};

namespace questions {
inline constexpr Question visit{"visit.visit"};
}
namespace answers {
inline constexpr AnswerWith<> visit_arrives{"visit.arrives", &questions::visit, true};
inline constexpr AnswerWith<> visit_here{"visit.here", &questions::visit, true};
inline constexpr AnswerWith<> visit_leaves{"visit.leaves", &questions::visit, true};
inline constexpr AnswerWith<> visit_away{"visit.away", &questions::visit, true};
inline constexpr AnswerWith<> visit_open_already{"visit.open-already", &questions::visit, false};
inline constexpr AnswerWith<> visit_closed_already{"visit.closed-already", &questions::visit, false};
inline constexpr std::array<const Answer*, 6> visit_answers{
    &visit_arrives, &visit_here, &visit_leaves, &visit_away, &visit_open_already, &visit_closed_already};
}  // namespace answers

}  // namespace ubbo
