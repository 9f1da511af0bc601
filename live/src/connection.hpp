#pragma once

#include <boost/asio/ip/tcp.hpp>
#include <boost/asio/ssl/context.hpp>
#include <functional>
#include <memory>
#include <string>

#include "hub.hpp"
#include "requests.hpp"
#include "ubbo/live/server.hpp"

namespace ubbo::live {

/// What connections share.
struct Shared {
  const ServerSettings* settings = nullptr;
  Requests* requests = nullptr;
  Hub* hub = nullptr;
  std::function<void(const std::string&)> log{};
  /// A viewer has come, and is sent texts and told to go by these.
  std::function<void(int viewer, std::function<void(const Hub::Text&)> send, std::function<void()> close)>
      joined{};
  std::function<void(int viewer)> left{};
  std::function<int()> next_viewer{};
  std::function<void()> token_used{};
  std::size_t open = 0;  ///< connections
};

/// Serves one connection until it ends; by TLS where there is a context for it.
void serve(boost::asio::ip::tcp::socket socket, boost::asio::ssl::context* encryption,
           const std::shared_ptr<Shared>& shared);

}  // namespace ubbo::live
