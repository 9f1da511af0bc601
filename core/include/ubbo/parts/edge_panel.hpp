#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/parts/outside.hpp"
#include "ubbo/parts/sliding.hpp"
#include "ubbo/parts/visitor.hpp"

namespace ubbo {

/// What sheets and drawers have in common: a surface that is drawn out from an edge of the screen, along one
/// rail. How much of it is out is one number of dp, 0 when it is away, whether a finger moves it, a call, a
/// key, back or the app's cell; its backdrop follows that number.
class EdgePanel : public Sliding {
 public:
  /// What the settings of a sheet and of a drawer come to.
  struct Plan {
    Edge edge = Edge::bottom;
    std::vector<double> rests{};  ///< dp out, growing, above 0
    Passage passage = Spring::settling(Micros{320'000}, 0.0);
    PartReduced reduced_motion = PartReduced::as_screen;
    Micros carry{120'000};
    double commit = 0.0;  ///< the share of the way to the next rest from which it goes on; 0: half-way
    Give give_out{};
    Give give_in{};  ///< below the lowest rest, where a drag does not close it
    bool grip_only = false;
    double grip = 32.0;  ///< dp along the axis, at its inner edge
    double veil = 0.4;   ///< 0: no backdrop, and what lies below it stays in use
    bool drag_closes = true;
    bool backdrop_closes = true;
    bool back_closes = true;
    bool edge_opens = false;  ///< a drag that begins at the screen's edge draws it out
  };

  /// How far it is out, dp.
  [[nodiscard]] double out() const { return offset(); }
  [[nodiscard]] Visit::State state() const { return state_; }
  /// It stands at a rest, or goes to one; while a finger has it, as before.
  [[nodiscard]] bool is_open() const { return rest_ > 0; }
  /// The rest it stands on or goes to: 0 is away, then 1, 2, …
  [[nodiscard]] int rest() const { return rest_; }
  /// Goes to a rest; 0 closes it. Does nothing where it goes there already; takes it from a finger.
  void go_to(int rest);
  void open() { go_to(1); }
  void close() { go_to(0); }
  void toggle();
  /// The places it may stand at, dp out, growing.
  [[nodiscard]] const std::vector<double>& rests() const { return plan_.rests; }
  /// The side of the screen it comes from.
  [[nodiscard]] Side side() const;
  /// How much its backdrop hides now, 0 to 1.
  [[nodiscard]] double veil() const;
  /// Its box when it is out by so much, on the screen.
  [[nodiscard]] Box box_at(double out) const;

  [[nodiscard]] Point moved() const override;
  [[nodiscard]] Point carries() const override { return moved(); }
  [[nodiscard]] bool away() const override { return out() <= 0.0 && !pressed() && !rail().moving(); }
  [[nodiscard]] bool pulled_at(Point at) const override;
  [[nodiscard]] bool modal() const override { return plan_.veil > 0.0 && rest_ > 0; }
  [[nodiscard]] bool takes(Point at) const override;
  [[nodiscard]] Wish wish(const Sample& sample) const override;
  bool touch(const Contact& contact, const Sample& sample) override;
  void lose(const Contact& contact, const Sample& sample) override;
  bool take_over(const Contact& contact, Point anchor) override;
  void left_behind(const Contact& contact) override;
  bool take_momentum(Point velocity) override;
  bool press(Key key) override;
  bool back() override;
  bool act(std::string_view action) override;
  void leave() override;
  [[nodiscard]] bool leaving() const override { return state_ == Visit::State::leaving; }
  void heard() override;
  void resized() override;

 protected:
  EdgePanel(std::string id, const Box& box, Surroundings& around, Plan plan);

  /// Other settings.
  void take(Plan plan);
  /// The plan made anew for the present box and reading direction.
  [[nodiscard]] virtual Plan planned() const = 0;
  /// It has set out for a rest, or come to it.
  virtual void went(Visit::State) {}
  /// Follows cells that say which rest, and whether it is open; each may be none.
  void follow(Link<int> rest, Link<bool> open);
  [[nodiscard]] const Plan& panel() const { return plan_; }

 private:
  [[nodiscard]] double length() const { return along(rail().plan().axis, {laid().w, laid().h}); }
  [[nodiscard]] double most() const { return plan_.rests.back(); }
  [[nodiscard]] int most_rest() const { return static_cast<int>(plan_.rests.size()); }
  [[nodiscard]] double place_of(int rest) const;
  [[nodiscard]] static RailPlan rail_plan(const Plan& plan, bool right_to_left);
  [[nodiscard]] double off_grip(Point at) const;
  void to(int rest);
  void there(int rest);
  void set_out();
  void wait_for_finger();
  void chosen();
  void rested();

  Plan plan_;
  Outside outside_;
  Link<int> rest_cell_;
  Link<bool> open_cell_;
  Watch rest_watch_;
  Watch open_watch_;
  Visit::State state_ = Visit::State::away;
  int rest_ = 0;  // where it stands or goes
};

}  // namespace ubbo
