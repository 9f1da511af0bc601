#pragma once

#include <cstddef>
#include <cstdint>
#include <string>
#include <vector>

#include "ubbo/io/scene/scene_run.hpp"
#include "ubbo/io/take/take.hpp"

namespace ubbo::io {

/// A take made ready for a scene, once: what the app and the phone do in it is read and looked up. It never
/// changes, so that it may be replayed often and on many threads. The take must outlive it.
class ReadyTake {
 public:
  /// Throws `InputError` for an action that the scene has no cell, part or action for, or a value or key that
  /// is none, or a note `state` that is no saved state.
  ReadyTake(const Take& take, const Scene& scene);
  ReadyTake(Take&&, const Scene&) = delete;  // the take must outlive it

  [[nodiscard]] const Take& take() const { return *take_; }
  [[nodiscard]] bool empty() const { return take_->samples.empty() && take_->actions.empty(); }

  /// What `Stage::save` returned where the take begins, by its note `state`; empty: it begins as the scene
  /// does.
  [[nodiscard]] const std::vector<std::uint8_t>& state() const { return state_; }

  /// Does what the action at this index says. Returns false for an action that its part could not do then.
  bool perform(std::size_t action, SceneRun& run) const;

 private:
  // What an action is about, as far as its kind needs it.
  struct Ready {
    std::size_t cell = 0;
    CellValue value{};
    Key key{};
    Size screen{};
    WheelTurn turn{};
    const PartAction* action = nullptr;
  };
  [[nodiscard]] Ready readied(const Action& action, const Scene& scene) const;

  const Take* take_;
  std::vector<Ready> ready_;  // of each action
  std::vector<std::uint8_t> state_;
};

}  // namespace ubbo::io
