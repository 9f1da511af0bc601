#pragma once

#include <cstddef>
#include <string>

namespace ubbo::file {

/// The most that is read of a file, bytes.
inline constexpr std::size_t largest = std::size_t{256} << 20U;

/// The text of a file, or of standard input where `path` is "-". Throws `io::InputError` when it cannot be
/// read, or is larger than `largest`. For scenes: `io::parse_scene(file::read(path), path)`, and in the same
/// way takes, recordings and tokens.
[[nodiscard]] std::string read(const std::string& path);

}  // namespace ubbo::file
