#include "ubbo/file/whole_file.hpp"

#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

#include <array>
#include <cerrno>
#include <csignal>
#include <cstring>
#include <filesystem>
#include <mutex>
#include <stdexcept>
#include <utility>

namespace ubbo::file {

namespace {

[[noreturn]] void fail(const std::string& path, int cause) {
  throw std::runtime_error(path + ": cannot be written: " + std::strerror(cause));
}

volatile std::sig_atomic_t came = 0;
void remember(int signal) { came = signal; }

// While one lives a signal that would end the program waits, whichever of its threads it reaches: a mask
// would count for this thread alone, and libraries have threads of their own.
class Undisturbed {
 public:
  Undisturbed() {
    const std::lock_guard guard(lock_);
    if (alive_++ > 0) return;
    came = 0;
    struct sigaction waits {};
    waits.sa_handler = remember;
    waits.sa_flags = SA_RESTART;
    for (std::size_t i = 0; i < ends.size(); ++i) {
      ::sigaction(ends[i], &waits, &before_[i]);
      if (before_[i].sa_handler == SIG_IGN) ::sigaction(ends[i], &before_[i], nullptr);
    }
  }
  Undisturbed(const Undisturbed&) = delete;
  Undisturbed& operator=(const Undisturbed&) = delete;
  ~Undisturbed() {
    const std::lock_guard guard(lock_);
    if (--alive_ > 0) return;
    for (std::size_t i = 0; i < ends.size(); ++i) ::sigaction(ends[i], &before_[i], nullptr);
    if (came != 0) (void)std::raise(came);
  }

 private:
  static constexpr std::array ends{SIGINT, SIGTERM, SIGHUP, SIGQUIT, SIGALRM, SIGUSR1, SIGUSR2};
  inline static std::mutex lock_;
  inline static int alive_ = 0;
  inline static std::array<struct sigaction, ends.size()> before_{};
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
