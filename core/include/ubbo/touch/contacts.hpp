#pragma once

#include <array>
#include <cstddef>

#include "ubbo/base/answer.hpp"
#include "ubbo/touch/filter.hpp"
#include "ubbo/touch/sample.hpp"
#include "ubbo/touch/velocity.hpp"

namespace ubbo {

namespace questions {
inline constexpr Question sound{"sample.sound"};
}
namespace answers {
using BadSample =
    AnswerWith<Number<"contact", "">, Number<"time", "ms">, Number<"open", "">, Number<"ahead", "s">>;
inline constexpr BadSample not_down{"sample.not-down", &questions::sound, false};
inline constexpr BadSample already_down{"sample.already-down", &questions::sound, false};
inline constexpr BadSample time_went_back{"sample.time-went-back", &questions::sound, false};
inline constexpr BadSample not_finite{"sample.not-finite", &questions::sound, false};
inline constexpr BadSample too_many_contacts{"sample.too-many-contacts", &questions::sound, false};
inline constexpr BadSample far_ahead{"sample.far-ahead", &questions::sound, false};
}  // namespace answers

/// What was wrong with a sample.
enum class SampleFault : std::uint8_t {
  none,
  not_down,           ///< a move or an end of a contact that is not down
  already_down,       ///< a second down without an end between
  time_went_back,     ///< earlier than the contact's last sample
  not_finite,         ///< a place or a time that is no usable number
  too_many_contacts,  ///< no room for a further contact
  far_ahead           ///< over an hour ahead of everything else while something moves
};

/// True when time and place are numbers that can be worked with.
[[nodiscard]] bool usable(const Sample& sample);
/// True when the time alone is.
[[nodiscard]] inline bool timely(const Sample& sample) {
  return sample.time >= -farthest_time && sample.time <= farthest_time;
}

/// The answer that names a fault. Needs a fault.
[[nodiscard]] const answers::BadSample& answer_of(SampleFault fault);

/// One finger on the screen, from its down to its end.
struct Contact {
  int id = 0;      ///< the platform's number; only unique on its device
  int device = 0;  ///< which device
  int slot = 0;    ///< which of the room's places it has: unique among open contacts, whatever their devices
  Sample down{};
  Sample last{};  ///< as the hardware said it
  Sample seen{};  ///< that sample with its place smoothed: what parts see
  VelocityTracker history{};
  Smoother smoother{};
  bool contested = false;  ///< it is still open which part may drag with it: none may yet
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
    Contact* contact = nullptr;  ///< its `seen` is the sample, mended if it had to be; null: it was dropped
    SampleFault fault = SampleFault::none;
  };

  /// Takes a sample, and smooths its place by a low-pass of `lag`. After an admitted `up` or `cancel` call
  /// `close` when the contact's end has been dealt with.
  Admitted admit(const Sample& sample, Micros lag = Micros{0});
  /// Forgets an ended contact; its id may come again.
  void close(Contact& contact);

  [[nodiscard]] std::size_t open_count() const { return open_count_; }
  /// The first open contact, or null.
  [[nodiscard]] Contact* first_open();
  template <class F>
  void each_open(F&& look) const {
    for (const Contact& contact : slots_)
      if (contact.open) look(contact);
  }
  /// The open contact this sample belongs to, or null.
  [[nodiscard]] Contact* find(const Sample& sample);

 private:
  std::array<Contact, room> slots_{};
  std::size_t open_count_ = 0;
};

}  // namespace ubbo
