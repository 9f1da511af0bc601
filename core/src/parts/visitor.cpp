#include "ubbo/parts/visitor.hpp"

#include <algorithm>
#include <numbers>

namespace ubbo {

namespace {

constexpr std::array off_names{"screen", "container"};

Guise guise_at(Edge edge, double distance, Guise guise, const Box& box, const Box& screen,
               bool right_to_left) {
  if (const auto side = side_at(edge, right_to_left))
    guise.offset = towards(*side, distance > 0.0 ? distance : way_off(box, screen, *side));
  return guise;
}

}  // namespace

template <>
std::span<const Setting<Travel>> settings_of<Travel>() {
  using declare::number;
  using S = Travel;
  static const std::array table{
      declare::choice<&S::from_edge>("from_edge", edge_names, "the edge it comes from"),
      number<&S::from_distance>("from_distance", "dp", 0.0, 100000.0,
                                "how far it comes; 0: from just off that edge"),
      number<&S::from_scale>("from_scale", "", 0.0, 10.0, "the scale from which it comes"),
      number<&S::from_turn>("from_turn", "°", -360.0, 360.0, "the turn from which it comes, clockwise"),
      number<&S::from_opacity>("from_opacity", "", 0.0, 1.0, "the opacity from which it comes"),
      declare::choice<&S::to_edge>("to_edge", edge_names, "the edge it goes to"),
      number<&S::to_distance>("to_distance", "dp", 0.0, 100000.0,
                              "how far it goes; 0: to just off that edge"),
      number<&S::to_scale>("to_scale", "", 0.0, 10.0, "the scale to which it goes"),
      number<&S::to_turn>("to_turn", "°", -360.0, 360.0, "the turn to which it goes, clockwise"),
      number<&S::to_opacity>("to_opacity", "", 0.0, 1.0, "the opacity to which it goes"),
      declare::choice<&S::just_off>("just_off", off_names,
                                    "whose edges these are: the screen's, or those of what it lies in"),
  };
  return table;
}

template <>
std::span<const Setting<InTurn>> settings_of<InTurn>() {
  using declare::number;
  using S = InTurn;
  static const std::array table{
      number<&S::each_after>("each_after", "ms", 0.0, 2000.0,
                             "what lies in it comes one after another, each so long after the one before; 0: "
                             "all is in it from the first"),
      number<&S::each_from>("each_from", "dp", 0.0, 100000.0,
                            "how far each of these comes, from the side the thing comes from, or from below"),
  };
  return table;
}

std::optional<Side> side_at(Edge edge, bool right_to_left) {
  switch (edge) {
    case Edge::none:
      return {};
    case Edge::left:
      return Side::left;
    case Edge::top:
      return Side::up;
    case Edge::right:
      return Side::right;
    case Edge::bottom:
      return Side::down;
    case Edge::leading:
      return right_to_left ? Side::right : Side::left;
    case Edge::trailing:
      break;
  }
  return right_to_left ? Side::left : Side::right;
}

VisitPlan visit_of(const Travel& travel, const Passage& enter, const Passage& exit, const Part& part) {
  const Box& box = part.laid();
  const bool right_to_left = part.around().right_to_left;
  const Box& screen = travel.just_off == Off::container && part.outer() != nullptr ? part.outer()->laid()
                                                                                   : part.around().screen;
  constexpr double degree = std::numbers::pi / 180.0;
  const Guise from{
      .scale = travel.from_scale, .turn = travel.from_turn * degree, .opacity = travel.from_opacity};
  const Guise to{.scale = travel.to_scale, .turn = travel.to_turn * degree, .opacity = travel.to_opacity};
  return {.from = guise_at(travel.from_edge, travel.from_distance, from, box, screen, right_to_left),
          .enter = enter,
          .to = guise_at(travel.to_edge, travel.to_distance, to, box, screen, right_to_left),
          .exit = exit};
}

void visit_stands(const VisitPlan& plan, const Box& box, const StandTaker& out) {
  const auto shown = [&](const Guise& guise) {
    const Box moved = box + guise.offset;
    const Point middle = moved.centre();
    const double w = moved.w * guise.scale;
    const double h = moved.h * guise.scale;
    return Box{middle.x - w / 2, middle.y - h / 2, w, h};
  };
  out({StandAs::start, "start", shown(plan.from), plan.from.opacity});
  out({StandAs::here, "here", box, 1.0});
  out({StandAs::gone, "gone", shown(plan.to), plan.to.opacity});
}

Visitor::Visitor(std::string id, const Box& box, Surroundings& around) : Part(std::move(id), box, around) {}

void Visitor::plan(VisitPlan plan, PartReduced reduced, bool while_arriving, const InTurn& in_turn) {
  visit_.set_plan(std::move(plan));
  reduced_ = reduced;
  while_arriving_ = while_arriving;
  in_turn_ = in_turn;
}

void Visitor::follow(Link<bool> cell, bool enters) {
  cell_ = std::move(cell);
  watch_.stop();
  if (!cell_.linked()) return;
  watch_ = cell_.watch([this](bool open) {
    if (open != visit_.open()) hear();
  });
  if (cell_.get() == visit_.open()) return;
  if (enters)
    hear();
  else
    visit_.put(cell_.get());  // and so is what will lie in it
  told_ = visit_.state();
}

void Visitor::resized() { visit_.set_plan(planned()); }

bool Visitor::is_shut() const {
  return visit_.state() != Visit::State::here &&
         !(while_arriving_ && visit_.state() == Visit::State::arriving);
}

bool Visitor::takes(Point at) const { return !is_shut() && Part::takes(at); }

bool Visitor::go(bool open) {
  const Micros now = around().now;
  visit_.set_reduced(reduced(reduced_));
  if (open == visit_.open()) {
    decide(open ? answers::visit_open_already : answers::visit_closed_already);
    if (cell_.linked() && !asked()) cell_.set(open);  // a finger may have brought it here while that waited
    return false;
  }
  if (open && visit_.away()) {
    visit_.set_plan(planned());  // what it lies in may have been laid anew
    inside_.put(in_turn_.each_after <= Micros{0});
    if (in_turn_.each_after > Micros{0})
      inside_.set_out(visit_.plan().enter.usual, in_turn_.each_after, reduced(reduced_), now);
  }
  open ? visit_.open(now) : visit_.close(now);
  decide(open ? answers::visit_arrives : answers::visit_leaves);
  if (cell_.linked() && !asked()) cell_.set(open);
  told_ = open ? Visit::State::arriving : Visit::State::leaving;
  went(told_);
  return true;
}

// It has arrived, or is gone.
void Visitor::update() {
  if (visit_.moving() || std::exchange(told_, visit_.state()) == visit_.state()) return;
  decide(visit_.away() ? answers::visit_away : answers::visit_here);
  if (visit_.away()) inside_.put(true);  // nothing of it moves any more
  went(visit_.state());
}

Point Visitor::carries(const Part& inner) const {
  const Point& from = visit_.plan().from.offset;
  const double way = length(from);
  const double left = in_turn_.each_from * (1.0 - inside_.share(&inner, around().now));
  return moved() + (way > 0.0 ? from * (left / way) : Point{0.0, left});
}

Guise Visitor::shows(const Part& inner) const {
  return {.opacity =
              std::clamp(inside_.share(&inner, around().now), 0.0, 1.0) * inside_.seen(&inner, around().now)};
}

Presence Visitor::presence(const Part& inner) const {
  return inside_.share(&inner, around().now) > 0.0 ? Presence::used : Presence::seen;
}

void Visitor::cell_changed() {
  if (!cell_.linked() || cell_.get() == visit_.open()) return;
  go(cell_.get());
}

void Visitor::leave() {
  if (visit_.open()) go(false);
}

void Visitor::ask_open(bool open) {
  ask([this, open] { go(open); }, WhileHeld::waits);
}

void Visitor::toggle() {
  ask([this] { go(!visit_.open()); }, WhileHeld::waits);
}

const std::array<PartAction, 3>& Visitor::described_actions() {
  static constexpr std::array<PartAction, 3> actions{
      PartAction{"open", "comes", &run_action<Visitor, &Visitor::open>},
      PartAction{"close", "goes", &run_action<Visitor, &Visitor::close>},
      PartAction{"toggle", "comes where it is closed, goes where it is open",
                 &run_action<Visitor, &Visitor::toggle>}};
  return actions;
}

}  // namespace ubbo
