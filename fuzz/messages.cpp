// Any bytes of a viewer are a message that is done, or refused; and any request is answered. What is written
// goes to a folder of the fuzzer's own.
#include <unistd.h>

#include <filesystem>
#include <fstream>
#include <string>

#include "hub.hpp"
#include "requests.hpp"

namespace {

using namespace ubbo::live;

struct Room {
  std::filesystem::path folder =
      std::filesystem::temp_directory_path() / ("ubbo-fuzz-" + std::to_string(getpid()));
  std::string scene = made(folder);
  Source source{scene, ""};
  Hub hub{source, [](int, const Hub::Text&) {}, [](const std::string&) {}};
  Requests requests{hub, source, {}, {"http://127.0.0.1:80"}, "token"};

  static std::string made(const std::filesystem::path& folder) {
    std::filesystem::create_directories(folder);
    std::ofstream(folder / "a.scene.toml")
        << "title = \"a\"\n[[part]]\nid = \"frames\"\nkind = \"slider\"\nbox = [0, "
           "0, 280, 48]\n";
    return (folder / "a.scene.toml").string();
  }
};

}  // namespace

extern "C" int LLVMFuzzerTestOneInput(const unsigned char* data, std::size_t size) {
  static Room room;
  static const bool joined = (room.hub.join(1), room.hub.join(2), true);
  (void)joined;
  const std::string text(reinterpret_cast<const char*>(data), size);
  room.hub.hear(size % 3 == 0 ? 2 : 1, text);
  const std::size_t part = size / 3;
  (void)room.requests.answer(
      {.method = "GET",
       .target = std::string_view(text).substr(0, part),
       .host = size % 2 == 0 ? "127.0.0.1:80" : std::string_view(text).substr(part, part),
       .origin = std::string_view(text).substr(2 * part),
       .cookie = std::string_view(text).substr(part)});
  return 0;
}
