#include "ubbo/stage/cell_news.hpp"

#include <algorithm>

namespace ubbo {

void CellNews::reserve(std::size_t parts) {
  for (auto* list : {&soon_, &later_, &sharing_}) list->reserve(parts);
}

bool CellNews::heard(Part& part, bool within) {
  Part::Post& post = part.post_;
  const Write how = detail::Writing::now();
  // What carries a part along comes from the finger of another; a finger on this one holds it only against
  // what the app asks.
  const bool waits = part.held() && how != Write::carried;
  if (post.heard == Heard::soon) {
    post.write = how;
    return false;
  }
  if (waits || within) {
    if (post.heard == Heard::later) std::erase(later_, &part);
    post.write = how;
    post.heard = waits ? Heard::after_lift : Heard::soon;
    if (!waits) soon_.push_back(&part);
    return false;
  }
  if (post.heard != Heard::no) return false;
  post.write = how;
  post.heard = Heard::later;
  later_.push_back(&part);
  return true;
}

void CellNews::lifted(Part& part) {
  if (part.post_.heard != Heard::after_lift) return;
  part.post_.heard = Heard::soon;
  soon_.push_back(&part);
}

void CellNews::begin_event() {
  for (Part* part : later_) {
    part->post_.heard = part->held() ? Heard::after_lift : Heard::soon;
    if (!part->held()) soon_.push_back(part);
  }
  later_.clear();
}

Part& CellNews::take() {
  Part& part = *soon_[soon_at_++];
  if (!any_soon()) {
    soon_.clear();
    soon_at_ = 0;
  }
  part.post_.heard = Heard::no;
  return part;
}

void CellNews::sharing(Part& part) {
  newcomers_ = true;
  if (std::exchange(part.post_.shares, true)) return;
  const auto place = std::find_if(sharing_.begin(), sharing_.end(),
                                  [&](const Part* other) { return other->post_.age > part.post_.age; });
  sharing_.insert(place, &part);
}

void CellNews::carry_along(std::size_t leader) {
  sharing_[leader]->each_shared_cell([&](const void* cell) {
    for (std::size_t later = leader + 1; later < sharing_.size(); ++later) {
      Part& part = *sharing_[later];
      if (!part.carry(cell)) continue;
      const detail::Writing carried(Write::carried);
      heard(part, true);
    }
  });
}

void CellNews::forget_gone() {
  soon_.erase(soon_.begin(), soon_.begin() + static_cast<std::ptrdiff_t>(std::exchange(soon_at_, 0)));
  for (auto* list : {&soon_, &later_, &sharing_})
    std::erase_if(*list, [](const Part* part) { return part->post_.gone; });
}

}  // namespace ubbo
