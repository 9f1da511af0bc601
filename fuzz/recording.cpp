// Any bytes are a recording of the kernel's or of pointer events, or refused.
#include "ubbo/io/take/recording.hpp"

#include "ubbo/io/text/input_error.hpp"

using namespace ubbo;

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  if (size == 0) return 0;
  const std::string_view text(reinterpret_cast<const char*>(data) + 1, size - 1);
  const io::Mapping mapping{.screen = {360, 720}, .raw_units = data[0] % 2 == 0};
  try {
    if (data[0] < 80)
      (void)io::parse_kernel_text(text, "events", mapping);
    else if (data[0] < 160)
      (void)io::parse_kernel_raw(text, "events", mapping, {1079, 2159});
    else
      (void)io::parse_pointer_events(text, "events");
  } catch (const io::InputError&) {
  }
  return 0;
}
