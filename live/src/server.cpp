#include "ubbo/live/server.hpp"

#include <fmt/format.h>
#include <ifaddrs.h>
#include <net/if.h>
#include <netinet/in.h>

#include <boost/asio/io_context.hpp>
#include <boost/asio/ip/tcp.hpp>
#include <boost/asio/post.hpp>
#include <boost/asio/signal_set.hpp>
#include <boost/asio/ssl/context.hpp>
#include <csignal>
#include <map>
#include <optional>
#include <stdexcept>
#include <utility>

#include "certificate.hpp"
#include "connection.hpp"
#include "ubbo/file/read.hpp"
#include "watched.hpp"

namespace ubbo::live {

namespace {

namespace asio = boost::asio;
using asio::ip::tcp;

// The addresses by which this machine is reached: the one that was asked for, or all where that is any.
std::vector<std::string> names_of(const asio::ip::address& listen) {
  if (!listen.is_unspecified()) {
    if (listen.is_loopback()) return {listen.to_string(), "localhost"};
    return {listen.to_string()};
  }
  std::vector<std::string> names;
  ifaddrs* all = nullptr;
  if (getifaddrs(&all) == 0) {
    for (const ifaddrs* one = all; one != nullptr; one = one->ifa_next)
      if (one->ifa_addr != nullptr && one->ifa_addr->sa_family == AF_INET &&
          (one->ifa_flags & IFF_LOOPBACK) == 0)
        names.push_back(
            asio::ip::address_v4(
                ntohl(reinterpret_cast<const sockaddr_in*>(one->ifa_addr)->sin_addr.s_addr))  // NOLINT
                .to_string());
    freeifaddrs(all);
  }
  names.emplace_back("127.0.0.1");
  names.emplace_back("localhost");
  return names;
}

std::string in_url(const std::string& name) {
  return name.find(':') != std::string::npos ? "[" + name + "]" : name;
}

}  // namespace

class Server::Inside {
 public:
  Inside(Source& source, std::span<const PageFile> page, const ServerSettings& settings,
         std::function<void(const std::string&)> log, std::function<void(const std::string&)> address)
      : settings_(settings),
        address_(std::move(address)),
        hub_(
            source, [this](int viewer, const Hub::Text& text) { send(viewer, text); }, log),
        acceptor_(context_),
        signals_(context_, SIGINT, SIGTERM),
        watched_(
            context_, source.folders(),
            [&source](const std::string& folder, const std::string& name) {
              return source.counts(folder, name);
            },
            [this] { hub_.files_changed(); }) {
    boost::system::error_code error;
    const auto listen = asio::ip::make_address(settings.listen, error);
    if (error)
      throw std::runtime_error(
          fmt::format("--listen {}: takes an address such as 0.0.0.0 or 192.168.0.7", settings.listen));
    const tcp::endpoint end(listen, settings.port);
    acceptor_.open(end.protocol());
    acceptor_.set_option(tcp::acceptor::reuse_address(true));
    acceptor_.bind(end, error);
    if (!error) acceptor_.listen(tcp::acceptor::max_listen_connections, error);
    if (error)
      throw std::runtime_error(fmt::format("cannot listen on {}:{}: {}; --port takes another one",
                                           settings.listen, settings.port, error.message()));
    names_ = names_of(listen);
    if (settings.encrypted) encrypt();
    std::vector<std::string> origins;
    for (const std::string& name : names_) origins.push_back(origin(name));
    requests_.emplace(hub_, source, page, std::move(origins), settings.token ? secret() : "");
    shared_ = std::make_shared<Shared>();
    shared_->settings = &settings_;
    shared_->requests = &*requests_;
    shared_->hub = &hub_;
    shared_->log = std::move(log);
    shared_->joined = [this](int viewer, auto send, auto close) {
      viewers_[viewer] = {std::move(send), std::move(close)};
      hub_.join(viewer);
    };
    shared_->left = [this](int viewer) {
      viewers_.erase(viewer);
      hub_.leave(viewer);
    };
    shared_->next_viewer = [this] { return ++last_viewer_; };
    shared_->token_used = [this] { tell_address(); };
    tell_address();
    signals_.async_wait([this](const boost::system::error_code& none, int) {
      if (!none) end_all();
    });
    accept();
  }
  Inside(const Inside&) = delete;
  Inside& operator=(const Inside&) = delete;
  ~Inside() {
    end_all();
    // What is still open goes with the context, and has nobody left to tell.
    if (shared_ != nullptr) shared_->left = [](int) {};
  }

  [[nodiscard]] std::uint16_t port() const { return acceptor_.local_endpoint().port(); }
  void run() { context_.run(); }
  void stop() {
    asio::post(context_, [this] { end_all(); });
  }

 private:
  struct Way {
    std::function<void(const Hub::Text&)> send;
    std::function<void()> close;
  };

  [[nodiscard]] std::string origin(const std::string& name) const {
    return fmt::format("{}://{}:{}", settings_.encrypted ? "https" : "http", in_url(name), port());
  }

  void tell_address() {
    const std::string token = requests_->token().empty() ? "" : "?token=" + requests_->token();
    address_(origin(names_.front()) + "/" + token);
  }

  void encrypt() {
    encryption_.emplace(asio::ssl::context::tls_server);
    encryption_->set_options(asio::ssl::context::no_tlsv1 | asio::ssl::context::no_tlsv1_1);
    if (!settings_.certificate.empty()) {
      const std::string key_file = settings_.key.empty() ? settings_.certificate : settings_.key;
      const std::string chain = file::read(settings_.certificate);
      const std::string key = file::read(key_file);
      boost::system::error_code error;
      encryption_->use_certificate_chain(asio::buffer(chain), error);
      if (error)
        throw std::runtime_error(settings_.certificate +
                                 ": found no certificate; takes a PEM file with its chain");
      encryption_->use_private_key(asio::buffer(key), asio::ssl::context::pem, error);
      if (error)
        throw std::runtime_error(key_file +
                                 ": found no key of that certificate; takes a PEM file, without a password");
      return;
    }
    const Certificate made = make_certificate(names_);
    encryption_->use_certificate_chain(asio::buffer(made.chain));
    encryption_->use_private_key(asio::buffer(made.key), asio::ssl::context::pem);
  }

  void accept() {
    acceptor_.async_accept([this](const boost::system::error_code& error, tcp::socket socket) {
      if (error == asio::error::operation_aborted) return;
      if (!error && shared_->open < settings_.most_connections) {
        boost::system::error_code none;
        socket.set_option(tcp::no_delay(true), none);
        serve(std::move(socket), encryption_ ? &*encryption_ : nullptr, shared_);
      }
      accept();
    });
  }

  void send(int viewer, const Hub::Text& text) {
    if (const auto found = viewers_.find(viewer); found != viewers_.end()) found->second.send(text);
  }

  void end_all() {
    boost::system::error_code none;
    acceptor_.close(none);
    signals_.cancel(none);
    watched_.stop();
    context_.stop();
  }

  ServerSettings settings_;
  std::function<void(const std::string&)> address_;
  asio::io_context context_{1};
  std::map<int, Way> viewers_;
  Hub hub_;
  std::optional<Requests> requests_;
  std::shared_ptr<Shared> shared_;
  tcp::acceptor acceptor_;
  asio::signal_set signals_;
  std::optional<asio::ssl::context> encryption_;
  Watched watched_;
  std::vector<std::string> names_;
  int last_viewer_ = 0;
};

Server::Server(Source& source, std::span<const PageFile> page, const ServerSettings& settings,
               std::function<void(const std::string&)> log, std::function<void(const std::string&)> address)
    : inside_(std::make_unique<Inside>(source, page, settings, std::move(log), std::move(address))) {}
Server::~Server() = default;
std::uint16_t Server::port() const { return inside_->port(); }
void Server::run() { inside_->run(); }
void Server::stop() { inside_->stop(); }

}  // namespace ubbo::live
