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

}  // namespace ubbo::file
