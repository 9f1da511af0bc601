#include "arrange.hpp"

#include <fmt/format.h>

#include <vector>

namespace ubbo::io {

namespace {

// Start, size and end of a placement along one direction.
struct Along {
  std::optional<Length>* start;
  std::optional<Length>* size;
  std::optional<Length>* end;
};

Along along(Placement& placement, bool horizontal) {
  return horizontal ? Along{&placement.x, &placement.w, &placement.right}
                    : Along{&placement.y, &placement.h, &placement.bottom};
}

Length sum(const Length& a, const Length& b) { return {a.dp + b.dp, a.fraction + b.fraction}; }

struct Extent {
  Size size{};
  bool asked_for_text = false;
};

Extent content_of(const PartPlan& plan, const TextWidth& measure) {
  Extent made{plan.kind->usual_size};
  if (plan.kind->content_size == nullptr) return made;
  made.size = plan.kind->content_size(plan.settings, plan.content,
                                      [&](std::string_view words, double size, bool bold) {
                                        made.asked_for_text = made.asked_for_text || !measure;
                                        return measure ? measure(words, size, bold) : 0.0;
                                      });
  return made;
}

}  // namespace

std::optional<ArrangeFault> arrange(Scene& scene, const std::string& outer, const Insets& frame,
                                    const Arrangement& how, const TextWidth& measure) {
  const bool mirrored = how.row && scene.stage.right_to_left;
  const Insets edge{frame.left + how.padding.left, frame.top + how.padding.top,
                    frame.right + how.padding.right, frame.bottom + how.padding.bottom};
  Length from(how.row ? (mirrored ? edge.right : edge.left) : edge.top);
  Length to(how.row ? (mirrored ? edge.left : edge.right) : edge.bottom);

  struct Item {
    PartPlan* plan;
    Length size;
    double before, after;  // what it draws beyond its box
  };
  std::vector<Item> items;
  std::optional<std::size_t> filler;
  for (std::size_t i = 0; i < scene.parts.size(); ++i) {
    PartPlan& plan = scene.parts[i];
    if (plan.contact_rules.inside != outer || plan.kind->over_others) continue;
    const Along main = along(plan.placement, how.row);
    if (*main.start || *main.end) continue;
    const auto [content, asked] = content_of(plan, measure);
    const double own = how.row ? content.w : content.h;
    if (!*main.size && asked && how.row)
      return ArrangeFault{
          i, fmt::format("{} '{}' without w", plan.kind->name, plan.id),
          "w = its width in dp: it follows from its text, and nothing that measures text is at hand here"};
    // Across the way: as long as there is room, unless it has a size of its own.
    const Along cross = along(plan.placement, !how.row);
    const double across = how.row ? content.h : content.w;
    if (!*cross.start && !*cross.end) {
      *cross.start = how.row ? edge.top + plan.kind->margin.top : edge.left;
      if (!*cross.size && across > 0.0 && (how.row || plan.kind->content_size == nullptr))
        *cross.size = across;
      else if (!*cross.size)
        *cross.end = how.row ? edge.bottom : edge.right;
      if (!how.row && scene.stage.right_to_left && *cross.size) {
        *cross.end = edge.right;
        cross.start->reset();
      }
    }
    const Insets& margin = plan.kind->margin;
    items.push_back(
        {&plan, main.size->value_or(Length(own)), how.row ? 0.0 : margin.top, how.row ? 0.0 : margin.bottom});
    if (*main.size || own > 0.0) continue;
    if (filler) {
      return ArrangeFault{i,
                          fmt::format("{} '{}' and {} '{}' both take the room that is left", plan.kind->name,
                                      plan.id, items[*filler].plan->kind->name, items[*filler].plan->id),
                          fmt::format("{} for one of them", how.row ? "w" : "h")};
    }
    filler = items.size() - 1;
  }

  const auto put = [&](Item& item, const Length& at, bool from_end) {
    const Along main = along(item.plan->placement, how.row);
    *(from_end != mirrored ? main.end : main.start) = at;
    if (!*main.size && item.size != Length()) *main.size = item.size;
  };
  for (std::size_t i = 0; i < items.size(); ++i) {
    if (filler && i > *filler) break;
    from = sum(from, items[i].before);
    put(items[i], from, false);
    from = sum(sum(from, items[i].size), items[i].after + how.gap);
  }
  if (!filler) return std::nullopt;
  for (std::size_t i = items.size(); i-- > *filler;) {
    to = sum(to, items[i].after);
    put(items[i], to, true);
    to = sum(sum(to, items[i].size), items[i].before + how.gap);
  }
  return std::nullopt;
}

void give_usual_place(PartPlan& plan, const PartPlan* outer) {
  const ChildBox child = outer != nullptr && outer->kind->child_box != nullptr
                             ? outer->kind->child_box(outer->settings)
                             : ChildBox::free;
  if (child == ChildBox::free) return;
  const Size content = content_of(plan, {}).size;
  for (const bool horizontal : {true, false}) {
    const Along way = along(plan.placement, horizontal);
    if (*way.size || (*way.start && *way.end)) continue;
    const bool by_content = horizontal ? child == ChildBox::row : child == ChildBox::column;
    const double own = horizontal ? content.w : content.h;
    if (!by_content)
      *way.size = Length::of(1.0);
    else if (own > 0.0)
      *way.size = own;
  }
}

}  // namespace ubbo::io
