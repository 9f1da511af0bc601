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

/// One number a decision was made from.
struct Fact {
  const char* name = "";
  double value = 0.0;
  const char* unit = "";  ///< "dp", "dp/s", "ms", or "" for a bare number
  double limit = 0.0;     ///< what the value was held against, where `limited`
  double margin =
      0.0;  ///< how far the value lies on the passing side of the limit; negative: it failed by that
  bool limited = false;

  /// A number that had no limit.
  static constexpr Fact plain(const char* name, double value, const char* unit) {
    return {name, value, unit};
  }
  /// A number that passes when it is at or above `limit`.
  static constexpr Fact above(const char* name, double value, const char* unit, double limit) {
    return {name, value, unit, limit, value - limit, true};
  }
  /// A number that passes when it is at or below `limit`.
  static constexpr Fact below(const char* name, double value, const char* unit, double limit) {
    return {name, value, unit, limit, limit - value, true};
  }
};

/// One choice the library made, with the numbers it was made from. Of a fixed size; it may be copied and
/// outlives everything but the answer's words, which are constants of whoever declared them.
struct Decision {
  static constexpr std::size_t most_facts = 6;

  Micros time{};
  Name part;                       ///< who decided; empty: the stage
  const Answer* answer = nullptr;  ///< never null in a journal
  std::array<Fact, most_facts> facts{};
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

  /// Adds a decision. Allocates nothing; facts beyond `Decision::most_facts`, and such as are not finite, are
  /// left out. O(1), or O(room) once in `room` times where the latest are kept.
  void record(Micros time, const Name& part, const Answer& answer, std::initializer_list<Fact> facts = {}) {
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
      if (made.fact_count < Decision::most_facts && std::isfinite(fact.value) && std::isfinite(fact.limit))
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
struct Voice {
  Journal* journal = nullptr;
  Name part{};

  void say(Micros time, const Answer& answer, std::initializer_list<Fact> facts = {}) const {
    if (journal != nullptr) journal->record(time, part, answer, facts);
  }
};

}  // namespace ubbo
