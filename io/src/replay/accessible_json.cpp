#include "ubbo/io/replay/accessible_json.hpp"

#include <cmath>

#include "ubbo/io/text/number.hpp"
#include "ubbo/parts/kind.hpp"

namespace ubbo::io {

Json number_or_null(double value) { return std::isfinite(value) ? Json(rounded(value)) : Json(nullptr); }

Json accessible_json(const Part& part) {
  const Accessible told = part.accessible();
  Json made{{"role", told.role}, {"label", told.label}};
  const auto add = [&made](const char* name, const auto& value) {
    if (value) made[name] = *value;
  };
  if (told.value_now) made["value_now"] = number_or_null(*told.value_now);
  if (told.value_min) made["value_min"] = number_or_null(*told.value_min);
  if (told.value_max) made["value_max"] = number_or_null(*told.value_max);
  if (!told.value_text.empty()) made["value_text"] = told.value_text.view();
  if (!told.orientation.empty()) made["orientation"] = told.orientation;
  add("checked", told.checked);
  add("pressed", told.pressed);
  add("expanded", told.expanded);
  add("selected", told.selected);
  if (told.disabled) made["disabled"] = true;
  if (told.modal) made["modal"] = true;
  if (told.live != Live::off) made["live"] = told.live == Live::polite ? "polite" : "assertive";
  if (!told.keys.empty()) made["keys"] = told.keys;
  const OfferedActions offered(part);
  for (std::size_t i = 0; i < offered.size(); ++i) made["actions"].push_back(offered[i].name);
  return made;
}

}  // namespace ubbo::io
