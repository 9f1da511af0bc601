#include "ubbo/touch/sample.hpp"

namespace ubbo {

const char* name_of(Phase phase) {
  switch (phase) {
    case Phase::down:
      return "down";
    case Phase::move:
      return "move";
    case Phase::up:
      return "up";
    case Phase::cancel:
      return "cancel";
    case Phase::hover:
      return "hover";
    case Phase::leave:
      return "leave";
  }
  return "";
}

const char* name_of(Tool tool) {
  switch (tool) {
    case Tool::finger:
      return "finger";
    case Tool::stylus:
      return "stylus";
    case Tool::mouse:
      return "mouse";
    case Tool::wheel:
      return "wheel";
  }
  return "";
}

}  // namespace ubbo
