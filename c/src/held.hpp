#pragma once

#include <cstddef>
#include <cstdint>
#include <exception>
#include <memory>
#include <string>
#include <string_view>
#include <unordered_map>
#include <vector>

#include "ubbo/io/replay/reading.hpp"
#include "ubbo/io/replay/replay.hpp"
#include "ubbo/io/scene/plan.hpp"
#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/take/take.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::c {

/// Things by numbers that are never used again.
template <class T>
class Held {
 public:
  std::uint32_t keep(std::unique_ptr<T> one) {
    all_.emplace(++last_, std::move(one));
    return last_;
  }
  [[nodiscard]] T* find(std::uint32_t number) const {
    const auto found = all_.find(number);
    return found == all_.end() ? nullptr : found->second.get();
  }
  void drop(std::uint32_t number) { all_.erase(number); }

 private:
  std::unordered_map<std::uint32_t, std::unique_ptr<T>> all_;
  std::uint32_t last_ = 0;
};

/// A run, with what was touched and done in it.
struct Run {
  static constexpr std::size_t journal_room = 4096;

  explicit Run(const io::Plan& of) : plan(of), run(plan, journal_room) {}

  io::Plan plan;
  io::SceneRun run;
  io::Take take{};                       // what was done in it, or is played in it
  std::unique_ptr<io::Replay> replay{};  // of one that plays a take
  bool played = false;                   // … to its end
  std::vector<Decision> told{};          // of one that does not
  std::vector<io::Reading> readings{};   // once they have been asked for
  std::vector<bool> handles{};  // which parts of the scene have a handle, once that has been asked for
  Micros last{0};               // the latest time it was given

  /// Its decisions so far.
  [[nodiscard]] const std::vector<Decision>& decisions();
  [[nodiscard]] const std::vector<io::Reading>& all_readings();
  /// No time goes back in a take.
  Micros at(double time);
};

[[nodiscard]] Held<const io::Plan>& scenes();
[[nodiscard]] Held<Run>& runs();

/// What is wrong, for `ubbo_fault`.
void set_fault(const io::InputError& error);
void set_fault(const std::exception& error);
void clear_fault();

/// Does `what`; a failure becomes the fault, and `otherwise` is answered.
template <class F, class R>
R guarded(R otherwise, F&& what) {
  clear_fault();
  try {
    return what();
  } catch (const io::InputError& error) {
    set_fault(error);
    return otherwise;
  } catch (const std::exception& error) {
    set_fault(error);
    return otherwise;
  }
}

/// Writes as much of `text` as there is room for; how long it is.
std::size_t give(std::string_view text, char* into, std::size_t room);

}  // namespace ubbo::c
