#include "ubbo/parts/list.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

namespace {

constexpr std::size_t max_shifts = 16;  // at a time; the oldest then ends at once

}  // namespace

template <>
std::span<const Setting<ListSettings>> settings_of<ListSettings>() {
  using declare::number;
  using S = ListSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the list is called, for people and screen readers"),
      declare::cell<&S::offset>(
          "offset",
          "the cell that holds how far its items are carried, in dp: 0 at its start, below "
          "0 further on; may be left out"),
      declare::whole<&S::count>(
          "count", "", 0.0, 1e7,
          "how many items there are, also those that are no parts; 0: the parts that lie in it are "
          "its items, in their order"),
      number<&S::item_size>("item_size", "dp", 1.0, 100000.0,
                            "the size along its axis of an item that has not been measured"),
      number<&S::gap>("gap", "dp", 0.0, 1000.0, "between items"),
      number<&S::ahead>("ahead", "dp", 0.0, 100000.0,
                        "how far beyond its box items are parts already, or still"),
      declare::choice<&S::axis>("axis", axis_names, "the direction in which it moves"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent, and how gaps close"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::half_life>(
          "half_life", "ms", 0.0, 2000.0,
          "the time in which its speed halves after the lift; 0: it stays where it is let go"),
      declare::choice<&S::overscroll_start>("overscroll_start", overscroll_names,
                                            "how its start yields: not at all, by a share, or less and less"),
      declare::choice<&S::overscroll_end>("overscroll_end", overscroll_names, "how it yields at its end"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows past an end, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes past an end at most"),
  };
  return table;
}

List::List(std::string id, const Box& box, ListSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      spans_(static_cast<std::size_t>(settings_.count), settings_.item_size, settings_.gap),
      counted_(counts(settings_)),
      begun_(!settings_.on_near) {
  shifts_.all.reserve(max_shifts);
  rail_.on_rest = [this](double place) { tell(settings_.on_rest, place); };
  bound();
  if (counted_ && settings_.offset.linked() && std::isfinite(settings_.offset.get()))
    rail_.put_at(settings_.offset.get());
  if (!begun_) hear();  // it asks for its first parts when the stage is next told the time
}

RailPlan List::plan(const ListSettings& settings, bool right_to_left) {
  const auto overscroll = [&](Overscroll::How how) {
    return Overscroll{
        how, how == Overscroll::How::linear ? settings.overscroll_fraction : settings.overscroll_reach};
  };
  return {.axis = settings.axis,
          .dp_per_unit = settings.axis == Axis::horizontal && right_to_left ? -1.0 : 1.0,
          .sense = Sense::scrolled,
          .transition = settings.transition,
          .coast = settings.half_life > Micros{0} ? std::optional(Coast::half_life(settings.half_life))
                                                  : std::nullopt,
          .overscroll_min = overscroll(settings.overscroll_end),
          .overscroll_max = overscroll(settings.overscroll_start),
          .reduced_motion = settings.reduced_motion};
}

void List::changed(const ListSettings& before) {
  const bool others = before.count != settings_.count || before.item_size != settings_.item_size ||
                      before.gap != settings_.gap || before.axis != settings_.axis;
  const bool was_counted = counted_;
  counted_ = counts(settings_);
  RailPlan next = plan(settings_, context().right_to_left);
  if (others) {
    shifts_.all.clear();
    if (was_counted != counted_) {
      near_.clear();
      item_of_.clear();
      spares_.clear();
    }
    const std::size_t count = !counted_ ? near_.size() : static_cast<std::size_t>(settings_.count);
    spans_ = Spans(count, settings_.item_size, settings_.gap);
    while (counted_ && !near_.empty() && near_.back().item >= count) give_back(near_.size() - 1);
    for (const Near& one : near_) spans_.measure(one.item, size_of(*one.part));
  }
  next.min = std::min(0.0, view() - spans_.total());
  rail_.change(std::move(next), settings_.offset);
}

void List::resized() {
  rail_.set_dp_per_unit(plan(settings_, context().right_to_left).dp_per_unit);
  bound();
}

void List::bound() { rail_.set_bounds(std::min(0.0, view() - spans_.total()), 0.0); }

// Where things are.

double List::size_of(const Part& part) const {
  return counted_ || !part.hidden() ? along(settings_.axis, {part.layout_box().w, part.layout_box().h})
                                    : -settings_.gap;
}

double List::shifted(std::size_t i) const {
  double by = 0.0;
  for (const Shift& shift : shifts_.all)
    if (shift.from <= i) by += shift.by.at(context().now).value;
  return by;
}

double List::max_shifted() const {
  double by = 0.0;
  for (const Shift& shift : shifts_.all) by += std::fabs(shift.by.at(context().now).value);
  return by;
}

// The item at this place behind the start of the list's box, within its items.
std::size_t List::item_at(double place) const {
  std::size_t i = spans_.at(place - shown() - max_shifted());
  while (i + 1 < items() && place_of(i + 1) <= place) ++i;
  return i;
}

std::size_t List::first() const { return items() == 0 ? 0 : item_at(0.0); }

std::size_t List::last() const {
  if (items() == 0) return 0;
  const std::size_t i = item_at(view());
  return i > 0 && place_of(i) >= view() ? i - 1 : i;
}

std::size_t List::item_of(const Part& part) const {
  const auto found = item_of_.find(&part);
  return found == item_of_.end() ? items() : found->second;
}

Box List::box_of(std::size_t i) const {
  const Box whole = box();
  const double place = place_of(i);
  const double size = std::max(spans_.size(i), 0.0);
  if (settings_.axis == Axis::vertical) return {whole.x, whole.y + place, whole.w, size};
  return {context().right_to_left ? whole.right() - place - size : whole.x + place, whole.y, size, whole.h};
}

Point List::carries(const Part& inner) const {
  const auto found = item_of_.find(&inner);
  if (found == item_of_.end()) return {};
  const double place = place_of(found->second);
  if (settings_.axis == Axis::vertical) return {0.0, place};
  if (!context().right_to_left) return {place, 0.0};
  // Counted from the other side, and so is where the part stands in its item.
  const double within = inner.layout_box().x - layout_box().x;
  return {layout_box().w - inner.layout_box().w - 2.0 * within - place, 0.0};
}

// Items that come, go and change.

void List::glide_from(std::size_t from, double by, const Transition& transition) {
  if (by == 0.0 || reduced(settings_.reduced_motion) != Reduced::full) return;
  Shift shift{from, Mover(by, 0.05)};
  shift.by.send(0.0, transition, context().now);
  if (!shift.by.moving()) return;
  if (shifts_.all.size() == max_shifts) shifts_.all.erase(shifts_.all.begin());
  shifts_.all.push_back(std::move(shift));
}

// How far the items before `i` reach. Where gaps open, a later one may lie further up than one before it.
double List::reach_before(std::size_t i) const {
  const auto end = [this](std::size_t item) { return place_of(item) + spans_.size(item); };
  double reach = i > 0 ? end(i - 1) : 0.0;
  for (const Shift& shift : shifts_.all)
    if (shift.from > 0 && shift.from < i) reach = std::max(reach, end(shift.from - 1));
  return reach;
}

// Item `i` gets another size. What lies above the box, with all before it, does it at once, and nothing in
// view moves; else, in motion, what lies behind it comes after.
void List::resize(std::size_t i, double size, const Transition* in_motion) {
  const bool unseen = place_of(i) + spans_.size(i) <= 0.0;
  const bool above = unseen && reach_before(i) <= 0.0;
  if (unseen && !above) in_motion = &settings_.transition;
  const double grown = spans_.measure(i, size);
  if (grown == 0.0) return;
  const double min = std::min(0.0, view() - spans_.total());
  if (above) {
    rail_.shift(-grown, min, 0.0);
  } else {
    const double before = offset();
    rail_.set_bounds(min, 0.0);
    if (in_motion != nullptr) glide_from(i + 1, -grown, *in_motion);
    glide_from(0, before - offset(), settings_.transition);
  }
  if (aim_ && *aim_ < items()) rail_.aim_at(-spans_.start(*aim_));
}

void List::take_out(std::size_t i) {
  resize(i, -settings_.gap, &settings_.transition);
  spans_.remove(i);
  if (aim_ && *aim_ > i) --*aim_;
  for (Shift& shift : shifts_.all)
    if (shift.from > i) --shift.from;
  for (Near& one : near_)
    if (one.item > i) item_of_[one.part] = --one.item;
}

void List::put_in(std::size_t i) {
  spans_.insert(i);
  if (aim_ && *aim_ >= i) ++*aim_;
  for (Shift& shift : shifts_.all)
    if (shift.from > i) ++shift.from;  // it comes where the one before which it stands is now
  for (Near& one : near_)
    if (one.item >= i) item_of_[one.part] = ++one.item;
  const double size = spans_.size(i);
  spans_.measure(i, -settings_.gap);
  resize(i, size, &settings_.transition);
}

void List::measure(std::size_t i, double size) {
  ask([this, i, size] {
    const bool is_part =
        std::any_of(near_.begin(), near_.end(), [&](const Near& one) { return one.item == i; });
    if (i < items() && !is_part && size >= 0.0 && std::isfinite(size)) resize(i, size, nullptr);
  });
}

void List::remove(std::size_t i) {
  ask([this, i] {
    if (!counted_ || i >= items()) return;
    for (std::size_t at = 0; at < near_.size(); ++at)
      if (near_[at].item == i) {
        give_back(at);
        break;
      }
    take_out(i);
    settings_.count -= 1.0;
  });
}

void List::insert(std::size_t i) {
  ask([this, i] {
    if (!counted_ || i > items()) return;
    put_in(i);
    settings_.count += 1.0;
  });
}

void List::scroll_to(std::size_t i) {
  ask(
      [this, i] {
        if (i >= items()) return;
        rail_.go_to(-spans_.start(i));
        if (rail_.moving()) aim_ = i;
      },
      WhileHeld::waits);
}

// Parts that lie in it.

void List::child_added(Part& inner) {
  if (counted_) return;
  const std::size_t i = items();
  spans_.insert(i);
  near_.push_back({i, &inner});
  item_of_[&inner] = i;
  spans_.measure(i, size_of(inner));
  bound();
  // Where the app had it from the first, as soon as it is long enough.
  if (const double wanted = settings_.offset.linked() ? settings_.offset.get() : 0.0;
      wanted < offset() && wanted >= rail_.plan().min && rail_.settled())
    rail_.put_at(wanted);
}

void List::child_removed(Part& inner) {
  std::erase(spares_, &inner);
  const auto found =
      std::find_if(near_.begin(), near_.end(), [&](const Near& one) { return one.part == &inner; });
  if (found == near_.end()) return;
  const std::size_t i = found->item;
  near_.erase(found);
  item_of_.erase(&inner);
  if (!counted_) take_out(i);
}

void List::child_shown(Part& inner, bool) {
  if (!counted_ && item_of(inner) < items()) resize(item_of(inner), size_of(inner), &settings_.transition);
}

// By the same motion in which the part itself goes: the gap closes once.
void List::child_closing(Part& inner, const Transition& transition, bool closes) {
  if (const std::size_t i = item_of(inner); i < items())
    resize(i, closes ? -settings_.gap : size_of(inner), &transition);
}

void List::child_laid_out(Part& inner) {
  for (Near& one : near_)
    if (one.part == &inner) measure(one);
}

void List::measure(Near& near) {
  const std::size_t i = near.item;
  const bool in_view = std::min(place_of(i), i + 1 < items() ? place_of(i + 1) : HUGE_VAL) < view();
  const bool fresh = std::exchange(near.fresh, false);
  resize(i, size_of(*near.part), fresh && near.glides && in_view ? &settings_.transition : nullptr);
}

void List::give_back(std::size_t at) {
  const Near gone = near_[at];
  near_.erase(near_.begin() + static_cast<std::ptrdiff_t>(at));
  item_of_.erase(gone.part);
  spares_.push_back(gone.part);
  if (context().part_owner != nullptr) context().part_owner->show(*gone.part, false);
  if (settings_.on_far) tell(settings_.on_far, gone.item, std::ref(*gone.part));
}

// What is in view may have changed.
void List::look() {
  const bool any = items() > 0;
  std::size_t from = first();
  std::size_t to = last();
  if (any != told_any_ || from != told_first_ || to != told_last_) {
    told_any_ = any;
    told_first_ = from;
    told_last_ = to;
    if (any) tell(settings_.on_view, from, to);
  }
  if (!begun_ || renewing_ || !wants_others(from, to)) return;
  // Only as an event of its own: the app adds and changes parts meanwhile.
  renewing_ = true;
  ask([this] { renew(); });
}

// While it moves by itself it looks again as soon as an item comes to an edge of what was looked at; while
// gaps close, often enough.
Micros List::next_look() const {
  if (pressed() || items() == 0 || (!settings_.on_near && !settings_.on_view)) return never;
  const Micros now = context().now;
  Micros next = never;
  if (shifts_.moving()) {
    constexpr Micros often{8'000};
    next = (now / often + 1) * often;
  }
  if (!rail_.moving()) return next;
  double min = -HUGE_VAL;
  double max = HUGE_VAL;
  const auto edge = [&](double place) {
    const std::size_t i = item_at(place);
    const double by = place_of(i) - spans_.start(i) - shown();
    if (i > 0) max = std::min(max, place - spans_.start(i) - by);
    if (i + 1 < items()) min = std::max(min, std::nextafter(place - spans_.start(i + 1) - by, HUGE_VAL));
  };
  if (settings_.on_view)
    for (const double place : {0.0, view()}) edge(place);
  if (settings_.on_near)
    for (const double place : {-settings_.ahead, view() + settings_.ahead}) edge(place);
  // However fast it goes, it looks no more often than that; so far it has parts ahead.
  constexpr Micros soonest{2'000};
  const Micros leaves = rail_.leaves(min, max, now);
  return std::min(next, leaves == never ? never : std::max(leaves, now + soonest));
}

void List::update() {
  if (pressed() || !rail_.moving()) aim_.reset();
  look();
  next_look_.at = next_look();
}

// Which items are to be parts; false when these are parts already, and no others.
bool List::wants_others(std::size_t& from, std::size_t& to) const {
  if (!settings_.on_near) return false;
  if (items() == 0) return !near_.empty();
  from = item_at(-settings_.ahead);
  to = item_at(view() + settings_.ahead);
  return near_.size() != to - from + 1 || near_.front().item != from || near_.back().item != to;
}

void List::renew() {
  struct Done {
    bool* renewing;
    ~Done() { *renewing = false; }
  } done{&renewing_};
  const bool first_time = !std::exchange(asked_before_, true);
  std::size_t from = 0;
  std::size_t to = 0;
  if (!wants_others(from, to)) return;
  for (std::size_t at = near_.size(); at-- > 0;)
    if (near_[at].item < from || near_[at].item > to) give_back(at);
  std::size_t at = 0;
  for (std::size_t item = from; item <= to && item < items(); ++item, ++at) {
    if (at < near_.size() && near_[at].item == item) continue;
    Part* spare = spares_.empty() ? nullptr : spares_.back();
    Part& part = settings_.on_near(item, spare);
    if (part.outer() != this)
      refuse("list '" + id() + "': on_near gave part '" + part.id() +
             "', which does not lie in it; it takes a part added with .inside = \"" + id() + "\"");
    std::erase(spares_, &part);
    near_.insert(near_.begin() + static_cast<std::ptrdiff_t>(at), {item, &part, true, !first_time});
    item_of_[&part] = item;
    if (context().part_owner != nullptr) context().part_owner->show(part, true);
  }
  // Once the app's changes of its parts count.
  ask([this] {
    for (Near& one : near_)
      if (one.fresh) measure(one);
  });
}

// Time, touches and keys.

Micros List::Shifts::due() const {
  Micros next = never;
  for (const Shift& shift : all) next = std::min(next, shift.by.due());
  return next;
}

void List::Shifts::advance(Micros now) {
  std::erase_if(all, [&](Shift& shift) {
    shift.by.advance(now);
    return !shift.by.moving();
  });
}

void List::cell_changed() {
  begun_ = true;
  aim_.reset();
  Sliding::cell_changed();
}

void List::present(Accessible& told) const {
  told.label = settings_.label;
  told.orientation = name_of(settings_.axis);
  told.keys = rail_.plan().min < 0.0 ? described().keys : "";
}

bool List::press(Key key) {
  const bool mirrored = settings_.axis == Axis::horizontal && context().right_to_left;
  if (mirrored && (key == Key::left || key == Key::right)) key = key == Key::left ? Key::right : Key::left;
  const auto place =
      scrolled_to(key, settings_.axis, -1.0, 0.8 * view(), rail_.target(), rail_.plan().min, 0.0);
  if (place) {
    aim_.reset();
    rail_.key(*place);
  }
  return place.has_value();
}

void List::go_to_end(bool end) {
  ask(
      [this, end] {
        aim_.reset();
        rail_.go_to(end ? rail_.plan().min : 0.0);
      },
      WhileHeld::waits);
}

namespace {

const List& list_of(const Part& part) { return static_cast<const List&>(part); }

double first_of(const List& it) { return static_cast<double>(it.first()); }
double last_of(const List& it) { return static_cast<double>(it.last()); }
double items_of(const List& it) { return static_cast<double>(it.items()); }
double made_of(const List& it) { return static_cast<double>(it.made()); }

constexpr std::array list_readings{
    ReadingInfo{"offset", "dp", "how far its items are carried", &read<List, &List::offset>, nullptr, true},
    ReadingInfo{"target", "dp", "where that goes, or stands", &read<List, &List::target>},
    ReadingInfo{"velocity", "dp/s", "how fast it moves", &read<List, &List::velocity>},
    ReadingInfo{"items", "", "how many there are", &read<List, &items_of>},
    ReadingInfo{"first", "", "the first item in view, from 0", &read<List, &first_of>},
    ReadingInfo{"last", "", "the last item in view", &read<List, &last_of>},
    ReadingInfo{"made", "", "how many items are parts", &read<List, &made_of>},
    ReadingInfo{"length", "dp", "how long it is, with all its items", &read<List, &List::length>},
    ReadingInfo{"pressed", "", "a finger has it", &read<List, &List::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<List, &List::dragging>},
};

std::optional<Point> place_of_item(const Part& part, double value) {
  const List& it = list_of(part);
  if (!(value >= 0.0) || value >= static_cast<double>(it.items())) return {};
  return it.box_of(static_cast<std::size_t>(value)).centre();
}

// Those items that are no parts, and how far it is scrolled.
void list_pieces(const Part& part, const PieceTaker& out) {
  const List& it = list_of(part);
  const Box box = it.box();
  const bool upright = it.settings().axis == Axis::vertical;
  if (it.items() > 0 && it.settings().count > 0.0 && !it.settings().on_near) {
    std::string words;
    for (std::size_t i = it.first(); i <= it.last(); ++i) {
      const Box item = common(it.box_of(i), box);
      words = it.settings().label + (it.settings().label.empty() ? "" : " ") + std::to_string(i + 1);
      out({.role = Role::row,
           .name = "item",
           .box = item,
           .item = static_cast<int>(i),
           .cursor = Cursor::arrow});
      const Box line{item.x + 16.0, item.centre().y - 10.0, item.w - 32.0, 20.0};
      if (item.h >= 24.0) out({.role = Role::label, .box = line, .words = words});
    }
  }
  const double view = upright ? box.h : box.w;
  if (it.length() <= view) return;
  constexpr double thick = 4.0;
  constexpr double shortest = 24.0;
  const double long_ = std::max(shortest, view * view / it.length());
  const double at = std::clamp(-it.offset() / (it.length() - view), 0.0, 1.0) * (view - long_);
  const double side = it.context().right_to_left ? box.x + 2.0 : box.right() - thick - 2.0;
  out({.role = Role::track,
       .name = "bar",
       .box = upright ? Box{side, box.y + at, thick, long_}
                      : Box{it.context().right_to_left ? box.right() - at - long_ : box.x + at,
                            box.bottom() - thick - 2.0, long_, thick}});
}

template <bool End>
constexpr PartAction end_action(const char* name, const char* means) {
  return {.name = name,
          .means = means,
          .run = [](Part& part) { static_cast<List&>(part).go_to_end(End); },
          .offered = false};
}

constexpr std::array list_actions{end_action<false>("to-start", "scrolls to its start"),
                                  end_action<true>("to-end", "scrolls to its end")};

}  // namespace

const PartKind& List::described() {
  static const PartKind kind = describe<List>(
      {.name = "list",
       .means = "items one after another that scroll; only those near its box need to be parts",
       .role = "list",
       .example = {.box = R"(0, 0, "100%", "100%")",
                   .lines = "label = \"Hive\"\ncount = 40\nitem_size = 56\n",
                   .cells = ""},
       .readings = list_readings,
       .pieces = &list_pieces,
       .place_of = &place_of_item,
       .upright = Upright::downwards,
       .wheel = WheelUse::scrolls,
       .child_box =
           [](const AnySettings& settings) {
             const auto* held = settings.as<ListSettings>();
             return held != nullptr && held->axis == Axis::horizontal ? ChildBox::row : ChildBox::column;
           },
       .keys = "arrows, Page Up, Page Down, Home, End",
       .actions = list_actions});
  return kind;
}

}  // namespace ubbo
