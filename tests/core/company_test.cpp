// What parts do in one another's company, in chosen moments, as it was when somebody last looked: text to be
// read.
#include <set>

#include "approved.hpp"
#include "moments.hpp"

using namespace ubbo;
using namespace ubbo::test;

namespace {

// A stage, and what came of it from one look to the next.
struct Scene {
  Stage stage;

  Scene(const char* name, std::string& text, StageSettings on = {})
      : stage([&on] {
          on.journal = 2000;
          return on;
        }()),
        text_(&text) {
    *text_ += std::string("## ") + name + "\n";
    stage.on_moment([this](const Moment& moment) { say(std::string("felt ") + name_of(moment.kind)); });
  }
  void say(const std::string& what) {
    said_ += "  " + (stage.now() < ms(0) ? "before " : few_digits(to_ms(stage.now())) + " ms ") + what + "\n";
  }
  template <class F>
  void at(double when, F&& action) {
    stage.at(ms(when), std::forward<F>(action));
  }
  void tap(double when, Point where) { drag(when, where, where); }
  void drag(double when, Point from, Point to, double lasts = 80, Phase end = Phase::up, double rests = 0,
            Tool tool = Tool::finger) {
    const auto touch = [&](double at, Phase phase, Point where) {
      stage.touch({.time = ms(at), .contact = 1, .phase = phase, .at = where, .tool = tool});
    };
    touch(when, Phase::down, from);
    if (!(from == to))
      for (int i = 1; i <= 10; ++i)
        touch(when + lasts * i / 10, Phase::move, from + (to - from) * (i / 10.0));
    touch(when + lasts + rests, end, to);
  }
  void hover(double when, Point where) {
    stage.touch({.time = ms(when), .contact = 1, .phase = Phase::hover, .at = where, .tool = Tool::mouse});
  }
  // What was decided, felt and told since, and what is seen now that was not at the last look.
  void look(double when) {
    stage.advance(ms(when));
    *text_ += "at " + few_digits(when) + " ms" + (stage.settled() ? ", all at rest" : "") + "\n" + said_;
    said_.clear();
    for (const Decision& decision : stage.journal().decisions())
      *text_ += "  " + few_digits(to_ms(decision.time)) + " ms " + std::string(decision.part.view()) + ": " +
                decision.answer->name + facts_of(decision) + "\n";
    stage.journal().clear();
    std::vector<std::string> seen;
    std::set<std::string> there;
    stage.draw([&](const Part& part, const Piece& piece) {
      const Box window = common(piece.clip.value_or(part.context().screen), part.context().screen);
      const Box within = common(piece.box, window);
      if (piece.opacity == 0.0 || within.w <= 0.0 || within.h <= 0.0) return;
      const std::string_view name = piece.name[0] == 0 ? name_of(piece.role) : piece.name;
      const bool words = name == name_of(Role::label);
      // Words lie in what moves them: only others than before are worth a line.
      if (words && !words_.insert(part.id() + std::string(piece.words)).second) return;
      if (!words) there.insert(part.id() + " " + std::string(name));
      seen.push_back("    " + part.id() + " " + piece_out(piece) + "\n");
    });
    for (const std::string& line : seen)
      if (std::find(seen_.begin(), seen_.end(), line) == seen_.end()) *text_ += line;
    for (const std::string& one : std::exchange(there_, there))
      if (!there.contains(one)) *text_ += "    no " + one + "\n";
    seen_ = std::move(seen);
  }

 private:
  std::string* text_;
  std::string said_;
  std::vector<std::string> seen_;
  std::set<std::string> words_, there_;
};

constexpr auto even = [](double time) { return Timed{Curve{}, ms(time)}; };

void rows_in_a_list(std::string& text) {
  Cell<std::string> open{""};
  Cell<int> moved{0};
  Scene it("swipe rows in a list: opened one after another, one goes and comes back, one is thrown", text);
  it.stage.add<List>("rows", {0, 100, 360, 260},
                     {.gap = 4, .on_view = [&](std::size_t from, std::size_t to) {
                        it.say("in view " + std::to_string(from) + " to " + std::to_string(to));
                      }});
  std::vector<SwipeRow*> rows;
  for (int i = 0; i < 6; ++i)
    rows.push_back(&it.stage.add<SwipeRow>(
        "hive" + std::to_string(i), {0, 0, 360, 60},
        {.label = "Hive " + std::to_string(i + 1),
         .leading = 80,
         .trailing = 100,
         .trailing_label = "Move",
         .trailing_presses = moved,
         .commit_distance = Length(240),
         .closes_after = ms(4000),
         .timeout = ms(3000),
         .open = open,
         .transition = even(200),
         .on_open = [&](const char* side) { it.say(std::string("opens ") + side); },
         .on_commit = [&](const char* side) { it.say(std::string("commits ") + side); },
         .on_removed = [&] { it.say("removed"); }},
        {.inside = "rows"}));
  it.look(0);
  it.drag(100, {300, 130}, {200, 132}, 160, Phase::up, 80);
  it.look(420);
  it.drag(500, {300, 194}, {190, 194}, 120, Phase::up);
  it.look(700);
  it.tap(1000, {320, 194});
  it.look(1300);
  it.drag(2000, {40, 258}, {330, 258}, 200);
  it.look(2250);
  it.at(2400, [&] { rows[2]->remove(); });
  it.look(2500);
  it.drag(2520, {180, 300}, {180, 200}, 100, Phase::move);
  it.look(2700);
  it.stage.cancel_contacts();
  it.at(3000, [&] { rows[2]->reset(); });
  it.look(3100);
  it.at(3300, [&] { it.stage.hide(*rows[0]); });
  it.look(3400);
  it.at(3500, [&] { it.stage.remove(*rows[1]), it.stage.show(*rows[0]); });
  it.look(3560);
  it.look(20'000);
}

void list_in_a_sheet(std::string& text) {
  Cell<int> rests{1};
  Cell<bool> drawn{false};
  Scene it("a list in a sheet: who follows, overscroll, a flick that goes on, back drawn and given up", text);
  it.stage.add<Button>("page", {0, 0, 360, 720}, {.label = "Ridge"});
  it.stage.add<Sheet>("sheet", {0, 120, 360, 600},
                      {.label = "Notes",
                       .snap_point = rests,
                       .snap_points = {200, 500},
                       .transition = even(200),
                       .on_state = [&](EnterExit::State state) { it.say(name_of(state)); },
                       .on_rest = [&](int at) { it.say("rests at " + std::to_string(at)); }});
  it.stage.add<List>("notes", {0, 60, 360, 400}, {.half_life = ms(200)},
                     {.inside = "sheet", .yields_to = "sheet", .yield_direction = YieldDirection::up});
  for (int i = 0; i < 9; ++i)
    it.stage.add<Button>("note" + std::to_string(i), {0, 0, 360, 70}, {}, {.inside = "notes"});
  it.look(0);
  it.drag(100, {180, 640}, {180, 400}, 400, Phase::move);
  it.look(510);
  it.stage.cancel_contacts();
  it.look(1000);
  it.drag(1100, {180, 640}, {180, 200}, 200);
  it.look(1350);
  it.look(2500);
  it.drag(2600, {180, 400}, {180, 180}, 80);
  it.look(2800);
  it.drag(2850, {180, 300}, {180, 700}, 300, Phase::up, 100);
  it.look(3500);
  it.look(6000);
  it.stage.back_begins(ms(6100));
  it.stage.back_moves(0.6, ms(6200));
  it.look(6210);
  it.stage.back_cancelled(ms(6300));
  it.look(6350);
  it.tap(8000, {180, 60});
  it.look(8200);
  it.look(9000);
}

void layers_over_layers(std::string& text) {
  Cell<bool> first{false}, second{false}, menu{false};
  Scene it("a drawer, two dialogs and toasts: which is in front, what closes which", text);
  const auto note = [&](const char* who) {
    return [&it, who](EnterExit::State state) { it.say(std::string(who) + " " + name_of(state)); };
  };
  it.stage.add<Button>("page", {0, 0, 360, 720}, {.label = "Ridge"});
  it.stage.add<Drawer>(
      "menu", {0, 0, 260, 720},
      {.label = "Apiaries", .open = menu, .transition = even(200), .on_state = note("menu")});
  it.stage.add<Dialog>("first", {30, 220, 300, 240},
                       {.label = "Queen gone?",
                        .open = first,
                        .enter = even(200),
                        .exit = even(100),
                        .button_closes = true,
                        .on_state = note("first")});
  it.stage.add<Button>("yes", {20, 180, 120, 44}, {.label = "Yes", .opens = second}, {.inside = "first"});
  it.stage.add<Dialog>(
      "second", {60, 260, 240, 200},
      {.label = "Sure?", .open = second, .enter = even(200), .exit = even(100), .on_state = note("second")});
  auto& tray =
      it.stage.add<ToastTray>("tray", {20, 620, 320, 60},
                              {.time = ms(1500),
                               .button = "Undo",
                               .enter = even(100),
                               .exit = even(100),
                               .on_show = [&](const std::string& words) { it.say("shows " + words); },
                               .on_end = [&](const std::string& words, ToastEnd) { it.say("ends " + words); },
                               .on_button = [&] { it.say("undo"); }});
  it.drag(100, {2, 300}, {120, 300}, 160, Phase::move);
  it.look(270);
  it.stage.touch({.time = ms(300), .contact = 1, .phase = Phase::up, .at = {120, 300}});
  it.look(400);
  it.at(600, [&] { first.set(true); });
  it.look(700);
  it.tap(1000, {100, 420});
  it.look(1150);
  it.at(1200, [&] { tray.show("Saved"), tray.show("Shared"); });
  it.look(1250);
  it.tap(1400, {180, 80});
  it.look(1450);
  it.tap(1900, {310, 650});
  it.look(2050);
  it.drag(2300, {100, 650}, {260, 650}, 60);
  it.look(2400);
  it.stage.back(ms(3000));
  it.look(3050);
  it.stage.press(Key::escape, ms(3500));
  it.look(3600);
  it.look(9000);
}

void carousel_dots_tabs(std::string& text) {
  Cell<int> photo{0};
  Cell<double> where{0};
  Cell<Choice> tab{Choice({"Comb", "Brood", "Queen"})};
  Scene it("a carousel with its dots and tabs: dragged, tapped, by keys, turned around", text);
  auto& photos =
      it.stage.add<Carousel>("photos", {0, 100, 360, 240},
                             {.selected = photo,
                              .position = where,
                              .count = 3,
                              .spacing = 8,
                              .peek = 24,
                              .wrap = true,
                              .shrink = 0.1,
                              .fade = 0.5,
                              .transition = even(200),
                              .on_move = {},
                              .on_rest = [&](int at) { it.say("rests at " + std::to_string(at)); }});
  it.stage.add<PageDots>("dots", {130, 350, 100, 40},
                         {.selected = photo, .count = 3, .transition = even(200)});
  it.stage.add<Tabs>("tabs", {0, 400, 360, 48},
                     {.selected = tab, .position = where, .transition = even(200)});
  it.look(0);
  it.drag(100, {260, 200}, {140, 200}, 200, Phase::move);
  it.look(310);
  it.stage.touch({.time = ms(500), .contact = 1, .phase = Phase::up, .at = {140, 200}});
  it.look(560);
  it.tap(1000, {165, 370});
  it.look(1100);
  it.tap(1500, {350, 200});
  it.look(1600);
  it.stage.focus("photos");
  it.stage.press(Key::right, ms(2000));
  it.look(2100);
  it.drag(2120, {100, 200}, {250, 200}, 60);
  it.look(2220);
  it.at(3000, [&] { it.stage.change(photos, [](CarouselSettings& s) { s.wrap = false, s.count = 2; }); });
  it.look(3050);
  it.stage.set_right_to_left(true, ms(4000));
  it.look(4050);
  it.drag(4100, {100, 200}, {220, 200}, 60);
  it.look(4200);
  it.look(6000);
}

void pages_and_swaps(std::string& text) {
  Cell<Choice> page{Choice({"Hives", "Hive 3", "Brood"})}, inside{Choice({"Frames", "Stores"})};
  Scene it("a page host with a swap on its second page: deeper, drawn back, quick changes", text);
  it.stage.add<PageHost>("host", {0, 0, 360, 640},
                         {.selected = page, .transition = even(200), .on_page = [&](std::size_t at) {
                            it.say("page " + std::to_string(at));
                          }});
  for (const char* name : {"hives", "hive", "brood"})
    it.stage.add<Pane>(name, {0, 0, 360, 640}, {}, {.inside = "host"});
  it.stage.add<Swap>("both", {20, 100, 320, 200},
                     {.selected = inside,
                      .way = SwapMotion::both,
                      .order = SwapOrder::old_first,
                      .enter = even(200),
                      .exit = even(160),
                      .size_transition = even(100)},
                     {.inside = "hive"});
  it.stage.add<Button>("frames", {0, 0, 320, 80}, {.label = "Frames"}, {.inside = "both"});
  it.stage.add<Button>("stores", {0, 0, 280, 160}, {.label = "Stores"}, {.inside = "both"});
  const auto go = [&](double when, std::size_t to) {
    it.at(when, [&page, to] { page.set(page.get().with(to)); });
  };
  it.look(0);
  go(100, 1);
  it.look(160);
  it.at(400, [&] { inside.set(inside.get().with(1)); });
  it.look(460);
  it.look(600);
  it.at(620, [&] { inside.set(inside.get().with(0)); });
  it.look(660);
  go(1000, 2);
  it.look(1050);
  go(1060, 0);
  it.look(1150);
  go(2000, 2);
  it.look(3000);
  it.drag(3100, {4, 300}, {150, 300}, 200, Phase::move);
  it.look(3310);
  it.stage.touch({.time = ms(3330), .contact = 1, .phase = Phase::up, .at = {150, 300}});
  it.look(3400);
  it.stage.back(ms(5000));
  it.look(5100);
  it.look(8000);
}

void deck_and_marker(std::string& text) {
  Cell<int> card{0};
  Cell<double> zoom{1}, x{0}, y{0};
  Scene it("a card deck, and a marker on a plan that is zoomed", text);
  auto& deck = it.stage.add<CardDeck>("deck", {60, 20, 240, 200},
                                      {.selected = card,
                                       .count = 3,
                                       .upwards = true,
                                       .transition = even(200),
                                       .leave = even(200),
                                       .on_throw = [&](int which, Side side) {
                                         it.say("throws " + std::to_string(which) + " " + name_of(side));
                                       }});
  it.stage.add<ZoomPlane>("plan", {0, 260, 360, 360}, {.zoom = zoom, .transition = even(200)});
  it.stage.add<Draggable>("marker", {160, 160, 40, 40},
                          {.offset_x = x, .offset_y = y, .grid = 20, .transition = even(100)},
                          {.inside = "plan"});
  it.look(0);
  it.drag(100, {180, 60}, {240, 50}, 160, Phase::move);
  it.look(270);
  it.stage.touch({.time = ms(280), .contact = 1, .phase = Phase::up, .at = {240, 50}});
  it.look(330);
  it.drag(600, {180, 180}, {60, 190}, 80);
  it.look(740);
  it.drag(1000, {180, 120}, {184, 20}, 80);
  it.look(1150);
  it.stage.act(deck, "undo", ms(1500));
  it.look(1560);
  for (const double when : {2000.0, 2120.0}) it.drag(when, {100, 340}, {100, 340}, 40);
  it.look(2300);
  it.look(2600);
  it.drag(2700, {180, 440}, {230, 470}, 160, Phase::move);
  it.look(2870);
  it.stage.touch({.time = ms(2900), .contact = 1, .phase = Phase::up, .at = {230, 470}});
  it.look(2950);
  it.drag(3200, {60, 300}, {200, 400}, 60);
  it.look(3300);
  it.look(6000);
}

void mouse_over_all(std::string& text) {
  Cell<double> frames{4};
  Scene it("a mouse: over a button, a row's action, a list that a wheel scrolls, and away", text);
  const HoverContent over{.words = "Hive {item}", .overlay = 0.5, .scale = 1.1};
  it.stage.add<Button>("save", {20, 20, 120, 48}, {.label = "Save"}).set_content({.hover = over});
  auto& row = it.stage.add<SwipeRow>(
      "row", {0, 100, 360, 60},
      {.trailing = 80, .trailing_label = "Move", .transition = even(100), .on_action = [&](const char* side) {
         it.say(std::string("action ") + side);
       }});
  it.stage.add<List>("rows", {0, 200, 360, 200}, {.transition = even(100)});
  for (int i = 0; i < 6; ++i)
    it.stage.add<Button>("hive" + std::to_string(i), {0, 0, 360, 60}, {.label = "Hive"}, {.inside = "rows"});
  it.stage.add<Slider>("frames", {40, 440, 280, 60}, {.value = frames, .to = 10, .step = 1});
  it.at(0, [&] { row.open(1); });
  it.look(200);
  it.hover(300, {60, 40});
  it.look(380);
  it.hover(700, {320, 130});
  it.look(780);
  it.drag(900, {320, 130}, {320, 130}, 60, Phase::up, 0, Tool::mouse);
  it.look(1000);
  it.hover(1300, {180, 230});
  it.stage.wheel({.time = ms(1400), .at = {180, 230}, .by = {0, 2}, .unit = WheelUnit::notch});
  it.look(1480);
  it.look(2200);
  it.hover(2300, {180, 470});
  it.stage.wheel({.time = ms(2350), .at = {180, 470}, .by = {0, -1}, .unit = WheelUnit::notch});
  it.look(2500);
  it.stage.touch({.time = ms(2600), .contact = 1, .phase = Phase::leave, .at = {0, 0}, .tool = Tool::mouse});
  it.look(2680);
  it.look(5000);
}

void less_motion(std::string& text) {
  for (const Reduced reduced : {Reduced::fade, Reduced::still}) {
    Cell<Choice> content{Choice({"Frames", "Stores"})};
    Cell<bool> open{false}, drawn{false};
    Scene it(reduced == Reduced::fade ? "with fades in the place of travel" : "without motion", text);
    it.stage.set_reduced_motion(reduced);
    it.stage.add<Swap>("both", {20, 20, 320, 100},
                       {.selected = content, .enter = even(200), .exit = even(200)});
    it.stage.add<Button>("frames", {0, 0, 320, 80}, {}, {.inside = "both"});
    it.stage.add<Button>("stores", {0, 0, 320, 100}, {}, {.inside = "both"});
    it.stage.add<List>("rows", {0, 140, 360, 200}, {.transition = even(200)});
    for (int i = 0; i < 3; ++i)
      it.stage.add<Button>("hive" + std::to_string(i), {0, 0, 360, 60}, {}, {.inside = "rows"});
    it.stage.add<Sheet>("sheet", {0, 420, 360, 300}, {.open = drawn, .dim = 0.0, .transition = even(200)});
    it.stage.add<Dialog>("dialog", {30, 220, 300, 200},
                         {.open = open, .enter = even(200), .exit = even(200)});
    it.look(0);
    it.at(100, [&] {
      content.set(content.get().with(1));
      it.stage.hide(*it.stage.find("hive1"));
      drawn.set(true);
    });
    it.look(180);
    it.at(1000, [&] { open.set(true); });
    it.look(1080);
    it.stage.back(ms(2000));
    it.look(2080);
    it.drag(3000, {180, 440}, {180, 600}, 100);
    it.look(3160);
    it.look(6000);
  }
}

void turned_and_restored(std::string& text) {
  Scene it("a screen that is turned, with a safe area, and what is saved there is restored later", text);
  Cell<double> first{2}, scrolled{0};
  const auto fill = [](Stage& stage, Cell<double>& value, Cell<double>& offset) {
    stage.add<Slider>("frames", Placement{.x = 20, .w = Length::of(0.5), .h = 60, .bottom = 20},
                      {.value = value, .to = 10, .step = 1});
    stage.add<List>("rows", Placement{.x = 0, .y = 0, .w = Length::of(1), .h = Length::of(0.4)},
                    {.offset = offset});
    for (int i = 0; i < 9; ++i)
      stage.add<Button>("hive" + std::to_string(i), {0, 0, 300, 60}, {}, {.inside = "rows"});
    stage.add<Panel>("help", Placement{.x = 40, .y = 300, .w = 200, .h = 100}, {.enter = even(100)});
  };
  fill(it.stage, first, scrolled);
  it.look(0);
  it.drag(100, {180, 200}, {180, 60}, 200, Phase::up, 100);
  it.at(800, [&] { static_cast<Panel*>(it.stage.find("help"))->open(); });
  it.look(850);
  it.stage.set_screen({720, 360}, {.left = 40, .bottom = 16}, ms(1000));
  it.look(1100);
  it.look(2000);
  const std::vector<std::uint8_t> saved = it.stage.save();
  Scene later("restored", text);
  Cell<double> second{0}, again{0};
  fill(later.stage, second, again);
  later.look(0);
  later.say(later.stage.restore(saved, ms(100)));
  later.look(110);
  later.look(1000);
}

}  // namespace

TEST_CASE("what parts do in one another's company is as it was approved") {
  std::string text;
  for (const auto scene :
       {rows_in_a_list, list_in_a_sheet, layers_over_layers, carousel_dots_tabs, pages_and_swaps,
        deck_and_marker, mouse_over_all, less_motion, turned_and_restored})
    scene(text);
  approve("core", "company", text);
}
