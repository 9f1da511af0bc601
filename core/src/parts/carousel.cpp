#include "ubbo/parts/carousel.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

namespace {

constexpr double around_and_around = 1e6;  // items either way, where it wraps

// How long an item is along the row.
double length_in(const Box& box, const CarouselSettings& settings) {
  const double row = along(settings.axis, {box.w, box.h});
  const double in_view = settings.visible_items_wide > 0.0 && row >= settings.wide_from
                             ? settings.visible_items_wide
                             : settings.visible_items;
  const double gaps = std::fmax(std::ceil(in_view) - 1.0, 0.0) * settings.spacing;
  return (row - 2.0 * settings.peek - gaps) / in_view;
}

}  // namespace

template <>
std::span<const Setting<CarouselSettings>> settings_of<CarouselSettings>() {
  using declare::number;
  using S = CarouselSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the items are, for people and screen readers"),
      declare::cell<&S::selected>("selected",
                                  "the cell that holds the selected item, from 0; may be left out"),
      declare::cell<&S::position>("position",
                                  "a cell that is told where it is, in items, all the time; may be left out"),
      declare::cell<&S::titles>("titles", "a cell with a line of text for each item; may be left out"),
      declare::whole<&S::count>("count", "", 0.0, 1e6, "how many items there are; a whole number"),
      declare::choice<&S::axis>("axis", axis_names, "the direction of the row; vertical goes downwards"),
      number<&S::visible_items>("visible_items", "", 0.1, 100.0,
                                "how many items the box holds beside each other"),
      number<&S::visible_items_wide>(
          "visible_items_wide", "", 0.0, 100.0,
          "how many items are seen where its box is at least wide_from; 0: visible_items"),
      number<&S::wide_from>("wide_from", "dp", 1.0, 100000.0,
                            "the width of the box from which `visible_items_wide` counts"),
      number<&S::spacing>("spacing", "dp", 0.0, 1000.0, "between items"),
      number<&S::peek>("peek", "dp", 0.0, 1000.0, "how much is seen of what lies beyond, at either side"),
      number<&S::start>("start", "dp", -1000.0, 1000.0, "how far the selected item is from the leading side"),
      declare::flag<&S::wrap>("wrap", "behind the last item comes the first"),
      declare::flag<&S::coasts>("coasts", "it rests wherever friction lets it come, not only on items"),
      number<&S::max_per_flick>("max_per_flick", "", 0.0, 1e6,
                                "how many items one flick goes on by; 0: any number"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far it must be dragged to go on to the next item when it is let go: a length, or a share of "
          "the way there; 0: half-way"),
      number<&S::shrink>("shrink", "", 0.0, 1.0, "how much smaller an item is that is one away or more"),
      number<&S::fade>("fade", "", 0.0, 1.0, "how much less solid an item is that is one away or more"),
      number<&S::parallax>("parallax", "", 0.0, 4.0,
                           "how fast what lies far behind the items moves, of their own rate"),
      declare::transition<&S::transition>("transition", "how it goes where it is sent"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick does not "
          "count either"),
      number<&S::half_life>("half_life", "ms", 1.0, 5000.0,
                            "where it coasts: the time in which its speed halves"),
      declare::choice<&S::overscroll_start>(
          "overscroll_start", overscroll_names,
          "how it yields before its first item: not at all, by a share of the finger's "
          "way, or less and less"),
      declare::choice<&S::overscroll_end>("overscroll_end", overscroll_names,
                                          "how it yields beyond its last item"),
      number<&S::overscroll_fraction>(
          "overscroll_fraction", "", 0.0, 1.0,
          "with linear overscroll: how much of the finger's way it follows past an end, as a share"),
      number<&S::overscroll_reach>("overscroll_reach", "dp", 1.0, 10000.0,
                                   "with damped overscroll: how far it goes past an end at most"),
  };
  return table;
}

std::string Carousel::misfit(const Box& box, const CarouselSettings& settings) {
  if (!(length_in(box, settings) >= 1.0))
    return "a box of " + plain_number(along(settings.axis, {box.w, box.h})) + " dp leaves an item " +
           plain_number(length_in(box, settings)) + " dp; it takes less peek, spacing or visible_items";
  return {};
}

Carousel::Carousel(std::string id, const Box& box, CarouselSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context), rail_(*this, plan(), {}) {
  rail_.on_rest = [this](double) {
    told_ = std::nan("");  // said at rest whatever was said before
    tell(settings_.on_rest, selected());
  };
  // There from the first, without an entrance.
  rail_.change(plan(), number());
  if (settings_.selected.linked()) rail_.put_at(place_near(settings_.selected.get()));
  told_ = std::nan("");
}

NumberLink Carousel::number() {
  return {settings_.selected, std::function([this](const int& index) { return place_near(index); }),
          std::function([this](double place, const int&) { return item_at(place); })};
}

RailPlan Carousel::plan() const {
  const double last = std::max(settings_.count - 1.0, 0.0);
  const double min = settings_.wrap && last > 0.0 ? -around_and_around : 0.0;
  const double max = settings_.wrap && last > 0.0 ? around_and_around : last;
  const double way = mirrored() ? pitch() : -pitch();  // the next item comes as the row goes back
  const double reach = settings_.overscroll_reach / std::fabs(way);
  const auto overscroll = [&](Overscroll::How how) {
    return Overscroll{how, how == Overscroll::How::linear ? settings_.overscroll_fraction : reach};
  };
  SnapPoints snap_points = max > min ? SnapPoints::even(min, max, 1.0) : SnapPoints::list({0.0});
  if (settings_.coasts) snap_points = {};
  return {.axis = settings_.axis,
          .min = min,
          .max = max,
          .dp_per_unit = way,
          .unit = "item",
          .sense = Sense::counted,
          .of = count(),
          .said_as = [](const Part& part,
                        double place) { return static_cast<const Carousel&>(part).wrapped(place); },
          .snap_points = std::move(snap_points),
          .transition = settings_.transition,
          .coast = settings_.coasts ? std::optional(Coast::half_life(settings_.half_life)) : std::nullopt,
          .projection_time = settings_.coasts ? Micros{0} : settings_.projection_time,
          .max_per_flick = settings_.max_per_flick,
          .commit_distance = {settings_.commit_distance.dp / pitch(), settings_.commit_distance.fraction},
          .overscroll_min = overscroll(settings_.overscroll_start),
          .overscroll_max = overscroll(settings_.overscroll_end),
          .tells = Tells::target,
          .reduced_motion = settings_.reduced_motion,
          .snaps_writes = true};
}

void Carousel::changed(const CarouselSettings& before) {
  if (before.position.cell() != settings_.position.cell()) told_ = std::nan("");
  rail_.change(plan(), number());
}

// Within the items there are, so that what is linked to it needs to know of no wrapping.
double Carousel::wrapped(double place) const {
  return settings_.wrap && count() > 0 ? place - std::floor(place / count()) * count() : place;
}

void Carousel::resized() { rail_.set_dp_per_unit(plan().dp_per_unit); }

int Carousel::item_at(double place) const {
  const int items = std::max(count(), 1);
  const double nearest = std::round(place);
  if (!settings_.wrap) return static_cast<int>(std::clamp(nearest, 0.0, items - 1.0));
  return static_cast<int>(nearest - std::floor(nearest / items) * items);
}

// Wrapped, an item stands at many places: the nearest to where it goes.
double Carousel::place_near(int index) const {
  const int items = std::max(count(), 1);
  const double within = std::clamp(index, 0, items - 1);
  if (!settings_.wrap) return within;
  const double here = std::round(target());
  return within + std::round((here - within) / items) * items;
}

double Carousel::fraction() const { return position() - std::round(position()); }

double Carousel::item_length() const { return std::fmax(length_in(layout_box(), settings_), 1.0); }

Box Carousel::item(double place) const {
  const Box here = box();
  const double length = item_length();
  const double from = settings_.peek + settings_.start + (place - position()) * (length + settings_.spacing);
  if (settings_.axis == Axis::vertical) return {here.x, here.y + from, here.w, length};
  return {mirrored() ? here.right() - from - length : here.x + from, here.y, length, here.h};
}

Carousel::Look Carousel::look(double distance) const {
  const double away = std::fmin(std::fabs(distance), 1.0);
  return {1.0 - settings_.shrink * away, 1.0 - settings_.fade * away};
}

double Carousel::layer_offset(double rate) const {
  const double offset = -position() * pitch() * rate;
  return mirrored() ? -offset : offset;
}

void Carousel::go_to(int index) {
  ask(
      [this, index] {
        if (count() == 0) return;
        const double place = place_near(index);
        decide(answers::item_asked, item_at(place) + 1);
        rail_.go_to(place);
      },
      WhileHeld::waits);
}

void Carousel::restore(std::span<const double> saved) {
  ask(
      [this, place = saved[0]] {
        if (count() > 0) rail_.put(place);
      },
      WhileHeld::waits);
}

void Carousel::step(int by) {
  ask([this, by] { take_step(by); }, WhileHeld::waits);
}

void Carousel::take_step(int by) {
  if (count() > 0) rail_.key(std::round(rail_.target()) + by);
}

// What is linked to it goes along.
void Carousel::update() {
  const double place = position();
  if (place == told_) return;
  told_ = place;
  {
    const detail::Writing carried(Write::carried);
    settings_.position.set(wrapped(position()));
  }
  tell(settings_.on_move, selected(), fraction());
}

void Carousel::present(Accessible& told) const {
  told.label = settings_.label;
  told.orientation = name_of(settings_.axis);
  told.keys = count() > 0 ? described().keys : "";
  if (count() > 0)
    told.value_text =
        ShortText::of("item ", std::to_string(item_at(target()) + 1), " of ", std::to_string(count()));
}

bool Carousel::take_over(const Contact& contact, Point anchor) {
  return count() != 0 && rail_.take_over(contact, anchor);
}

bool Carousel::capture(const Contact& contact, const Sample& sample) {
  return count() != 0 && rail_.down(contact, sample);
}

void Carousel::move(const Contact& contact, const Sample& sample) {
  if (!(drag_to(contact, sample) == Point{})) rail_.overscroll();
}

Point Carousel::drag_to(const Contact& contact, const Sample& sample) {
  return rail_.follow(contact, sample);
}

void Carousel::let_go(const Contact&, LetGo how) { rail_.let_go(how); }

void Carousel::lift(const Contact& contact, const Sample& sample) {
  if (rail_.lift(contact, sample)) return;
  rail_.explain_press(contact, sample);
  const double reach = feel_for(sample.tool).tap_reach;
  const Box present = item(position());
  const double from_start = along(settings_.axis, sample.at - Point{present.x, present.y});
  const double along_row = mirrored() ? item_length() - from_start : from_start;
  const bool beside = from_start < 0.0 || from_start >= item_length();
  if (rail_.strayed() > reach || !beside) return rail_.resume();
  const double tapped = std::round(position()) + std::floor(along_row / pitch());
  const double place = std::clamp(tapped, rail_.plan().min, rail_.plan().max);
  decide(answers::item_tapped, item_at(place) + 1, std::fabs(place - std::round(position())));
  rail_.go_to(place);
}

bool Carousel::press(Key key) {
  const int sign = mirrored() ? -1 : 1;
  if (count() == 0) return false;
  const double here = std::round(rail_.target());
  const bool upright = settings_.axis == Axis::vertical;
  switch (key) {
    case Key::right:
    case Key::down:
      if (upright != (key == Key::down)) return false;
      rail_.key(here + sign);
      return true;
    case Key::left:
    case Key::up:
      if (upright != (key == Key::up)) return false;
      rail_.key(here - sign);
      return true;
    case Key::home:
      rail_.key(place_near(0));
      return true;
    case Key::end:
      rail_.key(place_near(count() - 1));
      return true;
    default:
      return false;
  }
}

namespace {

const Carousel& carousel(const Part& part) { return static_cast<const Carousel&>(part); }

double index_now(const Carousel& it) { return it.selected(); }
double far_now(const Carousel& it) { return it.layer_offset(it.settings().parallax); }

void item_rests(const Part& part, std::vector<double>& snap_points) {
  constexpr int max = 60;
  const Carousel& it = carousel(part);
  for (int i = 0; !it.settings().coasts && !it.settings().wrap && i < it.count() && it.count() <= max; ++i)
    snap_points.push_back(i);
}

constexpr std::array carousel_readings{
    ReadingInfo{"position", "items", "where it is, in items from 0", &read<Carousel, &Carousel::position>,
                &item_rests, true, &rail_thresholds<Carousel>},
    ReadingInfo{"target", "items", "where it goes, or stands", &read<Carousel, &Carousel::target>,
                &item_rests},
    ReadingInfo{"selected", "", "the item nearest to that, from 0", &read<Carousel, &index_now>},
    ReadingInfo{"fraction", "", "how far it is from that item towards the next",
                &read<Carousel, &Carousel::fraction>},
    ReadingInfo{"velocity", "items/s", "how fast it moves", &read<Carousel, &Carousel::velocity>, nullptr,
                false, &rail_flick_speeds<Carousel>},
    ReadingInfo{"far", "dp", "how far what lies far behind has moved", &read<Carousel, &far_now>},
    ReadingInfo{"pressed", "", "a finger has it", &read<Carousel, &Carousel::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<Carousel, &Carousel::dragging>},
};

// Only the items that are seen, whatever their number; the present one last, so that it lies on top.
void carousel_pieces(const Part& part, const PieceTaker& out) {
  const Carousel& it = carousel(part);
  if (it.count() == 0) return;
  const Box box = it.box();
  const double pitch = it.item_length() + it.settings().spacing;
  const double here = it.position();
  const double before =
      std::floor(here - (it.settings().peek + std::fabs(it.settings().start)) / pitch) - 1.0;
  const double after = std::ceil(here + along(it.settings().axis, {box.w, box.h}) / pitch) + 1.0;
  const double nearest = std::round(here);
  const auto show = [&](double place) {
    if (!it.settings().wrap && (place < 0.0 || place > it.count() - 1.0)) return;
    const Box whole = it.item(place);
    if (whole.right() <= box.x || whole.x >= box.right() || whole.bottom() <= box.y ||
        whole.y >= box.bottom())
      return;
    const Carousel::Look look = it.look(place - here);
    const Point middle = whole.centre();
    const double w = whole.w * look.scale;
    const double h = whole.h * look.scale;
    const int items = it.count();
    const double index = place - std::floor(place / items) * items;
    const Box card{middle.x - w / 2, middle.y - h / 2, w, h};
    item_pieces({.role = Role::surface,
                 .name = "item",
                 .box = card,
                 .opacity = look.opacity,
                 .on = place == nearest,
                 .held = it.dragging() && place == nearest,
                 .item = static_cast<int>(index),
                 .cursor = Cursor::grab},
                it.settings().titles, out);
  };
  const int seen = static_cast<int>(after - before);  // whole numbers, both
  for (int i = 0; i <= seen; ++i)
    if (before + i != nearest) show(before + i);
  show(nearest);
  out({.role = Role::label,
       .box = {box.x + 16.0, box.y - 24.0, box.w - 32.0, 20.0},
       .words = it.settings().label});
}

std::optional<Point> item_place(const Part& part, double value) {
  const Carousel& it = carousel(part);
  if (!(value >= 0.0 && value < it.count()) || value != std::floor(value)) return std::nullopt;
  return it.item(value).centre();
}

template <int By>
constexpr PartAction step_by(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<Carousel&>(part).step(By); },
          [](const Part& part) { return carousel(part).count() > 0; }};
}

constexpr std::array carousel_actions{step_by<1>("next", "goes to the next item"),
                                      step_by<-1>("previous", "goes to the item before")};

}  // namespace

const PartKind& Carousel::described() {
  static const PartKind kind = describe<Carousel>(
      {.name = "carousel",
       .means = "items in a row that a finger passes by",
       .role = "group",
       .example = {.box = R"(0, 200, "100%", 300)",
                   .lines = "label = \"Photos\"\nselected = \"photo\"\ncount = 5\npeek = 32\nspacing = 12\n",
                   .cells = "photo = 0\n"},
       .readings = carousel_readings,
       .pieces = &carousel_pieces,
       .place_of = &item_place,
       .upright = Upright::downwards,
       .reaches_out = true,
       .wheel = WheelUse::both,
       .keys = "arrows along it, Home, End",
       .actions = carousel_actions,
       .answers = answers::carousel_answers});
  return kind;
}

}  // namespace ubbo
