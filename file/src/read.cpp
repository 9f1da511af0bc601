#include "ubbo/file/read.hpp"

#include <cerrno>
#include <cstdio>
#include <cstring>
#include <memory>

#include "ubbo/io/text/input_error.hpp"

namespace ubbo::file {

namespace {

using io::InputError;

struct CloseFile {
  void operator()(std::FILE* file) const { std::fclose(file); }
};
using File = std::unique_ptr<std::FILE, CloseFile>;

[[noreturn]] void refuse_file(const std::string& path, const char* action) {
  const int cause = errno;
  throw InputError({.file = path, .found = std::string("cannot be ") + action + ": " + std::strerror(cause)});
}

}  // namespace

std::string read(const std::string& path) {
  const File opened(path == "-" ? nullptr : std::fopen(path.c_str(), "rb"));
  std::FILE* file = path == "-" ? stdin : opened.get();
  if (file == nullptr) refuse_file(path, "read");
  std::string text;
  char block[65536];
  while (const std::size_t got = std::fread(block, 1, sizeof block, file)) {
    text.append(block, got);
    if (text.size() > largest)
      throw InputError({.file = path,
                        .found = "more than " + std::to_string(largest >> 20U) + " MiB",
                        .takes = "a smaller file"});
  }
  if (std::ferror(file) != 0) refuse_file(path, "read");
  return text;
}

}  // namespace ubbo::file
