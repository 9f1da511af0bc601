#pragma once

#include <chrono>
#include <functional>
#include <string>

namespace ubbo::tool {

/// Tells on the terminal how far a long work is: from the first second on, five times a second, in a line
/// that goes away with it. Nothing is told where standard error is no terminal.
class Progress {
 public:
  explicit Progress(std::string what) : what_(std::move(what)), began_(Clock::now()) {}
  Progress(const Progress&) = delete;
  Progress& operator=(const Progress&) = delete;
  ~Progress();

  /// `share` of the work is done, 0 to 1.
  void tell(double fraction);
  /// The same as a function; the progress must outlive it. It tells of a part of the work, from `from` to
  /// `to`.
  [[nodiscard]] std::function<void(double)> part(double from = 0.0, double to = 1.0) {
    return [this, from, to](double fraction) { tell(from + (to - from) * fraction); };
  }

 private:
  using Clock = std::chrono::steady_clock;

  std::string what_;
  Clock::time_point began_;
  Clock::time_point told_{};
  bool shown_ = false;
};

}  // namespace ubbo::tool
