#pragma once

#include <cstddef>
#include <cstdint>
#include <functional>
#include <memory>
#include <span>
#include <string>

#include "ubbo/live/page.hpp"
#include "ubbo/live/source.hpp"

namespace ubbo::live {

/// How a scene is served.
struct ServerSettings {
  std::string listen = "127.0.0.1";  ///< an address of this machine
  std::uint16_t port = 0;            ///< 0: any that is free
  bool encrypted = false;            ///< TLS
  std::string certificate{};         ///< a PEM file with its chain; "": one is made
  std::string key{};                 ///< its PEM file
  bool token = false;                ///< the address has a token that counts once
  std::size_t most_connections = 256;
  std::size_t most_waiting = std::size_t{8} << 20U;  ///< bytes that a slow viewer may have to come
  int messages_a_second = 600;                       ///< of one viewer
};

/// Serves the page with a scene, until it is told to stop. One thread.
class Server {
 public:
  /// Opens the port. `log` is told what happens; `address` what to open, now and whenever its token has been
  /// used. Throws `std::runtime_error` where the address cannot be had, and `io::InputError` for a scene file
  /// that cannot be read. Source and page must outlive it.
  Server(Source& source, std::span<const PageFile> page, const ServerSettings& settings,
         std::function<void(const std::string&)> log, std::function<void(const std::string&)> address);
  Server(const Server&) = delete;
  Server& operator=(const Server&) = delete;
  ~Server();

  [[nodiscard]] std::uint16_t port() const;
  /// Serves until `stop` is called or an interrupt comes.
  void run();
  /// May be called from another thread.
  void stop();

 private:
  class Inside;
  std::unique_ptr<Inside> inside_;
};

}  // namespace ubbo::live
