#pragma once

#include <array>
#include <vector>

#include "ubbo/parts/part.hpp"

namespace ubbo {

/// Decides which part owns a contact, and says why.
///
/// A contact belongs to the topmost part it goes down on and to the parts that one lies in. The innermost has
/// it first, so that a press shows at once; unless one of them is under way and catches it. The first move
/// past a drag threshold decides: a handle under the contact wins along its own axes; else the innermost part
/// that follows drags along that axis, can go that way, and need not stand back, wins, and the one that had
/// it loses it. At any time one part owns a contact. How a contact is handed on within one touch stands in
/// hand_over.cpp.
class Routing {
 public:
  /// The parts from the lowest to the topmost.
  using Parts = std::vector<Part*>;

  /// Whoever keeps time: told of each part before and after something is asked of it.
  class Timekeeper {
   public:
    /// Time must have passed for `part` to the present.
    virtual void before(Part& part) = 0;
    /// `part` may have changed.
    virtual void after(Part& part) = 0;

   protected:
    ~Timekeeper() = default;
  };

  Routing(Surroundings& around, Timekeeper& keeper) : around_(&around), keeper_(&keeper) {}

  /// Makes room for parts nested so deep, so that no contact allocates.
  void reserve(std::size_t depth);
  /// A contact went down.
  void offer(const Parts& parts, Contact& contact, const Sample& sample);
  /// It moved or ended.
  void deliver(Contact& contact, const Sample& sample);
  /// What is left of a flick of `part`, dp/s, goes to the parts its contact could have gone on with. True:
  /// taken.
  bool pass_flick(Part& part, Point velocity);
  /// The part that owns a contact, or null.
  [[nodiscard]] const Part* owner(const Contact& contact) const { return contests_[index(contact)].owner; }
  /// `part` has no contact from `now` on: what it had is cancelled.
  void cancel(Part& part, Micros now);
  /// `part` is gone.
  void forget(const Part& part);

 private:
  // The parts a contact may go to, innermost first, whether that is still open, and who has it. Outlives its
  // contact until the next one takes its place, for a flick that goes on.
  struct Contest {
    std::vector<Part*> chain;
    Part* owner = nullptr;
    Contact* contact = nullptr;
    std::size_t rivals = 0;  // how many others wanted it when it went down, though they may be gone
    Point before{};          // where the contact was at its last sample
    bool open = false;
  };

  [[nodiscard]] static std::size_t index(const Contact& contact) {
    return static_cast<std::size_t>(contact.slot);
  }
  [[nodiscard]] Contest& contest_of(const Contact& contact) { return contests_[index(contact)]; }
  void own(Contest& contest, Part* part);
  bool touch(Part& part, const Contact& contact, const Sample& sample);
  void let_go(Part& part, const Contact& contact, LetGo how);
  void share(const Contest& contest, const Contact& contact, const Sample& sample);
  void refuse(const Sample& sample, const Answer& answer, const Fact& fact) const;
  bool accept(Part& topmost, Contact& contact, const Sample& sample);
  [[nodiscard]] const Feel& feel_of(const Contest& contest, Tool tool) const;
  void resolve(Contact& contact, const Sample& sample);
  Part* choose(const Contest& contest, const Contact& contact, Axis axis, Side side) const;
  void explain(const Contest& contest, const Contact& contact, const Part& winner, Axis axis, Side side,
               const Sample& sample) const;
  void settle_standing(Contact& contact, const Sample& sample);
  bool hand_to(Part& other, Contact& contact, Point anchor, const Answer& answer, const Fact& fact);
  void drag(Contact& contact, const Sample& sample);
  void predict(const Contact& contact, const Sample& sample);
  void end(Contact& contact);

  Surroundings* around_;
  Timekeeper* keeper_;
  std::array<Contest, Contacts::room> contests_{};
};

namespace questions {
inline constexpr Question owner{"who gets the contact?"};
inline constexpr Question contest{"who wins the contact?"};
inline constexpr Question hand_over{"who goes on with the contact?"};
}  // namespace questions
namespace answers {
inline constexpr Answer owns{&questions::owner, "this part", true,
                             "a contact went down at ({x.number}, {y.number}), {inside by} inside {part}, "
                             "which gets it: no other part "
                             "wants it",
                             "{part} takes it"};
inline constexpr Answer owns_first{
    &questions::owner, "this part first", true,
    "a contact went down at ({x.number}, {y.number}), {inside by} inside {part}, which gets it first; "
    "{rivals|part|parts} around it may claim it for a drag",
    "{part} takes it"};
inline constexpr Answer owner_beside{&questions::owner, "this part, beside which it is", true,
                                     "a contact went down at ({x.number}, {y.number}), {outside by} beside "
                                     "{part}, which gets it: while it is open, "
                                     "all beside it is its backdrop",
                                     "{part} takes it"};
inline constexpr Answer owner_pulled{&questions::owner, "this part, which is away", true,
                                     "a contact went down at ({x.number}, {y.number}), at the edge of the "
                                     "screen {part} is drawn in from, which gets it",
                                     "{part} takes it"};
inline constexpr Answer owner_catches{
    &questions::owner, "this part, which it stops", true,
    "a contact went down at ({x.number}, {y.number}), {inside by} inside {part}, which was under way "
    "and is stopped by it",
    "{part} is caught"};
inline constexpr Answer owner_held{
    &questions::owner, "not this part, another contact holds it", false,
    "a contact went down at ({x.number}, {y.number}), {inside by} inside {part}, which another contact "
    "holds",
    "{part} is taken"};
inline constexpr Answer owner_disabled{
    &questions::owner, "nobody, it is disabled", false,
    "a contact went down at ({x.number}, {y.number}), {inside by} inside {part}, which is disabled, "
    "and nobody gets it",
    "{part} is disabled"};
inline constexpr Answer owner_nobody{
    &questions::owner, "nobody", false,
    "a contact went down at ({x.number}, {y.number}): no part there takes it", "nobody takes it"};
inline constexpr Answer owner_palm{
    &questions::owner, "nobody, it is a palm", false,
    "a contact went down at ({x.number}, {y.number}), {size} wide: from {size.limit} on it is a palm, "
    "and nobody gets it",
    "a palm"};
inline constexpr Answer owner_bezel{
    &questions::owner, "nobody, it began on the bezel", false,
    "a contact went down at ({x.number}, {y.number}), {from the edge} from the edge: up to "
    "{from the edge.limit} is the bezel, and nobody gets it",
    "on the bezel"};
inline constexpr Answer contest_won{
    &questions::contest, "this part", true,
    "{part} wins the contact, which {rivals|more part|more parts} could have had: {along} "
    "along its axis passed the threshold of {along.limit}, by {along.margin}, with "
    "{across} across",
    "{part} wins"};
inline constexpr Answer contest_nobody{
    &questions::contest, "nobody, no part follows this axis", false,
    "nobody drags with the contact: it passed the threshold of {along.limit}, and no "
    "part there follows that axis",
    "nobody drags"};
inline constexpr Answer contest_shares{&questions::contest, "no, it shares", false,
                                       "{part} does not win the contact: it shares what others have", ""};
inline constexpr Answer contest_axis{
    &questions::contest, "no, it does not follow this axis there", false,
    "{part} does not win the contact: it follows no drag along this axis from there", ""};
inline constexpr Answer contest_inside{&questions::contest, "no, a part inside it has it", false,
                                       "{part} does not win the contact: a part inside it has it", ""};
inline constexpr Answer contest_handle{
    &questions::contest, "no, a handle has it", false,
    "{part} does not win the contact: the handle of another part is under it", ""};
inline constexpr Answer contest_end{&questions::contest, "no, it is at its end", false,
                                    "{part} does not win the contact: it is at its end that way", ""};
inline constexpr Answer contest_stands_back{
    &questions::contest, "no, it stands back", false,
    "{part} does not win the contact: it stands back that way for one that can go", ""};
inline constexpr Answer contest_held{
    &questions::contest, "nobody, another contact holds it", false,
    "{part} would win the contact, but another contact holds it: nobody drags", "{part} is taken"};
inline constexpr Answer goes_on{
    &questions::hand_over, "this part", true,
    "{part} goes on with the contact: the part before it was at its end, with {left over} left "
    "over",
    "{part} goes on"};
inline constexpr Answer comes_first{
    &questions::hand_over, "this part, which comes first that way", true,
    "{part} goes on with the contact: it comes first in the direction the finger took", "{part} goes on"};
inline constexpr Answer goes_on_with_flick{
    &questions::hand_over, "this part, with the flick", true,
    "{part} goes on with the flick: the part before it was at its end, with {speed} "
    "left",
    "{part} goes on"};
inline constexpr std::array routing_answers{
    &owns,           &owner_beside, &owner_pulled,   &owns_first,        &owner_catches, &owner_held,
    &owner_disabled, &owner_nobody, &owner_palm,     &owner_bezel,       &contest_won,   &contest_nobody,
    &contest_shares, &contest_axis, &contest_inside, &contest_handle,    &contest_end,   &contest_stands_back,
    &contest_held,   &goes_on,      &comes_first,    &goes_on_with_flick};
}  // namespace answers

}  // namespace ubbo
