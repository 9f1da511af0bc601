#include "ubbo/file/whole_file.hpp"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <cerrno>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <stdexcept>
#include <utility>

namespace ubbo::file {

namespace {

[[noreturn]] void fail(const std::string& path, int cause) {
  throw std::runtime_error(path + ": cannot be written: " + std::strerror(cause));
}

// While it lives no signal comes in between; those that came meanwhile come after it.
class Undisturbed {
 public:
  Undisturbed() {
    sigset_t all;
    sigfillset(&all);
    pthread_sigmask(SIG_BLOCK, &all, &before_);
  }
  Undisturbed(const Undisturbed&) = delete;
  Undisturbed& operator=(const Undisturbed&) = delete;
  ~Undisturbed() { pthread_sigmask(SIG_SETMASK, &before_, nullptr); }

 private:
  sigset_t before_{};
};

class Descriptor {
 public:
  explicit Descriptor(int number) : number_(number) {}
  Descriptor(const Descriptor&) = delete;
  Descriptor& operator=(const Descriptor&) = delete;
  ~Descriptor() {
    if (number_ >= 0) ::close(number_);
  }
  [[nodiscard]] int number() const { return number_; }
  /// False when what was written so far turns out not to be there, with the cause in errno.
  bool close() { return ::close(std::exchange(number_, -1)) == 0; }
  bool write(std::string_view bytes) const {
    while (!bytes.empty()) {
      const ssize_t done = ::write(number_, bytes.data(), bytes.size());
      if (done < 0 && errno != EINTR) return false;
      if (done > 0) bytes.remove_prefix(static_cast<std::size_t>(done));
    }
    return true;
  }

 private:
  int number_;
};

void write_straight(const std::string& path, std::string_view bytes) {
  Descriptor out(::open(path.c_str(), O_WRONLY | O_CLOEXEC));
  if (out.number() < 0 || !out.write(bytes) || !out.close()) fail(path, errno);
}

mode_t usual_rights() {
  const mode_t mask = umask(0);
  umask(mask);
  return 0666 & ~mask;
}

}  // namespace

void write_whole(const std::string& path, std::string_view bytes) {
  std::error_code ignored;
  // A link that leads nowhere yet names the file to make.
  const std::string real = std::filesystem::weakly_canonical(path, ignored).string();
  const std::string target = real.empty() ? path : real;
  struct stat there {};
  const bool exists = ::stat(target.c_str(), &there) == 0;
  if (exists && S_ISDIR(there.st_mode)) fail(path, EISDIR);
  if (exists && !S_ISREG(there.st_mode)) return write_straight(path, bytes);
  if (exists && ::access(target.c_str(), W_OK) != 0) fail(path, errno);

  const Undisturbed undisturbed;
  std::string aside = target + ".part-XXXXXX";
  Descriptor out(::mkostemp(aside.data(), O_CLOEXEC));
  if (out.number() < 0) fail(path, errno);
  const bool done = out.write(bytes) &&
                    ::fchmod(out.number(), exists ? there.st_mode & 07777 : usual_rights()) == 0 &&
                    ::fsync(out.number()) == 0 && out.close() && ::rename(aside.c_str(), target.c_str()) == 0;
  if (done) return;
  const int cause = errno;
  ::unlink(aside.c_str());
  fail(path, cause);
}

}  // namespace ubbo::file
