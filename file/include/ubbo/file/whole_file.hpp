#pragma once

#include <string>
#include <string_view>

/// Files that are there whole or not at all.
namespace ubbo::file {

/// Writes `bytes` as all that `path` holds: aside, in the same folder, checked, and then renamed, with
/// signals held back meanwhile. Whatever fails or interrupts, `path` holds what it held before, or all of
/// `bytes`. A link is followed, the file's rights are kept; what is no plain file, such as a device or a
/// pipe, is written straight. Throws `std::runtime_error` that names the path and the reason.
void write_whole(const std::string& path, std::string_view bytes);

/// A folder of its own for passing files, removed with all it holds when it goes. Throws `std::runtime_error`
/// when none can be made.
class PassingFolder {
 public:
  PassingFolder();
  PassingFolder(const PassingFolder&) = delete;
  PassingFolder& operator=(const PassingFolder&) = delete;
  ~PassingFolder();
  [[nodiscard]] const std::string& path() const { return path_; }

 private:
  std::string path_;
};

}  // namespace ubbo::file
