#include "ubbo/live/source.hpp"

#include <fmt/format.h>

#include <algorithm>
#include <cctype>
#include <cmath>
#include <filesystem>
#include <set>
#include <stdexcept>
#include <utility>

#include "ubbo/file/read.hpp"
#include "ubbo/file/whole_file.hpp"
#include "ubbo/io/scene/scene.hpp"
#include "ubbo/io/scene/scene_edit.hpp"
#include "ubbo/io/take/take.hpp"
#include "ubbo/io/text/base64.hpp"
#include "ubbo/io/text/json.hpp"
#include "ubbo/paint/images.hpp"
#include "ubbo/skin/lettering.hpp"
#include "ubbo/ubbo.h"

namespace ubbo::live {

namespace {

namespace fs = std::filesystem;
using io::Json;

constexpr std::string_view take_end = ".take.csv";
constexpr int most_items = 200;
constexpr std::size_t most_of_takes = std::size_t{16} << 20U;  // bytes of all together
constexpr int most_of_a_name = 1000;
constexpr std::uintmax_t largest_take = std::uintmax_t{4} << 20U;

std::string folder_of(const std::string& path) {
  const std::string folder = fs::path(path).parent_path().string();
  return folder.empty() ? "." : folder;
}

std::string base64_of(const std::string& bytes) {
  return io::to_base64({reinterpret_cast<const std::uint8_t*>(bytes.data()), bytes.size()});
}

// The stage of a scene as it begins, as the page draws it: so that it is seen before the library is there.
// Null where only a tool of one's own can read it.
Json first_picture(const std::string& text, const std::string& name) {
  const ubbo_scene scene = ubbo_scene_read(text.c_str(), name.c_str(), "");
  const ubbo_run run = scene == 0 ? 0 : ubbo_run_begin(scene);
  Json made;
  if (run != 0) {
    made = {{"w", ubbo_width(run)}, {"h", ubbo_height(run)}};
    for (const auto& [look, dark] : {std::pair{"day", 0}, {"dark", 1}}) {
      std::size_t letters = 0;
      std::vector<double> numbers(ubbo_picture(run, dark, 1.0, nullptr, 0, nullptr, 0, &letters));
      std::string texts(letters, '\0');
      ubbo_picture(run, dark, 1.0, numbers.data(), numbers.size(), texts.data(), texts.size(), &letters);
      // Places, turns and opacities, finer than anybody sees.
      for (double& number : numbers) number = std::round(number * 10000.0) / 10000.0;
      made[look] = std::move(numbers);
      made["texts"] = std::move(texts);
    }
  }
  ubbo_run_free(run);
  ubbo_scene_free(scene);
  return made;
}

}  // namespace

Source::Source(std::string scene, std::string takes, Kinds kinds)
    : scene_(std::move(scene)), takes_(takes.empty() ? folder_of(scene_) : std::move(takes)), kinds_(kinds) {}

std::string Source::name() const { return fs::path(scene_).filename().string(); }

std::string Source::stem() const {
  const std::string whole = name();
  return whole.substr(0, whole.find(".scene.toml"));
}

std::vector<std::string> Source::folders() const {
  std::vector<std::string> all{folder_of(scene_)};
  if (takes_ != all.front()) all.push_back(takes_);
  return all;
}

bool Source::counts(const std::string& folder, const std::string& file) const {
  if (folder == folder_of(scene_) && (file == name() || images_.contains(file))) return true;
  return folder == takes_ && file.ends_with(take_end) &&
         (takes_ != folder_of(scene_) || file.starts_with(stem() + "."));
}

std::string Source::json(bool served, bool inside) {
  const std::string text = file::read(scene_);
  Json root{{"name", name()}, {"text", text}, {"takes", Json::array()}, {"images", Json::object()}};
  std::set<std::string> files;
  std::error_code none;
  for (const auto& entry : fs::directory_iterator(takes_, none)) {
    const std::string file = entry.path().filename().string();
    std::error_code gone;
    if (counts(takes_, file) && file.ends_with(take_end) && entry.is_regular_file(gone) &&
        entry.file_size(gone) <= largest_take)
      files.insert(file);
  }
  std::size_t sent = 0;
  for (const std::string& file : files) {
    const std::string take = file::read((fs::path(takes_) / file).string());
    if (sent + take.size() > most_of_takes) break;
    sent += take.size();
    std::string called = file.substr(0, file.size() - take_end.size());
    if (called.starts_with(stem() + ".")) called.erase(0, stem().size() + 1);
    root["takes"].push_back({{"name", called}, {"text", take}});
  }
  root["takes_left_out"] = files.size() - root["takes"].size();
  const io::SceneRead read = io::read_scene(text, name(), kinds_, {}, skin::inter_width);
  const auto bytes_of = paint::images_beside(scene_);
  images_.clear();
  for (const io::PartPlan& part : read.scene.parts) {
    const std::string& image = part.content.image;
    if (image.empty()) continue;
    const std::size_t item = image.find("{item}");
    for (int i = 1; i <= (item == std::string::npos ? 1 : most_items); ++i) {
      std::string called = image;
      if (item != std::string::npos) called.replace(item, 6, std::to_string(i));
      std::string bytes = bytes_of(called);
      if (bytes.empty()) break;
      images_[called] = std::move(bytes);
    }
  }
  for (const auto& [image, bytes] : images_)
    root["images"][image] =
        inside ? fmt::format("data:{};base64,{}", type_of(image), base64_of(bytes)) : "images/" + image;
  root["served"] = served;
  if (Json first = first_picture(text, name()); !first.is_null()) root["first"] = std::move(first);
  return io::json_text(root, -1);
}

std::string Source::image(const std::string& name) const {
  const auto found = images_.find(name);
  return found == images_.end() ? std::string() : found->second;
}

void Source::save(const std::vector<std::string>& changes) const {
  file::write_whole(scene_, io::edit_scene(file::read(scene_), name(), changes, kinds_));
}

std::string Source::keep(const std::string& called, const std::string& text) const {
  (void)io::parse_take(text, called);
  std::string plain;
  for (const char letter : called)
    plain += std::isalnum(static_cast<unsigned char>(letter)) != 0
                 ? static_cast<char>(std::tolower(static_cast<unsigned char>(letter)))
                 : '-';
  constexpr std::size_t longest = 80;
  if (plain.empty()) plain = "take";
  plain.resize(std::min(plain.size(), longest));
  for (int number = 1; number <= most_of_a_name; ++number) {
    std::string file =
        fmt::format("{}.{}{}{}", stem(), plain, number == 1 ? "" : fmt::format("-{}", number), take_end);
    const fs::path path = fs::path(takes_) / file;
    if (fs::exists(path)) continue;
    file::write_whole(path.string(), text);
    return file;
  }
  throw std::runtime_error(
      fmt::format("{} takes are called {}; another name is free", most_of_a_name, plain));
}

const char* type_of(const std::string& name) {
  constexpr std::array<std::pair<std::string_view, const char*>, 8> types{
      {{".html", "text/html; charset=utf-8"},
       {".js", "text/javascript; charset=utf-8"},
       {".css", "text/css; charset=utf-8"},
       {".json", "application/json"},
       {".wasm", "application/wasm"},
       {".woff2", "font/woff2"},
       {".png", "image/png"},
       {".svg", "image/svg+xml"}}};
  for (const auto& [end, type] : types)
    if (name.ends_with(end)) return type;
  return "application/octet-stream";
}

}  // namespace ubbo::live
