#pragma once

#include <functional>
#include <string>
#include <unordered_map>
#include <vector>

#include "ubbo/parts/part_of.hpp"
#include "ubbo/parts/sliding.hpp"
#include "ubbo/parts/spans.hpp"

namespace ubbo {

/// The settings of a list. Units, ranges and meanings stand in the settings table.
struct ListSettings {
  std::string label{};
  Link<double>
      offset{};        ///< how far its items are scrolled, dp; 0 at its start, below 0 further on; optional
  double count = 0.0;  ///< items, also those that are no parts; 0: the parts that lie in it are its items
  double item_size = 64.0;  ///< dp along its axis, of an item that has not been measured
  double gap = 0.0;         ///< dp between items
  double ahead = 128.0;     ///< dp beyond its box within which items are parts
  Axis axis = Axis::vertical;
  Transition transition = Spring::settling(Micros{300'000}, 0.0);
  PartReduced reduced_motion = PartReduced::as_screen;
  Micros half_life{150'000};
  Overscroll::How overscroll_start = Overscroll::How::damped;
  Overscroll::How overscroll_end = Overscroll::How::damped;
  double overscroll_fraction = 0.4;
  double overscroll_reach = 72.0;  ///< dp
  /// An item comes near, and wants a part that lies in the list: `spare`, whose item has gone, with its
  /// content changed, or where that is null a new one. With `count` only.
  std::function<Part&(std::size_t item, Part* spare)> on_near{};
  std::function<void(std::size_t item, Part& part)> on_far{};  ///< its part is to spare: hidden, not removed
  std::function<void(std::size_t first, std::size_t last)> on_view{};  ///< the items in view have changed
  std::function<void(double)> on_rest{};                               ///< told the offset
};

template <>
std::span<const Setting<ListSettings>> settings_of<ListSettings>();

/// Items one after another that scroll along one axis. Only those near its box need to be parts.
///
/// Either the parts that lie in it are its items, in the order in which they were added: it carries each to
/// its place. Or it has `count` items, up to 100,000 and more, and asks for a part as an item comes near its
/// box, handing out again those whose items have gone. Where an item is, it finds in O(log n) steps; a frame
/// costs as much for a hundred items as for a million.
///
/// An item that is removed, or hidden, leaves a gap that closes as a motion; one that is inserted, or shown,
/// opens its place in the same way. What is measured or taken away above its box moves nothing in view.
class List final : public PartOf<List, ListSettings, Sliding>, public Container {
 public:
  [[nodiscard]] static const PartKind& described();
  [[nodiscard]] static Plan base_plan(const ListSettings& settings, const Box&, const Context& context) {
    return {plan(settings, context.right_to_left), settings.offset};
  }
  List(std::string id, const Box& box, ListSettings&& settings, Context& context);

  void changed(const ListSettings& before);

  [[nodiscard]] std::size_t items() const { return spans_.count(); }
  /// Where item `i` is on the screen now, dp, as wide as the list. Needs an item. O(log n).
  [[nodiscard]] Box box_of(std::size_t i) const;
  /// The first item in view; 0 where there is none.
  [[nodiscard]] std::size_t first() const;
  /// The last item in view; 0 where there is none.
  [[nodiscard]] std::size_t last() const;
  /// The item that `part` is at present; `items()` when it is none.
  [[nodiscard]] std::size_t item_of(const Part& part) const;
  /// How many of its items are parts now.
  [[nodiscard]] std::size_t made() const { return item_of_.size(); }
  /// How long the list is, all its items and gaps, dp.
  [[nodiscard]] double length() const { return spans_.total(); }

  /// Item `i` has this size along the axis, dp, at once: what lies behind it moves, or where it lies above
  /// the box what is before it, so that nothing in view does. Does nothing for an item that is a part, which
  /// is measured by itself.
  void measure(std::size_t i, double size);
  /// Item `i` of `count` has gone from the app's data; the gap closes. Does nothing where the items are
  /// parts: `Stage::remove` the part.
  void remove(std::size_t i);
  /// A new item stands before the present item `i` of `count`, or behind the last; its place opens.
  void insert(std::size_t i);
  /// Goes to where item `i` is the first in view, as far as the list goes.
  void scroll_to(std::size_t i);

  void present(Accessible& told) const override;
  bool press(Key key) override;
  void cell_changed() override;
  void resized() override;
  void update() override;
  /// Goes to its start, or its end.
  void go_to_end(bool end);

  [[nodiscard]] bool places_children() const override { return true; }
  [[nodiscard]] Point carries(const Part& inner) const override;
  void child_added(Part& inner) override;
  void child_removed(Part& inner) override;
  void child_shown(Part& inner, bool visible) override;
  void child_laid_out(Part& inner) override;
  void child_closing(Part& inner, const Transition& transition, bool closes) override;

 private:
  // From one item on all stand elsewhere, for a while: a gap that closes.
  struct Shift {
    std::size_t from;
    Mover by;
  };
  struct Shifts {
    std::vector<Shift> all;
    [[nodiscard]] Micros due() const;
    [[nodiscard]] bool moving() const { return !all.empty(); }
    void advance(Micros now);
  };
  // When what is in view, or near, next changes by itself: that is an event, whatever the frames are.
  struct NextLook final : TimedMember {
    using TimedMember::TimedMember;
    void add_timing(Timing& timing) const override { timing.add({.due = at}); }
    Micros at = never;
  };
  struct Near {
    std::size_t item;
    Part* part;
    bool fresh = false;   // it has yet to be measured
    bool glides = false;  // what that moves in view glides there
  };
  [[nodiscard]] static RailPlan plan(const ListSettings& settings, bool right_to_left);
  [[nodiscard]] static bool counts(const ListSettings& settings) {
    return settings.count > 0.0 || settings.on_near;
  }
  [[nodiscard]] double view() const { return along(settings_.axis, {layout_box().w, layout_box().h}); }
  [[nodiscard]] double size_of(const Part& part) const;
  [[nodiscard]] double shifted(std::size_t i) const;
  [[nodiscard]] double max_shifted() const;
  [[nodiscard]] double place_of(std::size_t i) const { return shown() + spans_.start(i) + shifted(i); }
  [[nodiscard]] std::size_t item_at(double place) const;
  void bound();
  [[nodiscard]] double reach_before(std::size_t i) const;
  void resize(std::size_t i, double size, const Transition* in_motion);
  void take_out(std::size_t i);
  void put_in(std::size_t i);
  void glide_from(std::size_t from, double by, const Transition& transition);
  void look();
  [[nodiscard]] Micros next_look() const;
  [[nodiscard]] bool wants_others(std::size_t& from, std::size_t& to) const;
  void renew();
  void give_back(std::size_t at);
  void measure(Near& near);

  Spans spans_;
  Clocked<Shifts> shifts_{*this};
  NextLook next_look_{*this};
  std::vector<Near> near_;  // items that are parts, in their order
  std::unordered_map<const Part*, std::size_t> item_of_;
  std::vector<Part*> spares_;
  std::size_t told_first_ = 0;
  std::size_t told_last_ = 0;
  bool told_any_ = false;
  bool counted_;        // items are counted, not the parts that lie in it
  bool begun_ = false;  // it has asked for its first parts
  bool asked_before_ = false;
  bool renewing_ = false;
  std::optional<std::size_t> aim_;  // the item that it was asked to go to, wherever that will be
};

}  // namespace ubbo
