#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/entering_part.hpp"
#include "ubbo/parts/outside.hpp"
#include "ubbo/parts/sliding.hpp"

namespace ubbo {

/// What sheets and drawers have in common: a surface that is drawn out from an edge of the screen, along one
/// rail. How much of it is out is one number of dp, 0 when it is closed, whether a finger moves it, a call, a
/// key, back or the app's cell; its backdrop follows that number.
class EdgePanel : public Sliding, public LayerPart, public BackTaker {
 public:
  /// What the settings of a sheet and of a drawer come to.
  struct Plan {
    Edge edge = Edge::bottom;
    std::vector<double> snap_points{};  ///< dp out, growing, above 0
    Transition transition = Spring::settling(Micros{320'000}, 0.0);
    PartReduced reduced_motion = PartReduced::as_screen;
    Micros projection_time{120'000};
    Length commit_distance{};  ///< how far it must be dragged to go on to the next snap point; 0: half-way
    Overscroll overscroll_out{};
    Overscroll overscroll_in{};  ///< below the lowest snap point, where a drag does not close it
    bool grip_only = false;
    double grip = 32.0;       ///< dp along the axis, at its inner edge
    double dim = 0.4;         ///< 0: no backdrop, and what lies below it stays in use
    bool dim_follows = true;  ///< it dims as far as it is out; else by its own transition
    Transition dim_transition = Timed{Curve::ease_out(), Micros{240'000}};
    bool drag_closes = true;
    bool backdrop_closes = true;
    bool back_closes = true;
    bool edge_swipe_opens = false;  ///< a drag that begins at the screen's edge draws it out
  };

  /// How far it is out, dp.
  [[nodiscard]] double out() const { return offset(); }
  [[nodiscard]] EnterExit::State state() const { return state_; }
  /// True when it is at a snap point or goes to one; while a finger holds it, as before that.
  [[nodiscard]] bool is_open() const override { return snap_point_ > 0; }
  /// The snap point it is at or goes to: 0 is closed, then 1, 2, …
  [[nodiscard]] int snap_point() const { return snap_point_; }
  /// Goes to a snap point; 0 closes it. Does nothing when it goes there already. Under a finger it waits for
  /// the lift.
  void go_to(int snap_point);
  void open() { go_to(1); }
  void close() { go_to(0); }
  void toggle();
  /// Goes `by` snap points further out, or back when that is below 0.
  void step(int by);
  /// The places it may stand at, dp out, growing.
  [[nodiscard]] const std::vector<double>& snap_points() const { return plan_.snap_points; }
  /// The side of the screen it comes from.
  [[nodiscard]] Side side() const;
  /// How much its backdrop hides now, 0 to 1.
  [[nodiscard]] double dim() const;
  /// Its box when it is out by so much, on the screen.
  [[nodiscard]] Box box_at(double out) const;

  [[nodiscard]] Point moved() const override;
  [[nodiscard]] bool takes(Point at) const override;
  [[nodiscard]] DragInterest drag_interest(const Sample& sample) const override;
  bool capture(const Contact& contact, const Sample& sample) override;
  void lift(const Contact& contact, const Sample& sample) override;
  void let_go(const Contact& contact, LetGo how) override;
  bool press(Key key) override;
  void cell_changed() override;
  void resized() override;
  void update() override;

  Point drag_to(const Contact& contact, const Sample& sample) override;
  bool take_over(const Contact& contact, Point anchor) override;
  bool take_momentum(Point velocity) override;

  [[nodiscard]] bool is_absent() const override {
    return out() <= 0.0 && !pressed() && !rail().moving() && !dim_.moving() && !backs_;
  }
  [[nodiscard]] bool is_modal() const override { return plan_.dim > 0.0 && snap_point_ > 0; }
  [[nodiscard]] bool pulls_in(Point at) const override;
  [[nodiscard]] bool is_leaving() const override { return state_ == EnterExit::State::leaving; }
  void leave() override;

  [[nodiscard]] bool wants_back() const override {
    return snap_point_ > 0 && (plan_.back_closes || is_modal());
  }
  void back() override;
  void back_moves(double progress) override;
  void back_cancelled() override;

  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(snap_point_)}; }
  void restore(std::span<const double> saved) { go_to(whole(saved[0])); }

 protected:
  EdgePanel(std::string id, const Box& box, Context& context, Plan plan);

  /// Other settings. `glides`: what is at rest goes by motion where its snap point is now.
  void take(Plan plan, bool glides);
  /// The plan made anew for the present box and reading direction.
  [[nodiscard]] virtual Plan planned() const = 0;
  /// Called when it starts to go to a snap point, and when it is there. `other`: its state is another now.
  virtual void went(bool /*other*/) {}
  /// Follows cells that say which snap point, and whether it is open; each may be none. `first`: it is where
  /// they say, without an entrance.
  void follow(Link<int> snap_point, Link<bool> open, bool first);
  [[nodiscard]] const Plan& panel() const { return plan_; }

 private:
  [[nodiscard]] double length() const { return along(rail().plan().axis, {layout_box().w, layout_box().h}); }
  [[nodiscard]] double max() const { return plan_.snap_points.back(); }
  [[nodiscard]] int max_snap_point() const { return static_cast<int>(plan_.snap_points.size()); }
  [[nodiscard]] double place_of(int snap_point) const;
  [[nodiscard]] static RailPlan rail_plan(const Plan& plan, bool right_to_left);
  [[nodiscard]] double off_grip(Point at) const;
  [[nodiscard]] int asked_for() const;
  void to(int snap_point);
  void set_out();
  void set_out_for(int goal);
  void tell_snap_point();
  void wait_for_finger();
  void tell_state();
  void rested();
  void take_rests();
  void put_dim() { dim_.put(plan_.dim_follows || snap_point_ == 0 ? 0.0 : 1.0); }

  Plan plan_;
  SnapPoints snap_points_;  // with 0, where it is away
  SnapPoints open_rests_;
  Outside outside_;
  Link<int> snap_point_cell_;
  Link<bool> open_cell_;
  Watch rest_watch_;
  Watch open_watch_;
  Clocked<Mover> dim_{*this, 0.0, 1e-3};  // 0 to 1, where it does not follow
  EnterExit::State state_ = EnterExit::State::absent;
  EnterExit::State told_state_ = EnterExit::State::absent;
  bool backs_ = false;  // a back gesture shows how it would close
  int snap_point_ = 0;  // where it stands or goes
};

}  // namespace ubbo
