#pragma once

#include <algorithm>
#include <array>
#include <cstddef>
#include <initializer_list>
#include <limits>
#include <span>
#include <string_view>
#include <vector>

#include "ubbo/base/time.hpp"

namespace ubbo {

/// One number a decision was made from.
struct Fact {
  static constexpr double none = std::numeric_limits<double>::quiet_NaN();

  const char* name = "";
  double value = 0.0;
  const char* unit = "";  ///< "dp", "dp/s", "ms", or "" for a bare number
  double limit = none;    ///< what the value was held against; NaN when nothing was
  double margin =
      none;  ///< how far the value lies on the passing side of the limit; negative: it failed by that

  /// A number that had no limit.
  static constexpr Fact plain(const char* name, double value, const char* unit) {
    return {name, value, unit};
  }
  /// A number that passes when it is at or above `limit`.
  static constexpr Fact above(const char* name, double value, const char* unit, double limit) {
    return {name, value, unit, limit, value - limit};
  }
  /// A number that passes when it is at or below `limit`.
  static constexpr Fact below(const char* name, double value, const char* unit, double limit) {
    return {name, value, unit, limit, limit - value};
  }
};

/// One choice the library made, with the numbers it was made from. `part`, `question` and `answer` point to
/// text that outlives the stage's parts; nothing here is formatted or owned.
struct Decision {
  static constexpr std::size_t most_facts = 6;

  Micros time{};
  std::string_view part;
  const char* question = "";
  std::string_view answer;
  std::array<Fact, most_facts> facts{};
  std::size_t fact_count = 0;

  [[nodiscard]] std::span<const Fact> all_facts() const { return {facts.data(), fact_count}; }
};

/// The list of decisions. It has room for a fixed number, reserved when it is made; with room for none it is
/// off and `record` does nothing. When it is full, further decisions are counted in `lost`, not kept.
class Journal {
 public:
  explicit Journal(std::size_t room = 0) : room_(room) { decisions_.reserve(room); }

  [[nodiscard]] bool on() const { return room_ != 0; }

  /// Adds a decision. Allocates nothing; facts beyond `Decision::most_facts` are left out.
  void record(Micros time, std::string_view part, const char* question, std::string_view answer,
              std::initializer_list<Fact> facts = {}) {
    if (!on()) return;
    if (decisions_.size() == room_) {
      ++lost_;
      return;
    }
    Decision& made = decisions_.emplace_back();
    made.time = time;
    made.part = part;
    made.question = question;
    made.answer = answer;
    made.fact_count = std::min(facts.size(), Decision::most_facts);
    std::copy_n(facts.begin(), made.fact_count, made.facts.begin());
  }

  [[nodiscard]] std::span<const Decision> decisions() const { return decisions_; }
  [[nodiscard]] std::size_t room() const { return room_; }
  [[nodiscard]] std::size_t lost() const { return lost_; }

  /// Forgets what was recorded; the room stays.
  void clear() { decisions_.clear(); }

 private:
  std::vector<Decision> decisions_;
  std::size_t room_;
  std::size_t lost_ = 0;
};

}  // namespace ubbo
