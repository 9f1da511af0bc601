#pragma once

#include <array>
#include <boost/asio/io_context.hpp>
#include <boost/asio/posix/stream_descriptor.hpp>
#include <boost/asio/steady_timer.hpp>
#include <functional>
#include <map>
#include <string>
#include <vector>

namespace ubbo::live {

/// Tells when files in some folders have been written, moved or taken away; many at once are one.
class Watched {
 public:
  using Counts = std::function<bool(const std::string& folder, const std::string& name)>;

  Watched(boost::asio::io_context& context, const std::vector<std::string>& folders, Counts counts,
          std::function<void()> changed);
  void stop();

 private:
  void wait();
  void look(std::size_t size);

  boost::asio::posix::stream_descriptor events_;
  boost::asio::steady_timer quiet_;  // an editor writes a file in several steps
  std::map<int, std::string> folders_;
  Counts counts_;
  std::function<void()> changed_;
  alignas(8) std::array<char, 8192> bytes_{};
};

}  // namespace ubbo::live
