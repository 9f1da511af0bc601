#pragma once

#include <span>
#include <string_view>

namespace ubbo::demo {

/// A file of the demo folder, carried in a program.
struct File {
  std::string_view name;
  std::string_view text;
};

/// The shipped scenes, takes, tokens and recordings.
[[nodiscard]] std::span<const File> files();

}  // namespace ubbo::demo
