#include "ubbo/paint/graph.hpp"

#include <fcntl.h>
#include <spawn.h>
#include <sys/wait.h>
#include <unistd.h>

#include <algorithm>
#include <array>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <memory>
#include <stdexcept>

#include "svg.hpp"
#include "ubbo/base/number_text.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/paint/save.hpp"

namespace ubbo::paint {

namespace {

using show::Graph;
using show::Line;
using show::Panel;
using show::Rule;
using show::Spot;

// gnuplot's colours have the alpha in front, 0 for solid.
std::string with_alpha(const Colour& colour) {
  return "#" + hex_of(1.0 - std::round(colour.alpha * 255.0) / 255.0) + hex(colour).substr(1);
}

std::string in_quotes(std::string_view words) {
  std::string text = "'";
  for (const char c : words) {
    if (c == '\'') text += '\'';
    text += static_cast<unsigned char>(c) < 0x20 ? ' ' : c;
  }
  return text + "'";
}

std::string shown(double number) { return number_text(number, 9); }

double wide(const std::string& words, double size, bool bold = false) {
  return text_width(
      {.at = {}, .words = words, .size = size, .colour = {}, .align = skin::Align::left, .bold = bold});
}

// A round step that divides a range into seven at most, which a narrow panel has room for.
double step_on(double range) {
  constexpr double max = 7.0;
  if (!(range > 0.0) || !std::isfinite(range)) return 1.0;
  const double raw = range / max;
  const double unit = std::pow(10.0, std::floor(std::log10(raw)));
  for (const double times : {1.0, 2.0, 5.0})
    if (times * unit >= raw) return times * unit;
  return 10.0 * unit;
}

class Script {
 public:
  Script(const Graph& graph, int width, int height, const skin::CombColours& colours)
      : graph_(graph), width_(width), height_(height), colours_(colours) {}

  std::string write(bool png) {
    // A point of pngcairo is a pixel and a third, one of svg a pixel.
    font_scale_ = png ? 0.75 : 1.0;
    add("set terminal " + std::string(png ? "pngcairo" : "svg") + " noenhanced size " +
        std::to_string(width_) + "," + std::to_string(height_) + " font " + font(13) + " background rgb '" +
        hex(colours_.paper) + "'");
    add("set encoding utf8");
    // Words beside a curve stand on a plate of paper, so that no other curve strikes through them.
    add("set style textbox opaque noborder fillcolor rgb '" + hex(colours_.paper) + "' margins 0.6,0.5");
    add("set multiplot");
    add("unset key");
    header();
    lay_out();
    add("unset multiplot");
    return std::move(text_);
  }

 private:
  void add(const std::string& line) { text_ += line + "\n"; }
  [[nodiscard]] std::string font(double pixels, bool bold = false) const {
    return "'Inter" + std::string(bold ? ":Bold" : "") + "," + shown(pixels * font_scale_) + "'";
  }
  // A place on the page from pixels below and right of its top left corner.
  [[nodiscard]] std::string at(double x, double y) const {
    return "screen " + shown(x / width_) + ",screen " + shown(1.0 - y / height_);
  }
  void write_words(double x, double y, const std::string& words, double size, const Colour& colour,
                   const char* align = "left", bool bold = false) {
    if (words.empty()) return;
    add("set label " + in_quotes(words) + " at " + at(x, y) + " " + align + " font " + font(size, bold) +
        " textcolor rgb '" + with_alpha(colour) + "' front");
  }

  void header() {
    write_words(edge_, 26, graph_.title, 20, colours_.ink, "left", true);
    top_ = graph_.title.empty() ? 12 : 46;
    if (!graph_.subtitle.empty()) {
      write_words(edge_, top_ + 4, graph_.subtitle, 13.5, colours_.ink.with_alpha(0.75));
      top_ += 24;
    }
    std::vector<const Line*> named;
    for (const Panel& panel : graph_.panels)
      for (const Line& trace : panel.lines)
        if (!trace.name.empty()) named.push_back(&trace);
    if (named.empty()) return;
    const auto columns = static_cast<std::size_t>(std::max(1, graph_.legend_columns));
    const double column = (width_ - 2 * edge_) / static_cast<double>(columns);
    for (std::size_t i = 0; i < named.size(); ++i) {
      const std::size_t row = i / columns;
      const double x = edge_ + column * static_cast<double>(i % columns);
      const double y = top_ + 12 + 21 * static_cast<double>(row);
      add("set arrow from " + at(x, y) + " to " + at(x + 30, y) + " nohead lw 3 dt " +
          std::to_string(named[i]->dash) + " lc rgb '" + with_alpha(named[i]->colour) + "' front");
      write_words(x + 40, y, named[i]->name, 13.5, colours_.ink);
    }
    const std::size_t rows = (named.size() + columns - 1) / columns;
    top_ += 12 + 21 * static_cast<double>(rows);
  }

  void lay_out() {
    const auto columns = static_cast<std::size_t>(std::max(1, graph_.columns));
    const std::size_t rows = (graph_.panels.size() + columns - 1) / columns;
    const double room = height_ - top_ - 8;
    if (columns > 1) {
      const double w = (width_ - 2 * edge_) / static_cast<double>(columns);
      const double h = room / static_cast<double>(rows);
      for (std::size_t i = 0; i < graph_.panels.size(); ++i) {
        const std::size_t row = i / columns;
        const double x = edge_ + w * static_cast<double>(i % columns);
        const double y = top_ + h * static_cast<double>(row);
        panel(graph_.panels[i], {x + 12, y + 30, w - 24, h - 44});
      }
      return;
    }
    double shares = 0.0;
    for (const Panel& one : graph_.panels) shares += one.fraction;
    demand_room(room, shares);
    double y = top_;
    for (const Panel& one : graph_.panels) {
      const double h = room * one.fraction / shares;
      const double top = above(one, true);
      panel(one, {edge_ + 58, y + top, width_ - 2 * edge_ - 58 - 14, h - top - below(one)});
      y += h;
    }
  }

  // A panel that is lower than this says nothing.
  void demand_room(double room, double shares) {
    constexpr double min = 60.0;
    const auto short_of = [&](bool with_words) {
      double max = 0.0;
      for (const Panel& one : graph_.panels)
        max = std::max(max, (min + above(one, with_words) + below(one)) * shares / one.fraction - room);
      return max;
    };
    words_of_moments_ = short_of(true) <= 0.0;
    const double missing = std::max(short_of(words_of_moments_), 0.0);
    if (missing == 0.0 && width_ >= min_width) return;
    throw std::invalid_argument("a graph of " + std::to_string(graph_.panels.size()) +
                                " panels cannot be read at " + std::to_string(width_) + "x" +
                                std::to_string(height_) + "; takes " +
                                std::to_string(std::max(width_, min_width)) + "x" +
                                std::to_string(height_ + static_cast<int>(std::ceil(missing))) + " or more");
  }
  double above(const Panel& panel, bool with_words) {
    return (panel.title.empty() ? 10.0 : 30.0) +
           (with_words ? 17.0 * static_cast<double>(lanes(panel)) : 0.0);
  }
  static double below(const Panel& panel) {
    return (panel.x_label.empty() ? 8.0 : 24.0) + (panel.x_numbers ? 22.0 : 0.0);
  }

  // Words of moments stand above the panel, in as many lanes as it takes that none runs into another.
  struct Words {
    double x = 0.0;
    std::size_t lane = 0;
    bool late = false;  // they end at the moment, since behind it is no room
    bool shown = false;
    double line = 0.0;  // of the moment itself, pixels
  };
  std::size_t lanes(const Panel& panel) {
    words_.clear();
    constexpr std::size_t max_lanes = 12;  // words that find no room in so many are left out
    std::array<double, max_lanes> taken{};
    std::size_t count = 0;
    if (!words_of_moments_) {
      words_.assign(panel.moments.size(), {.shown = false, .line = -HUGE_VAL});
      return 0;
    }
    const double left = edge_ + 58;
    for (const Rule& rule : panel.moments) {
      Words words;
      const double x =
          left + (rule.at - panel.x_from) / (panel.x_to - panel.x_from) * (width_ - 2 * edge_ - 72);
      const bool full = std::all_of(taken.begin(), taken.end(), [&](double to) { return to > x; });
      const double size = rule.words.empty() || full ? 0.0 : wide(rule.words, 12);
      words.late = x + size > width_ - 8;
      words.x = words.late ? x - 2 : x + 2;
      words.line = x;
      const double from = words.late ? x - size - 8 : x - 4;
      while (words.lane < max_lanes && taken[words.lane] > from) ++words.lane;
      words.shown = size > 0.0 && words.lane < max_lanes;
      if (words.shown) {
        taken[words.lane] = words.late ? x : x + size + 8;
        count = std::max(count, words.lane + 1);
      }
      words_.push_back(words);
    }
    return count;
  }

  void axes(const Panel& panel, const Box& box) {
    add("set lmargin at screen " + shown(box.x / width_));
    add("set rmargin at screen " + shown(box.right() / width_));
    add("set tmargin at screen " + shown(1.0 - box.y / height_));
    add("set bmargin at screen " + shown(1.0 - box.bottom() / height_));
    add("set border 3 lw 1.2 lc rgb '" + with_alpha(colours_.ink.with_alpha(0.55)) + "'");
    const std::string tick = " nomirror scale " + std::string(panel.y_numbers ? "0.6" : "0") +
                             " textcolor rgb '" + with_alpha(colours_.ink.with_alpha(0.85)) + "' font " +
                             font(12);
    add("set xtics" + tick);
    const auto [low, high] = y_range(panel);
    add("set ytics " + shown(step_on(high - low)) + tick);
    add(panel.x_numbers ? "set format x '%g'" : "set format x ''");
    add(panel.y_numbers ? "set format y '%g'" : "set format y ''");
    add("set grid lt 1 lw 0.8 lc rgb '" + with_alpha(colours_.ink.with_alpha(0.12)) + "'");
    add("set xrange [" + shown(panel.x_from) + ":" + shown(panel.x_to) + "]");
    add("set yrange [" + shown(low) + ":" + shown(high) + "]");
    add("unset xlabel");
    add("unset ylabel");
    const std::string label =
        " font " + font(13) + " textcolor rgb '" + with_alpha(colours_.ink.with_alpha(0.85)) + "'";
    if (!panel.x_label.empty()) add("set xlabel " + in_quotes(panel.x_label) + " offset 0,0.3" + label);
    if (!panel.y_label.empty()) add("set ylabel " + in_quotes(panel.y_label) + " offset 0.5,0" + label);
  }

  static std::pair<double, double> y_range(const Panel& panel) {
    if (panel.y_range) return *panel.y_range;
    double low = HUGE_VAL;
    double high = -HUGE_VAL;
    const auto take = [&](double y) {
      if (!std::isfinite(y)) return;
      low = std::min(low, y);
      high = std::max(high, y);
    };
    for (const Line& trace : panel.lines)
      for (const auto& [x, y] : trace.points) take(y);
    for (const Rule& rule : panel.levels) take(rule.at);
    if (low > high) return {0.0, 1.0};
    const double more = high > low ? 0.07 * (high - low) : std::max(1.0, std::fabs(high)) * 0.1;
    return {low - more, high + more};
  }

  void panel(const Panel& panel, const Box& box) {
    axes(panel, box);
    if (!panel.title.empty())
      write_words(box.x, box.y - 14 - 17.0 * (graph_.columns > 1 ? 0.0 : static_cast<double>(lanes(panel))),
                  panel.title, 14, colours_.ink, "left", true);
    lanes(panel);
    for (const Rule& rule : panel.levels) {
      add("set arrow from first " + shown(panel.x_from) + ",first " + shown(rule.at) + " to first " +
          shown(panel.x_to) + ",first " + shown(rule.at) + " nohead lw " + shown(rule.width) + " dt " +
          std::to_string(rule.dash) + " lc rgb '" + with_alpha(rule.colour) + "' back");
      if (!rule.words.empty())
        add("set label " + in_quotes(rule.words) + " at graph 0.995,first " + shown(rule.at) +
            " right offset 0,0.8 font " + font(12) + " textcolor rgb '" +
            with_alpha(rule.colour.with_alpha(1.0)) + "' front boxed");
    }
    double drawn = -HUGE_VAL;
    for (std::size_t i = 0; i < panel.moments.size(); ++i) {
      const Rule& rule = panel.moments[i];
      if (!words_[i].shown && words_[i].line - drawn < 2.0) continue;  // no more than a darker line
      drawn = words_[i].line;
      add("set arrow from first " + shown(rule.at) + ",graph 0 to first " + shown(rule.at) +
          ",graph 1 nohead lw " + shown(rule.width) + " dt " + std::to_string(rule.dash) + " lc rgb '" +
          with_alpha(rule.colour) + "' back");
      const Words& words = words_[i];
      if (!words.shown) continue;
      write_words(words.x, box.y - 9 - 17.0 * static_cast<double>(words.lane), rule.words, 12, rule.colour,
                  words.late ? "right" : "left");
    }
    for (const Spot& spot : panel.spots) {
      const char* form = spot.form == Spot::Form::disc ? "7" : spot.form == Spot::Form::ring ? "6" : "13";
      add("set label " + in_quotes(spot.words) + " at first " + shown(spot.x) + ",first " + shown(spot.y) +
          (spot.left ? " right offset -0.9,0.7" : " left offset 0.9,0.7") + " point pt " + form +
          " ps 1.3 lw 2 lc rgb '" + with_alpha(spot.colour) + "' font " + font(12) + " textcolor rgb '" +
          with_alpha(colours_.ink) + "' front" + (spot.words.empty() ? "" : " boxed"));
    }
    std::string plot = "plot ";
    for (std::size_t i = 0; i < panel.lines.size(); ++i) {
      const Line& trace = panel.lines[i];
      add("$trace" + std::to_string(i) + " << EOD");
      for (const auto& [x, y] : trace.points)
        add(std::isfinite(x) && std::isfinite(y) ? shown(x) + " " + shown(y) : "");
      add("EOD");
      plot += (i == 0 ? "" : ", ") + std::string("$trace") + std::to_string(i) + " using 1:2 with lines lw " +
              shown(trace.width) + " dt " + std::to_string(trace.dash) + " lc rgb '" +
              with_alpha(trace.colour) + "' title " + in_quotes(trace.name);
    }
    add(panel.lines.empty() ? "plot NaN" : plot);
    add("unset label");
    add("unset arrow");
  }

  const Graph& graph_;
  int width_;
  int height_;
  const skin::CombColours& colours_;
  double font_scale_ = 1.0;
  double edge_ = 22.0;
  double top_ = 0.0;
  bool words_of_moments_ = true;
  static constexpr int min_width = 320;
  std::vector<Words> words_;
  std::string text_;
};

struct Close {
  void operator()(std::FILE* file) const { std::fclose(file); }
};
using Passing = std::unique_ptr<std::FILE, Close>;

// A file without a name, so that nothing is left of it whatever happens.
Passing passing_file(const std::string& text = {}) {
  Passing file(std::tmpfile());
  if (!file || std::fwrite(text.data(), 1, text.size(), file.get()) != text.size() ||
      std::fflush(file.get()) != 0)
    throw std::runtime_error(std::string("no room for a passing file: ") + std::strerror(errno));
  std::rewind(file.get());
  return file;
}

// What gnuplot draws by a script of ours, without any start-up file of the user's. It hears no name of a
// file, since it takes one that begins with a bar for a command.
std::string drawn_by_gnuplot(const std::string& text) {
  const Passing script = passing_file(text);
  const Passing drawn = passing_file();
  posix_spawn_file_actions_t ends;
  posix_spawn_file_actions_init(&ends);
  posix_spawn_file_actions_adddup2(&ends, fileno(script.get()), 0);
  posix_spawn_file_actions_adddup2(&ends, fileno(drawn.get()), 1);
  posix_spawn_file_actions_addopen(&ends, 2, "/dev/null", O_WRONLY, 0);
  std::string words[]{"gnuplot", "-d"};
  char* arguments[]{words[0].data(), words[1].data(), nullptr};
  pid_t child = 0;
  const int failed = posix_spawnp(&child, arguments[0], &ends, nullptr, arguments, environ);
  posix_spawn_file_actions_destroy(&ends);
  if (failed == ENOENT)
    throw std::runtime_error("gnuplot is not installed; graphs need it (Debian: gnuplot-nox)");
  if (failed != 0)
    throw std::runtime_error(std::string("gnuplot cannot be started: ") + std::strerror(failed));
  int status = 0;
  while (waitpid(child, &status, 0) < 0 && errno == EINTR) {
  }
  std::rewind(drawn.get());
  std::string bytes;
  char block[65536];
  while (const std::size_t got = std::fread(block, 1, sizeof block, drawn.get())) bytes.append(block, got);
  if (!WIFEXITED(status) || WEXITSTATUS(status) != 0 || bytes.empty())
    throw std::runtime_error("gnuplot failed, and drew nothing");
  return bytes;
}

// In place of the title and description by which the plotter tells of itself.
void tell_about(std::string& svg, const Graph& graph) {
  std::string description = graph.subtitle;
  for (const Panel& panel : graph.panels) {
    for (const Line& trace : panel.lines)
      if (!trace.name.empty()) description += (description.empty() ? "" : "; ") + trace.name;
    for (const Rule& moment : panel.moments)
      if (!moment.words.empty()) description += "; " + moment.words;
  }
  for (const auto& [tag, words] : {std::pair{std::string("title"), graph.title}, {"desc", description}}) {
    const std::size_t from = svg.find("<" + tag + ">");
    const std::size_t to = svg.find("</" + tag + ">", std::min(from, svg.size()));
    if (to != std::string::npos) svg.replace(from, to - from, "<" + tag + ">" + xml_text(words));
  }
}

// The plotter's name of a bold font is none that a viewer of SVG knows.
void name_bold(std::string& svg) {
  const std::string found = "\"Inter:Bold\"";
  for (std::size_t at = svg.find(found); at != std::string::npos; at = svg.find(found, at))
    svg.replace(at, found.size(), "\"Inter\" font-weight=\"bold\"");
}

}  // namespace

void plot(const Graph& graph, int width, int height, const std::string& path,
          const skin::CombColours& colours) {
  if (width < 200 || height < 200 || width > 16384 || height > 16384)
    throw std::invalid_argument("size " + std::to_string(width) + "x" + std::to_string(height) +
                                " is not taken; it takes 200x200 to 16384x16384");
  if (!path.ends_with(".png") && !path.ends_with(".svg"))
    throw std::invalid_argument(path + ": this ending is not taken; it takes .png or .svg");
  const bool png = path.ends_with(".png");
  std::string drawn = drawn_by_gnuplot(Script(graph, width, height, colours).write(png));
  if (!png) {
    tell_about(drawn, graph);
    name_bold(drawn);
  }
  file::write_whole(path, drawn);
}

}  // namespace ubbo::paint
