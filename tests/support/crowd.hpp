#pragma once

#include <functional>
#include <string>
#include <vector>

#include "streams.hpp"
#include "ubbo/testing/check.hpp"

namespace ubbo::test {

/// A part of a test's own that moves for ever: its lamp blinks, and a touch writes down how bright it was.
struct LampSettings {
  Link<double> seen{};
  bool wants_back = false;
  bool modal = false;
};

class Lamp final : public PartOf<Lamp, LampSettings>, public LayerPart, public BackTaker {
 public:
  static const PartKind& described();
  Lamp(std::string id, const Box& box, LampSettings settings, Context& context)
      : PartOf(std::move(id), box, std::move(settings), context) {
    mover_.send(100.0, Transition(Timed{Curve::ease(), ms(700)}).repeated(Transition::endless, true),
                context.now);
  }
  void changed() {}
  [[nodiscard]] double brightness() const { return mover_.at(context().now).value; }
  bool capture(const Contact&, const Sample&) override {
    settings_.seen.set(brightness());
    return true;
  }
  [[nodiscard]] bool wants_back() const override { return settings_.wants_back; }
  void back() override {}
  [[nodiscard]] bool is_open() const override { return settings_.modal; }
  [[nodiscard]] bool is_absent() const override { return false; }
  [[nodiscard]] bool is_modal() const override { return settings_.modal; }
  [[nodiscard]] bool is_leaving() const override { return false; }
  void leave() override {}

 private:
  Clocked<Mover> mover_{*this};
};

/// Parts of all kinds that share cells, in a sheet with a list, with callbacks that write: what one of them
/// does reaches others.
struct Crowd {
  explicit Crowd(StageSettings on = {});

  /// All that must not depend on frames, as text: decisions, cells, readings.
  [[nodiscard]] std::string outcome();
  /// False when a number that can be read is none.
  [[nodiscard]] bool sound();

  Cell<double> brood{2}, stores{0.3}, height{0}, scrolled{-50}, slid{0}, seen{0};
  Cell<int> taps{0};
  Stage stage;
  std::vector<Watch> watches;
};

/// Something that happens to a crowd at a time: a touch, a key, a write, a change of the stage.
struct Happening {
  Micros time{};
  std::string name;
  std::function<void(Crowd&)> action;
};

/// Happenings in order of time, over some seconds, of every kind. `bad`: some samples are no good.
std::vector<Happening> happenings(bool bad);

/// Lets them happen with frames at this rate; 0: none. Ends every contact, and waits ten seconds.
void live_through(Crowd& crowd, const std::vector<Happening>& all, double fps);

}  // namespace ubbo::test
