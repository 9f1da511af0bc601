#pragma once

#include <span>
#include <string>

#include "ubbo/live/page.hpp"
#include "ubbo/live/source.hpp"

namespace ubbo::live {

/// Writes the page with its scene, takes and images into a folder, which is made: files for any static host.
/// Throws `std::runtime_error`, or `io::InputError` for a scene that cannot be read.
void export_folder(Source& source, std::span<const PageFile> page, const std::string& folder);

/// Writes all of it into one HTML file that a browser opens from disk. Throws likewise.
void export_file(Source& source, std::span<const PageFile> page, const std::string& path);

}  // namespace ubbo::live
