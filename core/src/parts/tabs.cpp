#include "ubbo/parts/tabs.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

template <>
std::span<const Setting<TabsSettings>> settings_of<TabsSettings>() {
  using S = TabsSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the tabs choose, for people and screen readers"),
      declare::needed_cell<&S::selected>("selected",
                                         "the cell that holds the titles and which one is selected"),
      declare::cell<&S::position>(
          "position",
          "a cell that says where between the pages one is, from 0, such as a carousel's; the "
          "underline goes along; may be left out"),
      declare::choice<&S::axis>("axis", axis_names,
                                "the direction in which they follow each other; vertical goes downwards, and "
                                "what underlines runs along their trailing side"),
      declare::numbers<&S::widths>(
          "widths", "dp", 1.0, 10000.0,
          "how long each title's place is in that direction; none: the box is shared out evenly"),
      declare::number<&S::inset>("inset", "dp", 0.0, 200.0,
                                 "how much shorter the underline is than its title's place, on each side"),
      declare::transition<&S::transition>("transition", "how the ends of the underline travel"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that for people who asked for less motion"),
  };
  return table;
}

std::string Tabs::misfit(const Box&, const TabsSettings& settings) {
  const std::size_t names = settings.selected.get().names().size();
  if (!settings.widths.empty() && settings.widths.size() != names)
    return "widths holds " + std::to_string(settings.widths.size()) + " numbers; it takes one for each of " +
           std::to_string(names) + " titles, or none";
  return {};
}

Tabs::Tabs(std::string id, const Box& box, TabsSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  changed();
}

void Tabs::changed() {
  chosen_watch_ = settings_.selected.watch([this](const Choice&) { hear(); });
  page_watch_.stop();
  if (settings_.position.linked()) page_watch_ = settings_.position.watch([this](double) { hear(); });
  had_one_ = selected() < count();
  measure(std::exchange(laid_out_, true));  // at the first layout it is simply there
}

std::span<const std::string> Tabs::names() const {
  return settings_.selected.linked() ? settings_.selected.get().names() : std::span<const std::string>();
}

void Tabs::restore(std::span<const double> saved) {
  if (!settings_.selected.linked()) return;
  const Choice& now = settings_.selected.get();
  const auto index = static_cast<std::size_t>(whole(saved[0]));
  settings_.selected.set(index < count() ? now.with(index) : now.with_none());
}

std::size_t Tabs::selected() const {
  return settings_.selected.linked() ? settings_.selected.get().index() : 0;
}

Tabs::Ends Tabs::ends_of(std::size_t index) const {
  // Widths of other titles than there are now say nothing.
  if (settings_.widths.size() != count()) {
    const double whole = along(settings_.axis, {layout_box().w, layout_box().h});
    const double width = whole / static_cast<double>(std::max<std::size_t>(count(), 1));
    return {width * static_cast<double>(index), width * static_cast<double>(index + 1)};
  }
  double begin = 0.0;
  for (std::size_t i = 0; i < index; ++i) begin += settings_.widths[i];
  return {begin, begin + settings_.widths[index]};
}

Tabs::Ends Tabs::wanted() const {
  if (count() == 0 || (!settings_.position.linked() && selected() >= count())) return {};
  const auto inside = [&](std::size_t index) {
    Ends ends = ends_of(index);
    const double inset = std::fmin(settings_.inset, (ends.end - ends.begin) / 2);
    return Ends{ends.begin + inset, ends.end - inset};
  };
  if (!settings_.position.linked() || !std::isfinite(settings_.position.get())) return inside(selected());
  const double page = std::clamp(settings_.position.get(), 0.0, static_cast<double>(count() - 1));
  const auto before = static_cast<std::size_t>(page);
  const Ends from = inside(before);
  const Ends to = inside(std::min(before + 1, count() - 1));
  const double fraction = page - static_cast<double>(before);
  return {from.begin + (to.begin - from.begin) * fraction, from.end + (to.end - from.end) * fraction};
}

Box Tabs::tab(std::size_t index) const {
  const Ends ends = ends_of(index);
  const Box here = box();
  if (upright()) return {here.x, here.y + ends.begin, here.w, ends.end - ends.begin};
  const double x = context().right_to_left ? here.right() - ends.end : here.x + ends.begin;
  return {x, here.y, ends.end - ends.begin, here.h};
}

Box Tabs::underline() const {
  constexpr double thick = 3.0;
  const Box here = box();
  const double side = context().right_to_left ? here.x : here.right() - thick;
  if (count() == 0 || (!settings_.position.linked() && selected() >= count()))
    return upright() ? Box{side, here.y, thick, 0.0} : Box{here.x, here.bottom() - thick, 0.0, thick};
  const double begin = begin_.at(context().now).value;
  const double end = end_.at(context().now).value;
  const double from = std::fmin(begin, end);
  const double width = std::fabs(end - begin);
  if (upright()) return {side, here.y + from, thick, width};
  return {context().right_to_left ? here.right() - from - width : here.x + from, here.bottom() - thick, width,
          thick};
}

void Tabs::measure(bool travels) {
  const Ends ends = wanted();
  const auto now = context().now;
  if (!travels) {
    begin_.put(ends.begin);
    end_.put(ends.end);
    return;
  }
  for (auto [mover, to] : {std::pair{&begin_, ends.begin}, std::pair{&end_, ends.end}}) {
    if (mover->target() == to) continue;
    mover->set_reduced(reduced(settings_.reduced_motion));
    mover->send(to, settings_.transition, now);
  }
}

// From none to one there is no way to travel.
void Tabs::cell_changed() {
  const bool had_one = std::exchange(had_one_, selected() < count());
  measure(had_one && had_one_ && !settings_.position.linked() && context().write == Write::travels);
}

void Tabs::update() {
  const bool moves = begin_.moving() || end_.moving();
  if (std::exchange(moved_, moves) && !moves && selected() < count())
    decide(answers::underline_rests, static_cast<double>(selected() + 1));
}

void Tabs::present(Accessible& told) const {
  told.label = settings_.label;
  told.orientation = name_of(settings_.axis);
  if (count() != 0) told.value_text = settings_.selected.get().name();
}

std::size_t Tabs::index_at(Point at) const {
  for (std::size_t i = 0; i < count(); ++i) {
    const Box place = tab(i);
    if (upright() ? at.y >= place.y && at.y < place.bottom() : at.x >= place.x && at.x < place.right())
      return i;
  }
  const bool before =
      upright() ? at.y < box().centre().y : (at.x < box().centre().x) != context().right_to_left;
  return before || count() == 0 ? 0 : count() - 1;
}

bool Tabs::capture(const Contact&, const Sample& sample) {
  if (count() == 0 || !press_.down(sample)) return false;
  pressed_index_ = index_at(sample.at);
  return true;
}

// The tab pressed, or the last where that has gone meanwhile.
std::size_t Tabs::pressed_tab() const {
  return std::min(pressed_index_, std::max<std::size_t>(count(), 1) - 1);
}

void Tabs::move(const Contact&, const Sample& sample) { press_.follow(*this, sample, tab(pressed_tab())); }

void Tabs::lift(const Contact&, const Sample& sample) {
  const std::size_t index = pressed_tab();
  if (press_.lift(*this, sample, tab(index)) && count() != 0)
    choose(index, index == selected() ? answers::tab_is_chosen : answers::tab_chosen);
}

void Tabs::let_go(const Contact&, LetGo how) { press_.let_go(*this, how); }

void Tabs::choose(std::size_t index, const answers::TabChosen& answer) {
  decide(answer, static_cast<double>(index + 1), static_cast<double>(count()));
  const bool other = index != selected();
  if (asked()) return;  // what the app has written meanwhile counts
  settings_.selected.set(settings_.selected.get().with(index));
  if (other) tell(settings_.on_choose, index);
}

bool Tabs::press(Key key) {
  const bool mirrored = !upright() && context().right_to_left;
  if (key == Key::home) return step_to(0);
  if (key == Key::end) return step_to(std::max<std::size_t>(count(), 1) - 1);
  const bool forward = key == (upright() ? Key::down : Key::right);
  if (!forward && key != (upright() ? Key::up : Key::left)) return false;
  step(forward != mirrored ? 1 : -1);
  return true;
}

void Tabs::step(int by) {
  const std::size_t here = selected();
  step_to(by < 0 ? std::max<std::size_t>(here, 1) - 1 : here < count() ? here + 1 : 0);
}

// True: a key has done what it can.
bool Tabs::step_to(std::size_t wanted) {
  if (count() == 0) return true;
  const std::size_t here = selected();
  wanted = std::min(wanted, count() - 1);
  if (wanted == here)
    decide(answers::key_at_end, {static_cast<double>(here + 1), ""}, {static_cast<double>(here + 1), ""});
  else
    choose(wanted, context().cause == Cause::call    ? answers::tab_by_call
                   : context().cause == Cause::wheel ? answers::tab_by_wheel
                                                     : answers::tab_by_key);
  return true;
}

namespace {

const Tabs& tabs_of(const Part& part) { return static_cast<const Tabs&>(part); }

double chosen_index(const Tabs& it) { return static_cast<double>(it.selected()); }
double underline_begin(const Tabs& it) {
  return it.settings().axis == Axis::vertical ? it.underline().y : it.underline().x;
}
double underline_end(const Tabs& it) {
  return it.settings().axis == Axis::vertical ? it.underline().bottom() : it.underline().right();
}

constexpr std::array tabs_readings{
    ReadingInfo{"underline.begin", "dp", "where the underline begins", &read<Tabs, &underline_begin>, nullptr,
                true},
    ReadingInfo{"underline.end", "dp", "where the underline ends", &read<Tabs, &underline_end>, nullptr,
                true},
    ReadingInfo{"selected", "", "the index of the selected title, from 0", &read<Tabs, &chosen_index>},
    ReadingInfo{"pressed", "", "a finger presses a title", &read<Tabs, &Tabs::pressed>},
};

void tabs_pieces(const Part& part, const PieceTaker& out) {
  const Tabs& it = tabs_of(part);
  if (it.count() == 0) return;
  const Box box = it.box();
  const Box under = it.underline();
  out({.role = Role::track,
       .box = it.settings().axis == Axis::vertical ? Box{under.centre().x - 0.5, box.y, 1.0, box.h}
                                                   : Box{box.x, box.bottom() - 1.0, box.w, 1.0}});
  for (std::size_t i = 0; i < it.count(); ++i) {
    const Box place = it.tab(i);
    const bool chosen = i == it.selected();
    out({.role = Role::value,
         .name = "tab",
         .box = {place.x, place.centre().y - 12.0, place.w, 22.0},
         .words = it.names()[i],
         .opacity = chosen ? 1.0 : 0.7,
         .on = chosen,
         .item = static_cast<int>(i),
         .cursor = Cursor::pointer});
  }
  if (it.selected() < it.count() || it.settings().position.linked())
    out({.role = Role::fill, .name = "underline", .box = under, .on = true});
}

std::optional<Point> tab_place(const Part& part, double value) {
  const Tabs& it = tabs_of(part);
  if (!(value >= 0.0 && value < static_cast<double>(it.count())) || value != std::floor(value))
    return std::nullopt;
  return it.tab(static_cast<std::size_t>(value)).centre();
}

constexpr std::array tabs_actions{
    PartAction{"next", "chooses the next title", [](Part& part) { static_cast<Tabs&>(part).step(1); }},
    PartAction{"previous", "chooses the title before",
               [](Part& part) { static_cast<Tabs&>(part).step(-1); }}};

}  // namespace

const PartKind& Tabs::described() {
  static const PartKind kind =
      describe<Tabs>({.name = "tabs",
                      .means = "titles, with an underline that travels to the "
                               "chosen one",
                      .role = "tablist",
                      .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                                  .lines = "label = \"Pages\"\nselected = \"page\"\n",
                                  .cells = "page = { choice = \"Notes\", of = [\"Notes\", \"Harvest\"] }\n"},
                      .readings = tabs_readings,
                      .pieces = &tabs_pieces,
                      .place_of = &tab_place,
                      .upright = Upright::downwards,
                      .own_state = true,
                      .wheel = WheelUse::steps,
                      .usual_size = {0.0, 44.0},
                      .keys = "arrows along them, Home, End",
                      .actions = tabs_actions,
                      .answers = answers::tabs_answers});
  return kind;
}

}  // namespace ubbo
