#include <fmt/format.h>

#include <algorithm>
#include <cmath>

#include "look.hpp"

namespace ubbo::check {

namespace {

// A part that is open from the first can be closed by itself, or by another that shares its cell.
void way_to_close(Look& look, const Looked& one) {
  if (!one.part->is_layer() || !one.part->open_layer()) return;
  for (std::size_t i = 0; i < one.plan->kind->settings(); ++i) {
    const std::string_view name = one.plan->kind->setting(i).name;
    if (name.ends_with("_closes") && number(one, name) == 1.0) return;
  }
  for (const Looked& other : look.parts)
    for (const auto& [setting, cell] : other.plan->cells)
      if (&other != &one && std::any_of(one.plan->cells.begin(), one.plan->cells.end(),
                                        [&name = cell](const auto& own) { return own.second == name; }))
        return;
  look.say(no_way_out, one, "open",
           fmt::format("{} is open from the beginning, and nothing closes it", one.plan->id),
           "link a button's opens to its cell, or let back or a tap beside it close it");
}

std::optional<double> way_out(const Looked& one) {
  const auto exit = value(one, "exit");
  if (!exit || !std::holds_alternative<Transition>(*exit)) return {};
  return length_of(std::get<Transition>(*exit));
}

// Whether it moves, grows or fades; nothing where its kind does not tell.
std::optional<bool> moves(const Looked& one, const char* edge, const char* scale, const char* opacity) {
  const auto at = number(one, edge);
  if (!at) return {};
  return *at != 0.0 || number(one, scale) != 1.0 || number(one, opacity) != 1.0;
}

void layer(Look& look, const Looked& one) {
  way_to_close(look, one);
  if (!one.layer) return;
  const bool opened = !one.plan->cells.empty() || number(one, "edge_swipe_opens").value_or(0.0) == 1.0;
  if (!opened && one.part->absent())
    look.say(never_shown, one, "kind", fmt::format("nothing in the scene opens {}", one.plan->id),
             "link it to a cell, and something that writes it");
  if (one.part->accessible().modal && number(one, "back_closes") == 0.0)
    look.say(back_ignored, one, "back_closes",
             fmt::format("{} keeps all below it, and back does not close it", one.plan->id),
             "back_closes = true, unless it must not be left");
  if (const auto time = number(one, "time");
      time && any_of(one.plan->kind->role, {"status"}) && *time >= 10.0 && *time < 1000.0)
    look.say(short_message, one, "time", fmt::format("{} shows a message for {}", one.plan->id, ms(*time)),
             "give it a second at least, and a third of one for each word");
  const auto enters = moves(one, "travel.from_edge", "travel.from_scale", "travel.from_opacity");
  const auto exits = moves(one, "travel.to_edge", "travel.to_scale", "travel.to_opacity");
  if (enters && exits && *enters != *exits)
    look.say(one_way, one, *enters ? "travel.to_edge" : "travel.from_edge",
             fmt::format(
                 "{} {}", one.plan->id,
                 *enters ? "comes by a motion and is gone at once" : "is there at once and goes by a motion"),
             *enters ? "say where it goes: travel.to_edge, to_scale or to_opacity"
                     : "say where it comes from: travel.from_edge, from_scale or from_opacity");
  for (const Looked& inside : look.parts) {
    if (&inside == &one || !lies_in(*inside.part, *one.part)) continue;
    const auto own = way_out(inside);
    const auto holder = way_out(one);
    if (own && holder && *own > *holder + 0.5)
      look.say(cut_exit, inside, "exit",
               fmt::format("{} takes {} to go, and {}, in which it lies, {}", inside.plan->id,
                           ms(std::round(*own)), one.plan->id, ms(std::round(*holder))),
               fmt::format("make it quicker, or let it lie outside of {}", one.plan->id));
  }
}

}  // namespace

void check_layers(Look& look) {
  for (const Looked& one : look.parts) layer(look, one);
}

}  // namespace ubbo::check
