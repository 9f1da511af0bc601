#include "ubbo/parts/progress_bar.hpp"

#include <algorithm>
#include <array>
#include <cmath>

namespace ubbo {

template <>
std::span<const Setting<ProgressBarSettings>> settings_of<ProgressBarSettings>() {
  using S = ProgressBarSettings;
  static const std::array table{
      declare::text<&S::label>("label", "what is under way, for people and screen readers"),
      declare::cell<&S::fraction>("fraction", "the cell that says how far it is, 0 to 1"),
      declare::choice<&S::axis>("axis", axis_names, "the direction it is filled in; vertical: upwards"),
      declare::flag<&S::unknown>("unknown", "how far it is cannot be told: something passes along the bar"),
      declare::transition<&S::transition>("transition", "how the bar goes to a new share"),
      declare::choice<&S::reduced_motion>("reduced_motion", part_reduced_names,
                                          "what becomes of that for people who asked for less motion"),
      declare::number<&S::round>("round", "ms", 100.0, 60000.0,
                                 "how long one pass takes of what passes along it"),
  };
  return table;
}

std::string ProgressBar::misfit(const Box&, const ProgressBarSettings& settings) {
  if (!settings.unknown && !settings.fraction.linked())
    return "fraction is not linked; it takes a cell, which says how far it is";
  return {};
}

ProgressBar::ProgressBar(std::string id, const Box& box, ProgressBarSettings&& settings, Context& context)
    : PartOf(std::move(id), box, std::move(settings), context) {
  changed();
  mover_.put(wanted());
  said_ = true;
}

double ProgressBar::wanted() const {
  const double fraction = settings_.fraction.linked() ? settings_.fraction.get() : 0.0;
  return std::isfinite(fraction) ? std::clamp(fraction, 0.0, 1.0) : mover_.target();
}

void ProgressBar::changed() {
  watch_.stop();
  if (settings_.fraction.linked()) watch_ = settings_.fraction.watch([this](double) { hear(); });
  go(settings_.transition, true);
}

void ProgressBar::show(double fraction, const Transition& transition) {
  ProgressBarSettings asked = settings_;
  asked.transition = transition;
  if (const std::string wrong = fault(id(), layout_box(), asked); !wrong.empty()) refuse(wrong);
  ask([this, fraction, transition] {
    settings_.fraction.set(fraction);
    go(transition, true, true);
  });
}

void ProgressBar::cell_changed() { go(settings_.transition, context().write == Write::travels); }

void ProgressBar::go(const Transition& transition, bool travels, bool anew) {
  const double to = wanted();
  if (to == mover_.target() && !(anew && mover_.moving())) return;
  mover_.set_reduced(reduced(settings_.reduced_motion));
  if (travels)
    mover_.send(to, transition, context().now);
  else
    mover_.put(to);
  said_ = false;
}

void ProgressBar::update() {
  if (!mover_.moving() && !std::exchange(said_, true)) decide(answers::filled_to, mover_.value());
}

bool ProgressBar::passes() const {
  return settings_.unknown && visible() && reduced(settings_.reduced_motion) == Reduced::full;
}

Box ProgressBar::fill() const {
  Box bar = box();
  double from = 0.0;
  double to = std::clamp(fraction(), 0.0, 1.0);
  if (settings_.unknown) {
    constexpr double length = 0.3;  // of the bar
    const auto round = std::max<std::int64_t>(settings_.round.count(), 1);
    const double phase = static_cast<double>(context().now.count() % round) / static_cast<double>(round);
    const double head = passes() ? (1.0 + length) * phase : 0.5 + length / 2;
    from = std::clamp(head - length, 0.0, 1.0);
    to = std::clamp(head, 0.0, 1.0);
  }
  if (settings_.axis == Axis::vertical) {
    bar.y += (1.0 - to) * bar.h;
    bar.h *= to - from;
    return bar;
  }
  const double x = context().right_to_left ? 1.0 - to : from;
  bar.x += x * bar.w;
  bar.w *= to - from;
  return bar;
}

void ProgressBar::present(Accessible& told) const {
  told.label = settings_.label;
  if (settings_.unknown) return;
  told.value_now = wanted();
  told.value_min = 0.0;
  told.value_max = 1.0;
  told.value_text = ShortText::of(plain_number(std::round(wanted() * 100.0)), " %");
}

namespace {

const ProgressBar& bar_of(const Part& part) { return static_cast<const ProgressBar&>(part); }

constexpr std::array progress_readings{
    ReadingInfo{"fraction", "", "how far the bar is filled", &read<ProgressBar, &ProgressBar::fraction>,
                nullptr, true},
    ReadingInfo{"target", "", "where it goes, or stands", &read<ProgressBar, &ProgressBar::target>},
};

void progress_pieces(const Part& part, const PieceTaker& out) {
  const ProgressBar& it = bar_of(part);
  const Box box = it.box();
  out({.role = Role::label, .box = {box.x, box.y - 24.0, box.w, 20.0}, .words = it.settings().label});
  out({.role = Role::track, .box = box});
  out({.role = Role::fill, .box = it.fill(), .on = true});
}

}  // namespace

const PartKind& ProgressBar::described() {
  static const PartKind kind =
      describe<ProgressBar>({.name = "progress-bar",
                             .means = "a bar that eases to a new share",
                             .role = "progressbar",
                             .example = {.box = R"(40, 200, "100% - 80dp", 10)",
                                         .lines = "label = \"Boxes checked\"\nfraction = \"checked\"\n",
                                         .cells = "checked = 0.5\n"},
                             .readings = progress_readings,
                             .pieces = &progress_pieces,
                             .upright = Upright::upwards,
                             .margin = {.top = 24.0},
                             .usual_size = {0.0, 10.0},
                             .answers = answers::progress_answers});
  return kind;
}

}  // namespace ubbo
