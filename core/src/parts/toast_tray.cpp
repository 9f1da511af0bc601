#include "ubbo/parts/toast_tray.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

namespace {

constexpr std::array busy_names{"queue", "replace", "restart"};
constexpr std::array live_names{"off", "polite", "assertive"};

}  // namespace

template <>
std::span<const Setting<ToastTraySettings>> settings_of<ToastTraySettings>() {
  using declare::number;
  using S = ToastTraySettings;
  static const auto table = [] {
    std::vector<Setting<S>> made{
        declare::cell<&S::message>("message", "the cell with what a toast says, read when it is shown"),
        declare::cell<&S::trigger>("trigger", "each time the number in this cell grows, a toast is shown"),
        number<&S::time>("time", "ms", 0.0, 600000.0,
                         "how long it stays, from when it has arrived; 0: until it is closed"),
        declare::choice<&S::when_busy>(
            "when_busy", busy_names,
            "what another toast does meanwhile: it waits its turn, replaces the one that is "
            "shown, or takes its place and restarts its time"),
        declare::text<&S::button>("button", "what its button says; empty: it has none"),
        declare::flag<&S::swipes>("swipes", "a finger swipes it away to either side"),
        declare::choice<&S::live>("live", live_names, "how urgently screen readers say it"),
        declare::choice<&S::reduced_motion>(
            "reduced_motion", part_reduced_names,
            "what becomes of its travel for people who asked for less motion")};
    declare::add_transitions<&S::enter>(made, "enter", "how it enters");
    declare::add_transitions<&S::exit>(made, "exit", "how it leaves");
    declare::add_inner<&S::travel>(made, "travel");
    return made;
  }();
  return table;
}

std::string ToastTray::misfit(const Box&, const ToastTraySettings& settings) {
  if (settings.time == Micros{0} && settings.button.empty() && !settings.swipes)
    return "its toasts never go; it takes time, button or swipes";
  return {};
}

ToastTray::ToastTray(std::string id, const Box& box, ToastTraySettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context),
      swipe_(*this, swipe_plan(), {}),
      time_(*this, [this] {
        decide(answers::toast_time_over, to_ms(settings_.time));
        end(ToastEnd::time);
      }) {
  enter_exit_.set_plan(planned());
  follow();
}

EnterExitPlan ToastTray::planned() const {
  return enter_exit_of(settings_.travel, settings_.enter, settings_.exit, *this);
}

RailPlan ToastTray::swipe_plan() const {
  const Box& screen = context().screen;
  const double off =
      std::max(way_off(layout_box(), screen, Side::left), way_off(layout_box(), screen, Side::right));
  const double way = settings_.swipes ? off : 0.0;
  return {.axis = Axis::horizontal,
          .min = -way,
          .max = way,
          .sense = sense_along(Axis::horizontal),
          .snap_points = SnapPoints::list({-way, 0.0, way}),
          .transition = settings_.enter.of(PropertyGroup::offset),
          .projection_time = Micros{120'000},
          .commit_distance = Length::of(0.35),
          .tells = Tells::rest,
          .reduced_motion = settings_.reduced_motion,
          .stays_caught = false};
}

void ToastTray::follow() {
  watch_.stop();
  if (!settings_.trigger.linked()) return;
  seen_ = settings_.trigger.get();
  watch_ = settings_.trigger.watch([this](int) { hear(); });
}

void ToastTray::changed() {
  resized();
  follow();
}

void ToastTray::resized() {
  enter_exit_.set_plan(planned());
  swipe_.change(swipe_plan(), {});
}

// One after another.

ToastTray::Token ToastTray::show(std::string words) {
  const Token token = ++last_;
  ask([this, toast = Toast{token, std::move(words)}] { add(toast); });
  return token;
}

void ToastTray::add(Toast toast) {
  if (!up_) {
    queue_.push_back(std::move(toast));
    return begin();
  }
  if (settings_.when_busy == WhenBusy::restart && enter_exit_.open()) {
    tell(settings_.on_end, now_.words, ToastEnd::replaced);
    now_ = std::move(toast);
    if (now_.words.empty() && settings_.message.linked()) now_.words = settings_.message.get();
    ++shown_;
    decide(answers::toast_restarts);
    tell(settings_.on_show, now_.words);
    time_.restart();
    return;
  }
  if (settings_.when_busy == WhenBusy::replace) {
    queue_.clear();
    queue_.push_back(std::move(toast));
    decide(answers::toast_replaces);
    if (enter_exit_.open()) end(ToastEnd::replaced);
    return;
  }
  decide(answers::toast_waits, static_cast<double>(queue_.size()) + 1.0);
  queue_.push_back(std::move(toast));
}

void ToastTray::begin() {
  if (queue_.empty()) return;
  now_ = std::move(queue_.front());
  queue_.pop_front();
  if (now_.words.empty() && settings_.message.linked()) now_.words = settings_.message.get();
  ++shown_;
  up_ = true;
  drop_finger(LetGo::lost);
  swipe_.put(0.0);
  time_.restart();
  enter_exit_.set_reduced(reduced(settings_.reduced_motion));
  enter_exit_.set_plan(planned());  // what it lies in may have been laid anew
  enter_exit_.open(context().now);
  decide(answers::toast_shown);
  rise();
  tell(settings_.on_show, now_.words);
}

void ToastTray::end(ToastEnd how) {
  if (!enter_exit_.open()) return;
  end_ = how;
  drop_finger(LetGo::lost);
  enter_exit_.set_reduced(reduced(settings_.reduced_motion));
  enter_exit_.close(context().now);
}

// The one that was shown is off the screen: the next one's turn.
void ToastTray::gone() {
  up_ = false;
  drop_finger(LetGo::lost);
  tell(settings_.on_end, now_.words, end_);
  now_ = {};
  begin();
}

void ToastTray::close(const AnswerWith<>& answer, ToastEnd how) {
  decide(answer);
  end(how);
}

void ToastTray::dismiss(Token token) {
  ask(
      [this, token] {
        if (now_.token == token && enter_exit_.open()) return close(answers::toast_closed, ToastEnd::call);
        if (std::erase_if(queue_, [&](const Toast& one) { return one.token == token; }) == 0)
          decide(answers::toast_has_gone);
      },
      WhileHeld::waits);
}

void ToastTray::dismiss() {
  ask(
      [this] {
        if (enter_exit_.open()) close(answers::toast_closed, ToastEnd::call);
      },
      WhileHeld::waits);
}

void ToastTray::cell_changed() {
  if (!settings_.trigger.linked()) return;
  const int before = std::exchange(seen_, settings_.trigger.get());
  if (seen_ > before) add({++last_, {}});
}

void ToastTray::leave() {
  queue_.clear();
  end(ToastEnd::call);
}

double ToastTray::time_left() const { return time_.running() ? to_ms(time_.left(context().now)) : 0.0; }

// Whether it has been swiped off, is gone, and whether its time runs, follows from what it is now.
void ToastTray::update() {
  if (up_ && !enter_exit_.absent() && swipe_.settled() && swipe_.position() != 0.0) {
    decide(answers::toast_swiped);
    end_ = ToastEnd::swipe;
    enter_exit_.put(false);
  }
  while (up_ && enter_exit_.absent()) gone();
  const Micros now = context().now;
  const bool here = enter_exit_.state() == EnterExit::State::present && swipe_.target() == 0.0;
  time_.run(here, settings_.time, now, pressed());
  const bool stands = here && pressed() && settings_.time > Micros{0};
  if (std::exchange(stands_, stands) == stands || !here || settings_.time <= Micros{0}) return;
  decide(stands ? answers::toast_pauses : answers::toast_goes_on, to_ms(time_.left(now)));
}

// Fingers.

VisualState ToastTray::visual_state() const {
  VisualState visual_state = enter_exit_.visual_state(context().now);
  const double aside = swipe_.position();
  visual_state.offset.x += aside;
  if (const double way = swipe_.plan().max; way > 0.0)
    visual_state.opacity *= 1.0 - 0.6 * std::min(1.0, std::fabs(aside) / way);
  return visual_state;
}

std::optional<Box> ToastTray::button() const {
  if (settings_.button.empty()) return {};
  constexpr double width = 84.0;
  const Box here = box();
  return Box{context().right_to_left ? here.x : here.right() - width, here.y, width, here.h};
}

bool ToastTray::capture(const Contact& contact, const Sample& sample) {
  if (pressed() || !enter_exit_.open()) return true;
  swipe_.down(contact, sample);
  if (const auto own = button(); own && own->contains(sample.at)) outside_.down(contact, sample, On::button);
  return true;
}

void ToastTray::move(const Contact& contact, const Sample& sample) {
  if (!swipe_.held_by(contact)) return;
  outside_.follow(sample);
  if (swipe_.dragging()) outside_.end();
  swipe_.follow(contact, sample);
}

void ToastTray::lift(const Contact& contact, const Sample& sample) {
  if (!swipe_.held_by(contact)) return;
  if (outside_.mine(contact) && outside_.lift(*this, contact, sample) && enter_exit_.open()) {
    drop_finger(LetGo::lost);
    tell(settings_.on_button);
    return close(answers::toast_button, ToastEnd::button);
  }
  if (swipe_.lift(contact, sample)) return;
  swipe_.explain_press(contact, sample);
  swipe_.resume();
}

void ToastTray::let_go(const Contact& contact, LetGo how) {
  if (swipe_.held_by(contact)) drop_finger(how);
}

// What a finger did to it comes to nothing.
void ToastTray::drop_finger(LetGo how) {
  outside_.end();
  if (swipe_.pressed()) swipe_.let_go(how);
}

void ToastTray::present(Accessible& told) const {
  told.label = now_.words;
  told.live = settings_.live;
}

namespace {

const ToastTray& tray_of(const Part& part) { return static_cast<const ToastTray&>(part); }

std::string tray_state(const ToastTray& it) { return name_of(it.state()); }
std::string tray_words(const ToastTray& it) { return it.words(); }
double tray_waiting(const ToastTray& it) { return static_cast<double>(it.waiting()); }
double tray_shown(const ToastTray& it) { return it.shown(); }
double tray_x(const ToastTray& it) { return it.visual_state().offset.x; }
double tray_y(const ToastTray& it) { return it.visual_state().offset.y; }

constexpr std::array tray_readings{
    ReadingInfo{"offset.x", "dp", "how far it stands from its place, to the right", &read<ToastTray, &tray_x>,
                nullptr, false, &rail_thresholds<ToastTray>},
    ReadingInfo{"offset.y", "dp", "how far it stands from its place, downwards", &read<ToastTray, &tray_y>,
                nullptr, true},
    ReadingInfo{"opacity", "", "how visible it is", &read<ToastTray, &ToastTray::opacity>, nullptr, true},
    ReadingInfo{"state", "", "absent, entering, present or leaving", &read<ToastTray, &tray_state>},
    ReadingInfo{"says", "", "what it says", &read<ToastTray, &tray_words>},
    ReadingInfo{"waiting", "", "how many wait their turn", &read<ToastTray, &tray_waiting>},
    ReadingInfo{"shown", "", "how many have been shown", &read<ToastTray, &tray_shown>},
    ReadingInfo{"time left", "ms", "what is left of its time, while that runs",
                &read<ToastTray, &ToastTray::time_left>},
    ReadingInfo{"pressed", "", "a finger has it", &read<ToastTray, &ToastTray::pressed>},
};

void tray_pieces(const Part& part, const PieceTaker& out) {
  const ToastTray& it = tray_of(part);
  if (it.absent()) return;
  const Box box = it.box();
  out({.role = Role::surface,
       .name = "toast",
       .box = box,
       .held = it.pressed(),
       .notice = true,
       .cursor = Cursor::grab});
  const auto button = it.button();
  const double room = std::fmax(box.w - 32.0 - (button ? button->w : 0.0), 0.0);
  const double x = it.context().right_to_left && button ? box.x + 16.0 + button->w : box.x + 16.0;
  out({.role = Role::label,
       .box = {x, box.centre().y - 10.0, room, 20.0},
       .words = it.words(),
       .notice = true});
  if (!button) return;
  constexpr double inset = 8.0;
  const Box face{button->x + inset, button->y + inset, std::fmax(button->w - 2 * inset, 0.0),
                 std::fmax(button->h - 2 * inset, 0.0)};
  out({.role = Role::button, .box = face, .notice = true});
  out({.role = Role::value,
       .name = "button",
       .box = {face.x + 4.0, face.centre().y - 10.0, std::fmax(face.w - 8.0, 0.0), 20.0},
       .words = it.settings().button,
       .notice = true});
}

void tray_stands(const Part& part, const StandTaker& out) {
  enter_exit_places(tray_of(part).ways(), part.layout_box(), out);
}

constexpr std::array toast_actions{
    PartAction{.name = "show",
               .means = "shows a toast, now or in its turn",
               .run = [](Part& part) { static_cast<ToastTray&>(part).show(); },
               .while_held = WhileHeld::immediate,
               .offered = false},
    PartAction{.name = "dismiss",
               .means = "closes the toast that is shown",
               .run = [](Part& part) { static_cast<ToastTray&>(part).dismiss(); },
               .can = [](const Part& part) { return tray_of(part).is_open(); },
               .offered = false}};

}  // namespace

const PartKind& ToastTray::described() {
  static const PartKind kind = describe<ToastTray>(
      {.name = "toast-tray",
       .means = "where messages come up for a while, one at a time",
       .role = "status",
       .example = {.box = R"(20, 640, "100% - 40dp", 56)",
                   .lines = "message = \"says\"\ntrigger = \"saves\"\nbutton = \"Undo\"\n",
                   .cells = "says = \"Saved\"\nsaves = 0\n"},
       .readings = tray_readings,
       .pieces = &tray_pieces,
       .stands = &tray_stands,
       .own_state = true,
       .actions = toast_actions,
       .answers = answers::toast_answers});
  return kind;
}

}  // namespace ubbo
