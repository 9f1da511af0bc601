#pragma once

#include <span>
#include <string>
#include <string_view>

namespace ubbo::live {

/// A file of the page.
struct PageFile {
  std::string_view name;
  std::string_view bytes;
};

/// The page that this build carries; nothing where it was built without.
[[nodiscard]] std::span<const PageFile> page_files();

}  // namespace ubbo::live
