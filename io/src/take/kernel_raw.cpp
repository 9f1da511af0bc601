#include <fmt/format.h>

#include <cstring>

#include "kernel_protocol.hpp"

namespace ubbo::io {

Take parse_kernel_raw(std::string_view bytes, const std::string& name, const Mapping& mapping) {
  constexpr std::size_t size = 24;
  kernel::Protocol protocol(name, mapping);
  if (mapping.range.x > 0.0) protocol.ranges[0].max = mapping.range.x;
  if (mapping.range.y > 0.0) protocol.ranges[1].max = mapping.range.y;
  const std::size_t count = bytes.size() / size;
  for (std::size_t i = 0; i < count; ++i) {
    const char* at = bytes.data() + i * size;
    std::int64_t seconds = 0;
    std::int64_t micros = 0;
    kernel::Event event;
    std::memcpy(&seconds, at, 8);
    std::memcpy(&micros, at + 8, 8);
    std::memcpy(&event.type, at + 16, 2);
    std::memcpy(&event.code, at + 18, 2);
    std::memcpy(&event.value, at + 20, 4);
    if (seconds < 0 || seconds > 1'000'000'000'000 || micros < 0 || micros >= 1'000'000)
      protocol.refuse(i + 1, "a time that is none", "64-bit struct input_event records");
    event.micros = seconds * 1'000'000 + micros;
    protocol.take(event, i + 1);
  }
  if (bytes.size() % size != 0)
    protocol.refuse(count + 1,
                    fmt::format("{} bytes at the end that are no whole event", bytes.size() % size),
                    "records of 24 bytes");
  return protocol.finish(count);
}

}  // namespace ubbo::io
