#include "ubbo/io/take/recording.hpp"

#include <array>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::io {

// A format of its own is a file that reads it and a row here.
std::span<const RecordingFormat> recording_formats() {
  static constexpr std::array formats{
      RecordingFormat{"kernel-raw", "Linux kernel input events as the device file gives them",
                      [](std::string_view text) { return text.find('\0') != std::string_view::npos; },
                      &parse_kernel_raw},
      RecordingFormat{"pointer-events", "W3C Pointer Events as JSON lines",
                      [](std::string_view text) {
                        const std::size_t first = text.find_first_not_of(" \t\r\n");
                        return first != std::string_view::npos && text[first] == '{';
                      },
                      [](std::string_view text, const std::string& name, const Mapping&) {
                        return parse_pointer_events(text, name);
                      }},
      RecordingFormat{"kernel-text", "Linux kernel input events as text", &is_kernel_text,
                      &parse_kernel_text},
      RecordingFormat{"take", "a take of ours", [](std::string_view) { return true; },
                      [](std::string_view text, const std::string& name, const Mapping&) {
                        return parse_take(text, name);
                      }},
  };
  return formats;
}

Take parse_recording(std::string_view text, const std::string& name, const Mapping& mapping,
                     std::span<const RecordingFormat> formats) {
  for (const RecordingFormat& format : formats)
    if (format.is(text)) return format.read(text, name, mapping);
  throw InputError({.file = name, .found = "a recording in no known format", .takes = "one of those given"});
}

}  // namespace ubbo::io
