// Any bytes are a recording in each of the formats that are read, or refused.
#include "ubbo/io/take/recording.hpp"

#include "ubbo/io/text/input_error.hpp"

using namespace ubbo;

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size == 0) return 0;
  const std::string_view text(reinterpret_cast<const char*>(data) + 1, size - 1);
  const io::Mapping mapping{.screen = {360, 720}, .raw_units = data[0] % 2 == 0, .range = {1079, 2159}};
  const auto formats = io::recording_formats();
  try {
    (void)formats[data[0] / 2 % formats.size()].read(text, "events", mapping);
  } catch (const io::InputError&) {
  }
  return 0;
}
