#include "ubbo/parts/card_deck.hpp"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

#include "ubbo/base/maths.hpp"

namespace ubbo {

namespace {

constexpr std::size_t max_flying = 8;
constexpr std::array all_sides{Side::left, Side::right, Side::up, Side::down};

Point unit_of(Side side) {
  switch (side) {
    case Side::left:
      return {-1.0, 0.0};
    case Side::right:
      return {1.0, 0.0};
    case Side::up:
      return {0.0, -1.0};
    default:
      return {0.0, 1.0};
  }
}

double dot(Point a, Point b) { return a.x * b.x + a.y * b.y; }
bool level(Side side) { return side == Side::left || side == Side::right; }

}  // namespace

template <>
std::span<const Setting<CardDeckSettings>> settings_of<CardDeckSettings>() {
  using declare::flag;
  using declare::number;
  using S = CardDeckSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what the cards are, for people and screen readers"),
      declare::needed_cell<&S::selected>(
          "selected", "the cell that holds the topmost card, from 0; `count` when all are gone"),
      declare::cell<&S::titles>("titles", "a cell with a line of text for each card; may be left out"),
      declare::whole<&S::count>("count", "", 0.0, 1e6, "how many cards there are; a whole number"),
      flag<&S::to_left>("to_left", "cards may be thrown to the left"),
      flag<&S::to_right>("to_right", "cards may be thrown to the right"),
      flag<&S::upwards>("upwards", "cards may be thrown upwards"),
      flag<&S::downwards>("downwards", "cards may be thrown downwards"),
      declare::length<&S::commit_distance>(
          "commit_distance",
          "how far a card must be dragged to be thrown when it is let go: a length, or a share of its own "
          "size; 0: half-way"),
      number<&S::turn>("turn", "degrees", 0.0, 90.0,
                       "how far a card turns that is dragged by its width, held at its end"),
      number<&S::behind>("behind", "", 0.0, 0.9, "how much smaller the next card is before it rises"),
      declare::transition<&S::transition>("transition",
                                          "how a card goes back to its place, and the next one rises"),
      declare::transition<&S::leave>("leave", "how a card goes away"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that for people who asked for less motion"),
  };
  return table;
}

std::string CardDeck::misfit(const Box&, const CardDeckSettings& settings) {
  if (!settings.to_left && !settings.to_right && !settings.upwards && !settings.downwards)
    return "no side is open; it takes to_left, to_right, upwards or downwards";
  return {};
}

CardDeck::CardDeck(std::string id, const Box& box, CardDeckSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  flying_.all.reserve(max_flying + 1);
  changed({});
}

void CardDeck::changed(const CardDeckSettings& before) {
  const bool other_cell = before.selected.cell() != settings_.selected.cell();
  thrown_.reserve(static_cast<std::size_t>(settings_.count) + 1);
  if (!other_cell) return;
  watch_ = settings_.selected.watch([this](int) { hear(); });
  deal(settings_.selected.get());
  flying_.all.clear();
  thrown_.clear();
}

int CardDeck::selected() const {
  return settings_.selected.linked() ? std::clamp(top_, 0, count()) : count();
}

// Another card is simply there.
void CardDeck::deal(int card) {
  top_ = card;
  drag_.end();
  pressed_ = false;
  forget_contacts();
  x_.put(0.0);
  y_.put(0.0);
  risen_.put(1.0);
}

bool CardDeck::open_to(Side side) const {
  switch (side) {
    case Side::left:
      return settings_.to_left;
    case Side::right:
      return settings_.to_right;
    case Side::up:
      return settings_.upwards;
    default:
      return settings_.downwards;
  }
}

double CardDeck::turn_at(Point offset) const {
  return settings_.turn * std::numbers::pi / 180.0 * lever_ * offset.x / std::fmax(layout_box().w, 1.0);
}

// How far a card must go to a side to be thrown, dp.
double CardDeck::throw_distance(Side side) const {
  const double size = level(side) ? layout_box().w : layout_box().h;
  const double asked = settings_.commit_distance.in(size);
  return asked > 0.0 ? asked : size / 2.0;
}

double CardDeck::next_risen() const {
  double max = 0.0;
  for (const Side side : all_sides)
    if (open_to(side))
      max = std::fmax(max, dot(offset(), unit_of(side)) / std::fmax(throw_distance(side), 1.0));
  return std::clamp(max, 0.0, 1.0);
}

void CardDeck::present(Accessible& told) const {
  told.label = settings_.label;
  told.value_text = selected() < count() ? ShortText::of("card ", std::to_string(selected() + 1), " of ",
                                                         std::to_string(count()))
                                         : ShortText("no cards left");
}

DragInterest CardDeck::drag_interest(const Sample&) const {
  if (selected() >= count()) return {};
  return {.horizontal = settings_.to_left || settings_.to_right,
          .vertical = settings_.upwards || settings_.downwards};
}

bool CardDeck::capture(const Contact&, const Sample& sample) {
  if (pressed() || selected() >= count()) return false;
  pressed_ = true;
  grabbed_ = offset();
  x_.put(grabbed_.x);
  y_.put(grabbed_.y);
  drag_.press(sample.at);
  // Held above its middle it turns the one way, below it the other; one that is on its way keeps its turn.
  if (grabbed_ == Point{})
    lever_ = std::clamp((box().centre().y - sample.at.y) / std::fmax(box().h / 2, 1.0), -1.0, 1.0);
  return true;
}

void CardDeck::move(const Contact& contact, const Sample& sample) {
  const Feel& feel = feel_for(sample.tool);
  const double threshold = feel.threshold(feel.main_axis(sample.at - contact.down.at));
  if (drag_.move(sample.at, contact.contested ? HUGE_VAL : threshold)) {
    decide(answers::drags, {drag_.travel(), threshold}, to_ms(sample.time - contact.down.time));
    moment(MomentKind::threshold_crossed);
  }
  if (drag_.dragging()) {
    const Point at = grabbed_ + drag_.offset();
    x_.put(at.x);
    y_.put(at.y);
  }
}

void CardDeck::let_go(const Contact&, LetGo) {
  drag_.end();
  pressed_ = false;
  back({});
}

void CardDeck::lift(const Contact& contact, const Sample& sample) {
  move(contact, sample);
  const bool dragged = drag_.dragging();
  drag_.end();
  pressed_ = false;
  if (!dragged) return back({});
  const Feel& feel = feel_for(sample.tool);
  const VelocityEstimate found = contact.history.estimate(contact.last.time, feel.velocity_rules());
  const Point velocity = found.stale ? Point{} : found.velocity;
  const Point at = offset();
  // The side it has come furthest towards.
  Side best = Side::left;
  double far = -HUGE_VAL;
  for (const Side side : all_sides) {
    if (!open_to(side)) continue;
    const double fraction = dot(at, unit_of(side)) / (level(side) ? layout_box().w : layout_box().h);
    if (fraction <= far) continue;
    far = fraction;
    best = side;
  }
  const double size = level(best) ? layout_box().w : layout_box().h;
  const double speed = dot(velocity, unit_of(best));
  const double needed = throw_distance(best);
  const Held distance{far * size, needed};
  const Held pace{speed, feel.flick_speed};
  if (far > 0.0 && speed >= feel.flick_speed)
    decide(answers::card_fast, distance, pace);
  else if (far * size >= needed && speed > -feel.flick_speed)
    decide(answers::card_far, distance, pace);
  else {
    decide(far * size >= needed ? answers::card_flicked_back : answers::card_stays, distance, pace);
    return back(velocity);
  }
  moment(MomentKind::committed);
  send(best, velocity);
}

void CardDeck::back(Point velocity) {
  if (offset() == Point{}) return;
  const Reduced how = reduced(settings_.reduced_motion);
  x_.set_reduced(how);
  y_.set_reduced(how);
  x_.send(0.0, settings_.transition, context().now, velocity.x);
  y_.send(0.0, settings_.transition, context().now, velocity.y);
}

// Where a card that leaves to a side is out of sight, whichever way it is turned.
Point CardDeck::beyond(Side side, Point offset) const {
  const Box here = layout_box();
  const double reach = maths::hypot(here.w, here.h);
  const Box screen = context().screen;
  Point to = offset;
  if (side == Side::left) to.x = screen.x - here.x - reach;
  if (side == Side::right) to.x = screen.right() - here.x + reach - here.w;
  if (side == Side::up) to.y = screen.y - here.y - reach;
  if (side == Side::down) to.y = screen.bottom() - here.y + reach - here.h;
  return to;
}

void CardDeck::send(Side side, Point velocity) {
  const int card = selected();
  const Point from = offset();
  const double fraction = next_risen();
  const Reduced how = reduced(settings_.reduced_motion);
  if (flying_.all.size() == max_flying) flying_.all.erase(flying_.all.begin());
  Flying leaving{.card = card, .turn = turn()};
  const Point to = beyond(side, from);
  for (auto [mover, at, end, speed] :
       {std::tuple{&leaving.x, from.x, to.x, velocity.x}, {&leaving.y, from.y, to.y, velocity.y}}) {
    mover->put(at);
    mover->set_reduced(how);
    mover->send(end, settings_.leave, context().now, speed);
  }
  if (leaving.x.moving() || leaving.y.moving()) flying_.all.push_back(leaving);
  thrown_.resize(std::min(thrown_.size(), static_cast<std::size_t>(card)));
  thrown_.resize(static_cast<std::size_t>(card), side);
  thrown_.push_back(side);
  x_.put(0.0);
  y_.put(0.0);
  lever_ = 1.0;
  risen_.put(fraction);
  risen_.set_reduced(how);
  risen_.send(1.0, settings_.transition, context().now);
  say_top(card + 1);
  tell(settings_.on_throw, card, side);
}

void CardDeck::say_top(int card) {
  top_ = card;
  if (!asked()) settings_.selected.set(card);  // else what the app has written counts
}

bool CardDeck::can_throw(Side side) const { return selected() < count() && open_to(side); }

void CardDeck::throw_to(Side side) {
  ask(
      [this, side] {
        if (!can_throw(side)) return;
        decide(answers::card_asked);
        send(side, {});
      },
      WhileHeld::waits);
}

// Of the sides that are open the first, as one reads: for a card of which nobody knows where it went.
Side CardDeck::first_side() const {
  if (settings_.to_left && settings_.to_right) return context().right_to_left ? Side::right : Side::left;
  return settings_.to_left    ? Side::left
         : settings_.to_right ? Side::right
         : settings_.upwards  ? Side::up
                              : Side::down;
}

void CardDeck::undo() {
  ask([this] { take_back(); }, WhileHeld::waits);
}

void CardDeck::take_back() {
  if (!can_undo()) return;
  const int card = selected() - 1;
  const Side from = static_cast<std::size_t>(card) < thrown_.size() ? thrown_[static_cast<std::size_t>(card)]
                                                                    : first_side();
  decide(answers::card_undone, card + 1);
  Point at = beyond(from, {});
  // One that is still on its way turns round where it is.
  for (auto one = flying_.all.begin(); one != flying_.all.end(); ++one)
    if (one->card == card) {
      at = {one->x.at(context().now).value, one->y.at(context().now).value};
      flying_.all.erase(one);
      break;
    }
  x_.put(at.x);
  y_.put(at.y);
  risen_.put(1.0);
  say_top(card);
  back({});
}

bool CardDeck::press(Key key) {
  constexpr std::array keys{Key::left, Key::right, Key::up, Key::down};
  const auto found = std::find(keys.begin(), keys.end(), key);
  const bool throws = found != keys.end();
  if (!throws && key != Key::escape) return false;
  const Side side = throws ? all_sides[static_cast<std::size_t>(found - keys.begin())] : Side::left;
  if (throws ? !can_throw(side) : !can_undo()) return false;
  if (pressed()) {
    decide(answers::key_held);
    return true;
  }
  if (!throws) {
    take_back();
    return true;
  }
  decide(answers::card_asked);
  send(side, {});
  return true;
}

Micros CardDeck::Flights::due() const {
  Micros next = never;
  for (const Flying& one : all) next = std::min({next, one.x.due(), one.y.due()});
  return next;
}

void CardDeck::Flights::advance(Micros now) {
  for (Flying& one : all) {
    one.x.advance(now);
    one.y.advance(now);
  }
  std::erase_if(all, [](const Flying& one) { return !one.x.moving() && !one.y.moving(); });
}

// The app deals.
void CardDeck::cell_changed() {
  if (settings_.selected.linked() && settings_.selected.get() != top_) deal(settings_.selected.get());
}

namespace {

const CardDeck& deck_of(const Part& part) { return static_cast<const CardDeck&>(part); }

template <Axis axis>
void card_thresholds(const Part& part, std::vector<Threshold>& out) {
  const auto& it = static_cast<const CardDeck&>(part);
  constexpr bool level = axis == Axis::horizontal;
  const auto [back, forth] = level ? std::pair{Side::left, Side::right} : std::pair{Side::up, Side::down};
  if (it.open_to(forth)) out.push_back({it.throw_distance(forth), 1});
  if (it.open_to(back)) out.push_back({-it.throw_distance(back), -1});
}
double card_x(const CardDeck& it) { return it.offset().x; }
double card_y(const CardDeck& it) { return it.offset().y; }
double card_top(const CardDeck& it) { return it.selected(); }
double card_turn(const CardDeck& it) { return it.turn() * 180.0 / std::numbers::pi; }
double cards_flying(const CardDeck& it) { return static_cast<double>(it.flying()); }

constexpr std::array card_deck_readings{
    ReadingInfo{"offset.x", "dp", "how far the topmost card is to the right of its place",
                &read<CardDeck, &card_x>, nullptr, true, &card_thresholds<Axis::horizontal>},
    ReadingInfo{"offset.y", "dp", "how far it is below its place", &read<CardDeck, &card_y>, nullptr, true,
                &card_thresholds<Axis::vertical>},
    ReadingInfo{"turn", "degrees", "how far it is turned", &read<CardDeck, &card_turn>},
    ReadingInfo{"next", "", "how far the next one has risen", &read<CardDeck, &CardDeck::next_risen>},
    ReadingInfo{"selected", "", "the topmost card, from 0", &read<CardDeck, &card_top>},
    ReadingInfo{"flying", "", "cards on their way out", &read<CardDeck, &cards_flying>},
    ReadingInfo{"pressed", "", "a finger has the topmost card", &read<CardDeck, &CardDeck::pressed>},
    ReadingInfo{"dragging", "", "a finger drags it", &read<CardDeck, &CardDeck::dragging>},
};

void card_deck_pieces(const Part& part, const PieceTaker& out) {
  const CardDeck& it = deck_of(part);
  const Box box = it.box();
  const auto card = [&](int index, Point offset, double scale, double turn, bool held) {
    if (index < 0 || index >= it.count()) return;
    const Point middle = box.centre() + offset;
    const double w = box.w * scale;
    const double h = box.h * scale;
    item_pieces({.role = Role::surface,
                 .name = "card",
                 .box = {middle.x - w / 2, middle.y - h / 2, w, h},
                 .turn = turn,
                 .on = index == it.selected(),
                 .held = held,
                 .item = index,
                 .cursor = index == it.selected() ? Cursor::grab : Cursor::automatic},
                it.settings().titles, out);
  };
  const double behind = it.settings().behind;
  card(it.selected() + 1, {0.0, 10.0 * (1.0 - it.next_risen())}, 1.0 - behind * (1.0 - it.next_risen()), 0.0,
       false);
  card(it.selected(), it.offset() + Point{0.0, 10.0 * (1.0 - it.risen())}, 1.0 - behind * (1.0 - it.risen()),
       it.turn(), it.dragging());
  for (std::size_t i = 0; i < it.flying(); ++i) {
    const CardDeck::Flying& one = it.flying(i);
    const Micros now = it.context().now;
    card(one.card, {one.x.at(now).value, one.y.at(now).value}, 1.0, one.turn, false);
  }
  out({.role = Role::label, .box = {box.x, box.y - 26.0, box.w, 20.0}, .words = it.settings().label});
}

template <Side To>
constexpr PartAction throw_action(const char* name, const char* means) {
  return {name, means, [](Part& part) { static_cast<CardDeck&>(part).throw_to(To); },
          [](const Part& part) { return deck_of(part).can_throw(To); }};
}

constexpr std::array deck_actions{
    PartAction{"undo", "takes back the card that was thrown last", &run_action<CardDeck, &CardDeck::undo>,
               &can_do<CardDeck, &CardDeck::can_undo>},
    throw_action<Side::left>("throw left", "throws the topmost card to the left"),
    throw_action<Side::right>("throw right", "throws the topmost card to the right"),
    throw_action<Side::up>("throw up", "throws the topmost card upwards"),
    throw_action<Side::down>("throw down", "throws the topmost card downwards")};

}  // namespace

const PartKind& CardDeck::described() {
  static const PartKind kind =
      describe<CardDeck>({.name = "card-deck",
                          .means = "a stack of cards, the topmost of which is thrown to a side",
                          .role = "group",
                          .example = {.box = R"(40, 160, "100% - 80dp", 380)",
                                      .lines = "label = \"Hives\"\nselected = \"card\"\ncount = 5\n",
                                      .cells = "card = 0\n"},
                          .readings = card_deck_readings,
                          .pieces = &card_deck_pieces,
                          .own_state = true,
                          .reaches_out = true,
                          .keys = "arrows throw, Escape takes back",
                          .actions = deck_actions,
                          .answers = answers::card_deck_answers});
  return kind;
}

}  // namespace ubbo
