#include "ubbo/parts/entering_part.hpp"

#include <algorithm>
#include <numbers>

namespace ubbo {

namespace {

constexpr std::array off_names{"screen", "container"};

VisualState state_at(Edge edge, double distance, VisualState visual_state, const Box& box, const Box& screen,
                     bool right_to_left) {
  if (const auto side = side_at(edge, right_to_left))
    visual_state.offset = towards(*side, distance > 0.0 ? distance : way_off(box, screen, *side));
  return visual_state;
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
std::span<const Setting<StaggeredChildren>> settings_of<StaggeredChildren>() {
  using declare::number;
  using S = StaggeredChildren;
  static const std::array table{
      number<&S::stagger>("stagger", "ms", 0.0, 2000.0,
                          "the parts in it enter one after another, each this long after the one before; 0: "
                          "all are there from the first"),
      number<&S::stagger_distance>(
          "stagger_distance", "dp", 0.0, 100000.0,
          "how far each of those parts travels, from the side the panel or dialog comes from, or from below"),
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

EnterExitPlan enter_exit_of(const Travel& travel, const Transitions& enter, const Transitions& exit,
                            const Part& part) {
  const Box& box = part.layout_box();
  const bool right_to_left = part.context().right_to_left;
  const Box& screen = travel.just_off == Off::container && part.outer() != nullptr
                          ? part.outer()->layout_box()
                          : part.context().screen;
  constexpr double degree = std::numbers::pi / 180.0;
  const VisualState from{
      .scale = travel.from_scale, .turn = travel.from_turn * degree, .opacity = travel.from_opacity};
  const VisualState to{
      .scale = travel.to_scale, .turn = travel.to_turn * degree, .opacity = travel.to_opacity};
  return {.from = state_at(travel.from_edge, travel.from_distance, from, box, screen, right_to_left),
          .enter = enter,
          .to = state_at(travel.to_edge, travel.to_distance, to, box, screen, right_to_left),
          .exit = exit};
}

void enter_exit_places(const EnterExitPlan& plan, const Box& box, const StandTaker& out) {
  const auto shown = [&](const VisualState& visual_state) {
    const Box moved = box + visual_state.offset;
    const Point middle = moved.centre();
    const double w = moved.w * visual_state.scale;
    const double h = moved.h * visual_state.scale;
    return Box{middle.x - w / 2, middle.y - h / 2, w, h};
  };
  out({StandAs::start, "start", shown(plan.from), plan.from.opacity});
  out({StandAs::present, "open", box, 1.0});
  out({StandAs::gone, "gone", shown(plan.to), plan.to.opacity});
}

EnteringPart::EnteringPart(std::string id, const Box& box, Context& context)
    : Part(std::move(id), box, context) {}

void EnteringPart::plan(EnterExitPlan plan, PartReduced reduced, bool while_entering,
                        const StaggeredChildren& in_turn) {
  enter_exit_.set_plan(std::move(plan));
  reduced_ = reduced;
  while_entering_ = while_entering;
  in_turn_ = in_turn;
}

void EnteringPart::follow(Link<bool> cell, bool enters) {
  cell_ = std::move(cell);
  watch_.stop();
  if (!cell_.linked()) return;
  watch_ = cell_.watch([this](bool open) {
    if (open != enter_exit_.open()) hear();
  });
  if (cell_.get() == enter_exit_.open()) return;
  if (enters)
    hear();
  else
    enter_exit_.put(cell_.get());  // and so is what will lie in it
  told_ = enter_exit_.state();
}

void EnteringPart::resized() { enter_exit_.set_plan(planned()); }

bool EnteringPart::is_shut() const {
  return enter_exit_.state() != EnterExit::State::present &&
         !(while_entering_ && enter_exit_.state() == EnterExit::State::entering);
}

bool EnteringPart::takes(Point at) const { return !is_shut() && Part::takes(at); }

bool EnteringPart::go(bool open) {
  const Micros now = context().now;
  enter_exit_.set_reduced(reduced(reduced_));
  if (open == enter_exit_.open()) {
    decide(open ? answers::state_open_already : answers::state_closed_already);
    if (cell_.linked() && !asked()) cell_.set(open);  // a finger may have brought it here while that waited
    return false;
  }
  if (open && enter_exit_.absent()) {
    enter_exit_.set_plan(planned());  // what it lies in may have been laid anew
    inside_.put(in_turn_.stagger <= Micros{0});
    if (in_turn_.stagger > Micros{0})
      inside_.set_out(enter_exit_.plan().enter.all(), in_turn_.stagger, reduced(reduced_), now);
  }
  open ? enter_exit_.open(now) : enter_exit_.close(now);
  decide(open ? answers::state_entering : answers::state_leaving);
  if (cell_.linked() && !asked()) cell_.set(open);
  told_ = open ? EnterExit::State::entering : EnterExit::State::leaving;
  went(told_);
  return true;
}

// It has arrived, or is gone.
void EnteringPart::update() {
  if (enter_exit_.moving() || std::exchange(told_, enter_exit_.state()) == enter_exit_.state()) return;
  decide(enter_exit_.absent() ? answers::state_absent : answers::state_present);
  if (enter_exit_.absent()) inside_.put(true);  // nothing of it moves any more
  went(enter_exit_.state());
}

Point EnteringPart::carries(const Part& inner) const {
  const Point& from = enter_exit_.plan().from.offset;
  const double way = length(from);
  const double left = in_turn_.stagger_distance * (1.0 - inside_.fraction(&inner, context().now));
  return moved() + (way > 0.0 ? from * (left / way) : Point{0.0, left});
}

VisualState EnteringPart::shows(const Part& inner) const {
  return {.opacity = std::clamp(inside_.fraction(&inner, context().now), 0.0, 1.0) *
                     inside_.seen(&inner, context().now)};
}

ChildUse EnteringPart::child_use(const Part& inner) const {
  return inside_.fraction(&inner, context().now) > 0.0 ? ChildUse::used : ChildUse::seen;
}

void EnteringPart::cell_changed() {
  if (!cell_.linked() || cell_.get() == enter_exit_.open()) return;
  go(cell_.get());
}

void EnteringPart::leave() {
  if (enter_exit_.open()) go(false);
}

void EnteringPart::ask_open(bool open) {
  ask([this, open] { go(open); }, WhileHeld::waits);
}

void EnteringPart::toggle() {
  ask([this] { go(!enter_exit_.open()); }, WhileHeld::waits);
}

const std::array<PartAction, 3>& EnteringPart::described_actions() {
  static constexpr std::array<PartAction, 3> actions{
      PartAction{"open", "opens", &run_action<EnteringPart, &EnteringPart::open>},
      PartAction{"close", "closes", &run_action<EnteringPart, &EnteringPart::close>},
      PartAction{"toggle", "opens where it is closed, closes where it is open",
                 &run_action<EnteringPart, &EnteringPart::toggle>}};
  return actions;
}

}  // namespace ubbo
