#pragma once

#include <functional>
#include <map>
#include <memory>
#include <string>
#include <string_view>
#include <utility>
#include <vector>

#include "ubbo/live/source.hpp"

namespace ubbo::live {

/// What viewers of one scene say to each other: who touches, what is changed, what is written. It knows no
/// sockets: messages go in as text, and out by a function. A message that does not read is answered with what
/// is wrong with it, and changes nothing.
class Hub {
 public:
  using Viewer = int;
  /// One text, however many viewers have yet to read it.
  using Text = std::shared_ptr<const std::string>;
  using Send = std::function<void(Viewer, const Text&)>;
  /// Is told what a log should have.
  using Log = std::function<void(const std::string&)>;

  Hub(Source& source, Send send, Log log);

  void join(Viewer viewer);
  void leave(Viewer viewer);
  /// A message of a viewer.
  void hear(Viewer viewer, std::string_view message);
  /// The scene file, a take or an image has changed.
  void files_changed();

  /// The scene with all that belongs to it, as JSON.
  [[nodiscard]] const std::string& scene() const { return scene_; }
  [[nodiscard]] std::size_t viewers() const { return viewers_.size(); }

  /// How much one message may hold, bytes.
  static constexpr std::size_t largest_message = std::size_t{1} << 20U;

 private:
  void tell_turn();
  void tell_viewers();
  void send(Viewer viewer, std::string text) {
    send_(viewer, std::make_shared<const std::string>(std::move(text)));
  }
  void to_others(Viewer viewer, std::string message);
  void to_all(std::string message) { to_others(0, std::move(message)); }
  void refuse(Viewer viewer, const std::string& why);

  Source* source_;
  Send send_;
  Log log_;
  std::string scene_;
  std::vector<Viewer> viewers_;
  Viewer turn_ = 0;  // whose finger has the stage; 0: nobody's
  std::string changes_ = "[]";
};

}  // namespace ubbo::live
