#pragma once

#include <functional>
#include <string>
#include <vector>

#include "ubbo/base/choice.hpp"
#include "ubbo/enter_exit/enter_exit.hpp"
#include "ubbo/parts/part_of.hpp"

namespace ubbo {

/// Which of two contents moves first when one gives way to the other.
enum class SwapOrder : std::uint8_t { old_first, new_first, together };

/// How one content gives way to another.
enum class SwapMotion : std::uint8_t { fade, slide, both, uncover, none };

/// The settings of a swap. Units, ranges and meanings stand in the settings table.
struct SwapSettings {
  std::string label{};
  Link<Choice> selected{};     ///< which content: its place among the parts that lie in it, in their order
  Link<int> selected_index{};  ///< which content as a number, such as the item a carousel is at; used when
                               ///< `selected` is not linked
  SwapMotion way = SwapMotion::both;
  SwapOrder order = SwapOrder::old_first;
  double overlap = 0.3;    ///< share of the first one's time that is left when the other begins
  Micros overlap_time{0};  ///< that overlap as a time; used in place of the share when it is above 0
  double distance = 48.0;  ///< dp that contents slide by
  Axis axis = Axis::horizontal;
  bool wrap = false;  ///< behind the last content comes the first: it goes the short way round
  Transitions enter = Spring::settling(Micros{260'000}, 0.0);
  Transitions exit = Timed{Curve::ease_in(), Micros{160'000}};
  Transition size_transition =
      Spring::settling(Micros{280'000}, 0.0);  ///< how its own size follows that of its content
  PartReduced reduced_motion = PartReduced::as_screen;
  std::function<void(std::size_t)> on_swap{};  ///< told the content, once it is here and the others are gone
};

template <>
std::span<const Setting<SwapSettings>> settings_of<SwapSettings>();

/// A container that shows one of the parts that lie in it, by the app's choice; the others are away.
///
/// When the choice changes the present one goes and the new one comes, forward for a later one and back for
/// an earlier one, which mirror each other. Of quick changes the last one counts, and nothing is left over.
/// What it shows at first is there without an entrance. Its size glides from that of one content to that of
/// the next; contents keep their own, so nothing is stretched. What lies beside it, a grip or a title, stays.
class Swap final : public PartOf<Swap, SwapSettings>, public Container {
 public:
  [[nodiscard]] static const PartKind& described();
  Swap(std::string id, const Box& box, SwapSettings&& settings, Context& context);

  void changed();

  /// The content that is here, or is to come.
  [[nodiscard]] std::size_t content() const { return content_; }
  /// How many there are.
  [[nodiscard]] std::size_t contents() const { return held_.all.size(); }
  /// Its present size, dp: that of its content, or on the way there.
  [[nodiscard]] Size size() const;
  [[nodiscard]] EnterExit::State state_of(const Part& inner) const;

  void present(Accessible& told) const override;
  bool capture(const Contact&, const Sample&) override { return true; }
  void cell_changed() override;
  void update() override;
  /// The next content, or the one before.
  void step(int by);
  [[nodiscard]] bool can_step(int by) const;

  [[nodiscard]] bool places_children() const override { return true; }
  [[nodiscard]] Point carries(const Part& inner) const override;
  [[nodiscard]] VisualState shows(const Part& inner) const override;
  [[nodiscard]] ChildUse child_use(const Part& inner) const override;
  /// As large as it is now: it takes contacts, and what it shows is seen, as far as that.
  [[nodiscard]] std::optional<Box> window() const override;
  void child_added(Part& inner) override;
  void child_removed(Part& inner) override;
  void child_laid_out(Part& inner) override;

  [[nodiscard]] std::array<double, 1> saved() const { return {static_cast<double>(content_)}; }
  void restore(std::span<const double> saved);

 private:
  struct Held {
    Part* part;
    EnterExit enter_exit;
    Micros opens = never;  // when it is to set out
    Micros closes = never;
  };
  struct Contents {
    std::vector<Held> all;
    [[nodiscard]] Micros due() const;
    [[nodiscard]] bool moving() const { return due() != never; }
    void advance(Micros now);
  };
  [[nodiscard]] const Held* find(const Part& inner) const;
  [[nodiscard]] EnterExitPlan plan(bool forward, SwapMotion motion) const;
  void to(std::size_t content);
  void set_out(Micros now);
  void resize(bool at_once);
  void show(std::size_t content);
  void follow();
  /// What its cell asks for; what it shows where it has none.
  [[nodiscard]] std::size_t wanted() const;

  Clocked<Contents> held_{*this};
  std::size_t content_ = 0;
  bool swapping_ = false;
  Clocked<Mover> width_{*this, 0.0};
  Clocked<Mover> height_{*this, 0.0};
  Watch watch_;
};

namespace questions {
inline constexpr Question swap{"swap.swap"};
}
namespace answers {
using Swapped = AnswerWith<Number<"from", "">, Number<"to", "">>;
inline constexpr Swapped swap_forward{"swap.forward", &questions::swap, true};
inline constexpr Swapped swap_back{"swap.back", &questions::swap, true};
inline constexpr AnswerWith<Number<"to", "">> swap_done{"swap.done", &questions::swap, true};
inline constexpr std::array<const Answer*, 3> swap_answers{&swap_forward, &swap_back, &swap_done};
}  // namespace answers

}  // namespace ubbo
