#pragma once

#include <span>
#include <string>
#include <string_view>

#include "ubbo/base/geometry.hpp"
#include "ubbo/io/take/take.hpp"

namespace ubbo::io {

/// How lengths of a recording become dp.
struct Mapping {
  Point screen{};          ///< the screen's size in dp; zero: by the panel's own resolution
  bool raw_units = false;  ///< leave lengths as the panel gives them
  Point range{};           ///< the largest panel values, where the recording does not tell them
};

/// Reads Linux kernel input events of the multi-touch protocol B from text. An event is a line
/// `E: sec.usec type code value` (type and code hexadecimal, value decimal), or
/// `Event: time sec.usec, type 3 (…), code 57 (…), value 5` (decimal), or `[sec.usec] type code value` with
/// an input device's path before the type if there are several (names, or four hexadecimal digits; the value
/// hexadecimal). Lines before the first event describe the panel: `A: code least most fuzz flat resolution`
/// (the code hexadecimal), or words `min`, `max`, `resolution` behind the name or number of an axis, with `#`
/// before them or not; `N: I: P: B: L: S:` are passed over. Panel units become dp by the described range and
/// the screen's size, or by the resolution (units a millimetre). Times count from the first event; a
/// contact's number is its tracking id; its slot keeps its place from one contact to the next. Throws
/// `InputError` with the line for a line that does not read, a time that goes back, a needed range that is
/// not described, and the type A protocol.
[[nodiscard]] Take parse_kernel_text(std::string_view text, const std::string& name, const Mapping& mapping);

/// Whether a text has the beginning of what `parse_kernel_text` reads. Looks no further than the first line
/// that tells.
[[nodiscard]] bool is_kernel_text(std::string_view text);

/// Reads the same events from raw 64-bit `struct input_event` records (24 bytes each, this machine's byte
/// order). In errors the line is the number of the event. Raw records describe no panel, so `Mapping::range`
/// gives the largest values.
[[nodiscard]] Take parse_kernel_raw(std::string_view bytes, const std::string& name, const Mapping& mapping);

/// Reads W3C Pointer Events as JSON lines: `type`, `pointerId`, `pointerType`, `clientX`, `clientY` (CSS px,
/// taken as dp), `pressure`, `timeStamp` (ms), and `coalescedEvents`, a list of the same. Events that are no
/// down, move, up or cancel, and moves of a pointer that is not down, are passed over. Throws `InputError`
/// with the line.
[[nodiscard]] Take parse_pointer_events(std::string_view text, const std::string& name);

/// A way in which touches are recorded.
struct RecordingFormat {
  const char* name;   ///< such as "kernel-raw"
  const char* means;  ///< what it is, for people
  bool (*is)(std::string_view text);
  Take (*read)(std::string_view text, const std::string& name, const Mapping& mapping);
};

/// All that is read, in the order in which a text is held against them; the last one takes any text.
[[nodiscard]] std::span<const RecordingFormat> recording_formats();

/// Reads a recording in the first of the formats that it is. `name` stands for the file in errors. Throws
/// `InputError`.
[[nodiscard]] Take parse_recording(std::string_view text, const std::string& name, const Mapping& mapping,
                                   std::span<const RecordingFormat> formats = recording_formats());

}  // namespace ubbo::io
