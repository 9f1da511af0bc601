#include "ubbo/parts/page_dots.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "ubbo/parts/value_keys.hpp"

namespace ubbo {

template <>
std::span<const Setting<PageDotsSettings>> settings_of<PageDotsSettings>() {
  using S = PageDotsSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the pages are, for people and screen readers"),
      declare::needed_cell<&S::selected>("selected", "the cell that holds the selected page, from 0"),
      declare::whole<&S::count>("count", "", 1.0, 1e6, "how many pages there are; a whole number"),
      declare::whole<&S::visible_dots>("visible_dots", "", 1.0, 99.0,
                                       "how many dots are seen at most; a whole number"),
      declare::number<&S::gap>("gap", "dp", 4.0, 200.0, "the distance from dot to dot"),
      declare::number<&S::size>("size", "dp", 1.0, 100.0, "the diameter of a dot"),
      declare::transition<&S::transition>("transition", "how the filled dot and the window travel"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that for people who asked for less motion"),
  };
  return table;
}

PageDots::PageDots(std::string id, const Box& box, PageDotsSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  changed();
  at_.put(selected());
  first_.put(std::clamp(selected() - seen() / 2, 0, count() - seen()));
}

void PageDots::changed() {
  watch_ = settings_.selected.watch([this](int) { hear(); });
  show(true);
}

int PageDots::selected() const {
  return settings_.selected.linked() ? std::clamp(settings_.selected.get(), 0, count() - 1) : 0;
}

Point PageDots::place_of(double page) const {
  const Box here = box();
  const double along_row = (page - first() - (seen() - 1) / 2.0) * settings_.gap;
  return here.centre() + Point{context().right_to_left ? -along_row : along_row, 0.0};
}

// The window moves only as far as it must for the page and, where there is one, the dot after it.
int PageDots::window_for(int page) const {
  const int beside = seen() > 2 ? 1 : 0;
  const auto now = static_cast<int>(std::lround(first_.target()));
  const int min = page + beside - seen() + 1;
  const int max = page - beside;
  return std::clamp(std::clamp(now, std::min(min, max), std::max(min, max)), 0, count() - seen());
}

void PageDots::cell_changed() { show(context().write == Write::travels); }

void PageDots::show(bool travels) {
  const int to = selected();
  for (auto [mover, place] :
       {std::pair<Mover*, int>{&at_, to}, std::pair<Mover*, int>{&first_, window_for(to)}}) {
    if (mover->target() == place) continue;
    mover->set_reduced(reduced(settings_.reduced_motion));
    if (travels)
      mover->send(place, settings_.transition, context().now);
    else
      mover->put(place);
  }
}

void PageDots::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_now = selected() + 1;
  told.value_min = 1;
  told.value_max = count();
  told.value_text = ShortText::of("page ", std::to_string(selected() + 1), " of ", std::to_string(count()));
  told.orientation = name_of(Axis::horizontal);
}

int PageDots::meant_at(Point at) const {
  const Point middle = place_of(0.0);
  const double along_row = (context().right_to_left ? middle.x - at.x : at.x - middle.x) / settings_.gap;
  const auto dot = static_cast<int>(std::floor(std::clamp(along_row + 0.5, -1e6, 2e6)));
  const auto from = static_cast<int>(std::lround(first_.target()));
  if (dot >= from && dot < from + seen()) return dot;
  return std::clamp(selected() + (dot < from ? -1 : 1), 0, count() - 1);
}

bool PageDots::capture(const Contact&, const Sample& sample) { return press_.down(sample); }

void PageDots::move(const Contact&, const Sample& sample) { press_.follow(*this, sample, box()); }

// Where the finger went down is what was meant: the dots may have slid since.
void PageDots::lift(const Contact& contact, const Sample& sample) {
  if (press_.lift(*this, sample, box())) choose(meant_at(contact.down.at), answers::dot_pressed);
}

void PageDots::let_go(const Contact&, LetGo how) { press_.let_go(*this, how); }

void PageDots::choose(int page, const answers::Dot& answer) {
  const bool other = page != this->selected();
  if (asked()) return;  // what the app has written meanwhile counts
  decide(answer, press_.at().x, page + 1, count());
  settings_.selected.set(page);
  if (other) tell(settings_.on_choose, page);
}

bool PageDots::press(Key key) {
  const auto meant = ValueKeys{1.0, 0.0, 0.0, count() - 1.0, context().right_to_left}.apply(key, selected());
  if (!meant) return false;
  const int wanted = std::clamp(static_cast<int>(*meant), 0, count() - 1);
  if (wanted == selected())
    decide(answers::key_at_end, {selected() + 1.0, ""}, {selected() + 1.0, ""});
  else
    choose(wanted, context().cause == Cause::call    ? answers::dot_by_call
                   : context().cause == Cause::wheel ? answers::dot_by_wheel
                                                     : answers::dot_by_key);
  return true;
}

namespace {

const PageDots& dots_of(const Part& part) { return static_cast<const PageDots&>(part); }

double page_number(const PageDots& it) { return it.selected(); }

constexpr std::array page_dots_readings{
    ReadingInfo{"position", "", "where the filled dot is, in pages from 0",
                &read<PageDots, &PageDots::position>, nullptr, true},
    ReadingInfo{"first", "", "the first dot that is seen", &read<PageDots, &PageDots::first>},
    ReadingInfo{"selected", "", "the present page, from 0", &read<PageDots, &page_number>},
    ReadingInfo{"pressed", "", "a finger presses it", &read<PageDots, &PageDots::pressed>},
};

void page_dots_pieces(const Part& part, const PieceTaker& out) {
  const PageDots& it = dots_of(part);
  const double first = it.first();
  const double size = it.settings().size;
  const auto dot = [&](double page, int item, double radius, bool on, double opacity) {
    const Point at = it.place_of(page);
    out({.role = Role::mark,
         .name = on ? "present" : "dot",
         .box = {at.x - radius, at.y - radius, 2 * radius, 2 * radius},
         .opacity = opacity,
         .on = on,
         .item = item,
         .cursor = on ? Cursor::automatic : Cursor::pointer});
  };
  const auto from = static_cast<int>(std::floor(first));
  for (int i = std::max(0, from); i < std::min(it.count(), from + it.seen() + 1); ++i) {
    // Fading in and out at the ends of the window, and smaller there where more follow.
    const double inside = std::min(i - first + 1.0, first + it.seen() - i);
    const bool more = (i == from && from > 0) || (i == from + it.seen() - 1 && from + it.seen() < it.count());
    if (inside <= 0.0) continue;
    dot(i, i, size / 2 * (more ? 0.6 : 1.0), false, std::min(inside, 1.0));
  }
  dot(it.position(), -1, size / 2, true, 1.0);
}

std::optional<Point> dot_place(const Part& part, double value) {
  const PageDots& it = dots_of(part);
  if (!(value >= 0.0 && value < it.count()) || value != std::floor(value)) return std::nullopt;
  return it.place_of(value);
}

constexpr std::array page_dots_actions{
    PartAction{"next", "goes to the next page", [](Part& part) { part.press(Key::up); }},
    PartAction{"previous", "goes to the page before", [](Part& part) { part.press(Key::down); }}};

}  // namespace

const PartKind& PageDots::described() {
  static const PartKind kind =
      describe<PageDots>({.name = "page-dots",
                          .means = "a dot for each page, that of the present one filled",
                          .role = "slider",
                          .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                                      .lines = "label = \"Photo\"\nselected = \"photo\"\ncount = 5\n",
                                      .cells = "photo = 0\n"},
                          .readings = page_dots_readings,
                          .pieces = &page_dots_pieces,
                          .place_of = &dot_place,
                          .own_state = true,  // which dots are seen hangs on the way to the page
                          .wheel = WheelUse::steps,
                          .usual_size = {0.0, 44.0},
                          .keys = "arrows, Home, End",
                          .actions = page_dots_actions,
                          .answers = answers::page_dots_answers});
  return kind;
}

}  // namespace ubbo
