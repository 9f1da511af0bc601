#include <algorithm>
#include <string>
#include <vector>

#include "held.hpp"
#include "scene_told.hpp"
#include "ubbo/check/check.hpp"
#include "ubbo/io/motion/motion_spec.hpp"
#include "ubbo/io/scene/scene_edit.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/motion/mover.hpp"
#include "ubbo/skin/lettering.hpp"
#include "ubbo/ubbo.h"

using ubbo::c::give;
using ubbo::c::guarded;
using ubbo::c::scenes;

namespace {

std::vector<std::string> lines_of(const char* text) {
  std::vector<std::string> lines;
  for (std::string_view left = text == nullptr ? "" : text; !left.empty();) {
    const std::size_t end = std::min(left.find('\n'), left.size());
    if (end > 0) lines.emplace_back(left.substr(0, end));
    left.remove_prefix(std::min(end + 1, left.size()));
  }
  return lines;
}

}  // namespace

ubbo_scene ubbo_scene_read(const char* text, const char* name, const char* changes) {
  return guarded(ubbo_scene{0}, [&] {
    return scenes().keep(std::make_unique<const ubbo::io::Plan>(ubbo::io::parse_scene(
        text, name, ubbo::shipped_kinds(), lines_of(changes), ubbo::skin::inter_width)));
  });
}

void ubbo_scene_free(ubbo_scene scene) { scenes().drop(scene); }

std::size_t ubbo_scene_told(ubbo_scene scene, char* into, std::size_t room) {
  const ubbo::io::Plan* plan = scenes().find(scene);
  if (plan == nullptr) return 0;
  return guarded(std::size_t{0}, [&] { return give(ubbo::c::scene_told(plan->scene()), into, room); });
}

std::size_t ubbo_scene_settings(ubbo_scene scene, char* into, std::size_t room) {
  const ubbo::io::Plan* plan = scenes().find(scene);
  if (plan == nullptr) return 0;
  return guarded(std::size_t{0}, [&] { return give(ubbo::c::scene_settings(plan->scene()), into, room); });
}

std::size_t ubbo_scene_findings(ubbo_scene scene, char* into, std::size_t room) {
  const ubbo::io::Plan* plan = scenes().find(scene);
  if (plan == nullptr) return 0;
  return guarded(std::size_t{0}, [&] {
    const auto found = ubbo::check::check_scene(plan->scene(), ubbo::skin::inter_width);
    return give(ubbo::check::findings_json(plan->scene().file, found), into, room);
  });
}

std::size_t ubbo_scene_write(const char* text, const char* name, const char* changes, char* into,
                             std::size_t room) {
  return guarded(std::size_t{0},
                 [&] { return give(ubbo::io::edit_scene(text, name, lines_of(changes)), into, room); });
}

double ubbo_transition(const char* text, double* into, std::size_t count) {
  return guarded(-1.0, [&] {
    const ubbo::Transition transition = ubbo::io::read_transition(text);
    ubbo::Mover mover(0.0);
    mover.send(1.0, transition, {});
    const ubbo::Micros ends = mover.ends();
    const double whole = ends == ubbo::never ? 1e6 : static_cast<double>(ends.count());
    for (std::size_t i = 0; i < count; ++i) {
      const double share = count == 1 ? 1.0 : static_cast<double>(i) / static_cast<double>(count - 1);
      mover.advance(ubbo::Micros{static_cast<std::int64_t>(whole * share)});
      into[i] = mover.value();
    }
    return whole;
  });
}
