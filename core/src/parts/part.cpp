#include "ubbo/parts/part.hpp"

#include <algorithm>

#include "ubbo/parts/hover.hpp"
#include "ubbo/parts/kind.hpp"
#include "ubbo/parts/rail.hpp"
#include "ubbo/stage/routing.hpp"

namespace ubbo {

Part::Part(std::string id, const Box& box, Context& context)
    : id_(std::move(id)),
      log_{&context.journal, std::string_view(id_)},
      layout_box_(box),
      placement_(Placement::of(box)),
      context_(&context) {}

void Part::set_feels(const Feels& feels) {
  check_feels(feels);
  own_feels_ = std::make_unique<const Feels>(feels);
}

const Content& Part::content() const {
  static const Content none;
  return content_ ? *content_ : none;
}

void Part::set_content(Content content) {
  content_ = content.empty() ? nullptr : std::make_unique<const Content>(std::move(content));
}

Accessible Part::accessible() const {
  Accessible told{.role = kind().role, .disabled = !enabled(), .keys = kind().keys};
  present(told);
  return told;
}

double Part::hover() const { return hover(0); }

double Part::hover(int piece, HoverShare share) const {
  return context().hover == nullptr ? 0.0 : context().hover->share_of(*this, piece, share);
}

Box Part::box() const {
  Box here = layout_box_ + moved();
  const Part* inner = this;
  for (const Part* context = outer_; context != nullptr; context = context->outer_) {
    here = here + context->carries_part(*inner);
    inner = context;
  }
  return here;
}

bool Part::visible() const {
  for (const Part* part = this; part != nullptr; part = part->outer_) {
    if (part->post_.hidden || part->post_.gone || part->absent()) return false;
    if (part->outer_ != nullptr && part->outer_->child_use_of(*part) == ChildUse::gone) return false;
  }
  return true;
}

bool Part::in_sight() const {
  for (const Part* part = this; part != nullptr; part = part->outer_)
    if (part->sight_ != Sight::clear && (part->sight_ == Sight::behind || part->opacity() <= 0.0))
      return false;
  return visible();
}

bool Part::removing() const {
  const Part* part = this;
  while (part != nullptr && !part->post_.doomed) part = part->outer_;
  return part != nullptr;
}

bool Part::enabled() const {
  const Part* part = this;
  while (part != nullptr && !part->post_.disabled) part = part->outer_;
  return part == nullptr;
}

bool Part::takes(Point at) const { return window().contains(at) && reached(at); }

bool Part::reached(Point at) const {
  for (const Part* part = this; part != nullptr; part = part->outer_) {
    if (part != this && (!part->window().contains(at) || part->shut())) return false;
    if (part->outer_ != nullptr && part->outer_->child_use_of(*part) != ChildUse::used) return false;
  }
  return true;
}

// What a key and an action do alike is told as what it was.
void Part::decide_facts(const Answer& answer, std::initializer_list<Fact> facts) const {
  if (!log_.journal->on()) return;
  using namespace answers;
  constexpr std::array<const Answer*, 3> by_key{&key_moves, &key_at_end, &key_activates};
  constexpr std::array<const Answer*, 3> by_call{&call_moves, &call_at_end, &call_activates};
  constexpr std::array<const Answer*, 3> by_wheel{&wheel_moves, &wheel_at_end, &key_activates};
  // Of the contact by which a wheel drags, people are told what the wheel does.
  constexpr std::array of_contacts{&questions::owner, &questions::contest, &questions::drag,
                                   &questions::speed};
  if (context_->cause == Cause::wheel &&
      std::find(of_contacts.begin(), of_contacts.end(), answer.question) != of_contacts.end())
    return;
  const Answer* said = &answer;
  if (answer.question == &questions::key &&
      (context_->cause == Cause::call || context_->cause == Cause::wheel))
    for (std::size_t i = 0; i < by_key.size(); ++i)
      if (by_key[i] == &answer) said = (context_->cause == Cause::call ? by_call : by_wheel)[i];
  log_.journal->record_facts(context_->now, log_.part, *said, facts);
}

const char* name_of(MomentKind kind) {
  static constexpr std::array names{"threshold crossed", "step passed", "end reached",
                                    "snapped",           "long press",  "committed"};
  return names[static_cast<std::size_t>(kind)];
}

std::unique_ptr<Part> unseen_part(Context& context) {
  struct Unseen final : Part {
    explicit Unseen(Context& around) : Part("", {}, around) {}
    [[nodiscard]] const PartKind& kind() const override {
      static const PartKind kind{.name = "unseen"};
      return kind;
    }
  };
  return std::make_unique<Unseen>(context);
}

void Part::hear() {
  if (context_->part_owner != nullptr && !post_.there) {
    post_.heard_early = true;  // it is told once it is there
    return;
  }
  if (context_->part_owner != nullptr) return context_->part_owner->heard(*this);
  context_->write = detail::Writing::now();
  cell_changed();
  update();
}

void Part::ask(std::function<void()> action, WhileHeld how) {
  if (context_->part_owner != nullptr && post_.there)
    return context_->part_owner->call(*this, how, std::move(action));
  action();
  update();
}

}  // namespace ubbo
