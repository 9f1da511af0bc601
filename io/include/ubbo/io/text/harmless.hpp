#pragma once

#include <string>
#include <string_view>

namespace ubbo::io {

/// Text from a file as it may go to a terminal: what would command it is written out (`\u001b`), a byte that
/// is no UTF-8 becomes U+FFFD. New lines and tabs stay. JSON that this is done to means the same afterwards.
[[nodiscard]] std::string harmless(std::string_view text);

/// The last part of a path, without a file system: "b.toml" of "a/b.toml".
[[nodiscard]] inline std::string_view file_name(std::string_view path) {
  return path.substr(path.find_last_of('/') + 1);  // none: from the beginning
}

}  // namespace ubbo::io
