#pragma once

#include <array>
#include <cstddef>

#include "ubbo/touch/filter.hpp"
#include "ubbo/touch/sample.hpp"
#include "ubbo/touch/velocity.hpp"

namespace ubbo {

/// What was wrong with a sample.
enum class SampleFault : std::uint8_t {
  none,
  not_down,          ///< a move or an end of a contact that is not down
  already_down,      ///< a second down without an end between
  time_went_back,    ///< earlier than the contact's last sample
  not_finite,        ///< a place or a time that is no usable number
  too_many_contacts  ///< no room for a further contact
};

/// "the time went back", …: the fault in words.
[[nodiscard]] const char* name_of(SampleFault fault);

/// One finger on the screen, from its down to its end.
struct Contact {
  static constexpr int nobody = -1;

  int id = 0;
  int device = 0;
  Sample down{};
  Sample last{};
  VelocityTracker history{};
  Smoother smoother{};
  int slot = 0;        ///< which of the room's places it has
  int owner = nobody;  ///< whoever captured it, a number of the keeper's choosing
  bool open = false;
};

/// Follows contacts through a stream of samples and keeps the stream sound.
///
/// A faulty `down` or `move` is dropped. A faulty `up` or `cancel` of an open contact is mended instead, with
/// the contact's last good place and time, since dropping it would leave the contact stuck. Never allocates
/// or throws.
class Contacts {
 public:
  static constexpr std::size_t room = 16;
  /// Places further out than this, in dp, are refused as no usable number.
  static constexpr double farthest = 1e6;

  struct Admitted {
    Contact* contact = nullptr;  ///< the contact, or null when the sample was dropped
    Sample sample{};             ///< the sample, mended if it had to be
    SampleFault fault = SampleFault::none;
  };

  /// Takes a sample. After an admitted `up` or `cancel` call `close` when the contact's end has been dealt
  /// with.
  Admitted admit(const Sample& sample);
  /// Forgets an ended contact; its id may come again.
  void close(Contact& contact);

  [[nodiscard]] std::size_t open_count() const { return open_count_; }
  /// The first open contact, or null.
  [[nodiscard]] Contact* first_open();

 private:
  Contact* find(const Sample& sample);

  std::array<Contact, room> slots_{};
  std::size_t open_count_ = 0;
};

}  // namespace ubbo
