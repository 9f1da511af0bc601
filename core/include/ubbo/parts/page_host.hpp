#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/base/choice.hpp"
#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/sliding.hpp"

namespace ubbo {

/// The settings of a page host. Units, ranges and meanings stand in the settings table.
struct PageHostSettings {
  std::string label{};
  Link<Choice> selected{};  ///< which page: its place among the parts that lie in it, in their order
  bool edge_swipe_back = true;
  bool system_back = true;
  Length commit_distance{};
  double below_moves = 0.3;     ///< share of its width by which the page below goes along
  double below_opacity = 0.75;  ///< of the page below, once it is covered
  bool opacity_follows = true;  ///< it fades as far as it is covered; else by a transition of its own
  Transition opacity_transition = Timed{Curve::ease_out(), Micros{240'000}};
  Transition transition = Spring::settling(Micros{340'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros projection_time{120'000};
  std::function<void(std::size_t)> on_page{};  ///< told the page, once it is here and the others are gone
};

template <>
std::span<const Setting<PageHostSettings>> settings_of<PageHostSettings>();

/// A place for pages that lie one on another: the parts that lie in it, each as large as it, in the order in
/// which one goes deeper.
///
/// A later page comes in from the trailing side over the present one, which goes along a little; an earlier
/// one is uncovered again: both are one number, how many pages deep one is, so that going back is the mirror
/// of going forward, and a finger that draws a page back from the leading edge, gives it up or flicks it
/// moves the same as a call, the phone's back or the app's cell. Back goes to the page one came from, or to
/// the first where one came from none. Of quick changes the last one counts, and nothing that is seen jumps.
/// What lies beside the host, a bar at the bottom, stays.
class PageHost final : public PartOf<PageHost, PageHostSettings, Sliding>,
                       public Container,
                       public BackTaker {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const PageHostSettings&, const Box&, const Context&) {
    return {{.axis = Axis::horizontal, .snap_points = SnapPoints::list({0.0})}};
  }
  PageHost(std::string id, const Box& box, PageHostSettings&& settings, Context& context);

  void changed();

  /// The page that is here, or is to come.
  [[nodiscard]] std::size_t selected() const { return page_; }
  /// How many there are.
  [[nodiscard]] std::size_t pages() const { return held_.size(); }
  /// The page that back leads to; none on the first.
  [[nodiscard]] std::optional<std::size_t> page_below() const;
  /// How far it is from the page it stands on or goes to: below 0 while that is still to come in, above 0
  /// while another one still covers it.
  [[nodiscard]] double way_left() const { return offset() - static_cast<double>(goal_); }
  /// Goes to a page, from where it is.
  void go_to(std::size_t page);
  /// Goes to the page it came from; does nothing on the first.
  void go_back();

  void present(Accessible& told) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample& sample) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void cell_changed() override;
  void resized() override;
  void update() override;

  bool take_over(const Contact&, Point) override { return false; }
  bool take_momentum(Point) override { return false; }

  [[nodiscard]] bool places_children() const override { return true; }
  [[nodiscard]] Point carries(const Part& inner) const override;
  [[nodiscard]] VisualState shows(const Part& inner) const override;
  [[nodiscard]] ChildUse child_use(const Part& inner) const override;
  void child_added(Part& inner) override;
  void child_removed(Part& inner) override;

  [[nodiscard]] bool wants_back() const override { return settings_.system_back && page_below().has_value(); }
  void back() override;
  void back_moves(double progress) override;
  void back_cancelled() override;

  /// The pages gone through, and the one that is shown.
  [[nodiscard]] std::vector<double> saved() const;
  void restore(std::span<const double> saved);

 private:
  [[nodiscard]] std::size_t low() const;
  [[nodiscard]] std::size_t high() const;
  [[nodiscard]] std::optional<double> depth_of(const Part& inner) const;
  [[nodiscard]] double covered(const Part& inner) const;
  [[nodiscard]] double page_at(double place) const;
  void shift(double by);
  [[nodiscard]] bool from_edge(Point at) const;
  [[nodiscard]] RailPlan rail_plan() const;
  void drop(std::size_t at);
  void insert(std::size_t at, std::size_t page);
  void let_rest(std::size_t min, std::size_t max);
  void trim(std::size_t min, std::size_t max);
  void wait_for_finger();
  bool to(std::size_t page);
  void there(std::size_t page);
  void aim(std::size_t at);
  void rested();
  void follow();

  std::vector<Part*> held_;
  std::size_t page_ = 0;           // where it stands or goes
  std::vector<std::size_t> came_;  // the pages gone through to there, growing
  std::vector<std::size_t> way_ = {
      0};  // the pages along the rail, from its 0 on: that one, and what is seen beside it
  std::size_t rests_from_ = 0;  // where along it it may rest
  std::size_t rests_to_ = 0;
  std::size_t goal_ = 0;                    // which of these that one is
  Clocked<Mover> faded_{*this, 0.0, 1e-3};  // where along its way the opacity is, where that does not follow
  bool backs_ = false;                      // a back gesture shows the page below
  bool going_ = false;
  Watch watch_;
};

namespace questions {
inline constexpr Question page{"page-host.page"};
}
namespace answers {
using PageShown = AnswerWith<Number<"from", "">, Number<"to", "">>;
inline constexpr PageShown page_forward{"page-host.page-forward", &questions::page, true};
inline constexpr PageShown page_back{"page-host.page-back", &questions::page, true};
inline constexpr AnswerWith<Number<"to", "">> page_here{"page-host.page-here", &questions::page, true};
inline constexpr std::array<const Answer*, 3> page_answers{&page_forward, &page_back, &page_here};
}  // namespace answers

}  // namespace ubbo
