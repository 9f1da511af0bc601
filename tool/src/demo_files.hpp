#pragma once

#include <span>
#include <string_view>

namespace ubbo::tool {

/// A file of the demo folder, carried in the tool.
struct DemoFile {
  std::string_view name;
  std::string_view text;
};

/// The shipped scene and its takes.
[[nodiscard]] std::span<const DemoFile> demo_files();

}  // namespace ubbo::tool
