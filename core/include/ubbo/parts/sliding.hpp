#pragma once

#include "ubbo/parts/kind.hpp"
#include "ubbo/parts/rail.hpp"

namespace ubbo {

/// A part that is one rail, along which it goes itself or carries what lies in it: what panes, lists, sheets
/// and drawers have in common. A finger may take it anywhere; what it cannot follow is offered to the parts
/// around it.
class Sliding : public Part, public DragSurface {
 public:
  /// Its rail, and the cell that tells where that is; or none.
  struct Plan {
    RailPlan rail;
    Link<double> cell{};
  };

  /// Where it is along its axis, in the rail's unit; past a bound where that yields.
  [[nodiscard]] double offset() const { return rail_.position(); }
  /// Where to draw it: `offset`, or while it is dragged where the feel's prediction sees it. Decides nothing.
  [[nodiscard]] double shown() const { return rail_.shown(); }
  /// Where it goes, or stands.
  [[nodiscard]] double target() const { return rail_.target(); }
  /// The rail's unit per second; the finger's while that drags it.
  [[nodiscard]] double velocity() const { return rail_.velocity(); }
  [[nodiscard]] bool dragging() const { return rail_.dragging(); }
  /// True while a contact has it.
  [[nodiscard]] bool pressed() const { return rail_.pressed(); }
  /// What it goes along.
  [[nodiscard]] const Rail& rail() const { return rail_; }
  /// How far it is from its least place to its most, 0 to 1; beyond where a bound yields. 0 where it cannot
  /// move.
  [[nodiscard]] double fraction() const;

  [[nodiscard]] VisualState visual_state() const override {
    return {.offset = moved(), .opacity = rail_.opacity()};
  }
  [[nodiscard]] DragInterest drag_interest(const Sample& sample) const override;
  bool capture(const Contact& contact, const Sample& sample) override { return rail_.down(contact, sample); }
  void move(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  void cell_changed() override { rail_.cell_changed(); }

  [[nodiscard]] bool can_go(Side side) const override { return rail_.can_go(side); }
  Point drag_to(const Contact& contact, const Sample& sample) override;
  void overscroll() override { rail_.overscroll(); }
  bool take_over(const Contact& contact, Point anchor) override { return rail_.take_over(contact, anchor); }
  void hand_over() override { rail_.hand_over(); }
  void left_behind() override { rail_.left_behind(); }
  bool take_momentum(Point velocity) override { return rail_.take_momentum(velocity); }
  Point predict(Point ahead) override { return rail_.predict(ahead); }

  [[nodiscard]] std::array<double, 1> saved() const { return {target()}; }
  void restore(std::span<const double> saved);

 protected:
  Sliding(std::string id, const Box& box, Context& context, Plan plan)
      : Part(std::move(id), box, context), rail_(*this, std::move(plan.rail), std::move(plan.cell)) {}

  /// A press was lifted that was no drag. Unless told otherwise it explains itself, and goes on as before.
  virtual void pressed_only(const Contact& contact, const Sample& sample);
  [[nodiscard]] bool mine(const Contact& contact) const { return rail_.held_by(contact); }

  Rail rail_;
};

/// What the arrows, pages, Home and End of a scrolled surface mean, in dp along `axis`: `place` is where it
/// goes or stands, `page` how much of it is seen, `sign` -1 where what lies further on comes into view as the
/// surface goes back. Nothing: the key is none of these.
[[nodiscard]] std::optional<double> scrolled_to(Key key, Axis axis, double sign, double page, double place,
                                                double min, double max);

}  // namespace ubbo
