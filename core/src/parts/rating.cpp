#include "ubbo/parts/rating.hpp"

#include <algorithm>
#include <array>
#include <cmath>

#include "ubbo/parts/value_keys.hpp"

namespace ubbo {

template <>
std::span<const Setting<RatingSettings>> settings_of<RatingSettings>() {
  using S = RatingSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what is rated, for people and screen readers"),
      declare::needed_cell<&S::value>("value", "the cell the rating shows and changes"),
      declare::whole<&S::marks>("marks", "", 1.0, 20.0, "how many marks there are; a whole number"),
      declare::flag<&S::halves>("halves", "half a mark counts too"),
      declare::flag<&S::clears>("clears", "a drag off the low end leaves no mark; else the first mark stays"),
  };
  return table;
}

Rating::Rating(std::string id, const Box& box, RatingSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {}

double Rating::value() const {
  const double held = settings_.value.linked() ? settings_.value.get() : 0.0;
  if (!std::isfinite(held)) return 0.0;
  return std::round(std::clamp(held, 0.0, settings_.marks) / unit()) * unit();
}

Box Rating::mark(std::size_t index) const {
  const Box here = box();
  const double w = here.w / settings_.marks;
  const double from = w * static_cast<double>(index);
  return {context().right_to_left ? here.right() - from - w : here.x + from, here.y, w, here.h};
}

double Rating::meant_at(Point at) const {
  const Box here = box();
  const double from_start = context().right_to_left ? here.right() - at.x : at.x - here.x;
  if (from_start < 0.0 && settings_.clears) return 0.0;
  const double regions = settings_.marks / unit();
  // Rounding down: a region's first edge is its own, its last the next one's.
  const double region = std::floor(from_start / std::fmax(here.w, 1e-9) * regions);
  return (std::clamp(region, 0.0, regions - 1.0) + 1.0) * unit();
}

void Rating::rate(double value, const answers::Rated& answer) {
  meant_ = value;
  decide(answer, press_.at().x, value, settings_.marks);
  settings_.value.set(said_ = value);
}

bool Rating::app_wrote() const { return settings_.value.linked() && settings_.value.get() != said_; }

void Rating::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_now = value();
  told.value_min = 0.0;
  told.value_max = settings_.marks;
  told.value_text = ShortText::of(plain_number(value()), " of ", plain_number(settings_.marks));
  told.orientation = name_of(Axis::horizontal);
}

bool Rating::capture(const Contact&, const Sample& sample) {
  if (!press_.down(sample)) return false;
  before_ = value();
  said_ = settings_.value.linked() ? settings_.value.get() : 0.0;
  meant_ = meant_at(sample.at);
  drag_.press(sample.at);
  return true;
}

void Rating::move(const Contact& contact, const Sample& sample) {
  const double threshold = contact.contested ? HUGE_VAL : feel_for(sample.tool).threshold(Axis::horizontal);
  press_.follow(*this, sample, box());
  const bool begins = drag_.move(sample.at, threshold);
  if (begins) decide(answers::drags, {drag_.travel(), threshold}, to_ms(sample.time - contact.down.time));
  // What the app writes meanwhile counts until the finger means another mark.
  const double meant = meant_at(sample.at);
  const bool says = drag_.dragging() && (meant != meant_ || (begins && !app_wrote() && value() != meant));
  if (drag_.dragging()) meant_ = meant;
  if (begins) moment(MomentKind::threshold_crossed);
  if (says) {
    moment(MomentKind::step_passed);
    rate(meant, meant > 0.0 ? answers::rated : answers::rated_none);
  }
}

void Rating::lift(const Contact& contact, const Sample& sample) {
  move(contact, sample);
  const bool dragged = drag_.dragging();
  drag_.end();
  // A tap counts where it is lifted over the row; a drag has been followed wherever it went.
  const bool counts = (dragged || press_.lift(*this, sample, box())) && !app_wrote();
  press_.end();
  const double meant = meant_at(sample.at);
  if (counts && !dragged) rate(meant, meant > 0.0 ? answers::rated : answers::rated_none);
  if (counts) tell(settings_.on_rate, value());
}

void Rating::let_go(const Contact&, LetGo how) {
  drag_.end();
  press_.end();
  if (how == LetGo::lost) return;
  const bool goes_back = !app_wrote() && value() != before_;
  decide(answers::rating_goes_back, goes_back ? before_ : value());
  if (goes_back) settings_.value.set(before_);
}

bool Rating::press(Key key) {
  const double lowest = settings_.clears ? 0.0 : unit();
  const auto meant =
      ValueKeys{unit(), 0.0, lowest, settings_.marks, context().right_to_left}.apply(key, value());
  if (!meant) return false;
  if (press_.held()) {
    decide(answers::key_held);
    return true;
  }
  const double from = value();
  const double wanted = std::clamp(*meant, lowest, settings_.marks);
  decide(wanted == from ? answers::key_at_end : answers::key_moves, {from, ""}, {wanted, ""});
  settings_.value.set(wanted);
  if (wanted != from) tell(settings_.on_rate, wanted);
  return true;
}

namespace {

const Rating& rating(const Part& part) { return static_cast<const Rating&>(part); }

void rating_rests(const Part& part, std::vector<double>& places) {
  const RatingSettings& settings = rating(part).settings();
  const double step = settings.halves ? 0.5 : 1.0;
  for (double at = 0.0; at <= settings.marks; at += step) places.push_back(at);
}

constexpr std::array rating_readings{
    ReadingInfo{"shown", "", "the marks that are shown", &read<Rating, &Rating::shown>, &rating_rests, true},
    ReadingInfo{"value", "", "what its cell says, as marks can show it", &read<Rating, &Rating::value>,
                &rating_rests},
    ReadingInfo{"pressed", "", "a finger has it", &read<Rating, &Rating::pressed>},
    ReadingInfo{"dragging", "", "a finger drags along it", &read<Rating, &Rating::dragging>},
};

void rating_pieces(const Part& part, const PieceTaker& out) {
  const Rating& it = rating(part);
  const Box box = it.box();
  out({.role = Role::label, .box = {box.x, box.y - 22.0, box.w, 20.0}, .words = it.settings().label});
  const auto marks = static_cast<std::size_t>(it.settings().marks);
  for (std::size_t i = 0; i < marks; ++i) {
    const Box region = it.mark(i);
    const double radius = std::fmin(region.w, region.h) * 0.42;
    const Point middle = region.centre();
    const double filled = std::clamp(it.shown() - static_cast<double>(i), 0.0, 1.0);
    out({.role = Role::mark,
         .name = "mark",
         .box = {middle.x - radius, middle.y - radius, 2 * radius, 2 * radius},
         .fraction = filled,
         .on = filled > 0.0,
         .item = static_cast<int>(i),
         .cursor = Cursor::pointer});
  }
}

std::optional<Point> rating_place(const Part& part, double value) {
  const Rating& it = rating(part);
  const RatingSettings& settings = it.settings();
  const double step = settings.halves ? 0.5 : 1.0;
  if (!(value >= 0.0 && value <= settings.marks) || value != std::round(value / step) * step)
    return std::nullopt;
  const double along_row = value == 0.0 ? -12.0 : (value - step / 2) / settings.marks * it.box().w;
  const Box box = it.box();
  return Point{it.context().right_to_left ? box.right() - along_row : box.x + along_row, box.centre().y};
}

constexpr std::array rating_actions{
    PartAction{"increase", "one mark more", [](Part& part) { part.press(Key::up); }},
    PartAction{"decrease", "one mark less", [](Part& part) { part.press(Key::down); }}};

}  // namespace

const PartKind& Rating::described() {
  static const PartKind kind =
      describe<Rating>({.name = "rating",
                        .means = "a rating by a row of marks that a finger fills",
                        .role = "slider",
                        .example = {.box = R"(40, 200, "100% - 80dp", 48)",
                                    .lines = "label = \"Temper\"\nvalue = \"temper\"\n",
                                    .cells = "temper = 3\n"},
                        .readings = rating_readings,
                        .pieces = &rating_pieces,
                        .place_of = &rating_place,
                        .wheel = WheelUse::steps,
                        .margin = {.top = 24.0},
                        .usual_size = {0.0, 44.0},
                        .keys = "arrows, Home, End",
                        .actions = rating_actions,
                        .answers = answers::rating_answers});
  return kind;
}

}  // namespace ubbo
