#include "ubbo/paint/images.hpp"

#include <filesystem>

#include "ubbo/file/read.hpp"
#include "ubbo/io/text/input_error.hpp"

namespace ubbo::paint {

Images images_in(std::string folder) {
  return [in = std::move(folder)](const std::string& name) -> std::string {
    constexpr std::uintmax_t max_size = 16U << 20U;
    const std::filesystem::path path(name);
    if (name.empty() || path.is_absolute()) return {};
    for (const auto& step : path)
      if (step == "..") return {};
    const std::filesystem::path whole = std::filesystem::path(in) / path;
    std::error_code none;
    if (!std::filesystem::is_regular_file(whole, none) || std::filesystem::file_size(whole, none) > max_size)
      return {};
    try {
      return file::read(whole.string());
    } catch (const io::InputError&) {  // then there is none
      return {};
    }
  };
}

Images images_beside(const std::string& scene_path) {
  return images_in(std::filesystem::path(scene_path).parent_path().string());
}

}  // namespace ubbo::paint
