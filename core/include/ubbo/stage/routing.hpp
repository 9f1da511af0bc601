#pragma once

#include <array>
#include <vector>

#include "ubbo/parts/part.hpp"

namespace ubbo {

namespace questions {
inline constexpr Question owner{"routing.owner"};
inline constexpr Question contest{"routing.contest"};
inline constexpr Question hand_over{"routing.hand-over"};
}  // namespace questions
namespace answers {
using Owner = AnswerWith<Number<"x", "dp">, Number<"y", "dp">, AtLeast<"inside by", "dp">,
                         Number<"rivals", "">, Number<"outside by", "dp">>;
using ContestLost = AnswerWith<Number<"along", "dp">, Number<"across", "dp">>;
inline constexpr Owner owns{"routing.owns", &questions::owner, true};
inline constexpr Owner owns_first{"routing.owns-first", &questions::owner, true};
inline constexpr Owner owner_beside{"routing.owner-beside", &questions::owner, true};
inline constexpr Owner owner_pulled{"routing.owner-pulled", &questions::owner, true};
inline constexpr Owner owner_catches{"routing.owner-catches", &questions::owner, true};
inline constexpr Owner owner_held{"routing.owner-held", &questions::owner, false};
inline constexpr Owner owner_disabled{"routing.owner-disabled", &questions::owner, false};
inline constexpr AnswerWith<Number<"x", "dp">, Number<"y", "dp">> owner_nobody{"routing.owner-nobody",
                                                                               &questions::owner, false};
inline constexpr AnswerWith<Number<"x", "dp">, Number<"y", "dp">, AtMost<"size", "dp">> owner_palm{
    "routing.owner-palm", &questions::owner, false};
inline constexpr AnswerWith<Number<"x", "dp">, Number<"y", "dp">, AtLeast<"from the edge", "dp">> owner_bezel{
    "routing.owner-bezel", &questions::owner, false};
inline constexpr AnswerWith<AtLeast<"along", "dp">, Number<"across", "dp">, Number<"rivals", "">> contest_won{
    "routing.contest-won", &questions::contest, true};
inline constexpr AnswerWith<AtLeast<"along", "dp">> contest_nobody{"routing.contest-nobody",
                                                                   &questions::contest, false};
inline constexpr ContestLost contest_observes{"routing.contest-observes", &questions::contest, false};
inline constexpr ContestLost contest_axis{"routing.contest-axis", &questions::contest, false};
inline constexpr ContestLost contest_inside{"routing.contest-inside", &questions::contest, false};
inline constexpr ContestLost contest_handle{"routing.contest-handle", &questions::contest, false};
inline constexpr ContestLost contest_end{"routing.contest-end", &questions::contest, false};
inline constexpr ContestLost contest_yields{"routing.contest-yields", &questions::contest, false};
inline constexpr AnswerWith<> contest_held{"routing.contest-held", &questions::contest, false};
using HandedOver = AnswerWith<Number<"distance", "dp">>;
inline constexpr HandedOver goes_on{"routing.goes-on", &questions::hand_over, true};
inline constexpr HandedOver comes_first{"routing.comes-first", &questions::hand_over, true};
inline constexpr AnswerWith<Number<"speed", "dp/s">> goes_on_with_flick{"routing.goes-on-with-flick",
                                                                        &questions::hand_over, true};
}  // namespace answers

/// Decides which part owns a contact, and says why.
///
/// A contact belongs to the topmost part it goes down on and to the parts that one lies in. The innermost has
/// it first, so that a press shows at once; unless one of them is under way and catches it. The first move
/// past a drag threshold decides: a handle under the contact wins along its own axes; else the innermost part
/// that follows drags along that axis, can go that way, and need not yield, wins, and the one that had
/// it loses it. At any time one part owns a contact. How a contact is handed on within one touch stands in
/// hand_over.cpp.
class Routing {
 public:
  /// The parts from the lowest to the topmost.
  using Parts = std::vector<Part*>;

  /// The one that keeps time: told of each part before and after something is asked of it.
  class Timekeeper {
   public:
    /// Time must have passed for `part` to the present.
    virtual void before(Part& part) = 0;
    /// `part` may have changed.
    virtual void after(Part& part) = 0;

   protected:
    ~Timekeeper() = default;
  };

  Routing(Context& context, Timekeeper& timekeeper) : context_(&context), timekeeper_(&timekeeper) {}
  Routing(const Routing&) = delete;
  Routing& operator=(const Routing&) = delete;

  /// Makes room for parts nested so deep, so that no contact allocates.
  void reserve(std::size_t depth);
  /// The part that a contact going down at `at` would be offered to first: of those that are in use the
  /// topmost, or what it lies in. Null: none. O(parts).
  [[nodiscard]] Part* under(const Parts& parts, Point at) const;
  /// The part that a finger going down at `at` would be offered to first, as `offer` decides: also one that
  /// is away and may be pulled in there, and one that is under way and catches it. Null: none. O(parts).
  [[nodiscard]] const Part* offered(const Parts& parts, Point at) const;
  /// The topmost visible part there, which may be disabled. Null: none.
  [[nodiscard]] Part* topmost(const Parts& parts, Point at) const;
  /// A contact went down.
  void offer(const Parts& parts, Contact& contact, const Sample& sample);
  /// It moved or ended.
  void deliver(Contact& contact, const Sample& sample);
  /// What is left of a flick of `part`, dp/s, goes to the parts its contact could have gone on with. True:
  /// taken.
  bool pass_flick(Part& part, Point velocity);
  /// The part that owns a contact, or null.
  [[nodiscard]] const Part* owner(const Contact& contact) const { return contests_[index(contact)].owner; }
  /// How far a contact has gone past where anybody follows it, dp.
  [[nodiscard]] Point left_over(const Contact& contact) const { return contests_[index(contact)].left; }
  /// `part` has no contact from `now` on: what it had is cancelled.
  void cancel(Part& part, Micros now);
  /// `part` is gone.
  void forget(const Part& part);

 private:
  // A list in room that the routing has for all of them in one piece.
  class Chain {
   public:
    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] bool empty() const { return size_ == 0; }
    [[nodiscard]] Part* const* begin() const { return room_; }
    [[nodiscard]] Part* const* end() const { return room_ + size_; }
    [[nodiscard]] Part* front() const { return *room_; }
    [[nodiscard]] Part* operator[](std::size_t at) const { return room_[at]; }
    void push_back(Part* part) { room_[size_++] = part; }
    void clear() { size_ = 0; }
    void erase(const Part& part);
    void move_to(Part** room);

   private:
    Part** room_ = nullptr;
    std::size_t size_ = 0;
  };
  // The parts a contact may go to, innermost first, whether that is still open, and who has it. Outlives its
  // contact until the next one takes its place, for a flick that goes on.
  struct Contest {
    Chain chain{};
    Part* owner = nullptr;
    Contact* contact = nullptr;
    std::size_t rivals = 0;  // how many others wanted it when it went down, though they may be gone
    Point before{};          // where the contact was at its last sample
    Point left{};            // what nobody follows of its last move, dp
    bool open = false;
  };

  [[nodiscard]] static std::size_t index(const Contact& contact) {
    return static_cast<std::size_t>(contact.slot);
  }
  [[nodiscard]] static std::uint16_t bit_of(const Contact& contact) {
    static_assert(Contacts::room <= 16);
    return static_cast<std::uint16_t>(1U << index(contact));
  }
  [[nodiscard]] Contest& contest_of(const Contact& contact) { return contests_[index(contact)]; }
  void own(Contest& contest, Part* part);
  bool capture(Part& part, const Contact& contact, const Sample& sample);
  void pass(Part& part, const Contact& contact, const Sample& sample);
  void let_go(Part& part, const Contact& contact, LetGo how);
  void share(const Contest& contest, const Contact& contact, const Sample& sample);
  bool accept(Part& topmost, Contact& contact, const Sample& sample);
  [[nodiscard]] const Feel& feel_of(const Contest& contest, Tool tool) const;
  void resolve(Contact& contact, const Sample& sample);
  Part* choose(const Contest& contest, const Contact& contact, Axis axis, Side side) const;
  void explain(const Contest& contest, const Contact& contact, const Part& winner, Axis axis, Side side,
               const Sample& sample) const;
  void settle_yielding(Contact& contact, const Sample& sample);
  bool hand_to(Part& other, Contact& contact, Point anchor, const answers::HandedOver& answer,
               double distance);
  void drag(Contact& contact, const Sample& sample);
  void predict(const Contact& contact, const Sample& sample);
  void end(Contact& contact);

  Context* context_;
  Timekeeper* timekeeper_;
  std::array<Contest, Contacts::room> contests_{};
  std::vector<Part*> chains_;  // room for the chain of each
  std::size_t depth_ = 0;      // … for so many parts
};

}  // namespace ubbo
