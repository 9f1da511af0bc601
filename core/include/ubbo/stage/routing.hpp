#pragma once

#include <array>
#include <memory>
#include <vector>

#include "ubbo/parts/part.hpp"

namespace ubbo {

/// Decides which part owns a contact, and says why.
///
/// A contact belongs to the topmost part it goes down on and to the parts that one lies in. The innermost has
/// it first, so that a press shows at once. If one of them is a handle, or nobody contests it, that is all.
/// Else the first move past a drag threshold decides: the innermost part that follows drags along that axis,
/// can go that way, and need not stand back, wins, and the one that had it gets a cancel. A dragged part that
/// cannot follow any further hands the contact to the nearest of the others that can, inner ones first, at
/// the very place of its end. At any time one part owns a contact.
class Routing {
 public:
  using Parts = std::vector<std::unique_ptr<Part>>;

  explicit Routing(Surroundings& around) : around_(&around) {}

  /// A contact went down.
  void offer(const Parts& parts, Contact& contact, const Sample& sample);
  /// It moved or ended.
  void deliver(const Parts& parts, Contact& contact, const Sample& sample);

 private:
  static constexpr std::size_t most_rivals = 8;

  // The parts a contact may go to, innermost first, and whether that is still open.
  struct Contest {
    std::array<int, most_rivals> chain{};
    std::size_t count = 0;
    bool open = false;
  };

  [[nodiscard]] Contest& contest_of(const Contact& contact) {
    return contests_[static_cast<std::size_t>(contact.slot)];
  }
  void gather(const Parts& parts, std::size_t topmost, Contest& contest) const;
  void refuse(const Sample& sample, std::string_view why, const Fact& fact) const;
  void resolve(const Parts& parts, Contact& contact, const Sample& sample);
  int choose(const Parts& parts, const Contest& contest, const Contact& contact, const Sample& sample) const;
  void pass_on(const Parts& parts, Contact& contact, const Sample& sample);

  Surroundings* around_;
  std::array<Contest, Contacts::room> contests_{};
};

}  // namespace ubbo
