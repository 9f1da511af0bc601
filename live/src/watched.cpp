#include "watched.hpp"

#include <sys/inotify.h>

#include <chrono>
#include <cstring>
#include <stdexcept>
#include <utility>

namespace ubbo::live {

Watched::Watched(boost::asio::io_context& context, const std::vector<std::string>& folders, Counts counts,
                 std::function<void()> changed)
    : events_(context), quiet_(context), counts_(std::move(counts)), changed_(std::move(changed)) {
  const int descriptor = inotify_init1(IN_NONBLOCK | IN_CLOEXEC);
  if (descriptor < 0) throw std::runtime_error("files cannot be watched: inotify is not there");
  events_.assign(descriptor);
  for (const std::string& folder : folders) {
    // A file is often replaced as a whole, so that its folder is what is watched.
    const int watch = inotify_add_watch(descriptor, folder.c_str(),
                                        IN_CLOSE_WRITE | IN_MOVED_TO | IN_MOVED_FROM | IN_DELETE | IN_CREATE);
    if (watch < 0) throw std::runtime_error("cannot watch the folder " + folder);
    folders_[watch] = folder;
  }
  wait();
}

void Watched::stop() {
  boost::system::error_code none;
  events_.close(none);
  quiet_.cancel();
}

void Watched::wait() {
  events_.async_read_some(boost::asio::buffer(bytes_),
                          [this](const boost::system::error_code& error, std::size_t size) {
                            if (error) return;
                            look(size);
                            wait();
                          });
}

void Watched::look(std::size_t size) {
  bool any = false;
  for (std::size_t at = 0; at + sizeof(inotify_event) <= size;) {
    inotify_event event{};
    std::memcpy(&event, bytes_.data() + at, sizeof event);
    const char* name = bytes_.data() + at + sizeof event;
    const auto folder = folders_.find(event.wd);
    if (event.len > 0 && folder != folders_.end()) any = counts_(folder->second, name) || any;
    at += sizeof event + event.len;
  }
  if (!any) return;
  quiet_.expires_after(std::chrono::milliseconds(60));
  quiet_.async_wait([this](const boost::system::error_code& error) {
    if (!error) changed_();
  });
}

}  // namespace ubbo::live
