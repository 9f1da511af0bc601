#include "ubbo/parts/swap.hpp"

#include <algorithm>
#include <array>

namespace ubbo {

namespace {

constexpr std::array order_names{"old-first", "new-first", "together"};
constexpr std::array swap_motion_names{"fade", "slide", "both", "uncover", "none"};

// How long a transition takes for a way of this length.
Micros lasts(const Transition& transition, double way) {
  return Motion({.from = 0.0, .to = way}, transition).ends();
}

}  // namespace

template <>
std::span<const Setting<SwapSettings>> settings_of<SwapSettings>() {
  using declare::number;
  using S = SwapSettings;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::text<&S::label>("label", "what its contents are, for people and screen readers"),
        declare::cell<&S::selected>(
            "selected",
            "the cell that says which content is shown: the first of its names stands for the "
            "first part that lies in it, and so on; may be left out"),
        declare::cell<&S::selected_index>("selected_index",
                                          "which content is shown, as a number from 0, such as the item a "
                                          "carousel is at; used when selected is left out"),
        declare::choice<&S::way>("way", swap_motion_names, "how one content gives way to another"),
        declare::choice<&S::order>("order", order_names, "which of the two moves first"),
        number<&S::overlap>("overlap", "", 0.0, 1.0,
                            "how much of the first one's time is left when the other begins, as a share"),
        number<&S::overlap_time>("overlap_time", "ms", 0.0, 10000.0,
                                 "how long the two overlap; above 0 it is used in place of overlap"),
        number<&S::distance>("distance", "dp", 0.0, 100000.0, "how far contents slide"),
        declare::choice<&S::axis>("axis", axis_names,
                                  "the direction in which contents slide or are uncovered"),
        declare::flag<&S::wrap>(
            "wrap",
            "behind the last content comes the first, as where it follows a carousel that "
            "wraps: it goes the short way round"),
        declare::transition<&S::size_transition>("size_transition",
                                                 "how its own size follows that of its content"),
        declare::choice<&S::reduced_motion>(
            "reduced_motion", part_reduced_names,
            "what becomes of its travel for people who asked for less motion")};
    declare::add_transitions<&S::enter>(made, "enter", "how a content enters");
    declare::add_transitions<&S::exit>(made, "exit", "how a content leaves");
    return made;
  }();
  return table;
}

Swap::Swap(std::string id, const Box& box, SwapSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  content_ = wanted();
  follow();
}

void Swap::follow() {
  watch_.stop();
  const auto look = [this](const auto&) {
    if (wanted() != content_) hear();
  };
  if (settings_.selected.linked())
    watch_ = settings_.selected.watch(look);
  else if (settings_.selected_index.linked())
    watch_ = settings_.selected_index.watch(look);
}

std::size_t Swap::wanted() const {
  if (settings_.selected.linked()) return settings_.selected.get().index();
  return settings_.selected_index.linked()
             ? static_cast<std::size_t>(std::max(0, settings_.selected_index.get()))
             : content_;
}

void Swap::changed() {
  follow();
  to(wanted());
}

const Swap::Held* Swap::find(const Part& inner) const {
  for (const Held& one : held_.all)
    if (one.part == &inner) return &one;
  return nullptr;
}

// Forward a content comes from the far side and goes to the near one; back is the mirror of that.
EnterExitPlan Swap::plan(bool forward, SwapMotion motion) const {
  const bool aside = settings_.axis == Axis::horizontal;
  const double sign = (forward ? 1.0 : -1.0) * (aside && context().right_to_left ? -1.0 : 1.0);
  VisualState from;
  VisualState to;
  if (motion == SwapMotion::slide || motion == SwapMotion::both) {
    from.offset = way_along(settings_.axis, sign * settings_.distance);
    to.offset = way_along(settings_.axis, -sign * settings_.distance);
  }
  if (motion == SwapMotion::fade || motion == SwapMotion::both) from.opacity = to.opacity = 0.0;
  if (motion == SwapMotion::uncover) {
    // The new one is uncovered from the far side on; the old one is covered from there.
    double& comes = aside ? (sign > 0.0 ? from.covered.left : from.covered.right)
                          : (sign > 0.0 ? from.covered.top : from.covered.bottom);
    double& goes = aside ? (sign > 0.0 ? to.covered.right : to.covered.left)
                         : (sign > 0.0 ? to.covered.bottom : to.covered.top);
    comes = goes = 1.0;
  }
  return {.from = from, .enter = settings_.enter, .to = to, .exit = settings_.exit};
}

void Swap::to(std::size_t content) {
  if (content == content_ || held_.all.empty()) {
    content_ = content;
    return;
  }
  const std::size_t count = contents();
  const std::size_t onwards = (content + count - std::min(content_, count)) % std::max<std::size_t>(count, 1);
  const bool forward = settings_.wrap ? 2 * onwards <= count : content > content_;
  decide(forward ? answers::swap_forward : answers::swap_back, static_cast<double>(content_) + 1.0,
         static_cast<double>(content) + 1.0);
  content_ = content;
  swapping_ = true;
  const Micros now = context().now;
  // For people who asked for less motion one fades into the other.
  const Reduced travels = reduced(settings_.reduced_motion);
  const SwapMotion motion = settings_.way == SwapMotion::none || travels == Reduced::still ? SwapMotion::none
                            : travels == Reduced::fade                                     ? SwapMotion::fade
                                                                                           : settings_.way;
  const double way = motion == SwapMotion::fade || motion == SwapMotion::uncover ? 1.0 : settings_.distance;
  const bool moves = motion != SwapMotion::none;
  const auto share_of = [&](const Transitions& transitions) {
    if (!moves) return Micros{0};
    // Of what moves in this way of swapping, the slowest.
    const bool offset = motion == SwapMotion::slide || motion == SwapMotion::both;
    const bool opacity = motion == SwapMotion::fade || motion == SwapMotion::both;
    Micros time{0};
    for (const auto& [group, used] : {std::pair{PropertyGroup::offset, offset},
                                      {PropertyGroup::opacity, opacity},
                                      {PropertyGroup::uncovering, motion == SwapMotion::uncover}})
      if (used) time = std::max(time, lasts(transitions.of(group), way));
    if (settings_.overlap_time > Micros{0}) return std::max(Micros{0}, time - settings_.overlap_time);
    return from_seconds(to_seconds(time) * (1.0 - settings_.overlap));
  };
  const bool anything = std::any_of(held_.all.begin(), held_.all.end(),
                                    [](const Held& one) { return !one.enter_exit.absent(); });
  for (std::size_t i = 0; i < held_.all.size(); ++i) {
    Held& one = held_.all[i];
    one.opens = one.closes = never;
    one.enter_exit.set_reduced(moves ? Reduced::full : Reduced::still);
    if (i == content_) {
      one.opens = now;
      if (settings_.order == SwapOrder::old_first && anything && one.enter_exit.absent())
        one.opens = now + share_of(settings_.exit);
    } else if (one.enter_exit.open()) {
      one.closes = now;
      if (settings_.order == SwapOrder::new_first) one.closes = now + share_of(settings_.enter);
    }
    one.enter_exit.set_plan(plan(forward, motion));
  }
  resize(false);
}

void Swap::set_out(Micros now) {
  for (Held& one : held_.all) {
    if (one.closes <= now) {
      one.closes = never;
      one.enter_exit.close(now);
    }
    if (one.opens <= now) {
      one.opens = never;
      one.enter_exit.open(now);
    }
  }
  if (!swapping_ || due() != never) return;
  swapping_ = false;
  decide(answers::swap_done, static_cast<double>(content_) + 1.0);
  tell(settings_.on_swap, content_);
}

void Swap::resize(bool at_once) {
  if (content_ >= held_.all.size()) return;
  const Box& size = held_.all[content_].part->layout_box();
  for (const auto& [mover, to] : {std::pair{&width_, size.w}, {&height_, size.h}}) {
    mover->set_reduced(reduced(settings_.reduced_motion));
    if (at_once)
      mover->put(to);
    else if (mover->target() != to)
      mover->send(to, settings_.size_transition, context().now);
  }
}

Size Swap::size() const { return {width_.at(context().now).value, height_.at(context().now).value}; }

EnterExit::State Swap::state_of(const Part& inner) const {
  const Held* held = find(inner);
  return held == nullptr ? EnterExit::State::present : held->enter_exit.state();
}

Point Swap::carries(const Part& inner) const {
  const Held* held = find(inner);
  return held == nullptr ? Point{} : held->enter_exit.visual_state(context().now).offset;
}

VisualState Swap::shows(const Part& inner) const {
  const Held* held = find(inner);
  VisualState visual_state = held == nullptr ? VisualState{} : held->enter_exit.visual_state(context().now);
  visual_state.offset = {};
  return visual_state;
}

ChildUse Swap::child_use(const Part& inner) const {
  const Held* held = find(inner);
  if (held == nullptr || held->enter_exit.state() == EnterExit::State::present) return ChildUse::used;
  return held->enter_exit.absent() ? ChildUse::gone : ChildUse::seen;
}

std::optional<Box> Swap::window() const {
  const Box here = box();
  const Size now = size();
  return Box{context().right_to_left ? here.right() - now.w : here.x, here.y, now.w, now.h};
}

Micros Swap::Contents::due() const {
  Micros next = never;
  for (const Held& one : all) next = std::min({next, one.enter_exit.due(), one.opens, one.closes});
  return next;
}

void Swap::Contents::advance(Micros now) {
  for (Held& one : all) one.enter_exit.advance(now);
}

void Swap::update() { set_out(context().now); }

void Swap::cell_changed() { to(wanted()); }

bool Swap::can_step(int by) const { return by > 0 ? content_ + 1 < contents() : content_ > 0; }

void Swap::step(int by) {
  ask(
      [this, by] {
        if (can_step(by)) show(by > 0 ? content_ + 1 : content_ - 1);
      },
      WhileHeld::waits);
}

void Swap::show(std::size_t content) {
  to(content);
  if (settings_.selected.linked())
    settings_.selected.set(settings_.selected.get().with(content_));
  else if (settings_.selected_index.linked())
    settings_.selected_index.set(static_cast<int>(content_));
}

void Swap::restore(std::span<const double> saved) {
  ask([this, content = static_cast<std::size_t>(whole(saved[0]))] {
    if (contents() == 0 || content < contents()) show(content);
  });
}

void Swap::child_added(Part& inner) {
  held_.all.push_back({&inner, EnterExit(plan(true, settings_.way), held_.all.size() == content_)});
  resize(true);
}

void Swap::child_removed(Part& inner) {
  std::erase_if(held_.all, [&](const Held& one) { return one.part == &inner; });
}

void Swap::child_laid_out(Part& inner) {
  if (content_ < held_.all.size() && held_.all[content_].part == &inner) resize(false);
}

void Swap::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = settings_.selected.linked() ? settings_.selected.get().name() : "";
  told.live = Live::polite;
}

namespace {

double swap_content(const Swap& it) { return static_cast<double>(it.content()); }
double swap_width(const Swap& it) { return it.size().w; }
double swap_height(const Swap& it) { return it.size().h; }

constexpr std::array swap_readings{
    ReadingInfo{"content", "", "which content is shown, from 0", &read<Swap, &swap_content>, nullptr, true},
    ReadingInfo{"width", "dp", "its present width", &read<Swap, &swap_width>},
    ReadingInfo{"height", "dp", "its present height", &read<Swap, &swap_height>, nullptr, true},
};

void swap_pieces(const Part& part, const PieceTaker& out) {
  const auto& it = static_cast<const Swap&>(part);
  const Size size = it.size();
  const Box box = it.box();
  const double x = it.context().right_to_left ? box.right() - size.w : box.x;
  if (size.w > 0.0) out({.role = Role::surface, .box = {x, box.y, size.w, size.h}});
}

template <int By>
constexpr PartAction swap_action(const char* name, const char* means) {
  return {.name = name,
          .means = means,
          .run = [](Part& part) { static_cast<Swap&>(part).step(By); },
          .can = [](const Part& part) { return static_cast<const Swap&>(part).can_step(By); },
          .offered = false};
}

constexpr std::array swap_actions{swap_action<1>("next", "shows the next content"),
                                  swap_action<-1>("previous", "shows the content before")};

}  // namespace

const PartKind& Swap::described() {
  static const PartKind kind = describe<Swap>(
      {.name = "swap",
       .means = "a container that shows one of the parts that lie in it",
       .role = "group",
       .example = {.box = R"(16, 200, "100% - 32dp", 200)",
                   .lines =
                       "label = \"The chosen page\"\nselected = \"page\"\npart = [\n  { id = \"notes\", kind "
                       "= \"pad\", label = \"Calm\", box = [0, 0, \"100%\", 120] },\n  { id = \"harvest\", "
                       "kind = \"pad\", label = \"14 frames\", box = [0, 0, \"100%\", 80] },\n]\n",
                   .cells = "page = { choice = \"Notes\", of = [\"Notes\", \"Harvest\"] }\n"},
       .readings = swap_readings,
       .pieces = &swap_pieces,
       .actions = swap_actions,
       .answers = answers::swap_answers});
  return kind;
}

}  // namespace ubbo
