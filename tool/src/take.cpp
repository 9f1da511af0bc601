#include <fmt/format.h>

#include <algorithm>
#include <cstdio>
#include <filesystem>
#include <memory>
#include <stdexcept>

#include "commands.hpp"
#include "progress.hpp"
#include "say.hpp"
#include "ubbo/file/read.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/io/hand/hand_script.hpp"
#include "ubbo/io/hand/trial.hpp"
#include "ubbo/io/replay/report.hpp"
#include "ubbo/io/take/recording.hpp"
#include "ubbo/io/take/take_info.hpp"
#include "ubbo/io/text/input_error.hpp"
#include "ubbo/io/text/number.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/show/touch_map.hpp"
#include "ubbo/touch/gestures.hpp"
#include "ubbo/words/catalogue.hpp"

namespace ubbo::tool {

namespace {

Point size_in(const std::string& text, const char* option) {
  const Size size = io::size_of(text).value_or(Size{});
  if (!(size.w >= 1.0 && size.w <= 1e6) || !(size.h >= 1.0 && size.h <= 1e6))
    throw std::invalid_argument(fmt::format("{} {}: takes WIDTHxHEIGHT, such as 360x720", option, text));
  return {size.w, size.h};
}

const Feel& feel_named(const std::string& name) {
  std::vector<std::string_view> known;
  for (const NamedFeel& shipped : shipped_feels()) {
    if (name == shipped.name) return shipped.feel;
    known.emplace_back(shipped.name);
  }
  const std::string nearest = io::nearest_name(name, known);
  throw std::invalid_argument(fmt::format("--feel {}: takes {}{}", name, fmt::join(known, ", "),
                                          nearest.empty() ? "" : "; nearest known: " + nearest));
}

void write_take_to(const std::string& path, const io::Take& take) {
  if (path == "-") return say_text(io::write_take(take));
  if (!path.ends_with(".csv"))
    throw std::invalid_argument(path + ": this ending is not taken; it takes .take.csv");
  const std::string text = io::write_take(take);
  (void)io::parse_take(text, path);  // what is written can be read
  file::write_whole(path, text);
  say("wrote {}: {} samples\n", path, take.samples.size());
}

// What convert and info know of a recording.
struct Reading {
  std::string in;
  std::string screen;
  std::string range;
  bool raw_units = false;

  void add_to(Verb verb) {
    verb.add_option("IN", in, "a take, kernel input events (text or raw), or pointer events (JSON lines)")
        .required();
    verb.add_option("--screen", screen,
                    "the screen's size in dp, such as 360x720, that panel units are mapped to");
    verb.add_option("--range", range,
                    "largest panel values, where the recording does not tell them, such as 1079x2159");
    verb.add_flag("--raw-units", raw_units, "leave lengths in panel units");
  }
  [[nodiscard]] io::Take read() const {
    const io::Mapping mapping{.screen = screen.empty() ? Point{} : size_in(screen, "--screen"),
                              .raw_units = raw_units,
                              .range = range.empty() ? Point{} : size_in(range, "--range")};
    return io::parse_recording(file::read(in), in, mapping);
  }
};

// Where no screen is known: the usual one, or as much as the contacts need.
Box room_of(const io::Take& take) {
  Box room{0.0, 0.0, 360.0, 720.0};
  for (const Sample& sample : take.samples) {
    room.w = std::max(room.w, sample.at.x);
    room.h = std::max(room.h, sample.at.y);
  }
  return room;
}

void add_make(Verb take, int& exit, const Kit& kit) {
  struct Order {
    std::string script, file, scene, out, hand = "bare", label, expectation;
    std::uint64_t seed = 1;
    double rate = 120.0;
  };
  auto order = std::make_shared<Order>();
  const Verb verb = take.add_verb("make", "Make a take from a hand script");
  const Option script =
      verb.add_option("SCRIPT", order->script, "what the fingers do (docs/formats/hand-script.md)");
  verb.add_option("--script", order->file, "a file that holds the script; - for standard input")
      .excludes(script);
  verb.add_option("-o,--out", order->out, "file to write, *.take.csv; - for standard output").required();
  verb.add_option("--scene", order->scene, "scene whose parts are places");
  verb.add_option("--hand", order->hand, "whose hand").with_default();
  verb.add_option("--seed", order->seed, "the same seed makes the same take").with_default();
  verb.add_option("--rate", order->rate, "samples a second, 10 to 2000").with_default();
  verb.add_option("--label", order->label, "a note: what was meant");
  verb.add_option("--expectation", order->expectation,
                  "a note: what cells should hold, such as 'frames = 7'");
  verb.footer(
      "Example:  ubbo take make \"press frames.thumb, drag right 90 dp over 200 ms, lift\" \\\n"
      "                    --scene heather-ridge/inspection.scene.toml --hand gloved --seed 3 -o "
      "drag.take.csv");
  verb.when_called([order, &exit, &kit] {
    if (order->script.empty() && order->file.empty())
      throw std::invalid_argument("take make: no script; takes one in quotes, or --script FILE");
    if (!order->file.empty()) order->script = file::read(order->file);
    io::Hand hand(io::find_hand(order->hand), order->seed, order->rate);
    std::unique_ptr<io::SceneRun> run;
    if (!order->scene.empty()) run = std::make_unique<io::SceneRun>(scene_at(order->scene, kit.kinds));
    io::perform(hand, order->script, run ? io::places_of(*run) : io::PlaceFinder{});
    io::Take made = hand.take();
    if (made.samples.empty() && made.actions.empty())
      throw std::invalid_argument("the script does nothing, so there is no take to write");
    if (run)
      made.notes.emplace_back("screen", fmt::format("{}x{}", run->stage().width(), run->stage().height()));
    if (run) made.notes.emplace_back("scene", std::filesystem::path(order->scene).filename().string());
    if (!order->label.empty()) made.notes.emplace_back("label", order->label);
    if (!order->expectation.empty()) made.notes.emplace_back("expectation", order->expectation);
    write_take_to(order->out, made);
    exit = done;
  });
}

void add_convert(Verb take, int& exit) {
  struct Order {
    Reading reading;
    std::string out;
  };
  auto order = std::make_shared<Order>();
  const Verb verb = take.add_verb("convert", "Make a take from another recording");
  order->reading.add_to(verb);
  verb.add_option("-o,--out", order->out, "file to write, *.take.csv").required();
  verb.footer(
      "Example:  ubbo take convert heather-ridge/inspection.panel.events --screen 360x720 -o panel.take.csv");
  verb.when_called([order, &exit] {
    write_take_to(order->out, order->reading.read());
    exit = done;
  });
}

void add_info(Verb take, int& exit, const Kit& kit) {
  struct Order {
    Reading reading;
    std::string feel, scene, out;
    bool json = false;
  };
  auto order = std::make_shared<Order>();
  const Verb verb = take.add_verb("info", "Tell what a recording holds and what its touches are taken for");
  order->reading.add_to(verb);
  const Option by_name = verb.add_option("--feel", order->feel,
                                         "the shipped feel to take them by; bare-finger if nothing is said");
  verb.add_option("--scene", order->scene, "take them by the feel of this scene, on its screen")
      .excludes(by_name);
  verb.add_flag("--json", order->json, "print JSON");
  verb.add_option("-o,--out", order->out, "also draw the paths over the screen, to a .png or .svg");
  verb.footer(
      "Example:  ubbo take info heather-ridge/hive-list.double-tap.take.csv --feel gloved -o double-tap.png");
  verb.when_called([order, &exit, &kit] {
    Feel feel = feel_named(order->feel.empty() ? "bare-finger" : order->feel);
    std::string whose = order->feel.empty() ? "bare-finger" : order->feel;
    if (!order->scene.empty()) {
      const io::Scene scene = scene_at(order->scene, kit.kinds);
      feel = scene.stage.feel;
      whose = "of " + order->scene;
      if (order->reading.screen.empty())
        order->reading.screen = fmt::format("{}x{}", scene.stage.width, scene.stage.height);
    }
    const io::Take recorded = order->reading.read();
    Box screen = order->reading.raw_units ? Box{} : io::screen_of(recorded);
    if (!order->reading.screen.empty() && !order->reading.raw_units) {
      const Point size = size_in(order->reading.screen, "--screen");
      screen = {0.0, 0.0, size.x, size.y};
    }
    io::TakeInfo info = io::inspect(recorded, feel, screen);
    info.feel = whose;
    say("{}",
        order->json ? io::info_json(info) : io::info_text(info, order->reading.raw_units ? "units" : "dp"));
    if (!order->out.empty()) {
      show::TouchMap map{.title = order->reading.in,
                         .screen = screen.w > 0.0 ? screen : room_of(recorded),
                         .samples = recorded.samples,
                         .marks = {}};
      if (const std::string label = recorded.note("label"); !label.empty()) map.title = label;
      for (const Gesture& g : info.gestures)
        map.marks.push_back({.time = g.time, .began = g.began, .at = g.at, .words = io::title(g)});
      std::string spoken;
      for (const Decision& decision : info.decisions) {
        map.notes.push_back({decision.time, words::sentence(decision)});
        spoken += (spoken.empty() ? "" : "; ") + map.notes.back().words;
        if (decision.says(answers::again_too_late) || decision.says(answers::again_too_far))
          map.misses.push_back({decision.time, words::caption(decision)});
      }
      paint::save(show::touch_map(map, 1280, 800, paint::text_width), 1280, 800, order->out,
                  {map.title, spoken});
      warn("wrote {}\n", order->out);
    }
    exit = done;
  });
}

void add_trial(Verb take, int& exit, const Kit& kit) {
  struct Order {
    std::string hand, feel, scene;
    int count = 2000;
    bool markdown = false;
  };
  auto order = std::make_shared<Order>();
  const Verb verb =
      take.add_verb("trial", "Make many gestures of each kind and tell what they were taken for");
  verb.add_option("--hand", order->hand, "only this hand");
  const Option by_name =
      verb.add_option("--feel", order->feel, "by this feel; each hand has its own otherwise");
  verb.add_option("--scene", order->scene, "by the feel of this scene").excludes(by_name);
  verb.add_option("--count", order->count, "how many of each kind").between(1, 1'000'000).with_default();
  verb.add_flag("--markdown", order->markdown, "print the tables of docs/recognition.md");
  verb.footer("Example:  ubbo take trial --hand gloved --feel bare-finger --count 500");
  verb.when_called([order, &exit, &kit] {
    if (!order->hand.empty()) (void)io::find_hand(order->hand);
    for (const io::HandModel& hand : io::shipped_hands()) {
      const std::string name = hand.name;
      if (!order->hand.empty() && order->hand != name) continue;
      const std::string feel = !order->feel.empty()                  ? order->feel
                               : name == "gloved" || name == "shaky" ? "gloved"
                                                                     : "bare-finger";
      const Feel by = order->scene.empty() ? feel_named(feel) : scene_at(order->scene, kit.kinds).stage.feel;
      Progress progress("trial of the hand " + name);
      const auto rows = io::run_trial(hand, by, order->count, 1, progress.part());
      int right = 0;
      for (const io::TrialRow& row : rows) right += row.right;
      say("{}hand {}, feel {}: {:.2f} % of {} taken right\n\n{}\n", order->markdown ? "## " : "", name,
          order->scene.empty() ? feel : "of " + order->scene,
          100.0 * right / (order->count * static_cast<double>(rows.size())),
          order->count * static_cast<int>(rows.size()), io::trial_table(rows, order->markdown));
      finish_saying();
    }
    exit = done;
  });
}

}  // namespace

void add_take(Verb app, int& exit, const Kit& kit) {
  const Verb take = app.add_verb("take", "Make, convert and inspect recordings of touches");
  take.require_verb();
  take.footer(
      "Example:  ubbo take make \"double tap (180, 300)\" -o tap.take.csv && ubbo take info tap.take.csv");
  add_make(take, exit, kit);
  add_convert(take, exit);
  add_info(take, exit, kit);
  add_trial(take, exit, kit);
}

}  // namespace ubbo::tool
