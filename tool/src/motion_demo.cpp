#include <cmath>
#include <utility>
#include <vector>

#include "commands.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/motion/progress.hpp"
#include "ubbo/paint/graph.hpp"
#include "ubbo/paint/save.hpp"
#include "ubbo/show/motion_film.hpp"

namespace ubbo::tool {

namespace {

constexpr int page_width = 1280;
constexpr int page_height = 800;

// What one small picture of the gallery shows: a title, and what is drawn in it.
struct Exhibit {
  std::string title;
  std::vector<std::string> specs;
};

std::vector<Exhibit> exhibits() {
  std::vector<Exhibit> all{
      {"ease", {"ease"}},
      {"ease-in, -out, -in-out", {"ease-in", "ease-out", "ease-in-out"}},
      {"cubic-bezier: four numbers", {"cubic-bezier(0.35, 0.05, 0.15, 0.95)"}},
      {"steps(5), (4, jump-none)", {"steps(5)", "steps(4, jump-none)"}},
      {"linear(): four stops", {"linear(0, 0.7 20%, 0.8 70%, 1)"}},
      {"through four points",
       {"through(0 0, 20% 0.7, 70% 0.8, 1 1)", "through(0 0, 20% 0.7, 70% 0.8, 1 1, free)"}}};
  for (const char* family :
       {"sine", "quad", "cubic", "quart", "quint", "expo", "circ", "back", "elastic", "bounce"}) {
    Exhibit three{std::string(family) + ": in, out, in-out", {}};
    for (const char* ease : {"(in)", "(out)", "(in-out)"}) three.specs.push_back(std::string(family) + ease);
    all.push_back(std::move(three));
  }
  all.push_back({"back(in) reversed, mirrored", {"back(in)", "reversed(back(in))", "mirrored(back(in))"}});
  all.push_back({"limited(back(out))", {"limited(back(out))"}});
  all.push_back({"joined: there, and a bounce", {"joined(ease-in until 40% to 0.7, bounce(out))"}});
  all.push_back({"bounce: keeps 10, 25, 60 %",
                 {"bounce(out, keeps 10%)", "bounce(out, keeps 25%)", "bounce(out, bounces 5, keeps 60%)"}});
  all.push_back({"spring: ratio 0.3, 0.6, 1",
                 {"spring(frequency 12, ratio 0.3)", "spring(frequency 12, ratio 0.6)",
                  "spring(frequency 12, ratio 1)"}});
  all.push_back({"spring: overshoot 0, 5, 20 %",
                 {"spring(settle 400ms)", "spring(settle 400ms, overshoot 5%)",
                  "spring(settle 400ms, overshoot 20%)"}});
  all.push_back({"coast(half-life 60ms)", {"coast(half-life 60ms)"}});
  all.push_back({"elastic(out): swings 2, 5", {"elastic(out, swings 2)", "elastic(out, swings 5)"}});
  return all;
}

show::Graph gallery(const skin::CombColours& colours) {
  const auto palette = show::line_colours(colours);
  show::Graph graph{.title = "Curves gallery",
                    .subtitle =
                        "progress over time; dotted: start and target; in each picture heather, honey and "
                        "moss, solid, dashed and dotted, in the order named",
                    .panels = {},
                    .columns = 6,
                    .legend_columns = 1};
  for (const Exhibit& exhibit : exhibits()) {
    show::Panel panel{.title = exhibit.title, .x_numbers = false, .y_numbers = false};
    panel.levels = {{.at = 0.0, .colour = colours.ink.with_alpha(0.5)},
                    {.at = 1.0, .colour = colours.ink.with_alpha(0.5)}};
    panel.y_range = {-0.45, 1.58};
    for (std::size_t i = 0; i < exhibit.specs.size(); ++i) {
      const Curve curve = progress_of(io::read_motion(exhibit.specs[i]).transition.way);
      show::Line trace{.points = {}, .colour = palette[i], .dash = 1 + static_cast<int>(i)};
      constexpr int looks = 400;
      for (int n = 0; n <= looks; ++n) {
        const double p = static_cast<double>(n) / looks;
        const double value = curve.value(p);
        const bool jumps = n != 0 && std::fabs(value - trace.points.back().second) > 0.15;
        if (jumps) trace.points.emplace_back(p, trace.points.back().second);
        trace.points.emplace_back(p, value);
      }
      panel.lines.push_back(std::move(trace));
    }
    graph.panels.push_back(std::move(panel));
  }
  return graph;
}

show::Throw four_springs() {
  show::Throw thrown{.title = "A hive card let go while it flies: four springs",
                     .card = "Quarry 3",
                     .from = 120.0,
                     .velocity = 2400.0,
                     .every = Micros{24'000},
                     .ways = {}};
  for (const char* spec : {"spring(settle 600ms)", "spring(settle 600ms, overshoot 15%)",
                           "spring(mass 1, stiffness 320, damping 30)", "spring(frequency 20, ratio 0.25)"})
    thrown.ways.push_back({spec, io::read_transition(spec)});
  return thrown;
}

// Two properties of each row, each with its own time and curve; row after row.
Timeline rows_timeline(const std::vector<std::string>& rows) {
  Timeline timeline;
  std::vector<Timeline::Track> x;
  std::vector<Timeline::Track> opacity;
  for (const std::string& row : rows) {
    x.push_back(timeline.add_track(row + ".x", 160.0));
    opacity.push_back(timeline.add_track(row + ".opacity", 0.0));
  }
  const auto delays = Stagger::by_order(rows.size(), Micros{60'000});
  timeline.cue(x, 0.0, io::read_transition("spring(settle 420ms, overshoot 6%)"), delays);
  timeline.cue(opacity, 1.0, io::read_transition("ease-out 160ms"), delays, Place::with());
  return timeline;
}

}  // namespace

std::vector<std::string> shoot_motions(const std::string& folder) {
  std::vector<std::string> pictures{folder + "/curves.png", folder + "/thrown-card.png",
                                    folder + "/rows-in.png"};
  paint::plot(gallery(skin::day), page_width, page_height, pictures[0]);
  paint::save(show::thrown_cards(four_springs(), page_width, page_height), page_width, page_height,
              pictures[1]);
  const show::RowsIn list{.title = "The hive list comes in, a row every 60 ms",
                          .subtitle =
                              "place: spring(settle 420ms, overshoot 6%); opacity: ease-out 160ms; "
                              "each with its own time",
                          .rows = {"Quarry", "Orchard", "Mill", "Ford", "Chapel", "Ridge", "Weir"},
                          .frames = 6};
  paint::save(show::rows_coming_in(list, rows_timeline(list.rows), page_width, page_height), page_width,
              page_height, pictures[2]);
  return pictures;
}

}  // namespace ubbo::tool
