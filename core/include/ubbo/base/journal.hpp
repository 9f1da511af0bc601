#pragma once

#include <algorithm>
#include <array>
#include <cmath>
#include <cstddef>
#include <cstdint>
#include <initializer_list>
#include <span>
#include <vector>

#include "ubbo/base/answer.hpp"
#include "ubbo/base/name.hpp"
#include "ubbo/base/time.hpp"

namespace ubbo {

/// One choice the library made, with the numbers it was made from. It has a fixed size, may be copied, and
/// stays good after its part has gone; only the answer must stay, which is a constant.
struct Decision {
  static constexpr std::size_t max_facts = 6;

  Micros time{};
  Name part;                       ///< who decided; empty: the stage
  const Answer* answer = nullptr;  ///< never null in a journal
  std::array<Fact, max_facts> facts{};
  std::size_t fact_count = 0;

  [[nodiscard]] std::span<const Fact> all_facts() const { return {facts.data(), fact_count}; }
  [[nodiscard]] bool asks(const Question& question) const { return answer->question == &question; }
  [[nodiscard]] bool says(const Answer& other) const { return answer == &other; }
};

/// Which decisions a full journal keeps.
enum class Keep : std::uint8_t { first, latest };

/// The list of decisions, in order of time. It has room for a fixed number, reserved when it is made; with
/// room for none it is off and `record` does nothing. When it is full, one is counted in `lost` for each that
/// comes.
class Journal {
 public:
  explicit Journal(std::size_t room = 0, Keep keep = Keep::first) : room_(room), keep_(keep) {
    decisions_.reserve(keep == Keep::latest ? 2 * room : room);
  }

  [[nodiscard]] bool on() const { return room_ != 0; }

  /// Adds a decision, with a value for each fact of its answer. Allocates nothing; values that are not finite
  /// are left out. O(1), or O(room) once in `room` times where the latest are kept.
  template <class... Facts>
  void record(Micros time, const Name& part, const AnswerWith<Facts...>& answer,
              typename Facts::Given... values) {
    static_assert(sizeof...(Facts) <= Decision::max_facts);
    record_facts(time, part, answer, {detail::fact_of(Facts::spec, values)...});
  }

  /// Adds a decision whose facts are made already; those beyond `Decision::max_facts` are left out.
  void record_facts(Micros time, const Name& part, const Answer& answer, std::initializer_list<Fact> facts) {
    if (!on()) return;
    if (size() == room_) {
      ++lost_;
      if (keep_ == Keep::first) return;
      ++begin_;
      if (decisions_.size() == 2 * room_) {
        decisions_.erase(decisions_.begin(), decisions_.begin() + static_cast<std::ptrdiff_t>(begin_));
        begin_ = 0;
      }
    }
    Decision made;
    made.time = time;
    made.part = part;
    made.answer = &answer;
    for (const Fact& fact : facts)
      if (made.fact_count < Decision::max_facts && std::isfinite(fact.value) && std::isfinite(fact.limit))
        made.facts[made.fact_count++] = fact;
    // Almost always the last; what is told late of an earlier time goes where it belongs.
    auto place = decisions_.end();
    while (place != decisions_.begin() + static_cast<std::ptrdiff_t>(begin_) && place[-1].time > time)
      --place;
    decisions_.insert(place, made);
  }

  [[nodiscard]] std::span<const Decision> decisions() const { return std::span(decisions_).subspan(begin_); }
  [[nodiscard]] std::size_t size() const { return decisions_.size() - begin_; }
  [[nodiscard]] std::size_t room() const { return room_; }
  [[nodiscard]] std::size_t lost() const { return lost_; }

  /// Forgets what was recorded, and how much was lost; the room stays.
  void clear() {
    decisions_.clear();
    begin_ = lost_ = 0;
  }

 private:
  std::vector<Decision> decisions_;  // with `Keep::latest` twice the room, so that moving up is rare
  std::size_t begin_ = 0;
  std::size_t room_;
  std::size_t lost_ = 0;
  Keep keep_;
};

/// Records decisions under one name; records nothing without a journal. The journal must outlive it.
struct DecisionLog {
  Journal* journal = nullptr;
  Name part{};

  template <class... Facts>
  void say(Micros time, const AnswerWith<Facts...>& answer, typename Facts::Given... values) const {
    if (journal != nullptr) journal->record(time, part, answer, values...);
  }
};

}  // namespace ubbo
