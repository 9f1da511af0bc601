#include "ubbo/parts/page_host.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

namespace {

double counted_from_one(std::size_t page) { return static_cast<double>(page) + 1.0; }

SnapPoints stops_between(std::size_t min, std::size_t max) {
  const auto from = static_cast<double>(min);
  return max > min ? SnapPoints::even(from, static_cast<double>(max), 1.0) : SnapPoints::list({from});
}

constexpr std::size_t usual_depth = 16;  // pages; deeper than that it needs more memory

}  // namespace

template <>
std::span<const Setting<PageHostSettings>> settings_of<PageHostSettings>() {
  using declare::number;
  using S = PageHostSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what its pages are, for people and screen readers"),
      declare::cell<&S::selected>("selected",
                                  "the cell that says which page is shown, both ways: the first of its names "
                                  "stands for the first part that lies in it, and so on; may be left out"),
      declare::flag<&S::edge_swipe_back>("edge_swipe_back",
                                         "a drag that begins at the leading edge draws the page back"),
      declare::flag<&S::system_back>("system_back", "the phone's back and Escape go back"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far a page must be drawn back to go on when it is let go: a length, or a share of its width; "
          "0: half-way"),
      number<&S::below_moves>("below_moves", "", 0.0, 1.0,
                              "the share of its width by which the page below goes along"),
      number<&S::below_opacity>("below_opacity", "", 0.0, 1.0,
                                "how visible the page below is once it is covered"),
      declare::flag<&S::opacity_follows>(
          "opacity_follows", "the page below fades as far as it is covered; no: by opacity_transition"),
      declare::transition<&S::opacity_transition>(
          "opacity_transition",
          "how the page below fades, once it is known where one goes, if it does not follow"),
      declare::transition<&S::transition>("transition", "how it goes from page to page"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of its travel for people who asked for less motion"),
      number<&S::projection_time>(
          "projection_time", "ms", 0.0, 2000.0,
          "how much of the release velocity counts for where it lands; 0: none, and a flick "
          "does not count either"),
  };
  return table;
}

// It starts on one page; the way grows as one goes along.
PageHost::PageHost(std::string id, const Box& box, PageHostSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  rail_.change(rail_plan(), {});
  for (auto* pages : {&came_, &way_}) pages->reserve(usual_depth);
  if (settings_.selected.linked() && settings_.selected.get().any())
    way_ = {page_ = settings_.selected.get().index()};  // there from the first
  follow();
}

RailPlan PageHost::rail_plan() const {
  return {
      .axis = Axis::horizontal,
      .min = static_cast<double>(rests_from_),
      .max = static_cast<double>(rests_to_),
      .dp_per_unit = context().right_to_left ? layout_box().w : -layout_box().w,
      .unit = "page",
      .sense = Sense::counted,
      .said_as = [](const Part& part,
                    double place) { return static_cast<const PageHost&>(part).page_at(place); },
      .snap_points = stops_between(rests_from_, rests_to_),
      .transition = settings_.transition,
      .projection_time = settings_.projection_time,
      .commit_distance = {settings_.commit_distance.dp / layout_box().w, settings_.commit_distance.fraction},
      .tells = Tells::rest,
      .reduced_motion = settings_.reduced_motion,
      .stays_caught = false};
}

void PageHost::follow() {
  watch_.stop();
  if (!settings_.selected.linked()) return;
  if (settings_.selected.get().index() != selected()) hear();
  watch_ = settings_.selected.watch([this](const Choice& choice) {
    if (choice.index() != selected()) hear();
  });
}

void PageHost::changed() {
  if (settings_.opacity_follows) faded_.put(static_cast<double>(goal_));
  resized();
  follow();
}

void PageHost::resized() { rail_.change(rail_plan(), {}); }

// Where its pages are. On the way two are seen, else one.

std::size_t PageHost::low() const {
  return std::min(static_cast<std::size_t>(std::max(0.0, std::floor(offset()))), way_.size() - 1);
}

std::size_t PageHost::high() const {
  return std::min(static_cast<std::size_t>(std::max(0.0, std::ceil(offset()))), way_.size() - 1);
}

// Its rail goes along the pages that are seen, which people know by other numbers.
double PageHost::page_at(double place) const {
  const auto last = static_cast<double>(way_.size() - 1);
  const double before = std::floor(std::clamp(place, 0.0, last));
  const auto page = [&](double at) {
    return static_cast<double>(way_[static_cast<std::size_t>(std::min(at, last))]);
  };
  return page(before) + (place - before) * (page(before + 1.0) - page(before));
}

// How much deeper than the present place a page lies, if anything of it is seen.
std::optional<double> PageHost::depth_of(const Part& inner) const {
  const auto held = static_cast<std::size_t>(std::find(held_.begin(), held_.end(), &inner) - held_.begin());
  for (std::size_t at = 0; at < way_.size(); ++at) {
    const double depth = static_cast<double>(at) - shown();
    if (way_[at] == held && std::fabs(depth) < 1.0) return depth;
  }
  return {};
}

Point PageHost::carries(const Part& inner) const {
  const double depth = depth_of(inner).value_or(0.0);
  return {rail().plan().dp_per_unit * -depth * (depth < 0.0 ? settings_.below_moves : 1.0), 0.0};
}

VisualState PageHost::shows(const Part& inner) const {
  return {.opacity = 1.0 - (1.0 - settings_.below_opacity) * covered(inner)};
}

// How much its opacity shows that a page is covered, 0 to 1.
double PageHost::covered(const Part& inner) const {
  const auto depth = depth_of(inner);
  if (!depth) return 0.0;
  const double off = settings_.opacity_follows ? 0.0 : faded_.at(context().now).value - shown();
  return std::clamp(off - *depth, 0.0, 1.0);
}

// What it is counted from has moved.
void PageHost::shift(double by) {
  faded_.shift(by);
  rail_.shift(by, 0.0, static_cast<double>(rests_to_));
}

ChildUse PageHost::child_use(const Part& inner) const {
  const auto depth = depth_of(inner);
  return !depth                                        ? ChildUse::gone
         : *depth == 0.0 && !rail_.moving() && !backs_ ? ChildUse::used
                                                       : ChildUse::seen;
}

std::optional<std::size_t> PageHost::page_below() const {
  if (!came_.empty()) return came_.back();
  if (page_ == 0) return {};
  return 0;
}

// The way. What is dropped or put in is never seen, so nothing that is seen moves.

void PageHost::drop(std::size_t at) {
  const bool below = at < low();
  way_.erase(way_.begin() + static_cast<std::ptrdiff_t>(at));
  if (at < goal_ || goal_ == way_.size()) --goal_;
  rests_from_ = 0;
  rests_to_ = way_.size() - 1;
  shift(below ? -1.0 : 0.0);
}

void PageHost::insert(std::size_t at, std::size_t page) {
  const bool below = at <= low();
  way_.insert(way_.begin() + static_cast<std::ptrdiff_t>(at), page);
  if (at <= goal_) ++goal_;
  rests_from_ = 0;
  rests_to_ = way_.size() - 1;
  shift(below ? 1.0 : 0.0);
}

void PageHost::trim(std::size_t min, std::size_t max) {
  while (way_.size() - 1 > max) drop(way_.size() - 1);
  for (; min > 0; --min) drop(min - 1);
}

void PageHost::let_rest(std::size_t min, std::size_t max) {
  rests_from_ = min;
  rests_to_ = max;
  rail_.set_snap_points(stops_between(min, max));
  rail_.set_bounds(static_cast<double>(min), static_cast<double>(max));
}

bool PageHost::to(std::size_t page) {
  if (page == page_) return false;
  backs_ = false;
  trim(low(), high());
  std::size_t at = 0;
  while (at < way_.size() && way_[at] != page) ++at;
  if (at == way_.size()) {  // it is not seen now: it comes next to what is
    if (page < page_) at = 0;
    insert(at, page);
  }
  let_rest(0, way_.size() - 1);
  rail_.go_to(static_cast<double>(at));
  aim(at);
  return true;
}

// At once.
void PageHost::there(std::size_t page) {
  way_ = {page};
  aim(0);
  going_ = false;
  faded_.put(0.0);
  rail_.put(0.0);
  let_rest(0, 0);
  rail_.put(0.0);
}

// The page it goes to is the one at `at` of its way.
void PageHost::aim(std::size_t at) {
  goal_ = at;
  const std::size_t before = std::exchange(page_, way_[at]);
  if (page_ == before) return;
  if (page_ > before)
    came_.push_back(before);
  else
    while (!came_.empty() && came_.back() >= page_) came_.pop_back();
  decide(page_ > before ? answers::page_forward : answers::page_back, counted_from_one(before),
         counted_from_one(page_));
  going_ = true;
  if (settings_.opacity_follows) {
    faded_.put(static_cast<double>(at));
  } else {
    faded_.set_reduced(reduced(settings_.reduced_motion));
    faded_.send(static_cast<double>(at), settings_.opacity_transition, context().now);
  }
  if (settings_.selected.linked() && !asked()) settings_.selected.set(settings_.selected.get().with(page_));
}

// Where it goes is settled once no finger has it: from then on every page may be asked for.
void PageHost::update() {
  if (pressed()) backs_ = false;
  if (pressed() || backs_ || rail_.owes_landing()) return;
  let_rest(0, way_.size() - 1);
  aim(static_cast<std::size_t>(std::max(0.0, std::round(target()))));
  // A page that a finger chose while a call waited is told once that call has been done, whatever it did.
  if (settings_.selected.linked() && !asked()) settings_.selected.set(settings_.selected.get().with(page_));
  if (rail_.settled()) rested();
}

void PageHost::rested() {
  if (offset() != static_cast<double>(goal_)) return;
  if (faded_.moving()) return;  // the slower one ends the way
  trim(goal_, goal_);
  let_rest(0, 0);
  if (!std::exchange(going_, false)) return;
  decide(answers::page_here, counted_from_one(page_));
  tell(settings_.on_page, page_);
}

void PageHost::child_added(Part& inner) { held_.push_back(&inner); }

// The pages after it move up; what showed it shows the one it came from.
void PageHost::child_removed(Part& inner) {
  const auto found = std::find(held_.begin(), held_.end(), &inner);
  if (found == held_.end()) return;
  const auto lost = static_cast<std::size_t>(found - held_.begin());
  held_.erase(found);
  const auto moved_up = [&](std::size_t page) { return page - (page > lost ? 1 : 0); };
  const std::size_t now = moved_up(page_ == lost ? page_below().value_or(0) : page_);
  std::erase(came_, lost);
  const bool seen = std::find(way_.begin(), way_.end(), lost) != way_.end();
  for (auto* pages : {&came_, &way_}) std::transform(pages->begin(), pages->end(), pages->begin(), moved_up);
  page_ = now;
  if (seen) {
    std::erase_if(came_, [&](std::size_t page) { return page >= now; });
    there(now);
  }
  if (settings_.selected.linked()) settings_.selected.set(settings_.selected.get().with(now));
}

// Fingers.

bool PageHost::from_edge(Point at) const {
  const Box here = box();
  const double depth = context().right_to_left ? here.right() - at.x : at.x - here.x;
  return settings_.edge_swipe_back && depth <= feel_for(Tool::finger).edge_width && page_below().has_value();
}

DragInterest PageHost::drag_interest(const Sample& sample) const {
  if (rail_.moving()) return {.horizontal = true};
  const bool edge = from_edge(sample.at);
  return {.handle = edge, .horizontal = edge || pressed()};
}

void PageHost::wait_for_finger() {
  if (rail_.moving()) return let_rest(std::min(low(), goal_), std::max(high(), goal_));
  if (goal_ == 0) insert(0, *page_below());
  let_rest(goal_ - 1, goal_);
}

bool PageHost::capture(const Contact& contact, const Sample& sample) {
  if (pressed() || (!rail_.moving() && !from_edge(sample.at))) return true;
  wait_for_finger();
  return rail_.down(contact, sample);
}

// Calls.

void PageHost::go_to(std::size_t page) {
  ask([this, page] { to(page); }, WhileHeld::waits);
}

void PageHost::go_back() {
  ask(
      [this] {
        if (page_below()) back();
      },
      WhileHeld::waits);
}

std::vector<double> PageHost::saved() const {
  std::vector<double> way(came_.begin(), came_.end());
  way.push_back(static_cast<double>(page_));
  return way;
}

void PageHost::restore(std::span<const double> saved) {
  ask(
      [this, way = std::vector<double>(saved.begin(), saved.end())] {
        // One page for each step, growing, or it is another host's.
        for (std::size_t i = 0; i < way.size(); ++i)
          if (!(way[i] >= 0.0 && (pages() == 0 || way[i] < static_cast<double>(pages()))) ||
              (i > 0 && way[i] <= way[i - 1]))
            return;
        if (way.empty()) return;
        to(static_cast<std::size_t>(way.back()));
        came_.assign(way.begin(), way.end() - 1);
      },
      WhileHeld::waits);
}

void PageHost::back() {
  backs_ = false;
  to(*page_below());
}

void PageHost::back_moves(double progress) {
  if (!std::exchange(backs_, true)) {
    there(page_);  // what was under way is there
    wait_for_finger();
  }
  rail_.put_at(static_cast<double>(goal_) - progress);
}

void PageHost::back_cancelled() {
  if (std::exchange(backs_, false)) rail_.go_to(static_cast<double>(goal_));
}

void PageHost::cell_changed() {
  if (!settings_.selected.linked()) return;
  // It always shows one: none is put right.
  const std::size_t wanted = settings_.selected.get().any() ? settings_.selected.get().index() : selected();
  if (!settings_.selected.get().any()) settings_.selected.set(settings_.selected.get().with(selected()));
  if (wanted == selected()) return;
  to(wanted);
}

void PageHost::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = settings_.selected.linked() ? settings_.selected.get().name() : "";
}

namespace {

double page_way(const PageHost& it) { return it.way_left(); }
double shown_page(const PageHost& it) { return static_cast<double>(it.selected()); }
// Counted as `way left` is, from the page it stands on.
void page_thresholds(const Part& part, std::vector<Threshold>& out) {
  const auto& it = static_cast<const PageHost&>(part);
  const Length commit = it.rail().plan().commit_distance;
  if (it.page_below()) add_thresholds(SnapPoints::list({-1.0, 0.0}), commit, out);
}
double page_count(const PageHost& it) { return static_cast<double>(it.pages()); }

constexpr std::array page_readings{
    ReadingInfo{"selected", "", "which page is here or is to come, from 0", &read<PageHost, &shown_page>,
                nullptr, true},
    ReadingInfo{"pages", "", "how many lie in it", &read<PageHost, &page_count>},
    ReadingInfo{"way left", "pages", "how far it is from there: below 0 while that page is still to come",
                &read<PageHost, &page_way>, nullptr, true, &page_thresholds},
    ReadingInfo{"velocity", "pages/s", "how fast that changes", &read<PageHost, &PageHost::velocity>},
    ReadingInfo{"pressed", "", "a finger has it", &read<PageHost, &PageHost::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<PageHost, &PageHost::dragging>},
};

void page_pieces(const Part& part, const PieceTaker& out) {
  out({.role = Role::surface, .box = part.box(), .bare = true});
}

const PageHost& host_of(const Part& part) { return static_cast<const PageHost&>(part); }

constexpr std::array page_actions{
    PartAction{"back", "goes to the page it came from", &run_action<PageHost, &PageHost::go_back>,
               [](const Part& part) { return host_of(part).page_below().has_value(); }},
    PartAction{.name = "next",
               .means = "goes to the next page",
               .run = [](Part& part) { static_cast<PageHost&>(part).go_to(host_of(part).selected() + 1); },
               .can = [](const Part& part) { return host_of(part).selected() + 1 < host_of(part).pages(); },
               .offered = false},
    PartAction{.name = "previous",
               .means = "goes to the page before",
               .run = [](Part& part) { static_cast<PageHost&>(part).go_to(host_of(part).selected() - 1); },
               .can = [](const Part& part) { return host_of(part).selected() > 0; },
               .offered = false}};

}  // namespace

const PartKind& PageHost::described() {
  static const PartKind kind = describe<PageHost>(
      {.name = "page-host",
       .means = "pages that lie one on another; a drag from the edge goes back",
       .role = "group",
       .example = {.box = R"(0, 0, "100%", "100%")",
                   .lines = "label = \"Pages\"\nselected = \"page\"\npart = [\n  { id = \"notes\", kind = "
                            "\"pad\", opaque = true, label = \"Notes\" },\n  { id = \"harvest\", kind = "
                            "\"pad\", opaque = true, label = \"Harvest\" },\n]\n",
                   .cells = "page = { choice = \"Notes\", of = [\"Notes\", \"Harvest\"] }\n"},
       .readings = page_readings,
       .pieces = &page_pieces,
       .child_box = [](const AnySettings&) { return ChildBox::whole; },
       .actions = page_actions,
       .answers = answers::page_answers});
  return kind;
}

}  // namespace ubbo
