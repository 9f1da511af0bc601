// Parts that come, go, and change.
#include <algorithm>

#include "call.hpp"

namespace ubbo {

std::string Stage::fault(std::string_view id, const Placement& placement,
                         const ContactRules& contact_rules) const {
  if (id.empty()) return "a part needs an id that is not empty";
  const auto part = [id](std::initializer_list<std::string_view> wrong) {
    return joined({"part '", id.substr(0, Name::longest), "': ", joined(wrong)});
  };
  if (id.size() > Name::longest)
    return part({"its id has ", std::to_string(id.size()), " bytes; it takes 63 at most"});
  if (find(id) != nullptr) return part({"there is a part with this id already"});
  if (const std::string wrong = fault_of(placement); !wrong.empty()) return part({wrong});
  for (const auto& [other, relation] :
       {std::pair<const std::string&, const char*>{contact_rules.inside, "inside"},
        {contact_rules.yields_to, "yields_to"}})
    if (!other.empty() && find(other) == nullptr)
      return part({relation, " = '", other, "' is not taken; it takes a part that was added before"});
  return {};
}

Box Stage::begin_add(const std::string& id, const Placement& placement, const ContactRules& contact_rules) {
  if (const std::string wrong = fault(id, placement, contact_rules); !wrong.empty()) refuse(wrong);
  const Box box = laid_out(placement, layout_.container(find(contact_rules.inside), placement));
  if (!(box.w > 0.0 && box.h > 0.0))
    refuse(joined({"part '", id, "': it comes to a size of ", plain_number(box.w), " x ", plain_number(box.h),
                   " dp; it takes more than 0"}));
  return box;
}

void Stage::finish_add(std::unique_ptr<Part> made, const Placement& placement, ContactRules contact_rules) {
  Part& part = *made;
  part.placement_ = placement;
  part.outer_ = find(contact_rules.inside);
  part.first_ = find(contact_rules.yields_to);
  part.contact_rules_ = std::move(contact_rules);
  part.post_.age = next_age_++;
  if (free_slots_.empty()) {
    part.post_.slot = slots_.size();
    slots_.push_back({std::move(made), 0});
  } else {
    part.post_.slot = free_slots_.back();
    free_slots_.pop_back();
    slots_[part.post_.slot].part = std::move(made);
  }
  by_id_.emplace(part.id_, &part);
  part.post_.there = true;
  order_.add(part);
  std::size_t depth = 1;
  for (const Part* outer = part.outer_; outer != nullptr; outer = outer->outer_) ++depth;
  routing_.reserve(depth);
  // So that nothing below needs memory later.
  if (const std::size_t count = order_.parts().capacity(); count > active_.capacity()) {
    due_list_.reserve(count);
    active_.reserve(count);
    news_.reserve(count);
    layers_.reserve(count);
  }
  if (part.post_.heard_early) heard(part);  // dealt with when the stage is next told the time
  const auto enter = [&] {
    begin_work();
    after(part);
    tell_container(part, [&](Container& outer) { outer.child_added(part); });
  };
  if (busy_) return enter();
  Call call(*this);
  enter();
  call.finish();
}

// What happened to a part changes the one it lies in, at the present time.
template <class F>
void Stage::tell_container(Part& part, F&& news) {
  Part* outer = part.outer_;
  if (outer == nullptr || outer->post_.gone || outer->container_ == nullptr) return;
  before(*outer);
  news(*outer->container_);
  after(*outer);
}

Part& Stage::add(const PartKind& kind, std::string id, const Placement& placement, AnySettings settings,
                 ContactRules contact_rules) {
  const Box box = begin_add(id, placement, contact_rules);
  auto part = kind.make(std::move(id), box, std::move(settings), context_);
  Part& added = *part;
  finish_add(std::move(part), placement, std::move(contact_rules));
  return added;
}

Part* Stage::find(std::string_view id) const {
  const auto found = by_id_.find(id);
  return found == by_id_.end() ? nullptr : found->second;
}

Handle Stage::handle(const Part& part) const { return {part.post_.slot, slots_[part.post_.slot].generation}; }

Part* Stage::get(Handle handle) const {
  if (handle.slot >= slots_.size() || slots_[handle.slot].generation != handle.generation) return nullptr;
  Part* part = slots_[handle.slot].part.get();
  return part == nullptr || part->post_.gone ? nullptr : part;
}

// A change of a part under a finger: the finger has it no longer.
void Stage::let_go_of(Part& part) {
  for (std::size_t i = order_.place_of(&part); i < order_.size() && lies_in(order_[i], part); ++i)
    routing_.cancel(order_[i], context_.now);
}

void Stage::remove(Part& part) {
  do_or_wait([this, handle = handle(part)] {
    Part* found = get(handle);
    if (found == nullptr || found->post_.doomed) return;
    let_go_of(*found);
    found->post_.doomed = true;
    doomed_.push_back(found);
    for (std::size_t i = order_.place_of(found); i < order_.size() && lies_in(order_[i], *found); ++i) {
      Part& inner = order_[i];
      if (inner.layer_ == nullptr || !inner.visible()) continue;
      before(inner);
      inner.layer_->leave();
      after(inner);
    }
    focus_.check();
    bury_doomed();
  });
}

// Removes what waited for others to leave, where none does any more.
void Stage::bury_doomed() {
  for (std::size_t d = 0; d < doomed_.size();) {
    Part* part = doomed_[d];
    bool waits = false;
    for (std::size_t i = order_.place_of(part); i < order_.size() && lies_in(order_[i], *part); ++i)
      waits = waits || (order_[i].leaving() && order_[i].visible());
    if (waits)
      ++d;
    else
      do_remove(*part);  // takes it out of these, with all that lies in it
  }
}

void Stage::do_remove(Part& part) {
  let_go_of(part);
  std::vector<Part*> gone;
  for (std::size_t i = order_.place_of(&part); i < order_.size() && lies_in(order_[i], part); ++i)
    gone.push_back(&order_[i]);
  // The last that cells hear of them is where they were.
  for (Part* other : gone) {
    before(*other);
    other->tell_places();
  }
  tell_container(part, [&](Container& outer) { outer.child_removed(part); });
  for (Part* other : gone) {
    other->post_.gone = true;
    by_id_.erase(other->id_);
    due_list_.set(*other, never);
    if (!other->post_.settled) --unsettled_;
    other->post_.settled = true;
    routing_.forget(*other);
    hover_.forget(*other);
    layers_.forget(*other);
  }
  const auto is_gone = [](const Part* other) { return other->post_.gone; };
  order_.remove_if(is_gone);
  news_.forget_gone();
  for (auto* list : {&active_, &doomed_}) std::erase_if(*list, is_gone);
  for (Part* other : order_.parts())
    if (other->first_ != nullptr && other->first_->post_.gone) other->first_ = nullptr;
  graves_.insert(graves_.end(), gone.begin(), gone.end());
}

// The inner ones first.
void Stage::bury() {
  while (!graves_.empty()) {
    Part* part = graves_.back();
    graves_.pop_back();
    const std::size_t slot = part->post_.slot;
    slots_[slot].part.reset();
    ++slots_[slot].generation;
    free_slots_.push_back(slot);
  }
}

void Stage::place(Part& part, const Placement& placement) {
  if (const std::string wrong = fault_of(placement); !wrong.empty())
    refuse("part '" + part.id() + "': " + wrong);
  do_or_wait([this, handle = handle(part), placement] {
    Part* found = get(handle);
    if (found == nullptr || found->placement_ == placement) return;
    routing_.cancel(*found, context_.now);
    found->placement_ = placement;
    layout_.ask();
  });
}

void Stage::raise(Part& part) {
  do_or_wait([this, handle = handle(part)] {
    Part* found = get(handle);
    if (found == nullptr) return;
    routing_.cancel(*found, context_.now);
    order_.raise(*found);
  });
}

void Stage::lower(Part& part) {
  do_or_wait([this, handle = handle(part)] {
    Part* found = get(handle);
    if (found == nullptr) return;
    routing_.cancel(*found, context_.now);
    order_.lower(*found);
  });
}

void Stage::show(Part& part, bool visible) {
  do_or_wait([this, handle = handle(part), visible] {
    Part* found = get(handle);
    if (found == nullptr || found->post_.hidden != visible) return;
    let_go_of(*found);
    found->post_.hidden = !visible;
    tell_container(*found, [&](Container& outer) { outer.child_shown(*found, visible); });
    focus_.check();
  });
}

void Stage::enable(Part& part, bool enabled) {
  do_or_wait([this, handle = handle(part), enabled] {
    Part* found = get(handle);
    if (found == nullptr || found->post_.disabled != enabled) return;
    let_go_of(*found);
    found->post_.disabled = !enabled;
    focus_.check();
  });
}

void Stage::change_to(Part& part, AnySettings settings) {
  const PartKind& kind = part.kind();
  if (const std::string wrong = kind.fault(part.id(), part.layout_box(), settings); !wrong.empty())
    refuse(wrong);
  do_or_wait([this, handle = handle(part), settings = std::move(settings)]() mutable {
    Part* found = get(handle);
    if (found == nullptr) return;
    before(*found);
    found->kind().change(*found, std::move(settings));  // done once
    after(*found);
  });
}

void Stage::closing(Part& part, const Transition& transition, bool closes) {
  tell_container(part, [&](Container& outer) { outer.child_closing(part, transition, closes); });
}

}  // namespace ubbo
